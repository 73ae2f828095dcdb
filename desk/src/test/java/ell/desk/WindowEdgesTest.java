package ell.desk;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertNotEquals;
import static org.testng.Assert.assertTrue;

import ell.book.Book;
import ell.core.board.Part;
import ell.core.board.Revision;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.rack.Stage;
import ell.core.rack.Standing;
import ell.work.Workshop;
import java.lang.reflect.Method;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ListView;
import javafx.scene.control.TextArea;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import org.testfx.util.WaitForAsyncUtils;
import org.testng.annotations.Test;

/// The window at the edges of its use: wrong lines, questions that are answered with nothing, long
/// names, files that are no workspace, a workspace that another window holds.
public class WindowEdgesTest extends WindowCase {
  private String hint() {
    return ((Label) node("#tape-hint")).getText();
  }

  private String notice() {
    return ((Label) node("#notice")).getText();
  }

  @Test(timeOut = 60_000)
  public void aWrongLineStaysOnTheTape() throws Exception {
    demo();
    board("12");
    int before = work().log().size();
    Standing.Mark was = work().standings().get("12").mark();
    for (String wrong : List.of("NOWHERE 3.3", "3V3", "3V3 3.3 furlong", "step 999", "gate moon")) {
      robot.type(KeyCode.SLASH);
      robot.interact(() -> ((TextField) node("#tape")).setText(wrong));
      robot.type(KeyCode.ENTER);
      WaitForAsyncUtils.waitForFxEvents();
      assertEquals(((TextField) node("#tape")).getText(), wrong, "what was typed is not lost");
      assertFalse(desk.tape().readyProperty().get(), wrong + ": " + hint());
      assertFalse(hint().isBlank(), "it says what was expected: " + wrong);
      robot.type(KeyCode.ESCAPE);
    }
    assertEquals(work().log().size(), before, "nothing wrong is logged");
    assertEquals(work().standings().get("12").mark(), was);
  }

  @Test(timeOut = 60_000)
  public void questionsAnsweredWithNothingChangeNothing() throws Exception {
    robot.push(KeyCode.CONTROL, KeyCode.O);
    robot.clickOn("#new-workspace");
    WaitForAsyncUtils.waitForFxEvents();
    assertFalse(desk.snapshotProperty().get().open());
    Path ws = Desks.file();
    robot.interact(() -> desk.create(ws));
    until("the workspace", () -> desk.snapshotProperty().get().open());
    robot.clickOn("#choose-files");
    WaitForAsyncUtils.waitForFxEvents();
    assertEquals(robot.lookup(".drop-file").queryAll().size(), 0);
    robot.clickOn("#import");
    until("what is missing", () -> shows("are needed"));
    assertTrue(desk.work().isEmpty());
  }

  @Test(timeOut = 60_000)
  public void aFileThatIsNoWorkspaceLeavesTheOpenOne() throws Exception {
    demo();
    Path text = Files.createTempFile("no", ".ell");
    Files.writeString(text, "these are words");
    files.workspace = Optional.of(text);
    robot.push(KeyCode.CONTROL, KeyCode.O);
    until("the reason", () -> notice().contains("not a workspace"));
    assertEquals(work().standings().size(), 12, "the demo stays");
    assertEquals(Files.readString(text), "these are words", "a stranger's file is not touched");
    files.workspace = Optional.of(text.resolveSibling("none-" + System.nanoTime() + ".ell"));
    robot.push(KeyCode.CONTROL, KeyCode.O);
    until("the other reason", () -> notice().contains("there is no workspace"));
    assertEquals(work().standings().size(), 12);
  }

  @Test(timeOut = 60_000)
  public void aWorkspaceThatAnotherHoldsIsNotOpenedTwice() throws Exception {
    Path file = Desks.demo();
    try (Workshop other = Workshop.open(file, Clock.systemUTC())) {
      robot.interact(() -> desk.open(file));
      until("the reason", () -> !desk.noticeProperty().get().isEmpty());
      assertTrue(desk.work().isEmpty(), notice());
      assertTrue(other.book().verify().entries() > 500);
    }
    robot.interact(() -> desk.open(file));
    until("it is free again", () -> desk.work().isPresent());
  }

