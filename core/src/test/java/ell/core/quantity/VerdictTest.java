package ell.core.quantity;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Verdicts with guard bands. Source: JCGM 106:2012, 8.3.2 (guarded acceptance: accept when the
/// measured value lies in the tolerance interval reduced by w = U at both ends) and 8.3.3 (guarded
/// rejection: reject when it lies outside the interval enlarged by w = U).
public class VerdictTest {
  private static final Limits RAIL = new Limits(3.24, 3.36);

  @DataProvider
  Object[][] readings() {
    return new Object[][] {
      // U = 0.02: accept 3.26...3.34, reject below 3.22 or above 3.38
      {3.30, 0.02, Verdict.WITHIN},
      {3.26, 0.01, Verdict.WITHIN},
      {3.27, 0.02, Verdict.WITHIN},
      {3.255, 0.02, Verdict.CLOSE},
      {3.345, 0.02, Verdict.CLOSE},
      {3.225, 0.02, Verdict.CLOSE},
      {3.375, 0.02, Verdict.CLOSE},
      {3.21, 0.02, Verdict.OUT},
      {3.39, 0.02, Verdict.OUT},
      // without uncertainty the limits decide, ends included
      {3.24, 0.0, Verdict.WITHIN},
      {3.36, 0.0, Verdict.WITHIN},
      {3.239, 0.0, Verdict.OUT},
      // an uncertainty wider than the limits can never accept
      {3.30, 0.07, Verdict.CLOSE},
    };
  }

  @Test(dataProvider = "readings")
  public void judgesWithGuardBands(double reading, double u, Verdict expected) {
    assertEquals(RAIL.judge(reading, u), expected);
  }

  @Test
  public void oneSidedLimitsGuardOneSide() {
    assertEquals(Limits.atLeast(100).judge(150, 20), Verdict.WITHIN);
    assertEquals(Limits.atLeast(100).judge(110, 20), Verdict.CLOSE);
    assertEquals(Limits.atLeast(100).judge(70, 20), Verdict.OUT);
    assertEquals(Limits.atMost(2).judge(0.3, 0.1), Verdict.WITHIN);
    assertEquals(Limits.atMost(2).judge(2.3, 0.1), Verdict.OUT);
    assertEquals(Limits.atLeast(100).text(Unit.OHM, 3), "above 100 Ω");
    assertEquals(RAIL.text(Unit.VOLT, 3), "3.24...3.36 V");
    assertEquals(new Limits(100, 45_800).text(Unit.OHM, 3), "100 Ω...45.8 kΩ");
  }

  /// The verdict says what is true of every value that the reading may stand for.
  @Test
  public void verdictsHoldForEveryValueInTheInterval() {
    Random random = new Random(3);
    for (int i = 0; i < 20_000; i++) {
      double reading = 3.1 + 0.4 * random.nextDouble();
      double u = 0.1 * random.nextDouble();
      Verdict v = RAIL.judge(reading, u);
      boolean allIn = true;
      boolean anyIn = false;
      for (int k = 0; k <= 20; k++) {
        double value = reading - u + 2 * u * k / 20;
        boolean in = value >= RAIL.low() && value <= RAIL.high();
        allIn &= in;
        anyIn |= in;
      }
      if (v == Verdict.WITHIN) {
        assertTrue(allIn, reading + " ± " + u);
      }
      if (v == Verdict.OUT) {
        assertTrue(!anyIn, reading + " ± " + u);
      }
    }
  }

  /// A meter that is better than what settling asks for gives a clear verdict; a worse one does
  /// not.
  @Test
  public void settlingSaysWhichMeterDecides() {
    double reading = 3.352;
    double needed = RAIL.settling(reading);
    assertEquals(needed, 0.008, 1e-12);
    assertEquals(RAIL.judge(reading, needed * 0.99), Verdict.WITHIN);
    assertEquals(RAIL.judge(reading, needed * 1.01), Verdict.CLOSE);
  }

  @Test
  public void accuracyAsDataSheetsStateIt() {
    // ±(0.5 % + 2 digits) at 1 mV, reading 5.031 V: 0.025155 + 0.002 V, worked by hand
    Accuracy a = new Accuracy(0.005, 2, 0.001);
    assertEquals(a.uncertainty(5.031), 0.027155, 1e-9);
    assertEquals(a.uncertainty(-5.031), 0.027155, 1e-9);
    assertEquals(a.toString(), "±(0.5 % + 2 digits)");
    assertEquals(Accuracy.handheldVolts(12).resolution(), 0.01);
    assertThrows(IllegalArgumentException.class, () -> new Accuracy(2, 1, 0.001));
    assertThrows(IllegalArgumentException.class, () -> new Accuracy(0.1, -1, 0.001));
  }

  @Test
  public void limitsRefuseNonsense() {
    assertThrows(IllegalArgumentException.class, () -> new Limits(2, 1));
    assertThrows(IllegalArgumentException.class, () -> new Limits(Double.NaN, 1));
    assertThrows(IllegalArgumentException.class, () -> RAIL.judge(Double.NaN, 0));
    assertThrows(IllegalArgumentException.class, () -> RAIL.judge(3.3, -0.1));
    assertThrows(IllegalArgumentException.class, () -> Verdict.ofKey("fine"));
    assertEquals(Verdict.ofKey("close"), Verdict.CLOSE);
    assertEquals(Verdict.WITHIN.and(Verdict.CLOSE), Verdict.CLOSE);
  }
}
