package ell.core.record;

import ell.core.quantity.Limits;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import java.time.OffsetDateTime;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/// A part of a board's record, as data: a title and rows. A stage makes its own; the PDF, and
/// whatever else shows a record, draws all of them in one way.
///
/// @param title what it is about
/// @param note beside the title, may be empty
/// @param widths share of the page of each column of cells; they add up to 1 at most
/// @param rows in the order of the page
public record Section(String title, String note, List<Double> widths, List<Row> rows) {
  private static final DateTimeFormatter TIME =
      DateTimeFormatter.ofPattern("uuuu-MM-dd HH:mm:ss", Locale.ROOT);

  /// How a row is set.
  public enum Tone {
    /// As it is.
    PLAIN,
    /// Less important, or not done yet.
    SOFT,
    /// Something is wrong.
    BAD,
    /// Nothing is wrong.
    GOOD,
    /// Taken back.
    STRUCK
  }

  /// A row.
  public sealed interface Row {}

  /// Words in columns.
  ///
  /// @param cells at most as many as the section has widths
  /// @param verdict shown at the end of the row, if there is one
  public record Cells(List<String> cells, Optional<Verdict> verdict, Tone tone) implements Row {
    public Cells {
      cells = List.copyOf(cells);
    }
  }

  /// A reading on its limit strip; the value is absent when it was not read.
  ///
  /// @param uncertainty expanded, in `unit`
  public record Strip(
      String place,
      Optional<Double> value,
      Unit unit,
      Optional<Limits> limits,
      Optional<Double> uncertainty,
      Optional<Verdict> verdict)
      implements Row {}

  /// A photograph that is kept with the book.
  ///
  /// @param sha256 of its bytes, hexadecimal
  public record Picture(String place, String name, String sha256) implements Row {}

  /// A part of a board in ink, seen from one side. Lengths in millimetre, y upwards.
  ///
  /// @param words what it shows
  /// @param box what is drawn: left, lower, right and upper end
  /// @param edges lines of the board's edge, each a list of x and y in turn
  /// @param pads left, lower, width and height of each
  /// @param names of parts, where they sit
  /// @param wires from x and y to x and y
  /// @param cuts where tracks are cut, x and y
  /// @param marks what is worked at, with a label
  public record Drawing(
      String words,
      double[] box,
      List<double[]> edges,
      List<double[]> pads,
      List<Label> names,
      List<double[]> wires,
      List<double[]> cuts,
      List<Label> marks)
      implements Row {
    public Drawing {
      edges = List.copyOf(edges);
      pads = List.copyOf(pads);
      names = List.copyOf(names);
      wires = List.copyOf(wires);
      cuts = List.copyOf(cuts);
      marks = List.copyOf(marks);
    }

    /// Words at a place.
    public record Label(double x, double y, String text) {}
  }

  /// A section.
  ///
  /// @throws IllegalArgumentException when the widths are more than a page, or a row has more cells
  ///   than there are widths
  public Section {
    widths = List.copyOf(widths);
    rows = List.copyOf(rows);
    double all = widths.stream().mapToDouble(w -> w).sum();
    if (all > 1 + 1e-9) {
      throw new IllegalArgumentException("the widths of " + title + " are more than 1: " + all);
    }
    for (Row r : rows) {
      if (r instanceof Cells c && c.cells().size() > widths.size()) {
        throw new IllegalArgumentException(
            title + " has " + widths.size() + " columns, found a row of " + c.cells().size());
      }
    }
  }

  /// A row of words.
  public static Cells cells(Tone tone, String... words) {
    return new Cells(List.of(words), Optional.empty(), tone);
  }

  /// A row of words with a verdict.
  public static Cells judged(Verdict verdict, String... words) {
    return new Cells(List.of(words), Optional.of(verdict), Tone.PLAIN);
  }

  /// A time as it is written for people.
  public static String time(OffsetDateTime at) {
    return at.format(TIME);
  }
}
