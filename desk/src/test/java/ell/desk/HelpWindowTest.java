package ell.desk;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import ell.core.rack.Stage;
import ell.desk.help.HelpSheet;
import java.nio.file.Path;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.control.Hyperlink;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import org.testfx.util.WaitForAsyncUtils;
import org.testng.annotations.Test;

/// Help by key on whatever is selected.
public class HelpWindowTest extends WindowCase {
  private Optional<HelpSheet> help() {
    return robot.lookup("#help-sheet").tryQueryAs(HelpSheet.class);
  }

  private String title() {
    return robot.lookup("#help-title").queryAs(Label.class).getText();
  }

  private void ask() {
    robot.push(KeyCode.CONTROL, KeyCode.F1);
    WaitForAsyncUtils.waitForFxEvents();
  }

  @Test
  public void everyStageHasItsPageAndThePassageIsInSight() throws Exception {
    ask();
    assertTrue(title().startsWith("What Ell reads") || !title().isEmpty(), "on the empty desk too");
    robot.type(KeyCode.ESCAPE);
    assertTrue(help().isEmpty());
    Path demo = Desks.demo();
    robot.interact(() -> desk.open(demo));
    until("the demo", () -> desk.work().isPresent());
    for (Stage s : Stage.ALL) {
      if (!s.built()) {
        continue;
      }
      robot.interact(() -> desk.navigation().goTo(s));
      until("the stage", () -> desk.navigation().at(s));
      ask();
      assertTrue(title().startsWith(s.title()), s.key() + " opens " + title());
      Optional<Node> sought = robot.lookup("#help-sought").tryQuery();
      if (sought.isPresent()) {
        until(s.key() + ": the passage is in sight", () -> inSight(sought.get()));
      }
      robot.type(KeyCode.ESCAPE);
      assertTrue(help().isEmpty(), "closed at " + s.key());
    }
  }

  private boolean inSight(Node n) {
    ScrollPane p = robot.lookup("#help-page").queryAs(ScrollPane.class);
    double y = n.localToScene(0, 0).getY();
    double top = p.localToScene(0, 0).getY();
    return y >= top - 1 && y < top + p.getHeight();
  }

  @Test
  public void waysAreFollowedAndTheWayBack() throws Exception {
    Path demo = Desks.demo();
    robot.interact(() -> desk.open(demo));
    until("the demo", () -> desk.work().isPresent());
    robot.interact(() -> desk.navigation().goTo(Stage.BEEP));
    ask();
    String first = title();
    robot.interact(() -> way("to the page revise").fire());
    assertTrue(title().startsWith("Revise"), title());
    robot.type(KeyCode.BACK_SPACE);
    assertEquals(title(), first);
    robot.type(KeyCode.SLASH);
    TextField find = robot.lookup("#help-find").queryAs(TextField.class);
    until("the line to find", find::isFocused);
    robot.interact(() -> find.setText("tombstone"));
    assertTrue(shows("Found"), "passages are found");
    assertTrue(shows("a small part that stands on one end"), "and the word is told");
    robot.type(KeyCode.ENTER);
    until("the page that was found", () -> !title().equals(first));
    robot.interact(() -> find.setText("zzzzqq"));
    assertTrue(shows("No page speaks of this"));
    robot.type(KeyCode.ESCAPE);
    assertTrue(help().isEmpty());
  }

  private Hyperlink way(String says) {
    return robot
        .lookup((Node n) -> n instanceof Hyperlink h && says.equals(h.getAccessibleText()))
        .queryAs(Hyperlink.class);
  }

  @Test
  public void whileTypingAndOverWhatIsLaidOver() throws Exception {
    Path demo = Desks.demo();
    robot.interact(() -> desk.open(demo));
    until("the demo", () -> desk.work().isPresent());
    robot.type(KeyCode.N);
    until("a note is begun", () -> desk.tape().textProperty().get().startsWith("note"));
    ask();
    assertTrue(help().isPresent(), "help while typing");
    assertTrue(title().contains("book"), "the tape is told on the page of the book: " + title());
    robot.type(KeyCode.ESCAPE);
    assertTrue(desk.tape().textProperty().get().startsWith("note"), "what was typed stays");
    robot.interact(() -> robot.lookup("#sheet").query().requestFocus());
    robot.push(KeyCode.SHIFT, KeyCode.SLASH);
    until("the keys", () -> robot.lookup("#key-sheet").tryQuery().isPresent());
    ask();
    assertTrue(help().isPresent());
    robot.type(KeyCode.ESCAPE);
    assertTrue(help().isEmpty());
    assertTrue(
        robot.lookup("#key-sheet").tryQuery().isPresent(), "what help was asked over is back");
    robot.type(KeyCode.ESCAPE);
    assertFalse(robot.lookup("#key-sheet").tryQuery().isPresent());
  }
}
