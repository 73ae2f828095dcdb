package ell.work;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import ell.work.tape.Meaning;
import ell.work.tape.Tape;
import ell.work.tape.Verb;
import ell.work.tape.VerbTable;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// The words of the tape as lists: each example is understood by its own verb, no two verbs fight
/// over a word, completions complete, and lines at random never break the tape.
public class VerbsTest {
  private Workshop w;
  private Tape tape;

  @BeforeClass
  public void open() throws Exception {
    w = Demo.workspace(true);
    tape = w.tape(w.plan(w.buildOf("07")));
  }

  @AfterClass(alwaysRun = true)
  public void close() throws Exception {
    w.close();
  }

  private Meaning on(String board, String line) throws Exception {
    return tape.understand(line, w.state(board), w.entries(board));
  }

  @DataProvider
  Object[][] examples() {
    List<Object[]> all = new ArrayList<>();
    for (Verb v : Stages.SHIPPED.verbs()) {
      for (String e : v.examples()) {
        all.add(new Object[] {v.grammar(), e});
      }
    }
    return all.toArray(Object[][]::new);
  }

  /// What an example lacks on this board, in the words of its own verb. All others must be ready.
  private static final Map<String, String> LACKING =
      Map.of(
          "rest good", "every joint was looked at",
          "strike 12 wrong board", "this board has no entry 12",
          "step 12", "done already",
          "steps 1-30", "done already",
          "step", "step 42 is a gate",
          "U2.5 3,29", "there is no place 'U2.5'",
          "SJ1 closed", "there is no place 'SJ1'",
          "SJ1 open", "there is no place 'SJ1'",
          "did sleep-current 4 uA", "nobody said what operations",
          "chain U4 lit up to 2", "this board has no chain");

  @Test(dataProvider = "examples")
  public void anExampleIsUnderstood(String grammar, String example) throws Exception {
    Meaning m = on("07", example);
    String lacks = LACKING.get(example);
    if (lacks == null) {
      assertTrue(m instanceof Meaning.Ready, grammar + ", " + example + ": " + m);
    } else {
      assertTrue(m instanceof Meaning.Wrong x && x.why().startsWith(lacks), example + ": " + m);
    }
  }

  @Test
  public void noTwoVerbsAreCalledTheSame() {
    Set<String> first = new HashSet<>();
    Set<String> behind = new HashSet<>();
    for (Verb v : Stages.SHIPPED.verbs()) {
      for (String word : v.words()) {
        // an open link is no open joint: the verb of links declines every other place
        assertTrue(
            (v.afterPlace() ? behind : first).add(word) || word.equals("open"), word + " is taken");
        assertEquals(word, word.toLowerCase(Locale.ROOT), "words are in small letters");
      }
      assertFalse(v.grammar().isBlank());
      assertFalse(v.means().isBlank());
      assertFalse(v.examples().isEmpty(), v.grammar());
    }
  }

  @Test
  public void theTableNamesEveryVerbOnce() {
    String table = VerbTable.of(Stages.SHIPPED.verbs());
    for (Verb v : Stages.SHIPPED.verbs()) {
      String cell = "| `" + v.grammar().replace("|", "\\|") + "` |";
      assertEquals(table.split(java.util.regex.Pattern.quote(cell), -1).length, 2, v.grammar());
    }
  }

  @DataProvider
  Object[][] beginnings() {
    return new Object[][] {
      {"no"},
      {"over"},
      {"override "},
      {"3V"},
      {"U4"},
      {"U4."},
      {"U4 br"},
      {"gate "},
      {"pri"},
      {"printed "},
      {"jar "},
      {"C1 refl"},
      {""}
    };
  }

  @Test(dataProvider = "beginnings")
  public void whatCompletesALineBeginsLikeIt(String line) {
    List<String> all = tape.complete(line, 8);
    assertTrue(all.size() <= 8);
    assertEquals(new HashSet<>(all).size(), all.size(), "none twice: " + all);
    for (String c : all) {
      assertTrue(
          c.toLowerCase(Locale.ROOT).startsWith(line.stripLeading().toLowerCase(Locale.ROOT)),
          "'" + c + "' does not go on from '" + line + "'");
    }
    assertFalse(all.isEmpty() && !line.isEmpty(), "nothing goes on from '" + line + "'");
  }

  /// Words, places, numbers and rubbish in any order: each line is ready, unfinished or wrong with
  /// words, and asking twice gives the same answer.
  @Test
  public void linesAtRandomNeverBreakTheTape() throws Exception {
    List<String> bits =
        new ArrayList<>(
            List.of(
                "3V3",
                "U4",
                "U4.7",
                "GND",
                "R1",
                "TP4",
                "3.287",
                "-1",
                "1e9",
                "1e999",
                "0x10",
                "NaN",
                "open",
                "12k",
                "3,3",
                "V",
                "mA",
                "Ω",
                "°C",
                "",
                " ",
                "\t",
                "first",
                "second",
                "none",
                "WHY",
                "because",
                "2026-13-40",
                "5-3",
                "3-5",
                "0",
                "999999999999",
                "\"",
                "é",
                "\uD83D\uDE00",
                "'",
                ";",
                "level",
                "9"));
    for (Verb v : Stages.SHIPPED.verbs()) {
      bits.addAll(v.words());
      bits.addAll(Arrays.asList(v.examples().getFirst().split(" ")));
    }
    Random r = new Random(42);
    int ready = 0;
    for (int i = 0; i < 20_000; i++) {
      StringBuilder line = new StringBuilder();
      for (int k = r.nextInt(6); k >= 0; k--) {
        line.append(bits.get(r.nextInt(bits.size()))).append(r.nextInt(5) == 0 ? "  " : " ");
      }
      Meaning m = on("07", line.toString());
      assertEquals(on("07", line.toString()), m, line.toString());
      ready += m instanceof Meaning.Ready ? 1 : 0;
      if (m instanceof Meaning.Ready x) {
        assertFalse(x.entries().isEmpty(), line.toString());
        assertFalse(x.words().isBlank(), line.toString());
      }
      tape.complete(line.toString(), 5);
    }
    assertTrue(ready > 500, ready + " lines were ready");
  }
}
