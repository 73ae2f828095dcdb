package ell.bench.sim;

/// How a simulated instrument can misbehave, so that what is done about it can be practised and
/// tested.
public enum Mischief {
  /// It behaves.
  NONE,
  /// It takes commands and never answers.
  HANG,
  /// It answers nonsense.
  GARBAGE,
  /// It hangs up.
  VANISH,
  /// It answers with a steady lie: no current at all.
  LIE
}
