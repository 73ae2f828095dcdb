package ell.cli;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/// Clocks, edges and lines through the command line: on a stick of half a metre, and on boards that
/// have nothing of the kind.
public final class PulseTest {
  private Path folder;
  private String ws;

  private static MainTest.Ran good(String... args) {
    MainTest.Ran r = MainTest.ell(args);
    assertEquals(r.code(), 0, String.join(" ", args) + "\n" + r.err() + r.out());
    return r;
  }

  private static MainTest.Ran bad(String says, String... args) {
    MainTest.Ran r = MainTest.ell(args);
    assertEquals(r.code(), 2, String.join(" ", args) + "\n" + r.err() + r.out());
    assertTrue(r.err().contains(says), r.err());
    return r;
  }

  private String made(String name, String files, int boards) throws IOException {
    String w = folder.resolve(name + ".ell").toString();
    good("new", w);
    List<String> args = new ArrayList<>(List.of("import", w, "--design", name, "--revision", "A"));
    try (var all = Files.list(Path.of(files))) {
      all.filter(p -> !p.toString().endsWith(".json"))
          .sorted()
          .forEach(p -> args.add(p.toString()));
    }
    good(args.toArray(String[]::new));
    good("build", w, "--design", name, "--revision", "A", "--boards", String.valueOf(boards));
    return w;
  }

  @BeforeClass
  public void theStaff() throws IOException {
    folder = Files.createTempDirectory("pulse");
    ws = made("staff", "../fixtures/staff", 2);
    good(
        "pulse",
        ws,
        "--say",
        "stack height=1.5mm er=4.3",
        "--say",
        "CLK clock=2MHz within=1000ppm family=tolerant3.3 from=R1.2 driver=25ohm edge=2.5ns"
            + " swing=3.3V");
    for (String b : List.of("01", "02")) {
      good("log", ws, "--board", b, "beep", "1", "open");
    }
  }

  /// The clock line is 454.5 mm from end to end and goes to each of four pins 4.445 mm aside; its
  /// taps lie where it does.
  @Test
  public void theCopperIsFollowed() {
    JsonNode o = MainTest.ell("line", ws, "CLK", "--json").json();
    assertTrue(o.get("followed").booleanValue());
    assertEquals(o.get("from").stringValue(), "R1.2");
    assertEquals(o.get("length").doubleValue(), 0.4545 + 7 * 0.004445, 2e-4);
    assertEquals(o.get("width").doubleValue(), 0.25e-3, 1e-9);
    double delay = o.get("delay").doubleValue();
    assertEquals(delay, o.get("length").doubleValue() / o.get("velocity").doubleValue(), 1e-13);
    assertEquals(o.get("to").size(), 4);
    assertEquals(o.get("to").get(3).get("at").doubleValue(), 1, 1e-9);
    JsonNode places = o.get("bounce").get("places");
    assertEquals(places.size(), 5);
    JsonNode end = places.get(4);
    double z = o.get("z0").doubleValue();
    assertEquals(end.get("peak").doubleValue(), 2 * 3.3 * z / (z + 25), 1e-3);
    assertEquals(end.get("crossings").intValue(), 2);
    assertEquals(end.get("verdict").stringValue(), "out");
    JsonNode window = o.get("bounce").get("window");
    assertTrue(window.get("low").doubleValue() < 110 && window.get("high").doubleValue() > 110);
    assertEquals(window.get("nearest").doubleValue(), 110, 1e-9);
    // the same step through the catalogue comes to the same
    JsonNode sheet =
        MainTest.ell(
                "calc",
                "line.bounce",
                "swing=3.3",
                "sourceResistance=25",
                "z0=" + z,
                "delay=" + delay,
                "riseTime=2.5ns",
                "vmax=5.5",
                "taps=none",
                "--json")
            .json();
    JsonNode last = sheet.get("results").get("places").get(1);
    assertEquals(last.get("peak").doubleValue(), end.get("peak").doubleValue(), 1e-9);
    assertEquals(last.get("dip").doubleValue(), end.get("dip").doubleValue(), 1e-9);
    assertEquals(MainTest.ell("line", ws, "CLK").code(), 1, "it does not hold");
    good("line", ws, "CLK", "--with", "series=110ohm");
  }

