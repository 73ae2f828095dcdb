package ell.desk;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import ell.core.entry.Entry;
import ell.core.power.PowerFacts;
import ell.core.prove.ProveFacts;
import ell.core.quantity.Verdict;
import ell.core.rack.Stage;
import ell.desk.prove.ProveModel;
import ell.work.demo.DemoWorkspace;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextArea;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/// Proofs through the window, by keys: the maker's run, the helper's run, the build.
public class ProveWindowTest extends WindowCase {
  private static final String PLAN =
      """
      plan short
      power
      volts 3V3 needs=power
      ask "Is LED1 lit?" yes name=lit
      ask "How bright is it?" 1..5V name=bright
      volts 5V0 needs=power
      off
      """;

  private ProveModel prove() {
    return window.model(ProveModel.class);
  }

  private ProveModel.Shown shown() {
    return prove().shownProperty().get();
  }

  private Optional<ProveFacts.Run> last() {
    return ProveFacts.of(work().state()).last();
  }

  @BeforeMethod
  public void begin() throws Exception {
    Path ws = Files.createTempDirectory("prove").resolve("ws.ell");
    DemoWorkspace.make(ws, Path.of("../demo"), true).close();
    robot.interact(() -> desk.open(ws));
    until("the demo", () -> desk.work().isPresent());
    board("01");
    robot.type(KeyCode.F12);
    assertTrue(desk.navigation().at(Stage.PROVE));
    until("the plan", () -> shown().plan().isPresent() && !prove().primaryWords().isEmpty());
  }

  /// Writes another plan in the editor, first one that is none.
  private void plan(String text) throws Exception {
    robot.type(KeyCode.L);
    until("the editor", () -> robot.lookup("#plan-editor").tryQuery().isPresent());
    String written = ((TextArea) node("#plan-text")).getText();
    assertTrue(written.contains("# shorts first"), "with its remarks: " + written);
    robot.interact(() -> ((TextArea) node("#plan-text")).setText("volt 3V3\npower\nvolts"));
    robot.interact(() -> ((Button) node("#plan-keep")).fire());
    until(
        "both lines that are wrong",
        () ->
            ((Label) node("#plan-wrong")).getText().contains("line 1:")
                && ((Label) node("#plan-wrong")).getText().contains("line 3:"));
    robot.interact(() -> ((TextArea) node("#plan-text")).setText(text));
    robot.interact(() -> ((Button) node("#plan-keep")).fire());
    until("kept", () -> robot.lookup("#plan-editor").tryQuery().isEmpty());
    until("its plan", () -> shown().plan().filter(p -> p.name().equals("short")).isPresent());
  }

  private void asked(String words) throws Exception {
    until("it asks " + words, () -> shown().question().isPresent() && shows(words));
  }

  private void over() throws Exception {
    until("it is over", () -> !shown().runs() && last().flatMap(ProveFacts.Run::ended).isPresent());
  }

  /// The whole plan of the demo: loaded, spoken to, a lamp looked at; every key is Space.
  @Test(timeOut = 180_000)
  public void theMakersRun() throws Exception {
    assertTrue(shows("Space proves this board"));
    robot.type(KeyCode.SPACE);
    until("it runs", () -> shown().runs() && shown().now().isPresent());
    while (true) {
      until("a question or the end", () -> shown().question().isPresent() || !shown().runs());
      if (!shown().runs()) {
        break;
      }
      Object q = shown().question().orElseThrow();
      assertTrue(shows("Space for yes, X for no"));
      robot.type(KeyCode.SPACE);
      until("it goes on", () -> shown().question().filter(x -> x.equals(q)).isEmpty());
    }
    over();
    assertEquals(
        last().orElseThrow().verdict().orElseThrow(),
        Verdict.WITHIN,
        last().orElseThrow().made().toString());
    until("the word", () -> ((Label) node("#prove-word")).getText().equals("PASS"));
    assertTrue(node("#prove-word").isVisible());
    String rungs = node("#prove-rungs").getAccessibleText();
    assertTrue(rungs.contains("3V3") && rungs.contains("first-load within"), rungs);
    assertFalse(PowerFacts.of(work().state()).mayBeOn());
    until("the gate is told", () -> shows("Before it is used"));
    assertEquals(work().standings().get("01").phrase(), "proved");
  }

