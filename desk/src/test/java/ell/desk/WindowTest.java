package ell.desk;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertNotNull;
import static org.testng.Assert.assertTrue;

import ell.core.beep.BeepFacts;
import ell.core.board.Side;
import ell.core.entry.Entry;
import ell.core.order.OrderFacts;
import ell.core.power.PowerFacts;
import ell.core.quantity.Verdict;
import ell.core.rack.Stage;
import ell.core.rack.Standing;
import ell.desk.key.Command;
import ell.desk.power.PowerModel;
import ell.work.demo.DemoWorkspace;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ListView;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyCombination;
import javafx.scene.text.Text;
import org.testfx.util.WaitForAsyncUtils;
import org.testng.annotations.Test;

/// The real window, worked by keys and clicks without a monitor.
public class WindowTest extends WindowCase {
  /// The whole job in one go: an empty workspace, dropped files, kit, steps by Space, a fault and
  /// its strike, the beeper, first power of a good and of a faulty board, the record.
  @Test(timeOut = 120_000)
  public void theWholePath() throws Exception {
    Path ws = Desks.file();
    files.workspace = Optional.of(ws);
    assertTrue(shows("No workspace is open"));
    robot.clickOn("#new-workspace");
    until("the empty workspace", () -> desk.snapshotProperty().get().open());
    assertTrue(
        shows("Drop the files of a fabricated revision here"),
        "an empty workspace says what to drop");
    Path b = Desks.DEMO.resolve("mg-1-b");
    files.files =
        List.of(
            b.resolve("bom.csv"),
            b.resolve("placement.csv"),
            b.resolve("netlist.ipc"),
            b.resolve("outline.csv"),
            b.resolve("ladder.json"),
            Desks.DEMO.resolve("shelf.csv"));
    robot.clickOn("#choose-files");
    until("the files are told apart", () -> robot.lookup(".drop-file").queryAll().size() == 6);
    robot.clickOn("#design").write("MG-1");
    robot.interact(() -> ((TextField) node("#boards")).setText("2"));
    robot.clickOn("#import");
    until("the revision", () -> desk.work().isPresent());
    assertEquals(work().build().boards(), List.of("01", "02"));
    until("what the files said", () -> robot.lookup("#account-sheet").tryQuery().isPresent());
    robot.type(KeyCode.ESCAPE);

    // kit
    assertTrue(shows("Kit ·"));
    robot.type(KeyCode.SPACE);

    // order
    robot.type(KeyCode.F2);
    until("stage order", () -> desk.navigation().at(Stage.ORDER));
    assertEquals(work().plan().order().steps().getFirst().side(), Side.SECOND, "the lower side");
    robot.push(KeyCode.SHIFT, KeyCode.T);
    until(
        "the other side first",
        () -> work().plan().order().steps().getFirst().side() == Side.FIRST);
    logs(2, () -> robot.type(KeyCode.SPACE));
    logsOne(() -> robot.type(KeyCode.SPACE));
    assertEquals(
        OrderFacts.of(work().state()).placed().size(),
        work().plan().order().steps().get(1).parts().size());
    robot.type(KeyCode.F);
    until("the tape begins with a part", () -> !desk.tape().textProperty().get().isBlank());
    robot.write("missing");
    logsOne(() -> robot.type(KeyCode.ENTER));
    assertTrue(work().log().getLast().entry() instanceof Entry.Defect);
    assertEquals(work().standings().get("01").mark(), Standing.Mark.OUT);
    robot.push(KeyCode.CONTROL, KeyCode.Z);
    until("it is struck", () -> work().state().findings().isEmpty());
    robot.type(KeyCode.SLASH);
    robot.write("steps 3-42");
    int before = work().log().size();
    robot.type(KeyCode.ENTER);
    until("the steps", () -> work().log().size() > before + 30);

    // power is refused before the beeper
    robot.type(KeyCode.F7);
    until("stage power", () -> desk.navigation().at(Stage.POWER));
    until("what stands in the way", () -> shows("Not yet: the beep checks to ground come first"));
    int waiting = work().log().size();
    robot.type(KeyCode.SPACE);
    assertEquals(work().log().size(), waiting);

    // beep
    robot.type(KeyCode.F6);
    robot.type(KeyCode.O);
    until("an open loop", () -> BeepFacts.of(work().state()).checks().size() == 1);
    robot.type(KeyCode.G);
    until("the guards", () -> guardsHold());

    // the meter is listened to: what is steady takes itself, and the next check comes up
    int made = BeepFacts.of(work().state()).checks().size();
    robot.type(KeyCode.V);
    until(
        "readings take themselves", () -> BeepFacts.of(work().state()).checks().size() >= made + 3);
    robot.type(KeyCode.V);
    until("it is quiet", () -> !shows("listening"));
    assertTrue(
        BeepFacts.of(work().state()).checks().values().stream()
            .allMatch(l -> ((Entry.Check) l.entry()).verdict() == Verdict.WITHIN));

    // first power
    switchOn();
    assertTrue(shows("OUTPUT ON"));
    for (int i = 0; i < work().plan().ladder().raised().size(); i++) {
      logsOne(() -> robot.type(KeyCode.SPACE));
    }
    assertEquals(work().standings().get("01").phrase(), "rails within");
    robot.type(KeyCode.SPACE);
    until("off", () -> phase() == PowerModel.Phase.OFF);
    assertFalse(PowerFacts.of(work().state()).supply().orElseThrow().on());

    // the rails of every board, and back
    robot.type(KeyCode.M);
    until("every board", () -> shows("Rails of every board"));
    robot.type(KeyCode.M);
    until("the ladder", () -> !shows("Rails of every board"));

    // record
    Path pdf = ws.resolveSibling("record.pdf");
    files.record = Optional.of(pdf);
    robot.push(KeyCode.CONTROL, KeyCode.P);
    until("the record", () -> Files.isRegularFile(pdf));
  }

