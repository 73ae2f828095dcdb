package ell.core.trace;

import ell.core.quantity.Unit;
import ell.core.sheet.Input;
import ell.core.sheet.Sheet;
import ell.core.sheet.Worked;
import java.util.List;

/// The worked sheets of tracing.
public final class TraceSheets {
  private TraceSheets() {}

  /// Every stand-alone sheet of this stage.
  public static List<Sheet> all() {
    return List.of(bayes(), rework());
  }

  private static Sheet bayes() {
    return new Sheet(
        "trace.bayes",
        "What a reading does to the chance of a fault",
        List.of(
            Input.number("prior", Unit.ONE).in(1e-9, 1 - 1e-9),
            Input.number("ifSo", Unit.ONE).in(1e-12, 1),
            Input.number("ifNot", Unit.ONE).in(1e-12, 1),
            Input.whole("times").in(1, 1000).or("1")),
        List.of(),
        Sheet.results("odds, posterior, bits"),
        List.of("Bayes' rule in odds"),
        (a, s) -> {
          double p = a.number("prior");
          double ratio = a.number("ifSo") / a.number("ifNot");
          double log = Math.log(p / (1 - p)) + a.whole("times") * Math.log(ratio);
          double odds = Math.exp(log);
          double posterior = 1 / (1 + Math.exp(-log));
          double bits = two(p) - two(posterior);
          return s.line("odds before", "p / (1 − p)", p / (1 - p), Unit.ONE)
              .line("ratio", "chance if so / chance if not", ratio, Unit.ONE)
              .line("odds", "odds before · ratio^times", odds, Unit.ONE)
              .line("posterior", "odds / (1 + odds)", posterior, Unit.ONE)
              .line("less not known", "H(prior) − H(posterior)", bits, "bit")
              .result("odds", odds)
              .result("posterior", posterior)
              .result("bits", bits)
              .assume("readings are independent of each other")
              .done();
        });
  }

  private static double two(double p) {
    return Belief.bits(p) + Belief.bits(1 - p);
  }

  private static Sheet rework() {
    return new Sheet(
        "trace.rework",
        "Whether a rework is worth trying",
        List.of(
            Input.number("chance", Unit.ONE).in(0, 1),
            Input.number("works", Unit.ONE).in(1e-3, 1).or("0.85"),
            Input.number("takes", Unit.SECOND).in(1e-3, 1e7),
            Input.number("saves", Unit.SECOND).in(1e-3, 1e9)),
        List.of(),
        Sheet.results("expected, least, worth"),
        List.of("expected value: cost against chance times gain"),
        (a, s) -> {
          double gain = a.number("works") * a.number("saves");
          double expected = a.number("chance") * gain - a.number("takes");
          double least = a.number("takes") / gain;
          String worth =
              least > 1
                  ? "never"
                  : a.number("chance") >= least ? "worth it" : "look at another board first";
          return s.line("gain", "works · saves", gain, Unit.SECOND)
              .line("least chance", "takes / gain", least, Unit.ONE)
              .line("expected", "chance · gain − takes", expected, Unit.SECOND)
              .line("so", "chance against least chance", worth)
              .result("expected", expected)
              .result("least", least)
              .result("worth", worth)
              .assume("a rework that does not help spoils nothing but its time and a heating")
              .done();
        });
  }

  /// How likely a fault is before anything was measured.
  public static Worked prior(Suspect s) {
    Worked.Builder b = Worked.of("trace.prior", "How likely it is beforehand: " + s.words());
    int n = 0;
    for (Suspect.Factor f : s.factors()) {
      b.line(n == 0 ? "rate" : "times " + n, f.why(), f.times(), Unit.ONE);
      n++;
    }
    return b.line("P", "rate · times, at most 0.5", s.prior(), Unit.ONE)
        .result("prior", s.prior())
        .source(
            "rates: common practice, no source; the mean of a beta distribution mixes in what this"
                + " bench has seen")
        .assume("faults come about independently of each other")
        .done();
  }

  /// What a measurement is expected to tell.
  public static Worked information(Choice c) {
    Worked.Builder b =
        Worked.of("trace.information", "What it is expected to tell: " + c.probe().line());
    int n = 0;
    for (Choice.Result r : c.outcomes()) {
      b.line("p " + ++n, r.words(), r.chance(), Unit.ONE);
    }
    return b.line(
            "I",
            "sum of p(answer, fault) · log2(p(answer | fault) / p(answer))",
            c.information(),
            "bit")
        .line("t", "with what must be switched for it", c.minutes(), "min")
        .line("t₀", "to think and to write, typical", Choice.THOUGHT, "min")
        .line("I / (t + t₀)", "worth", c.worth(), "bit/min")
        .result("information", c.information())
        .source("Shannon, A Mathematical Theory of Communication, 1948: mutual information")
        .assume("minutes are typical; no source")
        .done();
  }
}
