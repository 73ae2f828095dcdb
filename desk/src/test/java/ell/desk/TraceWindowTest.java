package ell.desk;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import ell.core.entry.Entry;
import ell.core.rack.Stage;
import ell.core.trace.Outcomes;
import ell.core.trace.Probe;
import ell.core.trace.TraceFacts;
import ell.desk.trace.TraceModel;
import ell.work.Workshop;
import ell.work.demo.DemoWorkspace;
import ell.work.trace.TraceRun;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.input.KeyCode;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// From a symptom to the finding by keys only, over the simulated bench.
public class TraceWindowTest extends WindowCase {
  private static final int MOST = 16;

  private TraceModel trace() {
    return window.model(TraceModel.class);
  }

  private TraceModel.Shown shown() {
    return trace().shownProperty().get();
  }

  private void begin(String board, String faults) throws Exception {
    Path ws = Files.createTempDirectory("trace").resolve("ws.ell");
    try (Workshop w = DemoWorkspace.make(ws, Path.of("../demo"), true)) {
      if (!faults.isEmpty()) {
        w.ladders().keepFaults("MG-1", "B", faults);
      }
    }
    robot.interact(() -> desk.open(ws));
    until("the demo", () -> desk.work().isPresent());
    board(board);
    robot.type(KeyCode.F10);
    assertTrue(desk.navigation().at(Stage.TRACE));
    settled();
  }

  /// Until what is shown is of the book as it is.
  private void settled() throws Exception {
    until(
        "the suspects",
        () ->
            shown() != null
                && shown().work().board().equals(work().board())
                && shown().work().log().size() == work().log().size()
                && !trace().busyProperty().get());
  }

  private void type(String line) throws Exception {
    int before = work().log().size();
    robot.type(KeyCode.SLASH);
    robot.write(line);
    robot.type(KeyCode.ENTER);
    until(line, () -> work().log().size() > before);
    robot.type(KeyCode.ESCAPE);
    settled();
  }

  private static final KeyCode[] DIGITS = {
    KeyCode.DIGIT1,
    KeyCode.DIGIT2,
    KeyCode.DIGIT3,
    KeyCode.DIGIT4,
    KeyCode.DIGIT5,
    KeyCode.DIGIT6,
    KeyCode.DIGIT7
  };

  @DataProvider
  Object[][] faults() {
    return new Object[][] {
      {"open FB1.2", "3V3A 0.0"},
      {"dead U2", "3V3 0.0"},
      {"missing L1", "3V3 0.0"},
      {"open L1.2", "3V3 0.0"},
      {"missing FB1", "3V3A 0.0"},
    };
  }

  @Test(dataProvider = "faults", timeOut = 180_000)
  public void toTheFindingByKeys(String fault, String symptom) throws Exception {
    begin("06", "{\"06\": [\"" + fault + "\"]}");
    type(symptom);
    for (int i = 0; i < MOST && !trace().canFind(); i++) {
      Probe p = shown().choice().orElseThrow().probe();
      int before = work().log().size();
      if (TraceRun.can(p)) {
        robot.type(KeyCode.SPACE);
      } else {
        List<String> words = Outcomes.words(shown().choice().orElseThrow());
        robot.type(DIGITS[words.indexOf(seen(p, fault))]);
      }
      until(
          "an answer to " + p.line(),
          () ->
              work().log().size() > before
                  && !(work().log().getLast().entry() instanceof Entry.Supply s && s.on()));
      settled();
    }
    assertTrue(trace().canFind(), "after " + MOST + " measurements: " + shown().traced().first());
    assertTrue(shows("E logs the finding"));
    logsOne(() -> robot.type(KeyCode.E));
    Entry.Found f = TraceFacts.of(work().state()).last().orElseThrow();
    assertEquals(f.fault(), fault);
    assertFalse(f.evidence().isEmpty());
    assertTrue(
        work().state().findings().stream().anyMatch(x -> x.what().equals(fault)),
        "it is open until it is mended");
    settled();
    assertFalse(trace().canFind(), "the book has it");
  }

