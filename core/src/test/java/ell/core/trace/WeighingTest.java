package ell.core.trace;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Information against closed forms, and the measurements that are proposed.
public class WeighingTest {
  private static double h(double p) {
    return -p * Math.log(p) / Math.log(2) - (1 - p) * Math.log(1 - p) / Math.log(2);
  }

  @DataProvider
  Object[][] errors() {
    return new Object[][] {{0.01}, {0.05}, {0.1}, {0.25}, {0.5}};
  }

  /// The binary symmetric channel gives 1 − H(e). Source: Shannon 1948; Cover and Thomas, Elements
  /// of Information Theory, 7.1.4.
  @Test(dataProvider = "errors")
  public void theSymmetricChannel(double e) {
    Words w = new Words(List.of("a", "b"), new double[] {1 - e, e}, Map.of(1, row(e, 1 - e)));
    assertEquals(Weighing.information(w, new double[] {0.5, 0.5}), 1 - h(e), 1e-9);
  }

  private static double[] row(double... p) {
    return p;
  }

  /// Told apart for certain, the information is all that is not known: that of the priors.
  @Test
  public void allOfIt() {
    Words w =
        new Words(List.of("a", "b", "c"), row(1, 0, 0), Map.of(1, row(0, 1, 0), 2, row(0, 0, 1)));
    double[] p = {0.7, 0.2, 0.1};
    double all = Belief.bits(0.7) + Belief.bits(0.2) + Belief.bits(0.1);
    assertEquals(Weighing.information(w, p), all, 0.05, "but for a slip of one in a thousand");
    assertTrue(Weighing.information(w, p) < all);
  }

  /// The erasure channel, its third word said with chance e whatever is so: (1 − e)·H. Source:
  /// Cover and Thomas, 7.1.5.
  @Test(dataProvider = "errors")
  public void theErasureChannel(double e) {
    Words w = new Words(List.of("a", "b", "?"), row(1 - e, 0, e), Map.of(1, row(0, 1 - e, e)));
    double i = Weighing.information(w, new double[] {0.5, 0.5});
    assertEquals(i, 1 - e, 0.02, "but for a slip of one in a thousand");
  }

  /// Two means, two sd apart, told apart in the middle: each is mistaken with Q(1) = 0.158655, so
  /// that 1 − H(Q(1)) = 0.368917 bit are left. Source: table of the normal distribution.
  @Test
  public void twoMeans() {
    Numbers n =
        new Numbers(
            -10,
            10,
            x -> x,
            x -> x,
            String::valueOf,
            new Spread(-1, 1, 1e-9),
            Map.of(1, new Spread(1, 1, 1e-9)));
    assertEquals(Weighing.information(n, new double[] {0.5, 0.5}), 1 - h(0.158655254), 1e-5);
    assertEquals(n.outcomes().size(), 2);
    assertEquals(n.outcomes().getFirst().high(), 0, 1e-12);
  }

  @Test
  public void whatCannotTellIsWorthNothing() {
    Words w = new Words(List.of("a", "b"), row(0.3, 0.7), Map.of(1, row(0.3, 0.7)));
    assertEquals(Weighing.information(w, row(0.5, 0.5)), 0, 1e-12);
  }

  @Test
  public void theSplitIsProposedFirst() {
    Traced t = new Tracing().log(Tracing.volts("3V3", 0.02)).trace();
    List<Choice> all = t.next();
    assertTrue(all.size() > 30, all.size() + " were weighed");
    for (Choice c : all) {
      assertTrue(c.information() > 0 && c.minutes() > 0, c.toString());
      double sum = c.outcomes().stream().mapToDouble(Choice.Result::chance).sum();
      assertEquals(sum, 1, 0.03, c.probe().line());
      assertTrue(c.probe().line().contains("?"), c.probe().line());
      assertEquals(c.power(), c.probe().kind().power());
      assertEquals(c.supply().isPresent(), c.power(), c.probe().line());
    }
    double best = all.stream().mapToDouble(Choice::worth).max().orElse(0);
    assertTrue(all.getFirst().worth() > 0.55 * best, "or what follows is better");
    List<Double> rest = all.stream().skip(1).map(Choice::worth).toList();
    for (int i = 1; i < rest.size(); i++) {
      assertTrue(rest.get(i) <= rest.get(i - 1) + 1e-9, "in order of their worth");
    }
  }

