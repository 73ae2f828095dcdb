package ell.bench;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import ell.bench.guard.GuardedLink;
import ell.bench.instrument.Supply;
import ell.bench.link.Address;
import ell.bench.link.BenchException;
import ell.bench.sim.Mischief;
import ell.bench.sim.SimBench;
import java.io.BufferedReader;
import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/// The watchdog process over a supply that does nothing by itself: whatever happens to the program
/// that switched it on, it is off within a second.
public final class GuardTest {
  private static final long SECOND = 1_000_000_000L;
  private SimBench sim;

  @BeforeMethod
  public void start() throws Exception {
    sim = SimBench.start(List.of(BenchTest.board("01")), 5);
    sim.layDown("01");
    sim.instrument("supply").mischief(Mischief.CARELESS);
  }

  @AfterMethod(alwaysRun = true)
  public void stop() {
    sim.close();
  }

  private Process victim(String what) throws IOException {
    Process p =
        new ProcessBuilder(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-XX:TieredStopAtLevel=1",
                "-cp",
                System.getProperty("java.class.path"),
                GuardVictim.class.getName(),
                sim.addresses().get("supply"),
                what)
            .redirectError(ProcessBuilder.Redirect.INHERIT)
            .start();
    BufferedReader out = p.inputReader();
    assertEquals(out.readLine(), "on");
    return p;
  }

  private long untilOff() throws InterruptedException {
    long from = System.nanoTime();
    while (sim.outputOn() && System.nanoTime() - from < 30 * SECOND) {
      Thread.sleep(2);
    }
    return System.nanoTime() - from;
  }

  @Test(timeOut = 120_000)
  public void aKilledProgramLeavesNothingOn() throws Exception {
    Random random = new Random(9);
    for (int i = 0; i < 6; i++) {
      Process p = victim("look");
      assertTrue(sim.outputOn());
      Thread.sleep(random.nextInt(60));
      p.destroyForcibly();
      long took = untilOff();
      assertTrue(took < 5 * SECOND, "off after " + took / 1_000_000 + " ms");
      p.waitFor(5, TimeUnit.SECONDS);
    }
  }

  @Test(timeOut = 60_000)
  public void aProgramThatJustEndsLeavesNothingOn() throws Exception {
    Process p = victim("end");
    long took = untilOff();
    assertTrue(took < 5 * SECOND, "off after " + took / 1_000_000 + " ms");
    assertTrue(p.waitFor(10, TimeUnit.SECONDS));
    assertEquals(p.exitValue(), 3);
  }

  /// Who speaks to the supply is off when the link is let go of, and a second time nothing breaks.
  @Test(timeOut = 60_000)
  public void lettingGoSwitchesOff() throws Exception {
    Bench bench = new Bench("bench", Map.of("supply", sim.addresses().get("supply")), 1000);
    Supply s = bench.guard(Supply.KIND);
    s.makeSafe();
    s.set(5, 0.5);
    s.output(true);
    assertEquals(s.volts(), 5, 0.05);
    s.close();
    assertFalse(sim.outputOn());
    s.close();
    assertTrue(expectThrows(BenchException.class, s::volts).getMessage().contains("watchdog"));
  }

  /// The watchdog carries what the instrument says, and what it refuses, to the letter.
  @Test(timeOut = 60_000)
  public void theWatchdogCarriesEverything() throws Exception {
    String[] at = sim.addresses().get("supply").split(":");
    try (GuardedLink link = GuardedLink.connect(new Address(at[0] + ":" + at[1]), 500)) {
      assertTrue(link.ask("*IDN?").contains("simulated supply"));
      link.send("NONSENSE 1");
      assertTrue(link.ask("SYST:ERR?").startsWith("-113"));
      assertEquals(link.where(), sim.addresses().get("supply"));
      link.patience(200);
      sim.instrument("supply").mischief(Mischief.HANG);
      BenchException e = expectThrows(BenchException.class, () -> link.ask("*IDN?"));
      assertTrue(e.getMessage().contains("within 200 ms"), e.getMessage());
      sim.instrument("supply").mischief(Mischief.CARELESS);
      link.resync();
      assertTrue(link.ask("*IDN?").contains("simulated supply"), "the link was not given up");
    }
  }

  @Test(timeOut = 60_000)
  public void nothingThereIsSaid() throws Exception {
    int free;
    try (ServerSocket s = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
      free = s.getLocalPort();
    }
    BenchException e =
        expectThrows(
            BenchException.class, () -> GuardedLink.connect(new Address("127.0.0.1:" + free), 500));
    assertTrue(e.getMessage().contains("no instrument answers"), e.getMessage());
    Bench none = new Bench("bench", Map.of(), 500);
    assertTrue(
        expectThrows(BenchException.class, () -> none.guard(Supply.KIND))
            .getMessage()
            .contains("there is no supply"));
  }
}
