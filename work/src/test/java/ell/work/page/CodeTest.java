package ell.work.page;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertNotEquals;
import static org.testng.Assert.assertTrue;

import java.util.HashSet;
import java.util.Set;
import java.util.concurrent.atomic.AtomicLong;
import org.testng.annotations.Test;

/// The code over a clock that steps: how often it may be tried, and how long everybody waits.
public class CodeTest {
  private final AtomicLong now = new AtomicLong(Long.MAX_VALUE - 5_000_000_000L);

  private Code code() {
    return new Code(now::get);
  }

  private static String wrong(Code c) {
    return c.read().equals("000 000") ? "111111" : "000000";
  }

  @Test
  public void readInTwoGroupsAndTypedEitherWay() {
    Code c = code();
    assertTrue(c.read().matches("\\d{3} \\d{3}"), c.read());
    assertEquals(c.tried(c.read()), Code.Came.RIGHT);
    assertEquals(c.tried(c.read().replace(" ", "")), Code.Came.RIGHT);
    assertEquals(c.tried("  " + c.read() + "\n"), Code.Came.RIGHT);
    for (String odd : new String[] {"", " ", c.read() + "0", c.read().substring(1), "abc def"}) {
      assertEquals(code().tried(odd), Code.Came.WRONG, odd);
    }
  }

  /// The clock runs over its end meanwhile, as a clock of nanoseconds may.
  @Test
  public void fiveWrongOnesAndEverybodyWaitsAMinute() {
    Code c = code();
    for (int i = 0; i < Code.TRIES; i++) {
      assertEquals(c.tried(wrong(c)), Code.Came.WRONG);
    }
    assertEquals(c.tried(c.read()), Code.Came.WAIT);
    now.addAndGet(Code.WAIT * 1_000_000_000L - 1);
    assertEquals(c.tried(c.read()), Code.Came.WAIT);
    now.addAndGet(2);
    assertEquals(c.tried(c.read()), Code.Came.RIGHT);
  }

  @Test
  public void aRightOneBeginsTheCountAnew() {
    Code c = code();
    for (int round = 0; round < 10; round++) {
      for (int i = 0; i < Code.TRIES - 1; i++) {
        assertEquals(c.tried(wrong(c)), Code.Came.WRONG);
      }
      assertEquals(c.tried(c.read()), Code.Came.RIGHT);
    }
  }

  @Test
  public void tokensAreTheirOwnAndUnlikeEachOther() {
    Code c = code();
    Set<String> all = new HashSet<>();
    for (int i = 0; i < 500; i++) {
      String t = c.token();
      assertTrue(t.matches("[0-9a-f]{32}"), t);
      assertTrue(all.add(t), "twice the same");
      assertTrue(c.knows(t));
    }
    assertFalse(c.knows(""));
    assertFalse(code().knows(all.iterator().next()), "of another sharing");
    assertNotEquals(c.read(), "");
  }

  /// 400 codes of a million: more than a handful of twins would mean that they are not drawn
  /// evenly.
  @Test
  public void codesAreDrawnEvenly() {
    Set<String> all = new HashSet<>();
    int[] firsts = new int[10];
    for (int i = 0; i < 400; i++) {
      String read = code().read();
      all.add(read);
      firsts[read.charAt(0) - '0']++;
    }
    assertTrue(all.size() > 394, "different codes " + all.size());
    for (int n : firsts) {
      // 40 expected, 6 standard deviations of a binomial count (√(400·0.1·0.9) = 6)
      assertTrue(n > 4 && n < 76, "a first digit " + n + " times");
    }
  }
}
