package ell.core.prove;

import ell.core.quantity.Unit;
import ell.core.sheet.Input;
import ell.core.sheet.Sheet;
import ell.core.statistic.Counts;
import java.util.List;

/// The stand-alone sheets of proving, `prove.*`.
public final class ProveSheets {
  private ProveSheets() {}

  /// Every sheet of this stage.
  public static List<Sheet> all() {
    Input confidence = Input.number("confidence", Unit.ONE).in(1e-6, 1 - 1e-9).or("0.95");
    return List.of(
        ProcessSheets.capability(confidence),
        ProcessSheets.gauge(),
        ProcessSheets.order(),
        SureSheets.sequential(),
        SureSheets.power(confidence),
        new Sheet(
            "prove.interval",
            "How sure: the rate behind a count of failures",
            List.of(
                Input.whole("failures").in(0, 1e9), Input.whole("trials").in(1, 1e9), confidence),
            List.of(),
            Sheet.results("wilsonLow, wilsonHigh, exactLow, exactHigh"),
            List.of(
                "NIST/SEMATECH e-Handbook of Statistical Methods, 7.2.4.1",
                "Brown, Cai, DasGupta: Interval estimation for a binomial proportion, 2001"),
            (a, s) -> {
              long k = a.whole("failures");
              long n = a.whole("trials");
              double c = a.number("confidence");
              Counts.Interval w = Counts.wilson(k, n, c);
              Counts.Interval e = Counts.exact(k, n, c);
              s.line("rate", "failures / trials", (double) k / n, Unit.ONE)
                  .line("Wilson low", "score interval", w.low(), Unit.ONE)
                  .line("Wilson high", "score interval", w.high(), Unit.ONE)
                  .line("exact low", "beta quantile", e.low(), Unit.ONE)
                  .line("exact high", "beta quantile", e.high(), Unit.ONE)
                  .result("wilsonLow", w.low())
                  .result("wilsonHigh", w.high())
                  .result("exactLow", e.low())
                  .result("exactHigh", e.high());
              if (k == 0) {
                s.line("rule of three", "3 / trials, at 95 %", 3.0 / n, Unit.ONE);
              }
              return s.assume("the trials are alike and do not influence each other").done();
            }),
        new Sheet(
            "prove.trials",
            "Clean trials needed to trust a fix",
            List.of(Input.number("failureRate", Unit.ONE).in(1e-9, 1), confidence),
            List.of(),
            Sheet.results("trials"),
            List.of("geometric distribution: n = ln(1 − C) / ln(1 − p), rounded up"),
            (a, s) -> {
              long n = Counts.cleanTrials(a.number("failureRate"), a.number("confidence"));
              return s.line("n", "ln(1 − C) / ln(1 − p), rounded up", n, Unit.ONE)
                  .line(
                      "chance to miss",
                      "(1 − p)^n",
                      Math.pow(1 - a.number("failureRate"), n),
                      Unit.ONE)
                  .result("trials", (double) n)
                  .assume("the fault shows at random, at the old rate, in each trial")
                  .done();
            }));
  }
}
