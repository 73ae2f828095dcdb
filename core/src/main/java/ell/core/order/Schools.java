package ell.core.order;

import ell.core.quantity.Check;
import ell.core.quantity.Unit;
import ell.core.sheet.Input;
import ell.core.sheet.Sheet;
import ell.core.sheet.Worked;
import java.util.List;
import java.util.Optional;

/// All at once against block by block, for a number of boards: minutes of work, and the minutes
/// that faults and a mistake of the revision may be expected to cost.
///
/// A fault is looked for among the parts that came on since the last gate: among all of them when
/// everything is soldered at once, on the average half of them are looked at. A mistake of the
/// revision is found on the first board that reaches its gate: block by block the other boards are
/// mended before anything lies over it.
///
/// @param boards of the build, 1 or more
public record Schools(
    int boards,
    double minutesAtOnce,
    double minutesByBlock,
    double setupAtOnce,
    double setupByBlock,
    int parts,
    int blocks,
    double faultsPerBoard,
    double mistakeChance,
    double lookMinutes,
    double mendMinutes,
    double lateMinutes,
    double earlyMinutes,
    List<Risk> risks) {
  /// What is at risk when a gate is asked.
  ///
  /// @param byBlock parts that came on since the gate before
  /// @param atOnce parts that are on when everything is soldered before the first gate
  public record Risk(String gate, int byBlock, int atOnce) {}

  /// Looking at one part with a tip or a glass; typical, no source.
  public static final double LOOK = 0.4;

  /// Mending a fault that is found; typical, no source.
  public static final double MEND = 6;

  /// Mending a mistake of the revision on a finished board, and before the board goes on; typical,
  /// no source.
  public static final double LATE = 15;

  /// See [#LATE].
  public static final double EARLY = 5;

  /// That a revision that was never built has a mistake which every board must be mended for;
  /// typical, no source.
  public static final double MISTAKE = 0.5;

  /// A stencil aligned, paste put out, cleaned up; typical, no source.
  public static final double STENCIL_SETUP = 30;

  /// A bench made ready; typical, no source.
  public static final double BENCH_SETUP = 5;

  /// Faults of hand-made joints, as a fraction; typical, no source, until the book knows better.
  public static final double FAULTS_PER_JOINT = 300e-6;

  /// The book weighs as much as this many joints of the typical rate.
  private static final double PRIOR_JOINTS = 5000;

  public Schools {
    Check.positive(boards, "boards");
    Check.notNegative(minutesAtOnce, "minutesAtOnce");
    Check.notNegative(minutesByBlock, "minutesByBlock");
    Check.notNegative(setupAtOnce, "setupAtOnce");
    Check.notNegative(setupByBlock, "setupByBlock");
    Check.positive(parts, "parts");
    Check.positive(blocks, "blocks");
    Check.notNegative(faultsPerBoard, "faultsPerBoard");
    Check.inRange(mistakeChance, 0, 1, "mistakeChance");
    risks = List.copyOf(risks);
  }

  /// The rate of faults for a joint, from what the book shows, leaning on the typical rate while
  /// the book is thin.
  ///
  /// @param defects that were logged
  /// @param joints that were made
  public static double faultRate(long defects, long joints) {
    return (defects + FAULTS_PER_JOINT * PRIOR_JOINTS) / (joints + PRIOR_JOINTS);
  }

  private double lookAtOnce() {
    return lookMinutes * parts / 2;
  }

  private double lookByBlock() {
    return lookMinutes * parts / blocks / 2;
  }

  /// Expected minutes of mending for each board when everything is soldered at once.
  public double mendingAtOnce() {
    return faultsPerBoard * (lookAtOnce() + mendMinutes);
  }

  /// Expected minutes of mending for each board block by block.
  public double mendingByBlock() {
    return faultsPerBoard * (lookByBlock() + mendMinutes);
  }

  /// Expected minutes for all boards at once.
  public double totalAtOnce() {
    return setupAtOnce + boards * (minutesAtOnce + mendingAtOnce() + mistakeChance * lateMinutes);
  }

  /// Expected minutes for all boards block by block.
  public double totalByBlock() {
    return setupByBlock
        + boards * (minutesByBlock + mendingByBlock())
        + mistakeChance * (lateMinutes + (boards - 1) * earlyMinutes);
  }

  /// Whether block by block costs less for this number of boards.
  public boolean byBlock() {
    return totalByBlock() < totalAtOnce();
  }

  /// The number of boards at which both cost the same, when there is one above 0.
  public Optional<Double> breakEven() {
    double each =
        minutesAtOnce
            - minutesByBlock
            + mendingAtOnce()
            - mendingByBlock()
            + mistakeChance * (lateMinutes - earlyMinutes);
    double once = setupByBlock - setupAtOnce + mistakeChance * (lateMinutes - earlyMinutes);
    double n = once / each;
    return Double.isFinite(n) && n > 0 ? Optional.of(n) : Optional.empty();
  }

  /// The comparison as a worked sheet.
  public Worked worked() {
    return on(Worked.of("order.schools", "All at once, or block by block"))
        .source("common practice, no source; times are typical")
        .done();
  }

  private Worked.Builder on(Worked.Builder s) {
    risks.forEach(r ->
        s.line(
            "gate " + r.gate(),
            "parts at risk: block by block, of " + r.atOnce() + " all at once",
            r.byBlock(),
            Unit.ONE));
    s.line("look, at once", "lookMinutes · parts / 2", lookAtOnce(), "min")
        .line("look, by block", "lookMinutes · parts / blocks / 2", lookByBlock(), "min")
        .line("mending, at once", "faultsPerBoard · (look + mend)", mendingAtOnce(), "min")
        .line("mending, by block", "faultsPerBoard · (look + mend)", mendingByBlock(), "min")
        .line(
            "all at once",
            "setup + boards · (minutes + mending + mistake · late)",
            totalAtOnce(),
            "min")
        .line(
            "block by block",
            "setup + boards · (minutes + mending) + mistake · (late + (boards − 1) · early)",
            totalByBlock(),
            "min");
    breakEven().ifPresent(n -> s.line("break-even", "where both are the same", n, "boards"));
    s.result("totalAtOnce", totalAtOnce() * 60)
        .result("totalByBlock", totalByBlock() * 60)
        .result("pick", byBlock() ? "block by block" : "all at once");
    s.result("breakEven", breakEven().<Object>map(n -> n).orElse("none"));
    return s.assume(
            "a fault is looked for among what came on since the last gate, half of it on the average")
        .assume("a mistake of the revision is found on the first board")
        .line("pick", "the lesser total", byBlock() ? "block by block" : "all at once");
  }

  static Sheet sheet() {
    return new Sheet(
        "order.schools",
        "All at once, or block by block",
        List.of(
            Input.whole("boards").in(1, 1e6),
            Input.number("minutesAtOnce", Unit.ONE).in(0, 1e6),
            Input.number("minutesByBlock", Unit.ONE).in(0, 1e6),
            Input.number("setupAtOnce", Unit.ONE).in(0, 1e6).or("30"),
            Input.number("setupByBlock", Unit.ONE).in(0, 1e6).or("5"),
            Input.whole("parts").in(1, 1e6),
            Input.whole("blocks").in(1, 1e4),
            Input.number("faultsPerBoard", Unit.ONE).in(0, 1e4),
            Input.number("mistakeChance", Unit.ONE).in(0, 1).or("0.5"),
            Input.number("lookMinutes", Unit.ONE).in(0, 1e4).or("0.4"),
            Input.number("mendMinutes", Unit.ONE).in(0, 1e4).or("6"),
            Input.number("lateMinutes", Unit.ONE).in(0, 1e4).or("15"),
            Input.number("earlyMinutes", Unit.ONE).in(0, 1e4).or("5")),
        List.of(),
        Sheet.results("totalAtOnce s, totalByBlock s, pick, breakEven"),
        List.of("common practice, no source; times are typical"),
        (a, s) ->
            new Schools(
                    (int) a.whole("boards"),
                    a.number("minutesAtOnce"),
                    a.number("minutesByBlock"),
                    a.number("setupAtOnce"),
                    a.number("setupByBlock"),
                    (int) a.whole("parts"),
                    (int) a.whole("blocks"),
                    a.number("faultsPerBoard"),
                    a.number("mistakeChance"),
                    a.number("lookMinutes"),
                    a.number("mendMinutes"),
                    a.number("lateMinutes"),
                    a.number("earlyMinutes"),
                    List.of())
                .on(s)
                .done());
  }
}
