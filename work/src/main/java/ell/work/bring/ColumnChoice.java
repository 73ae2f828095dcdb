package ell.work.bring;

import ell.files.Source;
import ell.files.csv.ColumnWords;
import ell.work.space.ActException;
import java.io.IOException;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/// Which headings of the bill and the placement mean what, where somebody said it. It is kept with
/// the revision, and the next revision of the design begins with it.
///
/// @param said headings by the word of their meaning, by file
public record ColumnChoice(Map<FileKind, Map<String, String>> said) {
  /// Nothing was said.
  public static final ColumnChoice NONE = new ColumnChoice(Map.of());

  /// The document in which it is kept with a revision.
  static final String KEY = "columns";

  private static final List<FileKind> FILES = List.of(FileKind.BOM, FileKind.PLACEMENT);

  public ColumnChoice {
    said = Map.copyOf(said);
  }

  /// Whether nothing was said.
  public boolean isEmpty() {
    return said.isEmpty();
  }

  /// Headings by the word of their meaning, of one kind of file.
  public Map<String, String> of(FileKind kind) {
    return said.getOrDefault(kind, Map.of());
  }

  /// Reads choices such as `value=Name`, or `placement.x=Mid X` where the two files differ.
  ///
  /// @param words each a meaning, `=`, a heading
  /// @param headings of the two files as they stand, by kind
  /// @throws ActException when a meaning is not known, or no file has such a heading
  public static ColumnChoice of(List<String> words, Map<FileKind, List<String>> headings)
      throws ActException {
    Map<FileKind, Map<String, String>> all = new EnumMap<>(FileKind.class);
    for (String w : words) {
      int equals = w.indexOf('=');
      if (equals < 1 || equals == w.length() - 1) {
        throw new ActException(
            "expected a meaning and a heading such as value=Name, found '" + w + "'");
      }
      String meaning = w.substring(0, equals).strip().toLowerCase(Locale.ROOT);
      String heading = w.substring(equals + 1).strip();
      boolean known = false;
      boolean there = false;
      for (FileKind f : FILES) {
        String own =
            meaning.startsWith(word(f) + ".") ? meaning.substring(word(f).length() + 1) : meaning;
        boolean other = FILES.stream().anyMatch(o -> o != f && meaning.startsWith(word(o) + "."));
        if (other || !ColumnWords.of(f == FileKind.BOM).contains(own)) {
          continue;
        }
        known = true;
        if (headings.getOrDefault(f, List.of()).stream().anyMatch(heading::equalsIgnoreCase)) {
          there = true;
          all.computeIfAbsent(f, _ -> new LinkedHashMap<>()).put(own, heading);
        }
      }
      if (!known) {
        throw new ActException(
            "no column means '"
                + meaning
                + "'; there are "
                + String.join(", ", ColumnWords.of(true))
                + ", and in the placement "
                + String.join(", ", ColumnWords.of(false)));
      }
      if (!there) {
        throw new ActException(
            "there is no column '" + heading + "'; the files have " + listed(headings));
      }
    }
    return new ColumnChoice(all);
  }

  /// The headings of a file, told with the help of what was said of them.
  static List<String> headings(Source file, boolean bill, List<String> said) throws IOException {
    Map<String, String> all = new LinkedHashMap<>();
    for (String w : said) {
      int equals = w.indexOf('=');
      if (equals > 0) {
        all.put(w.substring(w.lastIndexOf('.', equals) + 1, equals), w.substring(equals + 1));
      }
    }
    return ColumnWords.headings(file, bill, all);
  }

  private static String listed(Map<FileKind, List<String>> headings) {
    List<String> parts = new ArrayList<>();
    headings.forEach((k, h) -> parts.add("(" + word(k) + ") " + String.join(", ", h)));
    return String.join(" and ", parts);
  }

  private static String word(FileKind kind) {
    return kind == FileKind.BOM ? "bom" : "placement";
  }

  /// What was said before, where this says nothing about it and the files have such a heading.
  public ColumnChoice after(ColumnChoice before, Map<FileKind, List<String>> headings) {
    Map<FileKind, Map<String, String>> all = new EnumMap<>(FileKind.class);
    for (FileKind f : FILES) {
      Map<String, String> own = new LinkedHashMap<>();
      before
          .of(f)
          .forEach((m, h) -> {
            if (headings.getOrDefault(f, List.of()).stream().anyMatch(h::equalsIgnoreCase)) {
              own.put(m, h);
            }
          });
      own.putAll(of(f));
      if (!own.isEmpty()) {
        all.put(f, own);
      }
    }
    return new ColumnChoice(all);
  }

  /// As it is kept: a line for each, `bom.value=Name`.
  public String text() {
    StringBuilder s = new StringBuilder();
    for (FileKind f : FILES) {
      of(f)
          .forEach(
              (m, h) -> s.append(word(f)).append('.').append(m).append('=').append(h).append('\n'));
    }
    return s.toString();
  }

  /// Reads what was kept; lines that are none say nothing.
  static ColumnChoice kept(String text) {
    Map<FileKind, Map<String, String>> all = new EnumMap<>(FileKind.class);
    for (String line : text.split("\\R")) {
      int dot = line.indexOf('.');
      int equals = line.indexOf('=');
      for (FileKind f : FILES) {
        if (dot > 0 && equals > dot && line.substring(0, dot).equals(word(f))) {
          all.computeIfAbsent(f, _ -> new LinkedHashMap<>())
              .put(line.substring(dot + 1, equals), line.substring(equals + 1));
        }
      }
    }
    return new ColumnChoice(all);
  }
}
