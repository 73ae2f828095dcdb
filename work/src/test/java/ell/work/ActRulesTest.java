package ell.work;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.entry.PasteLook;
import ell.core.order.OrderFacts;
import ell.core.print.PrintFacts;
import ell.work.act.Outcome;
import ell.work.act.Refusal;
import ell.work.act.RefusedException;
import ell.work.act.Rule;
import ell.work.space.ActException;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// The rules of the work, each by hand: refused with its reason and the words that set it aside,
/// nothing logged by a refusal, done once it is set aside, and bound again when the override is
/// struck. What is tried is typed, for the other doors end in the same act.
public class ActRulesTest {
  private Workshop w;

  @BeforeMethod
  public void open() throws Exception {
    w = Demo.workspace(true);
  }

  @AfterMethod(alwaysRun = true)
  public void close() throws Exception {
    w.close();
  }

  private Refusal refused(String board, String line) throws Exception {
    long before = w.entries(board).size();
    Outcome o = w.type(board, line);
    assertTrue(o instanceof Outcome.Refused, line + ": " + o);
    assertEquals(w.entries(board).size(), before, "a refusal logs nothing");
    return ((Outcome.Refused) o).refusal();
  }

  private List<Logged> done(String board, String line) throws Exception {
    Outcome o = w.type(board, line);
    assertTrue(o instanceof Outcome.Done, line + ": " + o);
    return ((Outcome.Done) o).entries();
  }

  @Test
  public void theRulesThatThereAre() {
    assertEquals(
        w.acts().rules().stream().map(Rule::key).collect(Collectors.toSet()),
        Set.of(
            "paste", "lost", "heat", "power", "panel", "plugged", "helper", "links", "number",
            "use", "proof", "erratum"));
    for (Rule r : w.acts().rules()) {
      assertFalse(r.guards().isBlank());
    }
  }

  @Test
  public void nobodyLosesMoreThanLiesThere() throws Exception {
    String code = w.plan(w.space().buildOf("11")).revision().part("R1").orElseThrow().code();
    done("11", "count " + code + " 12");
    Refusal r = refused("11", "R1 lost 13");
    assertEquals(r.rule(), "lost");
    assertTrue(r.why().contains("12 lie on the shelf"), r.why());
    assertTrue(r.how().contains("count " + code), r.how());
    done("11", "R1 lost 12");
    done("11", "R1 lost"); // one more than was counted: then somebody counted wrong
    refused("11", "R1 lost 2");
    done("11", "count " + code + " 5");
    done("11", "R1 lost 2");
    done("11", "override lost a whole reel went, and it was never counted");
    done("11", "R1 lost 900");
  }

  @DataProvider
  Object[][] opensThePaste() {
    return new Object[][] {{"printed first"}, {"printed first wiped"}, {"step 1"}, {"step"}};
  }

  @Test(dataProvider = "opensThePaste")
  public void noPasteIsOpenedForABoardWhosePartsAreShort(String line) throws Exception {
    Refusal r = refused("10", line);
    assertEquals(r.rule(), "paste");
    assertTrue(r.why().contains("short"), r.why());
    assertTrue(r.how().contains("override paste WHY"), r.how());
  }

  @Test
  public void aBoardThatIsBegunIsFinished() throws Exception {
    // parts are on board 08: its second side may be printed whatever is short
    assertFalse(OrderFacts.of(w.state("08")).placed().isEmpty());
    Outcome o = w.log("08", List.of(new Entry.Printed("second", false, "")));
    assertTrue(o instanceof Outcome.Done, o.toString());
  }

  @Test
  public void anOverrideOpensTheWayAndItsStrikeClosesIt() throws Exception {
    refused("11", "printed first");
    List<Logged> override = done("11", "override paste the parts come tomorrow");
    done("11", "printed first");
    List<Logged> log = w.entries("11");
    done("11", "strike " + log.getLast().number());
    done("11", "strike " + log.get(log.size() - 2).number());
    done("11", "strike " + override.getFirst().number());
    assertEquals(refused("11", "printed first").rule(), "paste");
  }

  @Test
  public void theJarIsOpenedForTheWholeBuild() throws Exception {
    assertEquals(refused("11", "printed first").rule(), "paste");
    done("10", "override paste the parts come tomorrow");
    done("10", "printed first");
    done("11", "printed first");
  }

  @Test
  public void aPrintIsAStepAndAStepIsAPrint() throws Exception {
    done("10", "override paste to see");
    List<Logged> printed = done("10", "printed first jar none");
    assertEquals(kinds(printed), List.of("Printed", "StepDone"));
    assertEquals(PrintFacts.of(w.state("10")).printed(), Set.of("first"));
    done("11", "override paste to see");
    List<Logged> stepped = done("11", "step 1");
    assertEquals(kinds(stepped), List.of("Printed", "StepDone"));
    assertEquals(PrintFacts.of(w.state("11")).printed(), Set.of("first"));
    OrderFacts a = OrderFacts.of(w.state("10"));
    OrderFacts b = OrderFacts.of(w.state("11"));
    assertEquals(a.actsDone(), b.actsDone());
    assertEquals(a.stepsDone(), b.stepsDone());
    assertFalse(a.actsDone().isEmpty() && a.stepsDone().isEmpty(), "the step is done");
  }

