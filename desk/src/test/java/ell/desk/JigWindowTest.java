package ell.desk;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertNotEquals;
import static org.testng.Assert.assertTrue;

import ell.core.jig.Bending;
import ell.core.rack.Stage;
import ell.desk.jig.JigModel;
import ell.work.Workshop;
import ell.work.demo.DemoWorkspace;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import javafx.scene.input.KeyCode;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/// A jig through the window, by keys: see it, move a finger, keep it, write the plates.
public class JigWindowTest extends WindowCase {
  private Path ws;

  private JigModel jig() {
    return window.model(JigModel.class);
  }

  private JigModel.Shown shown() {
    return jig().shownProperty().get();
  }

  private void settled() throws Exception {
    until("the jig", () -> shown() != null && !jig().busyProperty().get());
  }

  @BeforeMethod
  public void begin() throws Exception {
    ws = Files.createTempDirectory("jig").resolve("ws.ell");
    DemoWorkspace.make(ws, Path.of("../demo"), true).close();
    robot.interact(() -> desk.open(ws));
    until("the demo", () -> desk.work().isPresent());
    board("07");
    robot.type(KeyCode.F11);
    assertTrue(desk.navigation().at(Stage.JIG));
    settled();
  }

  private void toFirstFinger() throws Exception {
    robot.type(KeyCode.RIGHT);
    until("a finger", () -> shown().finger() == 0);
  }

  @Test(timeOut = 120_000)
  public void probesAndFingersAreWalked() throws Exception {
    assertTrue(shown().probe().isPresent(), "the first probe is turned to");
    assertTrue(shows(shown().probe().get().target().net() + " at"));
    robot.type(KeyCode.DOWN);
    until("the next", () -> shown().at() == 1);
    robot.type(KeyCode.UP);
    until("back", () -> shown().at() == 0);
    toFirstFinger();
    assertTrue(shows("Shift and an arrow move it"));
    robot.type(KeyCode.RIGHT);
    until("its worth", () -> shown().finger() < 0 && shown().probe().isEmpty());
    assertTrue(shows(shown().plan().worth().words()));
    String seen = robot.lookup("#jig-above").query().getAccessibleText();
    assertTrue(seen.contains(shown().plan().probes().size() + " probes"), seen);
  }

  @Test(timeOut = 120_000)
  public void aFingerIsMovedAndKept() throws Exception {
    toFirstFinger();
    Bending before = shown().plan().bending();
    for (int i = 0; i < 6; i++) {
      robot.press(KeyCode.SHIFT).type(KeyCode.RIGHT).release(KeyCode.SHIFT);
    }
    until(
        "six millimetres to the right",
        () ->
            Math.abs(
                        shown().plan().bending().fingers().getFirst().xMm()
                            - before.fingers().getFirst().xMm()
                            - 6)
                    < 0.01
                && !jig().busyProperty().get());
    Bending after = shown().plan().bending();
    assertNotEquals(after.strain(), before.strain(), "the board bends otherwise");
    assertNotEquals(after.deflection(), before.deflection());
    assertTrue(after.strain() > 0 && after.strain() < 0.01, "within reason");
    assertTrue(jig().canKeep());
    assertTrue(shows("K keeps it"));
    robot.type(KeyCode.K);
    until("kept", () -> !shown().moved() && !jig().busyProperty().get());
    settled();
    assertEquals(
        shown().plan().bending().fingers().getFirst().xMm(),
        after.fingers().getFirst().xMm(),
        0.011,
        "where it was put");
    assertEquals(shown().plan().bending().strain(), after.strain(), 0.01 * after.strain());
    try (Workshop w = Workshop.look(ws)) {
      assertFalse(w.jigs().setup(w.revision("MG-1", "B")).fingers().isEmpty(), "in the workspace");
    }
    robot.type(KeyCode.L);
    until("chosen again", () -> shown().plan().setup().fingers().isEmpty());
    settled();
    assertEquals(shown().plan().bending().strain(), before.strain(), 1e-9);
  }

  @Test(timeOut = 120_000)
  public void fromAboveOrNot() throws Exception {
    assertTrue(shown().plan().topProbes() > 0, "the demo allows it");
    int missed = shown().plan().unreachable().size();
    robot.type(KeyCode.T);
    until("none from above", () -> shown().plan().topProbes() == 0 && !jig().busyProperty().get());
    assertTrue(shown().plan().unreachable().size() > missed, "what was reached from above only");
    assertTrue(shows("nets not reached"));
    robot.type(KeyCode.A);
    until("grounds and rails", () -> shown().plan().asked().contains("rails"));
    assertTrue(shows("Reaches grounds and rails"));
  }

  @Test(timeOut = 120_000)
  public void thePlatesAreWritten() throws Exception {
    Path out = Files.createTempDirectory("plates");
    files.folder = java.util.Optional.of(out);
    robot.type(KeyCode.SPACE);
    until("written", () -> Files.exists(out.resolve("drill-steps.csv")));
    for (String f : List.of("probe-plate.xnc", "plates.pdf", "wiring.csv", "parts.csv")) {
      assertTrue(Files.exists(out.resolve(f)), f);
    }
    until("told", () -> desk.noticeProperty().get().contains("wrote"));
  }
}
