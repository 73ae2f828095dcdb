package ell.desk.talk;

import ell.core.entry.Entry;
import ell.core.quantity.Unit;
import ell.core.sheet.Worked;
import ell.core.talk.ChainSuspects;
import ell.core.talk.Link;
import ell.core.talk.LinkPlan;
import ell.core.talk.PinMap;
import ell.desk.shell.Margin;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/// What the margin says of the face that is shown.
final class TalkMargin {
  private static final int MOST = 14;

  private TalkMargin() {}

  static Margin of(TalkModel.Shown s) {
    return switch (s.face()) {
      case STRIP -> strip(s);
      case LINKS -> links(s);
      case PINS -> pins(s);
      case CHAIN -> chain(s);
    };
  }

  private static Margin strip(TalkModel.Shown s) {
    List<Margin.Note> notes = new ArrayList<>();
    Optional<Worked> sheet = Optional.empty();
    if (s.talk().isPresent()) {
      Entry.Talk t = s.talk().get();
      Worked.Builder b = Worked.of("talk.run", t.script().isEmpty() ? "by hand" : t.script());
      b.line("open for", t.line(), t.seconds(), Unit.SECOND);
      b.line("sent", "bytes", t.sent(), Unit.ONE);
      b.line("heard", "bytes", t.heard(), Unit.ONE);
      if (t.restarts() > 0) {
        b.line("restarts", "beginnings after the first", t.restarts(), Unit.ONE);
      }
      if (t.lost() > 0) {
        b.line("sent again", "bytes that were not answered", t.lost(), Unit.ONE);
      }
      t.verdict().ifPresent(b::verdict);
      sheet = Optional.of(b.done());
      if (!t.told().isEmpty()) {
        notes.add(Margin.Note.plain("What it may mean", t.told()));
      }
    }
    s.script()
        .ifPresent(x ->
            notes.add(
                Margin.Note.plain(
                    x.name() + (x.operation().isEmpty() ? "" : ", for " + x.operation()),
                    numbered(x.steps().stream().map(p -> p.words()).toList()))));
    List<String> told = s.work().plan().talk().told();
    if (!told.isEmpty()) {
      notes.add(Margin.Note.plain("Guessed", told));
    }
    notes.add(
        Margin.Note.care(
            List.of(
                "A board that is loaded may begin to act: keep clear of motors, heaters and radios.",
                "A cable that gives 5 V levels can destroy a controller of 3.3 V: read its sheet.")));
    notes.add(
        Margin.Note.wrong(
            List.of(
                "nothing: power, the other way round, another port, a link between",
                "no text: the rate; the crystal, or what the code takes it to be",
                "it speaks and does not hear: its receiving pin, or something else on the line",
                "only its loader: a strap that is pulled the wrong way",
                "its banner again and again: a watchdog, or a supply that gives way")));
    return new Margin(sheet, notes);
  }

  private static List<String> numbered(List<String> steps) {
    List<String> all = new ArrayList<>();
    for (int i = 0; i < steps.size(); i++) {
      all.add((i + 1) + "  " + steps.get(i));
    }
    return all;
  }

  private static Margin links(TalkModel.Shown s) {
    List<Margin.Note> notes = new ArrayList<>();
    s.operation().ifPresent(o -> notes.add(Margin.Note.plain(o.operation().name(), before(o))));
    s.operations()
        .ifPresent(p ->
            notes.add(
                Margin.Note.plain(
                    "In all",
                    List.of(
                        p.heats()
                            + (p.heats() == 1 ? " change" : " changes")
                            + " with the iron, "
                            + p.changes()
                            + " of links"
                            + (p.proven()
                                ? "; no order has fewer"
                                : "; the best that was found")))));
    List<String> told = s.work().plan().talk().told();
    if (!told.isEmpty()) {
      notes.add(Margin.Note.plain("Guessed", told));
    }
    notes.add(
        Margin.Note.care(
            List.of(
                "No power while a link is soldered: the supply off, cables out, cells out.",
                "Each change heats the pads: after a few they lift.")));
    return new Margin(Optional.empty(), notes);
  }

  static List<String> before(LinkPlan.Step o) {
    List<String> all = new ArrayList<>();
    o.changes()
        .forEach(c ->
            all.add(
                c.link()
                    + " is "
                    + Link.word(c.from())
                    + ": "
                    + (c.to() ? "close" : "open")
                    + " it"
                    + (c.iron() ? " with the iron" : "")));
    o.plug().forEach(p -> all.add(p + " must be in"));
    o.unplug().forEach(p -> all.add(p + " must be out"));
    if (all.isEmpty()) {
      all.add("as everything stands it can begin");
    }
    return all;
  }

  private static Margin pins(TalkModel.Shown s) {
    List<Margin.Note> notes = new ArrayList<>();
    if (s.pins().isPresent()) {
      PinMap m = s.pins().get();
      if (!m.unmet().isEmpty()) {
        notes.add(
            Margin.Note.plain(
                "No pin for", m.unmet().stream().map(u -> u.signal() + ": " + u.why()).toList()));
      }
      if (!m.ways().isEmpty()) {
        notes.add(
            Margin.Note.plain(
                "Ways out, the cheapest first",
                m.ways().stream().limit(MOST).map(PinMap.Way::words).toList()));
      }
      if (!m.straps().isEmpty()) {
        notes.add(
            Margin.Note.plain(
                "Straps", m.straps().stream().map(t -> t.pin() + ": " + t.why()).toList()));
      }
      List<String> conflicts =
          m.conflicts().stream()
              .map(c -> String.join(", ", c.signals()) + ": " + c.why())
              .limit(MOST)
              .toList();
      if (!conflicts.isEmpty()) {
        notes.add(Margin.Note.plain("Conflicts", conflicts));
      }
      notes.add(
          Margin.Note.plain(
              "Changes of the code", m.changes().isEmpty() ? List.of("none") : m.changes()));
    }
    return new Margin(Optional.empty(), notes);
  }

  private static Margin chain(TalkModel.Shown s) {
    List<Margin.Note> notes = new ArrayList<>();
    s.suspects()
        .filter(x -> !x.suspects().isEmpty())
        .ifPresent(x -> {
          notes.add(
              Margin.Note.plain(
                  "What explains it",
                  x.suspects().stream().limit(MOST).map(TalkMargin::words).toList()));
          x.next()
              .ifPresent(n ->
                  notes.add(
                      Margin.Note.plain(
                          "Look next",
                          List.of(
                              "at "
                                  + n.place()
                                  + ": "
                                  + n.what()
                                  + String.format(
                                      Locale.ROOT, " (%.0f %% that it is)", 100 * n.there())))));
        });
    notes.add(
        Margin.Note.wrong(
            List.of(
                "the first is dark: its data's high is too low, or the wrong pin of the code",
                "all of them wrong alike: the order of colours in the code",
                "wrong or flickering from somewhere on: the supply sags, feed it again there")));
    return new Margin(Optional.empty(), notes);
  }

  private static String words(ChainSuspects.Suspect x) {
    return String.format(Locale.ROOT, "%.0f %%  %s: %s", 100 * x.chance(), x.fault(), x.why());
  }
}