  /// The scope sees at the end what the line makes there; with the resistor it is gone; the fit
  /// finds the line again.
  @Test
  public void aCaptureIsTakenAndKept() throws IOException {
    MainTest.Ran r =
        MainTest.ell(
            "scope",
            ws,
            "--board",
            "01",
            "--place",
            "U4.2",
            "--sim",
            "--power",
            "--span",
            "1.2us",
            "--points",
            "1200",
            "--json");
    assertEquals(r.code(), 1, r.err());
    JsonNode o = r.json();
    assertEquals(o.get("verdict").stringValue(), "out");
    assertTrue(o.get("says").stringValue().contains("count twice"), o.get("says").toString());
    JsonNode channel = o.get("channels").get(0);
    assertEquals(channel.get("frequency").doubleValue(), 2e6, 500);
    assertTrue(channel.get("riseU").doubleValue() > 0);
    assertTrue(channel.get("peak").doubleValue() > 5);
    assertTrue(o.get("suspicions").toString().contains("rings"));
    JsonNode fit = MainTest.ell("line", ws, "CLK", "--fit", "01:U4.2", "--json").json().get("fit");
    double z = MainTest.ell("line", ws, "CLK", "--json").json().get("z0").doubleValue();
    assertEquals(fit.get("ratio").doubleValue(), 25 / z, 2 * fit.get("ratioU").doubleValue());
    String show = good("show", ws, "--board", "01").out();
    assertTrue(show.contains("U4.2 signal"), show);
    String out = folder.resolve("end.csv").toString();
    good("capture", ws, "--board", "01", "--place", "U4.2", "--out", out);
    JsonNode again = MainTest.ell("wave", out, "--family", "tolerant3.3", "--json").json();
    assertEquals(
        again.get("channels").get(0).get("doubleClocks").intValue(),
        channel.get("doubleClocks").intValue());
    bad("is there already", "capture", ws, "--board", "01", "--place", "U4.2", "--out", out);
    good("verify", ws);
    JsonNode list = MainTest.ell("pulse", ws, "--json").json();
    assertEquals(list.get("captures").get(0).get("place").stringValue(), "U4.2");
    // kept as a signature, another capture is known by it
    good(
        "pulse",
        ws,
        "--signature",
        "rings: no resistor",
        "--bad",
        "--board",
        "01",
        "--place",
        "U4.2",
        "--json");
    MainTest.Ran same =
        MainTest.ell("capture", ws, out, "--board", "02", "--place", "U4.2", "--json");
    assertEquals(same.code(), 1);
    assertEquals(same.json().get("says").stringValue(), "rings: no resistor");
    good(
        "pulse", ws, "--say", "no signature rings: no resistor", "--board", "02", "--place", "CLK");
  }

  @Test
  public void theInstrumentIsSuspected() throws IOException {
    String w = made("again", "../fixtures/staff", 1);
    good(
        "pulse",
        w,
        "--say",
        "CLK clock=2MHz within=1000ppm family=tolerant3.3 from=R1.2 driver=25ohm");
    String flat = MainTest.ell("scope", w, "--board", "01", "--place", "CLK", "--sim").out();
    assertTrue(flat.contains("no clock") && flat.contains("nothing but 0 V"), flat);
    bad("no power for board 01", "scope", w, "--board", "01", "--place", "CLK", "--sim", "--power");
    bad("no net and no joint", "scope", w, "--board", "01", "--place", "CLOCK", "--sim", "--power");
    bad("above 0", "scope", w, "--board", "01", "--place", "CLK", "--sim", "--span", "0");
    bad("which bench", "scope", w, "--board", "01", "--place", "CLK");
  }

  @DataProvider
  Object[][] odd() {
    return new Object[][] {
      {"shield", "LED1"}, {"cell", "SDA"}, {"panel", "CLK"},
    };
  }

