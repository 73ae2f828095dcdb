package ell.core.trace;

import static ell.core.trace.Tracing.chance;
import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import ell.core.entry.Entry;
import ell.core.power.Fault;
import ell.core.power.FaultWords;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.testng.annotations.Test;

/// Bayes against numbers worked on paper, and the laws that any such sum keeps.
public class BeliefTest {
  private static Suspect suspect(String words, double prior, String... places) {
    Fault f = FaultWords.parse(words);
    return Suspect.of(f, Suspect.Origin.BOARD, List.of(places), List.of("MID"), prior, List.of());
  }

  private static Traced trace(List<Suspect> suspects, Tracing book) {
    Tracer t = new Tracer(Tracing.board(), new Suspects.Listed(suspects, 0));
    return book.trace(t);
  }

  /// On paper: odds before are 0.02/0.98 = 0.020408, 0.01/0.99 = 0.010101, 1 for a healthy board
  /// and 0.003/0.997 = 0.003009 for what nobody thought of. `R2 missing` was seen: chance 0.972
  /// (0.97 and a slip of 0.002) where R2 is missing, 0.002 else, and 0.85·0.002 + 0.15/6 = 0.0267
  /// for what nobody thought of. Weights 0.0198370, 0.0000202, 0.002, 0.0000803: together
  /// 0.0219375; so 0.90425, 0.00092, 0.09117, 0.00366.
  @Test
  public void aLookOnPaper() {
    Traced t =
        trace(
            List.of(suspect("missing R2", 0.02, "R2"), suspect("missing R3", 0.01, "R3")),
            new Tracing().log(new ell.core.entry.Entry.Defect("R2", "missing", "")));
    double words = WordViews.PART_WORDS.size();
    double other = 0.85 * 0.002 + 0.15 / words;
    double[] w = {0.02 / 0.98 * 0.972, 0.01 / 0.99 * 0.002, 0.002, 0.003 / 0.997 * other};
    double sum = w[0] + w[1] + w[2] + w[3];
    assertEquals(chance(t, "missing R2"), w[0] / sum, 1e-4);
    assertEquals(chance(t, "missing R3"), w[1] / sum, 1e-6);
    assertEquals(chance(t, "healthy"), w[2] / sum, 1e-4);
    assertEquals(chance(t, "other"), w[3] / sum, 1e-4);
    assertEquals(chance(t, "missing R2"), 0.904, 0.003);
  }

  /// On paper: a look at a part is one at its joints. An open joint is seen with 0.7, a bridge with
  /// 0.6 at each of its ends; where both are of the part it is missed by 0.4 · 0.4 only. What is
  /// not there is said with 0.002 of each of five words, so nothing with 0.990.
  @Test
  public void aLookAtAPartIsOneAtItsJoints() {
    List<Suspect> some =
        List.of(
            suspect("open R3.2", 0.1, "R3.2"),
            suspect("bridge U2.1 U2.2 0.3ohm", 0.1, "U2.1", "U2.2"),
            suspect("bridge R2.1 R1.1 0.3ohm", 0.1, "R2.1", "R1.1"));
    double[] seen = {0.7, 1 - 0.4 * 0.4, 0.6};
    String[] parts = {"R3", "U2", "R1"};
    for (int i = 0; i < parts.length; i++) {
      String fault = some.get(i).words();
      Traced good =
          trace(some, new Tracing().log(new ell.core.entry.Entry.Seen(List.of(parts[i]))));
      double left = chance(good, fault) / chance(good, "healthy");
      assertEquals(left, 0.1 / 0.9 * (0.990 - seen[i]) / 0.990, 1e-4);
      String what = i == 0 ? "open" : "bridge";
      Traced bad =
          trace(some, new Tracing().log(new ell.core.entry.Entry.Defect(parts[i], what, "")));
      assertTrue(chance(bad, fault) > 0.85, fault + " " + bad.suspects());
    }
  }

