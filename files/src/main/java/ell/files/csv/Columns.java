package ell.files.csv;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/// Which column of a table means what: as somebody said it, else by the words of the headings, else
/// by what stands below them.
final class Columns {
  /// Several origins, counts or names are often given; the best word is the one by custom.
  private static final Set<ColumnMeaning> MAY_BE_TWICE =
      Set.of(
          ColumnMeaning.X,
          ColumnMeaning.Y,
          ColumnMeaning.QUANTITY,
          ColumnMeaning.REFERENCE,
          ColumnMeaning.DESCRIPTION,
          ColumnMeaning.VALUE,
          ColumnMeaning.CODE,
          ColumnMeaning.SIDE,
          ColumnMeaning.ROTATION,
          ColumnMeaning.PACKAGE);

  private static final int SAID = 1000;
  private static final double LIKELY = 0.6;
  private static final double UNLIKELY = 0.15;
  private static final double LOOKS = 15;
  private static final int CLEAR = 40;
  private static final int DOUBT = 20;

  /// Where a vague word and so many of the cells agree, nothing is guessed.
  private static final double PLAIN = 0.75;

  /// Looks alone are a guess always.
  private static final double SURE = 2;

  final Map<ColumnMeaning, Integer> at = new EnumMap<>(ColumnMeaning.class);
  final Map<ColumnMeaning, String> headings = new EnumMap<>(ColumnMeaning.class);

  /// Meanings that no plain word said.
  final List<ColumnMeaning> guessed = new ArrayList<>();

  /// Meanings that two columns could have.
  final List<String> twice = new ArrayList<>();

  /// What was said of columns that are not there.
  final List<String> strangers = new ArrayList<>();

  private record Claim(ColumnMeaning meaning, int column, double weight, int said, double share) {}

  /// Finds them.
  ///
  /// @param row the headings
  /// @param below the cells of each column, those that are not blank
  /// @param said meanings that somebody gave to headings
  static Columns of(
      List<String> row,
      List<List<String>> below,
      Set<ColumnMeaning> wanted,
      Map<String, String> said) {
    Columns c = new Columns();
    List<Claim> claims = new ArrayList<>();
    for (ColumnMeaning m : wanted) {
      Optional<String> named = Optional.ofNullable(said.get(m.word()));
      if (named.isPresent() && column(row, named.get()) < 0) {
        c.strangers.add(
            "no column '" + named.get() + "' for the " + m.word() + "; there are " + quoted(row));
      }
      for (int i = 0; i < row.size(); i++) {
        claim(m, i, row, below.get(i), said, wanted.contains(ColumnMeaning.REFERENCE))
            .ifPresent(claims::add);
      }
    }
    claims.sort(
        Comparator.comparingDouble((Claim x) -> -x.weight())
            .thenComparingInt(Claim::column)
            .thenComparing(Claim::meaning));
    c.take(claims, row);
    return c;
  }

  private void take(List<Claim> claims, List<String> row) {
    for (Claim x : claims) {
      boolean taken = at.containsValue(x.column());
      if (!taken && !at.containsKey(x.meaning())) {
        at.put(x.meaning(), x.column());
        headings.put(x.meaning(), row.get(x.column()));
        if (x.said() < CLEAR && x.share() < (x.said() > 0 ? PLAIN : SURE)) {
          guessed.add(x.meaning());
        }
      } else if (!taken && x.said() >= CLEAR && !MAY_BE_TWICE.contains(x.meaning())) {
        twice.add(x.meaning().word());
      }
    }
  }

  private static Optional<Claim> claim(
      ColumnMeaning m,
      int i,
      List<String> row,
      List<String> cells,
      Map<String, String> said,
      boolean parts) {
    String named = said.get(m.word());
    if (named != null && column(row, named) >= 0) {
      return column(row, named) == i
          ? Optional.of(new Claim(m, i, SAID, SAID, 1))
          : Optional.empty();
    }
    if (said.values().stream().anyMatch(h -> column(row, h) == i)) {
      return Optional.empty(); // it was said to be something else
    }
    int word = m.said(ColumnMeaning.key(row.get(i)));
    double share = CellSense.share(m, cells);
    boolean counts =
        m == ColumnMeaning.QUANTITY || m == ColumnMeaning.KEY || m == ColumnMeaning.LOOP;
    if (!counts && word < CLEAR && CellSense.running(cells)
        || m == ColumnMeaning.CODE && CellSense.running(cells)) {
      return Optional.empty();
    }
    double looks = Double.isNaN(share) ? 0 : share;
    if (word >= CLEAR) {
      boolean contradicted = m == ColumnMeaning.REFERENCE && !cells.isEmpty() && share < UNLIKELY;
      return Optional.of(
          new Claim(m, i, contradicted ? word - DOUBT : word + LOOKS * looks, word, looks));
    }
    if (word > 0) {
      boolean may =
          switch (m) {
            case REFERENCE, PACKAGE -> looks >= LIKELY;
            case VALUE -> true;
            // a shelf may name one code in several bins; parts that share a code would be one
            case CODE ->
                !parts
                    || CellSense.codes(cells)
                        && CellSense.share(ColumnMeaning.REFERENCE, cells) < LIKELY;
            default -> true;
          };
      return may
          ? Optional.of(new Claim(m, i, word + LOOKS * looks, word, looks))
          : Optional.empty();
    }
    // where the heading looks the same as what is below it, it is none
    return looks >= LIKELY && !row.get(i).isEmpty() && CellSense.share(m, List.of(row.get(i))) == 0
        ? Optional.of(new Claim(m, i, LOOKS * looks, 0, looks))
        : Optional.empty();
  }

  private static int column(List<String> row, String heading) {
    for (int i = 0; i < row.size(); i++) {
      if (row.get(i).equalsIgnoreCase(heading.strip())) {
        return i;
      }
    }
    return -1;
  }

  /// How sure the headings are by their words alone: the more, the more likely this is the row of
  /// headings.
  static int words(List<String> row, Set<ColumnMeaning> wanted) {
    List<String> keys = row.stream().map(ColumnMeaning::key).toList();
    int n = 0;
    for (ColumnMeaning m : wanted) {
      int best = 0;
      for (String k : keys) {
        best = Math.max(best, m.said(k));
      }
      n += best >= CLEAR ? 2 : best > 0 ? 1 : 0;
    }
    return n;
  }

  /// Headings in quotes, for a message.
  static String quoted(List<String> row) {
    List<String> q =
        row.stream().filter(h -> !h.isEmpty()).limit(20).map(h -> "'" + h + "'").toList();
    return q.isEmpty() ? "none" : String.join(", ", q);
  }
}
