package ell.work.send;

import ell.core.entry.Logged;
import ell.core.record.Section;
import ell.work.Workshop;
import ell.work.space.ActException;
import java.io.IOException;
import java.util.Optional;
import java.util.OptionalLong;

/// Up to which entry of the book a record speaks.
///
/// @param number of the entry, 0 for a book without any
/// @param words number and time of the entry, as they are printed
/// @param seal the book's head there
public record AsOf(long number, String words, String seal) {
  /// As it stands, or as it stood after an entry.
  ///
  /// @throws ActException when the book has no such entry
  public static AsOf of(Workshop w, OptionalLong asOf) throws IOException, ActException {
    long n = asOf.orElse(w.book().size());
    if (n == 0 && asOf.isEmpty()) {
      return new AsOf(0, "the book is empty", w.book().head().toString());
    }
    Optional<Logged> last = w.book().entry(n);
    Optional<String> hash = w.book().hashOf(n);
    if (last.isEmpty() || hash.isEmpty()) {
      throw new ActException("the book has no entry " + n + ", its last is " + w.book().size());
    }
    return new AsOf(
        n,
        "as of entry " + n + ", " + Section.time(last.get().at()),
        asOf.isEmpty() ? w.book().size() + ":" + w.book().seal() : n + ":" + hash.get());
  }
}
