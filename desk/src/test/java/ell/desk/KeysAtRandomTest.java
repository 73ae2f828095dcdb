package ell.desk;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import ell.book.Book;
import ell.desk.window.SetupModel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicReference;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import org.testfx.util.WaitForAsyncUtils;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// A child at the keyboard: keys at random in the real window, over every stage, on boards that are
/// unlike the demo. Nothing is thrown, nothing that a person must not read is shown, the window
/// still answers, and the book is whole.
public final class KeysAtRandomTest extends WindowCase {
  private static final Path ODD = Path.of("../fixtures/odd");
  private static final int KEYS = 120;

  /// What no label may say.
  private static final Pattern NONSENSE =
      Pattern.compile(
          "\\bNaN\\b|Infinity|\\bnull\\b|Optional\\[|Exception|\\{\\w+=|@[0-9a-f]{6,8}");

  private static final KeyCode[] STAGES = {
    KeyCode.F1, KeyCode.F2, KeyCode.F3, KeyCode.F4, KeyCode.F5, KeyCode.F6,
    KeyCode.F7, KeyCode.F8, KeyCode.F9, KeyCode.F10, KeyCode.F11, KeyCode.F12,
  };

  private static final KeyCode[] MOVES = {
    KeyCode.UP, KeyCode.DOWN, KeyCode.LEFT, KeyCode.RIGHT, KeyCode.PAGE_DOWN, KeyCode.PAGE_UP,
    KeyCode.HOME, KeyCode.END, KeyCode.SPACE, KeyCode.ENTER, KeyCode.ESCAPE, KeyCode.TAB,
  };

  /// With Ctrl: what neither opens a window of the system nor ends the program.
  private static final KeyCode[] CHORDS = {
    KeyCode.B,
    KeyCode.D,
    KeyCode.E,
    KeyCode.H,
    KeyCode.I,
    KeyCode.L,
    KeyCode.R,
    KeyCode.Z,
    KeyCode.F1,
    KeyCode.UP,
    KeyCode.DOWN,
  };

  private static final List<String> LINES =
      List.of(
          "3V3 3.31", "U1 looks bad", "note a word", "GND 0", "step 2", "-5 V", "R1 10k ?", "§");

  @DataProvider
  Object[][] boards() {
    return new Object[][] {{"shield", 11}, {"cell", 12}, {"panel", 13}, {"demo", 14}, {"none", 15}};
  }

  @Test(dataProvider = "boards", timeOut = 400_000)
  public void nothingBreaks(String board, int seed) throws Exception {
    AtomicReference<Throwable> thrown = new AtomicReference<>();
    Thread.UncaughtExceptionHandler[] before = {null};
    robot.interact(() -> {
      before[0] = Thread.currentThread().getUncaughtExceptionHandler();
      Thread.currentThread().setUncaughtExceptionHandler((_, e) -> thrown.compareAndSet(null, e));
    });
    try {
      press(board, seed, thrown);
    } finally {
      robot.interact(() -> Thread.currentThread().setUncaughtExceptionHandler(before[0]));
    }
  }

  private void press(String board, int seed, AtomicReference<Throwable> thrown) throws Exception {
    Path file = board.equals("none") ? null : workspace(board);
    if (file != null) {
      robot.interact(() -> desk.open(file));
      until("the boards", () -> desk.work().isPresent());
    }
    int entries = file == null ? 0 : work().log().size();
    Random random = new Random(seed);
    List<String> pressed = new ArrayList<>();
    for (int i = 0; i < KEYS; i++) {
      pressed.add(press(random));
      WaitForAsyncUtils.waitForFxEvents();
      String after = board + " after " + pressed.subList(Math.max(0, i - 8), i + 1);
      if (thrown.get() != null) {
        throw new AssertionError(after, thrown.get());
      }
      sensible(after);
    }
    until("an answer of the window", () -> true);
    WaitForAsyncUtils.sleep(300, TimeUnit.MILLISECONDS); // what still runs aside may still throw
    assertEquals(thrown.get(), null);
    if (file != null) {
      until("it to be written", () -> desk.busyProperty().get().isEmpty());
      robot.interact(() -> desk.close());
      try (Book book = Book.openReadOnly(file)) {
        assertTrue(book.verify().ok(), book.verify().message());
        assertTrue(book.size() > entries, "some of the keys logged something");
      }
    }
  }

  /// A workspace with boards of one of the odd revisions, as the setup of the window makes it.
  private static Path workspace(String board) throws Exception {
    if (board.equals("demo")) {
      return Desks.demo();
    }
    Path file = Desks.file();
    var made = Desks.atOnce(Desks.clock());
    try {
      made.create(file);
      SetupModel setup = new SetupModel(made);
      try (Stream<Path> files = Files.list(ODD.resolve(board))) {
        setup.take(files.sorted().toList());
      }
      setup.designProperty().set(board);
      setup.boardsProperty().set("3");
      setup.methodProperty().set("iron");
      setup.run();
      assertEquals(setup.problemsProperty().get(), List.of());
    } finally {
      made.close();
    }
    return file;
  }

  private String press(Random r) {
    int kind = r.nextInt(20);
    if (kind < 4) {
      KeyCode k = STAGES[r.nextInt(STAGES.length)];
      boolean revise = r.nextInt(12) == 0;
      robot.push(revise ? new KeyCode[] {KeyCode.SHIFT, KeyCode.F1} : new KeyCode[] {k});
      return revise ? "Shift+F1" : k.getName();
    }
    if (kind < 10) {
      KeyCode k = MOVES[r.nextInt(MOVES.length)];
      robot.push(k);
      return k.getName();
    }
    if (kind < 11) {
      KeyCode k = CHORDS[r.nextInt(CHORDS.length)];
      robot.push(KeyCode.CONTROL, k);
      return "Ctrl+" + k.getName();
    }
    if (kind < 12) {
      String line = LINES.get(r.nextInt(LINES.size()));
      robot.push(KeyCode.ESCAPE); // a sheet that lies over the window
      robot.push(KeyCode.SLASH);
      robot.interact(() -> {
        if (stage.getScene().getFocusOwner() instanceof TextInputControl tape) {
          tape.setText(line);
        }
      });
      robot.push(KeyCode.ENTER);
      return "'" + line + "'";
    }
    KeyCode k =
        r.nextInt(4) == 0
            ? KeyCode.getKeyCode(String.valueOf(r.nextInt(10)))
            : KeyCode.getKeyCode(String.valueOf((char) ('A' + r.nextInt(26))));
    boolean shift = r.nextInt(6) == 0;
    robot.push(shift ? new KeyCode[] {KeyCode.SHIFT, k} : new KeyCode[] {k});
    return (shift ? "Shift+" : "") + k.getName();
  }

  private void sensible(String after) {
    for (Node n : robot.lookup((Node x) -> x instanceof Label && x.isVisible()).queryAll()) {
      String text = ((Label) n).getText();
      assertTrue(text == null || !NONSENSE.matcher(text).find(), after + ": " + text);
    }
    String notice = desk.noticeProperty().get();
    assertTrue(notice == null || !NONSENSE.matcher(notice).find(), after + ": " + notice);
  }
}
