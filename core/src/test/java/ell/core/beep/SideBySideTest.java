package ell.core.beep;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import ell.core.Boards;
import ell.core.board.Joint;
import ell.core.board.NetDifference;
import ell.core.board.Outline;
import ell.core.board.Revision;
import ell.core.circuit.Circuit;
import ell.core.circuit.Operating;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.power.LadderProposal;
import ell.core.quantity.Limits;
import ell.core.quantity.Verdict;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import org.testng.annotations.Test;

/// Nets that lie side by side, where a short sits, what is ticked off, and what differs between two
/// netlists: on boards whose answers are known beforehand.
public final class SideBySideTest {
  private static Joint hole(String part, int pin, String net, double x, double y) {
    return new Joint(
        part, "" + pin, net, x, y, Joint.Reach.BOTH, true, 1, true, 1.7, 1.7, 0, false, 0);
  }

  /// A row of eight at 2.54 mm: 0.84 mm from pad to pad, more than solder spans elsewhere, and yet
  /// each pin is beside the next.
  private static Revision row() {
    List<Joint> joints = new ArrayList<>();
    for (int i = 0; i < 8; i++) {
      joints.add(hole("J1", i + 1, i == 0 ? "GND" : i == 7 ? "5V" : "N" + i, 2.54 * i, 0));
      joints.add(hole("J2", i + 1, i == 0 ? "GND" : i == 7 ? "5V" : "N" + i, 2.54 * i, 30));
    }
    return new Revision("T", "1", List.of(), joints, Outline.UNKNOWN);
  }

  private static BeepList list(Revision r) {
    return BeepList.of(r, LadderProposal.of(r));
  }

  @Test
  public void pinsOfARowAreBesideEachOther() {
    BeepList list = list(row());
    Set<String> apart =
        list.checks().stream()
            .filter(c -> c.kind() == BeepCheck.Kind.ISOLATION)
            .map(c -> BeepList.pair(c.netA(), c.netB()))
            .collect(Collectors.toSet());
    for (int i = 1; i < 6; i++) {
      assertTrue(apart.contains(BeepList.pair("N" + i, "N" + (i + 1))), "N" + i);
    }
    assertTrue(apart.contains(BeepList.pair("GND", "N1")));
    assertTrue(apart.contains(BeepList.pair("5V", "N6")));
    assertTrue(apart.contains(BeepList.pair("5V", "GND")));
    assertEquals(apart.size(), 8, "seven neighbours and the rail: " + apart);
    assertEquals(list.coverage().bridges(), list.coverage().bridgesTotal());
    String why =
        list.checks().stream()
            .filter(c -> c.kind() == BeepCheck.Kind.ISOLATION && c.netB().equals("N4"))
            .findFirst()
            .orElseThrow()
            .why();
    assertTrue(why.contains("0.84 mm apart"), why);
  }

  @Test
  public void railsComeBeforeSignals() {
    List<BeepCheck> checks = list(row()).checks();
    int lastRail = -1;
    int firstSignal = Integer.MAX_VALUE;
    for (BeepCheck c : checks) {
      boolean rail =
          Set.of("5V", "GND").contains(c.netA()) || Set.of("5V", "GND").contains(c.netB());
      if (rail) {
        lastRail = c.number();
      } else {
        firstSignal = Math.min(firstSignal, c.number());
      }
    }
    assertTrue(lastRail < firstSignal, lastRail + " " + firstSignal);
    assertTrue(checks.getFirst().guards());
  }

  /// 2.5 mF at 1 mA until 40 Ω times 1 mA are reached: 0.1 s.
  @Test
  public void whatChargesIsSaidWithItsTime() {
    Boards b = new Boards();
    b.part("J1").shape("HEADER-2").at(0, 0).holes("12V", "GND");
    b.part("C1").value("2500u").at(10, 0).pads("12V", "GND");
    b.part("D1").value("clamp").at(20, 0).pads("12V", "GND");
    BeepCheck c = list(b.revision()).checks().getFirst();
    assertEquals(c.beepsFor(), 0.1, 1e-12);
    assertTrue(c.why().contains("will beep for 100 ms while 2.5 mF"), c.why());
    assertTrue(
        c.why().contains("D1 is between: in the diode range it leads one way only"), c.why());
  }

