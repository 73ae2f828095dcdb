package ell.work.bring;

import ell.files.Looks;
import ell.files.Read;
import ell.files.Source;
import ell.files.csv.BomReader;
import ell.files.csv.ColumnWords;
import ell.files.csv.OutlineReader;
import ell.files.csv.PlacementReader;
import ell.files.csv.ShelfReader;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

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
  LADDER("power ladder"),
  /// Paste of the first side, Gerber.
  PASTE_FIRST("paste, first side"),
  /// Paste of the second side, Gerber.
  PASTE_SECOND("paste, second side"),
  /// Lines and letters, Gerber.
  LEGEND("legend"),
  /// Copper of the first side, Gerber.
  COPPER_FIRST("copper, first side"),
  /// Copper of the second side, Gerber.
  COPPER_SECOND("copper, second side"),
  /// Holes, XNC.
  DRILL("drill");

  private static final int HEAD = 4000;
  private static final Pattern FUNCTION = Pattern.compile("TF\\.FileFunction,([^*%]+)");
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
  public static Optional<FileKind> of(Source s) throws IOException {
    String head;
    try (InputStream in = s.open()) {
      head = new String(in.readNBytes(HEAD), StandardCharsets.ISO_8859_1);
    }
    switch (Looks.of(s)) {
      case JSON -> {
        return head.contains("\"rails\"") ? Optional.of(LADDER) : Optional.empty();
      }
      case GERBER -> {
        return layer(head, s.name().toLowerCase(Locale.ROOT));
      }
      case DRILL -> {
        return Optional.of(DRILL);
      }
      case NETLIST -> {
        return Optional.of(NETLIST);
      }
      case TEXT -> {}
      default -> {
        return Optional.empty();
      }
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
    if (ColumnWords.namesReferences(s)) {
      return Optional.of(BOM);
    }
    if (understood(ShelfReader.read(s))) {
      return Optional.of(SHELF);
    }
    return understood(BomReader.read(s)) ? Optional.of(BOM) : Optional.empty();
  }

  /// Which layer: as the file says it, else by the words of its name.
  private static Optional<FileKind> layer(String head, String name) {
    Matcher said = FUNCTION.matcher(head);
    String words = said.find() ? said.group(1).toLowerCase(Locale.ROOT) : name;
    boolean second = words.matches(".*(bot|second|back|\\.gbp|\\.gbo|b_).*");
    if (words.matches(".*(paste|\\.gtp|\\.gbp).*")) {
      return Optional.of(second ? PASTE_SECOND : PASTE_FIRST);
    }
    if (words.matches(".*(profile|outline|edge|\\.gko|\\.gm1).*")) {
      return Optional.of(OUTLINE);
    }
    if (words.matches(".*(copper|\\.gtl|\\.gbl|[fb]_cu|[fb]\\.cu).*") && !words.contains("inr")) {
      boolean below = second || words.matches(".*(\\.gbl|b\\.cu).*");
      return Optional.of(below ? COPPER_SECOND : COPPER_FIRST);
    }
    return words.matches(".*(legend|silk|\\.gto).*") && !second
        ? Optional.of(LEGEND)
        : Optional.empty();
  }

  /// The layer that a paste, legend, drill or outline file is kept as with a revision that stands.
  public Optional<LayerKind> layer() {
    return switch (this) {
      case PASTE_FIRST -> Optional.of(LayerKind.PASTE_FIRST);
      case PASTE_SECOND -> Optional.of(LayerKind.PASTE_SECOND);
      case LEGEND -> Optional.of(LayerKind.LEGEND);
      case COPPER_FIRST -> Optional.of(LayerKind.COPPER_FIRST);
      case COPPER_SECOND -> Optional.of(LayerKind.COPPER_SECOND);
      case DRILL -> Optional.of(LayerKind.DRILL);
      case OUTLINE -> Optional.of(LayerKind.OUTLINE);
      default -> Optional.empty();
    };
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
