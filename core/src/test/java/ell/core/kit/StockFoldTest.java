package ell.core.kit;

import static org.testng.Assert.assertEquals;

import ell.core.Boards;
import ell.core.board.Revision;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.entry.StockChange;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.testng.annotations.Test;

/// Stock taken, given back, counted, received: worked by hand.
public class StockFoldTest {
  private static final Revision REVISION =
      new Boards()
          .part("R1")
          .code("R10K")
          .done()
          .part("R2")
          .code("R10K")
          .done()
          .part("Y1")
          .code("XTAL")
          .or("XTALB")
          .done()
          .revision();
  private static final OffsetDateTime AT = OffsetDateTime.parse("2026-11-25T09:00:00Z");

  private static List<Logged> log(Entry... entries) {
    List<Logged> all = new ArrayList<>();
    for (Entry e : entries) {
      all.add(new Logged(all.size() + 1, AT, "01", e));
    }
    return all;
  }

  private static Entry step(String... parts) {
    return new Entry.StepDone(1, "place", List.of(parts), 0, "first");
  }

  private static ShelfLine line(String code, long n) {
    return new ShelfLine(1, code, n, "A1", 0, Optional.empty(), Optional.empty());
  }

  private static StockFold fold(List<ShelfLine> shelf, List<Logged> log) {
    return StockFold.of(shelf, StockFold.moves(REVISION, log));
  }

  private static long of(StockFold f, String code) {
    return f.lines().stream()
        .filter(l -> l.code().equals(code))
        .mapToLong(ShelfLine::quantity)
        .sum();
  }

  @Test
  public void stepsTakeAndStrikesGiveBack() {
    List<ShelfLine> shelf = List.of(line("R10K", 10), line("XTAL", 3));
    List<Logged> log = log(step("R1", "R2"), step("Y1"));
    assertEquals(of(fold(shelf, log), "R10K"), 8);
    assertEquals(of(fold(shelf, log), "XTAL"), 2);
    List<Logged> struck = log(step("R1", "R2"), step("Y1"), new Entry.Strike(1, ""));
    assertEquals(of(fold(shelf, struck), "R10K"), 10);
    // the strike is struck: the step stands again
    List<Logged> again =
        log(step("R1", "R2"), step("Y1"), new Entry.Strike(1, ""), new Entry.Strike(3, ""));
    assertEquals(of(fold(shelf, again), "R10K"), 8);
    // a step that is logged twice places its parts once
    assertEquals(of(fold(shelf, log(step("R1"), step("R1", "R2"))), "R10K"), 8);
  }

  @Test
  public void lostReplacedAndSubstituted() {
    List<ShelfLine> shelf = List.of(line("R10K", 10), line("XTAL", 3), line("XTALB", 5));
    StockFold f =
        fold(
            shelf,
            log(
                step("R1", "R2"),
                new Entry.Lost("R1", 2, "on the floor"),
                new Entry.Action("R2", "replaced", true, ""),
                new Entry.Action("R2.1", "touched-up", true, "")));
    assertEquals(of(f, "R10K"), 10 - 2 - 2 - 1);
    // said before the step, or after it: the crystal of the bill stays on the shelf
    assertEquals(of(fold(shelf, log(new Entry.Fitted("Y1", "XTALB", ""), step("Y1"))), "XTALB"), 4);
    StockFold after = fold(shelf, log(step("Y1"), new Entry.Fitted("Y1", "XTALB", "")));
    assertEquals(of(after, "XTALB"), 4);
    assertEquals(of(after, "XTAL"), 3);
    // replaced by another: one of each is gone
    StockFold both =
        fold(
            shelf,
            log(
                step("Y1"),
                new Entry.Action("Y1", "replaced", true, ""),
                new Entry.Fitted("Y1", "XTALB", "")));
    assertEquals(of(both, "XTAL"), 2);
    assertEquals(of(both, "XTALB"), 4);
  }

  @Test
  public void whatRanOutCameFromAnAlternate() {
    StockFold f = fold(List.of(line("XTAL", 0), line("XTALB", 2)), log(step("Y1")));
    assertEquals(of(f, "XTALB"), 1);
    assertEquals(f.overdrawn(), Map.of());
    StockFold none = fold(List.of(line("R10K", 1)), log(step("R1", "R2")));
    assertEquals(none.overdrawn(), Map.of("R10K", 1L));
    assertEquals(of(none, "R10K"), 0);
  }

  @Test
  public void aCountSeesWhatWasTakenBeforeIt() {
    List<ShelfLine> shelf = List.of(line("R10K", 10).countedAt(1), line("XTAL", 3));
    assertEquals(
        of(fold(shelf, log(step("R1"), step("R2"))), "R10K"), 9, "the first step was before it");
    Entry count = new Entry.Stock(StockChange.COUNTED, "R10K", "", 40, Optional.empty(), "");
    assertEquals(of(fold(shelf, log(step("R1"), step("R2"), count)), "R10K"), 40);
    assertEquals(of(fold(shelf, log(count, step("R1"), step("R2"))), "R10K"), 38);
    assertEquals(of(fold(shelf, log(count, new Entry.Strike(1, ""), step("R2"))), "R10K"), 9);
  }

  @Test
  public void ordersComeAndBinsEmptyInTheOrderOfTheirExpiry() {
    LocalDate soon = LocalDate.parse("2026-12-01");
    List<ShelfLine> shelf =
        List.of(
            new ShelfLine(1, "R10K", 5, "A1", 0, Optional.empty(), Optional.empty()),
            new ShelfLine(2, "R10K", 1, "A2", 20, Optional.of(soon), Optional.of(soon)));
    StockFold f = fold(shelf, log(step("R1", "R2")));
    assertEquals(f.lines().get(0).quantity(), 4);
    assertEquals(f.lines().get(1).quantity(), 0, "what expires goes first");
    StockFold come =
        fold(
            shelf,
            log(
                new Entry.Stock(StockChange.RECEIVED, "R10K", "A2", 15, Optional.empty(), ""),
                new Entry.Stock(
                    StockChange.ORDERED, "XTAL", "", 7, Optional.of(soon.plusDays(3)), "")));
    assertEquals(of(come, "R10K"), 21);
    assertEquals(come.lines().get(1).onOrder(), 5);
    ShelfLine ordered = come.lines().getLast();
    assertEquals(ordered.code(), "XTAL");
    assertEquals(ordered.onOrder(), 7);
    assertEquals(ordered.expected(), Optional.of(soon.plusDays(3)));
  }
}
