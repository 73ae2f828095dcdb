package ell.core.power;

import ell.core.board.Folded;
import ell.core.power.Ladder.RailSpec;
import ell.core.power.Ladder.Source;
import ell.core.power.Ladder.Step;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.core.sheet.Worked;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/// The ladder in one state: currents up the tree, heat and headroom of each regulator, and the
/// limit for the supply. SI units.
///
/// @param state one of [Ladder#STATES]
/// @param rails each rail with its current
/// @param regulators each regulator with its heat
/// @param limit what to set on the supply, with its working
/// @param sheet the worked sheet of the limit
public record LadderState(
    String state,
    List<RailLoad> rails,
    List<RegulatorHeat> regulators,
    SupplyLimit limit,
    Worked sheet) {
  public LadderState {
    rails = List.copyOf(rails);
    regulators = List.copyOf(regulators);
  }

  /// Time in which the bench supply brings its output up; typical, no source.
  public static final double RISE_TIME = 5e-3;

  private static final double AMBIENT = 25;

  /// A rail's current and how far it is from what its step bears.
  public record RailLoad(RailSpec rail, double current, List<Margin> margins) {
    public RailLoad {
      margins = List.copyOf(margins);
    }
  }

  /// How much of something is left.
  ///
  /// @param what in words, naming the part
  /// @param value what is left, in `unit`; below zero when it is too little
  public record Margin(String what, double value, Unit unit) {}

  /// What a regulator does.
  ///
  /// @param headroom input less output less dropout, V
  /// @param headroomLow the same at the lowest input
  public record RegulatorHeat(
      Step step,
      double current,
      double dissipation,
      double junction,
      double headroom,
      double headroomLow) {}

  /// What does not add up in this state.
  public List<LadderFinding> findings(Ladder ladder) {
    return LadderFinding.of(ladder, this);
  }

  /// Works a ladder in a state.
  ///
  /// @throws IllegalArgumentException for an unknown state
  public static LadderState of(Ladder ladder, String state) {
    if (!Ladder.STATES.contains(state)) {
      throw new IllegalArgumentException(
          "unknown state '" + state + "', expected one of " + Ladder.STATES);
    }
    Map<String, Double> current = new HashMap<>();
    ladder.loads().forEach(l -> current.merge(l.rail(), l.in(state), Double::sum));
    Map<String, double[]> span = spans(ladder);
    Map<String, RegulatorHeat> heat = new HashMap<>();
    List<Step> down = ladder.downwards();
    Worked.Builder sheet = Worked.of("power.limit", "Why this limit");
    for (Step s : down.reversed()) {
      double out = current.getOrDefault(s.to(), 0.0);
      double vin = ladder.rail(s.from()).orElseThrow().volts();
      double in = input(s, vin, out);
      current.merge(s.from(), in, Double::sum);
      heat.put(s.part(), heat(s, vin, out, span, ladder.lifts(s)));
      sheet.line(
          "I(" + s.to() + ") through " + s.part(),
          s.kind() == Ladder.Kind.SWITCHING
              ? "Vout·Iout/(η·Vin) = "
                  + EngineeringNumber.print(s.volts(), Unit.VOLT)
                  + " · "
                  + EngineeringNumber.print(out, Unit.AMPERE, 3)
                  + " / ("
                  + s.efficiency()
                  + " · "
                  + EngineeringNumber.print(vin, Unit.VOLT)
                  + ")"
              : "the same current",
          in,
          Unit.AMPERE);
    }
    SupplyLimit limit =
        ladder.sources().isEmpty()
            ? SupplyLimit.of(0, 0, 1.2, 0.01, Double.POSITIVE_INFINITY)
            : limit(ladder, current, ladder.sources().getFirst());
    limit.lines(sheet);
    sheet
        .input("state", state)
        .result("limit", limit.limit())
        .source("common practice, no source: expected plus charging current, times 1.2, rounded up")
        .source("IPC, USB and part limits as the ladder states them")
        .assume("the supply comes up in " + EngineeringNumber.print(RISE_TIME, Unit.SECOND));
    Folded.assumptions(ladder.assumptions()).forEach(sheet::assume);
    ladder.sources().stream()
        .skip(1)
        .forEach(s ->
            sheet.assume(
                s.rail()
                    + " on output "
                    + ladder.channel(s)
                    + (ladder.raises(s)
                        ? " is raised after it, with a limit of its own"
                        : " is not raised: nothing says its volts")));
    List<RailLoad> loads =
        ladder.rails().stream()
            .map(r ->
                new RailLoad(r, current.getOrDefault(r.net(), 0.0), margins(ladder, r, current)))
            .toList();
    return new LadderState(
        state,
        loads,
        down.stream().filter(Step::regulates).map(s -> heat.get(s.part())).toList(),
        limit,
        sheet.done());
  }

  private static double input(Step s, double vin, double out) {
    return switch (s.kind()) {
      case SWITCHING ->
          Supplies.switching(Math.max(vin, 1e-3), s.volts(), out, s.efficiency()).inputCurrent()
              + s.quiescent();
      case LINEAR -> out + s.quiescent();
      case PASS, DIODE -> out;
    };
  }

  private static RegulatorHeat heat(
      Step s, double vin, double out, Map<String, double[]> span, boolean lifts) {
    double dissipation =
        switch (s.kind()) {
          case SWITCHING ->
              Supplies.switching(Math.max(vin, 1e-3), s.volts(), out, s.efficiency()).dissipation()
                  + vin * s.quiescent();
          case LINEAR -> Math.max(0, vin - s.volts()) * out + vin * s.quiescent();
          case PASS -> out * out * s.ohms();
          case DIODE -> out * s.dropout();
        };
    double[] in = span.getOrDefault(s.from(), new double[] {vin, vin});
    return new RegulatorHeat(
        s,
        out,
        dissipation,
        Supplies.junction(AMBIENT, s.theta(), dissipation),
        // what lifts holds its output as long as its input stays below it
        lifts ? s.volts() - vin : vin - s.volts() - s.dropout(),
        lifts ? s.volts() - in[1] : in[0] - s.volts() - s.dropout());
  }

  /// Least and greatest voltage of each rail when the sources move over their range.
  private static Map<String, double[]> spans(Ladder ladder) {
    Map<String, double[]> span = new HashMap<>();
    for (Source s : ladder.sources()) {
      span.put(s.rail(), new double[] {s.low(), s.high()});
    }
    for (Step s : ladder.downwards()) {
      double[] in = span.get(s.from());
      span.put(
          s.to(),
          switch (s.kind()) {
            case LINEAR, SWITCHING ->
                ladder.lifts(s)
                    ? new double[] {s.volts(), s.volts()}
                    : new double[] {Math.min(s.volts(), in[0] - s.dropout()), s.volts()};
            case PASS -> in.clone();
            case DIODE -> new double[] {in[0] - s.dropout(), in[1] - s.dropout()};
          });
    }
    return span;
  }

  private static List<Margin> margins(Ladder ladder, RailSpec rail, Map<String, Double> current) {
    List<Margin> margins = new ArrayList<>();
    double load = current.getOrDefault(rail.net(), 0.0);
    ladder
        .feeding(rail.net())
        .filter(s -> s.limit() > 0)
        .ifPresent(s ->
            margins.add(new Margin(s.part() + " bears more by", s.limit() - load, Unit.AMPERE)));
    ladder.sources().stream()
        .filter(s -> s.rail().equals(rail.net()) && s.limit() > 0)
        .forEach(s ->
            margins.add(new Margin("the source bears more by", s.limit() - load, Unit.AMPERE)));
    return margins;
  }

  /// The limit for one source.
  ///
  /// @throws IllegalArgumentException for an unknown state
  public static SupplyLimit limit(Ladder ladder, String state, Source source) {
    Map<String, Double> current = new HashMap<>();
    of(ladder, state).rails().forEach(r -> current.put(r.rail().net(), r.current()));
    return limit(ladder, current, source);
  }

  private static SupplyLimit limit(Ladder ladder, Map<String, Double> current, Source source) {
    double capacitance = ladder.rail(source.rail()).orElseThrow().capacitance();
    double weakest = source.limit() > 0 ? source.limit() : Double.POSITIVE_INFINITY;
    // capacitors behind fuses, beads and diodes charge together with the source's rail
    List<String> joined = new ArrayList<>(List.of(source.rail()));
    for (Step s : ladder.downwards()) {
      if (!s.regulates() && joined.contains(s.from())) {
        joined.add(s.to());
        capacitance += ladder.rail(s.to()).orElseThrow().capacitance();
        if (s.limit() > 0) {
          weakest = Math.min(weakest, s.limit());
        }
      }
    }
    double expected = current.getOrDefault(source.rail(), 0.0);
    return SupplyLimit.of(
        expected,
        Supplies.chargingCurrent(capacitance, source.volts(), RISE_TIME),
        1.2,
        0.01,
        weakest);
  }
}
