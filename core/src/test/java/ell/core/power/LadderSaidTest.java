package ell.core.power;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import ell.core.beep.BeepCheck;
import ell.core.beep.BeepList;
import ell.core.board.Joint;
import ell.core.board.Outline;
import ell.core.board.Part;
import ell.core.board.Revision;
import ell.core.power.Ladder.RailSpec;
import ell.core.power.PowerPlan.Finding;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Rails that no name tells, guesses that ask, and answers that put them right. What looks like a
/// rail is common practice, no source.
public class LadderSaidTest {
  private final List<Part> parts = new ArrayList<>();
  private final List<Joint> joints = new ArrayList<>();

  private LadderSaidTest with(String ref, String value, String... nets) {
    parts.add(
        new Part(
            ref, value, "0805", value, "", true, false, List.of(), "", Optional.empty(), 0, 0));
    for (int i = 0; i < nets.length; i++) {
      joints.add(
          new Joint(
              ref,
              String.valueOf(i + 1),
              nets[i],
              5.0 * parts.size() + i,
              5,
              Joint.Reach.FIRST,
              false,
              0,
              true,
              1,
              1,
              0,
              false,
              0));
    }
    return this;
  }

  private Revision made() {
    return new Revision("T", "1", parts, joints, Outline.UNKNOWN);
  }

  /// A jack, a fuse, a regulator and a chip on nets that are only numbered; a negative rail; a
  /// divider on a net that is named like a rail.
  private static Revision numbered() {
    return new LadderSaidTest()
        .with("J1", "DC JACK", "N01", "GND")
        .with("F1", "1A", "N01", "N02")
        .with("C1", "10u", "N02", "GND")
        .with("U1", "LDO regulator 3.3V", "N02", "N03", "GND", "N02")
        .with("C2", "10u", "N03", "GND")
        .with("C3", "100n", "N03", "GND")
        .with("U2", "MCU48", "N03", "GND", "N05", "N06")
        .with("C4", "100n", "N03", "GND")
        .with("R1", "10k", "N05", "N06")
        .with("C5", "1u", "-12V", "GND")
        .with("U3", "OPAMP", "N03", "-12V", "N06")
        .with("R2", "100k", "VOUT", "GND")
        .with("R3", "100k", "VOUT", "N05")
        .made();
  }

  private static Set<String> nets(Ladder l) {
    return l.rails().stream().map(RailSpec::net).collect(Collectors.toSet());
  }

  private static Ladder said(Revision r, String... lines) {
    return LadderProposal.of(r, LadderSaid.read(List.of(lines), r));
  }

  @Test
  public void railsAreToldByWhatTheyJoin() {
    Ladder l = LadderProposal.of(numbered());
    assertEquals(nets(l), Set.of("N01", "N02", "N03", "-12V", "VOUT"));
    assertEquals(l.rail("N03").orElseThrow().volts(), 3.3, 1e-9, "as the regulator says");
    assertFalse(l.rail("N03").orElseThrow().guessed());
    assertTrue(l.rail("N01").orElseThrow().guessed(), "nothing says what comes in");
    RailSpec minus = l.rail("-12V").orElseThrow();
    assertEquals(minus.volts(), -12, 1e-9);
    assertTrue(minus.low() < -12 && minus.high() > -12 && minus.high() < 0, minus.toString());
    String all = String.join("\n", l.assumptions());
    assertTrue(all.contains("N01 is taken as a rail: J1 brings it in"), all);
    assertTrue(all.contains("N02 is taken as a rail: it is fed through F1"), all);
    assertTrue(all.contains("N03 is taken as a rail: U1 is a regulator"), all);
  }

  /// No rail of the ladder is powered without its ground check, named or not, reached or not.
  @Test
  public void everyRailOfTheLadderWaitsForItsGroundCheck() {
    Revision r = numbered();
    for (Ladder l :
        List.of(
            LadderProposal.of(r),
            said(r, "rail N05=1.8", "not-a-rail VOUT"),
            PowerJson.read(PowerJson.write(said(r, "rail N06=1V"))))) {
      Set<String> guarded =
          BeepList.of(r, l).guarding().stream().map(BeepCheck::netB).collect(Collectors.toSet());
      assertTrue(guarded.containsAll(nets(l)), guarded + " of " + nets(l));
      assertEquals(guarded.contains("VOUT"), !l.notRails().contains("VOUT"));
    }
  }

