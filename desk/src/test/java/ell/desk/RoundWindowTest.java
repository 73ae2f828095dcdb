package ell.desk;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import ell.core.beep.BeepCheck;
import ell.core.entry.Entry;
import ell.core.rack.Stage;
import ell.core.revise.ChangeCheck;
import ell.core.revise.Erratum;
import ell.core.revise.Stand;
import ell.desk.revise.ReviseModel;
import ell.work.Workshop;
import ell.work.demo.DemoWorkspace;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import org.testng.annotations.Test;

/// The whole round through the window: a fault is traced, becomes an erratum, its bodge is done and
/// proved on the boards, the change list is checked off against the next revision's files, and that
/// revision's kit and beep list know of what is left.
public class RoundWindowTest extends WindowCase {
  private Path ws;

  private ReviseModel revise() {
    return window.model(ReviseModel.class);
  }

  private ReviseModel.Shown shown() {
    return revise().shownProperty().get();
  }

  private void open() throws Exception {
    ws = Files.createTempDirectory("round").resolve("ws.ell");
    // the files without the script: nothing is in the book yet
    try (Workshop w = DemoWorkspace.make(ws, Path.of("../demo"), false)) {
      for (String r : List.of("A", "B")) {
        w.makeBuild(
            "MG-1", r, 3, ell.core.order.Method.IRON, ell.core.heat.Alloy.SN63PB37, r, "", 1);
      }
    }
    robot.interact(() -> desk.open(ws));
    until("the workspace", () -> desk.work().isPresent());
    if (!work().build().revision().equals("A")) {
      robot.push(KeyCode.CONTROL, KeyCode.B);
    }
    until("revision A", () -> work().build().revision().equals("A"));
    board("A01");
  }

  private void tape(String line) throws Exception {
    int before = work().log().size();
    robot.interact(() -> desk.tape().begin(line));
    until("'" + line + "' can be logged", () -> desk.tape().readyProperty().get());
    robot.type(KeyCode.ENTER);
    until("'" + line + "' is in the book", () -> work().log().size() > before);
    robot.type(KeyCode.ESCAPE);
  }

  private void settled() throws Exception {
    until(
        "errata and boards",
        () ->
            shown() != null
                && !revise().busyProperty().get()
                && shown().answer().work().equals(work()));
  }

  private Stand.State state(String board) {
    return shown().answer().mistakes().board(board).orElseThrow().stands().values().stream()
        .findFirst()
        .orElseThrow()
        .state();
  }

  @Test(timeOut = 240_000)
  public void aFaultIsKnownInTheNextOrder() throws Exception {
    open();
    // Trace: where it is, as the maker says it, and with one key what all of them have
    robot.interact(() -> desk.navigation().goTo(Stage.TRACE));
    until("trace", () -> desk.navigation().at(Stage.TRACE));
    tape("U6.7 wrong tied to 3V3, so nothing is ever written");
    tape("found loose U6.8");
    robot.push(KeyCode.SHIFT, KeyCode.E);
    until(
        "an erratum",
        () -> work().log().stream().anyMatch(l -> l.entry() instanceof Entry.Erratum));
    Entry.Erratum written =
        work().log().stream()
            .map(l -> l.entry())
            .filter(e -> e instanceof Entry.Erratum)
            .map(e -> (Entry.Erratum) e)
            .findFirst()
            .orElseThrow();
    assertEquals(written.fault(), "loose U6.8", "what was found comes before what was seen");
    // that was the cable: taken back; the pin is it
    robot.push(KeyCode.CONTROL, KeyCode.Z);
    until("it is struck", () -> work().log().getLast().entry() instanceof Entry.Strike);
    long defect =
        work().log().stream()
            .filter(l -> l.entry() instanceof Entry.Defect)
            .findFirst()
            .orElseThrow()
            .number();
    tape("erratum from " + defect);
    tape("erratum E2 bodge lift U6.7; wire U6.7 GND");
    tape("erratum E2 fix cut U6.7 3V3; add 10k U6.7 GND");
    // Beep knows of it, on every board of the revision
    BeepCheck c = work().plan().beep().checks().getLast();
    assertTrue(c.why().startsWith("E2"), c.why());
    // Revise, by keys: mend every board, and show that it holds
    robot.push(KeyCode.SHIFT, KeyCode.F1);
    until("revise", () -> desk.navigation().at(Stage.REVISE));
    settled();
    assertEquals(shown().answer().mistakes().errata().size(), 1);
    for (String board : List.of("A01", "A02", "A03")) {
      board(board);
      settled();
      assertEquals(shown().board().orElseThrow().board(), board);
      assertEquals(revise().primaryWords(), "E2 is mended on " + board);
      robot.type(KeyCode.SPACE);
      until("mended", () -> state(board) == Stand.State.DONE);
      robot.type(KeyCode.SPACE); // now it is to be shown
      TextField line = node("#tape");
      until("the line is begun", () -> line.getText().equals("U6.7 GND "));
      robot.interact(() -> line.setText("U6.7 GND 0.3"));
      until("it can be logged", () -> desk.tape().readyProperty().get());
      robot.type(KeyCode.ENTER);
      until("proved", () -> state(board) == Stand.State.PROVED);
      robot.type(KeyCode.ESCAPE);
    }
    settled();
    assertEquals(shown().answer().order().boards(), List.of());
    assertEquals(shown().answer().way(), Optional.empty(), "no board is left");
    // the list, held against the files of revision B
    robot.type(KeyCode.L);
    until("the list", () -> shown().page() == ReviseModel.Page.CHANGES);
    ChangeCheck check = shown().answer().check().orElseThrow();
    assertEquals(check.changes().getFirst().state(), ChangeCheck.State.DONE);
    assertTrue(shows("held against the files of revision B"));
    robot.type(KeyCode.L);
    robot.type(KeyCode.L);
    until("the boards", () -> shown().page() == ReviseModel.Page.BOARDS);
    // another mistake, which revision B has too: its kit and its beep list know of it
    tape("erratum the reset line floats at U4.7");
    tape("erratum E3 bodge add 10k NRST GND; wire J3.1 3V3");
    tape("erratum E3 revisions A, B");
    robot.push(KeyCode.CONTROL, KeyCode.B);
    until("revision B", () -> work().build().revision().equals("B"));
    Erratum e3;
    try (Workshop w = Workshop.look(ws)) {
      e3 = w.errata().all().named("E3").orElseThrow();
      long need =
          w.stockroom().kit(work().build(), w.plan(work().build())).lines().stream()
              .filter(l -> l.code().equals("R10K-0603"))
              .findFirst()
              .orElseThrow()
              .spares();
      assertEquals(need, 3, "one for each board of B");
    }
    assertTrue(e3.of("MG-1", "B"));
    assertTrue(work().plan().beep().checks().stream().anyMatch(x -> x.why().startsWith("E3")));
    assertTrue(
        work().plan().blocks().stream().anyMatch(b -> b.question().contains("mended of E3")));
  }

