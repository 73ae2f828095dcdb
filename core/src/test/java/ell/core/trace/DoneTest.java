package ell.core.trace;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import ell.core.Boards;
import ell.core.board.Revision;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.power.Fault;
import ell.core.power.Ladder;
import ell.core.power.LadderProposal;
import ell.core.power.LadderSaid;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// A board with a converter and a chip whose ground pin hangs on its input: what the list of faults
/// must hold, what was done to it and what that mends, and when nothing more can be told.
public class DoneTest {
  private static final Revision REVISION = revision();
  private static final Ladder LADDER =
      LadderProposal.of(
          REVISION,
          LadderSaid.read(
              List.of(
                  "source VIN=12V",
                  "regulator U1=5V,1A,dropout=0.3,in=VIN,out=5V,efficiency=0.87",
                  "regulator U2=3.3V,300mA,dropout=0.3,in=5V,out=3V3",
                  "load U3=20mA"),
              REVISION));

  private final List<Logged> book = new ArrayList<>();

  private static Revision revision() {
    Boards b = new Boards();
    b.part("J1").at(0, 0).holes("VIN", "GND");
    b.part("C1").value("10u").at(6, 0).pads("VIN", "GND");
    b.part("U1").value("CONV").shape("SOT-223").at(12, 0).pads("VIN", "GND", "SW");
    b.part("L1").value("10u").at(18, 0).pads("SW", "5V");
    b.part("C2").value("10u").at(24, 0).pads("5V", "GND");
    b.part("U2").value("REG").shape("SOT-223").at(30, 0).pads("5V", "GND", "3V3");
    b.part("C3").value("10u").at(36, 0).pads("3V3", "GND");
    b.part("U3").value("CHIP").shape("SOIC-8").at(42, 0).pads("3V3", "GND", "IN");
    b.part("R1").value("10k").at(48, 0).pads("IN", "GND");
    return b.revision();
  }

  private static Board board() {
    return Tracing.board(REVISION, LADDER);
  }

  private static List<String> suspects() {
    return Suspects.of(REVISION, LADDER, Tracing.none()).suspects().stream()
        .map(Suspect::words)
        .toList();
  }

  private DoneTest book(Entry... entries) {
    DoneTest one = new DoneTest();
    for (Entry e : entries) {
      one.book.add(
          new Logged(one.book.size() + 1, OffsetDateTime.parse("2026-11-29T09:00:00Z"), "01", e));
    }
    return one;
  }

  private Traced trace() {
    Tracer t = new Tracer(board(), Suspects.of(REVISION, LADDER, Tracing.none()));
    return t.trace(
        Clues.of(board(), BoardState.of("01", book)), Map.of(), Map.of(), Integer.MAX_VALUE);
  }

  private static Entry.Action done(String place, String action) {
    return new Entry.Action(place, action, true, "");
  }

  /// A converter's pin and its coil carry what the board draws, though their net is no rail.
  @Test
  public void whatCarriesTheCurrentMayLeadBadly() {
    List<String> all = suspects();
    assertTrue(all.contains("resistive U1.3 20ohm"), "the pin that switches");
    assertTrue(all.contains("resistive L1.1 20ohm"));
    assertTrue(all.contains("resistive L1.2 20ohm"));
    assertFalse(all.contains("resistive U3.3 20ohm"), "a signal");
    assertTrue(all.contains("bridge C3.1 C3.2 10ohm"), "on a rail how many ohms matters");
    assertFalse(all.contains("bridge R1.1 R1.2 10ohm"));
  }

  /// A pin that everything hangs on may be drawn to any rail, seldom to one that its part has
  /// nothing to do with.
  @Test
  public void aPinMayBeDrawnToARailOfOthers() {
    List<Suspect> all = Suspects.of(REVISION, LADDER, Tracing.none()).suspects();
    double own = prior(all, "tied U3.2 3V3");
    double other = prior(all, "tied U3.2 VIN");
    assertEquals(other, own * 0.3 / 2, 1e-12, "two rails that it is not on");
    assertEquals(prior(all, "tied U3.2 5V"), other, 1e-15);
    assertTrue(all.stream().noneMatch(s -> s.words().equals("tied U3.3 VIN")), "a signal");
    // twelve volts at a ground pin: it is on the input, whatever its part has to do with it
    Traced t = book(Tracing.amps("VIN", 0.0005), Tracing.volts("U3.2", 11.97)).trace();
    assertEquals(t.suspects().getFirst().fault(), "tied U3.2 VIN");
    assertTrue(t.suspects().getFirst().chance() > 0.8, t.suspects().getFirst().toString());
  }

