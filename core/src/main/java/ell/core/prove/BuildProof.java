package ell.core.prove;

import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.quantity.Limits;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import ell.core.statistic.Apart;
import ell.core.statistic.Counts;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.hipparchus.distribution.continuous.BetaDistribution;

/// What the proofs of a build say of its process.
///
/// @param boards how many boards the build has
/// @param tested boards of which a test with power is in the book
/// @param passed boards whose first proof passed; of those without one, those on which no test
///   failed
/// @param unsettled boards whose first proof neither passed nor failed: they count nowhere
/// @param yield first-pass yield, with Wilson's interval at 95 %; empty when nothing is tested
/// @param rolled product of the yields of all tests, with an interval by a beta distribution that
///   has their mean and variance; empty when nothing is tested
/// @param tests in the order of the plan
/// @param inOrder whether each board failed at first, in the order of the build, without those that
///   are not tested or not settled
/// @param told what must be known to read it, a sentence each
public record BuildProof(
    int boards,
    int tested,
    int passed,
    int unsettled,
    Optional<Rate> yield,
    Optional<Rate> rolled,
    List<OfTest> tests,
    List<Boolean> inOrder,
    List<String> told) {
  private static final double CONFIDENCE = 0.95;

  /// A rate of failure that a maker wants to rule out, for what is told of small builds.
  private static final double BAD = 0.1;

  public BuildProof {
    tests = List.copyOf(tests);
    inOrder = List.copyOf(inOrder);
    told = List.copyOf(told);
  }

  /// A rate with its interval.
  public record Rate(double value, double low, double high) {}

  /// What a test showed on a board.
  ///
  /// @param apart whether it stands apart from the others though it may be within its limits
  public record Point(
      String board,
      double value,
      double uncertainty,
      Optional<Verdict> verdict,
      boolean apart,
      OffsetDateTime at) {}

  /// A test over all boards.
  ///
  /// @param n boards on which it was made
  /// @param failed of them
  /// @param bad those that failed, in the order of the build
  /// @param limits as they are now
  /// @param points boards with a number, in the order of the build
  /// @param mean of them, NaN without any
  /// @param sd of them, NaN with fewer than two
  /// @param capability where there are limits and a spread
  /// @param drift what the rules of runs say of the boards in the order of their readings
  /// @param faults what was found on boards that failed it, by how many boards
  /// @param gauge how much of the spread is the meter, where boards were read several times over
  /// @param unit of the numbers
  /// @param minutes that it takes
  public record OfTest(
      String name,
      int n,
      int failed,
      List<String> bad,
      Optional<Limits> limits,
      List<Point> points,
      double mean,
      double sd,
      Optional<Capability> capability,
      List<String> drift,
      Map<String, Integer> faults,
      Optional<Gauge> gauge,
      Unit unit,
      double minutes) {
    public OfTest {
      bad = List.copyOf(bad);
      points = List.copyOf(points);
      drift = List.copyOf(drift);
      faults = java.util.Collections.unmodifiableMap(new LinkedHashMap<>(faults));
    }

    /// Boards that stand apart, or are out.
    public List<String> outliers() {
      return points.stream().filter(Point::apart).map(Point::board).toList();
    }

    /// The most that it may fail as seen from its boards, at 95 %: what is risked where it is left
    /// out. 1 when it was never made.
    public double risk() {
      return n == 0 ? 1 : Counts.exact(failed, n, 2 * CONFIDENCE - 1).high();
    }
  }

  /// Over the boards of a build.
  ///
  /// @param states by serial, in the order of the build
  public static BuildProof of(TestPlan plan, PlanKnown known, Map<String, BoardState> states) {
    Map<String, Expected> expected = new LinkedHashMap<>();
    for (TestStep t : plan.steps()) {
      if (t.act().tests()) {
        expected.put(t.name(), Expected.of(known, t));
      }
    }
    Map<String, Map<String, FirstResults.Result>> results = new LinkedHashMap<>();
    states.forEach((b, s) -> results.put(b, FirstResults.of(plan, known, expected, s)));
    List<OfTest> tests = new ArrayList<>();
    for (TestStep t : plan.steps()) {
      if (t.act().tests()) {
        tests.add(test(t, expected.get(t.name()), states, results));
      }
    }
    int tested = 0;
    int passed = 0;
    int unsettled = 0;
    int partly = 0;
    List<Boolean> inOrder = new ArrayList<>();
    for (Map.Entry<String, BoardState> b : states.entrySet()) {
      Map<String, FirstResults.Result> own = results.get(b.getKey());
      Optional<Verdict> first = first(b.getValue());
      boolean powered =
          plan.steps().stream()
              .anyMatch(t ->
                  own.containsKey(t.name())
                      && (t.act().powered() || t.act() instanceof TestAct.Power));
      boolean failed =
          own.values().stream()
              .anyMatch(r -> r.verdict().filter(v -> v == Verdict.OUT).isPresent());
      if (first.isPresent()) {
        tested += first.get() == Verdict.CLOSE ? 0 : 1;
        unsettled += first.get() == Verdict.CLOSE ? 1 : 0;
        passed += first.get() == Verdict.WITHIN ? 1 : 0;
        if (first.get() != Verdict.CLOSE) {
          inOrder.add(first.get() == Verdict.OUT);
        }
      } else if (powered || failed) {
        tested++;
        passed += failed ? 0 : 1;
        inOrder.add(failed);
        partly += own.size() < expected.size() ? 1 : 0;
      }
    }
    List<String> told = new ArrayList<>();
    if (partly > 0) {
      told.add(
          partly
              + (partly == 1 ? " board counts" : " boards count")
              + " by readings alone, and not every test was made on "
              + (partly == 1 ? "it" : "them"));
    }
    if (unsettled > 0) {
      told.add(
          unsettled
              + (unsettled == 1 ? " board was" : " boards were")
              + " not settled, and counted neither as passed nor as failed");
    }
    if (states.size() > tested + unsettled) {
      told.add(
          (states.size() - tested - unsettled)
              + " of "
              + states.size()
              + " boards are not tested yet");
    }
    long fewest = Counts.cleanTrials(BAD, CONFIDENCE);
    if (states.size() < fewest) {
      told.add(
          "with "
              + states.size()
              + (states.size() == 1 ? " board" : " boards")
              + " nobody tells a yield of 90 % from one of 99 %, whatever they show: "
              + fewest
              + " clean ones are the fewest that do");
    }
    return new BuildProof(
        states.size(),
        tested,
        passed,
        unsettled,
        tested == 0 ? Optional.empty() : Optional.of(rate(passed, tested)),
        rolled(tests),
        tests,
        inOrder,
        told);
  }

  private static Rate rate(int good, int of) {
    Counts.Interval i = Counts.wilson(good, of, CONFIDENCE);
    return new Rate((double) good / of, i.low(), i.high());
  }

  /// Yields multiply. Each is a beta distribution (Jeffreys); their product is taken for the beta
  /// distribution with its mean and its variance.
  private static Optional<Rate> rolled(List<OfTest> tests) {
    double value = 1;
    double mean = 1;
    double square = 1;
    boolean any = false;
    for (OfTest t : tests) {
      if (t.n() == 0) {
        continue;
      }
      any = true;
      value *= 1 - (double) t.failed() / t.n();
      double a = t.n() - t.failed() + 0.5;
      double n = t.n() + 1.0;
      mean *= a / n;
      square *= a * (a + 1) / (n * (n + 1));
    }
    if (!any) {
      return Optional.empty();
    }
    double k = mean * (1 - mean) / (square - mean * mean) - 1;
    BetaDistribution beta = new BetaDistribution(mean * k, (1 - mean) * k);
    double tail = (1 - CONFIDENCE) / 2;
    return Optional.of(
        new Rate(
            value,
            Math.min(value, beta.inverseCumulativeProbability(tail)),
            Math.max(value, beta.inverseCumulativeProbability(1 - tail))));
  }

  private static Optional<Verdict> first(BoardState s) {
    return ProveFacts.of(s).runs().stream()
        .filter(r -> r.ended().isPresent())
        .findFirst()
        .flatMap(ProveFacts.Run::verdict);
  }

  private static OfTest test(
      TestStep t,
      Expected expected,
      Map<String, BoardState> states,
      Map<String, Map<String, FirstResults.Result>> results) {
    List<Point> points = new ArrayList<>();
    Map<String, Integer> faults = new LinkedHashMap<>();
    int n = 0;
    List<String> bad = new ArrayList<>();
    for (Map.Entry<String, Map<String, FirstResults.Result>> b : results.entrySet()) {
      FirstResults.Result r = b.getValue().get(t.name());
      if (r == null) {
        continue;
      }
      n++;
      if (r.verdict().filter(v -> v == Verdict.OUT).isPresent()) {
        bad.add(b.getKey());
        found(states.get(b.getKey())).forEach(f -> faults.merge(f, 1, Integer::sum));
      }
      r.value()
          .filter(Double::isFinite)
          .ifPresent(v ->
              points.add(new Point(b.getKey(), v, r.uncertainty(), r.verdict(), false, r.at())));
    }
    double[] values = points.stream().mapToDouble(Point::value).toArray();
    boolean[] apart = Apart.of(values, points.stream().mapToDouble(Point::uncertainty).toArray());
    List<Point> marked = new ArrayList<>();
    for (int i = 0; i < points.size(); i++) {
      Point p = points.get(i);
      marked.add(new Point(p.board(), p.value(), p.uncertainty(), p.verdict(), apart[i], p.at()));
    }
    double mean = Arrays.stream(values).average().orElse(Double.NaN);
    double sd =
        values.length < 2
            ? Double.NaN
            : Math.sqrt(
                Arrays.stream(values).map(v -> (v - mean) * (v - mean)).sum()
                    / (values.length - 1));
    Optional<Limits> limits = expected.limits().filter(BuildProof::any);
    Optional<Capability> cap =
        // of ohms before power a limit is a floor, not what a process aims at
        sd > 0 && limits.isPresent() && !(t.act() instanceof TestAct.Ohms)
            ? Optional.of(Capability.of(mean, sd, values.length, limits.get(), CONFIDENCE))
            : Optional.empty();
    return new OfTest(
        t.name(),
        n,
        bad.size(),
        bad,
        limits,
        marked,
        mean,
        sd,
        cap,
        drift(marked),
        faults,
        gauge(t, states),
        t.act().reads().orElse(Unit.ONE),
        t.minutes(false));
  }

  /// Of boards that were read several times in one run, each as often as the one that was read
  /// least.
  private static Optional<Gauge> gauge(TestStep t, Map<String, BoardState> states) {
    List<double[]> read = new ArrayList<>();
    for (BoardState s : states.values()) {
      Optional<ProveFacts.Run> first = ProveFacts.of(s).runs().stream().findFirst();
      double[] own =
          first.stream()
              .flatMap(r -> r.made().stream())
              .filter(p -> p.name().equals(t.name()) && !p.left())
              .flatMap(p -> p.value().stream())
              .filter(Double::isFinite)
              .mapToDouble(v -> v)
              .toArray();
      if (own.length > 1) {
        read.add(own);
      }
    }
    int least = read.stream().mapToInt(x -> x.length).min().orElse(0);
    if (read.size() < 2 || least < 2) {
      return Optional.empty();
    }
    double[][][] cube = new double[read.size()][1][];
    for (int i = 0; i < cube.length; i++) {
      cube[i][0] = Arrays.copyOf(read.get(i), least);
    }
    return Optional.of(Gauge.of(cube));
  }

  private static boolean any(Limits l) {
    return Double.isFinite(l.low()) || Double.isFinite(l.high());
  }

  private static List<String> found(BoardState s) {
    return s.standing().stream()
        .map(Logged::entry)
        .flatMap(e ->
            switch (e) {
              case Entry.Found f -> java.util.stream.Stream.of(f.fault());
              case Entry.Defect d -> java.util.stream.Stream.of(d.place() + " " + d.defect());
              default -> java.util.stream.Stream.<String>empty();
            })
        .distinct()
        .toList();
  }

  private static List<String> drift(List<Point> points) {
    if (points.size() < RunRules.FEWEST) {
      return List.of();
    }
    List<Point> inTime = new ArrayList<>(points);
    inTime.sort(java.util.Comparator.comparing(Point::at));
    RunRules r = RunRules.of(inTime.stream().mapToDouble(Point::value).toArray());
    return r.signals().stream()
        .map(s -> s.rule() + ", at board " + inTime.get(s.at()).board())
        .toList();
  }

  /// Tests that never failed, with the minutes that each would save and what leaving it out risks.
  public List<String> neverFailed() {
    return tests.stream()
        .filter(t -> t.n() > 0 && t.failed() == 0)
        .map(t ->
            String.format(
                java.util.Locale.ROOT,
                "%s never failed in %d: without it %.2g min a board less, and up to %.2g %% of boards"
                    + " with its fault would not be seen by it (95 %%)",
                t.name(),
                t.n(),
                t.minutes(),
                100 * t.risk()))
        .toList();
  }
}
