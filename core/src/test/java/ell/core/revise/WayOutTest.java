package ell.core.revise;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import ell.core.catalogue.Catalogue;
import ell.core.sheet.Worked;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.hipparchus.distribution.continuous.BetaDistribution;
import org.testng.annotations.Test;

/// What to do about boards: worked by hand, by counting every outcome, and by throwing dice.
public class WayOutTest {
  private static WayOut.Asked asked(double p, int boards) {
    return new WayOut.Asked(p, boards, 8, 15, 0.5, 30, 14, 20, 0.05, 100, 28, 0);
  }

  /// 12 boards, half an hour each at 30: 180 of work; 2.4 of them anew at 23: 55.2; 9.6 pass, one
  /// in twenty of them fails later at 100: 48; 0.75 days of work and a fifth of 14 days: 3.55 days
  /// at 20: 71. Together 354.2.
  @Test
  public void workedByHand() {
    WayOut w = WayOut.of(asked(0.8, 12));
    assertEquals(w.rework().cost(), 354.2, 1e-9);
    assertEquals(w.rework().days(), 3.55, 1e-9);
    assertEquals(w.respin().cost(), 12 * 23 + 14 * 20, 1e-9);
    assertEquals(w.pause().cost(), 28 * 20, 1e-9);
    assertEquals(w.choice().name(), "rework");
    // by hand: 843 at 0 (180 + 276 + 14.75 * 20 ... ) falls to where it costs 556
    double at0 = 180 + 12 * 23 + 20 * (0.75 + 14);
    double at1 = 180 + 12 * 0.05 * 100 + 20 * 0.75;
    assertEquals(w.turnsAt().orElseThrow(), (at0 - 556) / (at0 - at1), 1e-12);
  }

  /// Every outcome of five boards with its chance: which come out right, which of those fail later.
  @Test
  public void everyOutcomeCounted() {
    int n = 5;
    for (double p : new double[] {0, 0.3, 0.75, 1}) {
      WayOut.Asked a = asked(p, n);
      double cost = 0;
      double days = 0;
      for (int mask = 0; mask < 1 << n; mask++) {
        int right = Integer.bitCount(mask);
        double chance = Math.pow(p, right) * Math.pow(1 - p, n - right);
        double d = n * 0.5 / 8 + (double) (n - right) / n * 14;
        double escapes = 0;
        for (int e = 0; e <= right; e++) {
          escapes += e * binomial(right, e) * Math.pow(0.05, e) * Math.pow(0.95, right - e);
        }
        cost += chance * (n * 0.5 * 30 + (n - right) * 23.0 + escapes * 100 + d * 20);
        days += chance * d;
      }
      assertEquals(WayOut.of(a).rework().cost(), cost, 1e-9);
      assertEquals(WayOut.of(a).rework().days(), days, 1e-9);
    }
  }

  private static double binomial(int n, int k) {
    double b = 1;
    for (int i = 0; i < k; i++) {
      b = b * (n - i) / (i + 1);
    }
    return b;
  }

  @Test
  public void diceSayTheSame() {
    Random q = new Random(99);
    WayOut.Asked a = new WayOut.Asked(0.62, 20, 12, 30, 0.75, 45, 21, 35, 0.08, 300, 60, 4);
    int trials = 40_000;
    double cost = 0;
    double square = 0;
    for (int t = 0; t < trials; t++) {
      int anew = a.spent();
      int late = 0;
      for (int b = 0; b < a.boards() - a.spent(); b++) {
        if (q.nextDouble() >= a.successChance()) {
          anew++;
        } else if (q.nextDouble() < a.escapeChance()) {
          late++;
        }
      }
      double days = 16 * 0.75 / 8 + anew / 20.0 * 21;
      double c = 16 * 0.75 * 45 + anew * 42.0 + late * 300.0 + days * 35;
      cost += c / trials;
      square += c * c / trials;
    }
    double sigma = Math.sqrt((square - cost * cost) / trials);
    assertEquals(WayOut.of(a).rework().cost(), cost, 5 * sigma);
  }

