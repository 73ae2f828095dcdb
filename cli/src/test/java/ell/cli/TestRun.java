package ell.cli;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

/// Runs commands and holds them to what they end with.
final class TestRun {
  private TestRun() {}

  /// A command that must end well.
  static MainTest.Ran good(String... args) {
    MainTest.Ran r = MainTest.ell(args);
    assertEquals(r.code(), 0, String.join(" ", args) + "\n" + r.err() + r.out());
    return r;
  }

  /// A command whose input is bad, and what it must say.
  static void bad(String says, String... args) {
    MainTest.Ran r = MainTest.ell(args);
    assertEquals(r.code(), 2, String.join(" ", args) + "\n" + r.err() + r.out());
    assertTrue(r.err().contains(says), String.join(" ", args) + "\n" + r.err());
  }
}
