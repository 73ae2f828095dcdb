package ell.core.trace;

import java.util.List;

/// A measurement that could be made next, with its worth.
///
/// @param probe what is done
/// @param supply how the supply must be set for it, empty for power off
/// @param power whether the board must have power
/// @param minutes that it takes, with what must be switched before
/// @param information that it is expected to give, bit
/// @param outcomes with how likely each is, and which suspects it leaves
/// @param why one sentence
public record Choice(
    Probe probe,
    java.util.Optional<Feed> supply,
    boolean power,
    double minutes,
    double information,
    List<Result> outcomes,
    String why) {
  /// To think of what a measurement says, to write it down and to go to the next one, minutes;
  /// typical, no source. On made boards, two minutes ask for a sixth fewer measurements than half a
  /// minute does, in as many minutes of measuring.
  static final double THOUGHT = 2;

  public Choice {
    outcomes = List.copyOf(outcomes);
  }

  /// How a supply must be set.
  public record Feed(String net, double volts, double limit) {}

  /// One thing that may come out.
  ///
  /// @param low from here, NaN for words
  /// @param high to here
  /// @param words for a person
  /// @param chance that it does
  /// @param left the likeliest suspects then, best first
  public record Result(double low, double high, String words, double chance, List<String> left) {
    public Result {
      left = List.copyOf(left);
    }
  }

  /// Bits a minute of measuring.
  public double perMinute() {
    return information / minutes;
  }

  /// By what it is chosen: bits a minute, with what any measurement takes to be thought of and
  /// written down.
  public double worth() {
    return worth(information, minutes);
  }

  static double worth(double information, double minutes) {
    return information / (minutes + THOUGHT);
  }
}