  @Test
  public void whatItCannotCatchIsSaid() {
    List<Joint> joints = new ArrayList<>(row().joints());
    joints.add(
        new Joint("U1", "1", "N1", 1, 9, Joint.Reach.NONE, false, 0, true, 1, 1, 0, false, 0));
    joints.add(hole("U1", 2, "LONELY", 4, 9));
    BeepList.Coverage v =
        list(new Revision("T", "1", List.of(), joints, Outline.UNKNOWN)).coverage();
    assertEquals(v.hidden(), 1);
    assertEquals(v.alone(), 1);
    assertEquals(v.opens(), v.opensTotal() - 1);
    assertTrue(v.words().toString().contains("1 joint no tip reaches"), v.words().toString());
  }

  /// The way of the tips over all signals is no longer than in the order of the file.
  @Test
  public void theTipsMoveLessThanInTheOrderOfTheFile() {
    Random random = new Random(5);
    double ours = 0;
    double file = 0;
    for (int round = 0; round < 20; round++) {
      List<Joint> joints = new ArrayList<>();
      for (int i = 0; i < 120; i++) {
        double x = 80 * random.nextDouble();
        double y = 60 * random.nextDouble();
        joints.add(hole("R" + i, 1, "N" + i, x, y));
        joints.add(hole("R" + i, 2, "N" + i, x + 3, y));
      }
      Collections.shuffle(joints, random);
      List<BeepCheck> checks =
          list(new Revision("T", "1", List.of(), joints, Outline.UNKNOWN)).checks().stream()
              .filter(c -> c.kind() == BeepCheck.Kind.CONTINUITY)
              .toList();
      for (int i = 1; i < checks.size(); i++) {
        ours += checks.get(i - 1).b().distanceMm(checks.get(i).a());
      }
      for (int i = 2; i < joints.size(); i += 2) {
        file += joints.get(i - 1).distanceMm(joints.get(i));
      }
    }
    assertTrue(ours < file / 3, ours + " mm against " + file);
  }

  /// Two long nets side by side at ten places; the short is at one of them, and readings along the
  /// first net rise by 0.5 mΩ a millimetre from there. It must come first wherever it is.
  @Test
  public void readingsPointToTheShort() {
    for (int at = 0; at < 10; at++) {
      List<Joint> joints = new ArrayList<>();
      for (int i = 0; i < 10; i++) {
        joints.add(hole("A" + i, 1, "3V3", 10 * i, 0));
        joints.add(hole("B" + i, 1, "GND", 10 * i, 2.2 + 0.03 * ((i * 7) % 10)));
      }
      Revision r = new Revision("T", "1", List.of(), joints, Outline.UNKNOWN);
      List<ShortPlaces.At> readings = new ArrayList<>();
      for (int i : new int[] {0, 3, 5, 9}) {
        Joint j = r.joint("A" + i, "1").orElseThrow();
        readings.add(new ShortPlaces.At(j, 0.02 + 0.5e-3 * Math.abs(10.0 * (i - at))));
      }
      ShortPlaces found =
          ShortPlaces.of(
              r,
              "3V3",
              "GND",
              Optional.empty(),
              new ShortPlaces.Readings(readings, Optional.empty()));
      assertEquals(found.places().getFirst().a().part(), "A" + at);
      assertTrue(found.places().getFirst().why().contains("the readings point here"));
      double sum = found.elsewhere();
      for (ShortPlaces.Place p : found.places()) {
        sum += p.probability();
      }
      assertEquals(sum, 1, 1e-9);
    }
  }

