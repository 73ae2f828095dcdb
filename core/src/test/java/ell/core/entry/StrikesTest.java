package ell.core.entry;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import ell.core.heat.HeatFacts;
import ell.core.kit.KitFacts;
import ell.core.look.LookFacts;
import ell.core.order.OrderFacts;
import ell.core.power.PowerFacts;
import ell.core.quantity.Limits;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Books written at random, with strikes and strikes of strikes: what the fold says of a board is
/// what it would say of a book in which the struck lines had never been written.
public class StrikesTest {
  private static final OffsetDateTime AT = OffsetDateTime.parse("2026-11-25T10:00:00Z");
  private static final String[] PLACES = {"3V3", "5V0", "VIN", "U4", "R3"};

  @DataProvider
  Object[][] seeds() {
    Object[][] out = new Object[60][];
    for (int i = 0; i < out.length; i++) {
      out[i] = new Object[] {i};
    }
    return out;
  }

  private static Entry any(Random random, long number) {
    String place = PLACES[random.nextInt(PLACES.length)];
    return switch (random.nextInt(number > 2 ? 12 : 9)) {
      case 0 -> new Entry.Note("a note");
      case 1 ->
          new Entry.StepDone(
              1 + random.nextInt(20),
              "place",
              List.of("R" + random.nextInt(9)),
              random.nextInt(60));
      case 2 -> new Entry.Gate("rails", random.nextBoolean(), "");
      case 3 -> new Entry.Defect(place, "bridge", "");
      case 4 -> new Entry.Action(place, "reflow", random.nextBoolean(), "");
      case 5 -> new Entry.Override("power", "to see");
      case 6 -> new Entry.Fitted("R" + random.nextInt(9), "X" + random.nextInt(3), "");
      case 7 -> new Entry.Lost("R" + random.nextInt(9), 1 + random.nextInt(3), "");
      case 8 ->
          new Entry.StepDone(
              1 + random.nextInt(20),
              random.nextBoolean() ? "reflow" : "print paste",
              List.of(),
              9,
              "first");
      default -> new Entry.Strike(1 + random.nextLong(number - 1), "typo");
    };
  }

  private static List<Logged> book(Random random, int length) {
    List<Logged> out = new ArrayList<>();
    for (long n = 1; n <= length; n++) {
      out.add(new Logged(n, AT, "01", any(random, n)));
    }
    return out;
  }

  /// An entry counts unless a later strike of it counts; asked again for every entry, from the
  /// definition.
  private static boolean counts(List<Logged> book, long number) {
    return book.stream()
        .noneMatch(l ->
            l.entry() instanceof Entry.Strike s
                && s.target() == number
                && l.number() > number
                && counts(book, l.number()));
  }

  @Test(dataProvider = "seeds")
  public void struckIsAsIfNeverWritten(int seed) {
    List<Logged> book = book(new Random(seed), 4 + seed);
    Set<Long> gone = new HashSet<>();
    List<Logged> rest = new ArrayList<>();
    for (Logged l : book) {
      if (!counts(book, l.number())) {
        gone.add(l.number());
      } else if (!(l.entry() instanceof Entry.Strike)) {
        rest.add(l);
      }
    }
    BoardState is = BoardState.of("01", book);
    BoardState would = BoardState.of("01", rest);
    assertEquals(is.struck(), gone);
    assertEquals(is.entries(), book.size(), "nothing is erased");
    assertEquals(OrderFacts.of(is).placed(), OrderFacts.of(would).placed());
    assertEquals(OrderFacts.of(is).stepsDone(), OrderFacts.of(would).stepsDone());
    assertEquals(OrderFacts.of(is).actsDone(), OrderFacts.of(would).actsDone());
    assertEquals(KitFacts.of(is).fitted(), KitFacts.of(would).fitted());
    assertEquals(KitFacts.of(is).lost(), KitFacts.of(would).lost());
    assertEquals(OrderFacts.of(is).gates(), OrderFacts.of(would).gates());
    assertEquals(is.findings(), would.findings());
    assertEquals(HeatFacts.of(is).heatCycles(), HeatFacts.of(would).heatCycles());
    assertEquals(is.overrides(), would.overrides());
    assertEquals(LookFacts.of(is).rework(), LookFacts.of(would).rework());
  }

  /// Striking the last strike brings back what was before it.
  @Test(dataProvider = "seeds")
  public void aStrikeIsTakenBackByAStrike(int seed) {
    Random random = new Random(900 + seed);
    List<Logged> book = book(random, 5 + seed / 2);
    long size = book.size();
    BoardState before = BoardState.of("01", book);
    List<Long> standing =
        book.stream().map(Logged::number).filter(n -> !before.struck().contains(n)).toList();
    if (standing.isEmpty()) {
      return;
    }
    long target = standing.get(random.nextInt(standing.size()));
    book.add(new Logged(size + 1, AT, "01", new Entry.Strike(target, "wrong board")));
    assertTrue(BoardState.of("01", book).struck().contains(target));
    book.add(new Logged(size + 2, AT, "01", new Entry.Strike(size + 1, "it was right")));
    BoardState after = BoardState.of("01", book);
    assertEquals(OrderFacts.of(after).placed(), OrderFacts.of(before).placed());
    assertEquals(after.findings(), before.findings());
    assertEquals(OrderFacts.of(after).gates(), OrderFacts.of(before).gates());
    assertEquals(HeatFacts.of(after).heatCycles(), HeatFacts.of(before).heatCycles());
  }

  private static Entry volts(String place, double volts) {
    Verdict v = volts < 3.2 || volts > 3.4 ? Verdict.OUT : Verdict.WITHIN;
    return new Entry.Reading(
        place,
        volts,
        Unit.VOLT,
        Optional.of(new Limits(3.2, 3.4)),
        Optional.empty(),
        Optional.of(v),
        "");
  }

  /// The latest reading at a place stands, whatever was measured elsewhere.
  @Test(dataProvider = "seeds")
  public void theLatestReadingStands(int seed) {
    Random random = new Random(seed);
    List<Logged> book = new ArrayList<>();
    Map<String, Double> latest = new HashMap<>();
    for (long n = 1; n <= 30; n++) {
      String place = PLACES[random.nextInt(3)];
      double volts = random.nextInt(5000) / 1000.0;
      latest.put(place, volts);
      book.add(new Logged(n, AT, "01", volts(place, volts)));
    }
    BoardState s = BoardState.of("01", book);
    assertEquals(PowerFacts.of(s).readings().keySet(), latest.keySet());
    latest.forEach((place, volts) -> {
      assertEquals(PowerFacts.of(s).reading(place).orElseThrow().value(), volts, 0.0);
      boolean open = s.findings().stream().anyMatch(f -> f.place().equals(place));
      assertEquals(open, volts < 3.2 || volts > 3.4, place + " " + volts);
    });
  }
}
