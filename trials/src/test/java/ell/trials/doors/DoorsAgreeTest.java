package ell.trials.doors;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import ell.book.Book;
import ell.core.entry.Entry;
import ell.core.entry.EntryJson;
import ell.core.entry.Logged;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Window, tape and command line are three doors to one work: a random walk of acts through each of
/// them ends in the same book, refusals included. A walk that does not is shortened before it is
/// told.
public class DoorsAgreeTest {
  private static final Clock CLOCK =
      Clock.fixed(Instant.parse("2026-11-25T10:00:00Z"), ZoneOffset.UTC);
  private static final int LENGTH = 260;

  private static final String[] LINES = {
    "3V3 3.31",
    "3V3 2.9",
    "VIN 5.02",
    "R1 998",
    "TP9 3",
    "U1.2 bridge to U1.3",
    "D1 turned",
    "D1 replaced",
    "R1 replaced it cracked",
    "R1.2 touched-up",
    "C1 resoldered",
    "U1 lost",
    "C2 lost 2 blown away",
    "U1 fitted with LDO33B as good",
    "R1 good",
    "U1.1 good",
    "rest good",
    "3V3 looks fine",
    "note the iron was cold",
    "hands Ada",
    "jar PASTE-A warming",
    "jar PASTE-A open",
    "jar PASTE-A cold",
    "bag LDO33 opened level 3",
    "bag LDO33 closed",
    "override paste the regulators come tomorrow",
    "override heat it must come off",
    "override power measured by hand",
    "override luck",
    "printed first jar none",
    "printed second jar PASTE-A",
    "printed third",
    "U1.2 paste thin",
    "U1.2 paste good",
    "beep 1 open",
    "beep 1 3",
    "beep 2 41k",
    "beep 99 open",
    "3V3 GND open",
    "VIN GND 2",
    "step",
    "step 1",
    "steps 1-3",
    "steps 2-6",
    "step 99",
    "gate power holds",
    "gate power fails 3V3 is low",
    "count R1K 80",
    "received LDO33 10",
    "ordered LDO33 20 2026-12-03",
    "strike 2 a slip",
    "strike 5",
    "strike 99",
    "",
    "nonsense",
  };

  @DataProvider
  Object[][] seeds() {
    Object[][] all = new Object[10][];
    for (int i = 0; i < all.length; i++) {
      all[i] = new Object[] {i};
    }
    return all;
  }

  private static List<Move> walk(int seed) {
    Random random = new Random(seed);
    Move.Kind[] kinds = Move.Kind.values();
    List<Move> all = new ArrayList<>();
    for (int i = 0; i < LENGTH; i++) {
      Move.Kind k = random.nextInt(3) == 0 ? Move.Kind.LINE : kinds[random.nextInt(kinds.length)];
      all.add(new Move(k, random.nextInt(1 << 20)));
    }
    return all;
  }

  @Test(dataProvider = "seeds", timeOut = 120_000)
  public void aWalkThroughEachDoorEndsInTheSameBook(int seed) throws Exception {
    List<Move> walk = walk(seed);
    Optional<String> wrong = differ(walk);
    if (wrong.isPresent()) {
      List<Move> shortest = shrink(walk);
      throw new AssertionError(differ(shortest).orElse(wrong.get()) + "\nafter " + told(shortest));
    }
  }

  private static String told(List<Move> walk) {
    return String.join("\n  ", walk.stream().map(Move::toString).toList());
  }

  /// Takes away stretches, long ones first, while the doors still differ.
  private static List<Move> shrink(List<Move> walk) throws Exception {
    List<Move> now = walk;
    for (int stretch = walk.size() / 2; stretch >= 1; stretch /= 2) {
      for (int i = 0; i + stretch <= now.size(); ) {
        List<Move> less = new ArrayList<>(now.subList(0, i));
        less.addAll(now.subList(i + stretch, now.size()));
        if (differ(less).isPresent()) {
          now = less;
        } else {
          i += stretch;
        }
      }
    }
    return now;
  }

  /// Plays a walk through all doors; what differs, empty when nothing does.
  private static Optional<String> differ(List<Move> walk) throws Exception {
    Path folder = Files.createTempDirectory("doors");
    Path first = folder.resolve("window.ell");
    SmallBoard.make(first, CLOCK);
    Path second = Files.copy(first, folder.resolve("typed.ell"));
    Path third = Files.copy(first, folder.resolve("command.ell"));
    List<String> lines = new ArrayList<>();
    try (WindowDoor window = new WindowDoor(first, CLOCK);
        Door typed = new TypedDoor(second, CLOCK);
        Door command = new CommandDoor(third)) {
      String board = SmallBoard.BOARDS.getFirst();
      window.select(board);
      for (Move m : walk) {
        if (m.kind() == Move.Kind.BOARD) {
          board = SmallBoard.BOARDS.get(m.salt() % SmallBoard.BOARDS.size());
          window.select(board);
          continue;
        }
        Optional<String> line =
            m.kind() == Move.Kind.LINE
                ? Optional.of(LINES[m.salt() % LINES.length])
                : window.line(m);
        if (line.isPresent()) {
          lines.add(board + ": " + line.get());
          window.play(board, m.kind(), line.get());
          typed.play(board, m.kind(), line.get());
          command.play(board, m.kind(), line.get());
        }
      }
    }
    List<String> is = book(first);
    for (Path other : List.of(second, third)) {
      List<String> its = book(other);
      for (int i = 0; i < Math.max(is.size(), its.size()); i++) {
        String a = i < is.size() ? is.get(i) : "nothing";
        String b = i < its.size() ? its.get(i) : "nothing";
        if (!a.equals(b)) {
          return Optional.of(
              "entry "
                  + (i + 1)
                  + " is by the window "
                  + a
                  + ", and in "
                  + other.getFileName()
                  + " "
                  + b
                  + "; lines: "
                  + lines);
        }
      }
    }
    return Optional.empty();
  }

  /// Every entry but its time, in the order of the book.
  private static List<String> book(Path file) throws Exception {
    try (Book b = Book.openReadOnly(file)) {
      List<String> all = new ArrayList<>();
      for (long n = 1; n <= b.size(); n++) {
        Logged l = b.entry(n).orElseThrow();
        all.add(l.board() + " " + EntryJson.write(l.entry()));
      }
      return all;
    }
  }

  /// The walks do meet the rules: the paste is refused, and set aside; prints bring their steps.
  @Test
  public void theWalksAreWorthWalking() throws Exception {
    Path file = Files.createTempDirectory("doors").resolve("one.ell");
    SmallBoard.make(file, CLOCK);
    try (TypedDoor typed = new TypedDoor(file, CLOCK)) {
      typed.play("01", Move.Kind.LINE, "printed first");
      typed.play("01", Move.Kind.LINE, "step 1");
      typed.play("01", Move.Kind.LINE, "steps 1-3");
    }
    assertTrue(book(file).isEmpty(), "nothing passes the rule of the paste");
    try (TypedDoor typed = new TypedDoor(file, CLOCK)) {
      typed.play("01", Move.Kind.LINE, "override paste they come tomorrow");
      typed.play("01", Move.Kind.LINE, "printed first");
    }
    List<Entry> entries = new ArrayList<>();
    try (Book b = Book.openReadOnly(file)) {
      b.entries("01").forEach(l -> entries.add(l.entry()));
    }
    assertEquals(entries.size(), 3);
    assertTrue(entries.get(1) instanceof Entry.Printed);
    assertTrue(entries.get(2) instanceof Entry.StepDone d && d.action().equals("print paste"));
  }
}
