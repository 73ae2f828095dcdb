package ell.core.power;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import ell.core.entry.Entry;
import ell.core.entry.EntryBounds;
import ell.core.power.PowerPlan.Finding;
import ell.core.quantity.Limits;
import ell.core.quantity.Unit;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Every look at a supply counts: a single one that is out is found wherever it stands, and what no
/// supply can do is not believed.
public final class SupplyWatchTest {
  private static final int LOOKS = 8;
  private static final PowerStep STEP = new PowerStep(12, 0.1, new Limits(0.01, 0.03));

  private static List<Double> good() {
    List<Double> all = new ArrayList<>();
    for (int i = 0; i < LOOKS; i++) {
      all.add(0.02);
    }
    return all;
  }

  @Test
  public void oneLookThatIsOutIsFoundWhereverItStands() {
    for (int at = 0; at < LOOKS; at++) {
      for (double odd : new double[] {0.1, 0.5, 0.05, 0.001}) {
        List<Double> amps = good();
        amps.set(at, odd);
        Finding f = PowerPlan.judge(STEP, amps);
        if (at < LOOKS / 4) {
          assertEquals(f, Finding.AS_PREDICTED, "while capacitors charge, at " + at);
        } else {
          Finding wanted =
              odd >= 0.098 ? Finding.AT_LIMIT : odd > 0.03 ? Finding.TOO_MUCH : Finding.TOO_LITTLE;
          assertEquals(f, wanted, odd + " A at " + at);
        }
      }
    }
  }

  /// Looks made at random against the rule written down a second time, look by look.
  @Test
  public void randomLooksAgainstTheRule() {
    Random random = new Random(3);
    int[] found = new int[Finding.values().length];
    for (int round = 0; round < 5000; round++) {
      int n = 1 + random.nextInt(12);
      List<Double> amps = new ArrayList<>();
      for (int i = 0; i < n; i++) {
        amps.add(random.nextInt(6) == 0 ? 0.12 * random.nextDouble() : 0.02);
      }
      Finding f = PowerPlan.judge(STEP, amps);
      found[f.ordinal()]++;
      int charging = Math.min(n - 1, (n + 3) / 4);
      boolean limit = false;
      boolean much = false;
      boolean little = false;
      for (int i = charging; i < n; i++) {
        limit |= amps.get(i) >= 0.98 * STEP.limit();
        much |= amps.get(i) > STEP.band().high();
        little |= amps.get(i) < STEP.band().low();
      }
      List<Double> late = amps.subList(charging, n);
      double most = Collections.max(late);
      double least = Collections.min(late);
      int passes = 0;
      for (int i = charging + 1; i < n; i++) {
        boolean above = amps.get(i) > (most + least) / 2;
        passes += above != amps.get(i - 1) > (most + least) / 2 ? 1 : 0;
      }
      if (limit) {
        assertEquals(f, Finding.AT_LIMIT, amps.toString());
      } else if ((much || little) && passes >= 3 && most - least > Math.max(most / 2, 6e-3)) {
        assertEquals(f, Finding.PULSING, amps.toString());
      } else if (much) {
        assertEquals(f, Finding.TOO_MUCH, amps.toString());
      } else if (little) {
        assertEquals(f, Finding.TOO_LITTLE, amps.toString());
      } else {
        assertTrue(f == Finding.AS_PREDICTED || f == Finding.RISING, amps + ": " + f);
      }
    }
    for (Finding f : Finding.values()) {
      assertTrue(found[f.ordinal()] > 5, f + " came up " + found[f.ordinal()] + " times");
    }
  }

  @DataProvider
  Object[][] looks() {
    return new Object[][] {
      {12.0, 0.02, ""},
      {12.1, 0.0, ""},
      {11.0, 0.02, ""},
      {3.0, 0.1, ""}, // at its limit the volts fall, as they must
      {36.0, 0.02, "36.000 V at a set point of 12.000 V"},
      {12.8, 0.02, "at a set point"},
      {Double.NaN, 0.02, "at a set point"},
      {12.0, 1.0, "does not hold it"},
      {12.0, 0.12, "does not hold it"},
      {12.0, Double.NaN, "does not hold it"},
      {12.0, -0.5, "flows back"},
      {12.0, -0.005, ""},
      {6.0, 0.02, "is not at its limit"},
      {0.0, 0.0, "is not at its limit"},
      {Double.POSITIVE_INFINITY, 0.02, "at a set point"},
    };
  }

  @Test(dataProvider = "looks")
  public void whatNoSupplyCanDoIsNotBelieved(double volts, double amps, String words) {
    Optional<String> said = PowerPlan.impossible(STEP, volts, amps, false);
    assertEquals(said.isPresent(), !words.isEmpty(), said.toString());
    said.ifPresent(s -> assertTrue(s.contains(words), s));
  }

  @Test
  public void chargingIsOverAfterAQuarter() {
    assertFalse(PowerPlan.settled(1, LOOKS));
    assertFalse(PowerPlan.settled(2, LOOKS));
    assertTrue(PowerPlan.settled(3, LOOKS));
  }

  private static Entry reading(double value, Unit unit) {
    return new Entry.Reading(
        "X", value, unit, Optional.empty(), Optional.empty(), Optional.empty(), "");
  }

  @DataProvider
  Object[][] readings() {
    return new Object[][] {
      {reading(3.3, Unit.VOLT), true},
      {reading(-48, Unit.VOLT), true},
      {reading(1e308, Unit.VOLT), false},
      {reading(-1e6, Unit.VOLT), false},
      {reading(Double.NaN, Unit.VOLT), false},
      {reading(Double.POSITIVE_INFINITY, Unit.OHM), false},
      {reading(1e9, Unit.OHM), true},
      {reading(-300, Unit.CELSIUS), false},
      {reading(-40, Unit.CELSIUS), true},
      {reading(6000, Unit.CELSIUS), false},
      {reading(24e9, Unit.HERTZ), true},
      {reading(1e15, Unit.HERTZ), false},
      {new Entry.Lost("C5", 3, ""), true},
      {new Entry.Lost("C5", 999_999, ""), false},
      {new Entry.Lost("C5", 0, ""), false},
      {new Entry.Note("anything"), true},
    };
  }

  @Test(dataProvider = "readings")
  public void whatCannotBeIsNoEntry(Entry e, boolean may) {
    Optional<String> wrong = EntryBounds.wrong(e);
    assertEquals(wrong.isEmpty(), may, wrong.toString());
    wrong.ifPresent(w -> assertFalse(w.isBlank()));
  }
}
