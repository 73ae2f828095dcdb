package ell.core.power;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.power.Ladder.Kind;
import ell.core.power.Ladder.Load;
import ell.core.power.Ladder.RailSpec;
import ell.core.power.Ladder.Source;
import ell.core.power.Ladder.Step;
import ell.core.quantity.Limits;
import ell.core.quantity.Unit;
import java.time.OffsetDateTime;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// What does not add up in a ladder, how long a cell lasts, and what readings point to: small
/// ladders worked by hand. Rules are common practice, no source, but for the budgets of USB 2.0.
public final class FindingsAndLifeTest {
  private static RailSpec rail(String net, double volts) {
    return new RailSpec(net, volts, 0.95 * volts, 1.05 * volts, 0, net, false);
  }

  private static Ladder ladder(
      String in,
      double low,
      double limit,
      double regulator,
      double fuse,
      double amps,
      boolean guess) {
    return new Ladder(
        List.of(rail(in, 5), rail("VF", 5), rail("3V3", 3.3)),
        List.of(new Source(in, 5, low, 5.25, limit)),
        List.of(
            new Step("F1", Kind.PASS, in, "VF", 5, 0, 0, 0, 0, fuse, 0.1),
            new Step("U1", Kind.LINEAR, "VF", "3V3", 3.3, 1.1, 0, 1e-3, 90, regulator, 0)),
        List.of(new Load("U2", "3V3", Map.of("boot", amps, "idle", amps / 10), guess, "")),
        "GND",
        List.of());
  }

  private static List<LadderFinding> findings(Ladder l, String state) {
    return LadderState.of(l, state).findings(l);
  }

  @DataProvider
  Object[][] ladders() {
    return new Object[][] {
      {ladder("VIN", 4.9, 0, 1, 1, 0.05, false), "boot", ""},
      {ladder("VIN", 4.2, 0, 1, 1, 0.05, false), "boot", "U1 lacks 200 mV at its lowest input"},
      {
        ladder("VIN", 4.9, 0, 0.1, 1, 0.3, false), "boot", "U1 is asked for 300 mA and gives 100 mA"
      },
      {
        ladder("VIN", 4.9, 0, 1, 0.2, 0.16, false), "boot", "F1 carries 161 mA of 200 mA: more than"
      },
      {ladder("VIN", 4.9, 0, 1, 0.1, 0.16, false), "boot", "F1 carries 161 mA of 100 mA: too much"},
      {
        ladder("VIN", 4.9, 0.1, 1, 1, 0.16, false),
        "boot",
        "VIN is asked for 161 mA and bears 100 mA"
      },
      {ladder("VBUS", 4.9, 0, 1, 1, 0.16, false), "boot", "100 mA before it has configured"},
      {ladder("VBUS", 4.9, 0, 1, 1, 0.16, false), "idle", ""},
      // 1.7 V at 0.7 A make 1.19 W and 90 K/W: 133 °C
      {ladder("VIN", 4.9, 0, 1, 2, 0.7, false), "boot", "U1 comes to 133 °C inside"},
    };
  }

  @Test(dataProvider = "ladders")
  public void whatDoesNotAddUpIsSaid(Ladder l, String state, String words) {
    List<LadderFinding> found = findings(l, state);
    if (words.isEmpty()) {
      assertEquals(found, List.of());
    } else {
      assertTrue(found.stream().anyMatch(f -> f.text().contains(words)), found.toString());
    }
  }

  @Test
  public void whatRestsOnAGuessIsAQuestion() {
    assertTrue(findings(ladder("VIN", 4.9, 0.1, 1, 1, 0.16, true), "boot").getFirst().asks());
    assertTrue(
        !findings(ladder("VIN", 4.2, 0, 1, 1, 0.05, true), "boot").getFirst().asks(),
        "volts were said");
  }

  /// By hand: 51 mA for 0.1 and 6 mA for 0.9 of the time make 10.5 mA; 100 mAh last 9.52 h.
  @Test
  public void aCellLasts() {
    Ladder l = ladder("VIN", 4.9, 0, 1, 1, 0.05, false);
    Map<String, Double> duty = new LinkedHashMap<>(Map.of("boot", 0.1, "idle", 0.9));
    BatteryLife b = BatteryLife.of(l, "VIN", 360, duty);
    assertEquals(b.mean(), 0.0105, 1e-12);
    assertEquals(b.hours(), 100 / 10.5, 1e-9);
    assertEquals(b.greatest().state(), "idle");
    assertEquals(b.guessed(), List.of());
    assertTrue(
        expectThrows(
                IllegalArgumentException.class,
                () -> BatteryLife.of(l, "3V3", 360, Map.of("idle", 1.0)))
            .getMessage()
            .contains("sources are VIN"));
    expectThrows(
        IllegalArgumentException.class, () -> BatteryLife.of(l, "VIN", 0, Map.of("idle", 1.0)));
    expectThrows(
        IllegalArgumentException.class, () -> BatteryLife.of(l, "VIN", 9, Map.of("idle", 0.5)));
  }

  private static Logged logged(long n, Entry e) {
    return new Logged(n, OffsetDateTime.parse("2026-01-01T00:00:00Z"), "07", e);
  }

  private static PowerFacts facts(double amps, double... volts) {
    Map<String, Logged> all = new LinkedHashMap<>();
    String[] nets = {"VIN", "VF", "3V3"};
    for (int i = 0; i < volts.length; i++) {
      all.put(
          nets[i],
          logged(
              i + 1,
              new Entry.Reading(
                  nets[i],
                  volts[i],
                  Unit.VOLT,
                  Optional.empty(),
                  Optional.of(0.01),
                  Optional.empty(),
                  "")));
    }
    Limits band = new Limits(0.04, 0.06);
    return new PowerFacts(
        all,
        Optional.of(
            new Entry.Supply(
                true,
                5,
                0.1,
                Optional.of(amps),
                Optional.of(band),
                Optional.of(band.judge(amps, 0)),
                "")));
  }

  @DataProvider
  Object[][] boards() {
    return new Object[][] {
      {facts(0.05, 5, 5, 3.3), ""},
      {facts(0.01, 5, 5, 0), "U1 gives nothing: its joints, its enable; less current"},
      {facts(0.09, 5, 5, 0.1), "look for a short on 3V3"},
      {facts(0.05, 5, 5, 4.95), "U1 passes its input on: its ground joint"},
      {facts(0.05, 5, 5, 3.7), "what sets the output of U1"},
      {facts(0.05, 5, 0, 0), "F1 does not pass it on: its joints"},
      {facts(0.09, 5, 5, 2.5), "it is pulled down"},
      {facts(0.01, 0), "VIN itself is out"},
      {facts(0.09, 5, 5, 3.3), "feel which part is warm"},
      {facts(0.01, 5, 5, 3.3), "a chip that does not run"},
    };
  }

  @Test(dataProvider = "boards")
  public void readingsPointSomewhere(PowerFacts facts, String words) {
    List<String> hints = PowerHints.of(ladder("VIN", 4.9, 0, 1, 1, 0.05, false), facts);
    if (words.isEmpty()) {
      assertEquals(hints, List.of());
    } else {
      assertTrue(hints.toString().contains(words), hints.toString());
    }
  }
}
