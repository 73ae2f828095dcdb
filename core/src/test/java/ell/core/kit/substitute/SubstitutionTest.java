package ell.core.kit.substitute;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import ell.core.Boards;
import ell.core.board.Revision;
import ell.core.power.Ladder;
import ell.core.power.Ladder.Kind;
import ell.core.power.Ladder.Load;
import ell.core.power.Ladder.RailSpec;
import ell.core.power.Ladder.Source;
import ell.core.power.Ladder.Step;
import ell.core.quantity.Verdict;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Candidates against the need of a small circuit, each need worked by hand: 9 to 14 V in, 5 V, 3.3
/// V by a linear regulator, a chip with a crystal, a memory, a switch and a connector.
public class SubstitutionTest {
  private static final Revision REVISION = revision();
  private static final Ladder LADDER =
      new Ladder(
          List.of(
              new RailSpec("5V0", 5, 4.75, 5.25, 0, "TP1"),
              new RailSpec("3V3", 3.3, 3.135, 3.465, 0, "TP2")),
          List.of(new Source("5V0", 5, 4.75, 5.25, 1)),
          List.of(new Step("U1", Kind.LINEAR, "5V0", "3V3", 3.3, 0.3, 0, 1e-3, 0, 0.5, 0)),
          List.of(new Load("U2", "3V3", Map.of("worst", 0.2))),
          "GND",
          List.of());

  private static Revision revision() {
    Boards b = new Boards();
    b.part("U1").value("LDO33").shape("SOT-223").code("LDO").pads("5V0", "GND", "3V3");
    b.part("U2").value("MCU").shape("LQFP-48").pads("3V3", "GND", "XI", "XO", "GATE");
    b.part("Y1").value("12 MHz").shape("XTAL-5032").code("X12").pads("XI", "XO");
    b.part("C1").value("18p").shape("0603").code("C18P").pads("XI", "GND");
    b.part("C2").value("18p").shape("0603").code("C18P").pads("XO", "GND");
    b.part("C3").value("10u").shape("0805").code("C10U").words("X5R 20 %").pads("5V0", "GND");
    b.part("R1").value("100R").shape("0603").code("R100").words("1 %").pads("3V3", "GND");
    b.part("U3")
        .value("256k")
        .shape("SOIC-8")
        .code("EEP")
        .words("EEPROM")
        .pads("3V3", "GND", "SDA");
    b.part("Q1").value("NFET").shape("SOT-23").code("NFET").pads("GATE", "GND", "LOAD");
    b.part("D1").value("SKY").shape("SMA").code("SKY").words("Schottky").pads("5V0", "LOAD");
    b.part("J1").value("TERM").shape("TERM-3").code("TERM3").holes("5V0", "GND", "LOAD");
    return b.revision();
  }

  private static Substitution compare(
      String part, Map<String, String> drawn, Map<String, String> other, String words) {
    return Substitution.of(
        REVISION, LADDER, REVISION.part(part).orElseThrow(), drawn, "OTHER", other, words, "");
  }

  private static Substitution.Line line(Substitution s, Trait t) {
    return s.lines().stream().filter(l -> l.need().trait() == t).findFirst().orElseThrow();
  }

