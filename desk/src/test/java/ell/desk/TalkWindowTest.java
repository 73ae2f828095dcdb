package ell.desk;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import ell.core.entry.Entry;
import ell.core.rack.Stage;
import ell.core.talk.TalkFacts;
import ell.desk.talk.TalkModel;
import ell.work.Workshop;
import ell.work.demo.DemoWorkspace;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import org.testng.annotations.Test;

/// The line, links, pins and chains by keys, over the simulated bench.
public class TalkWindowTest extends WindowCase {
  private TalkModel talk() {
    return window.model(TalkModel.class);
  }

  private TalkModel.Shown shown() {
    return talk().shownProperty().get();
  }

  private void begin(String board) throws Exception {
    Path ws = Files.createTempDirectory("talk").resolve("ws.ell");
    DemoWorkspace.make(ws, Path.of("../demo"), true).close();
    robot.interact(() -> desk.open(ws));
    until("the demo", () -> desk.work().isPresent());
    board(board);
    robot.interact(() -> desk.navigation().stageProperty().set(Stage.TALK));
    until("the board's line", () -> shown() != null && shown().work().board().equals(board));
  }

  private String says() {
    Label l = node("#talk-says");
    return l.getText();
  }

  private TalkFacts facts() {
    return TalkFacts.of(work().state());
  }

  private void press(KeyCode... keys) {
    for (KeyCode k : keys) {
      robot.type(k);
    }
  }

  @Test(timeOut = 120_000)
  public void aBoardIsLoadedAndGetsItsNumber() throws Exception {
    begin("01");
    until("scripts", () -> shown().scriptAt() == 0);
    press(KeyCode.SPACE);
    until("a question", () -> says().startsWith("Is the cable"));
    assertEquals(facts().talks().size(), 0, "nothing is sent before it is answered");
    press(KeyCode.Y);
    until("the load", () -> facts().firmware().isPresent());
    assertEquals(facts().firmware().orElseThrow(), "1.4");
    until(
        "the strip", () -> shown().rows().stream().anyMatch(r -> r.text().contains("board MG-1")));
    Node strip = node("#strip-picture");
    assertTrue(strip.getAccessibleText().contains("rows"), strip.getAccessibleText());
    board("07");
    until("nothing of another board", () -> shown().rows().isEmpty());
    board("01");
    until("its own strip again", () -> !shown().rows().isEmpty());
    // the second script is refused until its link is open
    int before = work().log().size();
    press(KeyCode.DOWN, KeyCode.SPACE);
    until("the refusal", () -> desk.noticeProperty().get().contains("SJ3 is closed"));
    assertEquals(work().log().size(), before, "a refusal logs nothing");
    press(KeyCode.M);
    until("links", () -> says().startsWith("number: SJ3 is closed"));
    logs(2, () -> robot.type(KeyCode.SPACE)); // the link, and its heat
    until("it can begin", () -> says().contains("can begin"));
    press(KeyCode.M, KeyCode.M, KeyCode.M);
    until("the strip again", () -> node("#strip-picture").isVisible());
    press(KeyCode.SPACE);
    until("the number", () -> facts().knows().isPresent());
    assertEquals(facts().knows().orElseThrow().serial(), "01");
  }

  @Test(timeOut = 120_000)
  public void somebodyTypesOverTheLine() throws Exception {
    begin("02");
    press(KeyCode.T);
    until("the line is open", () -> shown().typing());
    until("the loader", () -> shown().rows().stream().anyMatch(r -> r.text().contains("loader 1")));
    TextField f = node("#talk-typed");
    robot.interact(() -> {
      f.requestFocus();
      f.setText("ver?");
    });
    press(KeyCode.ENTER);
    until("what was typed", () -> shown().rows().stream().anyMatch(r -> r.kind() == '>'));
    robot.interact(() -> node("#strip-picture").requestFocus());
    press(KeyCode.ESCAPE, KeyCode.X);
    until("it is logged", () -> !facts().talks().isEmpty());
    Entry.Talk t = (Entry.Talk) facts().talks().getLast().entry();
    assertTrue(t.script().isEmpty() && t.verdict().isEmpty());
    assertEquals(t.sent(), 5);
  }

  @Test(timeOut = 120_000)
  public void aBadBoardSaysWhatItMayBe() throws Exception {
    begin("07");
    until("scripts", () -> shown().scriptAt() == 0);
    logs(
        2, // the link, and its heat
        () ->
            robot.interact(
                () -> desk.log(java.util.List.of(new Entry.Stands("SJ1", "closed", "")))));
    assertFalse(facts().stands().isEmpty());
    press(KeyCode.SPACE);
    until("the refusal", () -> desk.noticeProperty().get().contains("SJ1 is closed"));
  }

  @Test(timeOut = 120_000)
  public void pinsAndChains() throws Exception {
    begin("01");
    press(KeyCode.M, KeyCode.M);
    until("pins", () -> shown().pins().isPresent());
    Node comb = node("#comb-picture");
    assertTrue(
        comb.getAccessibleText().contains("18 signals have a pin"), comb.getAccessibleText());
    press(KeyCode.DOWN);
    until("the other module", () -> says().contains("17 lines of code change"));
    Path f = Files.createTempDirectory("needs").resolve("needs.csv");
    Files.writeString(f, "signal,needs\nA,dac\n");
    files.script = Optional.of(f);
    press(KeyCode.L);
    until("no pin", () -> says().contains("no pin for A"));
    board("S03");
    until("the staff", () -> shown().work().board().equals("S03"));
    press(KeyCode.M);
    until("the chain", () -> shown().suspects().isPresent());
    Node chain = node("#chain-picture");
    assertTrue(chain.getAccessibleText().contains("U4 to U1"), chain.getAccessibleText());
    assertTrue(says().contains("next: at net of U2.9"), says());
  }

  @Test(timeOut = 120_000)
  public void whatThereIsIsSaidInALine() throws Exception {
    begin("S01");
    press(KeyCode.M);
    until("no links", () -> shows("no links are known"));
    press(KeyCode.W);
    until("the editor", () -> robot.lookup("#talk-line").tryQuery().isPresent());
    TextField line = node("#talk-line");
    robot.interact(() -> {
      line.requestFocus();
      line.setText("link R1 somehow");
    });
    press(KeyCode.ENTER);
    until("why not", () -> shows("solder, jumper or switch"));
    robot.interact(() -> line.setText("link R1 jumper closed"));
    press(KeyCode.ENTER);
    until("a link", () -> shown().work().plan().talk().links().size() == 1);
    until("it is told", () -> shows("1 link"));
    assertEquals(shown().work().plan().talk().links().getFirst().part(), "R1");
  }

  @Test(timeOut = 120_000)
  public void theWindowClosesWhileALineIsOpen() throws Exception {
    begin("01");
    press(KeyCode.T);
    until("the line is open", () -> shown().typing());
    Workshop[] w = new Workshop[1];
    robot.interact(() -> desk.ask(x -> w[0] = x));
    until("the workspace", () -> w[0] != null);
    int before = TalkFacts.of(w[0].state("01")).talks().size();
    assertEquals(before, 0);
    window.close();
    assertEquals(TalkFacts.of(w[0].state("01")).talks().size(), 1, "what was said is in the book");
  }
}