  private static double prior(List<Suspect> all, String words) {
    return all.stream()
        .filter(s -> s.words().equals(words))
        .mapToDouble(Suspect::prior)
        .findFirst()
        .orElseThrow();
  }

  @DataProvider
  Object[][] actions() {
    Fault joint = new Fault.Open("U3", "2");
    Fault design = new Fault.Loose("U3", "2");
    Fault bridge = new Fault.Bridge("U3.1", "U3.2", 0.3);
    Fault dead = new Fault.Dead("U3");
    return new Object[][] {
      {"programmed", dead, false},
      {"resoldered", joint, true},
      {"resoldered", design, false},
      {"replaced", dead, true},
      {"replaced", bridge, true},
      {"replaced", design, false},
      {"cleaned", bridge, true},
      {"cleaned", dead, false},
      {"wired", design, true},
      {"cut", design, true},
      {"bodged", design, true},
    };
  }

  /// No iron mends what is drawn wrongly; common practice, no source.
  @Test(dataProvider = "actions")
  public void whatIsDoneMendsWhatItCan(String action, Fault fault, boolean mends) {
    Suspect s =
        Suspects.of(REVISION, LADDER, Tracing.none()).suspects().stream()
            .filter(x -> x.fault().equals(fault))
            .findFirst()
            .orElseThrow();
    assertEquals(new Clue.Worked(1, "U3", action).mends(s), mends);
    assertFalse(new Clue.Worked(1, "U2", action).mends(s), "another part");
  }

  /// A part was changed and it is the same: what was measured before still holds, and nothing was
  /// mended. The book has the change as what was done, too.
  @Test
  public void aChangeThatDidNotHelpMendsNothing() {
    Entry[] before = {
      Tracing.volts("3V3", 0.02), Tracing.volts("5V", 5.02), Tracing.volts("3V3", 0.02)
    };
    Entry same = Tracing.symptom("U2", "swapped", "same");
    double healthy = healthy(before);
    assertTrue(healthy < 0.01, "" + healthy);
    assertTrue(
        healthy(before, same, done("U2", "replaced")) < 2 * healthy + 0.01, "it did not help");
    assertTrue(healthy(before, done("U2", "replaced")) > 0.3, "nobody says that it did not");
    assertEquals(healthy(before, done("U2", "checked")), healthy, 1e-9, "who looks mends nothing");
    assertFalse(
        Clues.of(board(), BoardState.of("01", book(before[0], done("U2", "checked")).book))
            .all()
            .stream()
            .anyMatch(Clue.Worked.class::isInstance));
    Entry elsewhere = Tracing.symptom("C3", "swapped", "same");
    assertTrue(healthy(before, elsewhere, done("U2", "replaced")) > 0.3, "of another part");
  }

  private double healthy(Entry[] before, Entry... then) {
    List<Entry> all = new ArrayList<>(List.of(before));
    all.addAll(List.of(then));
    return chance(book(all.toArray(Entry[]::new)).trace(), "healthy");
  }

  private static double chance(Traced t, String fault) {
    return Tracing.chance(t, fault);
  }

  /// What shows nothing is as likely as before, whatever else is wrong: it is in no pair.
  @Test
  public void pairsAreOfWhatShows() {
    Traced t =
        book(
                Tracing.volts("3V3", 0.4),
                Tracing.volts("5V", 2.1),
                Tracing.amps("VIN", 0.011),
                Tracing.volts("IN", 3.3))
            .trace();
    List<String> pairs =
        t.suspects().stream().filter(r -> r.suspects().size() == 2).map(r -> r.fault()).toList();
    assertFalse(pairs.isEmpty(), "what was seen is strange: " + t.first());
    assertTrue(pairs.stream().noneMatch(p -> p.contains("setting scope")), pairs.toString());
  }