  /// A current is forced into a net that is a trunk with branches, and the volts at its joints are
  /// those of a network of resistors: the place comes first wherever the short is, and although
  /// half of the joints lie on branches in which nothing flows.
  @Test
  public void aForcedCurrentPointsToTheShort() {
    for (int at = 0; at < 8; at++) {
      Circuit c = new Circuit();
      List<Joint> joints = new ArrayList<>();
      c.supply("S", "feed", "GND", 0.5, 0.1, 0.01);
      c.resistor("lead", "feed", "t0", 0.002);
      for (int i = 0; i < 8; i++) {
        joints.add(hole("A" + i, 1, "3V3", 10 * i, 0));
        joints.add(hole("B" + i, 1, "GND", 10 * i, 2.2));
        joints.add(hole("C" + i, 1, "3V3", 10 * i, -8));
        c.resistor("branch" + i, "t" + i, "b" + i, 0.5e-3 * 8);
        if (i > 0) {
          c.resistor("trunk" + i, "t" + (i - 1), "t" + i, 0.5e-3 * 10);
        }
      }
      c.resistor("short", "t" + at, "GND", 0.03);
      Operating o = c.rest();
      Revision r = new Revision("T", "1", List.of(), joints, Outline.UNKNOWN);
      ShortPlaces.Feed feed = new ShortPlaces.Feed(r.joint("A0", "1").orElseThrow(), 0.1);
      List<ShortPlaces.At> readings = new ArrayList<>();
      for (int i : new int[] {1, 3, 5, 7}) {
        Joint j = r.joint("C" + i, "1").orElseThrow();
        // a meter that shows tens of microvolts
        double volts = Math.round(o.volts().get("b" + i) / 1e-5) * 1e-5;
        readings.add(new ShortPlaces.At(j, volts / feed.amps()));
      }
      for (int i : new int[] {0, 2, 4, 6}) {
        readings.add(
            new ShortPlaces.At(
                r.joint("A" + i, "1").orElseThrow(), o.volts().get("t" + i) / feed.amps()));
      }
      ShortPlaces found =
          ShortPlaces.of(
              r,
              "3V3",
              "GND",
              Optional.empty(),
              new ShortPlaces.Readings(readings, Optional.of(feed)));
      assertEquals(found.places().getFirst().a().part(), "A" + at, found.places().toString());
    }
  }

  @Test
  public void withoutReadingsTheNarrowestComesFirst() {
    List<Joint> joints = new ArrayList<>();
    for (int i = 0; i < 5; i++) {
      joints.add(hole("A" + i, 1, "3V3", 10 * i, 0));
      joints.add(hole("B" + i, 1, "GND", 10 * i, i == 3 ? 1.9 : 2.6));
    }
    Revision r = new Revision("T", "1", List.of(), joints, Outline.UNKNOWN);
    ShortPlaces found =
        ShortPlaces.of(r, "3V3", "GND", Optional.empty(), ShortPlaces.Readings.NONE);
    assertEquals(found.places().getFirst().a().part(), "A3");
    assertEquals(
        ShortPlaces.of(r, "3V3", "NONE", Optional.empty(), ShortPlaces.Readings.NONE).elsewhere(),
        1.0);
  }

  /// Milliohms at joints of one net are taken from the book, the last one of each joint.
  @Test
  public void readingsOfAShortComeFromTheBook() {
    List<Logged> book = new ArrayList<>();
    String[] places = {"J1.1", "J2.1", "J1.8", "J1.1", "J1.2"};
    double[] ohms = {0.02, 0.03, 0.05, 0.04, 0.01};
    for (int i = 0; i < places.length; i++) {
      book.add(
          new Logged(
              i + 1,
              OffsetDateTime.parse("2026-01-01T00:00:00Z"),
              "07",
              new Entry.Reading(
                  places[i],
                  ohms[i],
                  ell.core.quantity.Unit.OHM,
                  Optional.empty(),
                  Optional.empty(),
                  Optional.empty(),
                  "")));
    }
    List<ShortPlaces.At> at =
        ShortPlaces.logged(row(), ell.core.entry.BoardState.of("07", book), "GND", "5V").at();
    assertEquals(at.stream().map(x -> x.joint().place()).toList(), List.of("J2.1", "J1.1"));
    assertEquals(at.getLast().ohms(), 0.04, 1e-12);
  }

