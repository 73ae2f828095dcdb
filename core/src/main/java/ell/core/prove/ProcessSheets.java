package ell.core.prove;

import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Limits;
import ell.core.quantity.Unit;
import ell.core.sheet.Args;
import ell.core.sheet.Input;
import ell.core.sheet.Sheet;
import ell.core.sheet.SheetProblem;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/// Sheets of the process behind a build: its capability, the gauge, the order of tests.
final class ProcessSheets {
  private static final int MOST = 100_000;

  /// No unit of the trade needs more.
  private static final double MOST_VALUE = 1e15;

  private ProcessSheets() {}

  static Sheet capability(Input confidence) {
    return new Sheet(
        "prove.capability",
        "How well a process keeps within its limits",
        List.of(
            Input.words("values", "3.29,3.31,3.30").or(""),
            Input.number("mean", Unit.ONE).in(-MOST_VALUE, MOST_VALUE).maybe(),
            Input.number("sd", Unit.ONE).in(0, MOST_VALUE).maybe(),
            Input.whole("n").in(2, 1e9).maybe(),
            Input.number("low", Unit.ONE).in(-MOST_VALUE, MOST_VALUE).maybe(),
            Input.number("high", Unit.ONE).in(-MOST_VALUE, MOST_VALUE).maybe(),
            confidence),
        List.of(),
        Sheet.results("n, mean, sd, cp, cpLow, cpHigh, cpk, cpkLow, cpkHigh"),
        List.of("NIST/SEMATECH e-Handbook of Statistical Methods, 6.1.6"),
        (a, s) -> {
          double[] v = numbers(a, "values");
          boolean said = a.has("mean") || a.has("sd");
          if (v.length > 0 == said || said && !(a.has("mean") && a.has("sd"))) {
            throw new SheetProblem("say values=..., or mean= and sd=");
          }
          if (v.length == 1) {
            throw new SheetProblem("values: one value has no spread, say two or more");
          }
          double mean = said ? a.number("mean") : Arrays.stream(v).average().orElseThrow();
          double sd =
              said
                  ? a.number("sd")
                  : Math.sqrt(
                      Arrays.stream(v).map(x -> (x - mean) * (x - mean)).sum() / (v.length - 1));
          long n = said ? a.has("n") ? a.whole("n") : 0 : v.length;
          if (!a.has("low") && !a.has("high")) {
            throw new SheetProblem("say low=, high= or both");
          }
          if (!(sd > 0)) {
            throw new SheetProblem("all values are alike: without a spread there is no capability");
          }
          double low = a.has("low") ? a.number("low") : Double.NEGATIVE_INFINITY;
          double high = a.has("high") ? a.number("high") : Double.POSITIVE_INFINITY;
          if (low > high) {
            throw new SheetProblem("low must not be above high, found " + low + " and " + high);
          }
          Capability c = Capability.of(mean, sd, n, new Limits(low, high), a.number("confidence"));
          s.line("mean", "sum / n", mean, Unit.ONE)
              .line("sd", "root of the squares about the mean / (n \u2212 1)", sd, Unit.ONE)
              .result("mean", mean)
              .result("sd", sd);
          if (n > 0) {
            s.result("n", (double) n);
          }
          c.cp()
              .ifPresent(
                  x -> s.line("Cp", "(high \u2212 low) / 6 sd", x, Unit.ONE).result("cp", x));
          c.cpLow()
              .ifPresent(x ->
                  s.line("Cp low", "Cp root(chi\u00b2 quantile / (n \u2212 1))", x, Unit.ONE)
                      .result("cpLow", x));
          c.cpHigh()
              .ifPresent(x ->
                  s.line("Cp high", "Cp root(chi\u00b2 quantile / (n \u2212 1))", x, Unit.ONE)
                      .result("cpHigh", x));
          s.line("Cpk", "min(high \u2212 mean, mean \u2212 low) / 3 sd", c.cpk(), Unit.ONE)
              .result("cpk", c.cpk());
          c.cpkLow()
              .ifPresent(x ->
                  s.line(
                          "Cpk low",
                          "Cpk \u2212 z root(1 / 9n + Cpk\u00b2 / 2(n \u2212 1))",
                          x,
                          Unit.ONE)
                      .result("cpkLow", x));
          c.cpkHigh()
              .ifPresent(x ->
                  s.line(
                          "Cpk high",
                          "Cpk + z root(1 / 9n + Cpk\u00b2 / 2(n \u2212 1))",
                          x,
                          Unit.ONE)
                      .result("cpkHigh", x));
          return s.assume("values lie about their mean as a normal distribution")
              .assume("they come from one process that does not drift")
              .done();
        });
  }

