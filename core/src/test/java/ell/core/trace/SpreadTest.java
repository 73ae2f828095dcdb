package ell.core.trace;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.hipparchus.distribution.continuous.NormalDistribution;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// How a number is spread: against another library's normal distribution, by adding it up, and on
/// paper where the halves differ.
public class SpreadTest {
  private static final double FROM = -1.4;
  private static final double TO = 8.5;

  @DataProvider
  Object[][] halves() {
    return new Object[][] {{0.4, 0.4}, {0.4, 4.5}, {1.5, 0.2}, {0.05, 1}};
  }

  /// Half the width on each side: the two halves meet at the mean and hold sd/(sd+up) and
  /// up/(sd+up).
  @Test(dataProvider = "halves")
  public void halvesOfTwoNormals(double sd, double up) {
    Spread s = new Spread(3, sd, up, 1e-12);
    double high = 2 / ((sd + up) * Math.sqrt(2 * Math.PI));
    assertEquals(s.best(9.9), high, 1e-9);
    assertEquals(s.density(3, 9.9), high, 1e-9);
    assertEquals(s.density(3 - sd, 9.9), high * Math.exp(-0.5), 1e-9);
    assertEquals(s.density(3 + up, 9.9), high * Math.exp(-0.5), 1e-9);
    NormalDistribution below = new NormalDistribution(3, sd);
    NormalDistribution above = new NormalDistribution(3, up);
    double share = sd / (sd + up);
    for (double y : new double[] {2.2, 2.7, 2.95, 3.0}) {
      assertEquals(
          s.between(-1e3, y, -1e3, 1e3), 2 * share * below.cumulativeProbability(y), 1e-6, "" + y);
    }
    for (double y : new double[] {3.01, 3.3, 4, 7}) {
      assertEquals(
          s.between(-1e3, y, -1e3, 1e3),
          share + (1 - share) * (2 * above.cumulativeProbability(y) - 1),
          1e-6,
          "" + y);
    }
  }

  @Test(dataProvider = "halves")
  public void allOfItIsOne(double sd, double up) {
    Spread s = new Spread(3, sd, up, 0.02);
    double[] bounds = new double[200];
    for (int i = 0; i < bounds.length; i++) {
      bounds[i] = FROM + (TO - FROM) * i / (bounds.length - 1);
    }
    double sum = 0;
    double[] shares = s.between(bounds);
    for (int i = 0; i < shares.length; i++) {
      sum += shares[i];
      assertTrue(shares[i] >= 0);
      assertEquals(
          shares[i], s.between(bounds[i], bounds[i + 1], FROM, TO), 1e-9, "one after the other");
    }
    assertEquals(sum, 1, 1e-9);
    // what is as likely at a point is as likely between two that are near (midpoint rule)
    double step = 1e-4;
    for (double y : new double[] {2.5, 3.4, 5}) {
      assertEquals(
          s.between(y - step / 2, y + step / 2, FROM, TO) / step, s.density(y, TO - FROM), 1e-5);
    }
  }

  @Test
  public void aSlipSeldomHappensTwice() {
    Spread s = new Spread(3, 0.4, 4.5, 0.02);
    assertEquals(s.again(1), s);
    assertEquals(s.again(2), new Spread(3, 0.4, 4.5, 0.02 * 0.02));
    Spread unknown = new Spread(3, 0.4, 0.35);
    assertEquals(unknown.again(3), unknown, "what is not known is no slip");
  }

  /// A volt that is expected with 10 mV, and 0.4 % of slips over ten volts: a reading at the mean
  /// is hardly a slip, one of a volt beside it is nothing else.
  @Test
  public void whatIsASlip() {
    Numbers n =
        new Numbers(
            0,
            10,
            v -> v,
            v -> v,
            v -> v + " V",
            new Spread(3.3, 0.01, 0.004),
            Map.of(1, new Spread(1, 0.01, 0.004), 2, new Spread(5, 1, 0.5)));
    double high = 0.996 / (0.01 * Math.sqrt(2 * Math.PI));
    assertEquals(n.slipped(new Answer.Number(3.3), 0), 0.0004 / (high + 0.0004), 1e-12);
    assertEquals(n.slipped(new Answer.Number(1), 0), 1, 1e-12);
    assertEquals(n.slipped(new Answer.Number(1), 1), 0.0004 / (high + 0.0004), 1e-12);
    assertEquals(n.slipped(new Answer.Number(1), 2), 0, 1e-12, "anything is as good there");
  }

  /// What was read once may be read again; not what was read twice, nor what was before a rework.
  @Test
  public void whatWasReadOnce() {
    Tracing book =
        new Tracing()
            .log(
                Tracing.volts("MID", 0.9),
                Tracing.ohms("3V3", "GND", 0.4),
                Tracing.ohms("3V3", "GND", 0.41),
                Tracing.symptom("D1", "lamp", "dark"));
    Views views =
        new Views(
            Tracing.board(),
            new java.util.ArrayList<>(
                List.of(
                    Case.HEALTHY,
                    new Case(
                        Suspects.of(Tracing.REVISION, Tracing.LADDER, Tracing.none())
                            .suspects()
                            .subList(0, 1)))));
    Again again = new Again(book.clues(), views);
    assertEquals(again.probes().stream().map(Probe::a).toList(), List.of("MID"));
    Probe mid = again.probes().getFirst();
    Outlook o = again.of(mid).orElseThrow();
    assertEquals(
        o.outcomes().stream().map(Outlook.Outcome::words).toList(),
        List.of("the same again", "something else"));
    assertEquals(o.table()[0][1], 0.98, 1e-3, "1.65 V are expected: it was a slip");
    book.log(new ell.core.entry.Entry.Action("R2", "resoldered", true, ""));
    assertTrue(new Again(book.clues(), views).probes().isEmpty());
    assertFalse(
        new Again(new Tracing().log(Tracing.volts("MID", 1.65)).clues(), views).of(mid).isPresent(),
        "as it should be");
    assertEquals(again.of(Probe.ohms("VIN", "GND")), Optional.empty());
  }
}
