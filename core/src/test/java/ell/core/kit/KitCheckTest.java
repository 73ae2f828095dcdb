package ell.core.kit;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import ell.core.board.Block;
import ell.core.board.Outline;
import ell.core.board.Part;
import ell.core.board.Revision;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import org.testng.annotations.Test;

/// Hand-made worked examples of the kit.
public class KitCheckTest {
  private static Part part(String ref, String code, String shape, String... alternates) {
    return new Part(
        ref,
        "v",
        shape,
        code,
        "",
        true,
        false,
        List.of(alternates),
        "",
        Optional.empty(),
        Double.NaN,
        Double.NaN);
  }

  private static ShelfLine shelf(String code, long quantity) {
    return new ShelfLine(1, code, quantity, "A1", 0, Optional.empty(), Optional.empty());
  }

  private static ShelfLine ordered(String code, long quantity, long onOrder, String date) {
    return new ShelfLine(
        1,
        code,
        quantity,
        "A1",
        onOrder,
        Optional.ofNullable(date).map(LocalDate::parse),
        Optional.empty());
  }

  private static Revision revision(Part... parts) {
    return new Revision("T", "1", List.of(parts), List.of(), Outline.UNKNOWN);
  }

  private static final List<Block> BLOCKS =
      List.of(
          new Block("supply", "rails", "?", List.of("R1", "R2", "U1")),
          new Block("rest", "rest", "?", List.of("J1")));

  private static KitCheck check(Revision r, int boards, List<ShelfLine> shelf, String... reflowed) {
    return KitCheck.of(
        KitQuestion.fresh(
            r,
            boards,
            shelf,
            LocalDate.parse("2026-11-25"),
            KitQuestion.byBlocks(BLOCKS),
            Set.of(reflowed)));
  }

  private static KitLine line(KitCheck k, String code) {
    return k.lines().stream().filter(l -> l.code().equals(code)).findFirst().orElseThrow();
  }

  @Test
  public void needCountsLosses() {
    // 10 boards with two 0603 resistors: 20 + max(5 %, 2) = 22; a chip: 10, no losses
    Revision r =
        revision(
            part("R1", "R10K", "0603"), part("R2", "R10K", "0603"), part("U1", "LDO", "SOT-223"));
    KitCheck k = check(r, 10, List.of(shelf("R10K", 22), shelf("LDO", 10)));
    assertEquals(line(k, "R10K").need(), 22);
    assertEquals(line(k, "R10K").shortBy(), 0);
    assertEquals(line(k, "LDO").need(), 10);
    assertEquals(k.verdict(), KitCheck.Verdict.START);
    assertEquals(k.boardsNow(), 10);
    assertEquals(line(k, "R10K").sheet(10).number("need"), 22.0);
    // 0402 and smaller: 10 %, at least 5
    assertEquals(line(check(revision(part("R1", "R", "0402")), 100, List.of()), "R").need(), 110);
    assertEquals(line(check(revision(part("R1", "R", "0402")), 10, List.of()), "R").need(), 15);
  }

  @Test
  public void boardsNowAndWhatLimits() {
    Revision r = revision(part("R1", "R10K", "0603"), part("U1", "LDO", "SOT-223"));
    KitCheck k = check(r, 10, List.of(shelf("R10K", 100), shelf("LDO", 4)));
    assertEquals(k.boardsNow(), 4);
    assertEquals(k.limiting(), Optional.of("LDO"));
    assertEquals(line(k, "LDO").shortBy(), 6);
    assertEquals(k.verdict(), KitCheck.Verdict.WAIT);
  }

  @Test
  public void alternatesStandIn() {
    Revision r = revision(part("Y1", "XTAL", "XTAL-5032", "XTALB"), part("U1", "LDO", "SOT-223"));
    KitCheck k = check(r, 10, List.of(shelf("XTAL", 4), shelf("XTALB", 6), shelf("LDO", 10)));
    assertEquals(line(k, "XTAL").fromAlternates(), 6);
    assertEquals(line(k, "XTAL").shortBy(), 0);
    assertEquals(k.verdict(), KitCheck.Verdict.START);
    // an alternate that is needed itself stands in only with what is left
    Revision both = revision(part("Y1", "XTAL", "X", "XTALB"), part("Y2", "XTALB", "X"));
    KitCheck t = check(both, 5, List.of(shelf("XTAL", 3), shelf("XTALB", 6)));
    assertEquals(line(t, "XTALB").shortBy(), 0);
    assertEquals(line(t, "XTAL").fromAlternates(), 1);
    assertEquals(line(t, "XTAL").shortBy(), 1);
  }

