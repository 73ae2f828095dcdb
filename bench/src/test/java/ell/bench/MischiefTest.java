package ell.bench;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import ell.bench.instrument.Hands;
import ell.bench.instrument.Meter;
import ell.bench.instrument.Plate;
import ell.bench.instrument.Supply;
import ell.bench.link.BenchException;
import ell.bench.sim.Mischief;
import ell.bench.sim.SimBench;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Every way in which an instrument can misbehave, for every command: the answer is the right one,
/// or there is none and it is said why, within the time that was given. A wrong number is never
/// taken.
public final class MischiefTest {
  private static final int TIMEOUT = 300;

  /// A command may ask up to three times, each for an answer and for the error queue, and wait for
  /// silence in between.
  private static final long LONGEST_MILLIS = 4 * 6 * TIMEOUT;

  private static final double VOLTS = 5;
  private static final double LIMIT = 0.5;

  /// 5 V over 1 kΩ and 2.2 kΩ behind a regulator of 3.3 V, by hand: 3.3 V / 3.2 kΩ, and what the
  /// regulator takes itself.
  private static final double LEAST_AMPS = 3.3 / 3200 * 0.9;

  private static final double MOST_AMPS = 0.02;

  private SimBench sim;

  @BeforeMethod
  public void start() throws Exception {
    sim = SimBench.start(List.of(BenchTest.board("01")), 5);
  }

  @AfterMethod(alwaysRun = true)
  public void stop() {
    sim.close();
  }

  private Bench bench() {
    return new Bench("simulated bench", sim.addresses(), TIMEOUT, false);
  }

  private interface Command {
    void run() throws BenchException;
  }

  private interface Measure {
    double run() throws BenchException;
  }

  @DataProvider
  Object[][] all() {
    return EnumSet.allOf(Mischief.class).stream()
        .map(m -> new Object[] {m})
        .toArray(Object[][]::new);
  }

  /// What cannot be told from the truth by one instrument alone: a run has to find it out, and
  /// does, by what the board must draw and by what was set.
  private static final Map<Mischief, Set<String>> LIES = new EnumMap<>(Mischief.class);

  static {
    LIES.put(Mischief.LIE, Set.of("amps"));
    LIES.put(Mischief.TRIPLE, Set.of("volts"));
    LIES.put(Mischief.SPIKES, Set.of("amps"));
  }

  @Test(dataProvider = "all", timeOut = 60_000)
  public void everyMeasurementIsRightOrIsNone(Mischief m) throws Exception {
    try (Supply supply = bench().need(Supply.KIND);
        Meter meter = bench().need(Meter.KIND);
        Hands hands = bench().need(Hands.KIND)) {
      hands.lay("01");
      supply.makeSafe();
      supply.set(VOLTS, LIMIT);
      hands.touch("R1.1", "J1.2");
      supply.output(true);
      sim.instrument("supply").mischief(m);
      sim.instrument("meter").mischief(m);
      Map<String, Measure> measures = new LinkedHashMap<>();
      measures.put("volts", supply::volts);
      measures.put("amps", supply::amps);
      measures.put("dc", meter::dcVolts);
      List<String> answered = new ArrayList<>();
      for (int round = 0; round < 3; round++) {
        for (Map.Entry<String, Measure> x : measures.entrySet()) {
          long from = System.nanoTime();
          try {
            double got = x.getValue().run();
            answered.add(x.getKey());
            if (!LIES.getOrDefault(m, Set.of()).contains(x.getKey())) {
              right(x.getKey(), got, m);
            }
          } catch (BenchException e) {
            assertTrue(
                e.getMessage().contains(x.getKey().equals("dc") ? "meter" : "supply")
                    || e.getMessage().contains("127.0.0.1"),
                e.getMessage());
          }
          long millis = (System.nanoTime() - from) / 1_000_000;
          assertTrue(millis < LONGEST_MILLIS, m + " " + x.getKey() + " took " + millis);
        }
      }
      boolean mute =
          EnumSet.of(
                  Mischief.HANG,
                  Mischief.GARBAGE,
                  Mischief.VANISH,
                  Mischief.SLOW,
                  Mischief.DRIP,
                  Mischief.ENDLESS,
                  Mischief.NO_READING,
                  Mischief.ODD_NUMBER)
              .contains(m);
      assertEquals(answered.isEmpty(), mute, m + " answered " + answered);
    }
  }

  private static void right(String what, double got, Mischief m) {
    switch (what) {
      case "volts" -> assertEquals(got, VOLTS, 0.05, m.toString());
      case "dc" -> assertEquals(got, 3.3, 0.1, m.toString());
      default -> assertTrue(got >= LEAST_AMPS && got <= MOST_AMPS, m + ": " + got + " A");
    }
  }

