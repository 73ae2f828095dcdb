package ell.cli;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import ell.bench.sim.Mischief;
import ell.work.Workshop;
import ell.work.bench.SimulatedBench;
import java.io.BufferedReader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/// First power in a program of its own, which is killed in the middle: the output goes off, and the
/// book says that it may be on until somebody confirms that it is not.
public final class PowerKillTest {
  @BeforeClass
  public void demo() {
    System.setProperty("ell.demo", "../fixtures/marram");
  }

  private static Process power(Path ws, Map<String, String> at) throws Exception {
    List<String> command =
        new ArrayList<>(
            List.of(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "--enable-native-access=ALL-UNNAMED",
                "-XX:TieredStopAtLevel=1",
                "-cp",
                System.getProperty("java.class.path"),
                Main.class.getName(),
                "power",
                ws.toString(),
                "--board",
                "07",
                "--go"));
    for (String kind : List.of("supply", "meter", "hands")) {
      command.add("--" + kind);
      command.add(at.get(kind));
    }
    return new ProcessBuilder(command).redirectError(ProcessBuilder.Redirect.DISCARD).start();
  }

  @Test(timeOut = 120_000)
  public void aKilledRunIsOffAndTheBookSaysWhatItKnows() throws Exception {
    Path folder = Files.createTempDirectory("killed");
    Path ws = folder.resolve("ws.ell");
    assertEquals(MainTest.ell("demo-workspace", ws.toString()).code(), 0);
    SimulatedBench sim;
    try (Workshop w = Workshop.look(ws)) {
      sim = SimulatedBench.start(w, 3);
    }
    try {
      sim.servers().instrument("supply").mischief(Mischief.CARELESS);
      Process p = power(ws, sim.bench().addresses());
      BufferedReader out = p.inputReader();
      String first = out.readLine();
      while (first != null && first.startsWith("must be so: ")) {
        first = out.readLine();
      }
      assertTrue(first != null && first.contains("taken as so before first power"), first);
      first = out.readLine();
      assertTrue(first != null && first.contains("supply to go on"), first);
      String second = out.readLine();
      assertTrue(second != null && second.contains("supply on"), second);
      p.destroyForcibly().waitFor();
      long from = System.nanoTime();
      while (sim.servers().outputOn() && System.nanoTime() - from < 20_000_000_000L) {
        Thread.sleep(5);
      }
      assertTrue(System.nanoTime() - from < 1_000_000_000L, "off within a second");
      whatItSays(ws, true);
      MainTest.Ran off =
          MainTest.ell(
              "power",
              ws.toString(),
              "--board",
              "07",
              "--off",
              "--supply",
              sim.bench().addresses().get("supply"),
              "--json");
      assertEquals(off.code(), 0, off.err());
      assertFalse(off.json().get("entry").get("on").booleanValue());
      whatItSays(ws, false);
    } finally {
      sim.close();
    }
    assertEquals(MainTest.ell("verify", ws.toString()).code(), 0);
  }

  private static void whatItSays(Path ws, boolean mayBeOn) {
    String words = MainTest.ell("show", ws.toString()).out().lines().findFirst().orElseThrow();
    assertEquals(words.startsWith("THE OUTPUT MAY BE ON: Board 07"), mayBeOn, words);
    for (String[] more : new String[][] {{}, {"--board", "03"}}) {
      List<String> args = new ArrayList<>(List.of("show", ws.toString(), "--json"));
      args.addAll(List.of(more));
      JsonNode show = MainTest.ell(args.toArray(String[]::new)).json();
      assertEquals(show.has("mayBeOn"), mayBeOn);
      if (mayBeOn) {
        assertEquals(show.get("mayBeOn").get(0).get("board").stringValue(), "07");
      }
    }
  }

  /// No supply, two wishes at once, a board that is not there: refused, and nothing is logged.
  @Test
  public void offIsRefusedWhereItCannotBe() throws Exception {
    Path ws = Files.createTempDirectory("off").resolve("ws.ell");
    MainTest.ell("demo-workspace", ws.toString());
    int before = MainTest.ell("verify", ws.toString(), "--json").json().get("entries").intValue();
    for (String[] wrong :
        new String[][] {
          {"--off", "--sim"},
          {"--board", "07", "--off"},
          {"--board", "07", "--off", "--go", "--sim"},
          {"--board", "nobody", "--off", "--sim"},
          {"--board", "07", "--off", "--supply", "127.0.0.1:99999"},
          {"--board", "07", "--off", "--supply", "127.0.0.1:1", "--timeout", "0"},
        }) {
      List<String> args = new ArrayList<>(List.of("power", ws.toString()));
      args.addAll(List.of(wrong));
      MainTest.Ran r = MainTest.ell(args.toArray(String[]::new));
      assertEquals(r.code(), 2, args + ": " + r.out());
      assertFalse(r.err().isBlank());
      assertFalse(r.err().contains("Exception"), r.err());
    }
    assertEquals(
        MainTest.ell("verify", ws.toString(), "--json").json().get("entries").intValue(), before);
  }
}
