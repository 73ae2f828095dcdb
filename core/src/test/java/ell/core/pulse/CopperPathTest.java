package ell.core.pulse;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import ell.core.artwork.Artwork;
import ell.core.artwork.Drilling;
import ell.core.artwork.Figure;
import ell.core.artwork.Tag;
import ell.core.artwork.Template;
import ell.core.board.Joint;
import ell.core.board.Outline;
import ell.core.board.Part;
import ell.core.board.Revision;
import ell.core.board.Side;
import ell.core.power.LadderProposal;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.testng.annotations.Test;

/// Conductors that are laid out here: their lengths are known.
public final class CopperPathTest {
  private static final Template PEN = Template.circle(0.25);
  private static final Template PAD = Template.rectangle(1, 1);

  private static Joint joint(
      String part, String pin, String net, double x, double y, Joint.Reach r) {
    return new Joint(part, pin, net, x, y, r, false, 0, true, 1, 1, 0, false, 0);
  }

  private static Joint joint(String part, double x, double y) {
    return joint(part, "1", "CLK", x, y, Joint.Reach.FIRST);
  }

  private static Figure stroke(double... at) {
    List<double[]> path = new ArrayList<>();
    for (int i = 0; i < at.length; i += 2) {
      path.add(new double[] {at[i], at[i + 1]});
    }
    return new Figure.Stroke(path, PEN, true, Tag.NONE);
  }

  private static Figure pad(Joint j) {
    return new Figure.Flash(PAD, j.xMm(), j.yMm(), true, Tag.NONE);
  }

  private static Map<Side, Artwork> first(Figure... figures) {
    return Map.of(Side.FIRST, new Artwork(List.of(figures), "Copper,L1,Top"));
  }

  private static List<CopperPath.Way> follow(Map<Side, Artwork> copper, Joint from, Joint... to) {
    return CopperPath.follow(copper, Optional.empty(), from, List.of(to));
  }

  @Test
  public void alongACorner() {
    Joint a = joint("U1", 0, 0);
    Joint b = joint("U2", 30, 40);
    List<CopperPath.Way> w =
        follow(first(pad(a), pad(b), stroke(0, 0, 30, 0), stroke(30, 0, 30, 40)), a, b);
    assertEquals(w.getFirst().lengthMm(), 70, 0.01);
    assertEquals(w.getFirst().widthMm(), 0.25, 1e-9);
    assertEquals(w.getFirst().holes(), 0);
  }

  /// A joint beside the middle of a run hangs on a stub; the shorter of two ways counts.
  @Test
  public void throughAMeeting() {
    Joint a = joint("U1", 0, 0);
    Joint b = joint("U2", 50, 0);
    Joint stub = joint("U3", 20, 12);
    List<CopperPath.Way> w =
        follow(
            first(
                pad(a),
                pad(b),
                pad(stub),
                stroke(0, 0, 50, 0),
                stroke(20, 0.05, 20, 12),
                stroke(0, 0, 0, 30, 50, 30, 50, 0)),
            a,
            b,
            stub);
    assertEquals(w.get(0).to(), stub);
    assertEquals(w.get(0).lengthMm(), 32, 0.1);
    assertEquals(w.get(1).lengthMm(), 50, 0.01);
  }

  @Test
  public void throughHolesToTheOtherSide() {
    Joint a = joint("U1", 0, 0);
    Joint b = joint("U2", "1", "CLK", 60, 0, Joint.Reach.SECOND);
    Map<Side, Artwork> copper =
        Map.of(
            Side.FIRST,
            new Artwork(List.of(pad(a), stroke(0, 0, 25, 0)), ""),
            Side.SECOND,
            new Artwork(List.of(pad(b), stroke(25, 0, 60, 0)), ""));
    assertTrue(follow(copper, a, b).isEmpty(), "without a hole the sides do not meet");
    List<CopperPath.Way> w =
        CopperPath.follow(
            copper,
            Optional.of(
                new Drilling(List.of(new Drilling.Hole(25, 0, 25, 0, 0.3, Optional.of(true))))),
            a,
            List.of(b));
    assertEquals(w.getFirst().lengthMm(), 60, 0.05);
    assertEquals(w.getFirst().holes(), 1);
  }

  @Test
  public void anotherNetIsNotReached() {
    Joint a = joint("U1", 0, 0);
    Joint b = joint("U2", 30, 0);
    assertTrue(follow(first(pad(a), pad(b), stroke(0, 0, 28, 0)), a, b).isEmpty());
    assertTrue(follow(first(pad(b)), a, b).isEmpty(), "no copper under the first joint");
  }

