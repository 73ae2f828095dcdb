package ell.book;

import java.util.OptionalLong;

/// What a walk along the chain found.
///
/// @param ok whether every entry is as it was written
/// @param entries how many were walked
/// @param firstBad number of the first that is not, if one is not
/// @param message a sentence
public record Verification(boolean ok, long entries, OptionalLong firstBad, String message) {}
