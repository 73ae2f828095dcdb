package ell.core.heat;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;

import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Type K against the printed table. Source: NIST Monograph 175, ITS-90, reference 0 °C; the values
/// here from memory of the table.
public class ThermocoupleTest {
  @DataProvider
  Object[][] table() {
    return new Object[][] {
      {-270, -6.458},
      {-250, -6.404},
      {-200, -5.891},
      {-150, -4.913},
      {-100, -3.554},
      {-50, -1.889},
      {-10, -0.392},
      {0, 0.000},
      {10, 0.397},
      {20, 0.798},
      {25, 1.000},
      {50, 2.023},
      {75, 3.059},
      {100, 4.096},
      {125, 5.124},
      {150, 6.138},
      {175, 7.140},
      {200, 8.138},
      {225, 9.141},
      {250, 10.153},
      {275, 11.176},
      {300, 12.209},
      {350, 14.293},
      {400, 16.397},
      {500, 20.644},
      {600, 24.905},
      {700, 29.129},
      {800, 33.275},
      {900, 37.326},
      {1000, 41.276},
      {1100, 45.119},
      {1200, 48.838},
      {1300, 52.410},
      {1372, 54.886},
    };
  }

  @Test(dataProvider = "table")
  public void voltages(int celsius, double millivolt) {
    assertEquals(Thermocouple.volts(celsius) * 1e3, millivolt, 6e-4);
  }

  /// The table has three decimals: half of the last one is up to 0.05 °C where the wire gives 10
  /// µV/K; below −200 °C it gives less and less.
  @Test(dataProvider = "table")
  public void temperatures(int celsius, double millivolt) {
    if (celsius > -200) {
      assertEquals(Thermocouple.celsius(millivolt * 1e-3, 0), celsius, 0.05);
    }
  }

  @Test
  public void theColdJunctionCounts() {
    for (double cold : new double[] {-10, 0, 23.4, 60}) {
      double v = Thermocouple.volts(217) - Thermocouple.volts(cold);
      assertEquals(Thermocouple.celsius(v, cold), 217, 1e-4);
    }
    assertThrows(IllegalArgumentException.class, () -> Thermocouple.celsius(0.06, 0));
    assertThrows(IllegalArgumentException.class, () -> Thermocouple.celsius(Double.NaN, 0));
  }
}