  @Test
  public void answersTakeTheirAssumptionsAway() {
    Revision r = numbered();
    Ladder before = LadderProposal.of(r);
    assertTrue(before.assumptions().stream().anyMatch(a -> a.startsWith("N01 is taken as")));
    Ladder after =
        said(
            r,
            "rail N01=9..15",
            "load U2=80mA,worst=0.2A",
            "regulator U1=3.3V,600mA,dropout=0.25",
            "not-a-rail VOUT");
    RailSpec in = after.rail("N01").orElseThrow();
    assertEquals(in.volts(), 12, 1e-9);
    assertEquals(in.low(), 9, 1e-9);
    assertEquals(in.high(), 15, 1e-9);
    assertFalse(in.guessed());
    assertEquals(after.sources().getFirst().rail(), "N01");
    assertEquals(after.sources().getFirst().low(), 9, 1e-9);
    assertFalse(nets(after).contains("VOUT"));
    Ladder.Load u2 =
        after.loads().stream().filter(x -> x.part().equals("U2")).findFirst().orElseThrow();
    assertEquals(u2.in("idle"), 0.08, 1e-12);
    assertEquals(u2.in("worst"), 0.2, 1e-12);
    assertFalse(u2.guessed());
    Ladder.Step u1 = after.feeding("N03").orElseThrow();
    assertEquals(u1.limit(), 0.6, 1e-12);
    assertEquals(u1.dropout(), 0.25, 1e-12);
    assertTrue(
        after.assumptions().stream().noneMatch(a -> a.matches("(N01|U2|U1|VOUT) is taken.*")),
        after.assumptions().toString());
    // by hand: 80 mA, and 1 mA guessed for U3, through the linear regulator with 60 uA of its own
    assertEquals(LadderState.of(after, "boot").limit().expected(), 0.08106, 1e-5);
  }

  /// Two nets that a fuse joins have one expectation, whichever of them was said.
  @Test
  public void aFusePassesLimitsOn() {
    RailSpec behind = said(numbered(), "rail N01=9..15").rail("N02").orElseThrow();
    assertEquals(behind.low(), 9, 1e-9);
    assertEquals(behind.high(), 15, 1e-9);
    assertFalse(behind.guessed());
    RailSpec own = said(numbered(), "rail N01=9..15", "rail N02=8..14").rail("N02").orElseThrow();
    assertEquals(own.low(), 8, 1e-9);
    // a diode takes its drop
    Revision r =
        new LadderSaidTest()
            .with("J1", "USB", "VBUS", "GND")
            .with("D1", "SKY", "5V", "VBUS")
            .with("C1", "10u", "5V", "GND")
            .with("U1", "MCU", "5V", "GND")
            .made();
    RailSpec five = LadderProposal.of(r).rail("5V").orElseThrow();
    assertTrue(five.low() <= 4.1 && five.high() >= 5.1, five.toString());
  }

  @Test
  public void aLaterAnswerReplacesAnEarlierOne() {
    Revision r = numbered();
    Ladder l = said(r, "rail N01=9V", "rail N01=5V", "not-a-rail VOUT", "rail VOUT=2.5V+-2%");
    assertEquals(l.rail("N01").orElseThrow().volts(), 5, 1e-9);
    assertEquals(l.rail("VOUT").orElseThrow().low(), 2.45, 1e-9);
    assertTrue(l.notRails().isEmpty());
    Ladder source = said(r, "source J1.1=12V");
    assertEquals(source.sources().getFirst().volts(), 12, 1e-9);
    assertTrue(PowerPlan.unsaid(source).isEmpty());
  }

  @DataProvider
  Object[][] wrongs() {
    return new Object[][] {
      {"rail N99=3", "no net and no joint 'N99'"},
      {"rail N01", "nothing is said"},
      {"rail N01=five", "expected a number"},
      {"rail N01=9..3", "must rise"},
      {"rail N01=5000", "beyond what a bench has"},
      {"rail N01=5A", "V"},
      {"load U9=1mA", "no part 'U9'"},
      {"load U2=-1mA", "below 0"},
      {"load U2=1mA,sleep=2mA", "no state"},
      {"load R1=1mA", "from which rail"},
      {"regulator U2=3.3V", "between which rails"},
      {"regulator U1=3.3V,efficiency=120%", "efficiency"},
      {"regulator U1=3.3V,colour=red", "not known"},
      {"not-a-rail N99", "no net"},
      {"colour red", "expected such as"},
    };
  }

  @Test(dataProvider = "wrongs")
  public void whatCannotBeIsRefusedWithAnExample(String line, String words) {
    IllegalArgumentException e =
        expectThrows(IllegalArgumentException.class, () -> said(numbered(), line));
    assertTrue(e.getMessage().contains(words), e.getMessage());
  }

