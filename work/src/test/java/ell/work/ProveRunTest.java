package ell.work;

import static ell.work.ProofBoards.PLAN;
import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import ell.bench.Bench;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.power.PowerFacts;
import ell.core.prove.Intermittent;
import ell.core.prove.PlanProposal;
import ell.core.prove.PlanReader;
import ell.core.prove.ProveFacts;
import ell.core.prove.TestPlan;
import ell.core.quantity.Verdict;
import ell.core.rack.Plan;
import ell.work.prove.ProofTold;
import ell.work.prove.ProveBench;
import ell.work.prove.ProveRun;
import ell.work.space.ActException;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Test plans run over simulated boards: good ones, bad ones, people who do not answer, runs that
/// are cut off, and instruments that misbehave.
public class ProveRunTest {
  @Test(timeOut = 120_000)
  public void aGoodBoardPasses() throws Exception {
    try (ProofBoards.One one = new ProofBoards.One("07")) {
      ProveRun.Done d = one.go(PLAN);
      assertTrue(d.ended());
      assertEquals(d.run().verdict().orElseThrow(), Verdict.WITHIN, d.run().made().toString());
      assertEquals(d.run().made().size(), 10);
      assertTrue(one.off());
      Entry.ProofStep rail = one.step(d, "3V3");
      assertEquals(rail.value().orElseThrow(), 3.3, 0.05);
      assertTrue(rail.limits().orElseThrow().low() > 3.1);
      assertTrue(rail.uncertainty().orElseThrow() > 0.01);
      // what was read is in the book as a reading, too, and stands before the step that judges it
      List<Logged> log = one.w.entries("07");
      int step = log.indexOf(d.run().steps().get(3));
      assertTrue(log.get(step - 1).entry() instanceof Entry.Reading r && r.place().equals("3V3"));
      assertFalse(PowerFacts.of(one.w.state("07")).mayBeOn());
      assertEquals(ProofTold.of(one.w.state("07")).orElseThrow().word(), "PASS");
      assertTrue(ProveFacts.of(one.w.state("07")).proved());
      Entry.ProofEnded end = (Entry.ProofEnded) d.run().ended().orElseThrow().entry();
      assertTrue(end.minutes() > 0 && end.minutes() < 2, "" + end.minutes());
      // something is changed on it: it is not proved any more
      one.w.type("07", "R9 replaced").orThrow();
      assertFalse(ProveFacts.of(one.w.state("07")).proved());
    }
  }

  @DataProvider
  Object[][] faults() {
    return new Object[][] {
      // the fault, the step that shows it, steps that are left out because of it
      {"bridge 3V3 GND 0.5ohm", "3V3 to GND", 0},
      {"open U2.1", "3V3", 1},
      {"missing FB1", "3V3A", 0},
    };
  }

  @Test(dataProvider = "faults", timeOut = 120_000)
  public void aBadBoardFailsWhereItIsBad(String fault, String shows, int left) throws Exception {
    try (ProofBoards.One one = new ProofBoards.One("07", fault)) {
      ProveRun.Done d = one.go(PLAN);
      assertEquals(d.run().verdict().orElseThrow(), Verdict.OUT);
      assertEquals(one.step(d, shows).verdict().orElseThrow(), Verdict.OUT, fault);
      assertTrue(one.off());
      assertEquals(
          d.run().made().stream().filter(Entry.ProofStep::left).count(),
          left,
          d.run().made().toString());
      assertFalse(one.w.state("07").findings().isEmpty(), "it is a finding");
      ProofTold t = ProofTold.of(one.w.state("07")).orElseThrow();
      assertEquals(t.word(), "PUT ASIDE");
      assertTrue(t.ticket().getFirst().startsWith("entry "), t.ticket().toString());
    }
  }

