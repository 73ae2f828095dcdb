package ell.book;

import ell.core.entry.Entry;
import java.time.OffsetDateTime;

/// An entry that was written while the server did not answer, and waits to be taken over.
///
/// @param number that it has here until then
/// @param after number of the last entry of the board that was known when it was written
/// @param conflict why it was not taken over, empty while nobody has tried or nothing speaks
///   against it
public record Waiting(
    long number, OffsetDateTime at, String board, Entry entry, long after, String conflict) {}
