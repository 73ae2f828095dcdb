package ell.core.pulse;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import ell.core.board.Joint;
import ell.core.board.Outline;
import ell.core.board.Part;
import ell.core.board.Revision;
import ell.core.power.Ladder;
import ell.core.power.LadderProposal;
import ell.core.quantity.Limits;
import ell.core.quantity.Verdict;
import ell.core.series.Series;
import ell.core.sheet.Worked;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.function.DoubleUnaryOperator;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// What should be seen at places, as it is said, guessed and judged.
public final class PulsePlanTest {
  private static final Revision BOARD = board();
  private static final Ladder LADDER = LadderProposal.of(BOARD);

  /// A controller at 3.3 V with a crystal, a two-wire bus with pull-ups, a clock line.
  private static Revision board() {
    List<Part> parts = new ArrayList<>();
    List<Joint> joints = new ArrayList<>();
    add(parts, joints, "J1", "HEADER", "", "3V3", "GND");
    add(parts, joints, "U1", "MCU", "", "3V3", "GND", "XIN", "XOUT", "SDA", "SCL", "CLK", "TX");
    add(parts, joints, "U2", "SR", "", "3V3", "GND", "CLK");
    add(parts, joints, "Y1", "16 MHz", "crystal, 12 pF", "XIN", "XOUT");
    add(parts, joints, "C1", "18p", "", "XIN", "GND");
    add(parts, joints, "C2", "18p", "", "XOUT", "GND");
    add(parts, joints, "R1", "4k7", "", "SDA", "3V3");
    add(parts, joints, "R2", "4k7", "", "SCL", "3V3");
    add(parts, joints, "C3", "100n", "", "3V3", "GND");
    return new Revision("T", "1", parts, joints, Outline.UNKNOWN);
  }

  private static void add(
      List<Part> parts,
      List<Joint> joints,
      String ref,
      String value,
      String words,
      String... nets) {
    parts.add(
        new Part(
            ref,
            value,
            "0603",
            ref,
            words,
            true,
            false,
            List.of(),
            "",
            Optional.empty(),
            0,
            0,
            List.of(),
            0));
    for (int i = 0; i < nets.length; i++) {
      joints.add(
          new Joint(
              ref,
              String.valueOf(i + 1),
              nets[i],
              parts.size() * 5,
              i,
              Joint.Reach.BOTH,
              false,
              0,
              true,
              1,
              1,
              0,
              false,
              0));
    }
  }

  private static PulsePlan plan(String... lines) {
    return PulsePlan.of(BOARD, LADDER, List.of(), List.of(lines));
  }

  @Test
  public void whatTheBillSaysIsGuessed() {
    PulsePlan p = plan();
    Wanted xin = p.at("XIN");
    assertEquals(xin.clock(), 16e6);
    assertTrue(xin.clockGuessed() && !xin.judges());
    assertTrue(xin.guesses().getFirst().contains("XIN clock=16"), xin.guesses().toString());
    assertEquals(p.at("SDA").family().orElseThrow().name(), "twowire3.3");
    assertEquals(p.at("U2.3").family().orElseThrow().name(), "cmos3.3");
    assertTrue(p.at("U2.3").guessed());
    assertEquals(
        p.places().stream().map(Wanted::place).sorted().toList(),
        List.of("SCL", "SDA", "XIN", "XOUT"));
    // what a guess says to type is understood, and is no guess any more
    String line = xin.guesses().getFirst().replaceAll(".*say: ", "");
    Wanted said = plan(line).at("XIN");
    assertFalse(said.clockGuessed());
    assertEquals(said.within(), 100e-6, 1e-12);
    assertTrue(plan("XIN none").places().stream().noneMatch(w -> w.place().equals("XIN")));
  }

  @Test
  public void whatIsSaidIsKept() {
    PulsePlan p =
        plan(
            "CLK clock=2MHz within=2% family=tolerant3.3",
            "CLK rise=..5ns overshoot=..0.2 vmax=5V",
            "CLK from=U1.7 driver=20ohm series=100ohm edge=2ns length=480mm z0=120ohm"
                + " velocity=0.61c tap=U2.3@1/2".replace("1/2", "0.5"),
            "stack height=0.2mm er=4.1 between",
            "signature U1.8 period=45us..55us bad: restarts, alive, no program");
    Wanted w = p.at("U2.3");
    assertEquals(w.net(), "CLK");
    assertEquals(w.clock(), 2e6);
    assertEquals(w.thresholds().orElseThrow().most(), 5.0);
    assertEquals(w.thresholds().orElseThrow().vih(), 2.0);
    assertEquals(w.limits().get("rise"), Limits.atMost(5e-9));
    Wanted.Driven d = w.line().orElseThrow();
    assertTrue(d.lined());
    assertEquals(d.taps(), Map.of("U2.3", 0.5));
    assertEquals(d.bounce().delay(), 0.48 / (0.61 * 299_792_458), 1e-15);
    assertTrue(p.stack().between() && !p.stack().guessed());
    Signature s = p.signatures("U1.8").getFirst();
    assertFalse(s.good());
    assertEquals(s.name(), "restarts, alive, no program");
    assertEquals(plan(s.words()).signatures(), p.signatures(), "it is read back as it is written");
    assertTrue(plan(s.words(), "no signature " + s.name()).signatures().isEmpty());
  }