  @Test(timeOut = 60_000)
  public void longNamesKeepTheFrame() throws Exception {
    String design =
        "Tide gauge with a radio, a clock and more words than anybody would like to read";
    Path ws = Desks.file();
    robot.interact(() -> desk.create(ws));
    until("the workspace", () -> desk.snapshotProperty().get().open());
    Path b = Desks.DEMO.resolve("mg-1-b");
    files.files =
        List.of(b.resolve("bom.csv"), b.resolve("placement.csv"), b.resolve("netlist.ipc"));
    robot.clickOn("#choose-files");
    until("told apart", () -> robot.lookup(".drop-file").queryAll().size() == 3);
    robot.interact(() -> ((TextField) node("#design")).setText(design));
    robot.interact(() -> ((TextField) node("#boards")).setText("3"));
    robot.clickOn("#import");
    until("the revision", () -> desk.work().isPresent());
    assertEquals(work().build().design(), design);
    robot.interact(() -> {
      stage.setWidth(1100);
      stage.setHeight(700);
    });
    for (Stage s : Stage.ALL) {
      if (s.built()) {
        robot.interact(() -> desk.navigation().stageProperty().set(s));
        WaitForAsyncUtils.waitForFxEvents();
        for (String id : List.of("#tape", "#rack", "#margin", "#sheet")) {
          var box = node(id).localToScene(node(id).getBoundsInLocal());
          assertTrue(box.getMinX() >= -1 && box.getMaxX() <= 1101, id + " in " + s + " " + box);
          assertTrue(box.getMinY() >= -1 && box.getMaxY() <= 701, id + " in " + s + " " + box);
        }
      }
    }
  }

  @Test(timeOut = 60_000)
  public void theKitUnfoldsAndOpensEveryNeedAsASheet() throws Exception {
    demo();
    robot.type(KeyCode.F1);
    until("kit", () -> desk.navigation().at(Stage.KIT));
    assertTrue(shows("wait"), "the verdict is written");
    assertTrue(shows("RADIO24"), "with the part that limits");
    int entries = work().log().size();
    robot.type(KeyCode.SPACE);
    WaitForAsyncUtils.waitForFxEvents();
    for (int i = 0; i < 5; i++) {
      String before = desk.current().orElseThrow().marginProperty().get().sheet().toString();
      robot.type(KeyCode.DOWN);
      WaitForAsyncUtils.waitForFxEvents();
      var margin = desk.current().orElseThrow().marginProperty().get();
      assertNotEquals(margin.sheet().toString(), before, "the next line has its own sheet");
      assertTrue(margin.sheet().orElseThrow().sources().size() > 0, "a sheet names its source");
    }
    assertEquals(work().log().size(), entries, "looking logs nothing");
  }

  @Test(timeOut = 60_000)
  public void aReadingAtTheBeeperIsJudgedAgainstTheNetlist() throws Exception {
    demo();
    board("09");
    robot.type(KeyCode.F6);
    until("beep", () -> desk.navigation().at(Stage.BEEP));
    robot.type(KeyCode.DIGIT4);
    until("the line", () -> desk.tape().textProperty().get().startsWith("beep "));
    robot.interact(() -> ((TextField) node("#tape")).setText("beep 1 0.4"));
    until("out before it is logged", () -> hint().contains("out"));
    logsOne(() -> robot.type(KeyCode.ENTER));
    assertEquals(work().standings().get("09").mark(), Standing.Mark.OUT);
    assertFalse(guardsHold(), "a rail at ground keeps the power away");
    robot.push(KeyCode.CONTROL, KeyCode.Z);
    until("struck", () -> work().standings().get("09").mark() != Standing.Mark.OUT);
    assertTrue(
        work().log().stream().anyMatch(e -> e.entry() instanceof Entry.Strike),
        "a strike is an entry; nothing is erased");
  }

  @Test(timeOut = 60_000)
  public void aLadderIsKeptAndJudgesAtOnce() throws Exception {
    demo();
    board("07");
    robot.type(KeyCode.F7);
    robot.type(KeyCode.L);
    TextArea text = node("#ladder-json");
    String was = text.getText();
    assertTrue(was.contains("\"rail\"") || was.contains("\"rails\""), was.substring(0, 80));
    robot.interact(() -> text.setText(was.replace("\"low\" : 3.234", "\"low\" : 3.3")));
    robot.interact(() -> ((Button) node("#ladder-keep")).fire());
    until("it closes", () -> robot.lookup("#ladder-editor").tryQuery().isEmpty());
    until("kept", () -> work().plan().ladder().rail("3V3").orElseThrow().low() == 3.3);
    robot.type(KeyCode.SLASH);
    robot.interact(() -> ((TextField) node("#tape")).setText("3V3 3.25"));
    until("judged by the new band", () -> hint().contains("out"));
  }

