package ell.core.power;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.power.Ladder.RailSpec;
import ell.core.power.Ladder.Source;
import ell.core.quantity.Unit;
import java.time.OffsetDateTime;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.hipparchus.stat.descriptive.rank.Median;
import org.testng.annotations.Test;

/// A rail over all boards: its middle against a statistics library, and who stands apart.
public final class RailSpreadTest {
  private static final Ladder LADDER =
      new Ladder(
          List.of(new RailSpec("3V3", 3.3, 3.1, 3.5, 0, "TP1", false)),
          List.of(new Source("3V3", 3.3, 3.1, 3.5, 0)),
          List.of(),
          List.of(),
          "GND",
          List.of());

  private static RailSpread spread(double... volts) {
    Map<String, PowerFacts> facts = new LinkedHashMap<>();
    for (int i = 0; i < volts.length; i++) {
      Map<String, Logged> read = new LinkedHashMap<>();
      if (!Double.isNaN(volts[i])) {
        read.put(
            "3V3",
            new Logged(
                i,
                OffsetDateTime.parse("2026-01-01T00:00:00Z"),
                "0" + i,
                new Entry.Reading(
                    "3V3",
                    volts[i],
                    Unit.VOLT,
                    Optional.empty(),
                    Optional.of(0.005),
                    Optional.empty(),
                    "")));
      }
      facts.put("0" + i, new PowerFacts(read, Optional.empty()));
    }
    return RailSpread.of(LADDER, facts).getFirst();
  }

  @Test
  public void theMiddleIsTheMedian() {
    double[] volts = {3.31, 3.28, 3.30, 3.29, 3.35, 3.27};
    RailSpread s = spread(volts);
    assertEquals(s.median(), new Median().evaluate(volts), 1e-12);
    double[] off = new double[volts.length];
    for (int i = 0; i < off.length; i++) {
      off[i] = Math.abs(volts[i] - s.median());
    }
    assertEquals(s.spread(), new Median().evaluate(off), 1e-12);
    assertEquals(s.odd(), List.of());
  }

  @Test
  public void oneWithinItsLimitsMayStandApart() {
    RailSpread s = spread(3.300, 3.301, 3.299, 3.302, 3.420, Double.NaN);
    assertEquals(s.odd().stream().map(RailSpread.Read::board).toList(), List.of("04"));
    assertTrue(s.odd().getFirst().apart());
    assertEquals(s.of(), 6);
    assertEquals(s.boards().size(), 5, "who was not read is not there");
  }

  /// What the meter cannot tell apart does not stand apart, and three have no middle.
  @Test
  public void neitherNoiseNorThreeBoardsAccuse() {
    assertEquals(spread(3.300, 3.300, 3.300, 3.300, 3.304).odd(), List.of());
    assertEquals(spread(3.300, 3.301, 3.420).odd(), List.of());
    assertEquals(spread(3.300, 3.301, 3.6).odd().getFirst().board(), "02", "out is out");
    assertTrue(Double.isNaN(spread(Double.NaN).median()));
  }
}
