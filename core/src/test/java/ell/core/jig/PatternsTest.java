package ell.core.jig;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import org.testng.annotations.Test;

/// Patterns against every short and every stuck line, put in one by one.
public class PatternsTest {
  /// Kautz, IEEE Transactions on Computers C-23, 1974: ceil(log2(n + 2)).
  @Test
  public void countingNeedsSoManyVectors() {
    for (int n = 1; n <= 300; n++) {
      int least = (int) Math.ceil(Math.log(n + 2) / Math.log(2) - 1e-12);
      assertEquals(Patterns.of(Patterns.Kind.COUNTING, n).vectors().size(), least, n + " outputs");
      assertEquals(Patterns.counted(n), least);
    }
    assertEquals(Patterns.of(Patterns.Kind.COUNTING, 2).vectors().size(), 2);
    assertEquals(Patterns.of(Patterns.Kind.WALKING, 30).vectors().size(), 30);
    assertEquals(Patterns.of(Patterns.Kind.COMPLEMENT, 30).vectors().size(), 10);
  }

  /// What a tester sees: whether any vector reads back other than it was set; a level that nobody
  /// knows is taken once as low and once as high, and counts when both read wrong somewhere.
  private static boolean seen(Patterns p, int a, int b, Patterns.Short how) {
    boolean low = false;
    boolean high = false;
    for (String v : p.vectors()) {
      String got = Patterns.read(v, a, b, how);
      low |= !got.replace('?', '0').equals(v);
      high |= !got.replace('?', '1').equals(v);
    }
    return low && high;
  }

  @Test
  public void everyShortIsPutIn() {
    for (Patterns.Kind kind : Patterns.Kind.values()) {
      for (int n : new int[] {1, 2, 3, 7, 16, 31}) {
        Patterns p = Patterns.of(kind, n);
        for (Patterns.Short how : Patterns.Short.values()) {
          int caught = 0;
          for (int a = 0; a < n; a++) {
            for (int b = a + 1; b < n; b++) {
              caught += seen(p, a, b, how) ? 1 : 0;
            }
          }
          assertEquals(caught, p.shorts().caught(), kind + " " + n + " " + how);
        }
        assertEquals(p.shorts().total(), n * (n - 1) / 2);
        assertEquals(
            p.shorts().caught(),
            kind == Patterns.Kind.ALL_TOGETHER ? 0 : p.shorts().total(),
            kind + " " + n);
      }
    }
  }

  @Test
  public void everyStuckLineIsPutIn() {
    for (Patterns.Kind kind : Patterns.Kind.values()) {
      for (int n : new int[] {1, 2, 5, 16}) {
        Patterns p = Patterns.of(kind, n);
        int caught = 0;
        for (int i = 0; i < n; i++) {
          int at = i;
          for (char stuck : new char[] {'0', '1'}) {
            caught += p.vectors().stream().anyMatch(v -> v.charAt(at) != stuck) ? 1 : 0;
          }
        }
        assertEquals(p.stuck().caught(), caught, kind + " " + n);
        assertEquals(p.stuck().total(), 2 * n);
        // a single line that only walks is never low
        assertTrue(caught == 2 * n || n == 1 && kind == Patterns.Kind.WALKING, kind + " " + n);
      }
    }
  }

  @Test
  public void nonsenseIsRefused() {
    for (int n : new int[] {0, -1, Patterns.MOST + 1}) {
      expectThrows(IllegalArgumentException.class, () -> Patterns.of(Patterns.Kind.COUNTING, n));
    }
    expectThrows(IllegalArgumentException.class, () -> Patterns.Kind.of("binary"));
  }
}