  private static Logged check(long n, String a, String b, double ohms, Verdict v) {
    return new Logged(
        n,
        OffsetDateTime.parse("2026-01-01T00:00:00Z"),
        "07",
        new Entry.Check("continuity", a, b, "N1", "N1", ohms, new Limits(0, 2), v));
  }

  @Test
  public void pinsAreTickedOffByWhatWasBeeped() {
    Map<String, Logged> made = new LinkedHashMap<>();
    made.put("a", check(1, "J1.2", "J2.2", 0.3, Verdict.WITHIN));
    made.put("b", check(2, "J1.3", "J2.3", Double.POSITIVE_INFINITY, Verdict.OUT));
    Transfer t = Transfer.of(row(), new BeepFacts(made));
    Transfer.PartPins j1 = t.part("J1").orElseThrow();
    assertEquals(j1.pins().get(1).state(), Transfer.State.TICKED);
    assertEquals(j1.pins().get(2).state(), Transfer.State.OPEN);
    assertEquals(j1.pins().get(3).state(), Transfer.State.PENDING);
    assertEquals(j1.pins().get(1).with(), List.of("J2.2"));
    assertEquals(j1.left(), 7);
    assertEquals(t.ticked(), 2);
    assertEquals(t.pins(), 16);
  }

  @Test
  public void whatIsJoinedDiffersWhateverItIsCalled() {
    List<Joint> here = row().joints();
    List<Joint> there = new ArrayList<>();
    for (Joint j : here) {
      String net = j.net().equals("N2") ? "CLK" : j.place().equals("J2.5") ? "GND" : j.net();
      there.add(hole(j.part(), Integer.parseInt(j.pin()), net, j.xMm(), j.yMm()));
    }
    there.removeIf(j -> j.place().equals("J2.8"));
    there.add(hole("J3", 1, "N3", 0, 60));
    NetDifference d = NetDifference.of(here, there);
    assertEquals(d.renamed(), Map.of("N2", "CLK"));
    assertEquals(d.moved(), List.of(new NetDifference.Moved("J2.5", "N4", "GND")));
    assertEquals(d.gone(), List.of("J2.8"));
    assertEquals(d.came(), List.of("J3.1"));
    assertFalse(d.same());
    assertTrue(NetDifference.of(here, here).same());
  }

  /// Names changed at random and joints in another order: nothing differs. One joint moved: that
  /// one, and no other.
  @Test
  public void theDifferenceIsWhatWasChanged() {
    Random random = new Random(11);
    for (int round = 0; round < 50; round++) {
      List<Joint> here = new ArrayList<>();
      int nets = 3 + random.nextInt(20);
      for (int n = 0; n < nets; n++) {
        for (int k = 0; k < 3 + random.nextInt(5); k++) {
          here.add(hole("U" + n, k, "N" + n, n, k));
        }
      }
      List<Joint> there = new ArrayList<>();
      Joint moved = here.get(random.nextInt(here.size()));
      for (Joint j : here) {
        String net =
            j == moved ? "N" + (Integer.parseInt(j.net().substring(1)) + 1) % nets : j.net();
        there.add(hole(j.part(), Integer.parseInt(j.pin()), "X" + net, j.xMm(), j.yMm()));
      }
      Collections.shuffle(there, random);
      NetDifference d = NetDifference.of(here, there);
      assertEquals(
          d.moved().stream().map(NetDifference.Moved::place).toList(), List.of(moved.place()));
      assertEquals(d.renamed().size(), nets);
      assertTrue(d.added().isEmpty() && d.removed().isEmpty());
    }
  }
}
