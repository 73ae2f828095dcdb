package ell.core.revise;

import ell.core.board.Revision;
import ell.core.entry.BoardState;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/// Errata against boards: folded from the book, never typed twice.
///
/// @param errata the columns of a board, in the order in which they were written down
/// @param boards in the order of their builds
public record BodgeMatrix(List<Erratum> errata, List<Row> boards) {
  /// A board.
  ///
  /// @param board serial
  /// @param revision that it is of, with the parts of its variant
  /// @param stands by the id of the erratum
  public record Row(String board, Revision revision, BoardState state, Map<String, Stand> stands) {
    public Row {
      stands = Collections.unmodifiableMap(new LinkedHashMap<>(stands));
    }

    /// Ids of the errata that it has yet to be mended of.
    public List<String> needed() {
      return stands.entrySet().stream()
          .filter(e -> e.getValue().state() == Stand.State.NEEDED)
          .map(Map.Entry::getKey)
          .toList();
    }
  }

  /// A board that is asked.
  public record Asked(String board, Revision revision, BoardState state) {}

  public BodgeMatrix {
    errata = List.copyOf(errata);
    boards = List.copyOf(boards);
  }

  /// Folds it.
  public static BodgeMatrix of(List<Erratum> errata, List<Asked> boards) {
    List<Row> rows = new ArrayList<>();
    for (Asked b : boards) {
      Map<String, Stand> stands = new LinkedHashMap<>();
      errata.forEach(e -> stands.put(e.id(), Stand.of(e, b.revision(), b.state())));
      rows.add(new Row(b.board(), b.revision(), b.state(), stands));
    }
    return new BodgeMatrix(errata, rows);
  }

  /// How many boards stand to an erratum in a way.
  public int count(Erratum e, Stand.State state) {
    return (int) boards.stream().filter(b -> b.stands().get(e.id()).state() == state).count();
  }

  /// How far an erratum is: `closed`, `fixed` in a later revision with no board left to mend,
  /// `mended` on every board, else `open`.
  public String state(Erratum e) {
    if (!e.open()) {
      return "closed";
    }
    boolean left =
        count(e, Stand.State.NEEDED) + count(e, Stand.State.DONE) + count(e, Stand.State.CANNOT)
            > 0;
    if (left) {
      return "open";
    }
    if (e.fixedIn().isPresent()) {
      return "fixed";
    }
    return count(e, Stand.State.PROVED) > 0 ? "mended" : "open";
  }

  /// The board with a serial.
  public java.util.Optional<Row> board(String serial) {
    return boards.stream().filter(b -> b.board().equals(serial)).findFirst();
  }
}
