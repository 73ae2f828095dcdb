package ell.core.sheet;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import ell.core.catalogue.Catalogue;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.hipparchus.stat.interval.BinomialProportion;
import org.hipparchus.stat.interval.ConfidenceInterval;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Every sheet against values from outside the project.
public class SheetsTest {
  private static Worked work(String name, String... pairs) {
    Map<String, String> given = new LinkedHashMap<>();
    for (String p : pairs) {
      given.put(p.substring(0, p.indexOf('=')), p.substring(p.indexOf('=') + 1));
    }
    return Catalogue.work(name, given);
  }

  /// ASTM B258, table of solid wire diameters, in mm; from memory.
  @DataProvider
  Object[][] gauges() {
    return new Object[][] {
      {"4/0", 11.684}, {"0000", 11.684}, {"1/0", 8.251}, {"0", 8.251}, {"1", 7.348}, {"2", 6.544},
      {"4", 5.189}, {"6", 4.115}, {"8", 3.264}, {"10", 2.588}, {"12", 2.053}, {"14", 1.628},
      {"16", 1.291}, {"18", 1.024}, {"20", 0.812}, {"22", 0.644}, {"24", 0.511}, {"26", 0.405},
      {"28", 0.321}, {"30", 0.255}, {"32", 0.202}, {"36", 0.127}, {"40", 0.0799},
    };
  }

  @Test(dataProvider = "gauges")
  public void wireGauge(String gauge, double millimetre) {
    Worked w = work("wire.awg", "gauge=" + gauge);
    assertEquals(w.number("diameter") * 1e3, millimetre, millimetre < 0.1 ? 5e-5 : 5.1e-4);
    assertEquals(w.number("area"), Math.PI / 4 * Math.pow(w.number("diameter"), 2), 1e-15);
  }

  /// Ohms per 1000 ft of solid copper at 20 °C, handbook wire tables (after NBS Handbook 100,
  /// 1966); from memory.
  @DataProvider
  Object[][] wireOhms() {
    return new Object[][] {
      {10, 0.9989}, {14, 2.525}, {18, 6.385}, {22, 16.14}, {26, 40.81}, {30, 103.2}
    };
  }

  @Test(dataProvider = "wireOhms")
  public void wireDrop(int gauge, double ohmsPerThousandFeet) {
    Worked w = work("power.wire-drop", "gauge=" + gauge, "length=304.8m", "current=1A");
    assertEquals(w.number("resistance"), ohmsPerThousandFeet, ohmsPerThousandFeet * 3e-3);
    assertEquals(w.number("drop"), w.number("resistance"), 1e-9);
    assertEquals(w.number("loss"), w.number("resistance"), 1e-9);
  }

  /// IPC-7525, arithmetic of its formulas.
  @DataProvider
  Object[][] openings() {
    return new Object[][] {
      {"length=0.30mm width=1.50mm thickness=0.15mm", 0.8333, 2.0, "within"},
      {"diameter=0.30mm thickness=0.10mm", 0.75, 3.0, "within"},
      {"diameter=0.25mm thickness=0.12mm", 0.5208, 2.083, "out"},
      // exactly on both lines
      {"diameter=0.264mm thickness=0.1mm", 0.66, 2.64, "within"},
      // longer than five widths: the aspect ratio decides
      {"length=2mm width=0.2mm thickness=0.15mm", 0.6061, 1.333, "out"},
      {"length=2mm width=0.225mm thickness=0.15mm", 0.674, 1.5, "within"},
    };
  }

  @Test(dataProvider = "openings")
  public void stencilOpening(String in, double area, double aspect, String verdict) {
    Worked w = work("stencil.area-ratio", in.split(" "));
    assertEquals(w.number("areaRatio"), area, 5e-4);
    assertEquals(w.number("aspectRatio"), aspect, 1e-3);
    assertEquals(w.results().get("verdict"), verdict);
  }

