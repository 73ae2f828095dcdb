package ell.core.heat;

import java.util.Arrays;
import java.util.Optional;

/// What is told of a profile.
public enum ProfileStatistic {
  /// Steepest slope before the peak, over the stated span.
  RAMP_UP("rampUp", "ramp up", "°C/s", true),
  /// From the first passing of the soak's beginning to that of its end.
  SOAK_TIME("soakTime", "soak", "s", false),
  /// In all.
  TIME_ABOVE("timeAboveLiquidus", "above liquidus", "s", false),
  /// Hottest.
  PEAK("peak", "peak", "°C", false),
  /// Steepest slope behind the peak, as a positive number.
  RAMP_DOWN("rampDown", "ramp down", "°C/s", true),
  /// From 25 °C.
  TIME_TO_PEAK("timeToPeak", "to the peak", "s", true);

  private final String key;
  private final String words;
  private final String unit;
  private final boolean zeroBased;

  ProfileStatistic(String key, String words, String unit, boolean zeroBased) {
    this.key = key;
    this.words = words;
    this.unit = unit;
    this.zeroBased = zeroBased;
  }

  /// The fixed word in files.
  public String key() {
    return key;
  }

  /// In words.
  public String words() {
    return words;
  }

  /// Its unit.
  public String unit() {
    return unit;
  }

  /// Whether an upper limit alone means that it begins at zero.
  public boolean zeroBased() {
    return zeroBased;
  }

  /// The statistic with this key.
  public static Optional<ProfileStatistic> of(String key) {
    return Arrays.stream(values()).filter(s -> s.key.equals(key)).findFirst();
  }
}