  static Sheet gauge() {
    return new Sheet(
        "prove.gauge",
        "How much of the spread is the meter",
        List.of(
            Input.words("values", "board after board, person after person, repeat after repeat"),
            Input.whole("boards").in(2, 1000),
            Input.whole("people").in(1, 100).or("1"),
            Input.whole("repeats").in(2, 1000)),
        List.of(),
        Sheet.results("repeatability, reproducibility, gauge, boards, share"),
        List.of(
            "analysis of variance of a crossed study: NIST/SEMATECH e-Handbook, 3.2.3 and 2.4",
            "Montgomery, Runger: Gauge capability and designed experiments, 1993, from memory"),
        (a, s) -> {
          double[] v = numbers(a, "values");
          int b = (int) a.whole("boards");
          int p = (int) a.whole("people");
          int r = (int) a.whole("repeats");
          if (v.length != (long) b * p * r) {
            throw new SheetProblem(
                "values: expected boards \u00b7 people \u00b7 repeats = "
                    + (long) b * p * r
                    + " of them, found "
                    + v.length);
          }
          double[][][] x = new double[b][p][r];
          for (int i = 0; i < v.length; i++) {
            x[i / (p * r)][i / r % p][i % r] = v[i];
          }
          Gauge g = Gauge.of(x);
          return s.line(
                  "repeatability", "root of the mean square within", g.repeatability(), Unit.ONE)
              .line(
                  "reproducibility",
                  "between people, and people with boards",
                  g.reproducibility(),
                  Unit.ONE)
              .line("gauge", "both together", g.gauge(), Unit.ONE)
              .line("boards", "between boards", g.boards(), Unit.ONE)
              .line("share", "gauge / all, by standard deviations", g.share(), Unit.ONE)
              .result("repeatability", g.repeatability())
              .result("reproducibility", g.reproducibility())
              .result("gauge", g.gauge())
              .result("boards", g.boards())
              .result("share", g.share())
              .assume("a variance that comes out below zero is none")
              .assume("a share above 0.3 is more gauge than most limits bear, common practice")
              .done();
        });
  }

  static Sheet order() {
    return new Sheet(
        "prove.order",
        "In which order tests find a bad board soonest",
        List.of(
            Input.words("minutes", "0.2,1,0.5"),
            Input.words("fails", "0.1,0.02,0.05, chance of each to fail"),
            Input.words("after", "2:1,3:1, the second and the third come after the first").or("")),
        List.of(),
        Sheet.results("order, minutes, asGiven, optimal"),
        List.of(
            "Mitten, An analytic solution to the least cost testing sequence problem, 1960",
            "Horn 1972, Sidney 1975: single machine with precedence, blocks along trees"),
        (a, s) -> {
          double[] m = numbers(a, "minutes");
          double[] f = numbers(a, "fails");
          if (m.length == 0 || m.length != f.length) {
            throw new SheetProblem(
                "as many minutes as chances, found " + m.length + " and " + f.length);
          }
          List<List<Integer>> after = after(a.text("after"), m.length);
          TestOrder o;
          try {
            o = TestOrder.best(m, f, after);
          } catch (IllegalArgumentException e) {
            throw new SheetProblem(e.getMessage());
          }
          List<Integer> given = new ArrayList<>();
          for (int i = 0; i < m.length; i++) {
            given.add(i);
          }
          double asGiven = TestOrder.expected(given, m, f);
          List<Double> numbered = o.order().stream().map(i -> i + 1.0).toList();
          return s.line(
                  "order",
                  "by chance to fail a minute, what must come first before",
                  String.join(", ", o.order().stream().map(i -> String.valueOf(i + 1)).toList()))
              .line(
                  "minutes",
                  "sum of minutes \u00b7 chance that none failed before",
                  o.minutes(),
                  Unit.ONE)
              .line("as given", "likewise, in the order given", asGiven, Unit.ONE)
              .result("order", numbered)
              .result("minutes", o.minutes())
              .result("asGiven", asGiven)
              .result("optimal", o.optimal() ? "yes" : "not proven")
              .assume("tests fail on their own, and the first that fails decides the board")
              .done();
        });
  }

  private static List<List<Integer>> after(String text, int n) {
    List<List<Integer>> all = new ArrayList<>();
    for (int i = 0; i < n; i++) {
      all.add(new ArrayList<>());
    }
    for (String pair : text.split("[,\\s]+")) {
      if (pair.isEmpty()) {
        continue;
      }
      if (!pair.matches("\\d{1,4}:\\d{1,4}")) {
        throw new SheetProblem("after: expected pairs such as 2:1, found '" + pair + "'");
      }
      int x = Integer.parseInt(pair.substring(0, pair.indexOf(':')));
      int y = Integer.parseInt(pair.substring(pair.indexOf(':') + 1));
      if (x < 1 || x > n || y < 1 || y > n || x == y) {
        throw new SheetProblem("after: tests are 1..." + n + ", found '" + pair + "'");
      }
      all.get(x - 1).add(y - 1);
    }
    return all;
  }

  static double[] numbers(Args a, String name) {
    String text = a.has(name) ? a.text(name).strip() : "";
    if (text.isEmpty()) {
      return new double[0];
    }
    String[] parts = text.replaceAll("^\\[|]$", "").split("[,;\\s]+");
    if (parts.length > MOST) {
      throw new SheetProblem(name + ": up to " + MOST + " numbers, found " + parts.length);
    }
    double[] all = new double[parts.length];
    for (int i = 0; i < parts.length; i++) {
      try {
        all[i] = EngineeringNumber.read(parts[i], Unit.ONE).value();
      } catch (NumberFormatException e) {
        throw new SheetProblem(
            name + ": number " + (i + 1) + " is '" + parts[i] + "': " + e.getMessage());
      }
    }
    return all;
  }
}