  @Test(timeOut = 180_000)
  public void questionsStopsAndGoingOn() throws Exception {
    plan(PLAN);
    robot.type(KeyCode.SPACE);
    asked("Is LED1 lit?");
    assertTrue(shown().on(), "the board has power");
    assertTrue(shows("OUTPUT ON") || shows("Space for yes"));
    robot.type(KeyCode.O);
    until("stopped", () -> !shown().runs());
    until("off in the book", () -> !PowerFacts.of(work().state()).mayBeOn());
    until("it can go on", () -> ((Label) node("#prove-word")).getText().equals("GO ON"));
    long run = last().orElseThrow().number();
    robot.type(KeyCode.SPACE);
    asked("Is LED1 lit?");
    robot.type(KeyCode.X);
    asked("How bright is it?");
    TextField number = node("#prove-number");
    until("it is typed there", () -> number.isVisible() && number.isFocused());
    robot.write("3.3");
    robot.type(KeyCode.ENTER);
    over();
    assertEquals(last().orElseThrow().number(), run, "the same run");
    assertEquals(last().orElseThrow().verdict().orElseThrow(), Verdict.OUT);
    assertTrue(
        last().orElseThrow().made().stream()
            .anyMatch(s -> s.name().equals("bright") && s.value().orElse(0.0) == 3.3));
    until("put aside", () -> ((Label) node("#prove-word")).getText().equals("PUT ASIDE"));
    assertTrue(shows("entry "), "its ticket");

    // once more, and the step is left out
    robot.type(KeyCode.SPACE);
    asked("Is LED1 lit?");
    robot.type(KeyCode.K);
    until("why", () -> robot.lookup("#prove-skip-line").tryQuery().isPresent());
    robot.interact(() -> ((TextField) node("#prove-skip-line")).setText("it is covered"));
    until("typed into", () -> node("#prove-skip-line").isFocused());
    robot.type(KeyCode.ENTER);
    asked("How bright is it?");
    robot.write("2");
    robot.type(KeyCode.ENTER);
    over();
    assertTrue(
        last().orElseThrow().made().stream()
            .anyMatch(s -> s.name().equals("lit") && s.words().equals("by hand: it is covered")));
    until("ask", () -> ((Label) node("#prove-word")).getText().equals("ASK"));
    robot.type(KeyCode.B);
    until("large", () -> robot.lookup("#big").tryQuery().isPresent());
    robot.type(KeyCode.B);
  }

  /// A helper is refused what the maker has not shown, and no key does harm.
  @Test(timeOut = 180_000)
  public void theHelpersRun() throws Exception {
    plan("plan short\nohms 3V3 GND 100ohm..\n");
    robot.interact(() -> desk.log(java.util.List.of(new Entry.Operator("Kim", true))));
    until("a helper", () -> shown().helper());
    robot.type(KeyCode.SPACE);
    until(
        "refused", () -> !shown().runs() && desk.noticeProperty().get().contains("has not passed"));
    assertEquals(shown().said(), desk.noticeProperty().get());
    assertTrue(shows("has not passed another board"));
    assertTrue(last().isEmpty(), "nothing is logged");
    // the maker passes another board by the same plan
    board("02");
    until("its plan", () -> shown().plan().isPresent() && !prove().primaryWords().isEmpty());
    robot.type(KeyCode.SPACE);
    over();
    assertEquals(last().orElseThrow().verdict().orElseThrow(), Verdict.WITHIN);
    board("01");
    until("its plan", () -> shown().plan().isPresent() && !prove().primaryWords().isEmpty());
    robot.type(KeyCode.SPACE);
    over();
    until("pass", () -> ((Label) node("#prove-word")).getText().equals("PASS"));
    robot.type(KeyCode.SLASH);
    robot.write("released");
    robot.type(KeyCode.ENTER);
    until("refused", () -> shows("lets no board leave the bench"));
  }

  /// Over the build each test has its row, the odd board is named, and the sheet is at hand.
  @Test(timeOut = 120_000)
  public void theBuild() throws Exception {
    robot.interact(() -> desk.walkBuilds());
    until(
        "the first build", () -> work().board().startsWith("S") || work().board().startsWith("A"));
    while (!work().board().startsWith("A")) {
      String before = work().board();
      robot.interact(() -> desk.walkBuilds());
      until("the next build", () -> !work().board().equals(before));
    }
    robot.type(KeyCode.M);
    until("what it says", () -> shown().every() && shown().build().isPresent());
    String told = node("#prove-build").getAccessibleText();
    assertTrue(told.contains("5V0: 5 boards, none failed, board A05 stands apart"), told);
    assertTrue(told.contains("settings: 5 boards, 5 failed: A01, A02, A03, A04, A05"), told);
    assertTrue(shows("first-pass yield 0 %"));
    assertTrue(((Label) node("#prove-decided")).getText().contains("as bad as"), "Wald's rule");
    for (int i = 0; i < 3; i++) {
      robot.type(KeyCode.DOWN);
    }
    until("5V0", () -> shown().test() == 3);
    until("its sheet", () -> shows("How well a process keeps within its limits"));
    assertTrue(shows("board A05 stands apart"));
    robot.type(KeyCode.U);
    until("what its use asks", () -> robot.lookup("#prove-use-line").tryQuery().isPresent());
    robot.interact(() -> ((TextField) node("#prove-use-line")).setText("use=sings"));
    until("typed into", () -> node("#prove-use-line").isFocused());
    robot.type(KeyCode.ENTER);
    until("why not", () -> ((Label) node("#prove-use-wrong")).getText().contains("sings"));
    robot.type(KeyCode.ESCAPE);
    robot.type(KeyCode.M);
    until("the board", () -> !shown().every());
  }
}
