package ell.core.jig;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import ell.core.artwork.Drilling;
import ell.core.board.Joint;
import ell.core.board.Outline;
import ell.core.board.Part;
import ell.core.board.Revision;
import ell.core.board.Side;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.sheet.SheetProblem;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import org.testng.annotations.Test;

/// The pieces of a jig one by one: pins, targets, what is said, its own check and its book.
public class JigPiecesTest {
  private static final Set<TargetKind> ALL = EnumSet.allOf(TargetKind.class);
  private static final Landing.Pins PINS = new Landing.Pins(2, 2, 48, 28);

  private static Joint joint(
      String part,
      String net,
      double x,
      double y,
      Joint.Reach reach,
      double drill,
      double mm,
      int mask) {
    return new Joint(part, "1", net, x, y, reach, drill > 0, drill, true, mm, mm, 0, false, mask);
  }

  private static Part part(String ref, String shape, double x, double y, Side side) {
    return new Part(
        ref,
        "10k",
        shape,
        ref,
        "",
        true,
        false,
        List.of(),
        "",
        Optional.of(new Part.Spot(x, y, 0, side)),
        Double.NaN,
        Double.NaN);
  }

  private static Revision board(List<Part> parts, Joint... joints) {
    return new Revision(
        "T",
        "1",
        parts,
        List.of(joints),
        new Outline(
            List.of(
                List.of(
                    new Outline.Point(0, 0),
                    new Outline.Point(50, 0),
                    new Outline.Point(50, 30),
                    new Outline.Point(0, 30)))));
  }

  private static Targets.Found targets(Revision r, String net) {
    return Targets.of(
        r, List.of(), List.of(net), ALL, EnumSet.of(Side.SECOND), JigSetup.TYPICAL, PINS);
  }

  /// The pair that lies farthest apart; a plated hole only where a bare one is not much nearer.
  @Test
  public void pinsStandFarApart() {
    Revision r = board(List.of(), joint("TP1", "A", 10, 10, Joint.Reach.SECOND, 0, 1, 0));
    Drilling d =
        new Drilling(
            List.of(
                hole(3, 3, 3.2, false),
                hole(47, 27, 3.2, false),
                hole(25, 15, 3.2, false),
                hole(1, 1, 8, false),
                hole(48, 2, 0.4, false)));
    Tooling t = Tooling.of(r, Optional.of(d), List.of(new double[] {45, 25}));
    assertFalse(t.made());
    assertEquals(t.apartMm(), Math.hypot(44, 24), 1e-9);
    assertEquals(t.round().xMm(), 47.0, "the round pin stands where more must be hit");
    Tooling none = Tooling.of(r, Optional.empty(), List.of());
    assertTrue(none.made() && none.told().getFirst().contains("no tooling holes"));
    Tooling near =
        Tooling.of(
            r,
            Optional.of(new Drilling(List.of(hole(3, 3, 3, false), hole(8, 3, 3, false)))),
            List.of());
    assertTrue(near.made() && near.told().getFirst().contains("too near"), near.told().toString());
  }

  private static Drilling.Hole hole(double x, double y, double d, boolean plated) {
    return new Drilling.Hole(x, y, x, y, d, Optional.of(plated));
  }

  /// What is no target says why.
  @Test
  public void whyAPlaceIsNone() {
    Object[][] cases = {
      {joint("TP1", "A", 10, 10, Joint.Reach.FIRST, 0, 1, 0), "only from the first side"},
      {joint("TP1", "A", 10, 10, Joint.Reach.BOTH, 0.3, 1, 3), "under mask"},
      {joint("TP1", "A", 10, 10, Joint.Reach.NONE, 0, 1, 0), "inside the board"},
      {joint("TP1", "A", 60, 10, Joint.Reach.SECOND, 0, 1, 0), "outside the board"},
      {joint("TP1", "A", 0.2, 10, Joint.Reach.SECOND, 0, 1, 0), "at the very edge"},
      {joint("TP1", "A", 10, 10, Joint.Reach.SECOND, 0, 0.2, 0), "too small to be hit"},
    };
    for (Object[] c : cases) {
      Targets.Found f = targets(board(List.of(), (Joint) c[0]), "A");
      assertTrue(f.targets().isEmpty(), c[1].toString());
      assertTrue(
          f.refused().get("A").keySet().stream().anyMatch(w -> w.contains((String) c[1])),
          c[1] + " in " + f.refused());
    }
    Joint good = joint("TP1", "A", 10, 10, Joint.Reach.SECOND, 0, 1, 0);
    assertEquals(targets(board(List.of(), good), "A").targets().size(), 1);
    Joint other = joint("TP2", "B", 10.6, 10, Joint.Reach.SECOND, 0, 0.9, 0);
    assertTrue(
        targets(board(List.of(), good, other), "A")
            .refused()
            .get("A")
            .keySet()
            .toString()
            .contains("metal of another net"));
    // a body on the probes' side, 0.3 mm from the point's middle
    Part beside = part("R9", "0805", 11.3, 10, Side.SECOND);
    assertTrue(
        targets(board(List.of(beside), good), "A")
            .refused()
            .get("A")
            .keySet()
            .toString()
            .contains("no room beside R9"));
    Part above = part("R9", "0805", 11.3, 10, Side.FIRST);
    assertEquals(targets(board(List.of(above), good), "A").targets().size(), 1);
  }

