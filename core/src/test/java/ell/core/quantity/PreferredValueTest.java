package ell.core.quantity;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.testng.annotations.Test;

/// Preferred numbers. Source: IEC 60063:2015, tables 1 to 3; values written from memory.
public class PreferredValueTest {
  @Test
  public void e12AsListed() {
    assertEquals(
        PreferredValue.decade(12),
        List.of(1.0, 1.2, 1.5, 1.8, 2.2, 2.7, 3.3, 3.9, 4.7, 5.6, 6.8, 8.2));
    assertEquals(PreferredValue.decade(6), List.of(1.0, 1.5, 2.2, 3.3, 4.7, 6.8));
    assertEquals(PreferredValue.decade(3), List.of(1.0, 2.2, 4.7));
  }

  @Test
  public void e48AsListed() {
    assertEquals(
        PreferredValue.decade(48),
        List.of(
            1.00, 1.05, 1.10, 1.15, 1.21, 1.27, 1.33, 1.40, 1.47, 1.54, 1.62, 1.69, 1.78, 1.87,
            1.96, 2.05, 2.15, 2.26, 2.37, 2.49, 2.61, 2.74, 2.87, 3.01, 3.16, 3.32, 3.48, 3.65,
            3.83, 4.02, 4.22, 4.42, 4.64, 4.87, 5.11, 5.36, 5.62, 5.90, 6.19, 6.49, 6.81, 7.15,
            7.50, 7.87, 8.25, 8.66, 9.09, 9.53));
  }

  @Test
  public void e96HoldsTheKnownValuesAndE48() {
    List<Double> e96 = PreferredValue.decade(96);
    assertEquals(e96.size(), 96);
    assertTrue(e96.containsAll(List.of(1.02, 1.58, 2.00, 3.16, 3.57, 4.99, 6.04, 7.68, 9.76)));
    assertTrue(e96.containsAll(PreferredValue.decade(48)));
    Set<Double> e192 = new HashSet<>(PreferredValue.decade(192));
    assertEquals(e192.size(), 192);
    assertTrue(e192.containsAll(e96));
    assertTrue(e192.contains(9.20) && !e192.contains(9.19), "the one exception of the standard");
  }

  @Test
  public void nearestByRatio() {
    assertEquals(PreferredValue.nearest(4800, 12), 4700.0);
    assertEquals(PreferredValue.nearest(466.7, 24), 470.0);
    assertEquals(PreferredValue.nearest(9.6, 12), 10.0);
    assertEquals(PreferredValue.nearest(0.98e-9, 6), 1e-9);
    assertEquals(PreferredValue.atLeast(471, 24), 510.0);
    assertEquals(PreferredValue.atLeast(470, 24), 470.0);
    assertEquals(PreferredValue.atLeast(9.2, 24), 10.0);
  }

  @Test
  public void refusesOtherSeries() {
    assertThrows(IllegalArgumentException.class, () -> PreferredValue.decade(10));
    assertThrows(IllegalArgumentException.class, () -> PreferredValue.nearest(0, 24));
    assertThrows(IllegalArgumentException.class, () -> PreferredValue.nearest(-1, 24));
  }
}
