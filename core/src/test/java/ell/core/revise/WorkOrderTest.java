package ell.core.revise;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import ell.core.board.Revision;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.revise.WorkOrder.Doing;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import org.testng.annotations.Test;

/// Work orders against every order that there is, and the matrix against a recount of its own.
public class WorkOrderTest {
  private static final OffsetDateTime AT = OffsetDateTime.parse("2026-11-20T09:00:00Z");

  private static Entry.Erratum erratum(String id, List<String> bodge) {
    return new Entry.Erratum(
        id, id + " title", "BOARD", List.of("1"), "", List.of(), "fails", bodge, "", "", List.of());
  }

  private static List<String> steps(Revision r, Random q) {
    List<String> all = new ArrayList<>();
    int n = 1 + q.nextInt(3);
    List<String> parts = r.parts().stream().limit(6).map(p -> p.reference()).toList();
    for (int i = 0; i < n; i++) {
      String p = parts.get(q.nextInt(parts.size()));
      String other = parts.get(q.nextInt(parts.size()));
      String pin = r.jointsOf(p).get(q.nextInt(2)).place();
      String to = r.jointsOf(other).get(q.nextInt(2)).place();
      all.add(
          switch (q.nextInt(5)) {
            case 0 -> "cut " + pin;
            case 1 -> "lift " + pin;
            case 2 -> pin.equals(to) ? "remove " + p : "wire " + pin + " " + to;
            case 3 -> "replace " + p + " 4k7";
            default -> "do look";
          });
    }
    return all;
  }

  /// Every way to interleave the lists, each in its own order.
  private static void every(
      List<List<Doing>> lists, int[] far, List<Doing> sofar, List<List<Doing>> out) {
    boolean end = true;
    for (int i = 0; i < far.length; i++) {
      if (far[i] < lists.get(i).size()) {
        end = false;
        sofar.add(lists.get(i).get(far[i]++));
        every(lists, far, sofar, out);
        sofar.removeLast();
        far[i]--;
      }
    }
    if (end) {
      out.add(List.copyOf(sofar));
    }
  }

  private static int cost(List<Doing> order, Revision r) {
    return 10_000 * WorkOrder.heats(order, r).values().stream().mapToInt(i -> i).sum()
        + WorkOrder.changes(order);
  }

  @Test
  public void noOrderHeatsLess() {
    Random q = new Random(17);
    int better = 0;
    for (int i = 0; i < 120; i++) {
      Revision r = Drawings.board(i);
      List<Logged> log = new ArrayList<>();
      int n = 2 + q.nextInt(2);
      for (int k = 1; k <= n; k++) {
        log.add(new Logged(k, AT, "01", erratum("E" + k, steps(r, q))));
      }
      List<Erratum> all = Errata.of(log).all();
      BodgeMatrix m =
          BodgeMatrix.of(all, List.of(new BodgeMatrix.Asked("01", r, BoardState.of("01", log))));
      WorkOrder o = WorkOrder.of(m, Map.of(), (_, _) -> Optional.empty());
      assertEquals(o.boards().size(), 1);
      WorkOrder.Job job = o.boards().getFirst();
      List<List<Doing>> lists =
          all.stream()
              .map(e -> e.bodge().stream().map(s -> new Doing(e.id(), s)).toList())
              .toList();
      List<List<Doing>> every = new ArrayList<>();
      every(lists, new int[lists.size()], new ArrayList<>(), every);
      int least = every.stream().mapToInt(x -> cost(x, r)).min().orElseThrow();
      assertTrue(job.exact());
      assertEquals(cost(job.steps(), r), least, i + ": " + job.steps());
      assertEquals(job.heats(), WorkOrder.heats(job.steps(), r));
      better += least < cost(lists.stream().flatMap(List::stream).toList(), r) ? 1 : 0;
      double minutes = all.stream().mapToDouble(Erratum::minutes).sum();
      assertEquals(
          job.minutes(),
          WorkOrder.FETCH + minutes + WorkOrder.TOOL * WorkOrder.changes(job.steps()),
          1e-9);
    }
    assertTrue(better > 10, "an order in turn is not always as good: " + better);
  }

  /// The marks of a matrix counted once more in another way, after any mix of entries and strikes.
  @Test
  public void theMatrixIsWhatARecountSays() {
    Random q = new Random(5);
    for (int i = 0; i < 300; i++) {
      Revision r = Drawings.board(i % 7);
      String pin = r.jointsOf("U1").get(2).place();
      List<Logged> log = new ArrayList<>();
      log.add(
          new Logged(1, AT, "01", erratum("E1", List.of("lift " + pin, "wire " + pin + " GND"))));
      long n = 2;
      for (int k = q.nextInt(9); k > 0; k--) {
        Entry e =
            switch (q.nextInt(5)) {
              case 0 -> new Entry.Bodge("E1", "done", 0, "");
              case 1 -> new Entry.Bodge("E1", "undone", 0, "");
              case 2 -> new Entry.Bodge("E1", "not-needed", 0, "why");
              case 3 ->
                  new Entry.Check(
                      "continuity",
                      pin,
                      "R1.2",
                      "S",
                      "GND",
                      0.3,
                      ell.core.quantity.Limits.atMost(2),
                      q.nextBoolean()
                          ? ell.core.quantity.Verdict.WITHIN
                          : ell.core.quantity.Verdict.OUT);
              default -> new Entry.Strike(2 + q.nextInt((int) n - 1), "");
            };
        if (e instanceof Entry.Strike s && s.target() >= n) {
          continue;
        }
        log.add(new Logged(n++, AT, "01", e));
      }
      BoardState state = BoardState.of("01", log);
      Erratum e = Errata.of(state.standing()).all().getFirst();
      Stand got = Stand.of(e, r, state);
      assertEquals(got.state(), recount(log), i + ": " + log);
    }
  }

