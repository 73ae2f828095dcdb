package ell.desk;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import ell.core.entry.Entry;
import ell.core.pulse.PulseFacts;
import ell.core.quantity.Verdict;
import ell.core.rack.Stage;
import ell.desk.pulse.PulseModel;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import java.util.function.DoubleUnaryOperator;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import org.testng.annotations.Test;

/// Clocks and lines by keys: good, ringing, double-clocking and AC-coupled captures, a capture from
/// the scope, a net as a line.
public class PulseWindowTest extends WindowCase {
  private PulseModel pulse() {
    return window.model(PulseModel.class);
  }

  private PulseModel.Shown shown() {
    return pulse().shownProperty().get();
  }

  private void begin(String board) throws Exception {
    demo();
    board(board);
    robot.interact(() -> desk.navigation().stageProperty().set(Stage.PULSE));
    until("the places", () -> shown() != null && !shown().places().isEmpty());
  }

  private void say(String line) throws Exception {
    robot.type(KeyCode.W);
    until("the line to say it in", () -> robot.lookup("#wanted-line").tryQuery().isPresent());
    TextField f = node("#wanted-line");
    robot.interact(() -> f.setText(line));
    robot.interact(f::requestFocus);
    robot.type(KeyCode.ENTER);
  }

  private void place(String name) throws Exception {
    for (int i = 0; i < 20; i++) {
      robot.type(KeyCode.UP);
    }
    for (int i = 0; i < 20 && !shown().places().get(shown().at()).equals(name); i++) {
      robot.type(KeyCode.DOWN);
    }
    assertEquals(shown().places().get(shown().at()), name);
  }

  private static Path capture(String name, DoubleUnaryOperator v) throws IOException {
    StringBuilder b = new StringBuilder("increment,1e-9\nCH1 (V)\n");
    for (int i = 0; i < 6000; i++) {
      b.append((float) v.applyAsDouble(i * 1e-9)).append('\n');
    }
    return Files.writeString(Files.createTempDirectory("wave").resolve(name + ".csv"), b);
  }

  /// 1 MHz with edges of 10 ns.
  private static double clock(double t) {
    double x = (t + 0.2e-6) % 1e-6;
    return 3.3 * (Math.clamp(x / 1e-8, 0, 1) - Math.clamp((x - 0.5e-6) / 1e-8, 0, 1));
  }

  private Entry.Capture takes(Path f) throws Exception {
    files.capture = Optional.of(f);
    logs(1, () -> robot.type(KeyCode.L));
    until("it is opened", () -> shown().series().isPresent());
    return shown().entry().orElseThrow();
  }

  private String says() {
    Label l = node("#capture-says");
    return l.getText();
  }

  @Test(timeOut = 120_000)
  public void capturesOfAllKinds() throws Exception {
    begin("01");
    assertTrue(shows("of 4 places captured") || shows("places captured"), "the head");
    say("XIN clock=1MHz within=1000ppm family=cmos3.3");
    until("it is kept", () -> work().plan().pulse().at("XIN").judges());
    place("XIN");
    Entry.Capture good = takes(capture("good", PulseWindowTest::clock));
    assertEquals(good.verdict(), Optional.of(Verdict.WITHIN), good.told().toString());
    assertEquals(says(), "1.0000 MHz · within");
    assertEquals(shown().marks().rising().size(), 6);
    Entry.Capture rings =
        takes(
            capture(
                "rings",
                t -> {
                  double x = (t + 0.2e-6) % 1e-6;
                  return clock(t)
                      + (x > 1e-8 && x < 0.5e-6
                          ? 0.9 * Math.exp(-x / 6e-8) * Math.sin(2 * Math.PI * 5e7 * x)
                          : 0);
                }));
    assertTrue(rings.told().toString().contains("it rings"), rings.told().toString());
    Entry.Capture twice =
        takes(
            capture(
                "twice",
                t -> {
                  double x = (t + 0.2e-6) % 1e-6;
                  return x > 3e-8 && x < 5e-8 ? 1.2 : clock(t);
                }));
    assertEquals(twice.verdict(), Optional.of(Verdict.OUT));
    assertTrue(says().startsWith("6 edges count twice"), says());
    assertEquals(shown().marks().doubled().size(), 6);
    assertTrue(desk.work().orElseThrow().standings().get("01").phrase().contains("XIN"));
    Entry.Capture ac = takes(capture("ac", t -> clock(t) - 1.65));
    assertTrue(ac.told().getFirst().contains("AC"), ac.told().toString());
    // what the instrument did is said before the verdict
    Node card =
        robot.lookup((Node n) -> n instanceof Label l && l.getText().startsWith("First: ")).query();
    assertTrue(card.getLayoutY() < node("#capture-says").getLayoutY());
    assertTrue(node("#slip-picture").getAccessibleText().contains("capture of XIN"));
    strike();
    until("the one before is shown", () -> shown().entry().orElseThrow().equals(twice));
  }