  @DataProvider
  Object[][] wrong() {
    return new Object[][] {
      {"NOWHERE clock=2MHz", "no net and no joint"},
      {"CLK", "after CLK comes"},
      {"CLK clock", "name=value"},
      {"CLK clock=-2MHz", "above 0"},
      {"CLK clock=2V", "2V"},
      {"CLK family=nothing", "there are cmos3.3"},
      {"CLK vil=3 vih=1", "vil is below vih"},
      {"CLK speed=3", "cannot be said"},
      {"CLK from=U9.9", "no joint"},
      {"CLK tap=U2.3", "U3.11@0.33"},
      {"CLK velocity=1.4", "0 to 1"},
      {"CLK rise=..", "2ns..5ns"},
      {"CLK within=3", "share"},
      {"signature CLK bad: x", "limits of one or more"},
      {"signature CLK period=1us..2us", "ends with what it means"},
      {"no signature x", "there is no signature"},
      {"stack height=3m", "height"},
      {"stack colour=green", "a stack is"},
    };
  }

  @Test(dataProvider = "wrong")
  public void whatCannotBeIsRefused(String line, String says) {
    IllegalArgumentException e = expectThrows(IllegalArgumentException.class, () -> plan(line));
    assertTrue(e.getMessage().contains(says), e.getMessage());
  }

  @Test
  public void familiesOfOnesOwn() {
    List<LogicFamily> own =
        LogicFamily.read(
            "# mine\nname,supply,vil,vih,vol,voh,slowest,most,source\n"
                + "odd,3V,0.9,0.5vdd,0.2,2.5,5ns/V,vdd+0.3,bench\n");
    LogicFamily f = own.getFirst();
    assertEquals(f.vih(), 1.5, 1e-12);
    assertEquals(f.most(), 3.3, 1e-12);
    PulsePlan p = PulsePlan.of(BOARD, LADDER, own, List.of("CLK family=odd"));
    assertEquals(p.at("CLK").family().orElseThrow(), f);
    IllegalArgumentException e =
        expectThrows(IllegalArgumentException.class, () -> LogicFamily.read("odd,3V,2,1,0,3,,,x"));
    assertTrue(e.getMessage().startsWith("line 1"), e.getMessage());
    // every family that ships says where it is from, and is what JESD8C says at 3.3 V (from memory)
    assertTrue(LogicFamily.SHIPPED.stream().allMatch(x -> !x.source().isBlank()));
    LogicFamily cmos = LogicFamily.named("CMOS3.3", LogicFamily.SHIPPED).orElseThrow();
    assertEquals(List.of(cmos.vil(), cmos.vih()), List.of(0.8, 2.0));
  }

  private static Series wave(double noise, DoubleUnaryOperator v) {
    Random r = new Random(1);
    float[] y = new float[8000];
    for (int i = 0; i < y.length; i++) {
      y[i] = (float) (v.applyAsDouble(i * 1e-9) + noise * r.nextGaussian());
    }
    return Series.even("CH1", 0, 1e-9, y);
  }

  /// 1 MHz, edges of 8 ns.
  private static double clock(double t) {
    double x = (t + 0.2e-6) % 1e-6;
    return 3.3 * (Math.clamp(x / 1e-8, 0, 1) - Math.clamp((x - 0.5e-6) / 1e-8, 0, 1));
  }

  /// The same, and 25 ns behind each rising edge it falls back to 1.2 V.
  private static double ringing(double t) {
    double x = (t + 0.2e-6) % 1e-6;
    return x > 25e-9 && x < 45e-9 ? 1.2 : clock(t);
  }

  private static Judged judged(Series s, String... lines) {
    PulsePlan p = plan(lines);
    return Judged.of(s, p.at("CLK"), p.signatures("CLK"), 0);
  }

  @Test
  public void aGoodClockIsWithin() {
    Judged j =
        judged(wave(0.01, PulsePlanTest::clock), "CLK clock=1MHz within=500ppm family=cmos3.3");
    assertEquals(j.verdict(), Optional.of(Verdict.WITHIN), j.measures().toString());
    assertEquals(j.words(), "1.0000 MHz");
  }

