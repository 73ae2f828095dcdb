package ell.files.csv;

import ell.files.Findings;
import ell.files.Source;
import java.io.IOException;
import java.util.List;
import java.util.Map;
import java.util.Set;

/// The words by which a maker says what a column means, and the headings that a file has.
public final class ColumnWords {
  private ColumnWords() {}

  /// The words of what columns of a bill or a placement can mean.
  public static List<String> of(boolean bill) {
    return wanted(bill).stream().sorted().map(ColumnMeaning::word).toList();
  }

  private static Set<ColumnMeaning> wanted(boolean bill) {
    return bill ? BomReader.WANTED : PlacementReader.WANTED;
  }

  /// Whether a table names references in so many words: bins and codes may look like them.
  ///
  /// @throws IOException when it cannot be read at all
  public static boolean namesReferences(Source source) throws IOException {
    return !Table.read(
            source,
            new Findings(source.name()),
            BomReader.WANTED,
            Set.of(ColumnMeaning.REFERENCE),
            (_, _) -> {})
        .guessed(ColumnMeaning.REFERENCE);
  }

  /// The headings of a bill or a placement, empty when it has none that can be told.
  ///
  /// @param said headings by the word of their meaning: they help to tell the row
  /// @throws IOException when it cannot be read at all
  public static List<String> headings(Source source, boolean bill, Map<String, String> said)
      throws IOException {
    return Table.read(
            source, new Findings(source.name()), said, wanted(bill), Set.of(), (_, _) -> {})
        .headingRow();
  }
}
