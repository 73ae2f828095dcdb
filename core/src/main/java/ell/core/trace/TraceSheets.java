package ell.core.trace;

import ell.core.quantity.Unit;
import ell.core.sheet.Worked;

/// The worked sheets of tracing.
public final class TraceSheets {
  private TraceSheets() {}

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
        .source("rates: common practice, no source; the mean of a beta distribution mixes in what this"
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
    return b.line("I", "sum of p(answer, fault) · log2(p(answer | fault) / p(answer))",
            c.information(), "bit")
        .line("t", "with what must be switched for it", c.minutes(), "min")
        .line("I / t", "worth", c.perMinute(), "bit/min")
        .result("information", c.information())
        .source("Shannon, A Mathematical Theory of Communication, 1948: mutual information")
        .assume("minutes are typical; no source")
        .done();
  }
}
