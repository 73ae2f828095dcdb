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
  LIE,
  /// It answers so slowly that a watch over it is none.
  SLOW,
  /// It sends its answers a byte a second.
  DRIP,
  /// It sends a line that does not end.
  ENDLESS,
  /// It sends a line too many before an answer, every now and then.
  LINE_BEFORE,
  /// It sends a line too many behind an answer, every now and then.
  LINE_BEHIND,
  /// It answers each measurement with the sign for no reading.
  NO_READING,
  /// It answers each measurement with what only a program takes for a number.
  ODD_NUMBER,
  /// It measures three times the volts.
  TRIPLE,
  /// It measures ten times its limit, now and then.
  SPIKES,
  /// It does not obey OFF, and says so.
  STUCK_ON,
  /// It does not obey OFF, and says that it does; only its own measuring shows it.
  FALSE_OFF,
  /// It has no watchdog of its own: it stays on when its clients are gone, or silent.
  CARELESS
}
