package ell.book;

import java.time.OffsetDateTime;

/// A board that a bench has in hand.
///
/// @param person who took it
/// @param until when it is free again if nobody writes on it
/// @param words with which it was handed over, empty when it was not
public record Lease(
    String board,
    String bench,
    String person,
    OffsetDateTime since,
    OffsetDateTime until,
    String words) {}
