package ell.work;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.power.BeforePower;
import ell.core.power.Ladder;
import ell.work.act.Outcome;
import ell.work.act.Refusal;
import ell.work.act.RefusedException;
import ell.work.bench.SimulatedBench;
import ell.work.power.HelperWords;
import ell.work.power.PowerRun;
import ell.work.space.ActException;
import java.io.IOException;
import java.util.List;
import java.util.Optional;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/// What must be so before first power, and a helper who switches on: the rules hold at whatever
/// door, and the helper is told one word.
public final class HelperTest {
  private static final String BOARD = "07";
  private static final List<Entry> ON =
      List.of(
          new Entry.Supply(
              true, 5, 0.1, Optional.empty(), Optional.empty(), Optional.empty(), "first power"));

  private Workshop w;
  private SimulatedBench sim;

  @BeforeMethod
  public void open() throws Exception {
    w = Demo.workspace(true);
    sim = SimulatedBench.start(w, 3);
  }

  @AfterMethod(alwaysRun = true)
  public void close() throws IOException {
    sim.close();
    w.close();
  }

  private Optional<HelperWords> told() throws Exception {
    return HelperWords.of(w.plan(w.buildOf(BOARD)).revision(), ladder(BOARD), w.state(BOARD));
  }

  private String refused(String board) throws Exception {
    return PowerRun.refusal(w.acts(), board).map(Refusal::rule).orElse("");
  }

  private Ladder ladder(String board) throws Exception {
    return w.plan(w.buildOf(board)).ladder();
  }

  private void say(String line) throws Exception {
    w.type(BOARD, line).orThrow();
  }

  @Test
  public void whatIsPluggedInStopsFirstPower() throws Exception {
    assertEquals(refused(BOARD), "");
    say("M1 in");
    assertEquals(refused(BOARD), "plugged");
    assertTrue(w.log(BOARD, ON) instanceof Outcome.Refused, "whoever asks");
    say("M1 out");
    assertEquals(refused(BOARD), "");
    say("BT1 in charged it at home");
    assertTrue(
        PowerRun.refusal(w.acts(), BOARD).orElseThrow().why().contains("no cell in BT1"), "why");
    say("override plugged the cell is empty");
    assertEquals(refused(BOARD), "");
  }

  @Test
  public void whatNobodySaidIsTakenAsSoAndWritten() throws Exception {
    say("M1 out");
    String note = firstNote();
    assertTrue(note.contains("no cell in BT1"), note);
    assertFalse(note.contains("M1"), "that was said: " + note);
    assertTrue(BeforePower.over(ladder(BOARD), w.state(BOARD)), "every rail is within");
    say("M1 in");
    assertEquals(refused(BOARD), "", "first power is over, and the module may be in");
    assertEquals(firstNote(), "", "nothing is asked any more");
  }

  @Test
  public void allThatMustBeSoInOneWord() throws Exception {
    say("M1 in");
    say("so");
    assertEquals(refused(BOARD), "");
    assertTrue(
        BeforePower.of(w.plan(w.buildOf(BOARD)).revision(), ladder(BOARD), w.state(BOARD)).stream()
            .allMatch(i -> i.state() == BeforePower.State.SO));
    assertThrows(ActException.class, () -> w.type(BOARD, "so")); // nothing is left to say
    assertEquals(firstNote(), "");
  }

  /// The note of a run that reads every rail, empty when it writes none.
  private String firstNote() throws Exception {
    StringBuilder note = new StringBuilder();
    PowerRun.Watcher watcher =
        new PowerRun.Watcher() {
          @Override
          public void logged(Logged entry) {
            if (entry.entry() instanceof Entry.Note n) {
              note.append(n.text());
            }
          }
        };
    try (PowerRun run =
        new PowerRun(w.acts(), w.plan(w.buildOf(BOARD)), BOARD, sim.bench(), watcher, 1)) {
      assertTrue(run.climb());
      for (Ladder.RailSpec r : run.rails()) {
        run.read(r);
      }
      run.off("every rail is read");
    }
    return note.toString();
  }