  private static Revision revision(Joint... joints) {
    List<Part> parts = new ArrayList<>();
    for (Joint j : joints) {
      if (parts.stream().noneMatch(p -> p.reference().equals(j.part()))) {
        parts.add(
            new Part(
                j.part(),
                j.part().startsWith("R") ? "100R" : "chip",
                "0603",
                "X",
                "",
                true,
                false,
                List.of(),
                "",
                Optional.empty(),
                0,
                0,
                List.of(),
                0));
      }
    }
    return new Revision("T", "1", parts, List.of(joints), Outline.UNKNOWN);
  }

  /// The net as a line: taps by their way, the stub told, the driver guessed and said.
  @Test
  public void aNetIsALine() {
    Joint driver = joint("U1", "3", "CLK", 0, 0, Joint.Reach.FIRST);
    Joint more = joint("U1", "4", "X", 0, 5, Joint.Reach.FIRST);
    Joint tap = joint("U2", "1", "CLK", 100, 10, Joint.Reach.FIRST);
    Joint end = joint("U3", "1", "CLK", 300, 0, Joint.Reach.FIRST);
    Revision r = revision(driver, more, tap, end);
    Map<Side, Artwork> copper =
        first(pad(driver), pad(tap), pad(end), stroke(0, 0, 300, 0), stroke(100, 0, 100, 10));
    PulsePlan plan =
        PulsePlan.of(
            r,
            LadderProposal.of(r),
            List.of(),
            List.of("stack height=0.2mm er=4.3 thickness=0.000035"));
    NetLine guess = NetLine.of(plan, "CLK", copper, Optional.empty());
    assertEquals(guess.from(), driver, "the chip with more joints");
    assertEquals(guess.length(), 0.3, 1e-4);
    assertTrue(guess.followed());
    NetLine.Reached at = guess.reached().getFirst();
    assertEquals(at.at(), 1 / 3.0, 1e-3);
    assertEquals(at.stub(), 0.01, 1e-4);
    assertTrue(String.join(" ", guess.told()).contains("stub of 10"), guess.told().toString());
    assertTrue(String.join(" ", guess.told()).contains("from=U1.3"), guess.told().toString());
    LineOnBoard strip = LineOnBoard.microstrip(0.25e-3, 0.2e-3, 35e-6, 4.3);
    assertEquals(guess.driven().z0(), strip.z0(), 1e-6);
    assertEquals(guess.delay(), 0.3 / strip.velocity(), 1e-12);
    NetLine said =
        NetLine.of(
            PulsePlan.of(
                r,
                LadderProposal.of(r),
                List.of(),
                List.of("CLK from=U3.1 driver=20ohm length=0.6m z0=120ohm velocity=0.61")),
            "U2.1",
            copper,
            Optional.empty());
    assertEquals(said.from(), end);
    assertEquals(said.length(), 0.6, 1e-12);
    assertEquals(said.driven().z0(), 120, 1e-12);
    assertTrue(
        said.told().stream().anyMatch(t -> t.contains("was said")),
        "copper of another length is told: " + said.told());
    NetLine bare = NetLine.of(plan, "CLK", Map.of(), Optional.empty());
    assertEquals(bare.length(), 0.32, 1e-9, "joint to joint along the axes");
    assertTrue(!bare.followed() && bare.told().toString().contains("a guess"));
    assertThrows(
        IllegalArgumentException.class, () -> NetLine.of(plan, "X", copper, Optional.empty()));
  }

  /// A resistor at the beginning is the one in series.
  @Test
  public void aResistorAtTheSource() {
    Joint before = joint("J1", "1", "IN", -10, 0, Joint.Reach.FIRST);
    Joint r1 = joint("R1", "1", "IN", -2, 0, Joint.Reach.FIRST);
    Joint r2 = joint("R1", "2", "CLK", 0, 0, Joint.Reach.FIRST);
    Joint end = joint("U3", "1", "CLK", 90, 0, Joint.Reach.FIRST);
    Revision r = revision(before, r1, r2, end);
    NetLine l =
        NetLine.of(
            PulsePlan.of(r, LadderProposal.of(r), List.of(), List.of()),
            "CLK",
            first(pad(r2), pad(end), stroke(0, 0, 90, 0)),
            Optional.empty());
    assertEquals(l.from(), r2);
    assertEquals(l.driven().series(), 100, 1e-9);
  }
}
