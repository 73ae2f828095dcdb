package ell.core.trace;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import ell.core.Boards;
import ell.core.board.Revision;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.power.Ladder;
import ell.core.power.LadderProposal;
import ell.core.power.LadderSaid;
import ell.core.quantity.Unit;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.testng.annotations.Test;

/// A short of one part among several on a rail: milliohms along the copper are proposed, and what
/// they say is taken in.
public class AlongTest {
  private static final Revision REVISION = revision();
  private static final Ladder LADDER =
      LadderProposal.of(
          REVISION,
          LadderSaid.read(
              List.of("source VIN=5V", "regulator U1=3.3V,300mA,dropout=0.3,in=VIN,out=3V3"),
              REVISION));

  private static Revision revision() {
    Boards b = new Boards();
    b.part("J1").at(0, 0).holes("VIN", "GND");
    b.part("U1")
        .value("REG")
        .words("3V3 linear")
        .shape("SOT-223")
        .at(8, 0)
        .pads("VIN", "GND", "3V3");
    for (int i = 1; i <= 8; i++) {
      b.part("C" + i).value("100n").at(8 + 9.0 * i, 0).pads("3V3", "GND");
    }
    return b.revision();
  }

  private static Board board() {
    return Tracing.board(REVISION, LADDER);
  }

  private static Tracer tracer() {
    return new Tracer(board(), Suspects.of(REVISION, LADDER, Tracing.none()));
  }

  private static Entry reading(String place, double v, Unit unit) {
    return new Entry.Reading(
        place, v, unit, Optional.empty(), Optional.empty(), Optional.empty(), "");
  }

  private static Entry ohms(String place, double v) {
    return reading(place, v, Unit.OHM);
  }

  /// What stands along an even track of 0.6 mΩ a millimetre when C`at` is shorted with 70 mΩ.
  private static Entry along(int c, int at) {
    return ohms("C" + c + ".1", 0.07 + 6e-4 * 9 * Math.abs(c - at));
  }

  private static final class Book {
    private final List<Logged> all = new ArrayList<>();

    Book(Entry... entries) {
      log(entries);
    }

    Book log(Entry... entries) {
      for (Entry e : entries) {
        all.add(new Logged(all.size() + 1, OffsetDateTime.parse("2026-11-29T09:00:00Z"), "01", e));
      }
      return this;
    }

    Clues clues() {
      return Clues.of(board(), BoardState.of("01", all));
    }

    Traced trace() {
      return tracer().trace(clues(), Map.of(), Map.of(), 400);
    }
  }

  private static Entry shorted() {
    return Tracing.ohms("3V3", "GND", 0.25);
  }

  private static Optional<Choice> along(Traced t) {
    return t.next().stream().filter(c -> c.probe().kind() == Probe.Kind.ALONG).findFirst();
  }

  @Test
  public void itIsProposedWhereSeveralMayBeShorted() {
    Traced t = new Book(shorted()).trace();
    Choice c = along(t).orElseThrow();
    assertEquals(c.probe().places().size(), 5);
    assertTrue(c.probe().places().stream().allMatch(p -> p.endsWith(".1") || p.equals("U1.3")));
    assertEquals(c.probe().b(), "GND");
    assertEquals(c.probe().line(), c.probe().places().getFirst() + " ? ohm");
    assertEquals(c.probe().kind().key(), "ohms");
    assertFalse(c.power());
    assertTrue(c.information() > 0.7, c.information() + " bit");
    assertEquals(c.minutes(), 0.6 + 5 * 0.2, 1e-12);
    assertTrue(c.why().contains("the least is nearest to the short"), c.why());
    // the two that are furthest apart are among them
    assertTrue(c.probe().places().contains("C8.1"), c.probe().places().toString());
    double all = c.outcomes().stream().mapToDouble(Choice.Result::chance).sum();
    assertEquals(all, 1, 0.02);
    // of a rail that is not shorted nobody reads along
    assertTrue(along(new Book(Tracing.ohms("3V3", "GND", 8e5)).trace()).isEmpty());
  }

