package ell.core.rack;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import ell.core.RandomBoards;
import ell.core.beep.BeepFacts;
import ell.core.beep.BeepList;
import ell.core.board.Block;
import ell.core.board.Revision;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.order.Blocks;
import ell.core.order.BuildOrder;
import ell.core.order.Method;
import ell.core.order.OrderFacts;
import ell.core.order.Step;
import ell.core.power.Ladder;
import ell.core.power.LadderProposal;
import ell.core.pulse.PulsePlan;
import ell.core.quantity.Limits;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import ell.core.talk.TalkPlan;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.testng.annotations.Test;

public class StandingTest {
  private final List<Logged> log = new ArrayList<>();

  private static Plan plan() {
    Revision r = RandomBoards.make(new Random(2), 40);
    Ladder l = LadderProposal.of(r);
    List<Block> blocks = Blocks.of(r, l);
    return new Plan(
        r,
        Method.IRON,
        l,
        blocks,
        1,
        () -> BuildOrder.of(r, Method.IRON, blocks),
        () -> BeepList.of(r, l),
        () -> PulsePlan.of(r, l, List.of(), List.of()),
        () -> TalkPlan.of(r, List.of()));
  }

  private Standing after(Plan p, Entry... more) {
    for (Entry e : more) {
      log.add(new Logged(log.size() + 1, OffsetDateTime.parse("2026-11-20T09:00:00Z"), "01", e));
    }
    return Standing.of(BoardState.of("01", log), p);
  }

  @Test
  public void aBoardGoesThroughTheStages() {
    log.clear();
    Plan p = plan();
    assertEquals(after(p).stage(), Stage.KIT);
    assertEquals(after(p).mark(), Standing.Mark.NOT_YET);
    Step first = p.order().steps().getFirst();
    Standing s =
        after(p, new Entry.StepDone(first.number(), first.action().words(), first.parts(), 0));
    assertEquals(s.stage(), Stage.ORDER);
    assertTrue(s.phrase().startsWith("step 1 of"), s.phrase());
    for (Step x : p.order().steps()) {
      after(
          p,
          x.gate().isPresent()
              ? new Entry.Gate(x.gate().get(), true, "")
              : new Entry.StepDone(x.number(), x.action().words(), x.parts(), 0));
    }
    s = after(p);
    assertEquals(s.stage(), p.beep().guarding().isEmpty() ? Stage.ORDER : Stage.BEEP);
    assertEquals(OrderFacts.of(BoardState.of("01", log)).next(p.order()), Optional.empty());
    for (var c : p.beep().guarding()) {
      after(
          p,
          new Entry.Check(
              c.kind().key(),
              c.a().place(),
              c.b().place(),
              c.netA(),
              c.netB(),
              1e6,
              c.expected(),
              Verdict.WITHIN));
    }
    assertTrue(BeepFacts.of(BoardState.of("01", log)).open(p.beep()).isEmpty());
    s = after(p);
    assertEquals(s.stage(), Stage.POWER);
    for (Ladder.RailSpec r : p.ladder().supplied()) {
      s = after(p, read(r, Verdict.WITHIN));
    }
    assertEquals(s.phrase(), "rails within");
    assertEquals(s.progress(), 1.0, 1e-9);
    Ladder.RailSpec rail = p.ladder().raised().getLast();
    assertEquals(after(p, read(rail, Verdict.CLOSE)).mark(), Standing.Mark.CLOSE);
    assertEquals(after(p, read(rail, Verdict.OUT)).mark(), Standing.Mark.OUT);
  }

  private static Entry read(Ladder.RailSpec r, Verdict v) {
    return new Entry.Reading(
        r.net(),
        // a verdict is what the limits of the ladder make of a reading
        switch (v) {
          case WITHIN -> r.volts();
          case CLOSE -> r.high();
          case OUT -> r.high() + 1;
        },
        Unit.VOLT,
        Optional.of(new Limits(r.low(), r.high())),
        Optional.of(0.01),
        Optional.of(v),
        "");
  }

  @Test
  public void aFindingHoldsABoardWhereverItIs() {
    log.clear();
    Standing s = after(plan(), new Entry.Defect("U3", "hot", ""));
    assertEquals(s.mark(), Standing.Mark.OUT);
    assertEquals(s.phrase(), "held · U3 hot");
  }
}
