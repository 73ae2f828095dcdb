package ell.core.quantity;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class EngineeringNumberTest {
  @DataProvider
  Object[][] written() {
    return new Object[][] {
      // letter in place of the point: IEC 60062:2016, 4.2 (R33, 3R3, 33R, 3K3, 33K, 3M3; p33, 3p3,
      // 33n)
      {"R33", Unit.OHM, 0.33},
      {"3R3", Unit.OHM, 3.3},
      {"33R", Unit.OHM, 33},
      {"330R", Unit.OHM, 330},
      {"3K3", Unit.OHM, 3300},
      {"33K", Unit.OHM, 33e3},
      {"3M3", Unit.OHM, 3.3e6},
      {"0R1", Unit.OHM, 0.1},
      {"p33", Unit.FARAD, 0.33e-12},
      {"3p3", Unit.FARAD, 3.3e-12},
      {"33n", Unit.FARAD, 33e-9},
      {"3µ3", Unit.FARAD, 3.3e-6},
      {"2u2", Unit.FARAD, 2.2e-6},
      // as people write
      {"4k7", Unit.OHM, 4700},
      {"4.7k", Unit.OHM, 4700},
      {"4700", Unit.OHM, 4700},
      {"4.7 kΩ", Unit.OHM, 4700},
      {"4.7 k\u2126", Unit.OHM, 4700},
      {"4.7kohm", Unit.OHM, 4700},
      {"1Meg", Unit.OHM, 1e6},
      {"1MEG", Unit.OHM, 1e6},
      {"1M", Unit.OHM, 1e6},
      {"1m", Unit.OHM, 1e-3},
      {"100n", Unit.FARAD, 100e-9},
      {"0.1uF", Unit.FARAD, 100e-9},
      {"0,1 µF", Unit.FARAD, 100e-9},
      {"0.1 μF", Unit.FARAD, 100e-9},
      {"10 pF", Unit.FARAD, 10e-12},
      {"3V3", Unit.VOLT, 3.3},
      {"3.287 V", Unit.VOLT, 3.287},
      {"3287mV", Unit.VOLT, 3.287},
      {"-12V", Unit.VOLT, -12},
      {"−12 V", Unit.VOLT, -12},
      {"12,5 mm", Unit.METRE, 12.5e-3},
      {"0.12mm", Unit.METRE, 0.12e-3},
      {"10 mil", Unit.METRE, 254e-6},
      {"1in", Unit.METRE, 0.0254},
      {"1m", Unit.METRE, 1},
      {"-40 °C", Unit.CELSIUS, -40},
      {"25C", Unit.CELSIUS, 25},
      {"1.2e-9 s", Unit.SECOND, 1.2e-9},
      {"1.2E-9", Unit.SECOND, 1.2e-9},
      {"6.6ns", Unit.SECOND, 6.6e-9},
      {"5 min", Unit.SECOND, 300},
      {"12 MHz", Unit.HERTZ, 12e6},
      {"32.768kHz", Unit.HERTZ, 32768},
      {"100 mAh", Unit.COULOMB, 360},
      {"110 K/W", Unit.KELVIN_PER_WATT, 110},
      {"0.5 mm2", Unit.SQUARE_METRE, 0.5e-6},
      {"5 g", Unit.KILOGRAM, 5e-3},
      {"88 %", Unit.ONE, 0.88},
      {"0.88", Unit.ONE, 0.88},
      {".5", Unit.ONE, 0.5},
      {"5.", Unit.ONE, 5},
      {"+5", Unit.ONE, 5},
      {"1.38mA", Unit.AMPERE, 1.38e-3},
    };
  }

  @Test(dataProvider = "written")
  public void readsWhatPeopleWrite(String text, Unit unit, double value) {
    assertEquals(EngineeringNumber.parse(text, unit), value, Math.abs(value) * 1e-15);
  }

  @DataProvider
  Object[][] nonsense() {
    return new Object[][] {
      {"", Unit.VOLT},
      {" ", Unit.VOLT},
      {"abc", Unit.VOLT},
      {"3.3.3", Unit.VOLT},
      {"1,000,000", Unit.OHM},
      {"3V3V3", Unit.VOLT},
      {"3.3 A", Unit.VOLT},
      {"4k7 F", Unit.OHM},
      {"5 parsec", Unit.METRE},
      {"1e999", Unit.VOLT},
      {"--5", Unit.VOLT},
      {"5 5", Unit.VOLT},
      {"NaN", Unit.VOLT},
      {"Infinity", Unit.VOLT},
      {"0x10", Unit.OHM},
      {"9".repeat(80), Unit.OHM},
      {"5F", Unit.CELSIUS},
    };
  }

  @Test(dataProvider = "nonsense")
  public void refusesNonsenseInASentence(String text, Unit unit) {
    NumberFormatException e =
        expectThrows(NumberFormatException.class, () -> EngineeringNumber.parse(text, unit));
    assertTrue(e.getMessage().contains("'") || e.getMessage().contains("expected"), e.getMessage());
    assertTrue(e.getMessage().length() < 200, "a sentence, not the whole input");
  }

  @DataProvider
  Object[][] printed() {
    return new Object[][] {
      {4700.0, Unit.OHM, "4.7 kΩ"},
      {0.1, Unit.OHM, "100 mΩ"},
      {100e-9, Unit.FARAD, "100 nF"},
      {3.287, Unit.VOLT, "3.287 V"},
      {0.0125, Unit.METRE, "12.5 mm"},
      {-40.0, Unit.CELSIUS, "-40 °C"},
      {1.2e-9, Unit.SECOND, "1.2 ns"},
      {0.0, Unit.AMPERE, "0 A"},
      {12e6, Unit.HERTZ, "12 MHz"},
      {999.5, Unit.OHM, "999.5 Ω"},
      {1000.0, Unit.OHM, "1 kΩ"},
      {0.005, Unit.KILOGRAM, "5 g"},
      {5e-7, Unit.SQUARE_METRE, "0.5 mm²"},
      {25.0, Unit.KELVIN_PER_WATT, "25 K/W"},
    };
  }

  @Test(dataProvider = "printed")
  public void printsEngineeringForm(double value, Unit unit, String text) {
    assertEquals(EngineeringNumber.print(value, unit), text);
  }

  @Test
  public void roundsToDigitsAndKeepsZeros() {
    assertEquals(EngineeringNumber.print(3.29, Unit.VOLT, 4), "3.290 V");
    assertEquals(EngineeringNumber.print(0.999996, Unit.AMPERE, 4), "1.000 A");
    assertEquals(EngineeringNumber.print(0.00999996, Unit.AMPERE, 4), "10.00 mA");
    assertEquals(EngineeringNumber.print(Double.POSITIVE_INFINITY, Unit.OHM, 3), "∞");
    assertEquals(EngineeringNumber.print(Double.NaN, Unit.OHM, 3), "unknown");
    assertThrows(IllegalArgumentException.class, () -> EngineeringNumber.print(1, Unit.OHM, 0));
    assertThrows(
        IllegalArgumentException.class, () -> EngineeringNumber.print(Double.NaN, Unit.OHM));
  }

  /// What is printed without rounding reads back to exactly the same value, in every unit and over
  /// the whole range of doubles.
  @Test
  public void printedValuesReadBackExactly() {
    Random random = new Random(11);
    for (int i = 0; i < 40_000; i++) {
      Unit unit = Unit.values()[random.nextInt(Unit.values().length)];
      if (unit == Unit.MONEY) {
        continue; // carries no symbol of its own
      }
      double value =
          random.nextInt(10) == 0
              ? Double.longBitsToDouble(random.nextLong())
              : random.nextGaussian() * Math.pow(10, random.nextInt(30) - 15);
      if (!Double.isFinite(value)) {
        continue;
      }
      String text = EngineeringNumber.print(value, unit);
      if (text.length() <= 64) {
        assertEquals(EngineeringNumber.parse(text, unit), value, 0.0, text);
      }
    }
  }

  @Test
  public void tolerances() {
    assertEquals(Tolerance.parse("±5 %"), new Tolerance(true, 0.05, Unit.ONE));
    assertEquals(Tolerance.parse("+-1%"), new Tolerance(true, 0.01, Unit.ONE));
    assertEquals(Tolerance.parse("+/- 0.1 V"), new Tolerance(false, 0.1, Unit.VOLT));
    assertEquals(Tolerance.parse("±5 %").toString(), "±5 %");
    assertEquals(Tolerance.parse("±0.1 V").toString(), "±100 mV");
    assertEquals(Tolerance.parse("5 %").around(3.3), new Limits(3.135, 3.465));
    assertEquals(Tolerance.parse("±0.1 V").around(-5).low(), -5.1, 1e-12);
    assertThrows(NumberFormatException.class, () -> Tolerance.parse("-5 %"));
    assertThrows(NumberFormatException.class, () -> Tolerance.parse("five"));
  }
}