  /// Nobody answers, a step is left out, the person says no.
  @Test(timeOut = 120_000)
  public void whatIsNotKnownIsNotDecided() throws Exception {
    try (ProofBoards.One one = new ProofBoards.One("07")) {
      one.answers.clear();
      ProveRun.Done d = one.go(PLAN);
      assertEquals(d.run().verdict().orElseThrow(), Verdict.CLOSE);
      assertTrue(one.step(d, "lamp").left());
      assertTrue(one.step(d, "lamp").words().contains("nobody answered"));
      assertEquals(ProofTold.of(one.w.state("07")).orElseThrow().word(), "ASK");
      assertTrue(one.w.state("07").findings().isEmpty(), "nobody is accused");

      one.answers.put("lamp", "no");
      d = one.go(PLAN);
      assertEquals(d.run().verdict().orElseThrow(), Verdict.OUT);
      assertTrue(
          one.w.state("07").findings().stream().anyMatch(f -> f.place().equals("test lamp")));

      one.answers.put("lamp", "yes");
      one.begins =
          t -> {
            if (t.step().name().equals("5V0")) {
              try {
                assertTrue(
                    expectThrows(ActException.class, () -> one.run.skip(" "))
                        .getMessage()
                        .contains("reason"));
                one.run.skip("the tip is broken");
              } catch (IOException | ActException e) {
                throw new AssertionError(e);
              }
            }
          };
      d = one.go(PLAN);
      assertEquals(one.step(d, "5V0").words(), "by hand: the tip is broken");
      assertEquals(d.run().verdict().orElseThrow(), Verdict.CLOSE);
      assertTrue(one.w.state("07").findings().isEmpty(), "the lamp is lit now");
    }
  }

  /// A step that was made is made again: what it showed is struck, and counts no more.
  @Test(timeOut = 120_000)
  public void aStepIsMadeAgain() throws Exception {
    try (ProofBoards.One one = new ProofBoards.One("07")) {
      one.answers.put("lamp", "no");
      boolean[] once = {false};
      one.begins =
          t -> {
            if (t.step().name().equals("lamp") && once[0]) {
              // it was looked at from the wrong side before
              one.answers.put("lamp", "yes");
            } else if (t.step().name().equals("lamp")) {
              try {
                one.run.pause(true);
                one.run.repeat();
              } catch (IOException | ActException e) {
                throw new AssertionError(e);
              }
              once[0] = true;
              Thread.ofVirtual()
                  .start(() -> {
                    try {
                      Thread.sleep(400);
                    } catch (InterruptedException e) {
                      Thread.currentThread().interrupt();
                    }
                    one.run.pause(false);
                  });
            }
          };
      ProveRun.Done d = one.go(PLAN);
      assertEquals(d.run().verdict().orElseThrow(), Verdict.WITHIN, d.run().made().toString());
      assertEquals(d.run().made().size(), 10);
      assertEquals(one.order.stream().filter("lamp"::equals).count(), 2);
      assertTrue(
          one.w.entries("07").stream()
              .anyMatch(l -> l.entry() instanceof Entry.Strike s && s.why().equals("made again")));
    }
  }

  /// A plan that cannot run is refused whole, before anything is switched on.
  @Test
  public void whatCannotRunIsRefused() throws Exception {
    try (ProofBoards.One one = new ProofBoards.One("07")) {
      Map<String, String> bad =
          Map.of(
              "volts NOWHERE", "no net",
              "power\nvolts NOWHERE", "no net, joint or test point 'NOWHERE'",
              "volts 3V3", "the board has no power here",
              "power\nohms 3V3 GND", "ohms are read without power",
              "power\namps 3V3", "no source of the ladder",
              "power\nset VIN_RAW 40V", "bears",
              "power\nfeel X99", "no part 'X99'",
              "power\ntalk nothing", "no script 'nothing' is kept",
              "link R1 open", "is no link",
              "power\nvolts U4", "several nets");
      for (Map.Entry<String, String> e : bad.entrySet()) {
        String is = expectThrows(ActException.class, () -> one.go(e.getKey())).getMessage();
        assertTrue(is.contains(e.getValue()), is);
      }
      Bench poor =
          new Bench(
              "poor", Map.of("supply", one.sim.bench().addresses().get("supply")), 1500, false);
      String is =
          expectThrows(
                  ActException.class,
                  () ->
                      new ProveRun(
                          one.w.proving(),
                          one.plan,
                          PlanReader.read(PLAN, "x"),
                          "07",
                          new ProveBench(poor, Optional.empty(), ""),
                          one))
              .getMessage();
      assertTrue(is.contains("there is no meter on this bench"), is);
      assertTrue(ProveFacts.of(one.w.state("07")).runs().isEmpty(), "nothing is logged");
    }
  }

