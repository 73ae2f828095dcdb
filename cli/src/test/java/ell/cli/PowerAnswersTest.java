package ell.cli;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import ell.work.demo.DemoWorkspace;
import java.nio.file.Files;
import java.nio.file.Path;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/// Bands of rails, a cell that charges, a short by a forced current, a helper: at the command line.
public final class PowerAnswersTest {
  private String ws;

  @BeforeClass
  public void workspace() throws Exception {
    Path file = Files.createTempDirectory("ell-answers").resolve("ws.ell");
    DemoWorkspace.make(file, Path.of("../fixtures/marram"), true).close();
    ws = file.toString();
  }

  private static void refused(String says, String... args) {
    MainTest.Ran r = MainTest.ell(args);
    assertEquals(r.code(), 2, r.out());
    assertTrue(r.err().contains(says), r.err());
  }

  @Test
  public void bandsHoldTheirNominals() {
    JsonNode o = MainTest.ell("power", ws, "--board", "07", "--bands", "--json").json();
    assertEquals(o.get("state").stringValue(), "boot");
    assertTrue(o.get("rails").size() > 5);
    for (JsonNode rail : o.get("rails")) {
      for (String what : new String[] {"volts", "current"}) {
        JsonNode b = rail.get(what);
        double nominal = b.get("nominal").doubleValue();
        assertTrue(
            b.get("low").doubleValue() <= nominal && nominal <= b.get("high").doubleValue(),
            rail.toString());
      }
    }
    assertTrue(MainTest.ell("power", ws, "--board", "07", "--bands").out().contains("95 of 100"));
    refused("unknown state", "power", ws, "--board", "07", "--bands", "--state", "asleep");
    refused("one of", "power", ws, "--board", "07", "--bands", "--dry");
  }

  @Test
  public void aCellIsJudgedByTheBookOrRefused() {
    refused(
        "none that is charged",
        "charge",
        ws,
        "--board",
        "07",
        "--cell",
        "BT1",
        "--capacity",
        "1Ah");
    refused("no cell or net", "charge", ws, "--board", "07", "--cell", "BT9", "--capacity", "1Ah");
    refused("is no cell", "charge", ws, "--board", "07", "--cell", "R5", "--capacity", "1Ah");
    refused("--capacity", "charge", ws, "--board", "06", "--cell", "5V0");
    refused("expected C", "charge", ws, "--board", "06", "--cell", "5V0", "--capacity", "3V");
    refused("--every", "charge", ws, "--board", "06", "--cell", "5V0", "--looks", "3");
    String[] charge = {
      "charge", ws, "--board", "10", "--cell", "5V0", "--capacity", "100mAh", "--json"
    };
    assertEquals(MainTest.ell(charge).json().get("phase").stringValue(), "unknown");
    MainTest.ell("log", ws, "--board", "10", "5V0 50mA");
    MainTest.ell("log", ws, "--board", "10", "5V0 3.9");
    JsonNode steady = MainTest.ell(charge).json();
    assertEquals(steady.get("phase").stringValue(), "steady");
    // 3.9 V less 50 mA over 150 mΩ, of 3.0 to 4.2 V
    assertEquals(steady.get("share").doubleValue(), (3.9 - 0.0075 - 3) / 1.2, 1e-9);
    MainTest.ell("log", ws, "--board", "10", "5V0 4.5");
    MainTest.Ran over =
        MainTest.ell("charge", ws, "--board", "10", "--cell", "5V0", "--capacity", "100mAh");
    assertEquals(over.code(), 1);
    assertTrue(over.out().contains("STOP"), over.out());
  }

  @Test
  public void aForcedCurrentIsHeldToItsBounds() {
    String[] of = {"beep", ws, "--board", "04", "--short", "3V3", "GND", "--feed"};
    refused("a joint of 3V3 or GND", with(of, "J1.1=100mA", "--at", "U4.18=2mV"));
    refused("above 0 A", with(of, "U4.18=5A", "--at", "U4.18=2mV"));
    refused("goes with the volts", with(of, "U4.18=100mA"));
    refused("makes no more than", with(of, "U4.18=100mA", "--at", "U4.30=2V"));
    refused("is in", with(of, "U4.18=100mA", "--at", "U4.30=2ohm"));
    refused("go with --short", "beep", ws, "--board", "04", "--feed", "U4.18=100mA");
  }

  private static String[] with(String[] base, String... more) {
    String[] all = java.util.Arrays.copyOf(base, base.length + more.length);
    System.arraycopy(more, 0, all, base.length, more.length);
    return all;
  }

  @Test
  public void aHelperIsToldAtTheCommandLine() {
    refused("go with --go", "power", ws, "--board", "06", "--dry", "--so");
    assertEquals(MainTest.ell("beep", ws, "--board", "06", "--go", "--sim").code(), 0);
    refused("it must be so", "power", ws, "--board", "06", "--go", "--sim", "--helper", "Ben");
    // the demo's maker has read six of eight rails, and no board to its end
    refused(
        "the maker has not brought",
        with(
            new String[] {"power", ws, "--board", "06", "--go", "--sim"},
            "--helper",
            "Ben",
            "--so"));
  }
}