  /// IPC-2221, 6.2: 1 A, 10 K rise, 35 µm outside is 11.8 mil, 0.300 mm.
  @Test
  public void traceWidth() {
    Worked w =
        work("power.trace-width", "current=1A", "rise=10", "thickness=35um", "layer=outside");
    assertEquals(w.number("width"), 0.300e-3, 0.5e-6);
    assertEquals(w.number("width") / 25.4e-6, 11.8, 0.05);
    Worked in =
        work("power.trace-width", "current=1A", "rise=10", "thickness=35um", "layer=internal");
    // half of k inside: 2^(1/0.725) times the area, by the formula itself
    assertEquals(in.number("area") / w.number("area"), Math.pow(2, 1 / 0.725), 1e-9);
  }

  /// 100 mAh at 1.38 mA lasts 72.5 h: common practice, no source.
  @Test
  public void battery() {
    assertEquals(
        work("power.battery", "capacity=100mAh", "states=1.38mA:1").number("hours"), 72.46, 0.05);
    Worked w = work("power.battery", "capacity=100mAh", "usable=0.8", "states=40mA:2%,1.38mA:98%");
    double mean = 0.04 * 0.02 + 0.00138 * 0.98;
    assertEquals(w.number("current"), mean, 1e-9);
    assertEquals(w.number("hours"), 0.08 / mean, 1e-6);
  }

  @Test
  public void regulators() {
    // worked by hand: (5 - 3.3) V · 0.1 A = 0.17 W; 25 + 110 · 0.17 = 43.7 °C
    Worked w =
        work("power.linear", "vin=5V", "vout=3.3V", "current=100mA", "theta=110", "ambient=25");
    assertEquals(w.number("dissipation"), 0.17, 1e-12);
    assertEquals(w.number("junction"), 43.7, 1e-9);
    assertEquals(w.number("headroom"), 1.7, 1e-12);
    // 5 V · 71 mA / (0.88 · 12 V) = 33.6 mA
    Worked s = work("power.switching", "vin=12V", "vout=5V", "current=71mA", "efficiency=0.88");
    assertEquals(s.number("inputCurrent"), 0.033617, 1e-6);
    assertEquals(s.number("dissipation"), 0.355 / 0.88 - 0.355, 1e-9);
    // 47 µF to 12 V in 5 ms: 112.8 mA, 3.384 mJ
    Worked i = work("power.inrush", "capacitance=47uF", "voltage=12V", "riseTime=5ms");
    assertEquals(i.number("current"), 0.1128, 1e-9);
    assertEquals(i.number("energy"), 3.384e-3, 1e-9);
  }

  @Test
  public void supplyLimit() {
    // (34 + 112.8) mA · 1.2 = 176.2 mA, up to 180 mA
    Worked w = work("power.limit", "current=34mA", "capacitance=47uF", "voltage=12V");
    assertEquals(w.number("limit"), 0.18, 1e-12);
    assertEquals(w.number("charging"), 0.1128, 1e-9);
    assertEquals(
        work("power.limit", "current=34mA", "capacitance=47uF", "voltage=12V", "weakest=150mA")
            .number("limit"),
        0.15,
        1e-12);
    // a whole number of steps stays where it is
    assertEquals(work("power.limit", "current=100mA", "factor=1").number("limit"), 0.1, 1e-12);
  }

  @Test
  public void lampResistor() {
    // (5 - 2) V / 10 mA = 300 Ω, an E24 value; (3.3 - 1.9) V / 3 mA = 466.7 Ω, nearest 470 Ω
    Worked w = work("power.led", "supply=5V", "forward=2V", "current=10mA");
    assertEquals(w.number("resistance"), 300, 1e-9);
    assertEquals(w.number("nearest"), 300, 1e-9);
    assertEquals(w.number("power"), 0.03, 1e-9);
    Worked e = work("power.led", "supply=3.3V", "forward=1.9V", "current=3mA", "series=E24");
    assertEquals(e.number("nearest"), 470, 1e-9);
    assertEquals(e.number("actualCurrent"), 1.4 / 470, 1e-12);
  }

