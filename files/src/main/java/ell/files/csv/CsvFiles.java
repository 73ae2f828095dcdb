package ell.files.csv;

import de.siegmar.fastcsv.writer.CsvWriter;
import ell.core.board.BomLine;
import ell.core.board.Outline;
import ell.core.board.Placement;
import ell.core.kit.ShelfLine;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.io.Writer;
import java.math.BigDecimal;
import java.util.List;

/// Writes the CSV files that the readers of this package read: RFC 4180, comma, UTF-8.
public final class CsvFiles {
  private CsvFiles() {}

  /// Writes a bill of materials.
  public static void bom(List<BomLine> lines, Writer out) throws IOException {
    try (CsvWriter w = CsvWriter.builder().build(new Unclosed(out))) {
      w.writeRecord(
          "Reference",
          "Quantity",
          "Value",
          "Package",
          "Code",
          "Fitted",
          "Alternates",
          "Key",
          "Block",
          "Description",
          "Cost",
          "Mass (g)",
          "Variants",
          "Spares");
      for (BomLine l : lines) {
        w.writeRecord(
            Spreadsheet.guard(String.join(", ", l.references())),
            String.valueOf(l.references().size()),
            Spreadsheet.guard(l.value()),
            Spreadsheet.guard(l.packageName()),
            Spreadsheet.guard(l.code()),
            l.fitted() ? "yes" : "no",
            Spreadsheet.guard(String.join(" ", l.alternates())),
            l.key() ? "yes" : "",
            Spreadsheet.guard(l.block()),
            Spreadsheet.guard(l.description()),
            number(l.unitCost()),
            number(l.massGrams()),
            Spreadsheet.guard(String.join(" ", l.variants())),
            l.spares() == 0 ? "" : String.valueOf(l.spares()));
      }
    } catch (UncheckedIOException e) {
      throw e.getCause(); // a full disk is no slip of the program
    }
  }

  /// Writes a placement file in millimetre.
  public static void placement(List<Placement> places, Writer out) throws IOException {
    try (CsvWriter w = CsvWriter.builder().build(new Unclosed(out))) {
      w.writeRecord("Reference", "X (mm)", "Y (mm)", "Rotation", "Side", "Package");
      for (Placement p : places) {
        w.writeRecord(
            Spreadsheet.guard(p.reference()),
            number(p.xMm()),
            number(p.yMm()),
            number(p.rotationDeg()),
            p.side().key().equals("first") ? "1" : "2",
            Spreadsheet.guard(p.packageName()));
      }
    } catch (UncheckedIOException e) {
      throw e.getCause(); // a full disk is no slip of the program
    }
  }

  /// Writes a shelf.
  public static void shelf(List<ShelfLine> lines, Writer out) throws IOException {
    try (CsvWriter w = CsvWriter.builder().build(new Unclosed(out))) {
      w.writeRecord("Code", "Quantity", "Bin", "On order", "Expected", "Expiry", "Kind");
      for (ShelfLine l : lines) {
        w.writeRecord(
            Spreadsheet.guard(l.code()),
            String.valueOf(l.quantity()),
            Spreadsheet.guard(l.bin()),
            String.valueOf(l.onOrder()),
            l.expected().map(Object::toString).orElse(""),
            l.expiry().map(Object::toString).orElse(""),
            l.kind().key());
      }
    } catch (UncheckedIOException e) {
      throw e.getCause(); // a full disk is no slip of the program
    }
  }

  /// Writes an outline in millimetre.
  public static void outline(Outline outline, Writer out) throws IOException {
    try (CsvWriter w = CsvWriter.builder().build(new Unclosed(out))) {
      w.writeRecord("Loop", "X (mm)", "Y (mm)");
      for (int i = 0; i < outline.loops().size(); i++) {
        for (Outline.Point p : outline.loops().get(i)) {
          w.writeRecord(String.valueOf(i), number(p.xMm()), number(p.yMm()));
        }
      }
    } catch (UncheckedIOException e) {
      throw e.getCause(); // a full disk is no slip of the program
    }
  }

  /// Writes any table: a heading and rows of equal length.
  public static void table(List<String> heading, List<List<String>> rows, Writer out)
      throws IOException {
    try (CsvWriter w = CsvWriter.builder().build(new Unclosed(out))) {
      w.writeRecord(heading);
      for (List<String> row : rows) {
        w.writeRecord(row.stream().map(Spreadsheet::guard).toList());
      }
    } catch (UncheckedIOException e) {
      throw e.getCause(); // a full disk is no slip of the program
    }
  }

  private static String number(double d) {
    return Double.isNaN(d)
        ? ""
        : new BigDecimal(Double.toString(d)).toPlainString().replaceAll("\\.0$", "");
  }

  /// Keeps the caller's writer open, since the caller opened it.
  private static final class Unclosed extends java.io.FilterWriter {
    Unclosed(Writer out) {
      super(out);
    }

    @Override
    public void close() throws IOException {
      flush();
    }
  }
}