  /// On paper: MID is 1.65 V on a healthy board, and reads 3.3 V without R3. A reading of 1.65 V
  /// has, where R3 is missing, only what slips: 0.008 over the range of the scale.
  @Test
  public void aReadingOnPaper() {
    Suspect r3 = suspect("missing R3", 0.3, "R3");
    Traced good = trace(List.of(r3), new Tracing().log(Tracing.volts("MID", 1.65)));
    double range = 1.3 * 5.5 + 1 + 1; // the most that a rail may have and a third, from -1 V
    double sd = 0.01 + 0.015 * 1.65 + (0.005 * 1.65 + 0.002) / 2;
    double peak = 0.996 / (sd * Math.sqrt(2 * Math.PI)) + 0.004 / range;
    double slip = 0.008 / range;
    double so = 0.3 / 0.7 * slip;
    double ratio = so / peak;
    assertEquals(chance(good, "missing R3"), ratio / (1 + ratio), 0.2 * ratio);
    assertTrue(chance(good, "healthy") > 0.99);
    Traced bad = trace(List.of(r3), new Tracing().log(Tracing.volts("MID", 3.3)));
    assertTrue(chance(bad, "missing R3") > 0.99, bad.suspects().toString());
  }

  @Test
  public void chancesAreChances() {
    Tracing book =
        new Tracing().log(Tracing.volts("3V3", 0.02), Tracing.ohms("3V3", "GND", 12_000));
    Traced t = book.trace();
    double sum = 0;
    for (Traced.Ranked r : t.suspects()) {
      assertTrue(r.chance() >= 0 && r.chance() < 1, r.toString());
      sum += r.chance();
    }
    assertEquals(sum, 1, 1e-9);
    assertTrue(chance(t, "healthy") > 0 && chance(t, "other") > 0);
    List<Double> chances = t.suspects().stream().map(Traced.Ranked::chance).toList();
    List<Double> sorted = new ArrayList<>(chances);
    sorted.sort((a, b) -> Double.compare(b, a));
    assertEquals(chances, sorted);
    assertEquals(
        t.groups().stream().mapToDouble(Traced.Group::chance).sum(), 1, 1e-9, "groups too");
  }

  /// Whether a meter sees what a regulator draws is not known: no reading accuses or clears it.
  @Test
  public void aGuessedLoadAccusesAndClearsNobody() {
    double before = chance(new Tracing().trace(), "dead U1");
    for (double ohms : new double[] {6_000, 40_000, Double.POSITIVE_INFINITY}) {
      double after = chance(new Tracing().log(Tracing.ohms("VIN", "GND", ohms)).trace(), "dead U1");
      assertTrue(
          after < 4 * before && after > before / 5, ohms + " ohm: " + before + " became " + after);
    }
  }

  @Test
  public void theOrderOfTheBookDoesNotMatter() {
    List<ell.core.entry.Entry> all =
        List.of(
            Tracing.volts("3V3", 3.29),
            Tracing.volts("MID", 3.28),
            Tracing.ohms("MID", "GND", 22_000),
            Tracing.symptom("D1", "lamp", "lit"),
            Tracing.amps("VIN", 0.022));
    Traced one = new Tracing().log(all.toArray(ell.core.entry.Entry[]::new)).trace();
    List<ell.core.entry.Entry> back = new ArrayList<>(all.reversed());
    Traced other = new Tracing().log(back.toArray(ell.core.entry.Entry[]::new)).trace();
    for (Traced.Ranked r : one.suspects()) {
      assertEquals(r.chance(), chance(other, r.fault()), 1e-12, r.fault());
    }
    assertEquals(one.entropy(), other.entropy(), 1e-9);
  }

  @Test
  public void whatIsStruckLeavesNoTrace() {
    Tracing with = new Tracing().log(Tracing.volts("MID", 3.28), Tracing.volts("3V3", 0.02));
    with.log(new ell.core.entry.Entry.Strike(2, "the tip was on another board"));
    Traced struck = with.trace();
    Traced never = new Tracing().log(Tracing.volts("MID", 3.28)).trace();
    assertEquals(struck.suspects(), never.suspects());
    assertEquals(struck.entropy(), never.entropy());
  }

  @Test
  public void aStrangeReadingIsNotExplained() {
    Traced t = new Tracing().log(Tracing.volts("3V3", 3.3), Tracing.volts("MID", -0.7)).trace();
    assertTrue(t.explained() < 0.02, "explained " + t.explained());
    assertTrue(
        t.told().stream().anyMatch(s -> s.startsWith("none of these explains MID -700")),
        t.told().toString());
    double before = chance(new Tracing().log(Tracing.volts("3V3", 3.3)).trace(), "other");
    assertTrue(chance(t, "other") > 20 * before, "it grows: " + chance(t, "other"));
  }