  @Test
  public void verdictSheet() {
    Worked w = work("power.verdict", "reading=3.287", "low=3.24", "high=3.36");
    assertEquals(w.number("uncertainty"), 3.287 * 0.005 + 0.002, 1e-12);
    assertEquals(w.results().get("verdict"), "within");
    assertEquals(
        work("power.verdict", "reading=3.352", "low=3.24", "high=3.36").results().get("verdict"),
        "close");
    assertEquals(
        work("power.verdict", "reading=3.2", "low=3.24", "high=3.36", "percent=0.1")
            .results()
            .get("verdict"),
        "out");
    assertEquals(
        work(
                "power.verdict",
                "reading=3.352",
                "low=3.24",
                "high=3.36",
                "percent=0.05%",
                "digits=2",
                "resolution=0.1mV")
            .results()
            .get("verdict"),
        "within");
  }

  /// IPC-2222 levels, from memory: lead + 0.15...0.25 mm, not above 0.7 mm over.
  @Test
  public void wireInHole() {
    assertEquals(work("wire.hole", "lead=0.6mm", "hole=0.8mm").results().get("verdict"), "within");
    assertEquals(work("wire.hole", "lead=0.6mm", "hole=0.75mm").results().get("verdict"), "within");
    assertEquals(work("wire.hole", "lead=0.6mm", "hole=0.7mm").results().get("verdict"), "close");
    assertEquals(work("wire.hole", "lead=0.6mm", "hole=0.6mm").results().get("verdict"), "out");
    assertEquals(work("wire.hole", "lead=0.6mm", "hole=1.4mm").results().get("verdict"), "out");
    // a stranded wire is about 1.15 times as thick: common practice, no source
    assertEquals(
        work("wire.hole", "lead=0.6mm", "hole=0.8mm", "strand=stranded").number("clearance"),
        0.11e-3,
        1e-9);
  }

  @Test
  public void need() {
    // common practice, no source: 12 boards · 14 parts, 5 % at least 2: 168 + 9
    Worked w = work("kit.need", "boards=12", "perBoard=14", "rate=5%", "minimum=2");
    assertEquals(w.number("need"), 177.0);
    assertEquals(
        work("kit.need", "boards=1", "perBoard=1", "rate=0.05", "minimum=2").number("need"), 3.0);
    assertEquals(
        work("kit.need", "boards=100", "perBoard=1", "rate=0.05", "minimum=2").number("need"),
        105.0);
    assertEquals(
        work("kit.need", "boards=5", "perBoard=0", "rate=0.05", "minimum=2").number("need"), 0.0);
  }

  /// A fault seen in half the trials needs 5 clean ones for 95 %, one in ten needs 29: arithmetic
  /// of the geometric distribution.
  @Test
  public void cleanTrials() {
    assertEquals(work("prove.trials", "failureRate=0.5", "confidence=0.95").number("trials"), 5.0);
    assertEquals(work("prove.trials", "failureRate=0.1", "confidence=0.95").number("trials"), 29.0);
    assertEquals(work("prove.trials", "failureRate=1").number("trials"), 1.0);
    for (double p : new double[] {0.01, 0.03, 0.2, 0.7}) {
      double n = work("prove.trials", "failureRate=" + p, "confidence=0.9").number("trials");
      assertTrue(Math.pow(1 - p, n) <= 0.1 + 1e-12);
      assertTrue(Math.pow(1 - p, n - 1) > 0.1);
    }
  }

  /// Against the intervals of a reference library (Hipparchus statistics, BinomialProportion).
  @Test
  public void intervalsAgainstAReferenceLibrary() {
    for (int n : new int[] {1, 2, 5, 20, 137, 1000}) {
      for (int k = 0; k <= n; k += Math.max(1, n / 7)) {
        for (double c : new double[] {0.8, 0.95, 0.99}) {
          Worked w = work("prove.interval", "failures=" + k, "trials=" + n, "confidence=" + c);
          if (k > 0 && k < n) {
            ConfidenceInterval exact =
                BinomialProportion.getClopperPearsonInterval(n, (double) k / n, c);
            assertEquals(w.number("exactLow"), exact.getLowerBound(), 1e-6, k + " of " + n);
            assertEquals(w.number("exactHigh"), exact.getUpperBound(), 1e-6, k + " of " + n);
            ConfidenceInterval wilson =
                BinomialProportion.getWilsonScoreInterval(n, (double) k / n, c);
            assertEquals(w.number("wilsonLow"), wilson.getLowerBound(), 1e-9);
            assertEquals(w.number("wilsonHigh"), wilson.getUpperBound(), 1e-9);
          }
        }
      }
    }
    // none in n, exact: 1 - (alpha/2)^(1/n); the rule of three is close to it (NIST e-Handbook
    // 7.2.4.1)
    Worked none = work("prove.interval", "failures=0", "trials=100");
    assertEquals(none.number("exactLow"), 0.0);
    assertEquals(none.number("exactHigh"), 1 - Math.pow(0.025, 0.01), 1e-9);
    assertEquals(none.number("wilsonLow"), 0.0);
  }

