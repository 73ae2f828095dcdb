package ell.desk.order;

import ell.core.board.Part;
import ell.core.board.Side;
import ell.core.heat.HeatFacts;
import ell.core.order.Bodies;
import ell.core.order.BuildOrder;
import ell.core.order.OrderFacts;
import ell.core.order.Schools;
import ell.core.order.SeveralBoards;
import ell.core.order.Step;
import ell.core.order.StepTimes;
import ell.core.order.Wish;
import ell.core.sheet.Worked;
import ell.desk.shell.Margin;
import ell.desk.shell.Snapshot;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/// What the margin says of the step in hand: why now, how, what is near it, and the sheets of
/// minutes, of the two schools and of several boards.
final class OrderMargin {
  private final Snapshot.Work work;
  private final StepTimes times;
  private final List<Wish> wishes;
  private final Optional<Schools> schools;
  private final Optional<SeveralBoards> several;
  private final Optional<Bodies> bodies;

  /// @param bodies of the parts, where what is near is to be told
  OrderMargin(
      Snapshot.Work work,
      StepTimes times,
      List<Wish> wishes,
      Optional<Schools> schools,
      Optional<SeveralBoards> several,
      Optional<Bodies> bodies) {
    this.work = work;
    this.times = times;
    this.wishes = wishes;
    this.schools = schools;
    this.several = several;
    this.bodies = bodies;
  }

  /// Says it.
  ///
  /// @param named a part that was clicked, empty when none was
  /// @param sheet which of the sheets, counted round and round
  Margin say(Step s, List<String> row, String named, int sheet) {
    List<Margin.Note> notes = new ArrayList<>();
    if (!s.cautions().isEmpty()) {
      notes.add(Margin.Note.care(s.cautions()));
    }
    notes.add(Margin.Note.plain("Why now", s.reasons()));
    if (!s.how().isEmpty()) {
      notes.add(Margin.Note.plain("How", s.how()));
    }
    if (!s.parts().isEmpty()) {
      near(row.getFirst()).ifPresent(notes::add);
    }
    if (!named.isEmpty()) {
      work.plan().revision().part(named).ifPresent(p -> notes.add(about(p)));
    }
    List<String> mind = new ArrayList<>(work.plan().order().mind());
    if (!wishes.isEmpty()) {
      notes.add(Margin.Note.plain("You want", wishes.stream().map(Wish::text).limit(12).toList()));
    }
    if (!mind.isEmpty()) {
      notes.add(new Margin.Note(Margin.Kind.WRONG, "Mind", mind.stream().limit(8).toList()));
    }
    List<Worked> sheets = sheets();
    return new Margin(Optional.of(sheets.get(sheet % sheets.size())), notes);
  }

  /// What is near a part, and where.
  private Optional<Margin.Note> near(String first) {
    Optional<Part.Spot> own = work.plan().revision().part(first).flatMap(Part::place);
    if (own.isEmpty() || bodies.isEmpty()) {
      return Optional.empty();
    }
    List<String> lines = new ArrayList<>();
    for (Bodies.Neighbour n : bodies.get().nearest(first, 4)) {
      Part.Spot there =
          work.plan().revision().part(n.reference()).flatMap(Part::place).orElseThrow();
      lines.add(
          n.reference()
              + (n.distanceMm() < 0.05
                  ? " over or under it"
                  : String.format(
                      Locale.ROOT, " %.1f mm %s", n.distanceMm(), where(own.get(), there))));
    }
    return lines.isEmpty()
        ? Optional.empty()
        : Optional.of(Margin.Note.plain("Near " + first, lines));
  }

  /// A direction as it is seen on the drawing, which is turned for the second side.
  private static String where(Part.Spot from, Part.Spot to) {
    double dx = (to.xMm() - from.xMm()) * (from.side() == Side.SECOND ? -1 : 1);
    double dy = to.yMm() - from.yMm();
    return Math.abs(dx) > Math.abs(dy)
        ? dx > 0 ? "to the right" : "to the left"
        : dy > 0 ? "above" : "below";
  }

  private List<Worked> sheets() {
    List<Worked> all = new ArrayList<>();
    all.add(minutes());
    schools.ifPresent(x -> all.add(x.worked()));
    several.filter(x -> x.boards() > 1).ifPresent(x -> all.add(x.sheet()));
    return all;
  }

  private Margin.Note about(Part p) {
    List<String> lines = new ArrayList<>();
    lines.add(p.label());
    lines.add("code " + p.code());
    work.plan()
        .order()
        .placing(p.reference())
        .ifPresent(s -> lines.add("placed in step " + s.number()));
    int heated = HeatFacts.of(work.state()).heatCycles().getOrDefault(p.reference(), 0);
    lines.add("heated " + heated + (heated == 1 ? " time" : " times"));
    work.state().findings().stream()
        .filter(f -> f.place().split("\\.")[0].equals(p.reference()))
        .forEach(f -> lines.add(f.what()));
    return Margin.Note.plain(p.reference(), lines);
  }

  private Worked minutes() {
    List<Step> steps = work.plan().order().steps();
    double total = times.seconds(steps) / 60;
    double left =
        times.seconds(steps.stream().filter(s -> !OrderFacts.of(work.state()).done(s)).toList())
            / 60;
    BuildOrder.Effort effort = work.plan().order().effort();
    Worked.Builder s =
        Worked.of("order.minutes", "Minutes of work on this board")
            .line("all steps", "sum of the steps", total, "min")
            .line("left", "of the steps that are open", left, "min")
            .line(
                "reels, ways",
                "changes of reel, ways of the hand, turning the board",
                effort.seconds() / 60,
                "min")
            .line(
                "least",
                effort.exact()
                    ? "no order needs less: found by trying all"
                    : "no order needs less: least trees through the parts of each reel",
                effort.bound() / 60,
                "min")
            .result("minutes", total)
            .assume("place 6 s, change of reel 15 s, iron 20 s, a pin 4 s, a plate load 8 min");
    times
        .factors()
        .forEach((a, f) ->
            s.line(
                a.words(),
                "times as long as typical, from " + times.steps().get(a) + " steps",
                f,
                ""));
    return s.source("typical times, no source, corrected by the book").done();
  }
}
