package ell.core.talk;

/// A pin that a controller reads at reset: at one level its program runs, at the other it waits to
/// be loaded.
///
/// @param joint `part.pin`
/// @param runsHigh the level at which the program runs
/// @param guessed whether nobody said so
public record Strap(String joint, boolean runsHigh, boolean guessed) {}