  /// Read backwards: the last word that stands decides, and a proof counts when it came after.
  private static Stand.State recount(List<Logged> log) {
    Set<Long> gone = new HashSet<>();
    for (int i = log.size() - 1; i >= 0; i--) {
      if (log.get(i).entry() instanceof Entry.Strike s && !gone.contains(log.get(i).number())) {
        gone.add(s.target());
      }
    }
    Boolean proved = null;
    for (int i = log.size() - 1; i >= 0; i--) {
      if (gone.contains(log.get(i).number())) {
        continue;
      }
      if (log.get(i).entry() instanceof Entry.Check c && proved == null) {
        proved = c.verdict() == ell.core.quantity.Verdict.WITHIN;
      }
      if (log.get(i).entry() instanceof Entry.Bodge b) {
        return switch (b.what()) {
          case "done" -> Boolean.TRUE.equals(proved) ? Stand.State.PROVED : Stand.State.DONE;
          case "undone" -> Stand.State.NEEDED;
          default -> Stand.State.NOT_NEEDED;
        };
      }
    }
    return Stand.State.NEEDED;
  }

  /// Three heatings are typical; a fourth is not asked for.
  @Test
  public void aPartThatHadItsHeatCannotBeMended() {
    Revision r = Drawings.board(3);
    String pin = r.jointsOf("U1").get(2).place();
    List<Logged> log = new ArrayList<>();
    log.add(new Logged(1, AT, "01", erratum("E1", List.of("lift " + pin))));
    for (int i = 0; i < 3; i++) {
      log.add(new Logged(2 + i, AT, "01", new Entry.Action(pin, "resoldered", true, "")));
    }
    Erratum e = Errata.of(log).all().getFirst();
    Stand s = Stand.of(e, r, BoardState.of("01", log));
    assertEquals(s.state(), Stand.State.CANNOT);
    assertTrue(s.why().contains("U1 was heated 3 times and takes 3"), s.why());
    log.add(new Logged(9, AT, "01", new Entry.Strike(4, "miscounted")));
    assertEquals(Stand.of(e, r, BoardState.of("01", log)).state(), Stand.State.NEEDED, "struck");
  }

  @Test
  public void wordsOfTheBodgeTellWhatIsWrongWithThem() {
    for (String bad :
        List.of("", "weld U1", "wire U1.1", "wire U1.1 U1.1", "add U1.1 GND", "do", "cut")) {
      IllegalArgumentException e =
          org.testng.Assert.expectThrows(
              IllegalArgumentException.class, () -> BodgeStep.parse(bad));
      assertTrue(e.getMessage().contains("a step is cut U6.7"), e.getMessage());
    }
    Revision r = Drawings.board(1);
    for (String good :
        List.of(
            "cut U1.3",
            "lift U1.3",
            "wire U1.3 GND",
            "remove R2",
            "replace R2 10k",
            "add 10k U1.3 GND",
            "do cross the wires")) {
      if (r.part("R2").isPresent() || !good.contains("R2")) {
        assertEquals(BodgeStep.parse(good).text(), good);
        assertEquals(BodgeStep.parse(good).unfit(r), Optional.empty(), good);
      }
    }
    assertTrue(BodgeStep.parse("lift U1.99").unfit(r).orElseThrow().contains("no joint 'U1.99'"));
    assertTrue(BodgeStep.parse("wire U1.3 NOPE").unfit(r).isPresent());
    for (String p : List.of("joined U1.3 GND", "apart U1.3 3V3", "rail 3V3", "test 3V3", "run")) {
      assertEquals(Proof.parse(p).text(), p);
    }
    org.testng.Assert.expectThrows(IllegalArgumentException.class, () -> Proof.parse("joined A"));
  }

  /// ASTM B258 as printed in handbooks: AWG 30 is 0.2548 mm, 24 is 0.5106 mm, from memory; with 6 A
  /// for a square millimetre (common practice, no source) that is 0.306 A and 1.23 A.
  @Test
  public void theWireIsTheThinnestThatCarriesIt() {
    assertEquals(Ends.gauge(0), 30);
    assertEquals(Ends.gauge(0.30), 30);
    assertEquals(Ends.gauge(0.31), 28);
    assertEquals(Ends.gauge(1.22), 24);
    assertEquals(Ends.gauge(1.24), 22);
    assertEquals(Ends.gauge(1000), 16);
  }
}
