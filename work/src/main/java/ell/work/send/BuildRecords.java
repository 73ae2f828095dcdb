package ell.work.send;

import ell.book.Build;
import ell.core.entry.BoardState;
import ell.core.entry.Logged;
import ell.core.look.LookFacts;
import ell.core.look.Sampling;
import ell.core.prove.BuildProof;
import ell.core.prove.ProveFacts;
import ell.core.prove.ProveSection;
import ell.core.prove.TestPlan;
import ell.core.prove.UseGate;
import ell.core.prove.UseRules;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Verdict;
import ell.core.rack.Plan;
import ell.core.record.BoardRecord;
import ell.core.record.Section;
import ell.core.record.Section.Row;
import ell.core.record.Section.Tone;
import ell.core.revise.Erratum;
import ell.core.statistic.Counts;
import ell.core.talk.TalkFacts;
import ell.work.Workshop;
import ell.work.space.ActException;
import java.io.IOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;

/// Records of a build: every test and every board, or a certificate of what its sample says of the
/// lot.
public final class BuildRecords {
  private static final double CONFIDENCE = 0.95;

  private BuildRecords() {}

  /// The record of a build.
  ///
  /// @param asOf number of the last entry that counts, empty for all
  public static BoardRecord build(Workshop w, Build build, OptionalLong asOf)
      throws IOException, ActException {
    Gathered g = Gathered.of(w, build, asOf);
    return new BoardRecord(
        "build record",
        "Build " + build.id(),
        g.plan().revision().title(),
        build.method() + ", " + build.alloy() + ", " + build.boards().size() + " boards",
        firstPass(g.proof()),
        g.as().words(),
        g.as().seal(),
        missing(g).isEmpty()
            ? List.of(boards(g), tests(g), told(g))
            : List.of(boards(g), tests(g), missing(g).get(), told(g)));
  }

  /// What the tested boards of a build say of all of it.
  ///
  /// @throws ActException when none was proved
  public static BoardRecord lot(Workshop w, Build build, OptionalLong asOf)
      throws IOException, ActException {
    Gathered g = Gathered.of(w, build, asOf);
    int lot = build.boards().size();
    List<Row> rows = new ArrayList<>();
    List<String> sample = new ArrayList<>();
    int bad = 0;
    for (Map.Entry<String, BoardState> b : g.states().entrySet()) {
      Optional<Verdict> v =
          ProveFacts.of(b.getValue()).lastEnded().flatMap(ProveFacts.Run::verdict);
      if (v.filter(x -> x != Verdict.CLOSE).isPresent()) {
        sample.add(b.getKey());
        bad += v.get() == Verdict.OUT ? 1 : 0;
      }
    }
    if (sample.isEmpty()) {
      throw new ActException(
          "no board of build " + build.id() + " was proved: there is nothing to certify");
    }
    rows.add(Section.cells(Tone.PLAIN, "lot", lot + " boards, build " + build.id()));
    rows.add(
        Section.cells(
            Tone.PLAIN, "sample", sample.size() + " boards: " + String.join(", ", sample)));
    rows.add(Section.cells(bad > 0 ? Tone.BAD : Tone.GOOD, "failed", bad + " of the sample"));
    rows.add(Section.cells(Tone.PLAIN, "what it says", says(lot, sample.size(), bad)));
    rows.add(
        Section.cells(
            Tone.SOFT,
            "taken for granted",
            "the sample was taken at random from the lot, and not chosen"));
    return new BoardRecord(
        "certificate",
        "Lot of build " + build.id(),
        g.plan().revision().title(),
        build.method() + ", " + build.alloy(),
        bad == 0 ? "no board of the sample failed" : bad + " of the sample failed",
        g.as().words(),
        g.as().seal(),
        List.of(new Section("Sampling", "", List.of(0.2, 0.8), rows), tests(g), told(g)));
  }

  private static String says(int lot, int n, int bad) {
    if (n == lot) {
      return "every board of the lot was tested, " + bad + " failed";
    }
    if (bad == 0) {
      int most = Sampling.proves(lot, n, CONFIDENCE);
      return String.format(
          Locale.ROOT,
          "with 95 %% confidence no more than %d of the %d boards fail (hypergeometric, exact)",
          most,
          lot);
    }
    Counts.Interval i = Counts.exact(bad, n, CONFIDENCE);
    return String.format(
        Locale.ROOT,
        "%.1f %% to %.1f %% of boards fail, with 95 %% confidence (Clopper and Pearson)",
        100 * i.low(),
        100 * i.high());
  }

  private static String firstPass(BuildProof p) {
    return p.yield()
        .map(y ->
            String.format(
                Locale.ROOT,
                "first-pass yield %.1f %% (%.1f to %.1f %%), %d of %d boards",
                100 * y.value(),
                100 * y.low(),
                100 * y.high(),
                p.passed(),
                p.tested()))
        .orElse("no board is tested yet");
  }