  /// IACS copper, 35 µm: 0.49 mΩ a square.
  @Test
  public void copperSheetAndBeep() {
    Worked w = work("beep.sheet", "length=10mm", "width=1mm", "thickness=35um");
    assertEquals(w.number("perSquare"), 0.49e-3, 0.005e-3);
    assertEquals(w.number("resistance"), 10 * w.number("perSquare"), 1e-12);
    // t = C · V / I with V = 40 Ω · 1 mA: 47 µF beeps for 1.88 ms
    assertEquals(work("beep.capacitor", "capacitance=47uF").number("time"), 1.88e-3, 1e-9);
    assertEquals(
        work("beep.capacitor", "capacitance=1000uF", "threshold=0.1V", "testCurrent=1mA")
            .number("time"),
        0.1,
        1e-9);
  }

  @DataProvider
  Object[][] wrong() {
    return new Object[][] {
      {"power.nothing", "", "power.linear"},
      {"power.linear", "vin=5", "vout takes"},
      {"power.linear", "vin=5 vout=3 current=1 theta=100 colour=red", "colour"},
      {"power.linear", "vin=five vout=3 current=1 theta=100", "vin"},
      {"power.linear", "vin=5A vout=3 current=1 theta=100", "V"},
      {"power.linear", "vin=5 vout=3 current=-1 theta=100", "out of range"},
      {"power.linear", "vin=3 vout=5 current=1 theta=100", "vin must not be below vout"},
      {"stencil.area-ratio", "length=1mm thickness=0.1mm", "exactly one of"},
      {"stencil.area-ratio", "length=1mm width=1mm diameter=1mm thickness=0.1mm", "exactly one of"},
      {"power.trace-width", "current=1A layer=middle", "outside, inside"},
      {"wire.awg", "gauge=99", "0 to 56"},
      {"wire.awg", "gauge=thin", "gauge"},
      {"power.battery", "capacity=100mAh states=1mA:0.5", "add up"},
      {"power.battery", "capacity=100mAh states=often", "current:share"},
      {"prove.interval", "failures=5 trials=3", "failures"},
      {"prove.interval", "failures=1.5 trials=3", "whole number"},
      {"prove.trials", "failureRate=0", "out of range"},
      {"power.led", "supply=1.5V forward=2V current=5mA", "above forward"},
      {"beep.capacitor", "capacitance=1uF threshold=5A", "ohms or volts"},
      {"kit.need", "boards=0 perBoard=1", "out of range"},
    };
  }

  @Test(dataProvider = "wrong")
  public void saysWhatWouldBeRight(String name, String in, String says) {
    String[] pairs = in.isEmpty() ? new String[0] : in.split(" ");
    SheetProblem p = expectThrows(SheetProblem.class, () -> work(name, pairs));
    assertTrue(p.getMessage().contains(says), p.getMessage());
  }

  /// By hand: 1.5 x 0.3 mm in 0.12 mm foil has an area ratio of 1.04, so 0.9 stays: 0.0486 mm³.
  @Test
  public void pasteOfAnOpening() {
    Worked w = work("stencil.paste", "length=1.5mm", "width=0.3mm", "thickness=0.12mm");
    assertEquals(w.number("pasteVolume"), 1.5 * 0.3 * 0.12 * 0.9 * 1e-9, 1e-18);
    double metal = 0.885 / 7400;
    double fraction = metal / (metal + 0.115 / 1000);
    assertEquals(w.number("solderVolume"), w.number("pasteVolume") * fraction, 1e-18);
    assertEquals(w.number("pasteMass"), w.number("pasteVolume") / (metal + 0.115e-3), 1e-12);
    Worked lead =
        work(
            "stencil.paste",
            "length=1.5mm",
            "width=0.3mm",
            "thickness=0.12mm",
            "alloy=snpb",
            "metalMassFraction=0.9");
    assertTrue(lead.number("pasteMass") > w.number("pasteMass"));
  }