  /// What pairs would show is kept from one reading to the next, and changes nothing of what comes
  /// out.
  @Test
  public void whatIsKeptOfPairsChangesNothing() {
    Suspects.Listed listed = Suspects.of(REVISION, LADDER, Tracing.none());
    Tracer kept = new Tracer(board(), listed);
    List<Entry> all =
        List.of(
            Tracing.volts("3V3", 0.4),
            Tracing.amps("VIN", 0.011),
            Tracing.volts("IN", 3.3),
            Tracing.volts("5V", 2.1),
            Tracing.ohms("R1.1", "R1.2", 3300));
    boolean pairs = false;
    for (int n = 1; n <= all.size(); n++) {
      Clues clues =
          Clues.of(
              board(), BoardState.of("01", book(all.subList(0, n).toArray(Entry[]::new)).book));
      Traced a = kept.trace(clues, Map.of(), Map.of(), 5);
      Traced b = new Tracer(board(), listed).trace(clues, Map.of(), Map.of(), 5);
      assertEquals(a.suspects().size(), b.suspects().size(), "after " + n);
      for (Traced.Ranked r : a.suspects().subList(0, 20)) {
        assertEquals(r.chance(), chance(b, r.fault()), 1e-9, r.fault() + " after " + n);
      }
      assertEquals(a.entropy(), b.entropy(), 1e-12);
      pairs |= a.suspects().stream().anyMatch(r -> r.suspects().size() == 2);
    }
    assertTrue(pairs, "there were none");
  }

  /// Of two supplies one is at its limit because of a short; the other, that feeds something else,
  /// gives what it always gives, and that accuses nobody.
  @Test
  public void oneOfTwoSuppliesIsAtItsLimit() {
    Boards b = new Boards();
    b.part("J1").at(0, 0).holes("5V", "GND");
    b.part("C1").value("10u").at(6, 0).pads("5V", "GND");
    b.part("C2").value("10u").at(12, 0).pads("5V", "GND");
    b.part("U1").value("CHIP").shape("SOIC-8").at(18, 0).pads("5V", "GND", "IN");
    b.part("J2").at(24, 0).holes("VBAT", "GND");
    b.part("R1").value("100k").at(30, 0).pads("VBAT", "GND");
    b.part("R2").value("100k").at(36, 0).pads("VBAT", "5V");
    Revision r = b.revision();
    Ladder l =
        LadderProposal.of(
            r, LadderSaid.read(List.of("source 5V=5V", "source VBAT=3V", "load U1=20mA"), r));
    Board two = Tracing.board(r, l);
    Tracer t = new Tracer(two, Suspects.of(r, l, Tracing.none()));
    List<Entry> shorted =
        List.of(Tracing.ohms("5V", "GND", 0.3), Tracing.amps("5V", Knobs.usual(l).limits().get(0)));
    double before = jack(t, two, shorted);
    List<Entry> with = new ArrayList<>(shorted);
    with.add(Tracing.amps("VBAT", 6e-5)); // 3 V over 100 kΩ twice
    double after = jack(t, two, with);
    assertTrue(before > 1e-4 && after < 2 * before, before + " became " + after);
  }

  private double jack(Tracer t, Board board, List<Entry> entries) {
    Clues c = Clues.of(board, BoardState.of("01", book(entries.toArray(Entry[]::new)).book));
    return chance(t.trace(c, Map.of(), Map.of(), 1), "setting meter current-jack");
  }

