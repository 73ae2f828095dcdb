package ell.core.talk;

/// The memory that holds a board's serial number and its settings.
///
/// @param part its reference
/// @param protect joint that keeps it from being written, empty when it has none
/// @param protectsHigh the level at which it does
/// @param guessed whether nobody said so
public record Memory(String part, String protect, boolean protectsHigh, boolean guessed) {}