  /// NIST Monograph 175, type K, reference 0 °C: 4.096, 8.138 and 10.153 mV.
  @Test
  public void thermocoupleOfTheSheet() {
    assertEquals(
        work("heat.thermocouple", "type=K", "voltage=4.096mV").number("temperature"), 100, 0.05);
    assertEquals(
        work("heat.thermocouple", "voltage=8.138mV", "reference=0").number("temperature"),
        200,
        0.05);
    assertEquals(work("heat.thermocouple", "voltage=10.153mV").number("temperature"), 250, 0.05);
    assertEquals(
        work("heat.thermocouple", "voltage=7.138mV", "reference=25").number("temperature"),
        200,
        0.05);
  }

  @Test
  public void theCatalogueIsComplete() {
    Set<String> names = new HashSet<>();
    for (Sheet s : Catalogue.sheets()) {
      assertTrue(names.add(s.name()), s.name() + " is there once");
      assertFalse(s.sources().isEmpty(), s.name() + " names its source");
      assertFalse(s.results().isEmpty());
      for (Input i : s.inputs()) {
        i.byDefault().ifPresent(i::read);
      }
    }
    assertTrue(
        names.containsAll(
            List.of(
                "power.linear",
                "power.switching",
                "power.inrush",
                "power.limit",
                "power.battery",
                "power.led",
                "power.trace-width",
                "power.wire-drop",
                "power.verdict",
                "wire.awg",
                "wire.hole",
                "kit.need",
                "stencil.area-ratio",
                "stencil.paste",
                "stencil.topup",
                "heat.thermocouple",
                "heat.joint",
                "look.dpmo",
                "look.chart",
                "prove.interval",
                "prove.trials")));
  }

  /// Every result that a sheet promises is there, and the working shows each number.
  @Test
  public void sheetsKeepWhatTheyPromise() {
    Map<String, String> examples =
        new HashMap<>(
            Map.of(
                "power.linear", "vin=5 vout=3.3 current=0.1 theta=100",
                "power.wire-drop", "gauge=22 length=1 current=1",
                "stencil.area-ratio", "diameter=0.3mm thickness=0.1mm",
                "wire.hole", "lead=0.6mm hole=0.8mm",
                "power.verdict", "reading=3.3 low=3.2 high=3.4",
                "prove.interval", "failures=1 trials=10"));
    examples.putAll(
        Map.of(
            "stencil.paste", "length=1.5mm width=0.3mm thickness=0.12mm",
            "stencil.topup", "volume=5e-11 needleBore=0.4mm",
            "stencil.sheet",
                "sheetWidth=0.3 sheetHeight=0.4 boardWidth=0.14 boardHeight=0.1 price=40 single=15",
            "heat.thermocouple", "voltage=8.138mV",
            "heat.joint", "pad=1.6mm hole=1mm lead=0.7mm",
            "heat.floor-life", "level=3 open=3600",
            "look.dpmo", "defects=3 joints=1400 parts=100",
            "look.chart", "counts=3,5,2 sizes=10,10,12",
            "look.compare", "badA=3 allA=4 badB=1 allB=4",
            "look.sampling", "lot=100"));
    examples.forEach((name, in) -> {
      Worked w = work(name, in.split(" "));
      Sheet s =
          Catalogue.sheets().stream().filter(x -> x.name().equals(name)).findFirst().orElseThrow();
      s.results()
          .forEach(r -> assertTrue(w.results().containsKey(r.name()), name + " " + r.name()));
      assertFalse(w.lines().isEmpty());
      assertFalse(w.sources().isEmpty());
      w.lines().forEach(l -> assertFalse(l.display().isBlank()));
    });
  }
}
