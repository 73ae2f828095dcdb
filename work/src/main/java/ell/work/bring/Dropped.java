package ell.work.bring;

import ell.files.Archive;
import ell.files.Looks;
import ell.files.Source;
import java.io.IOException;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// Files that came together, told apart by what is in them; a zip archive gives the files in it.
///
/// @param found by kind, in the order in which they came
/// @param unknown what is none of them, a sentence each
public record Dropped(Map<FileKind, List<Source>> found, List<String> unknown) {
  /// Nothing came.
  public static final Dropped NOTHING = new Dropped(Map.of(), List.of());

  public Dropped {
    found = Map.copyOf(found);
    unknown = List.copyOf(unknown);
  }

  /// Tells files apart.
  public static Dropped of(List<Source> files) {
    Map<FileKind, List<Source>> found = new EnumMap<>(FileKind.class);
    List<String> unknown = new ArrayList<>();
    for (Source s : files) {
      try {
        if (Looks.of(s) != Looks.ZIP) {
          take(s, found, unknown);
          continue;
        }
        List<Source> inside = Archive.files(s);
        if (inside.isEmpty()) {
          unknown.add(s.name() + ": an archive without a file in it, or a broken one");
        }
        for (Source in : inside) {
          take(in, found, unknown);
        }
      } catch (IOException e) {
        unknown.add(s.name() + ": cannot be read: " + e.getMessage());
      }
    }
    return new Dropped(found, unknown);
  }

  private static void take(Source s, Map<FileKind, List<Source>> found, List<String> unknown)
      throws IOException {
    Optional<FileKind> kind = FileKind.of(s);
    if (kind.isPresent()) {
      found.computeIfAbsent(kind.get(), _ -> new ArrayList<>()).add(s);
      return;
    }
    unknown.add(
        s.name()
            + ": "
            + switch (Looks.of(s)) {
              case GERBER ->
                  "a layer that is not used: no paste, outer copper, legend of the first side or edge";
              case TEXT, JSON ->
                  "not a bill of materials, placement, netlist, outline, shelf, ladder, layer or drill file";
              case ZIP -> "a zip archive within one, which is not opened";
              default -> Looks.of(s).words() + ", which is not used";
            });
  }

  /// These and others behind them; of a kind of which there can be one, the later counts.
  public Dropped and(Dropped later) {
    Map<FileKind, List<Source>> all = new EnumMap<>(FileKind.class);
    all.putAll(found);
    later.found.forEach((kind, files) -> {
      List<Source> both = new ArrayList<>();
      if (kind == FileKind.DRILL) {
        all.getOrDefault(kind, List.of()).stream()
            .filter(s -> files.stream().noneMatch(n -> n.name().equals(s.name())))
            .forEach(both::add);
      }
      both.addAll(files);
      all.put(kind, both);
    });
    return new Dropped(all, later.unknown);
  }

  /// The one file of a kind.
  ///
  /// @return empty when there is none
  /// @throws IllegalArgumentException when there are several, naming them
  public Optional<Source> one(FileKind kind) {
    List<Source> all = found.getOrDefault(kind, List.of());
    if (all.size() > 1) {
      throw new IllegalArgumentException(
          all.size()
              + " files look like a "
              + kind.words()
              + ": "
              + String.join(", ", all.stream().map(Source::name).toList())
              + "; say which");
    }
    return all.stream().findFirst();
  }

  /// What is kept as layers of a revision; the edge is among them.
  public Map<LayerKind, List<Source>> layers() {
    Map<LayerKind, List<Source>> all = new EnumMap<>(LayerKind.class);
    found.forEach((kind, files) -> kind.layer().ifPresent(l -> all.put(l, files)));
    return all;
  }
}
