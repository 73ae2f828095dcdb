package ell.desk.shell;

import ell.core.sheet.Worked;
import java.util.List;
import java.util.Optional;

/// What the margin says: why, what to read with, what to take care of, where to look if it goes
/// wrong.
///
/// @param sheet the worked sheet of what is selected
public record Margin(Optional<Worked> sheet, List<Note> notes) {
  /// Nothing.
  public static final Margin EMPTY = new Margin(Optional.empty(), List.of());

  public Margin {
    notes = List.copyOf(notes);
  }

  /// What a note is about.
  public enum Kind {
    /// Plain words.
    PLAIN,
    /// A caution.
    CARE,
    /// Where to look.
    WRONG
  }

  /// A few lines under a title.
  public record Note(Kind kind, String title, List<String> lines) {
    public Note {
      lines = List.copyOf(lines);
    }

    /// Plain words.
    public static Note plain(String title, List<String> lines) {
      return new Note(Kind.PLAIN, title, lines);
    }

    /// A caution.
    public static Note care(List<String> lines) {
      return new Note(Kind.CARE, "Take care", lines);
    }

    /// Where to look if it goes wrong.
    public static Note wrong(List<String> lines) {
      return new Note(Kind.WRONG, "If it goes wrong", lines);
    }
  }
}