  /// A joint that holds at some tries: the loop counts, and the board is not believed to be mended
  /// before enough clean tries.
  @Test(timeOut = 180_000)
  public void whatComesAndGoesIsCounted() throws Exception {
    try (ProofBoards.One one = new ProofBoards.One("07", "sometimes 0.5 open FB1.2")) {
      String loop = "plan loop\nloop 16\npower\nvolts 3V3A\noff\nend\n";
      ProveRun.Done d = one.go(loop);
      long bad =
          d.run().made().stream()
              .filter(s -> s.name().equals("3V3A"))
              .filter(s -> s.verdict().orElseThrow() == Verdict.OUT)
              .count();
      assertTrue(bad > 0 && bad < 16, bad + " of 16");
      Intermittent i =
          Intermittent.of(one.w.state("07")).stream()
              .filter(x -> x.what().equals("test 3V3A"))
              .findFirst()
              .orElseThrow();
      assertEquals(i.bad(), bad);
      assertTrue(i.tries() <= 16);
      assertTrue(i.needed(0.95) > i.clean() || i.sure() > 0.95);
      String missing = one.w.proofs().gate(one.plan, one.w.state("07")).why().orElseThrow();
      assertEquals(
          missing.contains("test 3V3A: bad at " + bad), i.clean() < i.needed(0.95), missing);
    }
  }

  @Test(timeOut = 120_000)
  public void aSourceAtOtherVolts() throws Exception {
    try (ProofBoards.One one = new ProofBoards.One("07")) {
      ProveRun.Done d =
          one.go(
              "plan corners\npower\nset VIN_RAW 9.5V\nvolts VIN_RAW 9.4V..9.6V\nvolts 5V0\nset VIN_RAW 13.5V\nvolts"
                  + " VIN_RAW 13.3V..13.7V name=high\nvolts 3V3\noff\n");
      assertEquals(d.run().verdict().orElseThrow(), Verdict.WITHIN, d.run().made().toString());
      assertTrue(one.off());
    }
  }

  /// Patterns on outputs by what the program is told: good outputs read back, a bridge and a stuck
  /// line show, and where the inputs' thresholds are a guess nothing is judged.
  @Test(timeOut = 240_000)
  public void patternsOnOutputs() throws Exception {
    for (String[] c :
        new String[][] {
          {"", "within"},
          {"bridge FL_CS AD_CS 0.5ohm", "out"},
          {"bridge RAD_EN GND 0.5ohm", "out"},
        }) {
      try (ProofBoards.One one =
          c[0].isEmpty() ? new ProofBoards.One("07") : new ProofBoards.One("07", c[0])) {
        List<String> nets = List.of("FL_CS", "AD_CS", "RAD_EN");
        one.w.pulses().say("MG-1", "B", nets.stream().map(n -> n + " family=cmos3.3").toList());
        Path image = Files.createTempDirectory("image").resolve("out.txt");
        Files.writeString(image, "ELLSIM 1\nfirmware 9\n");
        Path script = image.resolveSibling("load.json");
        Files.writeString(
            script, "{\"name\":\"load\",\"steps\":[{\"load\":\"out.txt\",\"retries\":2}]}");
        one.w.scripts().keep("MG-1", "B", script);
        Plan again = one.w.plan(one.w.buildOf("07"));
        ProveRun run =
            new ProveRun(
                one.w.proving(),
                again,
                PlanReader.read(
                    "plan out\npower\ntalk load\nwait 0.5s\npattern counting FL_CS,AD_CS,RAD_EN"
                        + " send=\"out {vector} FL_CS,AD_CS,RAD_EN\"\noff\n",
                    "x"),
                "07",
                one.bench(),
                one);
        ProveRun.Done d = run.run(false);
        Entry.ProofStep s = one.step(d, "counting pattern");
        assertEquals(
            s.verdict().map(Verdict::key).orElse("none"), c[1], c[0] + ": " + d.run().made());
        assertTrue(one.off());
      }
    }
  }

