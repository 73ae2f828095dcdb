package ell.files.csv;

import ell.core.board.Placement;
import ell.core.board.Side;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.files.Findings;
import ell.files.Read;
import ell.files.Source;
import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// Reads a placement file: reference, x, y, and rotation, side and package when they are there.
/// Units from the heading or the cell; millimetre, with a warning, when neither states one.
public final class PlacementReader {
  static final Set<ColumnMeaning> WANTED =
      Set.of(
          ColumnMeaning.REFERENCE,
          ColumnMeaning.X,
          ColumnMeaning.Y,
          ColumnMeaning.ROTATION,
          ColumnMeaning.SIDE,
          ColumnMeaning.MIRROR,
          ColumnMeaning.PACKAGE);

  private static final Pattern TOTAL =
      Pattern.compile("(?i)(grand )?(sub)?total.*|sum:?|count:?.*|end\\b.*|## ?end.*");
  private static final Pattern YES =
      Pattern.compile("(?i)yes|y|1|true|x|m|mirror(?:ed)?|ja|oui|sí|si");
  private static final Pattern FIRST =
      Pattern.compile(
          "(?iu)(?:top|t|front|f|1|first|upper|component|comp|primary|oben|vorne|dessus|superior|arriba|no|n)"
              + "[ _.-]?(?:side|layer|cu|face|seite)?");
  private static final Pattern SECOND =
      Pattern.compile(
          "(?iu)(?:bottom|bot|b|back|2|second|lower|solder|sold|secondary|unten|hinten|dessous|inferior|abajo|yes|y)"
              + "[ _.-]?(?:side|layer|cu|face|seite)?");

  private PlacementReader() {}

  /// Reads a file.
  ///
  /// @throws IOException when it cannot be read at all
  public static Read<List<Placement>> read(Source source) throws IOException {
    return read(source, Map.of());
  }

  /// Reads a file.
  ///
  /// @param columns headings by the word of what they mean, where somebody said it
  /// @throws IOException when it cannot be read at all
  public static Read<List<Placement>> read(Source source, Map<String, String> columns)
      throws IOException {
    Findings f = new Findings(source.name());
    List<Placement> found = new ArrayList<>();
    Map<String, Table.Row> seen = new HashMap<>();
    List<Table.Row> again = new ArrayList<>();
    Units units = new Units();
    Table table =
        Table.read(
            source,
            f,
            columns,
            WANTED,
            Set.of(ColumnMeaning.REFERENCE, ColumnMeaning.X, ColumnMeaning.Y),
            (t, row) -> {
              String reference = row.text(ColumnMeaning.REFERENCE);
              if (reference.isEmpty() || TOTAL.matcher(reference).matches()) {
                f.pass(row.line(), "no reference: " + row.all());
                return;
              }
              if (References.unnumbered(reference)) {
                f.pass(row.line(), "no number: " + row.all());
                return;
              }
              if (row.text(ColumnMeaning.X).isEmpty() && row.text(ColumnMeaning.Y).isEmpty()) {
                f.pass(row.line(), "no place: " + row.all());
                return;
              }
              Double x = units.length(t, row, ColumnMeaning.X);
              Double y = units.length(t, row, ColumnMeaning.Y);
              double rotation = rotation(row);
              Side side = side(row);
              if (x == null || y == null) {
                return;
              }
              Table.Row before = seen.putIfAbsent(reference, row);
              if (before != null) {
                again.add(row);
              }
              found.add(
                  new Placement(
                      row.line(),
                      reference,
                      x,
                      y,
                      rotation,
                      side,
                      row.text(ColumnMeaning.PACKAGE)));
            });
    List<Placement> one = found;
    Optional<PanelOfCopies> panel =
        again.isEmpty() || f.failed() ? Optional.empty() : PanelOfCopies.of(found);
    if (panel.isPresent()) {
      one = panel.get().first();
      f.found(panel.get().words());
    } else {
      for (Table.Row row : again) {
        String reference = row.text(ColumnMeaning.REFERENCE);
        row.error(
            ColumnMeaning.REFERENCE,
            "reference "
                + reference
                + " is already on line "
                + seen.get(reference).line()
                + "; expected each reference once");
      }
    }
    List<Placement> taken = List.copyOf(one);
    if (!f.failed()) {
      if (found.isEmpty()) {
        f.error(0, 0, "no placements found; expected at least one line with reference, x and y");
      }
      units.account(table, f);
      if (!table.has(ColumnMeaning.SIDE) && !table.has(ColumnMeaning.MIRROR)) {
        f.guess("the side of the parts", "the first side for every part", "--column side=HEADING");
      }
      long second = taken.stream().filter(p -> p.side() == Side.SECOND).count();
      f.found(taken.size() + " places, " + second + " of them on the second side");
      table.account();
    }
    return f.done(taken);
  }

