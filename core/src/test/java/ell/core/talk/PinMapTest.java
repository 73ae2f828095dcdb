package ell.core.talk;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import ell.core.talk.PinTable.Need;
import ell.core.talk.PinTable.Offer;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import org.ojalgo.optimisation.Expression;
import org.ojalgo.optimisation.ExpressionsBasedModel;
import org.ojalgo.optimisation.Variable;
import org.testng.annotations.Test;

/// Signals on pins, against every way there is of small cases, and against an integer programme of
/// another library for larger ones.
public class PinMapTest {
  private static final List<String> WORDS =
      List.of("in", "out", "pwm", "analog-in", "i2c-sda", "interrupt");

  private static Offer offer(String pin, String words) {
    return new Offer(pin, PinTable.words(words), "", "", "");
  }

  private static Need need(String signal, String words, String was) {
    return new Need(signal, PinTable.words(words), was, "");
  }

  /// What counts, the first most: met, kept, straps left free, shared pins left free.
  private static int[] counts(List<Need> needs, List<Offer> offers, int[] at) {
    int[] c = new int[4];
    for (int i = 0; i < at.length; i++) {
      if (at[i] >= 0) {
        Offer o = offers.get(at[i]);
        c[0]++;
        c[1] += o.pin().equals(needs.get(i).was()) ? 1 : 0;
        c[2] -= o.strap().isEmpty() ? 0 : 1;
        c[3] -= o.shared().isEmpty() ? 0 : 1;
      }
    }
    return c;
  }

  private static void every(
      List<Need> needs, List<Offer> offers, int i, int[] at, Set<Integer> taken, int[][] best) {
    if (i == needs.size()) {
      int[] c = counts(needs, offers, at);
      if (best[0] == null || Arrays.compare(c, best[0]) > 0) {
        best[0] = c;
      }
      return;
    }
    at[i] = -1;
    every(needs, offers, i + 1, at, taken, best);
    for (int j = 0; j < offers.size(); j++) {
      if (offers.get(j).meets(needs.get(i)) && taken.add(j)) {
        at[i] = j;
        every(needs, offers, i + 1, at, taken, best);
        taken.remove(j);
      }
    }
    at[i] = -1;
  }

  private static List<Offer> offers(Random r, int n) {
    List<Offer> all = new ArrayList<>();
    for (int j = 0; j < n; j++) {
      Set<String> words = new HashSet<>();
      WORDS.stream().filter(_ -> r.nextInt(3) > 0).forEach(words::add);
      all.add(
          new Offer(
              "P" + j, words, r.nextInt(4) == 0 ? "high" : "", r.nextInt(5) == 0 ? "usb" : "", ""));
    }
    return all;
  }

  private static List<Need> needs(Random r, int n, int pins) {
    List<Need> all = new ArrayList<>();
    for (int i = 0; i < n; i++) {
      Set<String> words = new HashSet<>(Set.of(WORDS.get(r.nextInt(WORDS.size()))));
      if (r.nextBoolean()) {
        words.add(WORDS.get(r.nextInt(WORDS.size())));
      }
      all.add(new Need("S" + i, words, r.nextInt(3) > 0 ? "P" + r.nextInt(pins + 1) : "", ""));
    }
    return all;
  }

  @Test
  public void noWayOfAThousandSmallCasesIsBetter() {
    Random r = new Random(13);
    for (int k = 0; k < 1000; k++) {
      int pins = 1 + r.nextInt(6);
      List<Offer> offers = offers(r, pins);
      List<Need> needs = needs(r, 1 + r.nextInt(5), pins);
      int[][] best = new int[1][];
      int[] at = new int[needs.size()];
      every(needs, offers, 0, at, new HashSet<>(), best);
      int[] found = counts(needs, offers, PinMap.assign(needs, offers));
      assertEquals(found, best[0], "case " + k);
    }
  }

  /// ojAlgo's integer programme over the same aims, weighted one above the other.
  @Test
  public void anIntegerProgrammeFindsNothingBetterForLargeBoards() {
    Random r = new Random(31);
    for (int k = 0; k < 8; k++) {
      List<Offer> offers = offers(r, 20);
      List<Need> needs = needs(r, 18, 20);
      int[] c = counts(needs, offers, PinMap.assign(needs, offers));
      double found = 1e6 * c[0] + 1e4 * c[1] + 1e2 * c[2] + c[3];
      ExpressionsBasedModel m = new ExpressionsBasedModel();
      Variable[][] x = new Variable[needs.size()][offers.size()];
      for (int i = 0; i < needs.size(); i++) {
        Expression one = m.newExpression("signal " + i).upper(1);
        for (int j = 0; j < offers.size(); j++) {
          Offer o = offers.get(j);
          if (o.meets(needs.get(i))) {
            double w =
                1e6
                    + (o.pin().equals(needs.get(i).was()) ? 1e4 : 0)
                    - (o.strap().isEmpty() ? 0 : 1e2)
                    - (o.shared().isEmpty() ? 0 : 1);
            x[i][j] = m.newVariable("x" + i + "_" + j).binary().weight(w);
            one.set(x[i][j], 1);
          }
        }
      }
      for (int j = 0; j < offers.size(); j++) {
        Expression one = m.newExpression("pin " + j).upper(1);
        for (int i = 0; i < needs.size(); i++) {
          if (x[i][j] != null) {
            one.set(x[i][j], 1);
          }
        }
      }
      assertEquals(found, m.maximise().getValue(), 0.5, "case " + k);
    }
  }

