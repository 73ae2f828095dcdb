package ell.core.talk;

/// How a board that was spoken to behaves.
public enum TalkSymptom {
  /// It answers.
  FINE,
  /// Nothing comes from it.
  SILENT,
  /// What comes is not text: another rate.
  GARBAGE,
  /// It speaks, and does not hear.
  DEAF,
  /// Only its loader speaks: a strap keeps it there.
  IN_LOADER,
  /// Its loader says that it holds no program.
  EMPTY,
  /// It takes settings and forgets them.
  FORGETS;

  /// What a board as worked out would show.
  ///
  /// @return empty where it may be one thing or another at each reset
  public static java.util.Optional<TalkSymptom> of(ControllerOnBoard c) {
    if (!c.settled()) {
      return java.util.Optional.empty();
    }
    if (!c.runs() || !c.heard()) {
      return java.util.Optional.of(SILENT);
    }
    if (Math.abs(c.clock() - 1) > 0.03) {
      return java.util.Optional.of(GARBAGE);
    }
    if (!c.hears()) {
      return java.util.Optional.of(DEAF);
    }
    if (c.straps().isEmpty()) {
      return java.util.Optional.empty();
    }
    if (!c.straps().get()) {
      return java.util.Optional.of(IN_LOADER);
    }
    return java.util.Optional.of(c.locked() || !c.remembers() ? FORGETS : FINE);
  }
}