  /// A supply is never driven by a guess, and bands that rest on guessed loads ask.
  @Test
  public void guessesAskAndDecideNothing() {
    Revision r = numbered();
    String unsaid = PowerPlan.unsaid(LadderProposal.of(r)).orElseThrow();
    assertTrue(unsaid.contains("N01") && unsaid.contains("--rail N01="), unsaid);
    Ladder guessed = said(r, "rail N01=12V");
    PowerPlan p = PowerPlan.of(r, guessed, "boot").orElseThrow();
    assertEquals(
        p.guessed().stream().map(Ladder.Load::part).collect(Collectors.toSet()),
        Set.of("U2", "U3"));
    for (Finding f : Finding.values()) {
      boolean rests = f != Finding.AS_PREDICTED && f != Finding.RISING;
      assertEquals(p.asks(f), rests);
      if (rests) {
        String asks = p.says(f, p.steps().getLast(), 0.05);
        assertTrue(asks.contains("?") && asks.contains("--load U2="), asks);
      }
    }
    PowerPlan sure =
        PowerPlan.of(r, said(r, "rail N01=12V", "load U2=8mA", "load U3=1mA"), "boot")
            .orElseThrow();
    assertFalse(sure.asks(Finding.TOO_MUCH));
    assertEquals(
        sure.says(Finding.TOO_MUCH, sure.steps().getLast(), 0.05),
        PowerPlan.meaning(Finding.TOO_MUCH, sure.steps().getLast()));
  }

  /// A ladder that was kept whole takes answers too, and says what it is not told to be.
  @Test
  public void aKeptLadderTakesAnswers() {
    Revision r = numbered();
    Ladder kept = PowerJson.read(PowerJson.write(said(r, "rail N01=12V")));
    Ladder l = LadderSaid.read(List.of("rail N05=1.8V", "not-a-rail VOUT"), r).on(kept, r);
    assertEquals(l.rail("N05").orElseThrow().volts(), 1.8, 1e-9);
    assertEquals(l.notRails(), List.of("VOUT"));
    assertEquals(PowerJson.read(PowerJson.write(l)), l, "written and read again");
  }

  @DataProvider
  Object[][] ratings() {
    return new Object[][] {
      {"LDO regulator 3.3V 600 mA", 0.6},
      {"LDO regulator 3.3V 1A", 1.0},
      {"LDO regulator 3.3V 1.5 A", 1.5},
      {"LDO regulator 3.3V 0,3A", 0.3},
      {"LDO regulator 3.3V", 0.5},
      {"LDO regulator 3.3V 5 uA quiescent", 0.5},
      {"LDO regulator 3.3V 100mAh", 0.5},
      {"LDO regulator 3.3V 600mA or 1A", 0.5},
    };
  }

  /// A current in the words of a regulator is its limit; without one, or with two, the typical one.
  @Test(dataProvider = "ratings")
  public void ratingsStandInTheWordsOfTheBill(String words, double limit) {
    Revision r =
        new LadderSaidTest()
            .with("J1", "USB", "VBUS", "GND")
            .with("F1", "750mA", "VBUS", "5V")
            .with("U1", words, "5V", "3V3", "GND")
            .with("C1", "10u", "3V3", "GND")
            .made();
    Ladder l = LadderProposal.of(r);
    assertEquals(l.feeding("3V3").orElseThrow().limit(), limit, 1e-12);
    assertEquals(l.feeding("5V").orElseThrow().limit(), 0.75, 1e-12);
  }

  @DataProvider
  Object[][] cells() {
    return new Object[][] {
      {"CR2032 holder", "VBAT", 2.0, 3.0, 3.3, false},
      {"LiPo 500 mAh", "BAT+", 3.0, 3.7, 4.2, false},
      {"connector", "BAT+", 3.0, 3.7, 4.2, true},
      {"2x AA", "BATT+", 2.0, 3.0, 3.2, false},
    };
  }

  /// What the words of a cell say of its range; common practice, no source.
  @Test(dataProvider = "cells")
  public void cellsHaveTheirRange(
      String words, String net, double low, double volts, double high, boolean guessed) {
    Revision r =
        new LadderSaidTest().with("BT1", words, net, "GND").with("C1", "1u", net, "GND").made();
    RailSpec s = LadderProposal.of(r).rail(net).orElseThrow();
    assertEquals(new double[] {s.low(), s.volts(), s.high()}, new double[] {low, volts, high});
    assertEquals(s.guessed(), guessed);
  }
}
