package ell.core.entry;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertSame;

import java.util.List;
import org.testng.annotations.Test;

/// Entries that speak of others by their numbers, when those got other numbers.
public class RenumberedTest {
  @Test
  public void numbersArePutRight() {
    assertEquals(
        Renumbered.of(new Entry.Strike(7, "no"), n -> n + 100), new Entry.Strike(107, "no"));
    assertEquals(
        ((Entry.Found)
                Renumbered.of(
                    new Entry.Found(
                        "open U1.1", "U1.1", false, 0.9, List.of(3L, 9L), List.of(), List.of()),
                    n -> n == 9 ? 90 : n))
            .evidence(),
        List.of(3L, 90L));
    assertEquals(
        ((Entry.ErratumSaid)
                Renumbered.of(new Entry.ErratumSaid("E1", "taught", "3, 9 and 12"), n -> n * 10))
            .text(),
        "30, 90 and 120");
    Entry words = new Entry.ErratumSaid("E1", "title", "pin 9 is wrong");
    assertSame(Renumbered.of(words, n -> n * 10), words, "a number in words is none");
    Entry note = new Entry.Note("see 7");
    assertSame(Renumbered.of(note, n -> n + 1), note);
  }
}