  @Test
  public void aHelperSwitchesOnWhatTheMakerHasShown() throws Exception {
    assertFalse(told().isPresent(), "no helper");
    say("hands Ben helper");
    say("so");
    String other = other();
    boolean shown = BeforePower.over(ladder(other), w.state(other));
    if (!shown) {
      assertEquals(refused(BOARD), "helper", "the maker goes first");
      say("hands Ada");
      assertEquals(refused(BOARD), "");
      say("hands Ben helper");
      bring(other);
    }
    assertEquals(refused(BOARD), "");
    assertEquals(told().orElseThrow().word(), "NEXT");
    firstNote();
    assertEquals(told().orElseThrow().word(), "GOOD");
  }

  @Test
  public void aHelperIsAskedAndMayNotDecide() throws Exception {
    say("hands Ben helper");
    assertEquals(told().orElseThrow().word(), "LOOK");
    assertTrue(told().orElseThrow().lines().contains("no cell in BT1"));
    assertEquals(refused(BOARD), "plugged", "a helper says that it is so");
    Outcome o = w.type(BOARD, "override plugged it will be fine");
    assertTrue(o instanceof Outcome.Refused r && r.refusal().rule().equals("helper"), "" + o);
    long last = w.state(BOARD).standing().getLast().number();
    assertTrue(w.type(BOARD, "strike " + last) instanceof Outcome.Refused);
    say("U4.7 bridge to U4.8");
    say("so");
    HelperWords told = told().orElseThrow();
    assertEquals(told.word(), "PUT ASIDE");
    assertTrue(told.lines().getFirst().contains("U4.7 bridge"), told.lines().toString());
    bring(other());
    assertEquals(refused(BOARD), "helper", "a board with a finding is the maker's");
    assertTrue(PowerRun.refusal(w.acts(), BOARD).orElseThrow().how().contains("hands NAME"));
    say("hands Ada");
    assertEquals(refused(BOARD), "");
  }

  /// Another board of the build, which beeps.
  private String other() throws Exception {
    for (String b : w.buildOf(BOARD).boards()) {
      if (!b.equals(BOARD) && w.state(b).findings().isEmpty() && !refused(b).equals("power")) {
        return b;
      }
    }
    throw new AssertionError("no other board may be powered");
  }

  private void bring(String board) throws Exception {
    if (BeforePower.over(ladder(board), w.state(board))) {
      return;
    }
    try (PowerRun run =
        new PowerRun(
            w.acts(), w.plan(w.buildOf(board)), board, sim.bench(), new PowerRun.Watcher() {}, 1)) {
      assertTrue(run.climb());
      for (Ladder.RailSpec r : run.rails()) {
        run.read(r);
      }
      run.off("every rail is read");
    } catch (RefusedException e) {
      throw new AssertionError(board + ": " + e.getMessage(), e);
    }
    assertTrue(BeforePower.over(ladder(board), w.state(board)), board);
  }

  /// On a board with a rail of which nothing says the volts nobody is told that it is good.
  @Test
  public void aGuessedRailIsTheMakers() throws Exception {
    bring(other());
    say("hands Ben helper");
    say("so");
    firstNote();
    assertEquals(told().orElseThrow().word(), "GOOD");
    Ladder known = ladder(BOARD);
    Ladder.RailSpec last = known.rail("3V3A").orElseThrow();
    List<Ladder.RailSpec> rails =
        known.rails().stream()
            .map(r ->
                r.equals(last)
                    ? new Ladder.RailSpec(
                        r.net(), r.volts(), r.low(), r.high(), r.capacitance(), r.readAt(), true)
                    : r)
            .toList();
    Ladder guessed =
        new Ladder(
            rails,
            known.sources(),
            known.steps(),
            known.loads(),
            known.ground(),
            known.assumptions(),
            known.notRails(),
            known.parts());
    HelperWords ask =
        HelperWords.of(w.plan(w.buildOf(BOARD)).revision(), guessed, w.state(BOARD)).orElseThrow();
    assertEquals(ask.word(), "ASK");
    assertTrue(ask.todo().contains("3V3A"), ask.todo());
  }
}
