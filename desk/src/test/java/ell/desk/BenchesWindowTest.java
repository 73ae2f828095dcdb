package ell.desk;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import ell.book.LocalServer;
import ell.book.Moving;
import ell.book.Place;
import ell.core.entry.Entry;
import ell.desk.shell.Benches;
import ell.work.Workshop;
import ell.work.demo.DemoWorkspace;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.List;
import java.util.concurrent.TimeUnit;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import org.testng.SkipException;
import org.testng.annotations.Test;

/// Two benches over one book: the window of one, the acts of the other. What is written there
/// appears here, a board is taken over with words, the server goes away and comes back, and what
/// both did to one board is settled by a person.
public class BenchesWindowTest extends WindowCase {
  private Benches benches() {
    return desk.snapshotProperty().get().benches().orElseThrow();
  }

  private boolean noted(String text) {
    return work().log().stream()
        .anyMatch(l -> l.entry() instanceof Entry.Note n && n.text().contains(text));
  }

  private void note(String text) {
    robot.type(KeyCode.N);
    robot.write(text);
    robot.type(KeyCode.ENTER);
    robot.type(KeyCode.ESCAPE);
  }

  @Test(timeOut = 180_000)
  public void twoBenchesOneBook() throws Exception {
    if (LocalServer.programs().isEmpty()) {
      throw new SkipException("this system has no PostgreSQL server: not tried against one");
    }
    Path folder = Files.createTempDirectory("benches");
    System.setProperty("ell.state", folder.resolve("state").toString());
    Path file = folder.resolve("shop.ell");
    DemoWorkspace.make(file, Desks.DEMO, true).close();
    LocalServer server = LocalServer.start(Files.createTempDirectory("server"), 0, false);
    try {
      Place to = Place.of(server.address("shop"));
      Moving.move(new Place.OfFile(file), to);
      robot.push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.O);
      until("the address is asked for", () -> shows("A workspace on a server"));
      // a wrong one is told, and the sheet stays
      robot.interact(() -> ((TextField) node("#address")).setText(server.address("nowhere")));
      robot.type(KeyCode.ENTER);
      until(
          "what is wrong",
          () ->
              shows(
                  "there is no workspace "
                      + server.address("nowhere")
                      + "; make one with: new "
                      + server.address("nowhere")));
      robot.interact(
          () -> ((TextField) node("#address")).setText(server.address("shop") + "?bench=NORTH"));
      robot.type(KeyCode.ENTER);
      until("the workspace", () -> desk.work().isPresent());
      assertEquals(benches().words(), "NORTH");
      board("07");
      TimeUnit.MILLISECONDS.sleep(1200); // it listens
      try (Workshop south =
          Workshop.open(
              Place.of(server.address("shop") + "?bench=SOUTH"), Clock.systemDefaultZone())) {
        south.log("05", List.of(new Entry.Note("south looks at it"))).orThrow();
        until("board 05 is elsewhere", () -> shows("at SOUTH"));
        board("05");
        until("what south wrote", () -> noted("south looks at it"));
        int before = work().log().size();
        note("mine as well");
        until(
            "it is refused, and why",
            () -> desk.noticeProperty().get().contains("in hand at bench SOUTH"));
        assertEquals(work().log().size(), before);
        // taken over, with words
        robot.push(KeyCode.CONTROL, KeyCode.H);
        until("the benches", () -> shows("Several benches"));
        robot.clickOn("#take");
        until("words are wanted", () -> desk.noticeProperty().get().contains("with words"));
        robot.clickOn("#why").write("south went home");
        robot.clickOn("#take");
        until("it is here", () -> benches().elsewhere("05").isEmpty());
        robot.type(KeyCode.ESCAPE);
        until("it is in the book", () -> noted("before at SOUTH"));
        note("now mine");
        until("logged", () -> noted("now mine"));

        // the server goes away: it is said, and one goes on
        server.stop("immediate");
        note("without the server");
        until("it goes on", () -> noted("without the server"));
        until("it is said", () -> benches().words().startsWith("alone since"));
        assertEquals(benches().waits().size(), 1);
        robot.push(KeyCode.CONTROL, KeyCode.H);
        until("what waits", () -> shows("Waits here"));
        robot.type(KeyCode.ESCAPE);
      }
      // while this one is still away, the other writes on the same board first
      robot.interact(() -> desk.close());
      until("closed", () -> true);
      server.again();
      try (Workshop south =
          Workshop.open(
              Place.of(server.address("shop") + "?bench=SOUTH"), Clock.systemDefaultZone())) {
        new ell.work.share.Hands(south).take("05", java.util.Optional.of("north is away"));
        south.log("05", List.of(new Entry.Note("south mended it"))).orThrow();
        new ell.work.share.Hands(south).layDown("05");
      }
      robot.interact(
          () -> desk.openAt(server.address("shop") + "?bench=NORTH", "", false, _ -> {}));
      until("open again", () -> benches().waits().stream().anyMatch(w -> !w.conflict().isEmpty()));
      board("05");
      assertTrue(noted("south mended it"));
      assertTrue(!noted("without the server"), "a conflict is not settled silently");
      assertTrue(benches().waits().getFirst().conflict().contains("others wrote on board 05"));
      robot.push(KeyCode.CONTROL, KeyCode.H);
      until("the benches", () -> shows("Several benches"));
      robot.clickOn("#why").write("both are true");
      robot.clickOn("#keep-mine");
      until("mine stands behind theirs", () -> noted("without the server"));
      until("and why", () -> noted("both are true"));
      until("nothing waits", () -> benches().waits().isEmpty());
      robot.type(KeyCode.ESCAPE);
    } finally {
      if (server.runs()) {
        server.close();
      }
    }
  }
}