  private void strike() throws Exception {
    robot.interact(() -> desk.strikeLast());
    until("it is struck", () -> work().log().getLast().entry() instanceof Entry.Strike);
  }

  @Test(timeOut = 120_000)
  public void theScopeIsAskedByKey() throws Exception {
    begin("08");
    robot.type(KeyCode.F6);
    robot.type(KeyCode.G);
    until("the guards of 08", this::guardsHold);
    switchOn();
    robot.type(KeyCode.F8);
    until("the places", () -> desk.navigation().at(Stage.PULSE));
    place("XIN");
    logsOne(() -> robot.type(KeyCode.SPACE));
    until("it is opened", () -> shown().series().isPresent());
    assertEquals(
        shown().entry().orElseThrow().measure("frequency").orElseThrow().value(), 12e6, 2e3);
    assertFalse(shown().entry().orElseThrow().verdict().isPresent(), "a guess judges nothing");
    double wide = pulse().shownProperty().get().series().orElseThrow().duration();
    assertTrue(wide > 0);
    String before = margin();
    robot.type(KeyCode.RIGHT, 5);
    until("the cursor", () -> !margin().equals(before));
    robot.type(KeyCode.C);
    robot.type(KeyCode.M);
    until("every board", () -> shows("of every board"));
    until("its captures", () -> shown().others().containsKey("08"));
    robot.type(KeyCode.M);
    robot.type(KeyCode.F7);
    robot.type(KeyCode.O);
    until("off", () -> phase() == ell.desk.power.PowerModel.Phase.OFF);
    assertEquals(PulseFacts.of(work().state()).latest().size(), 1);
  }

  private String margin() {
    return pulse().marginProperty().get().notes().toString();
  }

  @Test(timeOut = 120_000)
  public void aNetIsShownAsALine() throws Exception {
    begin("01");
    say("SCL from=U4.26 driver=25ohm edge=1ns length=0.5m z0=120ohm velocity=0.6 family=cmos3.3");
    until(
        "it is kept",
        () -> shown().wanted().isPresent() && work().plan().pulse().at("SCL").line().isPresent());
    place("SCL");
    robot.type(KeyCode.K);
    until("the line", () -> shown().line().flatMap(l -> l.line()).isPresent());
    assertTrue(shows("SCL as a line"));
    int end = shown().tap();
    robot.type(KeyCode.UP);
    assertEquals(shown().tap(), end - 1);
    String before = says();
    robot.type(KeyCode.DOWN);
    for (int i = 0; i < 30; i++) {
      robot.type(KeyCode.RIGHT);
    }
    until("the resistor", () -> shown().line().orElseThrow().ohms() > 90);
    until("another verdict", () -> says().endsWith("within"));
    assertFalse(says().equals(before));
    robot.type(KeyCode.K);
    until("the capture", () -> !shown().lined());
    say("NOWHERE clock=1MHz");
    until("why not", () -> shows("no net and no joint"));
    robot.type(KeyCode.ESCAPE);
  }
}