  @Test
  public void whatIsFittedLateStopsOnlyItsGate() {
    Revision r =
        revision(
            part("R1", "R10K", "0603"), part("U1", "LDO", "SOT-223"), part("J1", "TERM", "TERM-2"));
    List<ShelfLine> shelf =
        List.of(shelf("R10K", 50), shelf("LDO", 10), ordered("TERM", 2, 20, "2026-12-03"));
    KitCheck k = check(r, 10, shelf, "R1", "U1");
    assertEquals(k.verdict(), KitCheck.Verdict.START_UP_TO);
    assertEquals(k.gate(), Optional.of("rails"));
    assertEquals(k.date(), Optional.of(LocalDate.parse("2026-12-03")));
    assertEquals(k.gates().get(1).blockedBy(), List.of("TERM"));
  }

  @Test
  public void pasteStaysClosedUntilReflowedPartsAreThere() {
    Revision r = revision(part("R1", "R10K", "0603"), part("U1", "LDO", "SOT-223"));
    KitCheck k =
        check(r, 10, List.of(shelf("LDO", 10), ordered("R10K", 3, 50, "2026-12-09")), "R1", "U1");
    assertEquals(k.verdict(), KitCheck.Verdict.WAIT);
    assertEquals(k.date(), Optional.of(LocalDate.parse("2026-12-09")));
    assertTrue(k.reasons().stream().anyMatch(x -> x.startsWith("do not open the paste")));
    // what is on order is too little: no date can be promised
    KitCheck none =
        check(r, 10, List.of(shelf("LDO", 10), ordered("R10K", 3, 2, "2026-12-09")), "R1", "U1");
    assertEquals(none.date(), Optional.empty());
  }

  @Test
  public void partsLeftOffAndSeveralBins() {
    Part off =
        new Part(
            "R9",
            "v",
            "0603",
            "RX",
            "",
            false,
            false,
            List.of(),
            "",
            Optional.empty(),
            Double.NaN,
            Double.NaN);
    Revision r = revision(part("U1", "LDO", "SOT-223"), off);
    KitCheck k = check(r, 6, List.of(shelf("LDO", 2), shelf("LDO", 4)));
    assertEquals(k.lines().size(), 1);
    assertEquals(line(k, "LDO").onHand(), 6);
    assertEquals(k.verdict(), KitCheck.Verdict.START);
    assertThrows(IllegalArgumentException.class, () -> shelf("X", -1));
  }

  @Test
  public void nothingToKit() {
    KitCheck k = check(revision(), 5, List.of());
    assertEquals(k.boardsNow(), 0);
    assertEquals(k.verdict(), KitCheck.Verdict.START);
  }

  /// Boards now is the largest number for which nothing is short, found here by trying every
  /// number.
  @Test
  public void boardsNowIsTheLargestThatSuffices() {
    Random random = new Random(7);
    for (int round = 0; round < 200; round++) {
      List<Part> parts = new ArrayList<>();
      List<ShelfLine> shelf = new ArrayList<>();
      for (int c = 0; c < 1 + random.nextInt(4); c++) {
        for (int k = 0; k < 1 + random.nextInt(3); k++) {
          String shape = random.nextBoolean() ? "0603" : "SOIC-8";
          parts.add(part("P" + c + "_" + k, "C" + c, shape, random.nextInt(3) == 0 ? "ALT" : "C9"));
        }
        shelf.add(shelf("C" + c, random.nextInt(40)));
      }
      shelf.add(shelf("ALT", random.nextInt(10)));
      Revision r = revision(parts.toArray(Part[]::new));
      long now = check(r, 5, shelf).boardsNow();
      for (int n = 1; n <= now + 2; n++) {
        boolean enough = check(r, n, shelf).lines().stream().allMatch(l -> l.shortBy() == 0);
        assertEquals(enough, n <= now, n + " of " + now);
      }
    }
  }
}
