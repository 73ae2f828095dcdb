package ell.core.power;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import ell.core.RandomBoards;
import ell.core.board.Joint;
import ell.core.board.Outline;
import ell.core.board.Part;
import ell.core.board.Revision;
import ell.core.board.Side;
import ell.core.power.Ladder.Kind;
import ell.core.power.PowerPlan.Finding;
import ell.core.quantity.Limits;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class LadderTest {
  /// A small board: 12 V in, buck by way of a coil, linear, bead, lamp, controller, back-up cell.
  static Revision board() {
    List<Part> parts = new ArrayList<>();
    List<Joint> joints = new ArrayList<>();
    add(parts, joints, "J1", "TERM", "VIN_RAW", "GND");
    add(parts, joints, "F1", "500mA", "VIN_RAW", "VIN");
    add(parts, joints, "U1", "BUCK50 step-down", "VIN", "SW", "GND", "FB");
    add(parts, joints, "L1", "22u", "SW", "5V0");
    add(parts, joints, "C1", "47u/25V", "VIN", "GND");
    add(parts, joints, "C2", "22u", "5V0", "GND");
    add(parts, joints, "U2", "LDO33", "GND", "3V3", "5V0");
    add(parts, joints, "FB1", "600R", "3V3", "3V3A");
    add(parts, joints, "C9", "10u", "3V3A", "GND");
    add(parts, joints, "R3", "1k", "3V3", "LEDK");
    add(parts, joints, "LED1", "green", "GND", "LEDK");
    add(parts, joints, "U4", "MCU48", "3V3", "GND", "D1", "D2", "D3", "D4", "D5", "D6");
    add(parts, joints, "U3", "RTC", "VBAT", "3V3", "GND", "SDA", "SCL", "D1", "D2", "D3");
    add(parts, joints, "BT1", "CELL", "VBAT", "GND");
    joints.add(joint("TP4", "1", "3V3", 90));
    return new Revision("T", "1", parts, joints, Outline.UNKNOWN);
  }

  private static Joint joint(String ref, String pin, String net, double x) {
    return new Joint(ref, pin, net, x, 5, Joint.Reach.FIRST, false, 0, true, 1, 1, 0, false, 0);
  }

  private static void add(
      List<Part> parts, List<Joint> joints, String ref, String value, String... nets) {
    double x = 5 * parts.size();
    parts.add(
        new Part(
            ref,
            value,
            "0805",
            value,
            "",
            true,
            false,
            List.of(),
            "",
            Optional.of(new Part.Spot(x, 5, 0, Side.FIRST)),
            Double.NaN,
            Double.NaN));
    for (int i = 0; i < nets.length; i++) {
      joints.add(joint(ref, String.valueOf(i + 1), nets[i], x + i * 0.6));
    }
  }

  @Test
  public void proposesTheLadderThatIsThere() {
    Ladder l = LadderProposal.of(board());
    assertEquals(l.ground(), "GND");
    assertEquals(l.sources().getFirst().rail(), "VIN_RAW");
    assertEquals(
        l.downwards().stream()
            .map(s -> s.part() + " " + s.kind() + " " + s.from() + ">" + s.to())
            .toList(),
        List.of(
            "F1 PASS VIN_RAW>VIN",
            "U1 SWITCHING VIN>5V0",
            "U2 LINEAR 5V0>3V3",
            "FB1 PASS 3V3>3V3A"));
    assertEquals(l.rail("VIN").orElseThrow().capacitance(), 47e-6, 1e-12);
    assertEquals(l.rail("3V3").orElseThrow().readAt(), "TP4");
    assertEquals(l.rail("3V3").orElseThrow().low(), 3.135, 1e-9);
    assertTrue(l.loads().stream().anyMatch(x -> x.part().equals("U4") && x.rail().equals("3V3")));
    assertTrue(
        l.loads().stream().anyMatch(x -> x.part().equals("U3") && x.rail().equals("3V3")),
        "not from the cell");
    assertEquals(
        l.loads().stream()
            .filter(x -> x.part().equals("LED1"))
            .findFirst()
            .orElseThrow()
            .in("boot"),
        1.4e-3,
        1e-6);
    assertFalse(l.assumptions().isEmpty(), "every guess is said");
    assertEquals(
        l.raised().stream().map(Ladder.RailSpec::net).toList(),
        List.of("VIN_RAW", "VIN", "5V0", "3V3", "3V3A"));
  }

  /// Currents up the tree, worked by hand for one small ladder.
  @Test
  public void currentsHeatAndLimit() {
    Ladder l = ladder(0.02);
    LadderState s = LadderState.of(l, "boot");
    // 3V3: 20 mA; 5V0: 20 mA + 0.1 mA own; VIN: 5 · 20.1 mA / (0.8 · 12) + 1 mA
    double five = 0.0201;
    double vin = 5 * five / (0.8 * 12) + 0.001;
    assertEquals(current(s, "3V3"), 0.02, 1e-12);
    assertEquals(current(s, "5V0"), five, 1e-12);
    assertEquals(current(s, "VIN"), vin, 1e-12);
    LadderState.RegulatorHeat ldo = heat(s, "U2");
    assertEquals(ldo.dissipation(), 1.7 * 0.02 + 5 * 1e-4, 1e-12);
    assertEquals(ldo.junction(), 25 + 100 * ldo.dissipation(), 1e-9);
    // headroom at the lowest input of the source: buck 9 − 5 − 0.5
    assertEquals(heat(s, "U1").headroomLow(), 3.5, 1e-9);
    assertTrue(heat(s, "U1").headroom() > 3.5, "at its nominal input it has more");
    // (vin + 47 µF · 12 V / 5 ms) · 1.2 up to 10 mA
    double want = Math.ceil((vin + 47e-6 * 12 / 5e-3) * 1.2 / 0.01) * 0.01;
    assertEquals(s.limit().limit(), want, 1e-12);
    assertEquals(s.sheet().number("limit"), want, 1e-12, "the sheet shows the function's number");
  }

  @Test
  public void theWeakestPartCapsTheLimit() {
    Ladder l = ladder(0.02);
    Ladder weak =
        new Ladder(
            l.rails(),
            List.of(new Ladder.Source("VIN", 12, 9, 14, 0.1)),
            l.steps(),
            l.loads(),
            l.ground(),
            List.of());
    LadderState s = LadderState.of(weak, "boot");
    assertEquals(s.limit().limit(), 0.1, 1e-12);
    assertTrue(s.limit().capped());
  }

  @Test
  public void statesFallBackToTheNextLower() {
    Ladder.Load l = new Ladder.Load("U1", "3V3", Map.of("boot", 0.01, "active", 0.05));
    assertEquals(l.in("off"), 0.0);
    assertEquals(l.in("idle"), 0.01);
    assertEquals(l.in("worst"), 0.05);
    assertThrows(
        IllegalArgumentException.class, () -> new Ladder.Load("U1", "3V3", Map.of("sleepy", 0.01)));
    assertThrows(IllegalArgumentException.class, () -> LadderState.of(ladder(0.01), "sleepy"));
  }

  private static double current(LadderState s, String rail) {
    return s.rails().stream()
        .filter(r -> r.rail().net().equals(rail))
        .findFirst()
        .orElseThrow()
        .current();
  }

  private static LadderState.RegulatorHeat heat(LadderState s, String part) {
    return s.regulators().stream()
        .filter(r -> r.step().part().equals(part))
        .findFirst()
        .orElseThrow();
  }

  static Ladder ladder(double amps) {
    return new Ladder(
        List.of(
            new Ladder.RailSpec("VIN", 12, 9, 14, 47e-6, "J1.1"),
            new Ladder.RailSpec("5V0", 5, 4.85, 5.15, 22e-6, "TP3"),
            new Ladder.RailSpec("3V3", 3.3, 3.234, 3.366, 10e-6, "TP4")),
        List.of(new Ladder.Source("VIN", 12, 9, 14, 0)),
        List.of(
            new Ladder.Step("U1", Kind.SWITCHING, "VIN", "5V0", 5, 0.5, 0.8, 0.001, 60, 1, 0),
            new Ladder.Step("U2", Kind.LINEAR, "5V0", "3V3", 3.3, 0.3, 0, 1e-4, 100, 0.5, 0)),
        List.of(new Ladder.Load("U4", "3V3", Map.of("boot", amps))),
        "GND",
        List.of("made up for this test"));
  }

  @Test
  public void stagesPredictABandAroundTheModel() {
    Revision r = board();
    Ladder l = LadderProposal.of(r);
    PowerPlan p = PowerPlan.of(r, l, "boot").orElseThrow();
    assertEquals(p.rail(), "VIN_RAW");
    double full =
        new BoardCircuit(r, l, List.of()).fed("boot", 1, 12, 10).through(BoardCircuit.SUPPLY);
    PowerStep last = p.steps().getLast();
    assertEquals(last.volts(), 12, 1e-9);
    assertTrue(last.band().low() < full && full < last.band().high(), full + " in " + last.band());
    double before = 0;
    for (PowerStep s : p.steps()) {
      assertTrue(s.volts() > before);
      assertTrue(s.limit() <= last.limit() + 1e-12);
      before = s.volts();
    }
  }

  /// Resistors across a rail are part of what the supply must give.
  @Test
  public void bleedersCountForTheLimit() {
    List<Part> parts = new ArrayList<>();
    List<Joint> joints = new ArrayList<>();
    add(parts, joints, "J1", "TERM", "VIN_12V", "GND");
    for (int i = 1; i <= 10; i++) {
      add(parts, joints, "R" + i, "1k2", "VIN_12V", "GND");
    }
    Revision r = new Revision("T", "1", parts, joints, Outline.UNKNOWN);
    Ladder l = LadderProposal.of(r);
    LadderState s = LadderState.of(l, "boot");
    assertEquals(current(s, "VIN_12V"), 0.1, 1e-9);
    PowerPlan p = PowerPlan.of(r, l, "boot").orElseThrow();
    double now =
        new BoardCircuit(r, l, List.of()).fed("boot", 1, 12, 10).through(BoardCircuit.SUPPLY);
    assertEquals(now, 0.1, 1e-3, "once, not twice");
    assertTrue(p.steps().getLast().limit() > p.steps().getLast().band().high());
  }

  @DataProvider
  Object[][] currents() {
    return new Object[][] {
      {List.of(0.02, 0.02, 0.02), Finding.AS_PREDICTED},
      {List.of(0.05, 0.03, 0.02), Finding.AS_PREDICTED},
      {List.of(0.1, 0.1, 0.1), Finding.AT_LIMIT},
      {List.of(0.05, 0.05, 0.05), Finding.TOO_MUCH},
      {List.of(0.001, 0.001, 0.001), Finding.TOO_LITTLE},
      {List.of(0.012, 0.012, 0.02), Finding.RISING},
    };
  }

  @Test(dataProvider = "currents")
  public void judgesAStage(List<Double> amps, Finding finding) {
    PowerStep s = new PowerStep(12, 0.1, new Limits(0.01, 0.03));
    assertEquals(PowerPlan.judge(s, amps), finding);
    assertFalse(PowerPlan.meaning(finding, s).isBlank());
  }

  @Test
  public void faultsShowInTheModel() {
    Revision r = board();
    Ladder l = LadderProposal.of(r);
    BoardCircuit open = new BoardCircuit(r, l, List.of(new Fault.Open("FB1", "2")));
    assertEquals(open.fed("boot", 1, 12, 1).at(open.node("3V3A")), 0, 1e-3);
    BoardCircuit dead = new BoardCircuit(r, l, List.of(new Fault.Dead("U2")));
    assertEquals(dead.fed("boot", 1, 12, 1).at(dead.node("3V3")), 0, 1e-2);
    BoardCircuit bridge = new BoardCircuit(r, l, List.of(new Fault.Bridge("3V3", "GND", 2.2)));
    assertEquals(bridge.unpowered().between(bridge.node("3V3"), bridge.node("GND")), 2.2, 0.01);
    assertTrue(bridge.fed("boot", 1, 12, 0.18).limited());
    BoardCircuit wrong = new BoardCircuit(r, l, List.of(new Fault.WrongValue("R3", 10)));
    double more = wrong.fed("boot", 1, 12, 5).through(BoardCircuit.SUPPLY);
    BoardCircuit good = new BoardCircuit(r, l, List.of());
    assertTrue(more > 2 * good.fed("boot", 1, 12, 5).through(BoardCircuit.SUPPLY));
  }

  @Test
  public void jsonKeepsTheLadder() {
    Ladder l = LadderProposal.of(board());
    assertEquals(PowerJson.read(PowerJson.write(l)), l);
    assertEquals(PowerJson.read(PowerJson.write(ladder(0.02))), ladder(0.02));
  }

  @DataProvider
  Object[][] brokenLadders() {
    String good = PowerJson.write(ladder(0.02));
    return new Object[][] {
      {"", "JSON"},
      {"[]", "JSON object"},
      {"{", "line"},
      {"{}", "ground"},
      {good.replace("\"kind\" : \"linear\"", "\"kind\" : \"magic\""), "steps[1].kind"},
      {good.replace("\"volts\" : 12.0", "\"volts\" : \"twelve\""), "volts"},
      {good.replace("\"from\" : \"5V0\"", "\"from\" : \"6V0\""), "6V0"},
      {good.replace("\"efficiency\" : 0.8", "\"efficiency\" : 1.8"), "efficiency"},
      {good.replace("\"low\" : 4.85", "\"low\" : 5.5"), "5V0"},
      {good.replace("\"boot\"", "\"asleep\""), "asleep"},
      {"{\"ground\":\"GND\",\"rails\":3}", "rails"},
      {"{\"ground\":\"GND\",\"rails\":[3]}", "rails[0]"},
    };
  }

  @Test(dataProvider = "brokenLadders")
  public void brokenLaddersAreNamed(String json, String says) {
    IllegalArgumentException e =
        expectThrows(IllegalArgumentException.class, () -> PowerJson.read(json));
    assertTrue(e.getMessage().contains(says), e.getMessage());
  }

  @Test
  public void faultsAreRead() {
    Map<String, List<Fault>> f =
        PowerJson.readFaults(
            "{\"04\":[{\"kind\":\"bridge\",\"a\":\"3V3\",\"b\":\"GND\",\"ohms\":2.2}],\"06\":[{\"kind\":\"open\",\"part\":\"FB1\",\"pin\":\"2\"},{\"kind\":\"dead\",\"part\":\"U2\"}]}");
    assertEquals(f.get("04"), List.of(new Fault.Bridge("3V3", "GND", 2.2)));
    assertEquals(f.get("06"), List.of(new Fault.Open("FB1", "2"), new Fault.Dead("U2")));
    assertThrows(
        IllegalArgumentException.class,
        () -> PowerJson.readFaults("{\"04\":[{\"kind\":\"sulk\"}]}"));
    assertThrows(
        IllegalArgumentException.class,
        () -> PowerJson.readFaults("{\"04\":[{\"kind\":\"dead\"}]}"));
  }

  @Test
  public void aLadderThatHangsInTheAirIsRefused() {
    Ladder l = ladder(0.02);
    assertThrows(
        IllegalArgumentException.class,
        () -> new Ladder(l.rails(), List.of(), l.steps(), l.loads(), "GND", List.of()));
    assertThrows(
        IllegalArgumentException.class,
        () ->
            new Ladder(
                l.rails(),
                l.sources(),
                List.of(l.steps().get(0), l.steps().get(0)),
                l.loads(),
                "GND",
                List.of()));
  }

  /// Whatever the netlist, the proposal holds together and can be worked, staged and beeped.
  @Test
  public void proposalsHoldTogetherOnAnyBoard() {
    Random random = new Random(41);
    for (int i = 0; i < 150; i++) {
      Revision r = RandomBoards.make(random, 1 + random.nextInt(60));
      Ladder l = LadderProposal.of(r);
      for (String state : Ladder.STATES) {
        assertTrue(Double.isFinite(LadderState.of(l, state).limit().limit()));
      }
      PowerPlan.of(r, l, "boot")
          .ifPresent(p ->
              p.steps().forEach(s -> assertTrue(s.limit() > 0 || p.limit().limit().limit() == 0)));
      assertEquals(PowerJson.read(PowerJson.write(l)), l);
    }
  }

  @Test
  public void valuesAreReadFromTheirText() {
    Revision r = board();
    assertEquals(PartValue.farads(r.part("C1").orElseThrow()).orElseThrow(), 47e-6, 1e-12);
    assertEquals(PartValue.ohms(r.part("R3").orElseThrow()).orElseThrow(), 1000.0);
    assertTrue(PartValue.ohms(r.part("C1").orElseThrow()).isEmpty());
    assertTrue(PartValue.farads(r.part("U4").orElseThrow()).isEmpty());
  }
}
