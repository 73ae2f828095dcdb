package ell.core.power;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import ell.core.Boards;
import ell.core.board.Revision;
import ell.core.circuit.Circuit;
import ell.core.circuit.Regulator;
import ell.core.circuit.Run;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.power.ChargeWatch.Phase;
import ell.core.power.ChargeWatch.Sample;
import ell.core.quantity.Unit;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.testng.annotations.Test;

/// A cell that charges, against the charge of a cell in the circuit model: a source of 4.2 V with a
/// limit of current, which is what a charger is.
public final class ChargeWatchTest {
  /// 100 mAh, 3.0 to 4.2 V, 0.5 Ω, 50 mA, ends at 5 mA.
  private static final Charging CELL = new Charging(360, 3.0, 4.2, 0.5, 0.05, 0.005);

  private static List<Sample> charged(double share, double leak, double seconds) {
    Circuit c = new Circuit();
    c.supply("S", "in", "GND", 9, 1, 0.01);
    c.regulator("U1", "in", "cell", new Regulator(4.2, 0.3, 0.05, 1e-4, 0));
    c.cell("BT1", "cell", "GND", 3.0, 4.2, 0.5, 360, share);
    if (leak > 0) {
      c.resistor("R", "cell", "GND", leak);
    }
    Run run = c.run();
    List<Sample> all = new ArrayList<>();
    for (double t = 0; t <= seconds; t += 60) {
      run.on(60);
      assertTrue(run.settled());
      double amps = run.through("U1"); // what a meter in the charger's line shows
      all.add(new Sample(t, run.at("cell"), Optional.of(amps)));
    }
    return all;
  }

  /// The phases come in their order, the share in it is that of the model, and what is left agrees
  /// with when the model ends.
  @Test
  public void aHealthyChargeGoesThroughItsPhases() {
    List<Sample> all = charged(0.2, 0, 3 * 3600);
    List<Phase> phases = new ArrayList<>();
    double ended = 0;
    for (int n = 1; n <= all.size(); n++) {
      ChargeWatch w = ChargeWatch.of(all.subList(0, n), CELL);
      assertEquals(w.stop(), List.of(), "after " + n + " min");
      assertEquals(w.mind(), List.of(), "after " + n + " min");
      if (phases.isEmpty() || phases.getLast() != w.phase()) {
        phases.add(w.phase());
      }
      if (w.phase() == Phase.END) {
        ended = all.get(n - 1).seconds();
        break;
      }
    }
    assertEquals(phases, List.of(Phase.STEADY, Phase.FALLING, Phase.END));
    double expected = CELL.steady(0.2) + CELL.falling(0.2);
    assertEquals(ended, expected, 0.05 * expected);
    ChargeWatch early = ChargeWatch.of(all.subList(0, 31), CELL);
    // 31 minutes of 50 mA into 360 C
    assertEquals(early.share().orElseThrow(), 0.2 + 31 * 60 * 0.05 / 360, 0.01);
    assertEquals(early.left().orElseThrow(), expected - 31 * 60, 0.05 * expected);
  }

  @Test
  public void aCellThatLeaksIsNotChargedForEver() {
    // 100 Ω take 40 mA of the 50: it neither fills nor ends
    List<Sample> all = charged(0.5, 100, 5 * 3600);
    int stopped = -1;
    for (int n = 1; n <= all.size() && stopped < 0; n++) {
      if (!ChargeWatch.of(all.subList(0, n), CELL).stop().isEmpty()) {
        stopped = n;
      }
    }
    assertTrue(stopped > 0, "it is noticed");
    double whole = CELL.steady(0.5) + CELL.falling(0.5);
    assertTrue(stopped * 60 < 3 * whole, stopped + " min");
    assertTrue(ChargeWatch.of(all.subList(0, stopped), CELL).stop().getFirst().contains("leaks"));
  }

  private static ChargeWatch at(double volts, Double amps) {
    return ChargeWatch.of(List.of(new Sample(0, volts, Optional.ofNullable(amps))), CELL);
  }

