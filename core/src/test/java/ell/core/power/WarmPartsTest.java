package ell.core.power;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import ell.core.Boards;
import ell.core.board.Revision;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.power.Ladder.Kind;
import ell.core.power.Ladder.Load;
import ell.core.power.Ladder.RailSpec;
import ell.core.power.Ladder.Source;
import ell.core.power.Ladder.Step;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.testng.annotations.Test;

/// How warm a regulator may feel, by hand; and what must be so before power.
public final class WarmPartsTest {
  private static Ladder ladder(double theta, boolean guessed) {
    return new Ladder(
        List.of(
            new RailSpec("VIN", 5, 4.8, 5.2, 0, "", false),
            new RailSpec("3V3", 3.3, 3.2, 3.4, 0, "", false)),
        List.of(new Source("VIN", 5, 4.8, 5.2, 0)),
        List.of(new Step("U1", Kind.LINEAR, "VIN", "3V3", 3.3, 0.3, 0, 0, theta, 1, 0)),
        List.of(new Load("U2", "3V3", Map.of("boot", 0.2), guessed, "")),
        "GND",
        List.of("M1 is out of its sockets at first power"));
  }

  /// 1.7 V · 0.2 A = 0.34 W, at 100 K/W 34 K above 25 °C, and 15 K more.
  @Test
  public void aRegulatorFeelsNoWarmerThanItsJunction() {
    WarmParts.Warm w = WarmParts.of(ladder(100, false), "boot").getFirst();
    assertEquals(w.part(), "U1");
    assertEquals(w.celsius(), 59, 1e-9);
    assertEquals(w.limits().orElseThrow().high(), 74, 1e-9);
    assertTrue(WarmParts.of(ladder(100, true), "boot").getFirst().limits().isEmpty(), "a guess");
    assertTrue(WarmParts.of(ladder(0, false), "boot").getFirst().limits().isEmpty(), "not known");
    assertTrue(WarmParts.of(ladder(100, false), "boot", "U9").isEmpty());
  }

  @Test
  public void whatMustBeSoIsSaid() {
    Boards b = new Boards();
    b.part("J1").shape("HEADER-2").at(0, 0).holes("VIN", "GND");
    b.part("BT1").at(9, 0).holes("VB", "GND");
    b.part("M1").at(20, 0).holes("3V3", "GND");
    b.part("M2").at(30, 0).pads("3V3", "GND");
    Revision r = b.revision();
    Ladder l = ladder(100, false);
    List<BeforePower.Item> must = BeforePower.of(r, l, book());
    assertEquals(
        must.stream().map(BeforePower.Item::typed).toList(),
        List.of("BT1 out", "M1 out", "VIN alone"));
    assertEquals(must.get(0).says(), "no cell in BT1");
    assertEquals(must.get(1).says(), "M1 is out of its sockets");
    assertTrue(must.get(2).says().contains("no other cable in J1"), must.get(2).says());
    assertTrue(must.stream().allMatch(i -> i.state() == BeforePower.State.OPEN));
    Entry placed = new Entry.StepDone(3, "attach", List.of("M1", "BT1"), 0, "first");
    assertEquals(
        states(BeforePower.of(r, l, book(placed))),
        List.of(BeforePower.State.OPEN, BeforePower.State.AGAINST, BeforePower.State.OPEN),
        "a holder that is placed has no cell in it yet, a module that is placed is in");
    Entry in1 = new Entry.Stands("BT1", "in", "");
    assertEquals(
        states(BeforePower.of(r, l, book(placed, must.get(1).so(), must.get(0).so(), in1))),
        List.of(BeforePower.State.AGAINST, BeforePower.State.SO, BeforePower.State.OPEN),
        "what was said last");
    PartSaid in = PartSaid.parse("cell,empty=2,full=3,charge=1C");
    assertEquals(
        BeforePower.of(r, l.with(Map.of("BT1", in)), book()).size(),
        2,
        "somebody said that the cell is in");
  }

  private static List<BeforePower.State> states(List<BeforePower.Item> items) {
    return items.stream().map(BeforePower.Item::state).toList();
  }

  private static BoardState book(Entry... entries) {
    List<Logged> all = new ArrayList<>();
    for (Entry e : entries) {
      all.add(new Logged(all.size() + 1, OffsetDateTime.parse("2026-01-01T00:00:00Z"), "07", e));
    }
    return BoardState.of("07", all);
  }
}
