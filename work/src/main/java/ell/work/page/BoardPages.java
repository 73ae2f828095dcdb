package ell.work.page;

import ell.book.Build;
import ell.core.beep.BeepCheck;
import ell.core.beep.BeepFacts;
import ell.core.beep.BeepList;
import ell.core.board.Part;
import ell.core.entry.Entry;
import ell.core.order.BuildOrder;
import ell.core.order.OrderFacts;
import ell.core.order.Step;
import ell.core.order.StepWords;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.core.rack.Plan;
import ell.core.rack.Standing;
import ell.core.record.BoardRecord;
import ell.core.record.Section;
import ell.work.Workshop;
import ell.work.send.RecordMaker;
import ell.work.space.ActException;
import ell.work.word.Words;
import java.io.IOException;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// The pages of a workspace, made from the same answers as every other door gives.
final class BoardPages {
  /// The step in hand and so many less one after it.
  private static final int SHOWN = 6;

  private final Workshop w;
  private final Words words;

  /// @param words the language that they are read in
  BoardPages(Workshop w, Words words) {
    this.w = w;
    this.words = words;
  }

  /// Where all boards are, each the way to its own page.
  String boards() throws IOException, ActException {
    Html h = new Html(words).say("h1", "", "Boards");
    if (w.book().builds().isEmpty()) {
      h.say("p", "soft", "no build yet, so there are no boards");
    }
    for (Build b : w.book().builds()) {
      h.say("h2", "", b.design() + " rev " + b.revision() + " · build " + b.id());
      h.open("ul", "rack");
      for (String serial : b.boards()) {
        Standing s = w.standing(serial);
        h.open("li", mark(s.mark())).open("span", "sign").raw(sign(s.mark())).close("span");
        h.link(way(serial, ""), "board", serial)
            .say("span", "stage", s.stage().title())
            .say("span", "state", s.phrase())
            .close("li");
      }
      h.close("ul");
    }
    return h.toString();
  }

  private static String mark(Standing.Mark m) {
    return "mark-" + m.name().toLowerCase(java.util.Locale.ROOT);
  }

  private static String sign(Standing.Mark m) {
    return switch (m) {
      case OUT -> "×";
      case WITHIN -> "✓";
      case CLOSE -> "~";
      case NEXT -> "→";
      case NOT_YET -> "·";
    };
  }

  /// The way to a page of a board.
  static String way(String serial, String page) {
    String name = URLEncoder.encode(serial, StandardCharsets.UTF_8).replace("+", "%20");
    return "/board/" + name + (page.isEmpty() ? "" : "/" + page);
  }

  private Html head(String serial, Plan plan, String here) throws IOException, ActException {
    Standing s = w.standing(serial);
    Html h = new Html(words);
    h.say("h1", "", "Board " + serial);
    h.say("p", "state", plan.revision().title() + " · " + s.stage().title() + " · " + s.phrase());
    h.open("nav", "");
    for (Map.Entry<String, String> e :
        List.of(Map.entry("", "Step"), Map.entry("beep", "Beep"), Map.entry("record", "Record"))) {
      h.link(way(serial, e.getKey()), e.getKey().equals(here) ? "here" : "", e.getValue());
    }
    return h.close("nav");
  }

  /// The step in hand, and those that come after it.
  String step(String serial) throws IOException, ActException {
    Plan plan = w.plan(w.buildOf(serial));
    BuildOrder order = plan.order();
    OrderFacts facts = OrderFacts.of(w.state(serial));
    Map<String, String> bins = w.stockroom().bins();
    Html h = head(serial, plan, "");
    List<Step> open = order.steps().stream().filter(s -> !facts.done(s)).limit(SHOWN).toList();
    if (open.isEmpty()) {
      return h.say("p", "card", "every step of the order is done").toString();
    }
    for (Step s : open) {
      boolean inHand = s == open.getFirst();
      h.open("section", inHand ? "card" : "later");
      h.say("div", "number", s.number() + " of " + order.steps().size());
      for (String care : s.cautions()) {
        h.say("p", "care", "take care: " + care);
      }
      h.say("h2", "", StepWords.what(s));
      h.say("p", "detail", StepWords.detail(s, plan.revision(), bins));
      if (inHand) {
        values(h, s, plan);
        StepWords.broken(s, order).forEach(b -> h.say("p", "care", b));
        s.how().forEach(how -> h.say("p", "", how));
        h.say("p", "soft", "why now: " + String.join("; ", s.reasons()));
        long placed = s.parts().stream().filter(facts.placed()::contains).count();
        if (placed > 0) {
          h.say("p", "soft", placed + " of " + s.parts().size() + " placed");
        }
      }
      h.close("section");
    }
    return h.toString();
  }