  @Test(timeOut = 60_000)
  public void stepsAheadAndBackLogNothing() throws Exception {
    demo();
    board("08");
    robot.type(KeyCode.F2);
    until("order", () -> desk.navigation().at(Stage.ORDER));
    int before = work().log().size();
    String now = desk.current().orElseThrow().primaryWords();
    for (KeyCode k : List.of(KeyCode.RIGHT, KeyCode.RIGHT, KeyCode.LEFT, KeyCode.LEFT)) {
      robot.type(k);
    }
    robot.type(KeyCode.PLUS);
    robot.type(KeyCode.MINUS);
    WaitForAsyncUtils.waitForFxEvents();
    assertEquals(work().log().size(), before);
    assertEquals(desk.current().orElseThrow().primaryWords(), now, "back where it was");
  }

  @Test(timeOut = 60_000)
  public void theRackIsWalkedByKeysAndSaysItInWords() throws Exception {
    demo();
    board("03");
    robot.push(KeyCode.ALT, KeyCode.DOWN);
    until("the next", () -> desk.navigation().boardProperty().get().equals("04"));
    robot.push(KeyCode.ALT, KeyCode.UP);
    until("and back", () -> desk.navigation().boardProperty().get().equals("03"));
    ListView<String> rack = node("#rack");
    assertEquals(rack.getSelectionModel().getSelectedItem(), "03", "the rack follows");
    for (String serial : rack.getItems()) {
      Standing s = work().standings().get(serial);
      assertFalse(s.phrase().isBlank(), serial + " has words, not only a colour");
    }
  }

  @Test(timeOut = 60_000)
  public void closingTheDeskSwitchesTheSupplyOff() throws Exception {
    Path file = Desks.demo();
    robot.interact(() -> desk.open(file));
    until("the demo", () -> desk.work().isPresent());
    board("07");
    long before = work().log().size();
    switchOn();
    power().close();
    desk.close();
    until(
        "the file is free",
        () -> {
          try (Workshop w = Workshop.open(file, Clock.systemUTC())) {
            return w.book().verify().ok();
          } catch (Exception e) {
            return false;
          }
        });
    try (Workshop w = Workshop.open(file, Clock.systemUTC())) {
      assertTrue(w.book().verify().ok());
      List<Entry.Supply> supply =
          w.entries("07").stream()
              .skip(before)
              .map(Logged::entry)
              .filter(Entry.Supply.class::isInstance)
              .map(Entry.Supply.class::cast)
              .toList();
      assertTrue(supply.size() >= 2, "switching on and off are in the book: " + supply);
      assertTrue(supply.getFirst().on(), "first on");
      assertFalse(supply.getLast().on(), "last off");
    }
  }

  @Test(timeOut = 60_000)
  public void nightAndDayGoThroughEveryStage() throws Exception {
    demo();
    for (int i = 0; i < 2; i++) {
      boolean was = desk.nightProperty().get();
      robot.push(KeyCode.CONTROL, KeyCode.D);
      until("the other light", () -> desk.nightProperty().get() != was);
      for (KeyCode k : List.of(KeyCode.F1, KeyCode.F2, KeyCode.F6, KeyCode.F7)) {
        robot.type(k);
        WaitForAsyncUtils.waitForFxEvents();
        assertFalse(robot.lookup(".sheet-title").queryAll().isEmpty(), k + " has a title");
      }
    }
  }

  /// Fills the disk under the window: no more pages than there are. The book lets only its own
  /// tests do that.
  private void fillDisk() throws Exception {
    CountDownLatch filled = new CountDownLatch(1);
    desk.ask(w -> {
      try {
        Method m = Book.class.getDeclaredMethod("noMorePages");
        m.setAccessible(true);
        m.invoke(w.book());
        filled.countDown();
      } catch (ReflectiveOperationException e) {
        throw new IllegalStateException(e);
      }
    });
    assertTrue(filled.await(10, TimeUnit.SECONDS));
  }