  @Test
  public void whatCannotBeMetIsSaidWithTheSignalsThatWantTheSamePins() {
    PinMap m =
        PinMap.of(
            List.of(
                need("A", "analog-in", "A0"),
                need("B", "analog-in", "A1"),
                need("LED", "out", "D1")),
            List.of(offer("A0", "in analog-in"), offer("D1", "in out"), offer("D2", "in out")));
    assertEquals(m.assignments().size(), 2);
    assertEquals(m.kept(), 2);
    assertEquals(m.unmet().getFirst().signal(), "B");
    assertTrue(m.unmet().getFirst().why().contains("A"), m.unmet().toString());
    assertTrue(m.unmet().getFirst().why().contains("1 pin: A0"), m.unmet().toString());
    assertTrue(m.conflicts().getFirst().why().contains("no pin A1"), m.conflicts().toString());
    assertFalse(m.ways().isEmpty());
    for (int i = 1; i < m.ways().size(); i++) {
      assertTrue(m.ways().get(i).cost() >= m.ways().get(i - 1).cost());
    }
    assertFalse(m.works());
  }

  @Test
  public void aPinThatNobodyOffersIsNamed() {
    PinMap m = PinMap.of(List.of(need("X", "dac out", "")), List.of(offer("D1", "in out")));
    assertTrue(m.unmet().getFirst().why().contains("no pin offers dac"), m.unmet().toString());
    PinMap both =
        PinMap.of(
            List.of(need("X", "pwm analog-in", "")),
            List.of(offer("D1", "pwm out"), offer("A0", "analog-in")));
    assertTrue(both.unmet().getFirst().why().contains("at once"), both.unmet().toString());
  }

  /// 680 ohm to ground against a pull of 45 kohm up leaves 680 / 45680 of the supply: 0.015. A pull
  /// of 10 kohm up leaves with 10 kohm down one half, which is neither level.
  @Test
  public void straps() {
    Offer high = new Offer("D5", PinTable.words("out"), "high", "", "");
    PinMap.Strapped lamp =
        StrapPull.of(high, new Need("LAMP", PinTable.words("out"), "", "680 GND"));
    assertTrue(lamp.wrong());
    assertTrue(lamp.why().contains("0.015"), lamp.why());
    assertFalse(StrapPull.of(high, new Need("LAMP", PinTable.words("out"), "", "680 3V3")).wrong());
    PinMap.Strapped half =
        StrapPull.of(
            new Offer("D5", PinTable.words("out"), "low", "", "10k low"),
            new Need("X", PinTable.words("out"), "", "10k high"));
    assertTrue(half.wrong());
    assertTrue(half.why().contains("neither"), half.why());
    assertFalse(
        StrapPull.of(high, need("X", "out", "")).wrong(), "what is not known accuses nobody");
    for (String bad : List.of("much", "10k", "GND", "-5 GND")) {
      expectThrows(IllegalArgumentException.class, () -> StrapPull.Load.parse(bad));
    }
  }

  @Test
  public void changesAreTextToCopy() {
    PinMap m =
        PinMap.of(
            List.of(need("A", "out", "D9"), need("B", "out", ""), need("C", "out", "D1")),
            List.of(offer("D1", "out"), offer("D2", "out"), offer("D3", "out")));
    assertEquals(m.changes().size(), 2);
    assertTrue(m.changes().getFirst().startsWith("A: D9 -> D"), m.changes().toString());
    assertTrue(m.changes().get(1).matches("B: D\\d"), m.changes().toString());
    assertEquals(m.kept(), 1);
  }

  @Test
  public void theWasOfAnotherTableCounts() {
    List<Need> all =
        PinTable.was(List.of(need("A", "out", "D1"), need("B", "out", "D2")), Map.of("A", "D7"));
    assertEquals(all.getFirst().was(), "D7");
    assertEquals(all.get(1).was(), "D2");
  }

  @Test
  public void nonsenseIsRefused() {
    expectThrows(IllegalArgumentException.class, () -> PinMap.of(List.of(), List.of()));
    expectThrows(
        IllegalArgumentException.class,
        () ->
            PinMap.of(
                List.of(need("A", "out", ""), need("A", "in", "")), List.of(offer("D1", "out"))));
    expectThrows(IllegalArgumentException.class, () -> PinTable.level("sometimes"));
  }
}