  private static Section boards(Gathered g) {
    List<Row> rows = new ArrayList<>();
    for (Map.Entry<String, BoardState> b : g.states().entrySet()) {
      BoardState s = b.getValue();
      ProveFacts f = ProveFacts.of(s);
      Optional<Verdict> v = f.lastEnded().flatMap(ProveFacts.Run::verdict);
      String proof =
          v.map(ProveSection::word).orElse(f.open().isPresent() ? "cut off" : "not proved");
      UseGate gate = g.gates().get(b.getKey());
      String use =
          f.released().isPresent()
              ? "in use"
              : gate.open()
                  ? "may be used"
                  : "not ready, "
                      + gate.missing().size()
                      + (gate.missing().size() == 1 ? " thing is missing" : " things are missing");
      String[] cells = {
        b.getKey(),
        proof,
        TalkFacts.of(s).firmware().map(x -> "firmware " + x).orElse(""),
        LookFacts.of(s).who(),
        use
      };
      rows.add(v.isPresent() ? Section.judged(v.get(), cells) : Section.cells(Tone.SOFT, cells));
    }
    return new Section(
        "Boards", g.states().size() + " boards", List.of(0.08, 0.13, 0.15, 0.12, 0.42), rows);
  }

  private static Optional<Section> missing(Gathered g) {
    List<Row> rows = new ArrayList<>();
    g.gates()
        .forEach((board, gate) ->
            gate.missing().forEach(m -> rows.add(Section.cells(Tone.SOFT, board + ": " + m))));
    return rows.isEmpty()
        ? Optional.empty()
        : Optional.of(new Section("Missing before use", "", List.of(1.0), rows));
  }

  private static Section tests(Gathered g) {
    List<Row> rows = new ArrayList<>();
    for (BuildProof.OfTest t : g.proof().tests()) {
      if (t.n() == 0) {
        continue;
      }
      rows.add(
          Section.cells(
              t.failed() > 0 ? Tone.BAD : Tone.PLAIN,
              t.name(),
              t.n() + " made, " + t.failed() + " failed",
              Double.isNaN(t.mean()) ? "" : EngineeringNumber.print(t.mean(), t.unit(), 4),
              Double.isNaN(t.sd()) ? "" : "\u00b1 " + EngineeringNumber.print(t.sd(), t.unit(), 2),
              t.capability().map(c -> String.format(Locale.ROOT, "Cpk %.2f", c.cpk())).orElse("")
                  + t.capability()
                      .flatMap(c -> c.cpkLow())
                      .map(l -> String.format(Locale.ROOT, " (from %.2f)", l))
                      .orElse(""),
              t.outliers().isEmpty() ? "" : "apart: " + String.join(", ", t.outliers())));
    }
    return new Section(
        "Tests", "plan " + g.tests().name(), List.of(0.22, 0.19, 0.12, 0.11, 0.23, 0.13), rows);
  }

  private static Section told(Gathered g) {
    List<Row> rows = new ArrayList<>();
    g.proof().told().forEach(t -> rows.add(Section.cells(Tone.SOFT, t)));
    rows.add(
        Section.cells(
            Tone.SOFT,
            "Intervals are at 95 %: Wilson's score interval of yields, Cpk by its normal"
                + " approximation (NIST/SEMATECH e-Handbook, 7.2.4.1 and 6.1.6)."));
    if (g.rules().mayHurt()) {
      g.gates().values().stream()
          .map(UseGate::caution)
          .filter(c -> !c.isEmpty())
          .findFirst()
          .ifPresent(c -> rows.add(Section.cells(Tone.BAD, c)));
    }
    return new Section("To read it by", "", List.of(1.0), rows);
  }

  /// What is gathered for a record.
  private record Gathered(
      Plan plan,
      TestPlan tests,
      BuildProof proof,
      Map<String, BoardState> states,
      Map<String, UseGate> gates,
      UseRules rules,
      AsOf as) {
    static Gathered of(Workshop w, Build build, OptionalLong asOf)
        throws IOException, ActException {
      Plan plan = w.plan(build);
      AsOf as = AsOf.of(w, asOf);
      UseRules rules = w.proofs().rules(build.design(), build.revision());
      List<Erratum> mistakes = w.errata().asOf(as.number()).of(build.design(), build.revision());
      Map<String, BoardState> states = new LinkedHashMap<>();
      Map<String, UseGate> gates = new LinkedHashMap<>();
      for (String b : build.boards()) {
        List<Logged> log = w.entries(b).stream().filter(l -> l.number() <= as.number()).toList();
        BoardState s = asOf.isEmpty() ? w.state(b) : BoardState.of(b, log);
        states.put(b, s);
        gates.put(
            b,
            UseGate.of(
                new UseGate.Asked(
                    plan.revision(), plan.order(), plan.beep(), plan.ladder(), s, mistakes),
                rules));
      }
      TestPlan tests = w.proofs().of(plan, Optional.empty());
      return new Gathered(
          plan,
          tests,
          BuildProof.of(tests, w.proofs().known(plan), states),
          states,
          gates,
          rules,
          as);
    }
  }
}