  @Test(timeOut = 60_000)
  public void pagesKeysAndWords() throws Exception {
    Path file = Files.createTempDirectory("pages").resolve("ws.ell");
    DemoWorkspace.make(file, Path.of("../demo"), true).close();
    robot.interact(() -> desk.open(file));
    until("the demo", () -> desk.work().isPresent());
    board("A04");
    robot.push(KeyCode.SHIFT, KeyCode.F1);
    settled();
    assertTrue(shows("Revise \u00b7 2 mistakes, 4 boards to mend"));
    String said = node("#revise-boards").getAccessibleText();
    assertTrue(said.contains("E1") && said.contains("needed on A04 A05"), said);
    assertTrue(node("#revise-way").getAccessibleText().contains("rework is cheapest"));
    robot.type(KeyCode.DOWN);
    assertEquals(shown().erratum().orElseThrow().id(), "E2");
    robot.type(KeyCode.LEFT);
    assertEquals(shown().board().orElseThrow().board(), "A03");
    robot.type(KeyCode.X);
    TextField line = node("#tape");
    until("why it is not needed", () -> line.getText().equals("bodge E2 not-needed "));
    robot.type(KeyCode.ESCAPE);
    until("A03 is in hand", () -> work().board().equals("A03"));
    robot.type(KeyCode.V);
    until(
        "prices",
        () ->
            robot.lookup("#revise-say-editor").tryQuery().isPresent()
                || shows("What boards, work and delay cost"));
    robot.type(KeyCode.ESCAPE);
    robot.type(KeyCode.D);
    until("the decision", () -> line.getText().equals("decided rework "));
    robot.type(KeyCode.ESCAPE);
    robot.type(KeyCode.L);
    settled();
    assertTrue(node("#revise-changes").getAccessibleText().contains("E1"));
    until(
        "what the jig would want",
        () -> shown().suggestions().stream().anyMatch(x -> x.title().contains("test point")));
    robot.type(KeyCode.L);
    until(
        "what was learned",
        () -> node("#revise-learned").getAccessibleText().contains("good at first"));
    robot.type(KeyCode.L);
    assertEquals(shown().page(), ReviseModel.Page.BOARDS);
    // the card of the bodge, to be read at arm's length
    robot.type(KeyCode.B);
    until("the card fills the window", () -> desk.navigation().bigProperty().get());
    assertTrue(shows("A03: needed"));
    robot.type(KeyCode.ESCAPE);
    until("it is small again", () -> !desk.navigation().bigProperty().get());
    // the list on paper
    Path pdf = Files.createTempDirectory("list").resolve("list.pdf");
    files.record = Optional.of(pdf);
    robot.type(KeyCode.W);
    until("the paper", () -> Files.exists(pdf));
  }
}