  @Test
  public void aSecondPrintOfASideIsNoSecondStep() throws Exception {
    done("10", "override paste to see");
    done("10", "printed first jar none");
    List<Logged> again = done("10", "printed first wiped jar none");
    assertEquals(kinds(again), List.of("Printed"), "the step was done already");
  }

  private static List<String> kinds(List<Logged> all) {
    return all.stream().map(l -> l.entry().getClass().getSimpleName()).toList();
  }

  @Test
  public void noPowerBeforeEveryRailWasBeeped() throws Exception {
    Entry on =
        new Entry.Supply(true, 1, 0.01, Optional.empty(), Optional.empty(), Optional.empty(), "t");
    Outcome o = w.log("03", List.of(on));
    assertTrue(o instanceof Outcome.Refused);
    Refusal r = ((Outcome.Refused) o).refusal();
    assertEquals(r.rule(), "power");
    assertTrue(r.why().contains("board 03") && r.why().contains("GND"), r.why());
    assertTrue(w.log("07", List.of(on)) instanceof Outcome.Done, "07 was beeped");
    Entry off =
        new Entry.Supply(false, 0, 0, Optional.empty(), Optional.empty(), Optional.empty(), "t");
    assertTrue(w.log("03", List.of(off)) instanceof Outcome.Done, "off is never refused");
  }

  @Test
  public void aCheckThatIsOutHoldsThePowerBackTillItIsMended() throws Exception {
    Entry on =
        new Entry.Supply(true, 1, 0.01, Optional.empty(), Optional.empty(), Optional.empty(), "t");
    assertTrue(w.refusal("07", List.of(on)).isEmpty());
    long bad = done("07", "3V3 GND 0.4").getFirst().number();
    assertEquals(w.refusal("07", List.of(on)).orElseThrow().rule(), "power");
    done("07", "strike " + bad);
    assertTrue(w.refusal("07", List.of(on)).isEmpty());
    done("07", "3V3 GND 0.4");
    done("07", "3V3 GND open");
    assertTrue(w.refusal("07", List.of(on)).isEmpty(), "the last word counts");
  }

  @Test
  public void noPartIsHeatedMoreOftenThanItTakes() throws Exception {
    String part = "C16";
    int done = 0;
    Refusal r = null;
    while (r == null && done < 20) {
      Outcome o = w.type("07", part + " reflowed");
      if (o instanceof Outcome.Refused no) {
        r = no.refusal();
      }
      done++;
    }
    assertTrue(r != null, "it never ended");
    assertEquals(r.rule(), "heat");
    assertTrue(r.why().contains(part), r.why());
    // a word why stands in for the override, for this one act
    done("07", part + " reflowed the last of its kind");
    assertEquals(refused("07", part + " reflowed").rule(), "heat");
    done("07", "override heat nothing is left of them");
    done("07", part + " reflowed");
  }

  @Test
  public void askingLogsNothing() throws Exception {
    long before = w.book().verify().entries();
    w.refusal("10", List.of(new Entry.Printed("first", false, "")));
    w.refusal("07", List.of(new Entry.Note("only asked")));
    assertEquals(w.book().verify().entries(), before);
  }

  @Test
  public void anActIsLoggedWholeOrNotAtAll() throws Exception {
    long before = w.entries("10").size();
    Outcome o =
        w.log("10", List.of(new Entry.Note("first of two"), new Entry.Printed("first", false, "")));
    assertTrue(o instanceof Outcome.Refused);
    assertEquals(w.entries("10").size(), before, "the note is not there either");
    assertThrows(RefusedException.class, o::orThrow);
  }

  @Test
  public void whatCanNotBeStruckIsRefusedByTheAct() throws Exception {
    long first = w.entries("07").getFirst().number();
    long elsewhere = w.entries("08").getFirst().number();
    assertThrows(
        ActException.class, () -> w.log("07", List.of(new Entry.Strike(elsewhere, "not mine"))));
    assertThrows(
        ActException.class, () -> w.log("07", List.of(new Entry.Strike(9_999_999, "none"))));
    w.log("07", List.of(new Entry.Strike(first, "once"))).orThrow();
    assertThrows(ActException.class, () -> w.log("07", List.of(new Entry.Strike(first, "twice"))));
    assertThrows(ActException.class, () -> w.log("07", List.of()));
    assertThrows(ActException.class, () -> w.log("no board", List.of(new Entry.Note("lost"))));
  }

  @Test
  public void pasteLooksBelongToThePrintBefore() throws Exception {
    done("10", "override paste to see");
    done("10", "printed first jar none");
    done("10", "U4.7 paste bridged");
    assertEquals(PrintFacts.of(w.state("10")).paste().get("U4.7"), PasteLook.BRIDGED);
  }
}