  @Test(timeOut = 60_000)
  public void aFaultyBoardIsFoundAndOutputGoesOffByKey() throws Exception {
    demo();
    board("06");
    switchOn();
    while (power().shownProperty().get().next().isPresent()) {
      logsOne(() -> robot.type(KeyCode.SPACE));
    }
    assertEquals(
        PowerFacts.of(work().state()).reading("3V3A").orElseThrow().verdict().orElseThrow(),
        Verdict.OUT);
    robot.type(KeyCode.SLASH); // O is only a letter while one types
    robot.write("note ho");
    assertEquals(phase(), PowerModel.Phase.ON);
    assertEquals(desk.tape().textProperty().get(), "note ho");
    robot.type(KeyCode.ESCAPE);
    until("the tape is left", () -> desk.tape().textProperty().get().isEmpty());
    assertEquals(phase(), PowerModel.Phase.ON, "Escape left the tape, and no more");
    robot.type(KeyCode.ESCAPE);
    until("off", () -> phase() == PowerModel.Phase.OFF);
  }

  @Test(timeOut = 60_000)
  public void takingAnotherBoardInHandSwitchesOff() throws Exception {
    demo();
    board("07");
    switchOn();
    robot.push(KeyCode.ALT, KeyCode.DOWN);
    until("board 08", () -> desk.navigation().boardProperty().get().equals("08"));
    until("off", () -> phase() == PowerModel.Phase.OFF);
    board("07");
    until(
        "the end is in the book",
        () -> PowerFacts.of(work().state()).supply().filter(s -> !s.on()).isPresent());
  }

  @Test(timeOut = 60_000)
  public void digitsBeginAReading() throws Exception {
    demo();
    board("09");
    robot.type(KeyCode.F7);
    robot.type(KeyCode.DIGIT3);
    until("the tape", () -> desk.tape().textProperty().get().startsWith("VIN_RAW "));
    assertTrue(node("#tape").isFocused());
    robot.type(KeyCode.ESCAPE);
    until("the keys are back", () -> node("#sheet").isFocused());
    robot.type(KeyCode.N);
    robot.write("a note");
    until("the hint", () -> ((Label) node("#tape-hint")).getText().contains("logs to 09: a note"));
    logsOne(() -> robot.type(KeyCode.ENTER));
  }

