package ell.core.kit;

import ell.core.board.Revision;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/// What lies on the shelf now: what was counted, less what boards took since, with what was
/// received, ordered and counted again. Struck entries give back what they took.
///
/// @param lines of the shelf as they stand
/// @param overdrawn by code, how many more were taken than were counted: somebody counted wrong
public record StockFold(List<ShelfLine> lines, Map<String, Long> overdrawn) {
  public StockFold {
    lines = List.copyOf(lines);
    overdrawn = Map.copyOf(overdrawn);
  }

  /// Something that moves stock.
  public sealed interface Move {
    /// Number of the entry that says so.
    long entry();

    /// What it is about.
    String code();

    /// Parts went from the shelf.
    ///
    /// @param alternates what was taken when the code itself had run out and nobody said what was
    ///   fitted; empty when somebody said it
    record Take(long entry, String code, long quantity, List<String> alternates) implements Move {
      public Take {
        alternates = List.copyOf(alternates);
      }
    }

    /// The shelf itself was looked at or filled.
    record Change(long entry, Entry.Stock what) implements Move {
      @Override
      public String code() {
        return what.code();
      }
    }
  }

  /// What one board moved.
  ///
  /// @param revision that it is of; parts that it does not have take nothing
  /// @param entries of the board, oldest first
  public static List<Move> moves(Revision revision, List<Logged> entries) {
    Set<Long> struck = BoardState.struck(entries);
    List<Move> moves = new ArrayList<>();
    Map<String, String> codes = new HashMap<>();
    Map<String, Integer> taken = new HashMap<>();
    for (Logged l : entries) {
      if (struck.contains(l.number())) {
        continue;
      }
      switch (l.entry()) {
        case Entry.StepDone s -> {
          boolean ours = !s.action().equals(Entry.StepDone.ARRIVED);
          for (String reference : s.parts()) {
            if (ours && !taken.containsKey(reference)) {
              take(moves, l.number(), revision, codes, reference, 1);
              taken.put(reference, moves.size() - 1);
            }
          }
        }
        case Entry.Fitted f -> {
          codes.put(f.place(), f.code());
          Integer at = taken.get(f.place());
          if (at != null && moves.get(at) instanceof Move.Take t && !t.code().equals(f.code())) {
            // it was this part all along: the one in the bill stays on the shelf
            moves.set(at, new Move.Take(t.entry(), f.code(), t.quantity(), List.of()));
          }
        }
        case Entry.Lost x -> take(moves, l.number(), revision, codes, x.place(), x.count());
        case Entry.Action a -> {
          if (a.action().equals("replaced")) {
            String reference = BoardState.part(a.place());
            take(moves, l.number(), revision, codes, reference, 1);
            taken.put(reference, moves.size() - 1);
          }
        }
        case Entry.Stock s -> moves.add(new Move.Change(l.number(), s));
        case Entry.Gate _,
            Entry.Printed _,
            Entry.PasteSeen _,
            Entry.Jar _,
            Entry.Bag _,
            Entry.HeatRun _,
            Entry.Seen _,
            Entry.Photo _,
            Entry.Capture _,
            Entry.Talk _,
            Entry.Knows _,
            Entry.ChainLook _,
            Entry.Symptom _,
            Entry.Found _,
            Entry.Jig _,
            Entry.ProofBegun _,
            Entry.ProofStep _,
            Entry.ProofEnded _,
            Entry.Released _,
            Entry.Erratum _,
            Entry.ErratumSaid _,
            Entry.Bodge _,
            Entry.Decision _,
            Entry.Stack _,
            Entry.Operator _,
            Entry.Stands _,
            Entry.Reading _,
            Entry.Check _,
            Entry.Defect _,
            Entry.Note _,
            Entry.Supply _,
            Entry.Override _,
            Entry.Strike _ -> {}
      }
    }
    moves.removeIf(m -> m.code().isEmpty());
    return moves;
  }

  /// An unknown part has no code; its move is dropped at the end, so that indexes stay.
  private static void take(
      List<Move> moves,
      long entry,
      Revision revision,
      Map<String, String> codes,
      String reference,
      long quantity) {
    String said = codes.get(reference);
    moves.add(
        said != null
            ? new Move.Take(entry, said, quantity, List.of())
            : revision
                .part(reference)
                .map(p -> new Move.Take(entry, p.code(), quantity, p.alternates()))
                .orElseGet(() -> new Move.Take(entry, "", quantity, List.of())));
  }

