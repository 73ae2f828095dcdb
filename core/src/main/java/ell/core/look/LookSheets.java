package ell.core.look;

import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import ell.core.sheet.Input;
import ell.core.sheet.Sheet;
import ell.core.sheet.SheetProblem;
import java.util.ArrayList;
import java.util.List;

/// The stand-alone sheets of inspection, `look.*`.
public final class LookSheets {
  private LookSheets() {}

  /// Every sheet of this stage.
  public static List<Sheet> all() {
    return List.of(dpmo(), chart(), compare(), sampling());
  }

  private static Sheet dpmo() {
    return new Sheet(
        "look.dpmo",
        "Defects per million opportunities",
        List.of(
            Input.whole("defects").in(0, 1e9),
            Input.whole("joints").in(0, 1e12),
            Input.whole("parts").in(0, 1e12)),
        List.of(),
        Sheet.results("dpmo, opportunities"),
        List.of("IPC-7912 idea: joints and parts are the opportunities, from memory"),
        (a, s) -> {
          double room = a.number("joints") + a.number("parts");
          if (room == 0) {
            throw new SheetProblem("look.dpmo: joints and parts are both 0, nothing was looked at");
          }
          double d = Rates.dpmo(a.number("defects"), room);
          return s.line("opportunities", "joints + parts", room, Unit.ONE)
              .line("DPMO", "defects / opportunities · 10⁶", d, Unit.ONE)
              .result("dpmo", d)
              .result("opportunities", room)
              .assume("each joint and each part counts once; a joint with two defects counts twice")
              .done();
        });
  }

  private static Sheet chart() {
    return new Sheet(
        "look.chart",
        "Which boards differ more than chance",
        List.of(Input.words("counts", "3,5,2,9"), Input.words("sizes", "10,10,12,10")),
        List.of(),
        Sheet.results("centre, lower, upper, limits, pointsOut, verdict"),
        List.of(
            "NIST/SEMATECH e-Handbook of Statistical Methods, 6.3.3.1: u-chart, 3 standard deviations"),
        (a, s) -> {
          Chart c =
              Chart.of(numbers(a.text("counts"), "counts"), numbers(a.text("sizes"), "sizes"));
          List<List<Double>> limits = new ArrayList<>();
          for (int i = 0; i < c.lower().size(); i++) {
            limits.add(List.of(c.lower().get(i), c.upper().get(i)));
          }
          return s.line("centre", "Σ counts / Σ sizes", c.centre(), Unit.ONE)
              .line("upper", "centre + 3·√(centre/size), first", c.upper().getFirst(), Unit.ONE)
              .line(
                  "lower",
                  "centre − 3·√(centre/size), not below 0, first",
                  c.lower().getFirst(),
                  Unit.ONE)
              .line(
                  "outside",
                  "numbers of the points",
                  c.out().isEmpty() ? "none" : c.out().toString())
              .result("centre", c.centre())
              .result("lower", c.lower())
              .result("upper", c.upper())
              .result("limits", limits)
              .result("pointsOut", c.out().stream().map(Integer::doubleValue).toList())
              .assume("defects come singly and by chance (Poisson)")
              .verdict(c.out().isEmpty() ? Verdict.WITHIN : Verdict.OUT)
              .done();
        });
  }

  private static Sheet compare() {
    return new Sheet(
        "look.compare",
        "Does the new way differ from the old one",
        List.of(
            Input.whole("badA").in(0, 1e6),
            Input.whole("allA").in(1, 1e6),
            Input.whole("badB").in(0, 1e6),
            Input.whole("allB").in(1, 1e6)),
        List.of(),
        Sheet.results("p, rateA, rateB, says"),
        List.of("Fisher's exact test, two-sided; NIST/SEMATECH e-Handbook, 7.3.3"),
        (a, s) -> {
          double p =
              ExactTest.twoSided(
                  (int) a.whole("badA"),
                  (int) a.whole("allA"),
                  (int) a.whole("badB"),
                  (int) a.whole("allB"));
          double ra = a.number("badA") / a.number("allA");
          double rb = a.number("badB") / a.number("allB");
          String says =
              p < 0.01 ? "they differ" : p < 0.05 ? "they likely differ" : "it may be chance";
          return s.line("rate A", "bad / all", ra, Unit.ONE)
              .line("rate B", "bad / all", rb, Unit.ONE)
              .line("p", "chance of such a split if they were the same", p, Unit.ONE)
              .line("says", "below 0.01, below 0.05", says)
              .result("p", p)
              .result("rateA", ra)
              .result("rateB", rb)
              .result("says", says)
              .assume("nothing but the way was changed")
              .done();
        });
  }

  private static Sheet sampling() {
    return new Sheet(
        "look.sampling",
        "How many to look at",
        List.of(
            Input.whole("lot").in(1, 1e7),
            Input.number("rate", Unit.ONE).in(0, 0.999).or("0.05"),
            Input.number("confidence", Unit.ONE).in(0.5, 0.9999).or("0.95"),
            Input.whole("sample").in(0, 1e7).maybe()),
        List.of(),
        Sheet.results("size, proves"),
        List.of("hypergeometric distribution; NIST/SEMATECH e-Handbook, 6.2"),
        (a, s) -> {
          int lot = (int) a.whole("lot");
          int n = Sampling.size(lot, a.number("rate"), a.number("confidence"));
          s.line(
                  "look at",
                  "least n with P(none of ⌊rate·lot⌋ + 1 bad) ≤ 1 − confidence",
                  n,
                  Unit.ONE)
              .result("size", (double) n);
          int seen = a.has("sample") ? (int) a.whole("sample") : n;
          int most = Sampling.proves(lot, seen, a.number("confidence"));
          return s.line("clean " + seen, "at most so many bad in the lot", most, Unit.ONE)
              .result("proves", (double) most)
              .assume("the sample is drawn by chance, and a defect that is looked at is seen")
              .done();
        });
  }

  private static List<Double> numbers(String text, String name) {
    List<Double> all = new ArrayList<>();
    for (String w : text.replaceAll("[\\[\\]]", " ").strip().split("[\\s,;]+")) {
      try {
        double d = Double.parseDouble(w);
        if (!Double.isFinite(d)) {
          throw new NumberFormatException(w);
        }
        all.add(d);
      } catch (NumberFormatException e) {
        throw new SheetProblem(name + ": expected numbers such as 3,5,2, found '" + w + "'");
      }
    }
    return all;
  }
}
