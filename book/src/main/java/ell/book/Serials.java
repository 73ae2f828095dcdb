package ell.book;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;

/// Serials of a new build: a prefix and a number of at least two digits, counted from 1 or from
/// where boards with this prefix end.
final class Serials {
  private Serials() {}

  /// The next ones.
  ///
  /// @throws BookException when one of them is that of another board
  static List<String> next(String prefix, int count, List<Build> builds) throws BookException {
    Set<String> taken = new HashSet<>();
    builds.forEach(b -> taken.addAll(b.boards()));
    int first = 1;
    while (taken.contains(serial(prefix, first))) {
      first++;
    }
    List<String> all = new ArrayList<>();
    for (int i = 0; i < count; i++) {
      String s = serial(prefix, first + i);
      if (taken.contains(s)) {
        throw new BookException(
            "there is a board " + s + " already; give the build a prefix of its own");
      }
      all.add(s);
    }
    return all;
  }

  private static String serial(String prefix, int n) {
    return prefix + String.format(Locale.ROOT, "%02d", n);
  }
}
