package ell.desk.prove;

import ell.core.catalogue.Catalogue;
import ell.core.prove.BuildProof;
import ell.core.prove.UseGate;
import ell.core.quantity.EngineeringNumber;
import ell.core.sheet.SheetProblem;
import ell.core.sheet.Worked;
import ell.desk.shell.Margin;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/// What the margin says at a proof: what is missing before the board is used, what the plan will
/// not settle, what to take care of; over the build the worked sheet of the test that is turned to.
final class ProveMargin {
  private static final int MOST = 6;

  private ProveMargin() {}

  static Margin say(ProveModel.Shown s) {
    return s.every() ? build(s) : board(s);
  }

  private static Margin board(ProveModel.Shown s) {
    List<Margin.Note> notes = new ArrayList<>();
    if (!s.runs()) {
      s.gate().ifPresent(g -> notes.add(use(g)));
    }
    if (!s.blocks().isEmpty()) {
      notes.add(Margin.Note.plain("The plan cannot run", few(s.blocks())));
    }
    List<String> mind = new ArrayList<>(s.plan().map(p -> p.told()).orElse(List.of()));
    mind.addAll(s.mind());
    if (!mind.isEmpty()) {
      notes.add(Margin.Note.plain("Not settled by this plan", few(mind)));
    }
    List<String> care = new ArrayList<>();
    care.add(
        "The board is powered by the rules of first power; at the first surprise its output goes off."
            + " Isolated supply only.");
    s.gate().map(UseGate::caution).filter(c -> !c.isEmpty()).ifPresent(care::add);
    notes.add(Margin.Note.care(care));
    notes.add(
        Margin.Note.wrong(
            List.of(
                "a test that fails: Trace says where the fault may be",
                "too close to call: a better meter, or a longer look",
                "it comes and goes: put the step between loop 20 and end, and count")));
    return new Margin(Optional.empty(), notes);
  }

  private static Margin.Note use(UseGate g) {
    return g.open()
        ? Margin.Note.plain(
            "It may be used", List.of("nothing is missing; E lets it leave the bench"))
        : Margin.Note.plain("Before it is used", few(g.missing()));
  }

  private static List<String> few(List<String> all) {
    if (all.size() <= MOST) {
      return all;
    }
    List<String> some = new ArrayList<>(all.subList(0, MOST));
    some.add("and " + (all.size() - MOST) + " more");
    return some;
  }

  private static Margin build(ProveModel.Shown s) {
    if (s.row().isEmpty()) {
      return new Margin(
          Optional.empty(),
          List.of(
              Margin.Note.plain("Nothing yet", List.of("no test of this build is in the book"))));
    }
    BuildProof.OfTest t = s.row().get();
    List<Margin.Note> notes = new ArrayList<>();
    List<String> of = new ArrayList<>();
    of.add(
        t.n()
            + (t.n() == 1 ? " board" : " boards")
            + ", "
            + t.failed()
            + " failed"
            + (t.bad().isEmpty() ? "" : ": " + String.join(", ", t.bad())));
    if (!Double.isNaN(t.mean())) {
      of.add(
          "mean "
              + EngineeringNumber.print(t.mean(), t.unit(), 4)
              + (Double.isNaN(t.sd())
                  ? ""
                  : ", spread " + EngineeringNumber.print(t.sd(), t.unit(), 3)));
    }
    t.points().stream()
        .filter(BuildProof.Point::apart)
        .forEach(p ->
            of.add(
                "board "
                    + p.board()
                    + " stands apart: "
                    + EngineeringNumber.print(p.value(), t.unit(), 4)));
    t.gauge()
        .ifPresent(g ->
            of.add(
                String.format(
                    Locale.ROOT,
                    "%.0f %% of its spread is the meter: the same board reads %s apart",
                    100 * g.share(),
                    EngineeringNumber.print(g.repeatability(), t.unit(), 2))));
    t.drift().stream().limit(3).forEach(d -> of.add("drifts: " + d));
    t.faults()
        .forEach(
            (f, n) -> of.add("failed with " + f + " on " + n + (n == 1 ? " board" : " boards")));
    if (t.n() > 0 && t.failed() == 0) {
      of.add(
          String.format(
              Locale.ROOT,
              "never failed in %d: without it %.2g min a board less, and up to %.2g %% of boards with"
                  + " its fault not seen by it",
              t.n(),
              t.minutes(),
              100 * t.risk()));
    }
    notes.add(Margin.Note.plain(t.name(), of));
    s.build()
        .map(BuildProof::told)
        .filter(l -> !l.isEmpty())
        .ifPresent(l -> notes.add(Margin.Note.plain("To read it by", few(l))));
    return new Margin(sheet(t), notes);
  }

  /// The sheet of its capability, else of its interval.
  private static Optional<Worked> sheet(BuildProof.OfTest t) {
    Map<String, String> in = new LinkedHashMap<>();
    try {
      if (t.capability().isPresent()) {
        in.put("mean", String.valueOf(t.mean()));
        in.put("sd", String.valueOf(t.sd()));
        in.put("n", String.valueOf(t.points().size()));
        t.limits()
            .ifPresent(l -> {
              if (Double.isFinite(l.low())) {
                in.put("low", String.valueOf(l.low()));
              }
              if (Double.isFinite(l.high())) {
                in.put("high", String.valueOf(l.high()));
              }
            });
        return Optional.of(Catalogue.work("prove.capability", in));
      }
      if (t.n() > 0) {
        in.put("failures", String.valueOf(t.failed()));
        in.put("trials", String.valueOf(t.n()));
        return Optional.of(Catalogue.work("prove.interval", in));
      }
    } catch (SheetProblem e) {
      return Optional.empty(); // there is nothing to work out
    }
    return Optional.empty();
  }
}
