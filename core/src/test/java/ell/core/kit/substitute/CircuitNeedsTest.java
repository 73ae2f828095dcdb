package ell.core.kit.substitute;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
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
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// What circuits ask of their parts, over circuits made at random: each need is held against the
/// same rule worked out here by its plain formula. The rules (derating, stray capacitance) are
/// common practice, no source.
public final class CircuitNeedsTest {
  private static final int ROUNDS = 40;

  /// A circuit with an input rail, an output rail behind a linear regulator, and a part of each
  /// kind.
  private static final class Circuit {
    final Random random;
    final RailSpec in;
    final RailSpec out;
    final double dropout;
    final double amps;
    final int ohms;
    final int[] picofarads = new int[2];
    final Revision revision;
    final Ladder ladder;

    Circuit(long seed) {
      random = new Random(seed);
      double volts = 4 + random.nextInt(20);
      in = rail("RAIL_IN", volts, 0.02 + 0.1 * random.nextDouble());
      out = rail("RAIL_OUT", 1 + random.nextInt(3), 0.01 + 0.04 * random.nextDouble());
      dropout = 0.1 + random.nextDouble();
      amps = 0.01 + random.nextDouble();
      ohms = 10 * (1 + random.nextInt(500));
      picofarads[0] = 5 + random.nextInt(40);
      picofarads[1] = 5 + random.nextInt(40);
      Boards b = new Boards();
      b.part("U1").value("LDO").shape("SOT-223").code("LDO").pads("RAIL_IN", "GND", "RAIL_OUT");
      b.part("U2").value("MCU").shape("LQFP-48").pads("RAIL_OUT", "GND", "XI", "XO", "GATE");
      b.part("Y1").value("12 MHz").shape("XTAL-5032").code("X12").pads("XI", "XO");
      b.part("C1").value(picofarads[0] + "p").shape("0603").pads("XI", "GND");
      b.part("C2").value(picofarads[1] + "p").shape("0603").pads("XO", "GND");
      b.part("C3").value("10u").shape("0805").words("X5R").pads("RAIL_IN", "GND");
      b.part("C4").value("100p").shape("0603").words("C0G").pads("RAIL_IN", "RAIL_OUT");
      b.part("C5").value("1u").shape("0603").words("X7R").pads("RAIL_OUT", "FLOAT");
      b.part("R1").value(ohms + "R").shape("0603").pads("RAIL_OUT", "GND");
      b.part("R2").value(ohms + "R").shape("0603").pads("RAIL_IN", "RAIL_OUT");
      b.part("Q1").value("NFET").shape("SOT-23").code("NFET").pads("GATE", "GND", "LOAD");
      b.part("D1").value("SKY").shape("SMA").words("Schottky").pads("RAIL_IN", "GND");
      revision = b.revision();
      ladder =
          new Ladder(
              List.of(in, out),
              List.of(new Source("RAIL_IN", in.volts(), in.low(), in.high(), 2)),
              List.of(
                  new Step(
                      "U1",
                      Kind.LINEAR,
                      "RAIL_IN",
                      "RAIL_OUT",
                      out.volts(),
                      dropout,
                      0,
                      0,
                      0,
                      2,
                      0)),
              List.of(new Load("U2", "RAIL_OUT", Map.of("worst", amps))),
              "GND",
              List.of());
    }

    private static RailSpec rail(String net, double volts, double share) {
      return new RailSpec(net, volts, volts * (1 - share), volts * (1 + share), 0, "TP1");
    }

    List<Requirement> needs(String part) {
      var p = revision.part(part).orElseThrow();
      Template t = Template.of(revision, ladder, p);
      String words = p.value() + " " + p.description();
      return new CircuitNeeds(revision, ladder, p, Traits.ofWords(words, p.packageName(), t), t)
          .all();
    }

    Requirement need(String part, Trait t) {
      return needs(part).stream().filter(r -> r.trait() == t).findFirst().orElseThrow();
    }
  }

  @DataProvider
  Object[][] circuits() {
    List<Object[]> all = new ArrayList<>();
    for (long seed = 1; seed <= ROUNDS; seed++) {
      all.add(new Object[] {new Circuit(seed)});
    }
    return all.toArray(Object[][]::new);
  }

  private static void atLeast(Requirement r, double low) {
    assertEquals(r.rule(), Requirement.Rule.AT_LEAST, r.toString());
    assertEquals(r.low(), low, 1e-9 * Math.abs(low), r.toString());
    assertFalse(r.from().isBlank());
  }