  /// 18 pF and 18 pF in series are 9 pF; with 2 to 5 pF of board and pins 11 to 14 pF.
  @Test
  public void aCrystalByItsLoad() {
    Map<String, String> drawn = Map.of("series resistance", "60 ohm", "tolerance", "30 ppm");
    Map<String, String> good =
        Map.of(
            "frequency", "12 MHz",
            "load capacitance", "12 pF",
            "esr", "50R",
            "drive level", "100 uW",
            "tolerance", "20ppm",
            "outline", "XTAL-5032");
    Substitution s = compare("Y1", drawn, good, "");
    assertEquals(s.template(), Template.CRYSTAL);
    assertEquals(line(s, Trait.LOAD_CAPACITANCE).need().low(), 11e-12, 1e-15);
    assertEquals(line(s, Trait.LOAD_CAPACITANCE).need().high(), 14e-12, 1e-15);
    // nobody says what the oscillator drives the crystal with
    assertEquals(line(s, Trait.DRIVE_LEVEL).verdict(), Verdict.CLOSE);
    assertEquals(s.verdict(), Verdict.CLOSE);
    Map<String, String> known = new HashMap<>(drawn);
    known.put("drive level", "50 uW");
    assertEquals(compare("Y1", known, good, "").verdict(), Verdict.WITHIN);
    Map<String, String> heavy = new HashMap<>(good);
    heavy.put("load capacitance", "20 pF");
    assertEquals(compare("Y1", known, heavy, "").verdict(), Verdict.OUT);
    Map<String, String> silent = new HashMap<>(good);
    silent.remove("esr");
    assertEquals(
        compare("Y1", known, silent, "").verdict(),
        Verdict.CLOSE,
        "what is not known never passes");
  }

  /// 5.25 V across a ceramic of class 2: at least 10.5 V.
  @DataProvider
  Object[][] capacitors() {
    return new Object[][] {
      {"10u 16V X5R 20% 0805", Verdict.WITHIN},
      {"10u 16V X7R 10% 0805", Verdict.WITHIN},
      {"10u 10V X7R 10% 0805", Verdict.OUT},
      {"10u 16V Y5V 20% 0805", Verdict.OUT},
      {"10u 16V X7R 10% 1206", Verdict.OUT},
      {"22u 16V X7R 10% 0805", Verdict.OUT},
      {"10u X7R 10% 0805", Verdict.CLOSE},
      {"10u 16V 10% 0805", Verdict.CLOSE}
    };
  }

  @Test(dataProvider = "capacitors")
  public void capacitorsByVoltageAndDielectric(String words, Verdict verdict) {
    Substitution s = compare("C3", Map.of(), Map.of(), words);
    assertEquals(line(s, Trait.VOLTAGE).need().low(), 10.5, 1e-9);
    assertEquals(s.verdict(), verdict, s.sheet().lines().toString());
  }

  /// 3.465² / 100 Ω = 120 mW, twice that is 240 mW.
  @Test
  public void aResistorByItsPower() {
    Substitution s = compare("R1", Map.of(), Map.of(), "100R 1% 1/4W 0603");
    assertEquals(line(s, Trait.POWER).need().low(), 2 * 3.465 * 3.465 / 100, 1e-9);
    assertEquals(s.verdict(), Verdict.WITHIN);
    assertEquals(compare("R1", Map.of(), Map.of(), "100R 1% 0.1W 0603").verdict(), Verdict.OUT);
    assertEquals(compare("R1", Map.of(), Map.of(), "100R 5% 1/4W 0603").verdict(), Verdict.OUT);
  }

  /// Dropout at most 4.75 − 3.3 = 1.45 V; 200 mA and a quarter more.
  @Test
  public void aRegulatorByDropoutCurrentAndPinOut() {
    Map<String, String> drawn = Map.of("pin-out", "in gnd out", "enable", "none");
    Map<String, String> good =
        new HashMap<>(
            Map.of(
                "output voltage", "3.3V",
                "dropout", "1.3 V",
                "input voltage", "7 V",
                "current", "500 mA",
                "pin-out", "IN, GND, OUT",
                "enable", "none",
                "outline", "SOT223"));
    Substitution s = compare("U1", drawn, good, "");
    assertEquals(s.template(), Template.REGULATOR);
    assertEquals(line(s, Trait.DROPOUT).need().high(), 1.45, 1e-9);
    assertEquals(line(s, Trait.CURRENT).need().low(), 0.25, 5e-3);
    assertEquals(s.verdict(), Verdict.WITHIN, s.sheet().lines().toString());
    for (Map.Entry<String, String> bad :
        Map.of(
                "pin-out", "gnd out in",
                "dropout", "1.5 V",
                "input voltage", "5 V",
                "current", "200 mA",
                "enable", "high",
                "output voltage", "3.0 V")
            .entrySet()) {
      Map<String, String> worse = new HashMap<>(good);
      worse.put(bad.getKey(), bad.getValue());
      assertEquals(compare("U1", drawn, worse, "").verdict(), Verdict.OUT, bad.toString());
    }
  }