  /// Boards without a word said, without copper, with two joints or hundreds: everything is told as
  /// a guess, and nothing is out.
  @Test(dataProvider = "odd")
  public void boardsOfAnotherKind(String name, String net) throws IOException {
    String w = made(name, "../fixtures/odd/" + name, 1);
    JsonNode p = MainTest.ell("pulse", w, "--json").json();
    p.get("places").forEach(x -> assertTrue(x.get("guesses").size() > 0, x.toString()));
    assertFalse(good("pulse", w).out().isBlank(), "silence is the worst answer");
    MainTest.Ran line = MainTest.ell("line", w, net, "--json");
    assertEquals(line.code(), 0, line.err() + line.out());
    JsonNode o = line.json();
    assertFalse(o.get("followed").booleanValue());
    assertTrue(o.get("told").toString().contains("a guess"));
    if (o.has("bounce")) {
      assertTrue(o.get("bounce").get("guessed").booleanValue());
    }
    JsonNode taken =
        MainTest.ell("scope", w, "--board", "01", "--place", net, "--sim", "--json").json();
    assertFalse(taken.has("verdict"), taken.toString());
  }

  @Test
  public void wrongWordsChangeNothing() {
    String before = MainTest.ell("pulse", ws, "--json").json().get("places").toString();
    bad("no net and no joint", "pulse", ws, "--say", "CLK rise=..9ns", "--say", "NOPE clock=1MHz");
    assertEquals(MainTest.ell("pulse", ws, "--json").json().get("places").toString(), before);
    bad("an empty line", "pulse", ws, "--say", " ");
    bad("no signal runs on it", "line", ws, "GND");
    bad("no file", "pulse", ws, "--families", "nowhere.csv");
    bad("say --board and --place", "pulse", ws, "--signature", "x");
    bad("BOARD:PLACE", "line", ws, "CLK", "--fit", "01");
    bad("no capture", "line", ws, "CLK", "--fit", "02:U1.2");
    bad("0 to 1", "line", ws, "CLK", "--with", "velocity=1.5");
    bad("give a capture file", "capture", ws, "--board", "01", "--place", "CLK");
    bad("no file", "capture", ws, "nowhere.csv", "--board", "01", "--place", "CLK");
  }

  private Path serial(int bits) throws IOException {
    StringBuilder text = new StringBuilder("increment,1e-6\nTX (V)\n");
    StringBuilder levels = new StringBuilder("1".repeat(50));
    for (char c : "Hi".toCharArray()) {
      levels.append('0');
      for (int i = 0; i < bits; i++) {
        levels.append(c >> i & 1);
      }
      levels.append("1111");
    }
    for (char l : levels.append("1".repeat(20)).toString().toCharArray()) {
      for (int i = 0; i < 26; i++) {
        text.append(String.format(Locale.ROOT, "%.2f%n", l == '1' ? 3.3 : 0.0));
      }
    }
    return Files.writeString(folder.resolve("tx.csv"), text);
  }

  @Test
  public void whatIsSaidOnALine() throws IOException {
    String f = serial(8).toString();
    JsonNode o = MainTest.ell("wave", f, "--decode", "uart", "--json").json();
    assertEquals(o.get("problems").intValue(), 0);
    assertEquals(o.get("decoded").get(0).get("value").intValue(), 'H');
    assertEquals(o.get("decoded").get(1).get("text").stringValue(), "0x69 'i'");
    assertTrue(o.get("told").toString().contains("38400 baud"), o.get("told").toString());
    assertTrue(
        good("wave", f, "--decode", "uart", "--baud", "38400").out().contains("nothing wrong"));
    assertTrue(
        MainTest.ell("wave", f, "--decode", "uart", "--baud", "57600", "--json")
                .json()
                .get("problems")
                .intValue()
            > 0);
    bad("uart, two-wire or spi", "wave", f, "--decode", "morse");
    bad("which channel is the data", "wave", f, "--decode", "two-wire", "--lines", "clock=TX");
    bad("no channel", "wave", f, "--decode", "uart", "--lines", "tx=RX");
    bad("there is no family", "wave", f, "--family", "ecl");
  }
}
