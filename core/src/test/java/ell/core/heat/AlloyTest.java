package ell.core.heat;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import org.testng.annotations.Test;

/// Melting ranges. Source: J-STD-006, from memory.
public class AlloyTest {
  @Test
  public void alloysByTheirWords() {
    assertEquals(Alloy.of("SAC305").liquidus(), 220.0);
    assertEquals(Alloy.of("sac305").solidus(), 217.0);
    assertEquals(Alloy.of("leaded"), Alloy.SN63PB37);
    assertEquals(Alloy.of("Sn42Bi58").liquidus(), 138.0);
    assertTrue(Alloy.SN60PB40.leaded());
    assertFalse(Alloy.SAC305.leaded());
    for (Alloy a : Alloy.values()) {
      assertTrue(a.solidus() <= a.liquidus());
      assertEquals(Alloy.of(a.key()), a);
    }
    assertThrows(IllegalArgumentException.class, () -> Alloy.of("tin"));
  }
}