  @Test
  public void readingsPointToThePart() {
    for (int at = 1; at <= 8; at++) {
      Book b = new Book(shorted());
      for (int c : new int[] {1, 3, 5, 8}) {
        b.log(along(c, at));
      }
      Traced t = b.trace();
      double own = at(t, at);
      double most = 0;
      for (int c = 1; c <= 8; c++) {
        most = Math.max(most, c == at ? 0 : at(t, c));
      }
      assertTrue(own > most, "C" + at + " " + own + ", another " + most);
      assertTrue(
          t.suspects().getFirst().why().stream().anyMatch(w -> w.startsWith("along 3V3")),
          t.suspects().getFirst().toString());
    }
  }

  /// All that is wrong at a capacitor.
  private static double at(Traced t, int c) {
    String part = "C" + c;
    return Tracing.chance(t, "short " + part)
        + Tracing.chance(t, "bridge " + part + ".1 " + part + ".2 0.3ohm");
  }

  /// The readings change the chances of two places by what they fit, and of nothing else: Bayes on
  /// paper.
  @Test
  public void bayesOnPaper() {
    Book b = new Book(shorted());
    b.log(along(1, 3));
    Traced before = b.trace();
    b.log(along(5, 3), along(8, 3));
    Traced after = b.trace();
    Answer.Along read =
        b.clues().all().stream()
            .filter(Clue.Seen.class::isInstance)
            .map(c -> ((Clue.Seen) c).answer())
            .filter(Answer.Along.class::isInstance)
            .map(Answer.Along.class::cast)
            .findFirst()
            .orElseThrow();
    assertEquals(read.readings().at().size(), 3);
    List<ell.core.beep.AlongCopper.Spot> spots = new ArrayList<>();
    for (int c : new int[] {3, 7}) {
      spots.add(new ell.core.beep.AlongCopper.Spot(8 + 9.0 * c, 0));
    }
    double[] fit = ell.core.beep.AlongCopper.fits(spots, read.readings());
    double odds = Tracing.chance(after, "short C3") / Tracing.chance(after, "short C7");
    double were = Tracing.chance(before, "short C3") / Tracing.chance(before, "short C7");
    assertEquals(were, 1, 1e-6, "alike before; one reading says nothing of where");
    // but for a reading that is taken for another joint's, with 1 %
    assertTrue(odds > 3 && odds < fit[0] / fit[1] * 1.01, odds + " of " + fit[0] / fit[1]);
  }

  @Test
  public void theOrderDoesNotMatterAndAStruckOneLeavesNoTrace() {
    List<Entry> all = new ArrayList<>(List.of(along(1, 4), along(3, 4), along(6, 4), along(8, 4)));
    Traced first = new Book(shorted()).log(all.toArray(Entry[]::new)).trace();
    Collections.reverse(all);
    Traced turned = new Book(shorted()).log(all.toArray(Entry[]::new)).trace();
    assertEquals(at(turned, 4), at(first, 4), 1e-9);
    Book struck = new Book(shorted(), along(1, 4));
    struck.log(ohms("C3.1", 0.019), new Entry.Strike(3, "a slip")).log(along(3, 4));
    struck.log(along(6, 4), along(8, 4));
    assertEquals(at(struck.trace(), 4), at(first, 4), 1e-9);
  }

  /// Once they were read, other joints are proposed, and in the end none.
  @Test
  public void whatWasReadIsNotReadAgain() {
    Book b = new Book(shorted());
    List<String> read = new ArrayList<>();
    for (int round = 0; round < 12; round++) {
      Optional<Choice> c = along(b.trace());
      if (c.isEmpty()) {
        break;
      }
      String place = c.get().probe().places().getFirst();
      assertFalse(read.contains(place), place + " again");
      read.add(place);
      // the same everywhere: nothing is learned, and it ends still
      b.log(ohms(place, 0.04));
    }
    assertTrue(read.size() >= 4 && read.size() <= 9, read.toString());
    assertTrue(along(b.trace()).isEmpty());
    // something was done to the board: it may be read once more
    b.log(new Entry.Action("C2", "changed", true, ""));
    b.log(Tracing.ohms("3V3", "GND", 0.05));
    assertTrue(along(b.trace()).isPresent());
  }

