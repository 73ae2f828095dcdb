package ell.work;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import ell.core.beep.BeepCheck;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.heat.HeatFacts;
import ell.core.kit.KitLine;
import ell.core.rack.Plan;
import ell.core.revise.BodgeMatrix;
import ell.core.revise.Erratum;
import ell.core.revise.Stand;
import ell.core.trace.Suspect;
import ell.work.act.Outcome;
import ell.work.space.ActException;
import java.util.List;
import java.util.Optional;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/// An erratum through every door: what it brings to other stages, and that a strike takes all of it
/// away again.
public class ReviseActsTest {
  private Workshop w;

  @BeforeMethod
  public void open() throws Exception {
    w = Demo.workspace(true);
  }

  @AfterMethod(alwaysRun = true)
  public void close() throws Exception {
    w.close();
  }

  private List<Logged> done(String board, String line) throws Exception {
    Outcome o = w.type(board, line);
    assertTrue(o instanceof Outcome.Done, line + ": " + o);
    return ((Outcome.Done) o).entries();
  }

  private Plan plan(String board) throws Exception {
    return w.plan(w.buildOf(board));
  }

  private Stand stand(String id, String board) throws Exception {
    BodgeMatrix m = w.revising().matrix(Optional.empty());
    return m.board(board).orElseThrow().stands().get(id);
  }

  /// Board 07 of revision B has a fault of the design: traced, it becomes an erratum in one word.
  private long written() throws Exception {
    done("07", "found loose U4.7");
    return done("07", "erratum").getFirst().number();
  }

  @Test
  public void oneWordWritesItDownAndAStrikeTakesAllOfItBack() throws Exception {
    Plan before = plan("08");
    List<String> beeps = before.beep().checks().stream().map(BeepCheck::key).toList();
    List<String> gates = before.blocks().stream().map(b -> b.question()).toList();
    double prior = prior("08", "loose U4.7");
    long entry = written();
    Erratum e = w.errata().all().all().getLast();
    assertEquals(e.faultWords(), "loose U4.7");
    assertEquals(e.bodge().getFirst().text().split(" ")[1], "U4.7");
    assertTrue(e.proposed());
    assertEquals(e.taughtBy().size(), 1);
    // Beep, Order, Trace, the gate before use and the row here know of it at once
    BeepCheck c = plan("08").beep().checks().getLast();
    assertTrue(c.why().startsWith(e.id()), c.why());
    assertTrue(
        plan("08").blocks().stream().anyMatch(b -> b.question().contains("mended of " + e.id())));
    assertTrue(prior("08", "loose U4.7") > 100 * prior, "a known mistake is expected");
    assertTrue(w.proofs().gate(plan("08"), w.state("08")).missing().toString().contains(e.id()));
    assertEquals(stand(e.id(), "08").state(), Stand.State.NEEDED);
    // taken back: nothing of it is left anywhere
    done("07", "strike " + entry + " it was the cable");
    assertEquals(plan("08").beep().checks().stream().map(BeepCheck::key).toList(), beeps);
    assertEquals(plan("08").blocks().stream().map(b -> b.question()).toList(), gates);
    assertFalse(w.proofs().gate(plan("08"), w.state("08")).missing().toString().contains(e.id()));
    assertTrue(w.errata().all().named(e.id()).isEmpty());
    assertEquals(prior("08", "loose U4.7"), prior, 500 * prior, "only the finding is left");
    // and the next one has a number of its own
    done("07", "erratum U4.8 is drawn badly");
    assertFalse(w.errata().all().all().getLast().id().equals(e.id()));
  }

  private double prior(String board, String fault) throws Exception {
    return w.traces().suspects(board).stream()
        .filter(s -> s.words().equals(fault))
        .mapToDouble(Suspect::prior)
        .findFirst()
        .orElse(0);
  }

  @Test
  public void closingTakesItAwayAndOpeningBringsItBack() throws Exception {
    written();
    String id = w.errata().all().all().getLast().id();
    int with = plan("08").beep().checks().size();
    done("12", "erratum " + id + " closed it was the cable");
    assertEquals(plan("08").beep().checks().size(), with - 1);
    assertEquals(stand(id, "08").state(), Stand.State.NOT_NEEDED);
    done("12", "erratum " + id + " open again");
    assertEquals(plan("08").beep().checks().size(), with);
  }

  @Test
  public void aGateWaitsForItsBodge() throws Exception {
    written();
    Erratum e = w.errata().all().all().getLast();
    String gate =
        plan("08").blocks().stream()
            .filter(b -> b.question().contains("mended of " + e.id()))
            .findFirst()
            .orElseThrow()
            .gate();
    Outcome o = w.type("08", "gate " + gate + " holds");
    assertTrue(o instanceof Outcome.Refused, o.toString());
    assertEquals(((Outcome.Refused) o).refusal().rule(), "erratum");
    assertTrue(((Outcome.Refused) o).refusal().how().contains("bodge " + e.id()));
    int heats = HeatFacts.of(w.state("08")).heatCycles().getOrDefault("U4", 0);
    List<Logged> bodge = done("08", "bodge " + e.id() + " 12 min");
    assertTrue(bodge.size() > 1, "its heat comes with it");
    assertEquals(HeatFacts.of(w.state("08")).heatCycles().get("U4"), (Integer) (heats + 1));
    done("08", "gate " + gate + " holds");
    assertEquals(stand(e.id(), "08").state(), Stand.State.DONE);
    BeepCheck c = plan("08").beep().checks().getLast();
    done("08", c.a().place() + " " + c.b().place() + " 0.3");
    assertEquals(stand(e.id(), "08").state(), Stand.State.PROVED);
    assertEquals(w.state("08").findings(), List.of(), "a mended place accuses nobody");
    expectThrows(ActException.class, () -> w.type("08", "bodge " + e.id()));
    // worked on once more: the proof does not hold any longer
    done("08", "U4 reflowed");
    assertEquals(stand(e.id(), "08").state(), Stand.State.DONE);
  }

