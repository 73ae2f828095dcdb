package ell.core.beep;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.OptionalDouble;

/// Tells when a meter that is looked at again and again shows a reading: its last few looks agree,
/// and the tips were lifted since the reading before. An open loop is never a reading by itself,
/// for it looks the same as tips that touch nothing.
public final class Steady {
  private static final int LOOKS = 4;

  /// Looks that agree differ by no more than this share of them, or so many ohms; typical, no
  /// source.
  private static final double SHARE = 0.02;

  private static final double OHMS = 0.3;

  /// Tips were lifted where a look is open, or is this many times away from the reading before.
  private static final double AWAY = 2;

  private static final double AWAY_OHMS = 3;

  private final boolean open;
  private final Deque<Double> looks = new ArrayDeque<>();
  private double taken = Double.NaN;

  /// @param open whether an open loop is a reading too: where the tips are known to touch
  public Steady(boolean open) {
    this.open = open;
  }

  /// Another look.
  ///
  /// @param ohms 0 or more, infinite for an open loop
  /// @return the reading, once for each time that the tips touch
  public OptionalDouble look(double ohms) {
    if (Double.isInfinite(ohms) && !open) {
      looks.clear();
      taken = Double.NaN;
      return OptionalDouble.empty();
    }
    if (!Double.isNaN(taken) && !lifted(ohms)) {
      return OptionalDouble.empty();
    }
    taken = Double.NaN;
    looks.addLast(ohms);
    if (looks.size() > LOOKS) {
      looks.removeFirst();
    }
    if (looks.size() < LOOKS || !agree()) {
      return OptionalDouble.empty();
    }
    double sum = 0;
    for (double look : looks) {
      sum += look;
    }
    looks.clear();
    taken = sum / LOOKS;
    return OptionalDouble.of(taken);
  }

  /// The tips touch somewhere else: the next looks are of another reading.
  public void moved() {
    looks.clear();
    taken = Double.NaN;
  }

  private boolean lifted(double ohms) {
    return Double.isInfinite(ohms) != Double.isInfinite(taken)
        || Math.abs(ohms - taken) > Math.max(AWAY_OHMS, (AWAY - 1) * taken);
  }

  private boolean agree() {
    double low = Double.POSITIVE_INFINITY;
    double high = 0;
    for (double look : looks) {
      low = Math.min(low, look);
      high = Math.max(high, look);
    }
    return low == high || high - low <= Math.max(OHMS, SHARE * high);
  }
}