  @Test(timeOut = 60_000)
  public void namesAreCompletedByTab() throws Exception {
    demo();
    robot.type(KeyCode.SLASH);
    robot.write("3v");
    robot.type(KeyCode.TAB);
    assertEquals(((TextField) node("#tape")).getText(), "3V3 ");
    robot.write("3.9");
    until("out", () -> ((Label) node("#tape-hint")).getText().contains("3.900 V · out"));
  }

  @Test(timeOut = 60_000)
  public void keysSheetLadderAndBigCard() throws Exception {
    demo();
    robot.push(KeyCode.CONTROL, KeyCode.F12);
    assertNotNull(node("#key-sheet"));
    List<String> elsewhere =
        Stage.ALL.stream()
            .filter(x -> x != desk.navigation().stageProperty().get())
            .map(Stage::title)
            .toList();
    for (Command c : window.commands()) {
      if (!elsewhere.contains(c.group())) {
        assertTrue(shows(c.keyText()), c.id());
      }
    }
    robot.type(KeyCode.SPACE); // does nothing under a sheet
    robot.type(KeyCode.ESCAPE);
    assertTrue(robot.lookup("#key-sheet").tryQuery().isEmpty());
    robot.type(KeyCode.F2);
    robot.type(KeyCode.B);
    assertNotNull(node("#big"));
    robot.type(KeyCode.B);
    assertTrue(robot.lookup("#big").tryQuery().isEmpty());
    robot.type(KeyCode.F7);
    robot.type(KeyCode.L);
    robot.interact(() -> ((javafx.scene.control.TextArea) node("#ladder-json")).setText("{"));
    robot.interact(() -> ((Button) node("#ladder-keep")).fire());
    until("what is wrong", () -> ((Label) node("#ladder-wrong")).getText().contains("JSON"));
    robot.type(KeyCode.ESCAPE);
    assertTrue(robot.lookup("#ladder-editor").tryQuery().isEmpty());
  }

  @Test(timeOut = 60_000)
  public void rackAndRuleByMouse() throws Exception {
    demo();
    ListView<String> rack = node("#rack");
    robot.interact(() -> rack.getSelectionModel().select("05"));
    until("board 05", () -> desk.navigation().boardProperty().get().equals("05"));
    robot.clickOn("#stage-order");
    until("order", () -> desk.navigation().at(Stage.ORDER));
    robot.clickOn("#stage-revise");
    until("revise", () -> desk.navigation().at(Stage.REVISE));
    robot.clickOn("#stage-order");
    until("order again", () -> desk.navigation().at(Stage.ORDER));
    robot.clickOn("#board-drawing");
    robot.push(KeyCode.CONTROL, KeyCode.B);
    until(
        "the other build",
        () ->
            work().build().design().equals("MG-1")
                && desk.navigation().boardProperty().get().equals("A01"));
    assertEquals(rack.getItems().size(), 5);
  }

  @Test(timeOut = 60_000)
  public void problemsWithFilesAreShownAndNothingIsImported() throws Exception {
    Path ws = Desks.file();
    robot.interact(() -> desk.create(ws));
    until("the workspace", () -> desk.snapshotProperty().get().open());
    Path bad = ws.resolveSibling("bom.csv");
    Files.writeString(
        bad, Files.readString(Desks.DEMO.resolve("mg-1-b/bom.csv")).replace("1,U1,", "9,U1,"));
    files.files =
        List.of(
            bad,
            Desks.DEMO.resolve("mg-1-b/placement.csv"),
            Desks.DEMO.resolve("mg-1-b/netlist.ipc"));
    robot.clickOn("#choose-files");
    until("told apart", () -> robot.lookup(".drop-file").queryAll().size() == 3);
    robot.interact(() -> ((TextField) node("#design")).setText("X"));
    robot.clickOn("#import");
    until("the problem", () -> shows("bom.csv, line 7, column 1: quantity 9 does not match"));
    assertTrue(desk.work().isEmpty());

    // good files, and a variant that the bill does not speak of
    files.files = List.of(Desks.DEMO.resolve("mg-1-b/bom.csv"));
    robot.clickOn("#choose-files");
    until("no problem is left", () -> !shows("bom.csv, line 7"));
    robot.clickOn("#variant").write("polar");
    robot.clickOn("#import");
    until("the variant is refused", () -> shows("has no variant 'polar'"));
    assertTrue(desk.work().isEmpty(), "and nothing was stored");
  }

