package ell.core.power;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import ell.core.catalogue.Catalogue;
import ell.core.circuit.Circuit;
import ell.core.circuit.Operating;
import ell.core.circuit.Run;
import ell.core.power.RailBand.Part;
import ell.core.sheet.SheetProblem;
import ell.core.sheet.Worked;
import java.util.HashMap;
import java.util.Map;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// The sheets of bands, charging and chains, against sums by hand, against the board model, and
/// against a second way of the same sum.
public final class BandChargeChainTest {
  private static Worked work(String sheet, String... given) {
    Map<String, String> all = new HashMap<>();
    for (String g : given) {
      all.put(g.substring(0, g.indexOf('=')), g.substring(g.indexOf('=') + 1));
    }
    return Catalogue.work(sheet, all);
  }

  private static double of(Worked w, String result) {
    return (Double) w.results().get(result);
  }

  /// By hand: 0.8 V, 31.6k over 10k gives 3.328 V; at the ends 0.784·(1 + 31.284/10.1) and 0.816·(1
  /// + 31.916/9.9).
  @Test
  public void aDividerAtItsEnds() {
    Worked w = work("power.band", "reference=0.8V", "tolerance=2", "upper=31.6k", "lower=10k");
    assertEquals(of(w, "nominal"), 3.328, 1e-9);
    assertEquals(of(w, "low"), 0.784 * (1 + 31.284 / 10.1), 1e-9);
    assertEquals(of(w, "high"), 0.816 * (1 + 31.916 / 9.9), 1e-9);
    assertTrue(of(w, "low") < of(w, "likelyLow") && of(w, "likelyHigh") < of(w, "high"));
  }

  /// One part evenly in its tolerance: 95 of 100 lie in 95 hundredths of it.
  @Test
  public void whatIsLikelyOfOnePartIsKnown() {
    Worked w =
        work("power.band", "reference=3.3V", "tolerance=2%", "current=0.1A", "resistance=0.5ohm");
    assertEquals(of(w, "nominal"), 3.25, 1e-12);
    assertEquals(of(w, "likelyLow"), 3.25 - 0.95 * 0.066, 0.002);
    assertEquals(of(w, "likelyHigh"), 3.25 + 0.95 * 0.066, 0.002);
  }

  /// The sum of two even spreads is a triangle: 2.5 of 100 lie beyond 1 - sqrt(0.05) of its half
  /// base (any textbook of probability).
  @Test
  public void whatIsLikelyOfTwoPartsIsATriangle() {
    RailBand b = RailBand.of(x -> x[0] + x[1], new Part(1, 0.1), new Part(1, 0.1));
    assertEquals(b.likelyHigh(), 2 + 0.2 * (1 - Math.sqrt(0.05)), 0.004);
    assertEquals(b.likelyLow(), 2 - 0.2 * (1 - Math.sqrt(0.05)), 0.004);
    assertEquals(b.low(), 1.8, 1e-12);
    assertEquals(b.high(), 2.2, 1e-12);
  }

  /// No board of those tried lies beyond the ends, whatever the parts.
  @Test
  public void nothingLiesBeyondTheIntervals() {
    RailBand b =
        RailBand.of(
            x -> x[0] * (1 + x[1] / x[2]) / (1 + x[3]),
            new Part(1.25, 0.04),
            new Part(240, 0.05),
            new Part(390, 0.2),
            new Part(0.1, 0.5));
    assertTrue(b.low() < b.likelyLow() && b.likelyHigh() < b.high());
    assertEquals(b.low(), 1.2 * (1 + 228 / 468.0) / 1.15, 1e-12);
  }

  /// A cell in the board model, charged by a supply with the same limits: the two must agree,
  /// though one is a closed form and the other steps through time.
  @DataProvider
  Object[][] cells() {
    return new Object[][] {
      {1800.0, 0.15, 0.5, 0.0}, {360.0, 0.4, 0.2, 0.3}, {3600.0, 0.05, 1.0, 0.9},
    };
  }

  @Test(dataProvider = "cells")
  public void aCellChargesAsInTheModel(double coulombs, double ohms, double amps, double share) {
    Charging c = new Charging(coulombs, 3.0, 4.2, ohms + 1e-4, amps, amps / 10);
    Circuit m = new Circuit();
    m.cell("B1", "A", Circuit.GROUND, 3.0, 4.2, ohms, coulombs, share);
    m.supply("S", "A", Circuit.GROUND, 4.2, amps, 1e-4);
    m.set("S", 4.2, amps, true);
    Run run = m.run().exact(1e-5);
    double total = c.steady(share) + c.falling(share);
    for (double t : new double[] {0.3, 0.6, 0.9, 1}) {
      run.on(t * total - run.time());
      assertEquals(run.through("S"), after(c, share, t * total), 0.01 * amps, "at " + t);
    }
    assertEquals(run.through("S"), amps / 10, 0.002 * amps);
  }

