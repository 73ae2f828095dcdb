package ell.core.beep;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import ell.core.board.Joint;
import ell.core.board.Outline;
import ell.core.board.Part;
import ell.core.board.Revision;
import ell.core.power.LadderProposal;
import java.util.ArrayList;
import java.util.List;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/// What a meter should show between any two places.
public class ExpectedOhmsTest {
  private final List<Part> parts = new ArrayList<>();
  private final List<Joint> joints = new ArrayList<>();

  @BeforeMethod
  public void empty() {
    parts.clear();
    joints.clear();
  }

  private void part(String reference, String value, boolean fitted, String... nets) {
    parts.add(BeepListTest.part(reference, value, fitted));
    for (int i = 0; i < nets.length; i++) {
      joints.add(BeepListTest.joint(reference, "" + (i + 1), nets[i], 8 * parts.size() + 2 * i));
    }
  }

  private ExpectedOhms between(String a, String b) {
    Revision r = new Revision("T", "1", parts, joints, Outline.UNKNOWN);
    return ExpectedOhms.between(r, LadderProposal.of(r), a, b);
  }

  /// A cube of equal resistors: edge 7/12, diagonal of a face 3/4, of the body 5/6 of one. Source:
  /// a textbook exercise, by symmetry and Kirchhoff's laws.
  @Test
  public void theCube() {
    int n = 1;
    for (int corner = 0; corner < 8; corner++) {
      for (int axis = 1; axis < 8; axis *= 2) {
        if ((corner & axis) == 0) {
          part("R" + n++, "12k 1%", true, "N" + corner, "N" + (corner | axis));
        }
      }
    }
    assertEquals(parts.size(), 12);
    assertEquals(between("N0", "N1").nominal(), 7000, 0.01);
    assertEquals(between("N0", "N3").nominal(), 9000, 0.01);
    assertEquals(between("N0", "N7").nominal(), 10_000, 0.01);
    ExpectedOhms edge = between("R1.1", "N1");
    assertEquals(edge.nominal(), 7000, 0.01, "a joint stands for its net");
    assertTrue(edge.limits().low() < 7000 && edge.limits().high() > 7000);
    assertFalse(edge.beeps());
    assertTrue(edge.why().toString().contains("7.00 k"), edge.why().toString());
  }

  @Test
  public void chipsThatMayLeadAreTold() {
    part("R1", "4k7", true, "SDA", "3V3");
    part("U1", "CHIP", true, "SDA", "3V3", "GND");
    part("R2", "4k7", true, "X", "Y");
    ExpectedOhms o = between("SDA", "3V3");
    assertEquals(o.nominal(), 4700, 0.01);
    assertEquals(o.limits().low(), 100.0);
    assertTrue(o.why().getLast().startsWith("chips"), o.why().toString());
    ExpectedOhms bare = between("X", "Y");
    assertEquals(bare.limits().low(), 0.8 * 4700, 1);
    assertEquals(bare.why().size(), 1, bare.why().toString());
  }

  @Test
  public void whatBeepsAlthoughHealthy() {
    part("R14", "10", true, "A", "B");
    part("R15", "22k", false, "A", "C");
    part("R16", "1k", true, "C", "D");
    part("C1", "100u", true, "D", "B");
    ExpectedOhms o = between("A", "B");
    assertEquals(o.nominal(), 10, 1e-3);
    assertTrue(o.beeps());
    assertTrue(o.why().getFirst().contains("R14"), o.why().toString());
    ExpectedOhms charges = between("D", "B");
    assertEquals(charges.nominal(), Double.POSITIVE_INFINITY);
    assertFalse(charges.beeps());
    // C R I over I with R the 40 ohm up to which a beeper sounds: common practice, no source
    assertEquals(charges.beepsFor(), 100e-6 * BeepList.BEEPS, 1e-9);
    assertEquals(
        between("A", "C").nominal(), Double.POSITIVE_INFINITY, "what is not fitted does not lead");
    ExpectedOhms one = between("R14.2", "C1.2");
    assertEquals(one.nominal(), 0.0);
    assertTrue(one.beeps() && one.netA().equals("B") && one.netB().equals("B"));
    assertEquals(between("R15.1", "B").nominal(), 10, 1e-3, "its pad is there");
    for (String[] bad : new String[][] {{"A", "A"}, {"A", "nowhere"}, {"R15", "B"}, {"", "A"}}) {
      assertThrows(IllegalArgumentException.class, () -> between(bad[0], bad[1]));
    }
  }
}
