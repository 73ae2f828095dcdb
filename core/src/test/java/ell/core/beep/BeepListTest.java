package ell.core.beep;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import ell.core.RandomBoards;
import ell.core.board.Joint;
import ell.core.board.Outline;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import ell.core.board.Side;
import ell.core.power.LadderProposal;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import org.testng.annotations.Test;

public class BeepListTest {
  private static BeepList list(Revision r) {
    return BeepList.of(r, LadderProposal.of(r));
  }

  private static Part part(String ref, String value) {
    return part(ref, value, true);
  }

  static Part part(String ref, String value, boolean fitted) {
    return new Part(
        ref,
        value,
        "0603",
        ref,
        "",
        fitted,
        false,
        List.of(),
        "",
        Optional.of(new Part.Spot(1, 1, 0, Side.FIRST)),
        Double.NaN,
        Double.NaN);
  }

  static Joint joint(String ref, String pin, String net, double x) {
    return new Joint(ref, pin, net, x, 0, Joint.Reach.FIRST, false, 0, true, 0.8, 0.8, 0, false, 0);
  }

  private static Revision two(String a, String b, Object... partsAndOhms) {
    List<Part> parts = new ArrayList<>();
    List<Joint> joints = new ArrayList<>();
    joints.add(joint("TP1", "1", a, 0));
    joints.add(joint("TP2", "1", b, 50));
    joints.add(joint("TP3", "1", a, 60));
    joints.add(joint("TP4", "1", b, 70));
    for (int i = 0; i < partsAndOhms.length; i += 2) {
      parts.add(part((String) partsAndOhms[i], (String) partsAndOhms[i + 1]));
      joints.add(joint((String) partsAndOhms[i], "1", a, 10 + 5 * i));
      joints.add(joint((String) partsAndOhms[i], "2", b, 12 + 5 * i));
    }
    return new Revision("T", "1", parts, joints, Outline.UNKNOWN);
  }

  /// A net of n reachable joints gets n − 1 checks in which every joint is an end at least once;
  /// every pair of rails is kept apart; numbers run from 1.
  @Test
  public void everyJointIsAnEndAndEveryRailIsApart() {
    Random random = new Random(29);
    for (int round = 0; round < 80; round++) {
      Revision r = RandomBoards.make(random, 2 + random.nextInt(80));
      BeepList list = list(r);
      Map<String, Set<String>> joints = new HashMap<>();
      for (Joint j : r.joints()) {
        boolean made = r.part(j.part()).map(Part::fitted).orElse(true);
        if (j.connected() && made && j.reach() != Joint.Reach.NONE) {
          joints.computeIfAbsent(j.net(), _ -> new HashSet<>()).add(j.place());
        }
      }
      Map<String, Set<String>> ends = new HashMap<>();
      Map<String, Integer> count = new HashMap<>();
      int number = 0;
      for (BeepCheck c : list.checks()) {
        assertEquals(c.number(), ++number);
        assertFalse(c.why().isBlank());
        if (c.kind() == BeepCheck.Kind.CONTINUITY) {
          assertEquals(c.netA(), c.netB());
          ends.computeIfAbsent(c.netA(), _ -> new HashSet<>())
              .addAll(List.of(c.a().place(), c.b().place()));
          count.merge(c.netA(), 1, Integer::sum);
        } else {
          assertFalse(c.netA().equals(c.netB()));
        }
      }
      joints.forEach((net, all) -> {
        if (all.size() > 1) {
          assertEquals(ends.get(net), all, net);
          assertEquals((int) count.get(net), all.size() - 1, net);
        }
      });
      BeepList.Coverage v = list.coverage();
      assertTrue(v.opens() <= v.opensTotal() && v.bridges() <= v.bridgesTotal());
    }
  }

