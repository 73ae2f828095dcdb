package ell.core.trace;

import java.util.List;

/// What a measurement would show under each case. Most cases show what a healthy board does; those
/// that do not are listed.
sealed interface Outlook permits Numbers, Words, AlongViews.Made {
  /// How likely an answer is under a case, as a density over the measurement's own scale; above 0.
  default double chance(Answer answer, int at) {
    return chance(answer, at, 1);
  }

  /// How likely it is that it came out alike some times.
  double chance(Answer answer, int at, int times);

  /// How likely it is where it would be what is expected most under that case: what a chance is
  /// held against.
  double best(int at, Answer answer);

  /// Cases that do not show what a healthy board does, and to which group each belongs.
  int[] who();

  /// The group of each of [#who], counted from 1; 0 is the group of all others.
  int[] group();

  /// How likely each outcome is in each group; rows sum to 1.
  double[][] table();

  /// The outcomes.
  List<Outcome> outcomes();

  /// What may come out.
  ///
  /// @param low from here, NaN for words
  /// @param high to here
  /// @param words for a person
  record Outcome(double low, double high, String words) {}
}