  /// A helper proves by a plan that the maker has shown to work, and leaves nothing out.
  @Test(timeOut = 180_000)
  public void aHelperDoesNoHarm() throws Exception {
    try (ProofBoards.One one = new ProofBoards.One("07")) {
      one.w.type("07", "hands Kim helper").orThrow();
      assertTrue(
          expectThrows(ActException.class, () -> one.go(PLAN))
              .getMessage()
              .contains("has not passed another board"));
      // the maker passes another board by the same plan, typed or run: here one that is read
      one.w.type("06", "hands Ann").orThrow();
      ProofBoards.One shown = one;
      ProveRun other =
          new ProveRun(
              shown.w.proving(),
              shown.plan,
              PlanReader.read("plan bench\nohms 3V3 GND 100ohm.. fails=stop\n", "x"),
              "06",
              shown.bench(),
              shown);
      assertEquals(other.run(false).run().verdict().orElseThrow(), Verdict.WITHIN);
      ProveRun mine =
          new ProveRun(
              shown.w.proving(),
              shown.plan,
              PlanReader.read("plan bench\nohms 3V3 GND 100ohm.. fails=stop\n", "x"),
              "07",
              shown.bench(),
              shown);
      assertEquals(mine.run(false).run().verdict().orElseThrow(), Verdict.WITHIN);
      assertTrue(
          expectThrows(ActException.class, () -> mine.skip("no time"))
              .getMessage()
              .contains("call the maker"));
      assertTrue(
          expectThrows(ActException.class, () -> one.w.type("07", "released").orThrow())
              .getMessage()
              .contains("lets no board leave the bench"));
    }
  }

  /// Every board of the build goes through the plan that is proposed for it; good ones pass, and
  /// those with a fault of the fixture fail.
  @Test(timeOut = 600_000)
  public void allTwelveBoards() throws Exception {
    try (ProofBoards.One one = new ProofBoards.One("01")) {
      TestPlan p =
          PlanProposal.of(
              one.w.proofs().known(one.plan), Optional.of(List.of("supply", "meter", "hands")));
      assertTrue(p.told().stream().anyMatch(t -> t.contains("3 lamps are not in the plan")));
      Map<String, Verdict> is = new LinkedHashMap<>();
      for (String board : one.w.buildOf("01").boards()) {
        ProveRun run = new ProveRun(one.w.proving(), one.plan, p, board, one.bench(), one);
        is.put(board, run.run(false).run().verdict().orElseThrow());
        assertTrue(one.off(), board);
      }
      assertEquals(is.get("04"), Verdict.OUT, "3V3 is bridged to ground");
      assertEquals(is.get("06"), Verdict.OUT, "FB1 is open");
      is.forEach((b, v) -> {
        if (!List.of("04", "06").contains(b)) {
          assertEquals(v, Verdict.WITHIN, b);
        }
      });
      var build = one.w.proofs().build(one.plan, one.w.buildOf("01"));
      assertEquals(build.tested(), 12);
      assertTrue(build.yield().orElseThrow().low() < 10.0 / 12);
    }
  }
}