  /// The current of a charge after some time: steady, then a falling exponential.
  private static double after(Charging c, double share, double seconds) {
    double steady = c.steady(share);
    double begins = Math.min(c.current(), 1.2 * (1 - Math.max(c.turns(), share)) / c.ohms());
    return seconds < steady ? c.current() : begins * Math.exp(-(seconds - steady) / c.falls());
  }

  /// 500 mAh at 250 mA from empty, 0.15 Ω: turns at (4.2 - 0.0375 - 3) / 1.2 = 0.96875, steady
  /// 0.96875·1800/0.25 = 6975 s, τ = 0.15·1800/1.2 = 225 s, falling 225·ln 10 = 518.08 s.
  @Test
  public void aChargeByHand() {
    Worked w = work("power.charge", "capacity=500mAh", "current=250mA");
    assertEquals(of(w, "turnsAt"), 0.96875, 1e-12);
    assertEquals(of(w, "steady"), 6975, 1e-9);
    assertEquals(of(w, "falling"), 225 * Math.log(10), 1e-9);
    assertEquals(of(w, "total"), 6975 + 518.0817, 1e-3);
    assertEquals(of(w, "rate"), 0.5, 1e-12);
    assertTrue(w.cautions().toString().contains("never unattended"));
    assertFalse(w.cautions().toString().contains("More than the cell's capacity"));
    assertTrue(
        work("power.charge", "capacity=100mAh", "current=250mA")
            .cautions()
            .toString()
            .contains("More than the cell's capacity"));
    assertEquals(
        of(work("power.charge", "capacity=1Ah", "current=0.1A", "charge=1"), "total"), 0.0);
  }

  @DataProvider
  Object[][] chains() {
    return new Object[][] {{1}, {2}, {7}, {64}};
  }

  /// A chain in the board model: its elements as loads, its segments as resistors.
  @Test(dataProvider = "chains")
  public void aChainIsAsInTheModel(int n) {
    Chain c = new Chain(n, 0.02, 0.03, 5);
    Circuit m = new Circuit();
    m.supply("S", "N0", Circuit.GROUND, 5, 10, 1e-6);
    m.set("S", 5, 10, true);
    double lost = 0;
    for (int i = 1; i <= n; i++) {
      m.resistor("W" + i, "N" + (i - 1), "N" + i, 0.03);
      m.load("D" + i, "N" + i, Circuit.GROUND, 0.02, 0.5);
    }
    Operating o = m.rest();
    for (int i = 1; i <= n; i++) {
      assertEquals(o.at("N" + i), c.at(i), 1e-5, "element " + i);
      lost += o.heat("W" + i);
    }
    assertEquals(o.through("S"), c.total(), 1e-6);
    assertEquals(c.loss(), lost, 1e-5);
  }

  /// By hand: 60 of 20 mA over 20 mΩ: 1.2 A, 0.02·0.02·60·61/2 = 0.732 V.
  @Test
  public void aChainByHand() {
    Worked w =
        work(
            "chain.supply",
            "elements=60",
            "current=20mA",
            "resistancePerSegment=20mohm",
            "supply=5V",
            "least=4.5V");
    assertEquals(of(w, "totalCurrent"), 1.2, 1e-12);
    assertEquals(of(w, "lastVoltage"), 5 - 0.732, 1e-12);
    // 0.0004·n(n+1)/2 <= 0.5: n = 49
    assertEquals(of(w, "feedAgainAfter"), 49.0);
  }

  @DataProvider
  Object[][] wrong() {
    return new Object[][] {
      {
        "chain.supply",
        "elements=600 current=60mA resistancePerSegment=0.1 supply=5",
        "feed again after at most 40"
      },
      {"chain.supply", "elements=1.5 current=1mA resistancePerSegment=1 supply=5", "whole number"},
      {"power.charge", "capacity=1Ah current=0.1A end=0.2A", "ends below"},
      {"power.charge", "capacity=1Ah current=0.1A empty=5", "more volts"},
      {"power.band", "reference=0.8 upper=10k", "both"},
      {"power.band", "reference=0.8 tolerance=80", "out of range"},
    };
  }

  @Test(dataProvider = "wrong")
  public void whatCannotBeIsSaid(String sheet, String given, String words) {
    String said =
        expectThrows(SheetProblem.class, () -> work(sheet, given.split(" "))).getMessage();
    assertTrue(said.contains(words), said);
  }
}