  /// Parts of a step that are not like its first are said one by one.
  private static void values(Html h, Step s, Plan plan) {
    List<String> labels =
        s.parts().stream()
            .map(plan.revision()::part)
            .flatMap(Optional::stream)
            .map(Part::label)
            .distinct()
            .toList();
    if (labels.size() > 1) {
      h.say("p", "detail", String.join(" · ", labels));
    }
  }

  /// What is beeped, and what the meter showed.
  String beep(String serial) throws IOException, ActException {
    Plan plan = w.plan(w.buildOf(serial));
    BeepList list = plan.beep();
    BeepFacts facts = BeepFacts.of(w.state(serial));
    Html h = head(serial, plan, "beep");
    long made = list.checks().stream().filter(c -> facts.verdict(c.key()).isPresent()).count();
    h.say("p", "soft", made + " of " + list.checks().size() + " checks made, board unpowered");
    h.open("table", "");
    h.row("", true, List.of("", "from", "to", "expect", "shown"));
    for (BeepCheck c : list.checks()) {
      Optional<Entry.Check> shown = facts.check(c.key());
      h.row(
          shown.map(s -> "is-" + s.verdict().key()).orElse("open"),
          false,
          List.of(
              c.number() + (c.guards() ? " power waits" : ""),
              c.a().place(),
              c.b().place(),
              c.expected().text(Unit.OHM, 3),
              shown.map(s -> ohms(s.ohms()) + " " + Html.verdict(s.verdict())).orElse("")));
    }
    return h.close("table").toString();
  }

  private static String ohms(double ohms) {
    return Double.isInfinite(ohms) ? "open loop" : EngineeringNumber.print(ohms, Unit.OHM, 3);
  }

  /// The record as it would be printed.
  String record(String serial) throws IOException, ActException {
    BoardRecord r = RecordMaker.of(w, serial);
    Html h = head(serial, w.plan(w.buildOf(serial)), "record");
    h.say("p", "soft", r.build());
    h.say("p", "soft", r.printed());
    for (Section s : r.sections()) {
      h.say("h2", "", s.title()).say("p", "soft", s.note());
      h.open("table", "");
      for (Section.Row row : s.rows()) {
        row(h, row, s.widths().size());
      }
      h.close("table");
    }
    return h.say("p", "seal", r.seal()).toString();
  }

  private static void row(Html h, Section.Row row, int columns) {
    switch (row) {
      case Section.Cells c -> {
        List<String> cells = new java.util.ArrayList<>(c.cells());
        c.verdict().ifPresent(v -> cells.add(Html.verdict(v)));
        h.row(
            c.verdict()
                .map(v -> "is-" + v.key())
                .orElse("tone-" + c.tone().name().toLowerCase(java.util.Locale.ROOT)),
            false,
            cells);
      }
      case Section.Strip s -> strip(h, s);
      case Section.Picture p ->
          h.row("", false, List.of(p.place(), p.name(), "photograph, kept with the book"));
      case Section.Drawing d ->
          h.open("tr", "")
              .raw("<td colspan=\"" + Math.max(1, columns) + "\">")
              .raw(Svg.of(d))
              .close("td")
              .close("tr");
    }
  }

  private static void strip(Html h, Section.Strip s) {
    h.row(
        s.verdict().map(v -> "is-" + v.key()).orElse("open"),
        false,
        List.of(
            s.place(),
            s.value().map(v -> EngineeringNumber.print(v, s.unit(), 4)).orElse("not read")
                + s.uncertainty()
                    .map(u -> " ± " + EngineeringNumber.print(u, s.unit(), 2))
                    .orElse(""),
            s.limits().map(l -> l.text(s.unit(), 4)).orElse(""),
            s.verdict().map(Html::verdict).orElse("")));
    if (s.value().isPresent() && s.limits().isPresent()) {
      h.raw("<tr class=\"strip\"><td colspan=\"4\">" + Svg.of(s) + "</td></tr>");
    }
  }
}