  @Test
  public void twoFaultsAtOnce() {
    // the divider reads its top, and the lamp is dark: no single fault does both
    Traced t =
        new Tracing()
            .log(
                Tracing.volts("3V3", 3.3),
                Tracing.volts("MID", 3.3),
                Tracing.volts("VIN", 5),
                Tracing.symptom("D1", "lamp", "dark"),
                Tracing.volts("A1", 3.3))
            .trace();
    double pairs =
        t.suspects().stream()
            .filter(r -> r.suspects().size() == 2)
            .mapToDouble(Traced.Ranked::chance)
            .sum();
    assertTrue(pairs > 0.6, "pairs " + pairs + " " + t.suspects().subList(0, 4));
    Traced.Ranked best =
        t.suspects().stream().filter(r -> r.suspects().size() == 2).findFirst().orElseThrow();
    assertTrue(best.fault().contains("R3") && best.fault().contains("D1"), best.fault());
    assertTrue(t.explained() > 0.02);
  }

  @Test
  public void whatWasMendedIsOfTheBoardAsItWas() {
    Tracing book = new Tracing().log(Tracing.volts("MID", 3.3), Tracing.volts("3V3", 3.3));
    assertTrue(chance(book.trace(), "missing R3") > 0.05);
    book.log(new ell.core.entry.Entry.Action("R3", "resoldered", true, ""));
    Traced worked = book.trace();
    assertTrue(chance(worked, "healthy") > 0.4, "it may be mended: " + worked.first());
    book.log(Tracing.volts("MID", 1.65));
    Traced good = book.trace();
    assertTrue(chance(good, "healthy") > 0.95, good.suspects().subList(0, 3).toString());
    Tracing still =
        new Tracing()
            .log(
                Tracing.volts("MID", 3.3),
                Tracing.volts("3V3", 3.3),
                new ell.core.entry.Entry.Action("R3", "resoldered", true, ""),
                Tracing.volts("MID", 3.3));
    assertTrue(chance(still.trace(), "healthy") < 0.02);
  }

  @Test
  public void whatComesAndGoes() {
    Tracing book = new Tracing().log(Tracing.volts("MID", 3.3), Tracing.comes(3, 10));
    Traced t = book.trace();
    double sometimes =
        t.suspects().stream()
            .filter(r -> r.fault().startsWith("sometimes"))
            .mapToDouble(Traced.Ranked::chance)
            .sum();
    assertTrue(sometimes > 0.55, "sometimes " + sometimes);
    assertTrue(t.told().toString().contains("good tries in a row"), t.told().toString());
    // the same place good and bad with nothing done between comes and goes too
    Tracing varies =
        new Tracing()
            .log(Tracing.volts("MID", 1.65), Tracing.volts("MID", 3.3), Tracing.volts("MID", 1.65));
    assertTrue(varies.clues().all().stream().anyMatch(Clue.Comes.class::isInstance), "it varies");
  }

  /// Pressing tells a joint from a part.
  @Test
  public void stressIsAClue() {
    Tracing book = new Tracing().log(Tracing.volts("MID", 3.3), Tracing.volts("3V3", 3.3));
    double before = chance(book.trace(), "open R3.2");
    double dead = chance(book.trace(), "missing R3");
    book.log(Tracing.symptom("R3", "pressed", "fine"));
    Traced t = book.trace();
    assertTrue(chance(t, "open R3.2") > 2 * before, "a joint");
    assertTrue(chance(t, "missing R3") < dead, "not a part that is not there");
  }

  @Test
  public void aReadingThatIsRepeatedIsSurer() {
    Tracing once = new Tracing().log(Tracing.ohms("3V3", "GND", 0.4));
    Tracing twice =
        new Tracing().log(Tracing.ohms("3V3", "GND", 0.4), Tracing.ohms("3V3", "GND", 0.42));
    assertTrue(chance(once.trace(), "healthy") > chance(twice.trace(), "healthy"));
    assertEquals(
        twice.clues().all().stream().filter(Clue.Seen.class::isInstance).count(), 1, "one clue");
  }