  private void type(String line) {
    robot.type(KeyCode.SLASH);
    robot.interact(() -> ((TextField) node("#tape")).setText(line));
    robot.type(KeyCode.ENTER);
    WaitForAsyncUtils.waitForFxEvents();
  }

  @Test(timeOut = 90_000)
  public void aWindowThatStaysOpenOutlivesFullDisks() throws Exception {
    demo();
    board("12");
    String longer = "note " + "a long one ".repeat(170);
    for (int round = 0; round < 4; round++) {
      fillDisk();
      int logged = work().log().size();
      for (int i = 0; i < 12 && !notice().contains("the disk is full"); i++) {
        int now = logged;
        type(longer);
        until("told or logged", () -> work().log().size() > now || notice().contains("is full"));
        logged = work().log().size();
      }
      assertTrue(notice().contains("the disk is full"), notice());
      int before = logged;
      assertEquals(
          ((TextField) node("#tape")).getText().strip(), longer.strip(), "what failed is not lost");
      // there is room again: the same line goes in, by Enter
      robot.type(KeyCode.ENTER);
      until("the entry", () -> work().log().size() == before + 1);
      logsOne(() -> type("note there is room again"));
      assertFalse(notice().contains("full"), "it is not told for ever: " + notice());
    }
    CountDownLatch whole = new CountDownLatch(1);
    desk.ask(w -> {
      if (w.book().verify().ok()) {
        whole.countDown();
      }
    });
    assertTrue(whole.await(10, TimeUnit.SECONDS), "the chain holds");
  }

  private void importing(Path folder, String design, String columns) throws Exception {
    files.files =
        Stream.of("bom.csv", "placement.csv", "netlist.ipc").map(folder::resolve).toList();
    robot.clickOn("#choose-files");
    until("the files are told apart", () -> robot.lookup(".drop-file").queryAll().size() == 3);
    robot.interact(() -> {
      ((TextField) node("#design")).setText(design);
      ((TextField) node("#columns")).setText(columns);
    });
    robot.clickOn("#import");
  }

  @Test(timeOut = 60_000)
  public void guessesAreAnsweredOnTheSheetOfTheFiles() throws Exception {
    Path ws = Desks.file();
    robot.interact(() -> desk.create(ws));
    until("the workspace", () -> desk.snapshotProperty().get().open());
    Path shield = Path.of("../fixtures/odd/shield");
    importing(shield, "SH", "value=Worth");
    until("why not", () -> shows("there is no column 'Worth'"));
    assertTrue(desk.work().isEmpty(), "nothing was imported");
    robot.interact(() -> ((TextField) node("#columns")).setText("value=Value"));
    robot.clickOn("#import");
    until("what the files said", () -> robot.lookup("#account-sheet").tryQuery().isPresent());
    assertTrue(shows("the body of RELAY-5V (1 part)"), "a guess is told");
    TextField height =
        robot.lookup(".answer").queryAllAs(TextField.class).stream()
            .filter(f -> f.getAccessibleText().contains("RELAY-5V"))
            .findFirst()
            .orElseThrow();
    robot.interact(height::requestFocus);
    robot.interact(() -> height.setText("a lot"));
    robot.type(KeyCode.ENTER);
    until("what is no height", () -> notice().contains("the height of RELAY-5V"));
    robot.interact(() -> height.setText("15.5"));
    robot.type(KeyCode.ENTER);
    until("the answer", () -> shows("RELAY-5V stands 15.5 mm tall, as you say"));
    Revision r = work().plan().revision();
    Part relay =
        r.parts().stream()
            .filter(p -> p.packageName().equals("RELAY-5V"))
            .findFirst()
            .orElseThrow();
    until("the plan knows", () -> work().plan().revision().shape(relay).heightMm() == 15.5);
    robot.type(KeyCode.ESCAPE);
    assertTrue(robot.lookup("#account-sheet").tryQuery().isEmpty());
    robot.push(KeyCode.SHIFT, KeyCode.I);
    until("it again", () -> robot.lookup("#account-sheet").tryQuery().isPresent());
    robot.type(KeyCode.ESCAPE);
  }
}
