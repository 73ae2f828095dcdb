package ell.desk;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import ell.core.power.PowerFacts;
import ell.desk.mark.Picture;
import ell.desk.power.PowerModel;
import ell.desk.scripted.Screenshots;
import ell.desk.shell.DeskModel;
import ell.desk.window.MainWindow;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import javafx.geometry.Bounds;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.text.Font;
import org.testfx.util.WaitForAsyncUtils;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// The face of the window: sizes, typefaces, Escape and the large OFF, what an empty desk says, the
/// pictures of the documentation.
public class FaceWindowTest extends WindowCase {
  private double shownHeight(String query) {
    Bounds b = node(query).localToScene(node(query).getBoundsInLocal());
    return b.getHeight();
  }

  @Test(timeOut = 60_000)
  public void everythingGrowsByAKeyAndShrinksAgain() throws Exception {
    demo();
    double before = ((Label) node("#notice")).getFont().getSize();
    double rule = shownHeight("#tape");
    robot.push(KeyCode.CONTROL, KeyCode.PLUS);
    until("125 %", () -> desk.sizeProperty().get() == 1.25);
    assertTrue(shows("shown at 125 %"));
    assertTrue(shownHeight("#tape") > 1.15 * rule, "it is drawn larger");
    assertEquals(((Label) node("#notice")).getFont().getSize(), before, "by one transform");
    robot.push(KeyCode.CONTROL, KeyCode.MINUS);
    until("100 %", () -> desk.sizeProperty().get() == 1);
    assertEquals(shownHeight("#tape"), rule, 0.5);
    robot.push(KeyCode.CONTROL, KeyCode.MINUS);
    WaitForAsyncUtils.waitForFxEvents();
    assertEquals(desk.sizeProperty().get(), 1.0, "there is nothing smaller");
  }

  @Test(timeOut = 60_000)
  public void aSizeThatDoesNotFitIsRefusedWithWhatItNeeds() throws Exception {
    demo();
    robot.push(KeyCode.CONTROL, KeyCode.PLUS);
    until("125 %", () -> desk.sizeProperty().get() == 1.25);
    robot.push(KeyCode.CONTROL, KeyCode.PLUS);
    until("the reason", () -> shows("150 % needs a window of"));
    assertEquals(desk.sizeProperty().get(), 1.25);
  }

  @DataProvider
  Object[][] windows() {
    return new Object[][] {
      {1280, 800, 1.0}, {1280, 800, 1.25}, {1920, 1080, 1.5}, {2560, 1440, 1.5}, {2560, 1440, 1.0}
    };
  }

  /// Nothing of the frame leaves the window, whatever the size of both. Laid out without being
  /// shown: the display of the tests is smaller than some of these.
  @Test(timeOut = 60_000, dataProvider = "windows")
  public void theFrameFillsTheWindow(int width, int height, double size) throws Exception {
    Path demo = Desks.demo();
    DeskModel own = Desks.atOnce(Desks.clock());
    robot.interact(() -> {
      MainWindow w = new MainWindow(own, files, () -> demo, 3);
      own.sizeProperty().set(size);
      own.open(demo);
      Parent root = w.scene(width, height).getRoot();
      root.applyCss();
      root.layout();
      for (String part : List.of("#sheet", "#margin", "#tape")) {
        Bounds b = inWindow(root, part);
        assertTrue(b.getMinX() >= -1 && b.getMinY() >= -1, part + " " + b);
        assertTrue(b.getMaxX() <= width + 1 && b.getMaxY() <= height + 1, part + " " + b);
      }
      assertEquals(inWindow(root, "#margin").getMaxX(), width, 2, "it stands at the right edge");
      assertTrue(inWindow(root, "#sheet").getWidth() > 0.45 * width, "the work has the room");
      own.close();
    });
  }

  private static Bounds inWindow(Parent root, String part) {
    Node n = root.lookup(part);
    return n.localToScene(n.getLayoutBounds());
  }