  @Test
  public void whatHarmsACellStops() {
    assertTrue(at(4.31, 0.01).stop().getFirst().contains("bears 4.20 V"));
    assertTrue(at(2.1, 0.005).stop().getFirst().contains("far below"));
    assertTrue(at(-3.7, null).stop().getFirst().contains("turned"));
    assertTrue(at(3.7, 0.2).stop().getFirst().contains("is to take 50.0 mA"));
    assertEquals(at(4.22, 0.01).stop(), List.of(), "a charger in order");
    assertTrue(at(2.8, 0.05).mind().getFirst().contains("gentle"));
    assertEquals(at(2.8, 0.005).phase(), Phase.GENTLE);
    assertEquals(at(3.7, 0.0).phase(), Phase.NOT);
    assertEquals(at(4.2, 0.004).phase(), Phase.END);
    assertEquals(at(3.7, null).phase(), Phase.UNKNOWN, "volts alone do not tell");
    List<Sample> rises =
        List.of(new Sample(0, 3.7, Optional.empty()), new Sample(600, 3.75, Optional.empty()));
    assertEquals(ChargeWatch.of(rises, CELL).phase(), Phase.STEADY);
    assertTrue(at(3.7, null).share().isEmpty(), "nobody read the current");
    assertEquals(ChargeWatch.of(List.of(), CELL).phase(), Phase.UNKNOWN);
    List<Sample> fell =
        List.of(new Sample(0, 3.9, Optional.of(0.05)), new Sample(60, 3.8, Optional.of(0.05)));
    assertTrue(ChargeWatch.of(fell, CELL).mind().getFirst().contains("it fell from"));
  }

  @Test
  public void readingsComeFromTheBook() {
    List<Logged> book = new ArrayList<>();
    Object[][] said = {
      {"BT1", 3.6, Unit.VOLT},
      {"BT1", 0.05, Unit.AMPERE},
      {"3V3", 3.3, Unit.VOLT},
      {"VB", 0.05, Unit.AMPERE},
      {"VB", 3.7, Unit.VOLT},
      {"BT1", 3.8, Unit.VOLT}
    };
    for (Object[] s : said) {
      book.add(
          new Logged(
              book.size() + 1,
              OffsetDateTime.parse("2026-01-01T00:00:00Z").plusMinutes(10 * book.size()),
              "07",
              new Entry.Reading(
                  (String) s[0],
                  (double) s[1],
                  (Unit) s[2],
                  Optional.empty(),
                  Optional.empty(),
                  Optional.empty(),
                  "")));
    }
    List<Sample> all = ChargeWatch.samples(BoardState.of("07", book), List.of("BT1", "VB"));
    assertEquals(
        all,
        List.of(
            new Sample(0, 3.6, Optional.of(0.05)),
            new Sample(2400, 3.7, Optional.of(0.05)),
            new Sample(3000, 3.8, Optional.empty())));
    Entry off = Entry.Supply.off("first power is over");
    Logged last = book.getLast();
    book.add(new Logged(last.number() + 1, last.at(), "07", off));
    assertEquals(
        ChargeWatch.samples(BoardState.of("07", book), List.of("BT1", "VB")),
        List.of(),
        "what was read at first power is no charge");
  }

  @Test
  public void aCellIsFoundOrRefused() {
    Boards b = new Boards();
    b.part("BT1").value("LiPo 3V7").at(0, 0).holes("VB", "GND");
    b.part("BT2").value("coin cell").at(20, 0).holes("VC", "GND");
    b.part("R1").at(40, 0).pads("VB", "GND");
    Revision r = b.revision();
    Ladder l = LadderProposal.of(r);
    ChargedCell c = ChargedCell.of(r, l, "BT1", Map.of("charge", 360.0));
    assertEquals(c.tip(), "BT1.1");
    assertTrue(c.places().containsAll(List.of("BT1", "VB", "BT1.1")));
    assertEquals(c.expected().current(), 0.05, 1e-12);
    assertEquals(c.expected().end(), 0.005, 1e-12);
    assertEquals(c.assumptions().size(), 5);
    assertThrows(IllegalArgumentException.class, () -> ChargedCell.of(r, l, "BT1", Map.of()));
    IllegalArgumentException e =
        org.testng.Assert.expectThrows(
            IllegalArgumentException.class,
            () -> ChargedCell.of(r, l, "BT2", Map.of("charge", 360.0)));
    assertTrue(e.getMessage().contains("none that is charged"), e.getMessage());
    assertThrows(
        IllegalArgumentException.class, () -> ChargedCell.of(r, l, "R1", Map.of("charge", 1.0)));
    assertThrows(
        IllegalArgumentException.class, () -> ChargedCell.of(r, l, "NONE", Map.of("charge", 1.0)));
  }
}