  @Test
  public void whatCouldBurnFirstComesFirst() {
    Revision r = two("VIN", "GND", "C1", "10u");
    BeepList list = list(r);
    BeepCheck first = list.checks().getFirst();
    assertEquals(first.kind(), BeepCheck.Kind.ISOLATION);
    assertTrue(first.guards());
    assertEquals(Set.of(first.netA(), first.netB()), Set.of("VIN", "GND"));
    assertEquals(first.expected().low(), 100.0);
    assertTrue(Double.isInfinite(first.expected().high()));
  }

  /// 10 kΩ and 15 kΩ side by side make 6 kΩ: the reading is held against that.
  @Test
  public void expectedOhmsComeFromTheResistors() {
    BeepCheck c = list(two("VIN", "GND", "R1", "10k", "R2", "15k")).checks().getFirst();
    assertTrue(c.expected().low() <= 6000 && c.expected().high() >= 6000, c.expected().toString());
    assertTrue(c.expected().high() < 7000);
  }

  @Test
  public void lowOhmsBeepAlthoughHealthy() {
    BeepCheck c = list(two("5V0", "3V3", "R14", "10R")).checks().getFirst();
    assertTrue(c.why().startsWith("will beep although healthy"), c.why());
    assertTrue(c.why().contains("R14"));
    assertTrue(c.expected().high() < 20 && c.expected().low() > 5);
  }

  @Test
  public void partsLeftOffAreNotBeeped() {
    List<Part> parts = List.of(part("R1", "1k"));
    Part off =
        new Part(
            "R2",
            "1k",
            "0603",
            "R",
            "",
            false,
            false,
            List.of(),
            "",
            Optional.empty(),
            Double.NaN,
            Double.NaN);
    Revision r =
        new Revision(
            "T",
            "1",
            List.of(parts.getFirst(), off),
            List.of(
                joint("R1", "1", "N1", 0),
                joint("R2", "1", "N1", 3),
                joint("R1", "2", "N2", 5),
                joint("R2", "2", "N2", 8)),
            Outline.UNKNOWN);
    assertTrue(list(r).checks().isEmpty());
  }

  @Test
  public void tipsDoNotReachUnderMask() {
    Joint covered =
        new Joint("R1", "1", "N1", 0, 0, Joint.Reach.NONE, false, 0, true, 1, 1, 0, false, 1);
    Revision r =
        new Revision(
            "T",
            "1",
            List.of(part("R1", "1k")),
            List.of(covered, joint("R1", "2", "N1", 5), joint("TP1", "1", "N1", 9)),
            Outline.UNKNOWN);
    List<BeepCheck> checks = list(r).checks();
    assertEquals(checks.size(), 1);
    assertFalse(
        checks.getFirst().a().place().equals("R1.1")
            || checks.getFirst().b().place().equals("R1.1"));
  }

  @Test
  public void tipOfTheMeterStaysOnATestPoint() {
    List<Joint> joints = new ArrayList<>(List.of(joint("TP1", "1", "GND", 0)));
    List<Part> parts = new ArrayList<>();
    for (int i = 1; i < 10; i++) {
      parts.add(part("R" + i, "1k"));
      joints.add(joint("R" + i, "1", "GND", 3 * i));
      joints.add(joint("R" + i, "2", "N" + i, 3 * i + 1));
    }
    List<BeepCheck> checks =
        list(new Revision("T", "1", parts, joints, Outline.UNKNOWN)).checks().stream()
            .filter(c -> c.kind() == BeepCheck.Kind.CONTINUITY)
            .toList();
    assertEquals(checks.size(), 9);
    checks.forEach(c -> assertEquals(c.a().place(), "TP1.1"));
    assertTrue(PartKind.of("TP1").bare());
  }

  @Test
  public void keysTellChecksApart() {
    Random random = new Random(31);
    Revision r = RandomBoards.make(random, 60);
    Set<String> keys = new HashSet<>();
    list(r).checks().forEach(c -> assertTrue(keys.add(c.key()), c.key()));
  }
}
