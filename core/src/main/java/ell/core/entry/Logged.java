package ell.core.entry;

import java.time.OffsetDateTime;

/// An entry as the book holds it.
///
/// @param number 1-based, rising over the whole book
/// @param at when it was written
/// @param board serial, empty for an entry about the whole build
/// @param entry what happened
public record Logged(long number, OffsetDateTime at, String board, Entry entry) {}