  /// What has to be done before power is part of what a measurement with power takes, to the
  /// minute; what needs none costs and tells the same as before.
  @Test
  public void whatPowerWaitsForCounts() {
    Tracing book = new Tracing().log(Tracing.ohms("MID", "GND", 12_000));
    double waits = 7.5;
    Traced free = book.trace();
    Traced barred =
        Tracing.tracer().trace(book.clues(), java.util.Map.of(), java.util.Map.of(), waits, 400);
    int with = 0;
    for (Choice c : barred.next()) {
      Choice same =
          free.next().stream().filter(x -> x.probe().equals(c.probe())).findFirst().orElseThrow();
      assertEquals(c.information(), same.information(), 1e-12, c.probe().line());
      assertEquals(c.minutes() - same.minutes(), c.power() ? waits : 0, 1e-9, c.probe().line());
      assertEquals(c.why().contains("what power waits for comes first"), c.power(), c.why());
      with += c.power() ? 1 : 0;
    }
    assertTrue(with > 5 && with < barred.next().size(), with + " of " + barred.next().size());
    assertFalse(barred.next().getFirst().power(), "what needs no power comes first");
  }

  @Test
  public void whatWasMeasuredIsNotProposedAgain() {
    Tracing book = new Tracing().log(Tracing.ohms("3V3", "GND", 12_000));
    assertFalse(
        book.trace().next().stream().anyMatch(c -> c.probe().equals(Probe.ohms("3V3", "GND"))));
    book.log(new ell.core.entry.Entry.Action("C2", "replaced", true, ""));
    book.log(Tracing.volts("3V3", 0.02));
    assertTrue(
        book.trace().next().stream().anyMatch(c -> c.probe().equals(Probe.ohms("3V3", "GND"))),
        "something was done since");
  }

  @Test
  public void powerOnWhatMayBeShortedCostsMore() {
    Traced shorted = new Tracing().log(Tracing.ohms("3V3", "GND", 0.4)).trace();
    Traced open = new Tracing().log(Tracing.symptom("D1", "lamp", "dark")).trace();
    assertTrue(minutes(shorted) > minutes(open) + 1, minutes(shorted) + " " + minutes(open));
    assertTrue(
        shorted.next().stream()
            .filter(Choice::power)
            .anyMatch(c -> c.why().contains("that it meets a short")));
    assertFalse(shorted.next().getFirst().power(), "first what needs no power");
  }

  private static double minutes(Traced t) {
    return t.next().stream()
        .filter(c -> c.probe().kind() == Probe.Kind.VOLTS)
        .mapToDouble(Choice::minutes)
        .min()
        .orElse(0);
  }

  @Test
  public void aFaultIsFoundAndSaysWhatToDo() {
    Tracing book =
        new Tracing()
            .log(
                Tracing.volts("3V3", 3.3),
                Tracing.volts("MID", 3.3),
                Tracing.ohms("R3.2", "D1.1", Double.POSITIVE_INFINITY));
    Finding f = book.trace().finding().orElseThrow();
    assertEquals(f.suspect().words(), "open R3.2");
    assertTrue(f.chance() > Tracer.SURE);
    assertTrue(f.evidence().contains(2L) && f.evidence().contains(3L), f.toString());
    assertTrue(f.todo().getFirst().startsWith("R3.2: "), f.todo().toString());
    assertTrue(f.todo().toString().contains("3 left"), f.todo().toString());
    assertTrue(f.again().contains("R3.2 look ?"), f.again().toString());
    assertEquals(f.suspect().origin(), Suspect.Origin.BOARD);
  }

