package ell.work;

import ell.files.BomReader;
import ell.files.OutlineReader;
import ell.files.PlacementReader;
import ell.files.Read;
import ell.files.ShelfReader;
import ell.files.Source;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.Locale;
import java.util.Optional;

/// What a dropped file is, told by what is in it.
public enum FileKind {
  /// Bill of materials, CSV.
  BOM("bill of materials"),
  /// Placement, CSV.
  PLACEMENT("placement"),
  /// IPC-D-356A.
  NETLIST("netlist"),
  /// Edge of the board, CSV.
  OUTLINE("outline"),
  /// What lies on the shelf, CSV.
  SHELF("shelf"),
  /// Power ladder, JSON.
  LADDER("power ladder");

  private static final int HEAD = 4000;
  private final String words;

  FileKind(String words) {
    this.words = words;
  }

  /// The kind in words.
  public String words() {
    return words;
  }

  /// Looks into a file.
  ///
  /// @return empty when it is none of these; a file with faults in it is still told by its headings
  /// @throws IOException when it cannot be read
  public static Optional<FileKind> of(Path file) throws IOException {
    Source s = Source.of(file);
    String head;
    try (InputStream in = s.open()) {
      head = new String(in.readNBytes(HEAD), StandardCharsets.ISO_8859_1);
    }
    if (head.stripLeading().startsWith("{")) {
      return head.contains("\"rails\"") ? Optional.of(LADDER) : Optional.empty();
    }
    if (head.lines().anyMatch(l -> l.matches("[3][12]7.{20,}|P  UNITS.*"))) {
      return Optional.of(NETLIST);
    }
    if (ShelfFiles.isOffers(s)) {
      return Optional.empty(); // offers belong to the kit, not to a revision
    }
    if (understood(PlacementReader.read(s))) {
      return Optional.of(PLACEMENT);
    }
    if (understood(OutlineReader.read(s)) && !head.toLowerCase(Locale.ROOT).contains("rotation")) {
      return Optional.of(OUTLINE);
    }
    if (understood(BomReader.read(s))) {
      return Optional.of(BOM);
    }
    return understood(ShelfReader.read(s)) ? Optional.of(SHELF) : Optional.empty();
  }

  /// Whether the headings were found, whatever stands below them.
  private static boolean understood(Read<?> read) {
    return switch (read) {
      case Read.Whole<?> _ -> true;
      case Read.Flawed<?>(var problems) ->
          problems.stream().noneMatch(p -> p.message().startsWith("expected a heading"));
    };
  }
}
