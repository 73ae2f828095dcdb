package ell.core.prove;

import ell.core.quantity.Unit;
import ell.core.sheet.Input;
import ell.core.sheet.Sheet;
import ell.core.sheet.SheetProblem;
import java.util.List;
import java.util.OptionalLong;

/// Sheets of how sure a test can be, before it is begun and while it goes on.
final class SureSheets {
  private SureSheets() {}

  static Sheet sequential() {
    return new Sheet(
        "prove.sequential",
        "Board after board until it is accepted or rejected",
        List.of(
            Input.number("good", Unit.ONE).in(1e-9, 1 - 1e-9),
            Input.number("bad", Unit.ONE).in(1e-9, 1 - 1e-9),
            Input.number("alpha", Unit.ONE).in(1e-9, 0.5).or("0.05"),
            Input.number("beta", Unit.ONE).in(1e-9, 0.5).or("0.1"),
            Input.whole("failures").in(0, 1e9).or("0"),
            Input.whole("trials").in(0, 1e9).or("0")),
        List.of(),
        Sheet.results(
            "acceptAt, rejectAt, slope, fewest, averageIfGood, averageIfBad, acceptUpTo, rejectFrom,"
                + " decision"),
        List.of(
            "Wald: Sequential Analysis, 1947",
            "NIST/SEMATECH e-Handbook of Statistical Methods, 6.2.6"),
        (a, s) -> {
          Sequential q;
          try {
            q =
                new Sequential(
                    a.number("good"), a.number("bad"), a.number("alpha"), a.number("beta"));
          } catch (IllegalArgumentException e) {
            throw new SheetProblem(e.getMessage());
          }
          long k = a.whole("failures");
          long n = a.whole("trials");
          if (k > n) {
            throw new SheetProblem("failures are no more than trials, found " + k + " of " + n);
          }
          s.line("accept at", "\u2212ln((1 \u2212 \u03b1) / \u03b2) / g", q.acceptAt(), Unit.ONE)
              .line("reject at", "ln((1 \u2212 \u03b2) / \u03b1) / g", q.rejectAt(), Unit.ONE)
              .line("slope", "ln((1 \u2212 good) / (1 \u2212 bad)) / g", q.slope(), Unit.ONE)
              .line("fewest", "clean trials that accept", q.fewest(), Unit.ONE)
              .line("average if good", "Wald's formula", q.averageIfGood(), Unit.ONE)
              .line("average if bad", "Wald's formula", q.averageIfBad(), Unit.ONE)
              .result("acceptAt", q.acceptAt())
              .result("rejectAt", q.rejectAt())
              .result("slope", q.slope())
              .result("fewest", (double) q.fewest())
              .result("averageIfGood", q.averageIfGood())
              .result("averageIfBad", q.averageIfBad())
              .result("acceptUpTo", Math.floor(q.acceptAt() + q.slope() * n + 1e-12))
              .result("rejectFrom", Math.ceil(q.rejectAt() + q.slope() * n - 1e-12))
              .result(
                  "decision",
                  switch (q.decide(k, n)) {
                    case ACCEPT -> "accept";
                    case REJECT -> "reject";
                    case GO_ON -> "go on";
                  });
          s.line(
              "now",
              "after " + n + (n == 1 ? " trial" : " trials") + " with " + k + " failed",
              switch (q.decide(k, n)) {
                case ACCEPT -> "accept";
                case REJECT -> "reject";
                case GO_ON -> "another board";
              });
          return s.assume("g = ln(bad / good) + ln((1 \u2212 good) / (1 \u2212 bad))")
              .assume(
                  "the rule was chosen before the first board, and boards come as they are made")
              .done();
        });
  }

  static Sheet power(Input confidence) {
    return new Sheet(
        "prove.power",
        "What so many boards can tell, before they are tested",
        List.of(
            Input.whole("boards").in(1, 100_000),
            Input.number("good", Unit.ONE).in(0, 1),
            Input.number("bad", Unit.ONE).in(0, 1),
            confidence,
            Input.number("power", Unit.ONE).in(0.01, 0.999).or("0.8")),
        List.of(),
        Sheet.results("most, power, passesBad, boardsNeeded"),
        List.of("binomial distribution, exact"),
        (a, s) -> {
          Discerned d;
          OptionalLong needed;
          try {
            d =
                Discerned.of(
                    (int) a.whole("boards"),
                    a.number("good"),
                    a.number("bad"),
                    a.number("confidence"));
            needed =
                Discerned.boards(
                    a.number("good"), a.number("bad"), a.number("confidence"), a.number("power"));
          } catch (IllegalArgumentException e) {
            throw new SheetProblem(e.getMessage());
          }
          s.line("most", "failures at which the bad rate is ruled out", d.most(), Unit.ONE)
              .line("power", "P(failures \u2264 most) at the good rate", d.power(), Unit.ONE)
              .line(
                  "passes bad", "P(failures \u2264 most) at the bad rate", d.passesBad(), Unit.ONE)
              .result("most", (double) d.most())
              .result("power", d.power())
              .result("passesBad", d.passesBad());
          if (needed.isPresent()) {
            s.line("boards needed", "for the power asked for", needed.getAsLong(), Unit.ONE)
                .result("boardsNeeded", (double) needed.getAsLong());
          }
          if (d.most() < 0) {
            s.caution(
                "With so few boards no outcome rules the bad rate out: even without a failure it"
                    + " stays possible.");
          }
          return s.assume("rates are those of failures: a yield of 99 % is a rate of 0.01").done();
        });
  }
}
