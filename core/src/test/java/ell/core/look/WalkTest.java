package ell.core.look;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import ell.core.Boards;
import ell.core.RandomBoards;
import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.board.Revision;
import ell.core.board.Side;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.entry.PasteLook;
import ell.core.heat.Alloy;
import ell.core.order.Method;
import ell.core.print.PrintFacts;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import org.testng.annotations.Test;

/// The walk over boards made at random, and rates counted by hand.
public class WalkTest {
  private static List<Logged> log(Entry... entries) {
    List<Logged> all = new ArrayList<>();
    for (Entry e : entries) {
      all.add(
          new Logged(
              all.size() + 1,
              OffsetDateTime.parse("2026-11-20T09:00:00Z").plusMinutes(all.size()),
              "01",
              e));
    }
    return all;
  }

  private static Walk walk(Revision r, BoardState s) {
    return Walk.of(
        r,
        s,
        new Risk(
            r,
            Pitch.of(r),
            Method.STENCIL_PLATE,
            Alloy.SAC305,
            PrintFacts.of(s).paste(),
            Set.of("GND"),
            Map.of()));
  }

  @Test
  public void everyJointIsWalkedOnceSideBySide() {
    for (int seed = 1; seed <= 12; seed++) {
      Revision r = RandomBoards.make(new Random(seed), 10 + seed * 5);
      Walk w = walk(r, BoardState.of("01", List.of()));
      List<Joint> seen = new ArrayList<>(w.hidden());
      w.stops().forEach(s -> seen.add(s.joint()));
      Set<Joint> expected = new HashSet<>();
      for (Part p : r.parts()) {
        if (p.fitted() && !p.kind().bare() && p.place().isPresent()) {
          expected.addAll(r.jointsOf(p.reference()));
        }
      }
      assertEquals(seen.size(), expected.size(), "seed " + seed);
      assertEquals(new HashSet<>(seen), expected);
      // the board is turned at most once
      int turns = 0;
      for (int i = 1; i < w.stops().size(); i++) {
        turns += w.stops().get(i).side() == w.stops().get(i - 1).side() ? 0 : 1;
      }
      assertTrue(turns <= 1, "turned " + turns + " times");
      // parts are finished before the next
      Set<String> done = new HashSet<>();
      String at = "";
      for (Walk.Stop s : w.stops()) {
        if (!s.part().reference().equals(at)) {
          assertTrue(done.add(s.part().reference()), s.part().reference() + " is come back to");
          at = s.part().reference();
        }
      }
    }
  }

  @Test
  public void theShortWalkMeetsItsShareWithTheFewest() {
    Revision r = RandomBoards.make(new Random(4), 60);
    Walk w = walk(r, BoardState.of("01", List.of()));
    for (double share : new double[] {0.2, 0.5, 0.8, 1}) {
      List<Walk.Stop> some = w.risky(share);
      assertTrue(w.coverage(some) >= share - 1e-9);
      double least = some.stream().mapToDouble(Walk.Stop::risk).min().orElseThrow();
      assertTrue(
          w.stops().stream().filter(s -> s.risk() > least).allMatch(some::contains),
          "nothing riskier is left out");
    }
  }

  @Test
  public void aPadWithBadPasteIsRiskierAndComesFirstOnceItHasAHistory() {
    Boards b = new Boards();
    b.part("R1").at(10, 10).pads("A", "GND");
    b.part("R2").at(60, 10).pads("B", "GND");
    Revision r = b.revision();
    BoardState s =
        BoardState.of(
            "01",
            log(
                new Entry.Printed("first", false, ""),
                new Entry.PasteSeen("R2.1", PasteLook.MISSING)));
    Walk w = walk(r, s);
    double bad =
        w.stops().stream()
            .filter(x -> x.joint().place().equals("R2.1"))
            .findFirst()
            .orElseThrow()
            .risk();
    double good =
        w.stops().stream()
            .filter(x -> x.joint().place().equals("R2.2"))
            .findFirst()
            .orElseThrow()
            .risk();
    assertEquals(bad, good * 25, 1e-12);
    Walk again =
        Walk.of(
            r,
            s,
            new Risk(
                r,
                Pitch.of(r),
                Method.IRON,
                Alloy.SAC305,
                PrintFacts.of(s).paste(),
                Set.of("GND"),
                Map.of("R2", new int[] {2, 30})));
    assertEquals(again.stops().getFirst().part().reference(), "R2");
    assertEquals(again.stops().getFirst().side(), Side.FIRST);
  }

  /// Two boards by hand: 2 chips of 2 joints and a part of 8 on each.
  @Test
  public void ratesByHand() {
    Boards b = new Boards();
    b.part("R1").at(10, 10).pads("A", "B");
    b.part("R2").at(20, 10).pads("A", "B");
    b.part("U1").shape("SOIC-8").at(40, 10).pads("A", "B", "C", "D", "E", "F", "G", "H");
    Revision r = b.revision();
    Entry placed = new Entry.StepDone(1, "place", List.of("R1", "R2", "U1"), 0);
    Map<String, List<Logged>> log = new LinkedHashMap<>();
    log.put("01", log(new Entry.Operator("Ada"), placed, new Entry.Seen(List.of("R1", "U1"))));
    log.put(
        "02",
        log(
            new Entry.Operator("Ben"),
            placed,
            new Entry.Defect("U1.3", "bridge", ""),
            new Entry.Defect("U1.3", "bridge", "the same, seen again"),
            new Entry.Action("U1.3", "touched-up", true, ""),
            new Entry.Defect("U1.3", "bridge", "it came back"),
            new Entry.Defect("R2", "standing", ""),
            new Entry.Defect("U1", "dead", "no soldering defect")));
    log.put("03", log(placed));
    Rates rates = Rates.of(r, Pitch.of(r), log, Map.of("02", new Rates.About("iron", "8...24 h")));
    assertEquals(rates.boards().size(), 2, "nobody looked at 03");
    assertEquals(rates.boards().get(0), new Rates.Board("01", 0, 10 + 2));
    assertEquals(rates.boards().get(1), new Rates.Board("02", 3, 12 + 3));
    assertEquals(rates.dpmo(), 3e6 / 27, 1e-9);
    Rates.Group worst = rates.by().get(Rates.Sorting.PART).getFirst();
    assertEquals(worst, new Rates.Group("U1", 2, 18));
    assertEquals(rates.by().get(Rates.Sorting.KIND).getFirst().name(), "bridge");
    assertEquals(rates.by().get(Rates.Sorting.PERSON).getFirst(), new Rates.Group("Ben", 3, 15));
    assertEquals(rates.by().get(Rates.Sorting.PASTE_AGE).size(), 1);
    Chart c = rates.chart().orElseThrow();
    assertEquals(c.centre(), 3 / 0.027, 1e-9);
    assertTrue(Double.isNaN(Rates.of(r, Pitch.of(r), Map.of(), Map.of()).dpmo()));
  }
}
