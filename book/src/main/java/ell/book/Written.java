package ell.book;

/// An entry letter for letter as it stands in the file, which is what its hash covers.
///
/// @param number 1-based
/// @param at when, ISO 8601 with offset
/// @param board serial, empty for what belongs to no board
/// @param body the entry as JSON
public record Written(long number, String at, String board, String body) {}
