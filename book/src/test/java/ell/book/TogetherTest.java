package ell.book;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertSame;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import ell.core.entry.Entry;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/// Several writes as one: all of them, or none, whatever is thrown in between.
public final class TogetherTest {
  /// What a caller throws that the book knows nothing of.
  private static final class Refused extends Exception {
    private static final long serialVersionUID = 1;
  }

  private Book book;

  @BeforeMethod
  public void make() throws IOException {
    Path file = Files.createTempDirectory("together").resolve("ws.ell");
    book = Book.create(file, Clock.systemUTC());
    book.append("01", new Entry.Note("before"));
    book.putKeepsake("offers", "old");
  }

  @AfterMethod(alwaysRun = true)
  public void close() throws IOException {
    book.close();
  }

  private void whole() throws IOException {
    Verification v = book.verify();
    assertTrue(v.ok(), v.message());
  }

  @Test
  public void everythingIsThere() throws Exception {
    book.together(
        Refused.class,
        () -> {
          book.putKeepsake("offers", "new");
          book.putParameters(Map.of("R", Map.of("power", "0.1W")));
          book.append("01", new Entry.Note("one"));
          book.appendAll("02", List.of(new Entry.Note("two"), new Entry.Note("three")));
        });
    assertEquals(book.size(), 4);
    assertEquals(book.keepsake("offers"), Optional.of("new"));
    assertEquals(book.entries("02").size(), 2);
    whole();
  }

  @Test
  public void nothingIsThereWhenItFails() throws Exception {
    String seal = book.seal();
    Refused why = new Refused();
    Refused got =
        expectThrows(
            Refused.class,
            () ->
                book.together(
                    Refused.class,
                    () -> {
                      book.putKeepsake("offers", "new");
                      book.append("01", new Entry.Note("one"));
                      assertEquals(book.size(), 2, "within, it is seen");
                      throw why;
                    }));
    assertSame(got, why, "what was thrown comes out as it is");
    assertEquals(book.size(), 1);
    assertEquals(book.seal(), seal);
    assertEquals(book.keepsake("offers"), Optional.of("old"));
    whole();
    assertEquals(book.append("01", new Entry.Note("after")).number(), 2);
    whole();
  }

  @Test
  public void runtimeAndFileProblemsComeOutToo() throws Exception {
    expectThrows(
        IllegalStateException.class,
        () ->
            book.together(
                Refused.class,
                () -> {
                  book.append("01", new Entry.Note("one"));
                  throw new IllegalStateException("slip");
                }));
    expectThrows(
        IOException.class,
        () ->
            book.together(
                Refused.class,
                () -> {
                  book.append("01", new Entry.Note("one"));
                  throw new IOException("gone");
                }));
    expectThrows(
        BookException.class,
        () ->
            book.together(
                Refused.class,
                () -> {
                  book.append("01", new Entry.Note("one"));
                  book.importRevision(BookTest.revision("D", "1"));
                  book.importRevision(BookTest.revision("D", "1"));
                }));
    assertEquals(book.size(), 1);
    assertEquals(book.revisions(), List.of());
    whole();
  }

  /// A long walk of commands, some of which fail at some step: the book is always that of the ones
  /// that came to their end.
  @Test
  public void aWalkOfCommandsOfWhichSomeFail() throws Exception {
    Random random = new Random(12);
    List<String> expected = new ArrayList<>(List.of("before"));
    Map<String, String> kept = new HashMap<>(Map.of("offers", "old"));
    for (int round = 0; round < 150; round++) {
      int steps = 1 + random.nextInt(6);
      int fails = random.nextInt(3) == 0 ? random.nextInt(steps) : -1;
      List<String> notes = new ArrayList<>();
      Map<String, String> now = new HashMap<>();
      int n = round;
      try {
        book.together(
            Refused.class,
            () -> {
              for (int s = 0; s < steps; s++) {
                if (s == fails) {
                  throw new Refused();
                }
                if (random.nextBoolean()) {
                  String text = "note " + n + "." + s;
                  book.append("01", new Entry.Note(text));
                  notes.add(text);
                } else {
                  String kind = "kind " + random.nextInt(3);
                  book.putKeepsake(kind, "text " + n + "." + s);
                  now.put(kind, "text " + n + "." + s);
                }
              }
            });
        expected.addAll(notes);
        kept.putAll(now);
      } catch (Refused e) {
        assertTrue(fails >= 0);
      }
      assertEquals(book.size(), expected.size());
    }
    assertEquals(
        book.entries("01").stream().map(l -> ((Entry.Note) l.entry()).text()).toList(), expected);
    assertEquals(book.keepsakes(), new java.util.TreeMap<>(kept));
    whole();
  }

  /// Another thread waits: it neither sees half of it nor writes between.
  @Test(timeOut = 30_000)
  public void nobodyWritesBetween() throws Exception {
    try (ExecutorService other = Executors.newSingleThreadExecutor()) {
      Future<?>[] waiting = new Future<?>[1];
      book.together(
          Refused.class,
          () -> {
            book.append("01", new Entry.Note("one"));
            waiting[0] =
                other.submit(() -> {
                  book.append("02", new Entry.Note("other"));
                  return null;
                });
            try {
              Thread.sleep(50);
            } catch (InterruptedException e) {
              Thread.currentThread().interrupt();
            }
            book.append("01", new Entry.Note("two"));
          });
      get(waiting[0]);
    }
    assertEquals(book.entries("02").getFirst().number(), 4);
    whole();
  }

  private static void get(Future<?> f) throws InterruptedException {
    try {
      f.get();
    } catch (ExecutionException e) {
      throw new AssertionError(e.getCause());
    }
  }
}
