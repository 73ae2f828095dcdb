package ell.core.trace;

import ell.core.Boards;
import ell.core.board.Revision;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.power.Ladder;
import ell.core.power.LadderProposal;
import ell.core.power.LadderSaid;
import ell.core.pulse.PulsePlan;
import ell.core.quantity.Limits;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import ell.core.talk.TalkPlan;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// A small board with a regulator, a divider, lamps and a chip, its book, and tracers over it.
public final class Tracing {
  public static final Revision REVISION = revision();
  public static final Ladder LADDER =
      LadderProposal.of(
          REVISION,
          LadderSaid.read(
              List.of(
                  "source VIN=5V",
                  "regulator U1=3.3V,300mA,dropout=0.3,in=VIN,out=3V3",
                  "load U2=20mA"),
              REVISION));

  private final List<Logged> log = new ArrayList<>();

  private static Revision revision() {
    Boards b = new Boards();
    b.part("J1").at(0, 0).holes("VIN", "GND");
    b.part("C1").value("10u").at(6, 0).pads("VIN", "GND");
    b.part("U1")
        .value("REG")
        .words("3V3 linear")
        .shape("SOT-223")
        .at(12, 0)
        .pads("VIN", "GND", "3V3");
    b.part("C2").value("10u").at(18, 0).pads("3V3", "GND");
    b.part("R1").value("1k").at(24, 0).pads("3V3", "A1");
    b.part("D1").value("red").words("LED").at(30, 0).pads("GND", "A1");
    b.part("U2").value("CHIP").shape("SOIC-8").at(36, 0).pads("3V3", "GND", "IN");
    b.part("R2").value("10k").at(42, 0).pads("3V3", "MID");
    b.part("R3").value("10k").at(48, 0).pads("MID", "GND");
    return b.revision();
  }

  public static Board board() {
    return board(REVISION, LADDER);
  }

  static Board board(Revision r, Ladder l) {
    return new Board(
        r,
        l,
        PulsePlan.of(r, l, List.of(), List.of()),
        TalkPlan.of(r, List.of()),
        List.of(),
        Map.of());
  }

  public static BenchKnowledge none() {
    return BenchKnowledge.none(BenchKnowledge::usual);
  }

  static Tracer tracer() {
    return new Tracer(board(), Suspects.of(REVISION, LADDER, none()));
  }

  Tracing log(Entry... entries) {
    for (Entry e : entries) {
      log.add(new Logged(log.size() + 1, OffsetDateTime.parse("2026-11-27T09:00:00Z"), "01", e));
    }
    return this;
  }

  List<Logged> book() {
    return log;
  }

  Clues clues() {
    return Clues.of(board(), BoardState.of("01", log));
  }

  Traced trace() {
    return trace(tracer());
  }

  Traced trace(Tracer t) {
    return t.trace(clues(), Map.of(), Map.of(), 400);
  }

  public static Entry volts(String place, double v) {
    return new Entry.Reading(
        place, v, Unit.VOLT, Optional.empty(), Optional.empty(), Optional.empty(), "");
  }

  static Entry amps(String place, double a) {
    return new Entry.Reading(
        place, a, Unit.AMPERE, Optional.empty(), Optional.empty(), Optional.empty(), "");
  }

  static Entry ohms(String a, String b, double r) {
    return new Entry.Check("isolation", a, b, "", "", r, Limits.atMost(1e9), Verdict.WITHIN);
  }

  static Entry symptom(String place, String what, String shows) {
    return new Entry.Symptom(place, what, shows, 1, 1);
  }

  static Entry comes(int times, int of) {
    return new Entry.Symptom("", "comes", "bad", times, of);
  }

  static double chance(Traced t, String fault) {
    return t.suspects().stream()
        .filter(s -> s.fault().equals(fault))
        .mapToDouble(Traced.Ranked::chance)
        .sum();
  }
}
