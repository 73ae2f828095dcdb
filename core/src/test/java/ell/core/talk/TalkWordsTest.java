package ell.core.talk;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Scripts, what is expected, restarts, and differences of what was heard.
public class TalkWordsTest {
  @Test
  public void aScriptIsReadWhole() {
    Script s =
        ScriptReader.read(
            """
            {"name": "load", "operation": "program", "baud": 57600, "banner": "^boots",
             "steps": [
              {"label": "again", "send": "id?\\r", "expect": "board (?<serial>\\\\w+)", "within": "500ms",
               "retries": 2, "else": "end"},
              {"hex": "1d 48", "expect": "."},
              {"wait": 0.25},
              {"settings": {"a": "1"}},
              {"label": "end", "load": "x.bin", "then": "stop"}]}
            """,
            "other");
    assertEquals(s.name(), "load");
    assertEquals(s.baud(), 57_600);
    assertEquals(s.steps().size(), 5);
    assertEquals(s.steps().getFirst().within(), 0.5);
    assertEquals(s.steps().getFirst().otherwise(), "end");
    assertEquals(((Script.Act.Send) s.steps().get(1).act()).bytes(), "\u001dH");
    assertEquals(((Script.Act.Pause) s.steps().get(2).act()).seconds(), 0.25);
    assertEquals(s.steps().getLast().within(), 60.0, "a load takes its time");
    Script list = ScriptReader.read("[{\"send\": \"x\"}]", "bare");
    assertEquals(list.name(), "bare");
  }

  @DataProvider
  Object[][] bad() {
    return new Object[][] {
      {"", "JSON"},
      {"{}", "at least one"},
      {"{\"steps\": []}", "at least one"},
      {"[{}]", "step 1"},
      {"[{\"send\": \"a\"}, {\"sned\": \"b\"}]", "step 2"},
      {"[{\"send\": \"a\", \"wait\": 1}]", "one thing"},
      {"[{\"expect\": \"(\"}]", "pattern"},
      {"[{\"send\": \"a\", \"within\": \"soon\"}]", "seconds"},
      {"[{\"send\": \"a\", \"within\": -1}]", "seconds"},
      {"[{\"send\": \"a\", \"then\": \"nowhere\"}]", "nowhere"},
      {"[{\"hex\": \"1\"}]", "hex"},
      {"[{\"send\": \"a\", \"retries\": 1.5}]", "retries"},
      {"[{\"settings\": {}}]", "settings"},
      {"{\"baud\": 1, \"steps\": [{\"send\": \"a\"}]}", "baud"},
      {"[{\"label\": \"x\", \"wait\": 1}, {\"label\": \"x\", \"wait\": 1}]", "twice"},
    };
  }

  @Test(dataProvider = "bad")
  public void whatIsNoScriptSaysWhere(String json, String why) {
    String says =
        expectThrows(IllegalArgumentException.class, () -> ScriptReader.read(json, "x"))
            .getMessage();
    assertTrue(says.contains(why), says);
  }

  @Test
  public void aPatternIsFoundInPieces() {
    Expecting e = new Expecting("firmware (?<v>[0-9.]+)\\r");
    assertTrue(e.hear("boots\r\nfirm").isEmpty());
    assertTrue(e.hear("ware 1.").isEmpty());
    Expecting.Found f = e.hear("4\r\nready").orElseThrow();
    assertEquals(f.named().get("v"), "1.4");
    assertEquals(f.rest(), "\nready");
  }

  @Test
  public void aLineWithoutEndAndAHardPatternDoNotHoldItUp() {
    Expecting e = new Expecting("never");
    for (int i = 0; i < 100; i++) {
      assertTrue(e.hear("x".repeat(10_000)).isEmpty());
    }
    assertTrue(e.heard().length() <= 1 << 16);
    assertTrue(e.dropped() > 900_000);
    Expecting hard = new Expecting("(a+)+b");
    expectThrows(IllegalStateException.class, () -> hard.hear("a".repeat(5000)));
  }

  private static List<Restarts.Timed> lines(double... at) {
    List<Restarts.Timed> all = new ArrayList<>();
    for (double t : at) {
      all.add(new Restarts.Timed(t, "Marram boots"));
      all.add(new Restarts.Timed(t + 0.01, "ready"));
    }
    return all;
  }

  @Test
  public void bannersThatComeAgainAreRestarts() {
    Restarts r = Restarts.of(lines(0.1, 0.6, 1.1, 1.6), Optional.of("^Marram"));
    assertEquals(r.count(), 3);
    assertEquals(r.period(), 0.5, 1e-9);
    assertTrue(r.regular());
    assertFalse(Restarts.of(lines(0.1, 0.2, 5, 5.4, 30), Optional.of("^Marram")).regular());
    assertEquals(Restarts.of(lines(0.1), Optional.of("^Marram")).count(), 0);
    assertEquals(Restarts.of(lines(0.1, 0.6), Optional.empty()).count(), 0, "two may be chance");
    assertEquals(Restarts.of(lines(0.1, 0.6, 1.1), Optional.empty()).count(), 2);
    assertEquals(Restarts.of(List.of(), Optional.empty()), Restarts.NONE);
  }

  @Test
  public void numbersMayDifferLinesMayNot() {
    HeardDiff d = HeardDiff.of("boots 1\ncell 12.4 mV\nready\n", "boots 2\nready\nERROR 7\n");
    assertEquals(
        d.lines().stream().map(HeardDiff.Line::words).toList(),
        List.of("  boots 2", "- cell 12.4 mV", "  ready", "+ ERROR 7"));
    assertFalse(d.same());
    assertTrue(HeardDiff.of("a 1\n", "a 2\r\n\r\n").same());
  }
}