  /// Two at once, of which one may be either of two: the one that is sure is named, and that it
  /// does not explain all.
  @Test
  public void ofTwoAtOnceTheSurerIsNamed() {
    List<Suspect> all =
        List.of("value R3 1000", "dead D1", "open D1.1").stream()
            .map(words ->
                Suspects.of(Tracing.REVISION, Tracing.LADDER, Tracing.none()).suspects().stream()
                    .filter(s -> s.words().equals(words))
                    .findFirst()
                    .orElseThrow())
            .toList();
    Tracer t = new Tracer(Tracing.board(), new Suspects.Listed(all, 0));
    Traced both =
        new Tracing()
            .log(
                Tracing.ohms("R3.1", "R3.2", 1000),
                Tracing.ohms("R3.1", "R3.2", 1001),
                Tracing.volts("MID", 0.3),
                Tracing.volts("3V3", 3.3),
                Tracing.symptom("D1", "lamp", "dark"),
                Tracing.symptom("D1", "lamp", "dark"),
                Tracing.volts("A1", 3.3),
                Tracing.volts("A1", 3.31))
            .trace(t);
    assertEquals(both.suspects().getFirst().suspects().size(), 2, both.first().toString());
    Finding f = both.finding().orElseThrow();
    assertEquals(f.suspect().words(), "value R3 1000");
    double marginal =
        both.suspects().stream()
            .filter(r -> r.fault().contains("value R3 1000"))
            .mapToDouble(Traced.Ranked::chance)
            .sum();
    assertEquals(f.chance(), marginal, 1e-9, "alone, or with either of the others");
    assertTrue(marginal > both.suspects().getFirst().chance() + 0.1, "more than the pair itself");
    assertTrue(f.todo().toString().contains("it explains not all: then trace on"), "" + f.todo());
  }

  /// Bridges of so many ohms lead nowhere along the copper.
  @Test
  public void someOhmsAreNotReadAlong() {
    // who sees this reads it once more
    Traced once = book(Tracing.ohms("5V", "GND", 12)).trace();
    Choice again =
        once.next().stream()
            .filter(c -> c.probe().equals(Probe.ohms("5V", "GND")))
            .findFirst()
            .orElseThrow();
    assertTrue(again.information() > 0.5, again.toString());
    assertTrue(once.next().indexOf(again) < 5, "one of the first");
    assertTrue(again.why().startsWith("once more, for a tip may have slipped"), again.why());
    assertEquals(
        again.outcomes().stream().map(Choice.Result::words).toList(),
        List.of("the same again", "something else"));
    Traced soft = book(Tracing.ohms("5V", "GND", 12), Tracing.ohms("5V", "GND", 12.1)).trace();
    assertTrue(chance(soft, "healthy") < 0.01, "" + chance(soft, "healthy"));
    double some =
        soft.suspects().stream()
            .filter(r -> r.fault().startsWith("bridge "))
            .mapToDouble(Traced.Ranked::chance)
            .sum();
    assertTrue(some > 0.5, "" + some);
    assertTrue(
        soft.next().stream().noneMatch(c -> c.probe().kind() == Probe.Kind.ALONG),
        "12 Ω beside mΩ");
    assertTrue(
        soft.next().stream().noneMatch(c -> c.probe().equals(again.probe())), "twice is enough");
    assertTrue(
        book(Tracing.ohms("5V", "GND", 3000)).trace().next().stream()
            .noneMatch(c -> c.why().startsWith("once more")),
        "as it should be");
    Traced hard = book(Tracing.ohms("5V", "GND", 0.3), Tracing.ohms("R1.1", "R1.2", 1e4)).trace();
    assertTrue(hard.next().stream().anyMatch(c -> c.probe().kind() == Probe.Kind.ALONG));
  }

  /// A board on which everything is as it should be: after a while nothing tells more, and that is
  /// said.
  @Test
  public void whenNothingTellsMoreItIsSaid() {
    DoneTest one = book();
    Traced t = one.trace();
    assertFalse(t.told().contains(Tracer.HARDLY), "nothing was measured yet");
    for (int i = 0; i < 60 && !t.told().contains(Tracer.HARDLY); i++) {
      Probe p = t.next().getFirst().probe();
      one.book.add(
          new Logged(
              one.book.size() + 1, OffsetDateTime.parse("2026-11-29T09:00:00Z"), "01", answer(p)));
      t = one.trace();
      assertEquals(t.finding(), Optional.empty(), p.toString());
    }
    assertTrue(t.told().contains(Tracer.HARDLY), t.told().toString());
    assertTrue(chance(t, "healthy") > 0.95, "" + chance(t, "healthy"));
    assertTrue(t.next().stream().allMatch(c -> c.information() < 0.01));
  }

  /// What a healthy board shows.
  private static Entry answer(Probe p) {
    return new ell.core.practice.HiddenBoard(REVISION, LADDER, List.of(), 3)
        .measure(p)
        .orElseThrow(() -> new AssertionError(p.toString()));
  }
}