  /// A forced current, and the millivolts along the net: no reading of a powered board.
  @Test
  public void millivoltsOfAForcedCurrent() {
    Book b = new Book(shorted(), reading("U1.3", 0.1, Unit.AMPERE));
    for (int c : new int[] {1, 3, 5, 8}) {
      // beyond the short nothing falls
      double mm = 9.0 * Math.max(0, 4 - c);
      b.log(reading("C" + c + ".1", 0.1 * (0.07 + 6e-4 * mm), Unit.VOLT));
    }
    Traced t = b.trace();
    assertTrue(at(t, 4) > at(t, 1) && at(t, 4) > at(t, 2), at(t, 4) + " " + at(t, 2));
    assertTrue(
        b.clues().all().stream()
            .noneMatch(c -> c instanceof Clue.Seen s && s.probe().kind() == Probe.Kind.VOLTS));
    assertTrue(b.clues().unused().isEmpty(), b.clues().unused().toString());
    // with power on, volts are volts again
    b.log(new Entry.Supply(true, 5, 0.1, Optional.empty(), Optional.empty(), Optional.empty(), ""));
    b.log(reading("C1.1", 0.2, Unit.VOLT));
    assertTrue(
        b.clues().all().stream()
            .anyMatch(c -> c instanceof Clue.Seen s && s.probe().kind() == Probe.Kind.VOLTS));
  }

  /// Volts that no supply holds into what the rail has now: it died since. A rail that always was
  /// of few ohms did not.
  @Test
  public void aRailThatDiedIsAnotherBoard() {
    Entry on =
        new Entry.Supply(true, 5, 0.5, Optional.empty(), Optional.empty(), Optional.empty(), "");
    Book died = new Book(on, Tracing.volts("3V3", 3.3), Entry.Supply.off(""), shorted());
    assertTrue(
        died.clues().unused().stream().anyMatch(u -> u.contains("3V3 and GND were joined")),
        died.clues().unused().toString());
    assertTrue(Tracing.chance(died.trace(), "healthy") < 0.1);
    Book heavy =
        new Book(
            on, Tracing.volts("3V3", 3.3), Entry.Supply.off(""), Tracing.ohms("3V3", "GND", 15));
    assertTrue(heavy.clues().unused().isEmpty(), heavy.clues().unused().toString());
  }

  /// Another part, and it works; until the short is read once more.
  @Test
  public void whatAnotherPartMendedIsNamedUntilItIsBack() {
    Book b = new Book(shorted());
    for (int c : new int[] {1, 3, 5, 8}) {
      b.log(along(c, 3));
    }
    b.log(new Entry.Seen(List.of("C3")), Tracing.symptom("C3", "swapped", "fine"));
    b.log(new Entry.Action("C3", "replaced", true, "to try"));
    Finding f = b.trace().finding().orElseThrow();
    assertEquals(f.suspect().words(), "short C3");
    assertTrue(f.todo().getFirst().startsWith("C3 was changed"), f.todo().toString());
    assertFalse(f.again().isEmpty());
    b.log(shorted());
    assertTrue(
        b.trace().finding().filter(x -> x.todo().getFirst().startsWith("C3 was changed")).isEmpty(),
        "it is back");
  }

  /// A joint that hangs on another net than drawn is measured against that net.
  @Test
  public void aPinThatMayHangElsewhereIsMeasuredThere() {
    Traced t = new Book(Tracing.volts("3V3", 0.0)).trace();
    assertTrue(Tracing.chance(t, "tied U1.3 GND") > 0);
    assertTrue(
        t.next().stream()
            .anyMatch(c ->
                c.probe().equals(Probe.ohms("U1.1", "3V3"))
                    || c.probe().equals(Probe.ohms("U1.3", "VIN"))),
        t.next().stream().map(c -> c.probe().line()).toList().toString());
  }
}