  @Test
  public void aDoubleClockIsOut() {
    Judged j =
        judged(wave(0.01, PulsePlanTest::ringing), "CLK clock=1MHz within=500ppm family=cmos3.3");
    assertEquals(j.verdict(), Optional.of(Verdict.OUT));
    assertTrue(j.words().startsWith("8 edges count twice"), j.words());
    // thresholds wider apart: an input with both of them counts once, one at 3.0 V alone twice
    Judged s = judged(wave(0.01, PulsePlanTest::ringing), "CLK vil=0.5 vih=3.0 slowest=1us/V");
    assertEquals(s.counted().orElseThrow().doubles(), 8, "it falls below 3.0 V and comes again");
  }

  /// A guess accuses nobody: the same capture without a word said has no verdict.
  @Test
  public void aGuessJudgesNothing() {
    Judged j = judged(wave(0.01, PulsePlanTest::ringing));
    assertEquals(j.verdict(), Optional.empty());
    assertTrue(
        j.told().stream().anyMatch(t -> t.contains("if its thresholds are those")),
        j.told().toString());
    assertTrue(j.told().stream().anyMatch(t -> t.contains("CLK family=cmos3.3")));
  }

  @Test
  public void theInstrumentIsSuspectedFirst() {
    Judged ac =
        judged(wave(0.01, t -> clock(t) - 1.65), "CLK clock=1MHz within=500ppm family=cmos3.3");
    assertTrue(ac.told().getFirst().contains("AC"), ac.told().toString());
    Judged tenth = judged(wave(0.001, t -> clock(t) / 10), "CLK clock=1MHz within=500ppm");
    assertTrue(tenth.told().toString().contains("factor of the probe"), tenth.told().toString());
    assertEquals(tenth.verdict(), Optional.of(Verdict.WITHIN), "the clock itself is right");
  }

  @Test
  public void silenceIsOutWhereAClockIsWanted() {
    Judged j = judged(wave(0.005, t -> 0), "CLK clock=1MHz within=500ppm");
    assertEquals(j.verdict(), Optional.of(Verdict.OUT));
    assertTrue(j.told().toString().contains("boot loader"), j.told().toString());
    Judged unsaid = Judged.of(wave(0.005, t -> 0), plan().at("XIN"), List.of(), 0);
    assertEquals(unsaid.verdict(), Optional.empty(), "a guessed clock that is not there");
  }

  @Test
  public void aSignatureIsFound() {
    Series restarts = wave(0.01, t -> t % 2e-6 < 0.3e-6 ? 3.3 : 0);
    Judged j =
        judged(
            restarts,
            "signature CLK period=1.8us..2.2us high=3..3.6 bad: restarts, no program",
            "signature CLK period=0.9us..1.1us good: runs");
    assertEquals(j.words(), "restarts, no program");
    assertEquals(j.verdict(), Optional.of(Verdict.OUT));
    Judged runs =
        judged(
            wave(0.01, PulsePlanTest::clock),
            "signature CLK period=1.8us..2.2us bad: restarts, no program",
            "signature CLK period=0.9us..1.1us good: runs");
    assertEquals(runs.words(), "runs");
    Signature own = Signature.from("CLK", "as today", true, j.measures());
    assertTrue(own.matches(j.measures()));
    assertFalse(own.matches(runs.measures()));
  }

  /// A clock that is known worse than it must be is too close to call, and what settles it is said.
  @Test
  public void tooShortALook() {
    Judged j = judged(wave(0.05, PulsePlanTest::clock), "CLK clock=1MHz within=1ppm");
    assertEquals(j.verdict(), Optional.of(Verdict.CLOSE));
    assertTrue(j.told().toString().contains("longer look"), j.told().toString());
  }

  /// Two capacitors of 18 pF are 9 pF in series, with 5 pF of board 14 pF; 4.7 kΩ on two pins of 10
  /// pF rises in 0.8473 RC. Source: NXP UM10204, from memory.
  @Test
  public void sheetsWithThePartsOfTheRevision() {
    Worked crystal = FilledSheets.of(BOARD, LADDER, "XIN").getFirst();
    assertEquals(crystal.sheet(), "clock.load-caps");
    assertEquals(crystal.number("actualLoad"), 14e-12, 1e-15);
    Worked bus = FilledSheets.of(BOARD, LADDER, "SDA").getFirst();
    assertEquals(bus.sheet(), "bus.pullup");
    assertEquals(bus.number("min"), (3.3 - 0.4) / 3e-3, 1);
    assertTrue(FilledSheets.of(BOARD, LADDER, "CLK").isEmpty());
  }
}