  /// A shorted rail is read along its copper by one key; a digit begins the line of the first joint
  /// for who holds the tips.
  @Test(timeOut = 180_000)
  public void aNetIsReadAlongByKeys() throws Exception {
    begin("06", "{\"06\": [\"short C29\"]}");
    type("3V3 GND 0.3");
    for (int i = 0; i < MOST && shown().choice().orElseThrow().probe().places().size() < 2; i++) {
      robot.type(KeyCode.DOWN);
    }
    Probe p = shown().choice().orElseThrow().probe();
    assertTrue(p.places().size() > 2, p.toString());
    assertTrue(shows("milliohms along 3V3, to GND"), p.toString());
    assertEquals(trace().primaryWords(), "measure it");
    assertEquals(trace().readingLine(), p.places().getFirst() + " ");
    int before = work().log().size();
    robot.type(KeyCode.SPACE);
    until("readings", () -> work().log().size() == before + p.places().size());
    settled();
    List<String> read =
        work().log().subList(before, work().log().size()).stream()
            .map(l -> ((Entry.Reading) l.entry()).place())
            .toList();
    assertEquals(read, p.places(), "in the order in which they are named");
    assertTrue(
        work().log().stream()
            .skip(before)
            .allMatch(l -> ((Entry.Reading) l.entry()).unit() == ell.core.quantity.Unit.OHM));
    assertTrue(
        shown().traced().next().stream().noneMatch(c -> c.probe().equals(p)),
        "it is not proposed again");
  }

  private static String seen(Probe p, String fault) {
    String[] w = fault.split(" ");
    return switch (p.kind()) {
      case LOOK ->
          w[0].equals("missing") && p.a().equals(w[1])
              ? "missing"
              : w[0].equals("open") && p.a().equals(w[1]) ? "open" : "good";
      case LIT ->
          fault.contains("FB1") || p.a().equals("LED1") && fault.contains("U2") ? "lit" : "dark";
      case TOUCH -> "cool";
      case SWAP -> p.a().equals(w[1]) ? "fine" : "same";
      case PRESS -> "same";
      case TALK -> fault.contains("FB1") ? "fine" : "silent";
      default -> throw new AssertionError(p.toString());
    };
  }

  @Test(timeOut = 120_000)
  public void thePicturesSayWhatTheyShow() throws Exception {
    begin("04", "");
    Node ranks = node("#trace-ranks");
    assertTrue(
        ranks.getAccessibleText().contains("bridge between 3V3 and GND"),
        ranks.getAccessibleText());
    Node where = node("#trace-where");
    assertTrue(where.getAccessibleText().contains("U4"), where.getAccessibleText());
    Node stairs = node("#trace-stairs");
    assertTrue(stairs.getAccessibleText().contains("bit"), stairs.getAccessibleText());
    Node fork = node("#trace-fork");
    assertTrue(fork.getAccessibleText().contains("may show"), fork.getAccessibleText());
    String first = fork.getAccessibleText();
    robot.type(KeyCode.DOWN);
    until("another measurement", () -> shown().at() == 1);
    assertFalse(node("#trace-fork").getAccessibleText().equals(first));
    robot.type(KeyCode.RIGHT);
    until("a suspect", () -> shown().suspect() == 0);
    until("its sheet", () -> shows("How likely it is beforehand"));
    robot.type(KeyCode.LEFT);
    until("none", () -> shown().suspect() == -1);
    // what is looked at is typed, or answered with a number
    while (shown().choice().orElseThrow().probe().kind() != Probe.Kind.LOOK) {
      int at = shown().at();
      robot.type(KeyCode.DOWN);
      until("further", () -> shown().at() == at + 1);
    }
    robot.type(KeyCode.SPACE);
    until("the line is begun", () -> desk.tape().textProperty().get().endsWith(" look "));
    robot.type(KeyCode.ESCAPE);
    // another board while it is worked out: nothing of the first is left
    board("10");
    settled();
    assertEquals(shown().work().board(), "10");
    assertTrue(shows("nothing was measured yet"));
  }
}