  /// Which part on a rail is shorted no meter shows: parts are changed, those with few joints are
  /// faster; the board that works with another part in its place needs no more.
  @Test
  public void whatIsMendedByAnotherPartIsFound() {
    List<Suspect> shorts =
        List.of("C2", "U1", "U2").stream()
            .map(p ->
                Suspect.of(
                    new ell.core.power.Fault.Short(p),
                    Suspect.Origin.BOARD,
                    List.of(p),
                    List.of("3V3", "GND"),
                    0.01,
                    List.of()))
            .toList();
    Tracer t = new Tracer(Tracing.board(), new Suspects.Listed(shorts, 0));
    Tracing book = new Tracing().log(Tracing.ohms("3V3", "GND", 0.2));
    Traced before = book.trace(t);
    assertTrue(before.finding().isEmpty(), "one of three");
    assertTrue(minutesOf(before, "C2") < minutesOf(before, "U2"), "two joints, and three");
    Traced same = book.log(Tracing.symptom("U1", "swapped", "same")).trace(t);
    assertTrue(same.finding().isEmpty(), "one of two");
    Traced fine = book.log(Tracing.symptom("C2", "swapped", "fine")).trace(t);
    assertTrue(Tracing.chance(fine, "short U2") > 0.01, "it may have been mended by the heat");
    assertEquals(fine.finding().orElseThrow().suspect().words(), "short C2");
    assertTrue(fine.finding().orElseThrow().evidence().contains(3L));
  }

  private static double minutesOf(Traced t, String part) {
    return t.next().stream()
        .filter(c -> c.probe().equals(new Probe(Probe.Kind.SWAP, part, "", Optional.empty())))
        .mapToDouble(Choice::minutes)
        .findFirst()
        .orElseThrow();
  }

  /// A shorted rail and a lead in the wrong jack look the same; the instrument is accused once a
  /// reading elsewhere tells, and not before.
  @Test
  public void anInstrumentIsNotAccusedWhileACheckIsLeft() {
    Tracing book = new Tracing().log(Tracing.ohms("3V3", "GND", 0.25));
    Traced one = book.trace();
    assertTrue(Tracing.chance(one, "setting meter current-jack") > 0.5);
    assertTrue(one.finding().isEmpty(), one.finding().toString());
    Traced more = book.log(Tracing.ohms("R1.1", "R1.2", 0.25)).trace();
    assertEquals(more.finding().orElseThrow().suspect().words(), "setting meter current-jack");
    Traced other =
        new Tracing()
            .log(Tracing.ohms("3V3", "GND", 0.25), Tracing.ohms("R1.1", "R1.2", 1000))
            .trace();
    assertTrue(Tracing.chance(other, "setting meter current-jack") < 0.01);
  }

  /// Where a part was said to have a bridge, its joints are looked at next; where it looks good,
  /// neither.
  @Test
  public void aPartThatLooksGoodIsNotLookedAtByJoints() {
    Tracing good =
        new Tracing()
            .log(Tracing.ohms("3V3", "GND", 0.2), new ell.core.entry.Entry.Seen(List.of("U2")));
    assertTrue(looks(good.trace()).stream().noneMatch(p -> p.startsWith("U2")), "seen already");
    Tracing bad =
        new Tracing()
            .log(
                Tracing.ohms("3V3", "GND", 0.2),
                new ell.core.entry.Entry.Defect("U2", "bridge", ""));
    assertTrue(looks(bad.trace()).contains("U2.1"), "which of its joints?");
    assertTrue(looks(bad.trace()).contains("C2"), "others may still be looked at");
  }

  private static List<String> looks(Traced t) {
    return t.next().stream()
        .map(Choice::probe)
        .filter(p -> p.kind() == Probe.Kind.LOOK)
        .map(Probe::a)
        .toList();
  }

  @Test
  public void aSupplyThatIsUnknownIsSaid() {
    Tracer t =
        new Tracer(
            new Board(
                Tracing.REVISION,
                new ell.core.power.Ladder(
                    List.of(), List.of(), List.of(), List.of(), "GND", List.of(), List.of(),
                    Map.of()),
                Tracing.board().pulse(),
                Tracing.board().talk(),
                List.of(),
                Map.of()),
            Suspects.of(Tracing.REVISION, Tracing.LADDER, Tracing.none()));
    Traced x =
        t.trace(
            new Clues(List.of(), List.of(), new Knobs(List.of(), List.of())),
            Map.of(),
            Map.of(),
            100);
    assertTrue(x.told().toString().contains("where power comes in"), x.told().toString());
    assertTrue(x.next().stream().noneMatch(Choice::power));
    assertEquals(Optional.empty(), x.finding());
  }
}
