package ell.core.trace;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertNotNull;
import static org.testng.Assert.assertTrue;

import ell.core.power.Fault;
import ell.core.power.FaultWords;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import org.testng.annotations.Test;

/// The faults that may be, and what makes their chances.
public class SuspectsTest {
  private static Suspect named(List<Suspect> all, String words) {
    return all.stream().filter(s -> s.words().equals(words)).findFirst().orElse(null);
  }

  private static List<Suspect> of(BenchKnowledge k) {
    return Suspects.of(Tracing.REVISION, Tracing.LADDER, k).suspects();
  }

  @Test
  public void everyKindThatABuildMakes() {
    List<Suspect> all = of(Tracing.none());
    Set<String> kinds = new TreeSet<>();
    Set<String> words = new HashSet<>();
    for (Suspect s : all) {
      kinds.add(s.words().split(" ")[0]);
      assertTrue(words.add(s.words()), "twice: " + s.words());
      assertEquals(FaultWords.words(FaultWords.parse(s.words())), s.words());
      assertTrue(s.prior() > 0 && s.prior() <= 0.5, s.toString());
      if (!(s.fault() instanceof Fault.Setting) && !(s.fault() instanceof Fault.Turned)) {
        assertEquals(
            FaultWords.unfit(s.fault(), Tracing.REVISION), java.util.Optional.empty(), s.words());
      }
    }
    assertTrue(
        kinds.containsAll(
            List.of(
                "open",
                "resistive",
                "bridge",
                "value",
                "turned",
                "dead",
                "short",
                "missing",
                "tied",
                "loose",
                "setting",
                "firmware")),
        kinds.toString());
    assertNotNull(named(all, "open R3.2"));
    assertNotNull(named(all, "value R2 1000"), "another value of the bill");
    assertNotNull(named(all, "bridge U1.1 U1.2 0.3ohm"), "pins that stand in a row");
    assertNotNull(named(all, "loose U2.1"));
    assertNotNull(named(all, "turned D1"));
  }

  /// The mean of a beta distribution: (guess·2000 + bad) / (2000 + of).
  @Test
  public void whatTheBenchHasCounted() {
    Tally t = new Tally().add("missing", 3, 1000);
    assertEquals(t.rate("missing", 2e-4), (0.4 + 3) / 3000, 1e-15);
    assertEquals(t.rate("turned", 4e-4), 4e-4, 1e-15, "nothing was counted");
    t.add("missing", 0, 9000);
    assertEquals(t.rate("missing", 2e-4), (0.4 + 3) / 12_000, 1e-15);
    BenchKnowledge k = with(new Tally().add("missing", 3, 1000), Map.of(), Map.of(), Map.of());
    Suspect s = named(of(k), "missing R3");
    assertEquals(s.prior(), 3.4 / 3000, 1e-12);
    assertTrue(s.factors().get(1).why().contains("3 of 1000"), s.factors().toString());
  }

  private static BenchKnowledge with(
      Tally tally,
      Map<String, Integer> reworked,
      Map<String, String> sisters,
      Map<String, Double> said) {
    return new BenchKnowledge(
        BenchKnowledge::usual,
        tally,
        Map.of(),
        Set.of("U1.2"),
        "",
        reworked,
        Set.of("R2"),
        Set.of("C2"),
        sisters,
        said,
        Map.of(),
        Map.of(),
        Map.of());
  }

  @Test
  public void whatThisBoardAndItsSistersAdd() {
    List<Suspect> plain = of(Tracing.none());
    List<Suspect> all =
        of(
            with(
                new Tally(),
                Map.of("R3", 1),
                Map.of("loose U2.1", "02", "open R1.1", "03"),
                Map.of("dead U2", 0.25)));
    assertEquals(
        named(all, "open R3.1").prior(), 3 * named(plain, "open R3.1").prior(), 1e-12, "reworked");
    assertEquals(
        named(all, "loose U2.1").prior(),
        Math.min(0.9, 400 * named(plain, "loose U2.1").prior()),
        1e-9,
        "a mistake of the design that a sister has");
    assertEquals(named(all, "open R1.1").prior(), 5 * named(plain, "open R1.1").prior(), 1e-12);
    assertEquals(named(all, "dead U2").prior(), 0.25, "as the maker said it");
    assertEquals(
        named(all, "value R2 1000").prior(),
        20 * named(plain, "value R2 1000").prior(),
        1e-12,
        "a substitute");
    assertEquals(
        named(all, "bridge U1.1 U1.2 0.3ohm").prior(),
        25 * named(plain, "bridge U1.1 U1.2 0.3ohm").prior(),
        1e-12,
        "the paste was joined");
    assertFalse(
        all.stream().anyMatch(s -> s.words().matches("(open|missing|short|dead) C2.*")),
        "not fitted yet");
    double times = 1;
    for (Suspect.Factor f : named(all, "open R3.1").factors()) {
      times *= f.times();
    }
    assertEquals(named(all, "open R3.1").prior(), times, 1e-15, "the sheet is the sum");
    assertEquals(TraceSheets.prior(named(all, "open R3.1")).number("prior"), times, 1e-15);
  }

  @Test
  public void tooManyAreSaid() {
    Suspects.Listed few = Suspects.of(Tracing.REVISION, Tracing.LADDER, Tracing.none(), 50);
    assertEquals(few.suspects().size(), 50);
    assertEquals(few.left(), of(Tracing.none()).size() - 50);
    Tracer t = new Tracer(Tracing.board(), few);
    assertTrue(new Tracing().trace(t).told().toString().contains("are not weighed one by one"));
  }

  @Test
  public void priorsMayChangeAndTheRestStays() {
    Tracer t = Tracing.tracer();
    assertTrue(t.again(Suspects.of(Tracing.REVISION, Tracing.LADDER, Tracing.none())));
    Suspects.Listed said =
        Suspects.of(
            Tracing.REVISION,
            Tracing.LADDER,
            new BenchKnowledge(
                BenchKnowledge::usual,
                new Tally(),
                Map.of(),
                Set.of(),
                "",
                Map.of(),
                Set.of(),
                Set.of(),
                Map.of(),
                Map.of("dead U2", 0.4),
                Map.of(),
                Map.of(),
                Map.of()));
    assertTrue(t.again(said));
    assertTrue(Tracing.chance(new Tracing().trace(t), "dead U2") > 0.3);
    assertFalse(
        t.again(Suspects.of(Tracing.REVISION, Tracing.LADDER, Tracing.none(), 20)), "other faults");
  }

  @Test
  public void sheetsStandAlone() {
    var bayes =
        TraceSheets.all().stream()
            .filter(s -> s.name().equals("trace.bayes"))
            .findFirst()
            .orElseThrow()
            .work(Map.of("prior", "0.01", "ifSo", "0.9", "ifNot", "0.05"));
    // odds 1/99 times 18 are 2/11, so that the chance is 2/13
    assertEquals(bayes.number("posterior"), 2.0 / 13, 1e-12);
    var rework =
        TraceSheets.all().stream()
            .filter(s -> s.name().equals("trace.rework"))
            .findFirst()
            .orElseThrow()
            .work(Map.of("chance", "0.1", "works", "0.8", "takes", "20min", "saves", "100min"));
    assertEquals(rework.number("least"), 0.25, 1e-12);
    assertEquals(rework.number("expected"), -12 * 60, 1e-9);
  }
}
