package ell.core.prove;

import ell.core.quantity.Check;
import java.util.OptionalLong;
import org.hipparchus.distribution.discrete.BinomialDistribution;

/// Whether so many boards can tell a good process from a bad one, asked before the test is begun:
/// exact binomial, no approximation.
///
/// @param most failures at which the bad rate is still ruled out; -1 when no outcome rules it out
/// @param power chance that a good process is told from the bad one
/// @param passesBad chance that a bad process is taken for a good one
public record Discerned(int most, double power, double passesBad) {
  private static final int MOST_BOARDS = 100_000;

  /// Of a test with so many boards.
  ///
  /// @param good rate of failure of a good process, below `bad`
  /// @param confidence with which the bad rate is to be ruled out
  /// @throws IllegalArgumentException when a value is out of its range
  public static Discerned of(int boards, double good, double bad, double confidence) {
    Check.inRange(boards, 1, MOST_BOARDS, "boards");
    Check.inRange(good, 0, 1, "good");
    Check.inRange(bad, 0, 1, "bad");
    Check.inRange(confidence, 1e-9, 1 - 1e-9, "confidence");
    if (!(good < bad)) {
      throw new IllegalArgumentException("good must be below bad, got " + good + " and " + bad);
    }
    BinomialDistribution isBad = new BinomialDistribution(boards, bad);
    int most = -1;
    // the chance to see so few failures of a bad process grows with them
    int low = 0;
    int high = boards;
    while (low <= high) {
      int middle = (low + high) >>> 1;
      if (isBad.cumulativeProbability(middle) <= 1 - confidence) {
        most = middle;
        low = middle + 1;
      } else {
        high = middle - 1;
      }
    }
    return most < 0
        ? new Discerned(-1, 0, 0)
        : new Discerned(
            most,
            new BinomialDistribution(boards, good).cumulativeProbability(most),
            isBad.cumulativeProbability(most));
  }

  /// About the fewest boards with which a good process is told from a bad one with some power: of
  /// neighbours, for the power of exact tests rises in teeth, the first.
  ///
  /// @param power wanted, above 0 and below 1
  /// @return empty when more than 100 000 would be needed
  public static OptionalLong boards(double good, double bad, double confidence, double power) {
    // the power of exact tests goes up and down as it grows: the first that holds, and holds on
    int low = 1;
    int high = 1;
    while (high < MOST_BOARDS && of(high, good, bad, confidence).power() < power) {
      low = high;
      high = Math.min(MOST_BOARDS, high * 2);
    }
    if (of(high, good, bad, confidence).power() < power) {
      return OptionalLong.empty();
    }
    int end = high;
    while (low < high) {
      int middle = (low + high) >>> 1;
      if (of(middle, good, bad, confidence).power() >= power) {
        high = middle;
      } else {
        low = middle + 1;
      }
    }
    // a tooth of it is as long as one more failure takes
    int tooth = (int) Math.min(5_000, 4 / Math.max(bad, 1e-6)) + 8;
    for (int n = Math.max(1, high - tooth); n < Math.min(end, high + tooth); n++) {
      if (of(n, good, bad, confidence).power() >= power) {
        return OptionalLong.of(n);
      }
    }
    return OptionalLong.of(high);
  }
}