  /// A lead's end is met by a crown from the side that its body is not on.
  @Test
  public void leadsAndHoles() {
    Joint lead = joint("J1", "A", 20, 10, Joint.Reach.BOTH, 1, 1.8, 0);
    Target t =
        targets(board(List.of(part("J1", "HDR-1", 20, 10, Side.FIRST)), lead), "A")
            .targets()
            .getFirst();
    assertEquals(t.kind(), TargetKind.PIN);
    assertEquals(t.kind().head(), "crown");
    Target empty = targets(board(List.of(), lead), "A").targets().getFirst();
    assertEquals(empty.kind(), TargetKind.HOLE);
    assertEquals(empty.kind().head(), "spear");
  }

  @Test
  public void whatIsSaidIsReadAgain() {
    JigSetup s = JigSetup.TYPICAL.say("thickness=0.8mm").say("fingers=10,20 30.5,4");
    assertEquals(s.number("thickness"), 0.8e-3, 1e-15);
    JigSetup again = JigSetup.read(Optional.of(s.text()));
    assertEquals(again, s);
    assertEquals(again.fingers().get(1)[0], 30.5);
    assertEquals(s.say("thickness=").number("thickness"), 1.6e-3, 1e-15);
    for (String bad : List.of("thickness", "thick=1mm", "thickness=9m", "top=maybe", "fingers=1")) {
      expectThrows(SheetProblem.class, () -> s.say(bad));
    }
  }

  private static Probe probe(int n, String net) {
    Target t =
        new Target(
            net,
            net,
            5 * n,
            5,
            Side.SECOND,
            TargetKind.POINT,
            1,
            1,
            true,
            0,
            false,
            ProbeSeries.TYPICAL,
            List.of(0.0, 0.0, 0.0));
    return new Probe(n, t, 0, "signal", 5);
  }

  /// Any two wires that are joined by mistake meet in a grouping, whichever two they are; two wires
  /// of one net never do.
  @Test
  public void theJigsOwnCheckFindsEveryShort() {
    Random r = new Random(2);
    for (int n : new int[] {2, 3, 9, 30}) {
      List<Probe> probes = new ArrayList<>();
      for (int i = 1; i <= n; i++) {
        probes.add(probe(i, "N" + (i == 2 && n > 2 ? 1 : i)));
      }
      SelfTest t = SelfTest.of(probes);
      assertEquals(t.joined().size(), n);
      assertTrue(t.apart().size() <= Patterns.counted(n));
      for (int k = 0; k < 200; k++) {
        int a = 1 + r.nextInt(n);
        int b = 1 + r.nextInt(n);
        String netA = probes.get(a - 1).target().net();
        String netB = probes.get(b - 1).target().net();
        boolean met = t.apart().stream().anyMatch(g -> g.contains(a) != g.contains(b));
        assertEquals(met, !netA.equals(netB), a + " and " + b + " of " + n);
      }
    }
  }

  private static Logged logged(int n, String what, String place, int count, boolean good) {
    return new Logged(
        n,
        OffsetDateTime.parse("2026-11-27T10:00:00Z").plusMinutes(n),
        "01",
        new Entry.Jig("J1", what, place, count, good, what.equals("built") ? "T rev 1" : "open"));
  }

  @Test
  public void aJigsBookIsFolded() {
    JigBook b =
        JigBook.of(
                List.of(
                    logged(1, "built", "", 1, true),
                    logged(2, "closed", "", 300, true),
                    logged(3, "checked", "", 1, true),
                    logged(4, "probe", "A", 1, true),
                    logged(5, "closed", "", 250, true),
                    logged(6, "closed", "", 260, true),
                    logged(7, "checked", "B", 1, false)))
            .get("J1");
    assertEquals(b.revision(), "T rev 1");
    assertEquals(b.closings(), 810);
    assertEquals(b.closings("A"), 510);
    assertEquals(b.closings("B"), 810);
    assertEquals(b.checked(), 510);
    assertEquals(b.open(), List.of("open at B"));
    assertTrue(b.told().toString().contains("510 times since its last check"), b.told().toString());
    assertTrue(JigBook.of(List.of()).isEmpty());
  }

  /// A proof board joins what it can with one part less than the nets of a heap.
  @Test
  public void aProofBoardIsAForest() {
    ell.core.Boards b = new ell.core.Boards();
    b.part("R1").value("1k").at(0, 0).pads("A", "B");
    b.part("R2").value("1k").at(6, 0).pads("B", "C");
    b.part("R3").value("1k").at(12, 0).pads("A", "C");
    b.part("C1").value("1u").at(18, 0).pads("C", "D");
    ProofBoard p = ProofBoard.of(b.revision(), Set.of("A", "B", "C", "D"));
    assertEquals(p.parts(), List.of("R1", "R2"), "the third would close a loop");
    assertEquals(p.alone(), List.of("D"));
  }
}