  @Test(timeOut = 60_000)
  public void numbersAndFormulasHaveTheirFaces() throws Exception {
    demo();
    robot.type(KeyCode.F7);
    until("the ladder's sheet", () -> robot.lookup(".sheet-formula").tryQuery().isPresent());
    Set<String> values = families(".sheet-value");
    assertTrue(
        values.stream().allMatch(f -> f.equals("B612") || f.equals("Cantarell")), values + "");
    assertEquals(families(".sheet-formula"), Set.of("Cantarell"));
    for (Node n : robot.lookup(".sheet-value").queryAll()) {
      Label l = (Label) n;
      boolean brackets = l.getText().matches(".*[()\\[\\]].*");
      assertEquals(l.getFont().getFamily().equals("Cantarell"), brackets, l.getText());
    }
    assertFalse(
        robot.lookup((Node n) -> n instanceof Label l && mono(l.getFont())).tryQuery().isPresent(),
        "no number is set in the face whose decimal point tears");
  }

  private static boolean mono(Font f) {
    return f.getFamily().toLowerCase(java.util.Locale.ROOT).contains("mono");
  }

  private Set<String> families(String query) {
    return robot.lookup(query).queryAll().stream()
        .map(n -> ((Label) n).getFont().getFamily())
        .collect(Collectors.toCollection(TreeSet::new));
  }

  private void powered() throws Exception {
    demo();
    board("07");
    switchOn();
  }

  @Test(timeOut = 60_000)
  public void escapeInTheTapeLeavesTheTapeAndNotTheSupply() throws Exception {
    powered();
    robot.type(KeyCode.SLASH);
    robot.write("3V3");
    robot.type(KeyCode.ESCAPE);
    WaitForAsyncUtils.waitForFxEvents();
    assertEquals(phase(), PowerModel.Phase.ON, "the first Escape only leaves the tape");
    assertFalse(node("#tape").isFocused());
    robot.type(KeyCode.ESCAPE);
    until("off", () -> phase() == PowerModel.Phase.OFF);
    assertFalse(PowerFacts.of(work().state()).supply().orElseThrow().on());
  }

  @Test(timeOut = 60_000)
  public void theLargeButtonSwitchesOff() throws Exception {
    demo();
    robot.type(KeyCode.F7);
    until("power", () -> desk.navigation().at(ell.core.rack.Stage.POWER));
    assertFalse(node("#output-off").isVisible(), "nothing is on");
    powered();
    Button off = node("#output-off");
    assertTrue(off.isVisible());
    assertTrue(off.getHeight() >= 30 && off.getFont().getSize() >= 15, "it is large");
    robot.clickOn(off);
    until("off", () -> phase() == PowerModel.Phase.OFF);
    assertFalse(off.isVisible());
  }

  @Test(timeOut = 60_000)
  public void oSwitchesOffWhateverIsInFront() throws Exception {
    powered();
    robot.type(KeyCode.O);
    until("off", () -> phase() == PowerModel.Phase.OFF);
  }

  @Test(timeOut = 60_000)
  public void anEmptyDeskSaysWhatEllAnswersAndWhatToDrop() {
    for (ell.core.rack.Stage s : ell.core.rack.Stage.ALL) {
      assertTrue(shows(s.question()), s.title());
    }
    assertTrue(
        robot
            .lookup((Node n) ->
                n instanceof Picture p
                    && p.isVisible()
                    && p.getAccessibleText() != null
                    && p.getAccessibleText().contains("bill of materials"))
            .tryQuery()
            .isPresent(),
        "what to drop where is drawn");
    assertTrue(node("#open-demo") instanceof Button b && b.getText().endsWith("D"));
  }

  /// The pictures that are kept are those that are taken: no fewer, no more, at most nineteen.
  @Test
  public void thePicturesOfTheDocumentationAreThoseThatAreTaken() throws IOException {
    Set<String> kept = new TreeSet<>();
    try (Stream<Path> all = Files.list(Path.of("../docs/screenshots"))) {
      all.forEach(p -> kept.add(p.getFileName().toString()));
    }
    Set<String> taken = new TreeSet<>();
    Screenshots.names(window).forEach(n -> taken.add(n + ".png"));
    assertEquals(kept, taken);
    assertEquals(taken.size(), Screenshots.names(window).size(), "no name is there twice");
    assertTrue(taken.size() <= 19, taken.size() + " pictures");
    String readme = Files.readString(Path.of("../README.md"));
    for (String name : taken) {
      assertTrue(readme.contains("docs/screenshots/" + name), name + " is linked from the README");
    }
  }
}