  @Test(dataProvider = "all", timeOut = 60_000)
  public void everyCommandIsTakenOrRefused(Mischief m) throws Exception {
    try (Supply supply = bench().need(Supply.KIND);
        Hands hands = bench().need(Hands.KIND)) {
      hands.lay("01");
      supply.makeSafe();
      sim.instrument("supply").mischief(m);
      Map<String, Command> commands = new LinkedHashMap<>();
      commands.put("set", () -> supply.set(VOLTS, LIMIT));
      commands.put("on", () -> supply.output(true));
      commands.put("off", () -> supply.output(false));
      commands.put("safe", supply::makeSafe);
      for (Map.Entry<String, Command> c : commands.entrySet()) {
        boolean taken;
        try {
          c.getValue().run();
          taken = true;
        } catch (BenchException e) {
          taken = false;
        }
        if (taken && c.getKey().equals("on")) {
          assertTrue(sim.outputOn(), m + ": it said that it is on");
        }
        // switching by itself asks for the state only; that it is off is asked of what is measured
        boolean blind = m == Mischief.FALSE_OFF && c.getKey().equals("off");
        if (taken && (c.getKey().equals("off") || c.getKey().equals("safe")) && !blind) {
          assertFalse(sim.outputOn(), m + ": it said that it is off after " + c.getKey());
        }
      }
    }
  }

  /// OFF is believed only when the supply says so and measures nothing.
  @Test(dataProvider = "all", timeOut = 60_000)
  public void offIsConfirmedOrNot(Mischief m) throws Exception {
    try (Supply supply = bench().need(Supply.KIND);
        Hands hands = bench().need(Hands.KIND)) {
      hands.lay("01");
      supply.makeSafe();
      supply.set(VOLTS, 0.05);
      supply.output(true);
      sim.instrument("supply").mischief(m);
      Optional<String> problem = supply.off();
      if (problem.isEmpty()) {
        assertFalse(sim.outputOn(), m + ": confirmed, and it is on");
      }
      boolean obeys =
          EnumSet.of(
                  Mischief.NONE,
                  Mischief.LIE,
                  Mischief.LINE_BEFORE,
                  Mischief.LINE_BEHIND,
                  Mischief.TRIPLE,
                  Mischief.CARELESS)
              .contains(m);
      if (obeys) {
        assertEquals(problem, Optional.empty(), m.toString());
      }
      if (m == Mischief.STUCK_ON) {
        assertTrue(problem.orElseThrow().contains("still on"), problem.toString());
      }
    }
  }

  /// With a load the current shows a supply that lies about being off; without one the volts do.
  @Test(timeOut = 30_000)
  public void aFalseOffShowsByTheCurrent() throws Exception {
    sim.close();
    sim =
        SimBench.start(
            List.of(BenchTest.board("01", new ell.core.power.Fault.Bridge("3V3", "GND", 20))), 5);
    try (Supply supply = bench().need(Supply.KIND);
        Hands hands = bench().need(Hands.KIND)) {
      hands.lay("01");
      supply.makeSafe();
      supply.set(VOLTS, LIMIT);
      supply.output(true);
      sim.instrument("supply").mischief(Mischief.FALSE_OFF);
      assertTrue(sim.outputOn());
      Optional<String> problem = supply.off();
      assertTrue(problem.orElse("").contains("measures"), problem.toString());
    }
  }

  /// One line too many, once, in front of any question: the answers are not shifted.
  @Test(timeOut = 30_000)
  public void oneLineTooManyShiftsNothing() throws Exception {
    try (Supply supply = bench().need(Supply.KIND);
        Meter meter = bench().need(Meter.KIND);
        Hands hands = bench().need(Hands.KIND)) {
      hands.lay("01");
      supply.makeSafe();
      supply.set(VOLTS, LIMIT);
      supply.output(true);
      hands.touch("R1.1", "J1.2");
      for (Mischief m : List.of(Mischief.LINE_BEFORE, Mischief.LINE_BEHIND)) {
        sim.instrument("meter").mischief(m);
        for (int i = 0; i < 10; i++) {
          assertEquals(meter.dcVolts(), 3.3, 0.1, m + " round " + i);
        }
        sim.instrument("meter").mischief(Mischief.NONE);
      }
    }
  }

  @Test(dataProvider = "all", timeOut = 60_000)
  public void thePlateGoesOffOrSaysThatItDidNot(Mischief m) throws Exception {
    try (Plate plate = bench().need(Plate.KIND)) {
      plate.makeSafe();
      plate.set(100);
      plate.output(true);
      double before = plate.celsius("PLATE");
      assertTrue(before > -10 && before < 120, "a plate that was just switched on: " + before);
      sim.instrument("plate").mischief(m);
      long from = System.nanoTime();
      boolean sure = plate.offAtAnyCost();
      assertTrue((System.nanoTime() - from) / 1_000_000 < LONGEST_MILLIS, m.toString());
      boolean deaf =
          EnumSet.of(
                  Mischief.HANG,
                  Mischief.GARBAGE,
                  Mischief.VANISH,
                  Mischief.SLOW,
                  Mischief.DRIP,
                  Mischief.ENDLESS)
              .contains(m);
      if (deaf) {
        assertFalse(sure, m + " cannot have confirmed anything");
      }
    }
  }
}