  @Test
  public void whatMayDoDamageIsNotPowered() throws Exception {
    written();
    String id = w.errata().all().all().getLast().id();
    done("07", "erratum " + id + " severity harm");
    assertTrue(plan("07").beep().guarding().stream().anyMatch(c -> c.why().startsWith(id)));
    Entry on =
        new Entry.Supply(
            true, 12, 0.1, Optional.empty(), Optional.empty(), Optional.empty(), "first power");
    assertTrue(w.refusal("07", List.of(on)).isPresent());
    done("07", "override power looked at it");
    assertEquals(w.refusal("07", List.of(on)).orElseThrow().rule(), "erratum");
    done("07", "bodge " + id);
    assertTrue(w.refusal("07", List.of(on)).isEmpty());
  }

  /// What a bodge takes is counted by the kit while boards lack it, and comes off the shelf when it
  /// is made.
  @Test
  public void partsOfABodgeAreInTheKit() throws Exception {
    done("12", "erratum the reset line floats at U4.7");
    String id = w.errata().all().all().getLast().id();
    String net = plan("12").revision().joint("U4", "7").orElseThrow().net();
    long before = need("R10K-0603");
    done("12", "erratum " + id + " bodge add 10k " + net + " GND");
    assertEquals(need("R10K-0603"), before + 12);
    done("12", "count R10K-0603 100");
    done("11", "bodge " + id);
    assertEquals(need("R10K-0603"), before + 11);
    long onHand =
        w.stockroom().now().lines().stream()
            .filter(l -> l.code().equals("R10K-0603"))
            .mapToLong(l -> l.quantity())
            .sum();
    assertEquals(onHand, 99);
    done("12", "erratum " + id + " closed another way was found");
    assertEquals(need("R10K-0603"), before);
  }

  private long need(String code) throws Exception {
    return w.stockroom().kit(w.buildOf("12"), plan("12")).lines().stream()
        .filter(l -> l.code().equals(code))
        .mapToLong(KitLine::need)
        .findFirst()
        .orElse(0);
  }

  @Test
  public void whatCannotBeIsRefusedInWords() throws Exception {
    written();
    String id = w.errata().all().all().getLast().id();
    String[][] bad = {
      {"erratum from 99999", "no entry"},
      {"erratum from 1", "no finding"},
      {"erratum E99 closed x", "there is no erratum E99"},
      {"erratum " + id + " bodge weld U4.7", "is no step of a bodge"},
      {"erratum " + id + " bodge lift Z9.1", "no joint 'Z9.1'"},
      {"erratum " + id + " proof joined U4.7", "shows nothing"},
      {"erratum " + id + " severity terrible", "harm, fails, annoys or wish"},
      {"erratum " + id + " revisions Q", "Q"},
      {"erratum " + id + " at Z9", "no joint, part or net 'Z9'"},
      {"erratum " + id + " taught 99999", "no entry"},
      {"erratum " + id + " fault open Z9.1", "Z9"},
      {"bodge " + id + " proved it works", "is not done"},
      {"bodge E99", "there is no erratum E99"},
      {"decided fly away", "rework, respin or wait"},
      {"stack alone with 07: works", "another board"},
    };
    int entries = w.entries("07").size();
    for (String[] b : bad) {
      ActException e = expectThrows(ActException.class, () -> w.type("07", b[0]).orThrow());
      assertTrue(e.getMessage().contains(b[1]), b[0] + ": " + e.getMessage());
    }
    assertEquals(w.entries("07").size(), entries, "nothing was logged");
    // an erratum of one revision is none of a board of another
    ActException other = expectThrows(ActException.class, () -> w.type("A01", "bodge " + id));
    assertTrue(other.getMessage().contains("board A01 is MG-1 rev A"), other.getMessage());
  }

  @Test
  public void aStackStandsInTheBookOfEachOfItsBoards() throws Exception {
    done("07", "stack station with A01, field cable: works over night");
    assertEquals(w.revising().stacks().tried().size(), 1);
    assertTrue(w.entries("A01").getLast().entry() instanceof Entry.Stack);
    assertTrue(w.revising().stacks().tried().getFirst().mayShip());
    done("A01", "C5 replaced");
    assertFalse(w.revising().stacks().tried().getFirst().mayShip());
  }

  @Test
  public void aDecisionKeepsItsNumbersAndIsHeldAgainstWhatCame() throws Exception {
    written();
    String id = w.errata().all().all().getLast().id();
    Entry.Decision d =
        (Entry.Decision) done("07", "decided rework twelve are wanted").getFirst().entry();
    assertEquals(d.numbers().get("boards"), 12.0);
    assertTrue(d.numbers().get("reworkCost") > 0);
    assertEquals(
        w.revising().decisions("MG-1", "B").getFirst().since(), "nothing was mended since");
    done("08", "bodge " + id + " 10 min");
    done("08", "bodge " + id + " proved it resets");
    String since = w.revising().decisions("MG-1", "B").getFirst().since();
    assertTrue(since.contains("1 held, 0 did not"), since);
    assertTrue(since.contains("10 min"), since);
  }

  /// What was kept is there after the file was opened again, and in a workspace that was restored.
  @Test
  public void anotherProgramSeesTheSame() throws Exception {
    written();
    List<Erratum> all = w.errata().all().all();
    try (Workshop again = Workshop.look(w.book().place())) {
      assertEquals(again.errata().all().all(), all);
      assertEquals(
          again.plan(again.buildOf("08")).beep().checks().size(),
          plan("08").beep().checks().size());
    }
  }
}
