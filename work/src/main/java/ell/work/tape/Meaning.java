package ell.work.tape;

import ell.core.entry.Entry;
import ell.core.entry.EntryWords;
import java.util.List;

/// What a line of the tape means.
public sealed interface Meaning {
  /// It can be logged, unless a rule of the work refuses it.
  ///
  /// @param entries that it stands for
  /// @param words what will be logged, for the person who typed it
  record Ready(List<Entry> entries, String words) implements Meaning {
    public Ready {
      entries = List.copyOf(entries);
    }
  }

  /// It is not finished.
  record Unfinished(String hint) implements Meaning {}

  /// It cannot be logged.
  record Wrong(String why) implements Meaning {}

  /// A line that stands for entries, told in their own words.
  static Meaning ready(Entry... entries) {
    return ready(List.of(entries));
  }

  /// A line that stands for entries, told in their own words.
  static Meaning ready(List<Entry> entries) {
    return new Ready(
        entries,
        entries.size() == 1
            ? EntryWords.of(entries.getFirst())
            : entries.size() + " entries, the last " + EntryWords.of(entries.getLast()));
  }

  /// A line that lacks something.
  static Meaning unfinished(String hint) {
    return new Unfinished(hint);
  }

  /// A line that cannot be right.
  static Meaning wrong(String why) {
    return new Wrong(why);
  }
}