  /// Folds the shelf.
  ///
  /// @param counted as it was last counted or imported
  /// @param moves of all boards and of the bench, in any order
  public static StockFold of(List<ShelfLine> counted, List<Move> moves) {
    Map<String, List<ShelfLine>> byCode = new LinkedHashMap<>();
    counted.forEach(l -> byCode.computeIfAbsent(l.code(), _ -> new ArrayList<>(1)).add(l));
    Map<String, Long> over = new HashMap<>();
    List<Move> inOrder = new ArrayList<>(moves);
    inOrder.sort(Comparator.comparingLong(Move::entry));
    for (Move m : inOrder) {
      switch (m) {
        case Move.Take t -> {
          List<ShelfLine> own = byCode.get(t.code());
          long open = own == null ? 0 : takeFrom(own, t.entry(), t.quantity());
          for (String other : t.alternates()) {
            List<ShelfLine> instead = byCode.get(other);
            open = open == 0 || instead == null ? open : takeFrom(instead, t.entry(), open);
          }
          if (open > 0) {
            over.merge(t.code(), open, Long::sum);
          }
        }
        case Move.Change c -> {
          List<ShelfLine> own = byCode.computeIfAbsent(c.code(), _ -> new ArrayList<>(1));
          change(own, c);
          if (own.stream().allMatch(l -> l.since() == c.entry())) {
            over.remove(c.code());
          }
        }
      }
    }
    return new StockFold(byCode.values().stream().flatMap(List::stream).toList(), over);
  }

  /// Takes from the bin that expires first; returns what was not there.
  private static long takeFrom(List<ShelfLine> own, long entry, long quantity) {
    List<Integer> order = new ArrayList<>();
    for (int i = 0; i < own.size(); i++) {
      // a count after the entry has seen already what the entry took
      if (own.get(i).since() < entry) {
        order.add(i);
      }
    }
    if (order.isEmpty()) {
      return 0;
    }
    order.sort(Comparator.comparing(i -> own.get(i).expiry().orElse(LocalDate.MAX)));
    long open = quantity;
    for (int i : order) {
      long from = Math.min(open, own.get(i).quantity());
      own.set(i, own.get(i).holding(own.get(i).quantity() - from));
      open -= from;
    }
    return open;
  }

  private static void change(List<ShelfLine> own, Move.Change c) {
    Entry.Stock s = c.what();
    if (own.isEmpty()) {
      own.add(new ShelfLine(0, s.code(), 0, s.bin(), 0, Optional.empty(), Optional.empty()));
    }
    int at = 0;
    if (!s.bin().isEmpty()) {
      at = -1;
      for (int i = 0; i < own.size(); i++) {
        if (own.get(i).bin().equalsIgnoreCase(s.bin())) {
          at = i;
        }
      }
      if (at < 0) {
        at = own.size();
        ShelfLine like = own.getFirst();
        own.add(
            new ShelfLine(
                0,
                s.code(),
                0,
                s.bin(),
                0,
                Optional.empty(),
                Optional.empty(),
                like.kind(),
                like.since()));
      }
    }
    ShelfLine l = own.get(at);
    switch (s.change()) {
      case COUNTED -> {
        if (s.bin().isEmpty()) {
          // counted as one heap: the other bins of the code are empty
          own.replaceAll(x -> x.holding(0).countedAt(c.entry()));
        }
        own.set(at, l.holding(s.quantity()).countedAt(c.entry()));
      }
      case RECEIVED -> {
        own.set(at, l.holding(l.quantity() + s.quantity()));
        long open = s.quantity();
        for (int i = 0; i < own.size() && open > 0; i++) {
          long off = Math.min(open, own.get(i).onOrder());
          long left = own.get(i).onOrder() - off;
          own.set(
              i, own.get(i).awaiting(left, left == 0 ? Optional.empty() : own.get(i).expected()));
          open -= off;
        }
      }
      case ORDERED -> own.set(at, l.awaiting(l.onOrder() + s.quantity(), s.due()));
    }
  }
}