  /// At the turn both ways cost the same, and beside it the choice is another.
  @Test
  public void theChoiceTurnsWhereItSays() {
    Random q = new Random(3);
    int turned = 0;
    for (int i = 0; i < 500; i++) {
      WayOut.Asked a =
          new WayOut.Asked(
              q.nextDouble(),
              1 + q.nextInt(50),
              q.nextInt(40),
              q.nextInt(80),
              q.nextDouble() * 3,
              q.nextInt(60),
              q.nextInt(60),
              q.nextInt(50),
              q.nextDouble() * 0.3,
              q.nextInt(400),
              q.nextInt(120),
              0);
      WayOut w = WayOut.of(a);
      Optional<Double> t = w.turnsAt();
      if (t.isEmpty()) {
        boolean always = WayOut.of(a.with(0)).choice().name().equals("rework");
        boolean ever = WayOut.of(a.with(1)).choice().name().equals("rework");
        assertEquals(always, ever, w.turns());
        continue;
      }
      turned++;
      assertEquals(WayOut.of(a.with(t.get())).rework().cost(), w.other().cost(), 1e-6);
      boolean below =
          WayOut.of(a.with(Math.max(0, t.get() - 1e-6))).choice().name().equals("rework");
      boolean above =
          WayOut.of(a.with(Math.min(1, t.get() + 1e-6))).choice().name().equals("rework");
      if (t.get() > 1e-5 && t.get() < 1 - 1e-5) {
        assertTrue(below != above, w.turns());
      }
    }
    assertTrue(turned > 100, "turned " + turned);
  }

  /// The share of the beta distribution on one side of the turn, summed in small steps.
  @Test
  public void howSureIsTheBetaOnItsSide() {
    WayOut w = WayOut.of(asked(0.8, 12));
    double turn = w.turnsAt().orElseThrow();
    double sum = 0;
    BetaDistribution b = new BetaDistribution(4.5, 1.5);
    int steps = 200_000;
    for (int i = 0; i < steps; i++) {
      double x = (i + 0.5) / steps;
      sum += x > turn ? b.density(x) / steps : 0;
    }
    assertEquals(w.sure(4, 5), sum, 1e-4);
  }

  @Test
  public void theSheetSaysWhatItTook() {
    Worked s =
        Catalogue.work(
            "revise.decide",
            Map.of(
                "successChance",
                "0.8",
                "boards",
                "12",
                "boardCost",
                "8",
                "partsCost",
                "15",
                "reworkHours",
                "0.5",
                "hourRate",
                "30",
                "leadDays",
                "14",
                "delayPerDay",
                "20",
                "escapeChance",
                "0.05",
                "escapeCost",
                "100"));
    assertEquals(s.number("reworkCost"), 354.2, 1e-9);
    assertEquals(s.number("waitDays"), 28, 1e-9, "the next revision, where nobody says when");
    assertTrue(s.assumptions().toString().contains("twice leadDays"));
    Worked never =
        Catalogue.work(
            "revise.decide",
            Map.of(
                "successChance",
                "0.1",
                "boards",
                "3",
                "boardCost",
                "0",
                "partsCost",
                "0",
                "reworkHours",
                "2",
                "hourRate",
                "30",
                "leadDays",
                "1"));
    assertEquals(never.results().get("turnsAt"), "never");
    assertFalse(never.results().get("choice").equals("rework"));
  }

  @Test
  public void whatNobodySaidIsGuessedAndTold() {
    RespinSaid none = RespinSaid.read("");
    RespinSaid.Book book = new RespinSaid.Book(4, 1, 0, 0, 12, Double.NaN, 9, 60, 35);
    RespinSaid.Question q = none.question(book).orElseThrow();
    assertEquals(q.asked().boards(), 5);
    assertEquals(q.asked().spent(), 1);
    assertEquals(q.asked().successChance(), 0.5, 1e-12);
    assertEquals(q.asked().leadDays(), 35, 1e-12, "the slowest part");
    assertEquals(q.guessed().size(), 10, q.guessed().toString());
    RespinSaid said = none.say("lead-days=14").say("success-chance=90%").say("board-cost = 7.5");
    RespinSaid.Question better = said.question(book).orElseThrow();
    assertEquals(better.asked().leadDays(), 14, 1e-12);
    assertEquals(better.asked().successChance(), 0.9, 1e-12);
    assertEquals(better.guessed().size(), 7);
    assertEquals(RespinSaid.read(said.text()).numbers(), said.numbers());
    assertTrue(said.say("lead-days=").of("lead-days").isEmpty());
    for (String bad :
        List.of("lead=3", "lead-days", "lead-days=soon", "success-chance=1.5", "boards=-1")) {
      expectThrows(IllegalArgumentException.class, () -> none.say(bad));
    }
    assertTrue(
        none.question(new RespinSaid.Book(0, 0, 3, 3, 0, 5, 0, 10, 0)).isEmpty(),
        "no board is left");
  }
}
