package ell.work;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import ell.core.rack.Plan;
import ell.work.tape.Meaning;
import ell.work.tape.Tape;
import java.util.List;
import java.util.Random;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class TapeTest {
  private Workshop w;
  private Tape tape;

  @BeforeClass
  public void open() throws Exception {
    w = Demo.workspace(true);
    tape = w.tape(w.plan(w.buildOf("07")));
  }

  @AfterClass(alwaysRun = true)
  public void close() throws Exception {
    w.close();
  }

  private Meaning on(String board, String line) throws Exception {
    return tape.understand(line, w.state(board), w.entries(board));
  }

  private Entry entry(String line) throws Exception {
    Meaning m = on("07", line);
    assertTrue(m instanceof Meaning.Ready, line + ": " + m);
    return ((Meaning.Ready) m).entries().getFirst();
  }

  @DataProvider
  Object[][] readings() {
    return new Object[][] {
      {"3V3 3.287", "3V3", 3.287, Unit.VOLT, Verdict.WITHIN},
      {"3v3 3,287", "3V3", 3.287, Unit.VOLT, Verdict.WITHIN},
      {"3V3 3287mV", "3V3", 3.287, Unit.VOLT, Verdict.WITHIN},
      {"  3V3   3.287   V ", "3V3", 3.287, Unit.VOLT, Verdict.WITHIN},
      {"TP4 3.36", "TP4", 3.36, Unit.VOLT, Verdict.CLOSE},
      {"U2.2 3.1", "U2.2", 3.1, Unit.VOLT, Verdict.OUT},
      {"u2.2 3.3V", "U2.2", 3.3, Unit.VOLT, Verdict.WITHIN},
      {"VIN 45mA", "VIN", 0.045, Unit.AMPERE, null},
      {"R5 9.98k", "R5", 9980.0, Unit.OHM, null},
      {"Y1 12.0001 MHz", "Y1", 12_000_100.0, Unit.HERTZ, null},
      {"Y1 12.0001M", "Y1", 12_000_100.0, Unit.HERTZ, null},
      {"C1 46u", "C1", 46e-6, Unit.FARAD, null},
      {"U1 31 °C", "U1", 31.0, Unit.CELSIUS, Verdict.WITHIN},
      {"U1 91 °C", "U1", 91.0, Unit.CELSIUS, Verdict.OUT},
      {"U4 61 °C", "U4", 61.0, Unit.CELSIUS, null},
      {"SDA 3.3", "SDA", 3.3, Unit.VOLT, null},
    };
  }

  @Test(dataProvider = "readings")
  public void readingsAtPlaces(String line, String place, double value, Unit unit, Verdict verdict)
      throws Exception {
    Entry.Reading r = (Entry.Reading) entry(line);
    assertEquals(r.place(), place);
    assertEquals(r.value(), value, Math.abs(value) * 1e-12);
    assertEquals(r.unit(), unit);
    assertEquals(r.verdict().orElse(null), verdict);
  }

  @Test
  public void wordsAtPlaces() throws Exception {
    assertEquals(entry("U4.7 bridge to U4.8"), new Entry.Defect("U4.7", "bridge", "to U4.8"));
    assertEquals(entry("C16 standing"), new Entry.Defect("C16", "standing", ""));
    assertEquals(entry("c16 Reflowed twice"), new Entry.Action("C16", "reflowed", true, "twice"));
    assertEquals(entry("U6 cleaned"), new Entry.Action("U6", "cleaned", false, ""));
    assertEquals(entry("U6 looks a bit dull"), new Entry.Note("U6 looks a bit dull"));
    assertEquals(entry("note 3V3 is fine"), new Entry.Note("3V3 is fine"));
    assertEquals(entry("gate rails holds"), new Entry.Gate("rails", true, ""));
    assertEquals(
        entry("gate rails fails 3V3 is low"), new Entry.Gate("rails", false, "3V3 is low"));
    assertEquals(
        entry("override power I measured it"), new Entry.Override("power", "I measured it"));
  }

  @Test
  public void checksOfTheList() throws Exception {
    Entry.Check c = (Entry.Check) entry("beep 7 2.3");
    assertEquals(c.netB(), "3V3");
    assertEquals(c.verdict(), Verdict.OUT);
    assertEquals(((Entry.Check) entry("beep 7 open")).verdict(), Verdict.WITHIN);
    assertEquals(((Entry.Check) entry("3V3 GND open")).netB(), "3V3");
    assertEquals(((Entry.Check) entry("gnd 5v0 41.6k")).verdict(), Verdict.WITHIN);
    assertEquals(
        ((Entry.Check) entry("beep " + joined() + " open")).verdict(),
        Verdict.OUT,
        "continuity that does not beep");
  }

  /// The first check of the list that asks whether two joints are joined.
  private int joined() throws Exception {
    return w.plan(w.buildOf("07")).beep().checks().stream()
        .filter(c -> c.kind() == ell.core.beep.BeepCheck.Kind.CONTINUITY)
        .findFirst()
        .orElseThrow()
        .number();
  }

  @Test
  public void checksThatAreInNoList() throws Exception {
    Entry.Check dead = (Entry.Check) entry("3V3 GND short");
    assertEquals(dead.ohms(), 0.0);
    assertEquals(dead.verdict(), Verdict.OUT);
    assertEquals(((Entry.Check) entry("GND 3V3 0.4")).verdict(), Verdict.OUT);
    // two signals, which no list parts
    Entry.Check far = (Entry.Check) entry("SDA VBAT short");
    assertEquals(far.kind(), "isolation");
    assertEquals(far.verdict(), Verdict.OUT);
    assertEquals(((Entry.Check) entry("SDA VBAT open")).verdict(), Verdict.WITHIN);
    Entry.Check back = (Entry.Check) entry("VBAT SDA open");
    assertEquals(back.a() + " " + back.b(), far.a() + " " + far.b(), "it answers the one before");
    // two joints of one net: nothing lies below 0 ohm, so a tenth of an ohm is within
    Plan plan = w.plan(w.buildOf("07"));
    List<Joint> ground = plan.revision().net("GND");
    Joint a = ground.getFirst();
    Joint b = ground.getLast();
    Entry.Check joined = (Entry.Check) entry(a.place() + " " + b.place() + " 0.1");
    assertEquals(joined.kind(), "continuity");
    assertEquals(joined.verdict(), Verdict.WITHIN);
    assertEquals(
        ((Entry.Check) entry(a.place() + " " + b.place() + " open")).verdict(), Verdict.OUT);
    // a resistor that is measured from end to end is held against its value
    Part r = plan.revision().part("R5").orElseThrow();
    List<Joint> ends = plan.revision().jointsOf("R5");
    Entry.Check across =
        (Entry.Check) entry(ends.get(0).place() + " " + ends.get(1).place() + " 0.2");
    assertEquals(across.verdict(), Verdict.OUT, r.value() + " reads nothing");
    assertFalse(entry("SDA VBAT swapped") instanceof Entry.Check, "no reading, no check");
  }

  @Test
  public void stepsAndStrikes() throws Exception {
    Meaning next = on("08", "step");
    assertTrue(((Meaning.Ready) next).words().startsWith("step 32"), next.toString());
    assertEquals(
        ((Meaning.Ready) on("08", "steps 30-34")).entries().size(),
        3,
        "what is done is not done again");
    assertTrue(on("08", "step 31") instanceof Meaning.Wrong);
    long number = w.entries("08").getLast().number();
    assertTrue(
        ((Meaning.Ready) on("08", "strike " + number + " wrong board"))
            .words()
            .contains("step 31"));
    assertTrue(on("08", "strike 1") instanceof Meaning.Wrong, "an entry of another board");
  }

  @DataProvider
  Object[][] wrong() {
    return new Object[][] {
      {"FOO 3.3", "no place 'FOO'"}, {"3V3 3.3.3", "two decimal points"},
      {"3V3 3.3 parsec", "unknown unit"}, {"U4 3.3", "has no unit"},
      {"step 999", "steps go from 1 to"}, {"steps 5-3", "steps go from"},
      {"step five", "expected step 12"}, {"step 42", "is a gate"},
      {"gate nothing holds", "there are rails"}, {"beep 9999 open", "checks go from"},
      {"beep 7 soon", "open"}, {"beep 7 -3", "not below 0"},
      {"strike 99999", "no entry"}, {"x".repeat(3000), "2000 characters"},
    };
  }

  @Test(dataProvider = "wrong")
  public void wrongLinesSayWhy(String line, String says) throws Exception {
    Meaning m = on("07", line);
    assertTrue(m instanceof Meaning.Wrong, m.toString());
    assertTrue(((Meaning.Wrong) m).why().contains(says), m.toString());
  }

  @DataProvider
  Object[][] unfinished() {
    return new Object[][] {
      {"", "3V3 3.287"},
      {"3V3", "expect 3.234...3.366 V"},
      {"3V", "3V3"},
      {"note", "words"},
      {"gate rails", "holds, or fails"},
      {"beep 7", "expect above 100"},
      {"override power", "why"},
      {"strike", "number"},
      {"3V3 GND", "ohms, or open"},
    };
  }

  @Test(dataProvider = "unfinished")
  public void unfinishedLinesSayWhatIsMissing(String line, String hint) throws Exception {
    Meaning m = on("07", line);
    assertTrue(m instanceof Meaning.Unfinished, m.toString());
    assertTrue(((Meaning.Unfinished) m).hint().contains(hint), m.toString());
  }

  @Test
  public void namesAreCompletedFromTheBoard() {
    assertEquals(tape.complete("3v", 9), List.of("3V3 ", "3V3A "));
    assertEquals(tape.complete("tp", 9).size(), 6);
    assertTrue(tape.complete("u4.1", 20).contains("U4.11 "));
    assertEquals(tape.complete("C16 st", 9), List.of("C16 standing", "C16 starved"));
    assertEquals(
        tape.complete("gate ra", 9),
        List.of("gate rails holds", "gate rails fails", "gate radio holds", "gate radio fails"));
    assertEquals(tape.complete("no", 9), List.of("note "));
    assertEquals(tape.complete("zzz", 9), List.of());
  }

  /// Whatever is typed, it is understood, unfinished or wrong; never a crash.
  @Test
  public void anythingCanBeTyped() throws Exception {
    Random random = new Random(4);
    String[] words = {
      "3V3",
      "GND",
      "U4.7",
      "step",
      "steps",
      "strike",
      "beep",
      "note",
      "gate",
      "override",
      "-",
      "1-9",
      "99999999999999999999",
      "open",
      "bridge",
      "3.3",
      "4k7",
      "µ",
      "\"",
      "U4.",
      ".",
      "TP1",
      "rails",
      "holds",
      "1e999",
      "−5",
      "５",
      "power",
    };
    BoardState state = w.state("07");
    var log = w.entries("07");
    for (int i = 0; i < 20_000; i++) {
      StringBuilder line = new StringBuilder();
      for (int k = 0; k < random.nextInt(5); k++) {
        line.append(words[random.nextInt(words.length)]).append(random.nextInt(8) == 0 ? "" : " ");
      }
      Meaning m = tape.understand(line.toString(), state, log);
      if (m instanceof Meaning.Ready r) {
        assertTrue(!r.entries().isEmpty() && !r.words().isBlank());
      }
      tape.complete(line.toString(), 8);
    }
  }
}