  @Test
  public void memorySwitchDiodeAndConnector() {
    Map<String, String> memory = Map.of("interface", "two-wire", "size", "256 kbit", "page", "64");
    Substitution m =
        compare(
            "U3",
            memory,
            Map.of(
                "interface",
                "Two Wire",
                "size",
                "32 kB",
                "page",
                "32",
                "supply low",
                "2.5 V",
                "supply high",
                "5.5 V",
                "outline",
                "SOIC-8"),
            "");
    assertEquals(m.template(), Template.MEMORY);
    assertEquals(line(m, Trait.SIZE).verdict(), Verdict.WITHIN, "32 kB are 256 kbit");
    assertEquals(line(m, Trait.PAGE).verdict(), Verdict.OUT);
    assertEquals(line(m, Trait.SUPPLY_LOW).verdict(), Verdict.WITHIN);
    assertEquals(line(m, Trait.PINOUT).verdict(), Verdict.CLOSE);

    // the gate is driven from 3.3 V at its least, 3.135 V: logic level
    Substitution q = compare("Q1", Map.of(), Map.of("gate voltage", "4.5 V"), "");
    assertEquals(line(q, Trait.GATE_VOLTAGE).need().high(), 3.135, 1e-9);
    assertEquals(line(q, Trait.GATE_VOLTAGE).verdict(), Verdict.OUT);
    assertEquals(line(q, Trait.SWITCH_VOLTAGE).need().low(), 5.25 * 1.25, 1e-9);

    Substitution d = compare("D1", Map.of(), Map.of("vr", "40 V", "type", "Schottky"), "");
    assertEquals(line(d, Trait.REVERSE_VOLTAGE).verdict(), Verdict.WITHIN);
    assertEquals(line(d, Trait.TYPE).verdict(), Verdict.WITHIN);

    Substitution j =
        compare(
            "J1",
            Map.of("pitch", "5.08 mm"),
            Map.of("ways", "3", "pitch", "5.08", "mounting", "THT"),
            "");
    assertEquals(line(j, Trait.PINS).verdict(), Verdict.WITHIN);
    assertEquals(line(j, Trait.PITCH).verdict(), Verdict.WITHIN);
    assertEquals(line(j, Trait.MOUNTING).verdict(), Verdict.WITHIN);
  }

  @Test
  public void nothingKnownNeverPasses() {
    for (var p : REVISION.parts()) {
      Substitution s = compare(p.reference(), Map.of(), Map.of(), "");
      assertEquals(s.verdict(), Verdict.CLOSE, p.reference());
      assertTrue(s.lines().stream().allMatch(l -> l.verdict() == Verdict.CLOSE));
    }
  }

  @Test
  public void numbersAreReadAsTheyAreWritten() {
    assertEquals(Trait.TOLERANCE.read("±30 ppm"), Optional.of(30e-6));
    assertEquals(Trait.TOLERANCE.read("1%"), Optional.of(0.01));
    assertEquals(Trait.SIZE.read("4 Mbit"), Optional.of(4.0 * 1024 * 1024));
    assertEquals(Trait.SIZE.read("256 kB"), Optional.of(8.0 * 256 * 1024));
    assertEquals(Trait.PITCH.read("2.54"), Optional.of(2.54e-3));
    assertEquals(Trait.FREQUENCY.read("32k768"), Optional.of(32768.0));
    assertEquals(Trait.VOLTAGE.read("soon"), Optional.empty());
  }
}