  @Test(timeOut = 60_000)
  public void everyCommandHasItsOwnKeyAndEverythingHasAName() throws Exception {
    demo();
    Map<KeyCombination, Command> seen = new HashMap<>();
    List<String> stages = Stage.ALL.stream().map(Stage::title).toList();
    for (Command c : window.commands()) {
      for (KeyCombination k : c.keys()) {
        Command before = seen.put(k, c);
        // a key may mean different things at different stages, never two at once; Escape leaves
        // whatever is open
        boolean apart =
            before != null
                && stages.containsAll(List.of(c.group(), before.group()))
                && !c.group().equals(before.group());
        assertTrue(
            before == null || apart || List.of("Esc", "Escape").contains(k.getDisplayText()),
            c.id() + " and " + k);
      }
    }
    for (Stage s : Stage.ALL) {
      if (s.built()) {
        robot.interact(() -> desk.navigation().stageProperty().set(s));
        WaitForAsyncUtils.waitForFxEvents();
        for (Node n :
            robot.lookup((Node x) -> x.isFocusTraversable() && x.isVisible()).queryAll()) {
          boolean named =
              n.getAccessibleText() != null
                  || n instanceof Button x && !x.getText().isEmpty()
                  || n.getId() != null
                  || n.getClass().getName().contains("ScrollBar")
                  || n.getStyleClass().contains("scroll-pane");
          assertTrue(named, n + " has a name for readers");
        }
      }
    }
  }

  /// Nothing that is written is cut off or stands on top of something else, at the smallest and the
  /// design size, by day and at night.
  @Test(timeOut = 90_000)
  public void holdsAtEverySize() throws Exception {
    demo();
    board("02");
    for (double[] size : new double[][] {{1280, 800}, {1100, 700}}) {
      robot.interact(() -> {
        stage.setWidth(size[0]);
        stage.setHeight(size[1]);
      });
      for (Stage s : Stage.ALL) {
        if (!s.built()) {
          continue;
        }
        robot.interact(() -> desk.navigation().stageProperty().set(s));
        WaitForAsyncUtils.waitForFxEvents();
        Scene scene = stage.getScene();
        Node sheet = node("#sheet");
        assertTrue(sheet.getBoundsInParent().getWidth() > 500, s + " keeps room for its drawing");
        for (String id : List.of("#tape", "#rack", "#margin")) {
          var b = node(id).localToScene(node(id).getBoundsInLocal());
          assertTrue(
              b.getMaxX() <= scene.getWidth() + 1 && b.getMaxY() <= scene.getHeight() + 1,
              id + " at " + size[0] + " in " + s);
        }
        for (Node n : robot.lookup(".sheet-title").queryAll()) {
          Text inside = (Text) n.lookup(".text");
          assertEquals(inside.getText(), ((Label) n).getText(), "a title is not cut off");
        }
      }
    }
    robot.push(KeyCode.CONTROL, KeyCode.D);
    until("night", () -> desk.nightProperty().get());
    assertTrue(
        node(".desk").getPseudoClassStates().stream()
            .anyMatch(c -> c.getPseudoClassName().equals("night")),
        "the palette follows");
  }

  @Test
  public void theDemoFolderIsFound() {
    assertEquals(DemoWorkspace.folder().getFileName().toString(), "demo");
  }
}