  @Test
  public void instrumentsStayInDoubtUntilAReadingSettlesIt() {
    Traced dark = new Tracing().log(Tracing.ohms("MID", "GND", 0.2)).trace();
    double jack = chance(dark, "setting meter current-jack");
    assertTrue(jack > 0.02, "jack " + jack);
    assertTrue(
        dark.finding().filter(f -> f.suspect().words().contains("setting")).isEmpty(),
        "one reading is not enough");
    Traced settled =
        new Tracing().log(Tracing.ohms("MID", "GND", 0.2), Tracing.volts("VIN", 4.99)).trace();
    assertTrue(chance(settled, "setting meter current-jack") < jack / 50);
  }

  @Test
  public void sistersTellOfTheDesign() {
    Tracer tracer = Tracing.tracer();
    Tracing own = new Tracing().log(Tracing.volts("MID", 3.3), Tracing.volts("3V3", 3.3));
    Clues bad = new Tracing().log(Tracing.volts("MID", 3.3), Tracing.volts("3V3", 3.3)).clues();
    Clues good = new Tracing().log(Tracing.volts("MID", 1.65), Tracing.volts("3V3", 3.3)).clues();
    double alone = tracer.trace(own.clues(), Map.of(), Map.of(), 1).designChance();
    // nothing in this design's list of mistakes does that to a resistor: a chip's pin is needed
    Tracing chip = new Tracing().log(Tracing.amps("VIN", 0.0005), Tracing.volts("3V3", 3.3));
    Clues same = new Tracing().log(Tracing.amps("VIN", 0.0005), Tracing.volts("3V3", 3.3)).clues();
    Clues fine = new Tracing().log(Tracing.amps("VIN", 0.022), Tracing.volts("3V3", 3.3)).clues();
    double one = tracer.trace(chip.clues(), Map.of(), Map.of(), 1).designChance();
    double all =
        tracer.trace(chip.clues(), Map.of("02", same, "03", same), Map.of(), 1).designChance();
    double none =
        tracer.trace(chip.clues(), Map.of("02", fine, "03", fine), Map.of(), 1).designChance();
    assertTrue(all > 0.95, "all of them show it: " + all);
    assertTrue(none < 0.1 * one, "no other shows it: " + none + " after " + one);
    assertTrue(alone >= 0 && bad.all().size() == 2 && good.all().size() == 2);
    Optional<Traced.SisterLook> look =
        tracer.trace(chip.clues(), Map.of("02", new Tracing().clues()), Map.of(), 1).sister();
    assertTrue(look.isPresent() && look.get().board().equals("02"));
    assertTrue(look.get().information() > 0.1, look.toString());
  }

  /// What other boards showed with their supply set otherwise costs seconds to weigh: it is left,
  /// and that is said.
  @Test
  public void whatOfSistersIsNotUsedIsSaid() {
    Tracer tracer = Tracing.tracer();
    Clues own = new Tracing().log(Tracing.volts("3V3", 1.2)).clues();
    Entry four = on(4);
    Clues otherwise =
        new Tracing().log(four, Tracing.volts("3V3", 3.3), Tracing.volts("MID", 1.65)).clues();
    Clues alike = new Tracing().log(on(5), Tracing.volts("3V3", 3.3)).clues();
    Traced t = tracer.trace(own, Map.of("02", otherwise), Map.of(), 1);
    assertTrue(
        t.told()
            .contains(
                "2 measured on 02 with the supplies set otherwise than on this board: not used for"
                    + " whether it is the design"),
        t.told().toString());
    assertTrue(
        tracer.trace(own, Map.of("02", alike), Map.of(), 1).told().stream()
            .noneMatch(w -> w.contains("design")));
    Clues here = new Tracing().log(four, Tracing.volts("3V3", 1.2)).clues();
    assertTrue(
        tracer.trace(here, Map.of("02", otherwise), Map.of(), 1).told().stream()
            .noneMatch(w -> w.contains("design")),
        "set as here");
    Map<String, Clues> many = new java.util.TreeMap<>();
    for (int i = 0; i < 14; i++) {
      many.put("b" + i, alike);
    }
    assertTrue(
        tracer
            .trace(own, many, Map.of(), 1)
            .told()
            .contains(
                "of 14 other boards that were measured 12 are asked whether it is the design"));
  }

  private static Entry on(double volts) {
    return new Entry.Supply(
        true, volts, 0.1, Optional.empty(), Optional.empty(), Optional.empty(), "");
  }
}
