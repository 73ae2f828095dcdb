package ell.desk;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import ell.core.entry.Entry;
import ell.core.power.PowerFacts;
import java.util.List;
import java.util.Optional;
import javafx.geometry.Bounds;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import org.testfx.util.WaitForAsyncUtils;
import org.testng.annotations.Test;

/// What may be on is said in the largest letters, at every stage, until it is off.
public class AlarmWindowTest extends WindowCase {
  private void leaveOn(String board) throws Exception {
    robot.interact(() ->
        desk.act(w ->
            w.space()
                .append(
                    board,
                    List.of(
                        new Entry.Supply(
                            true,
                            false,
                            12,
                            0.1,
                            Optional.empty(),
                            Optional.empty(),
                            Optional.empty(),
                            "first power, and then the program was killed")))));
    until("the alarm", () -> shows("THE OUTPUT MAY BE ON") && shows("Board " + board));
  }

  private boolean alarmed() {
    return node("#alarm").isVisible();
  }

  @Test(timeOut = 60_000)
  public void itStandsOverEveryStageUntilItIsOff() throws Exception {
    demo();
    assertFalse(alarmed());
    board("07");
    leaveOn("07");
    Label words = node("#alarm-words");
    double size = words.getFont().getSize();
    for (KeyCode stage :
        List.of(KeyCode.F1, KeyCode.F2, KeyCode.F3, KeyCode.F4, KeyCode.F5, KeyCode.F6)) {
      robot.type(stage);
      WaitForAsyncUtils.waitForFxEvents();
      assertTrue(alarmed(), stage.toString());
      Bounds b = words.localToScene(words.getBoundsInLocal());
      assertTrue(b.getMinX() >= 0 && b.getMaxX() <= 1280, "whole on the screen: " + b);
      assertTrue(whole(words), "nothing of it is cut off");
    }
    for (Node n : robot.lookup((Node x) -> x instanceof Label && x.isVisible()).queryAll()) {
      assertTrue(((Label) n).getFont().getSize() <= size, "no letters are larger: " + n);
    }
    board("03");
    assertTrue(alarmed(), "whatever board is in hand");
    robot.clickOn("#alarm-off", MouseButton.PRIMARY);
    until("it is off", () -> !alarmed());
    board("07");
    assertFalse(PowerFacts.of(work().state()).mayBeOn());
    assertEquals(((Entry.Supply) work().log().getLast().entry()).why(), "switched off");
  }

  private static boolean whole(Label l) {
    return l.getChildrenUnmodifiable().stream()
        .filter(javafx.scene.text.Text.class::isInstance)
        .map(javafx.scene.text.Text.class::cast)
        .noneMatch(t -> t.getText().endsWith("..."));
  }

  @Test(timeOut = 60_000)
  public void theKeyAtPowerSwitchesOffToo() throws Exception {
    demo();
    board("07");
    leaveOn("06");
    robot.type(KeyCode.F7);
    until("the stage", () -> shows("output off"));
    board("06");
    until("the state of this board", () -> shows("OUTPUT MAY BE ON"));
    robot.type(KeyCode.O);
    until("it is off", () -> !alarmed());
    board("06");
    assertFalse(PowerFacts.of(work().state()).mayBeOn());
  }

  @Test(timeOut = 60_000)
  public void aLineEndsItWhenTheMakerHasSeenIt() throws Exception {
    demo();
    board("07");
    leaveOn("07");
    robot.interact(() -> {
      desk.tape().begin("");
      desk.tape().textProperty().set("off at the wall");
      desk.tape().enter();
    });
    until("it is over", () -> !alarmed());
  }

  /// What the window itself has on is no alarm: it has its own large OFF.
  @Test(timeOut = 60_000)
  public void aRunOfThisWindowRaisesNone() throws Exception {
    demo();
    board("07");
    boolean[] seen = {false};
    robot.interact(
        () -> node("#alarm").visibleProperty().addListener((_, _, now) -> seen[0] |= now));
    switchOn();
    assertFalse(alarmed());
    robot.type(KeyCode.O);
    until("off", () -> phase() == ell.desk.power.PowerModel.Phase.OFF);
    until("the end is in the book", () -> !PowerFacts.of(work().state()).mayBeOn());
    WaitForAsyncUtils.waitForFxEvents();
    assertFalse(seen[0], "not for a moment");
  }
}