  private static void atMost(Requirement r, double high) {
    assertEquals(r.rule(), Requirement.Rule.AT_MOST, r.toString());
    assertEquals(r.high(), high, 1e-9 * Math.abs(high), r.toString());
  }

  private static void between(Requirement r, double low, double high) {
    assertEquals(r.rule(), Requirement.Rule.BETWEEN, r.toString());
    assertEquals(r.low(), low, 1e-9 * Math.abs(low), r.toString());
    assertEquals(r.high(), high, 1e-9 * Math.abs(high), r.toString());
  }

  /// A ceramic of class 2 twice what lies across it, others five quarters: from the rail to ground,
  /// from rail to rail, and from a net that no rail feeds to the highest rail.
  @Test(dataProvider = "circuits")
  public void capacitorsByWhatLiesAcross(Circuit c) {
    atLeast(c.need("C3", Trait.VOLTAGE), 2 * c.in.high());
    double between = Math.max(c.in.high(), c.out.high()) - Math.min(c.in.low(), c.out.low());
    atLeast(c.need("C4", Trait.VOLTAGE), 1.25 * between);
    atLeast(c.need("C5", Trait.VOLTAGE), 2 * Math.max(c.in.high(), c.out.high()));
  }

  /// V²/R, twice.
  @Test(dataProvider = "circuits")
  public void resistorsByTheirHeat(Circuit c) {
    atLeast(c.need("R1", Trait.POWER), 2 * c.out.high() * c.out.high() / c.ohms);
    double between = Math.max(c.in.high(), c.out.high()) - Math.min(c.in.low(), c.out.low());
    atLeast(c.need("R2", Trait.POWER), 2 * between * between / c.ohms);
    between(c.need("R1", Trait.RESISTANCE), c.ohms, c.ohms);
  }

  /// Two capacitors in series, and 2 to 5 pF of board and pins.
  @Test(dataProvider = "circuits")
  public void crystalsByTheirLoad(Circuit c) {
    double a = c.picofarads[0] * 1e-12;
    double b = c.picofarads[1] * 1e-12;
    double series = 1 / (1 / a + 1 / b);
    between(c.need("Y1", Trait.LOAD_CAPACITANCE), series + 2e-12, series + 5e-12);
  }

  /// A regulator by its rails: output within the limits of its rail, input above the highest, room
  /// from the least input to the output, and a quarter more than what it feeds draws.
  @Test(dataProvider = "circuits")
  public void regulatorsByTheirRails(Circuit c) {
    between(c.need("U1", Trait.OUTPUT_VOLTAGE), c.out.low(), c.out.high());
    atLeast(c.need("U1", Trait.INPUT_VOLTAGE), c.in.high());
    atMost(c.need("U1", Trait.DROPOUT), c.in.low() - c.out.volts());
    atLeast(c.need("U1", Trait.CURRENT), 1.25 * c.amps);
  }

  @Test(dataProvider = "circuits")
  public void switchesAndDiodesByTheirVolts(Circuit c) {
    atLeast(c.need("D1", Trait.REVERSE_VOLTAGE), 1.25 * c.in.high());
    atMost(c.need("Q1", Trait.GATE_VOLTAGE), c.out.low());
    atLeast(c.need("Q1", Trait.SWITCH_VOLTAGE), 1.25 * Math.max(c.in.high(), c.out.high()));
  }

  /// Every need says where it comes from, and none asks for what cannot be.
  @Test(dataProvider = "circuits")
  public void everyNeedIsFiniteAndHasASource(Circuit c) {
    for (var p : c.revision.parts()) {
      for (Requirement r : c.needs(p.reference())) {
        assertFalse(r.from().isBlank(), p.reference() + " " + r);
        switch (r.rule()) {
          case AT_LEAST -> assertTrue(Double.isFinite(r.low()) && r.low() >= 0, r.toString());
          case AT_MOST -> assertTrue(Double.isFinite(r.high()), r.toString());
          case BETWEEN -> assertTrue(r.low() <= r.high(), r.toString());
          case ONE_OF -> assertFalse(r.words().isEmpty(), r.toString());
          case UNKNOWN -> assertEquals(r.judge(Optional.of("10")), Verdict.CLOSE, r.toString());
        }
      }
    }
  }
}
