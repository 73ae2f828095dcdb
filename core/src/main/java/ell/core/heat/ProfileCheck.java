package ell.core.heat;

import ell.core.quantity.Check;
import ell.core.quantity.Limits;
import ell.core.quantity.Verdict;
import ell.core.sheet.Worked;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// A log held against a window: every statistic of every channel, the process window index, the
/// spread between channels.
///
/// The index is the largest of `100 · |measured − middle| / half of the range` over the statistics
/// that have both limits; under 100 all are inside. Common practice, no source.
///
/// @param channels those that measure boards and parts; set point, plate and heater are left out
/// @param pwi worst of the channels, NaN when none can be told
/// @param spread greatest difference between channels at one time once the hottest is above the
///   soak's beginning, °C; 0 with one channel
public record ProfileCheck(
    ProfileWindow window,
    List<Channel> channels,
    double pwi,
    Verdict verdict,
    double spread,
    double accuracy) {

  /// One statistic.
  ///
  /// @param value NaN when the profile never got there
  /// @param uncertainty in the same unit
  public record Line(
      ProfileStatistic statistic,
      double value,
      double uncertainty,
      Optional<Limits> limits,
      Verdict verdict) {
    /// How far from the middle of the limits, 100 at a limit; NaN without two limits.
    public double index() {
      if (limits.isEmpty()
          || Double.isInfinite(limits.get().low())
          || Double.isInfinite(limits.get().high())
          || Double.isNaN(value)) {
        return Double.NaN;
      }
      Limits l = limits.get();
      return 100 * Math.abs(value - (l.low() + l.high()) / 2) / ((l.high() - l.low()) / 2);
    }
  }

  /// One channel.
  ///
  /// @param remarks what was put up with
  public record Channel(
      String name, List<Line> lines, double pwi, double peakAt, double span, List<String> remarks) {
    public Channel {
      lines = List.copyOf(lines);
      remarks = List.copyOf(remarks);
    }

    /// The line of a statistic.
    public Line line(ProfileStatistic s) {
      return lines.stream().filter(l -> l.statistic() == s).findFirst().orElseThrow();
    }
  }

  public ProfileCheck {
    channels = List.copyOf(channels);
  }

  /// Holds a log against a window.
  ///
  /// @param accuracy of the thermocouples, ± °C; 0 leaves it out of the verdicts
  /// @throws IllegalArgumentException when a channel has too few samples, or none measures
  public static ProfileCheck of(ProfileLog log, ProfileWindow window, double accuracy) {
    Check.inRange(accuracy, 0, 50, "accuracy");
    List<Channel> all = new ArrayList<>();
    List<ProfileLog.Channel> measured =
        log.channels().stream().filter(c -> !c.wanted() && !c.plate()).toList();
    if (measured.isEmpty()) {
      throw new IllegalArgumentException("no channel of the log measures anything");
    }
    double worst = Double.NaN;
    Verdict verdict = Verdict.WITHIN;
    for (ProfileLog.Channel c : measured) {
      Channel one = channel(c, window, accuracy);
      all.add(one);
      worst = Double.isNaN(worst) || one.pwi() > worst ? one.pwi() : worst;
      for (Line l : one.lines()) {
        verdict = verdict.and(l.verdict());
      }
    }
    return new ProfileCheck(window, all, worst, verdict, spread(measured, window), accuracy);
  }

  private static Channel channel(ProfileLog.Channel c, ProfileWindow w, double accuracy) {
    ProfileShape shape = ProfileShape.of(c, w);
    Map<ProfileStatistic, Double> up = shape.values;
    Map<ProfileStatistic, Double> down = shape.values;
    if (accuracy > 0) {
      up = ProfileShape.of(c.shifted(accuracy), w).values;
      down = ProfileShape.of(c.shifted(-accuracy), w).values;
    }
    List<Line> lines = new ArrayList<>();
    double worst = Double.NaN;
    for (ProfileStatistic s : ProfileStatistic.values()) {
      double v = shape.values.getOrDefault(s, Double.NaN);
      double u =
          Double.isNaN(v)
              ? 0
              : Math.max(
                  Math.abs(up.getOrDefault(s, v) - v), Math.abs(down.getOrDefault(s, v) - v));
      Optional<Limits> limits = Optional.ofNullable(w.limits().get(s));
      Verdict verdict =
          limits.map(l -> Double.isNaN(v) ? Verdict.OUT : l.judge(v, u)).orElse(Verdict.WITHIN);
      Line line = new Line(s, v, u, limits, verdict);
      lines.add(line);
      double i = line.index();
      worst = Double.isNaN(worst) || i > worst ? i : worst;
    }
    return new Channel(
        c.name(), lines, worst, shape.peakAt, shape.span, List.copyOf(shape.remarks));
  }

  private static double spread(List<ProfileLog.Channel> all, ProfileWindow w) {
    if (all.size() < 2) {
      return 0;
    }
    ProfileLog.Channel first = all.getFirst();
    int step = Math.max(1, first.size() / 5000);
    double most = 0;
    for (int i = 0; i < first.size(); i += step) {
      double lo = Double.POSITIVE_INFINITY;
      double hi = Double.NEGATIVE_INFINITY;
      for (ProfileLog.Channel c : all) {
        double v = c.at(first.second(i));
        lo = Math.min(lo, v);
        hi = Math.max(hi, v);
      }
      most = hi > w.soakFrom() ? Math.max(most, hi - lo) : most;
    }
    return most;
  }

  /// The sheet of one channel.
  public Worked sheet(Channel c) {
    Worked.Builder s =
        Worked.of("heat.profile", "Does " + c.name() + " keep to the window " + window.name());
    for (Line l : c.lines()) {
      String limits = l.limits().map(x -> text(x, l.statistic().unit())).orElse("no limit");
      if (Double.isNaN(l.value())) {
        s.line(l.statistic().words(), limits, "not reached");
      } else {
        s.line(l.statistic().words(), limits, l.value(), l.statistic().unit());
      }
    }
    if (!Double.isNaN(c.pwi())) {
      s.line(
          "window index", "max 100·|value − middle| / half range, inside below 100", c.pwi(), "");
    }
    s.source(window.source())
        .assume(
            "slopes over "
                + Math.round(c.span())
                + " s; crossings on straight lines between samples");
    s.assume(
        accuracy > 0
            ? "thermocouples known to ±" + accuracy + " °C"
            : "the thermocouple's own tolerance is not counted");
    c.remarks().forEach(s::assume);
    return s.caution("The paste's and the parts' data sheets decide; this window is a start.")
        .caution("Fumes, hot plate: extraction on, hands off until it is below 50 °C.")
        .verdict(c.lines().stream().map(Line::verdict).reduce(Verdict.WITHIN, Verdict::and))
        .done();
  }

  /// Limits with a unit that only people use.
  public static String text(Limits l, String unit) {
    String lo = trim(l.low());
    String hi = trim(l.high());
    return Double.isInfinite(l.low())
        ? "below " + hi + " " + unit
        : Double.isInfinite(l.high()) ? "above " + lo + " " + unit : lo + "..." + hi + " " + unit;
  }

  private static String trim(double d) {
    return d == Math.rint(d) && Math.abs(d) < 1e9
        ? String.valueOf((long) d)
        : String.format(java.util.Locale.ROOT, "%.3g", d);
  }
}