  /// In which unit lengths are: as the cell says it, else the heading, else a remark in the file,
  /// else millimetre, which is told.
  private static final class Units {
    private static final Pattern SAID =
        Pattern.compile(
            "(?i).*\\b(?:units?|[xy]|coordinates?|dimensions?|einheit(?:en)?|unités?|unidad(?:es)?)\\b.*?"
                + "\\b(mm|millimet(?:er|re)s?|mils?|thou|inch(?:es)?|um|µm|microns?|cm)\\b.*"
                + "|(?i).*\\bunits?\\b[^:=]*+[:=]\\s*+(in)\\b.*");
    private String remark;
    private boolean asked;
    private boolean guessed;

    Double length(Table t, Table.Row row, ColumnMeaning m) {
      String text = row.text(m);
      try {
        if (text.matches(".*[A-Za-zµμ\"]+$") && !text.matches(".*[eE]")) {
          String unit = text.replaceFirst("^[-+\\d.,eE\\s]*", "").toLowerCase(Locale.ROOT);
          Double own = scale(unit.equals("\"") ? "in" : unit);
          if (own != null && !own.isNaN()) {
            return EngineeringNumber.parse(
                    text.substring(0, text.length() - unit.length()).strip(), Unit.ONE)
                * own;
          }
          return EngineeringNumber.parse(text, Unit.METRE) * 1000;
        }
        double number = EngineeringNumber.parse(text, Unit.ONE);
        String unit = t.unit(m);
        Double scale = scale(unit.isEmpty() ? remark(t) : unit);
        if (scale == null) {
          guessed = true;
          return number;
        }
        if (scale.isNaN()) {
          row.error(m, "unknown unit '" + unit + "' in the heading, expected mm, mil, in or um");
          return null;
        }
        return number * scale;
      } catch (NumberFormatException e) {
        row.error(m, e.getMessage());
        return null;
      }
    }

    private String remark(Table t) {
      if (!asked) {
        asked = true;
        remark = "";
        for (String r : t.remarks()) {
          Matcher said = SAID.matcher(r);
          if (said.matches()) {
            remark =
                (said.group(1) == null ? said.group(2) : said.group(1)).toLowerCase(Locale.ROOT);
          }
        }
      }
      return remark;
    }

    void account(Table t, Findings f) {
      if (guessed) {
        f.guess("the unit of x and y", "millimetre", "");
      } else if (asked && !remark.isEmpty()) {
        f.found("unit: " + remark + ", as a remark in it says");
      }
    }

    /// Millimetres to the unit; null when none is said, NaN for one that is not known.
    private static Double scale(String unit) {
      return switch (unit) {
        case "mm", "millimeter", "millimetre", "millimeters", "millimetres" -> 1.0;
        case "mil", "mils", "thou" -> 0.0254;
        case "in", "inch", "inches" -> 25.4;
        case "um", "µm", "micron", "microns" -> 0.001;
        case "cm" -> 10.0;
        case "m" -> 1000.0;
        case "" -> null;
        default -> Double.NaN;
      };
    }
  }

  private static double rotation(Table.Row row) {
    String text = row.text(ColumnMeaning.ROTATION).replaceAll("(?i)\\s*(°|deg|degrees)$", "");
    if (text.isEmpty()) {
      return 0;
    }
    try {
      double deg = EngineeringNumber.parse(text, Unit.ONE) % 360;
      return deg < 0 ? deg + 360 : deg;
    } catch (NumberFormatException e) {
      row.error(ColumnMeaning.ROTATION, e.getMessage());
      return 0;
    }
  }

  private static Side side(Table.Row row) {
    String said = row.text(ColumnMeaning.SIDE);
    if (said.isEmpty()) {
      return YES.matcher(row.text(ColumnMeaning.MIRROR)).matches() ? Side.SECOND : Side.FIRST;
    }
    if (FIRST.matcher(said).matches()) {
      return Side.FIRST;
    }
    if (SECOND.matcher(said).matches()) {
      return Side.SECOND;
    }
    row.error(
        ColumnMeaning.SIDE,
        "expected a side such as top or bottom, T or B, 1 or 2, found '" + said + "'");
    return Side.FIRST;
  }
}
