package ell.core.kit.substitute;

import static ell.core.kit.substitute.Trait.*;

import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import ell.core.power.Ladder;
import ell.core.power.Ladder.RailSpec;
import ell.core.power.LadderState;
import ell.core.power.PartValue;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.stream.Stream;

/// Works out what a circuit needs of a part: voltages and currents from the power ladder, load of a
/// crystal from its capacitors, power of a resistor from what lies across it; what the circuit
/// cannot say, or what was only guessed of it, is taken from the part that was drawn, and said to
/// be.
final class CircuitNeeds {
  /// A ceramic of class 2 loses half of its capacitance near its rating: twice the voltage. Common
  /// practice, no source.
  private static final double CLASS_2 = 2.0;

  /// Other capacitors are used up to four fifths. Common practice, no source.
  private static final double OTHERS = 1.25;

  /// Semiconductors are used up to four fifths of their voltage and current, resistors up to half
  /// of their power. Common practice, no source.
  private static final double MARGIN = 1.25;

  private static final double POWER_MARGIN = 2.0;

  /// Board and pins beside a crystal add 2 to 5 pF; typical, no source.
  private static final double STRAY_LOW = 2e-12;

  private static final double STRAY_HIGH = 5e-12;
  private static final List<String> DIELECTRICS =
      List.of("Z5U", "Y5V", "X5R", "X6S", "X7S", "X7R", "X8R", "NP0", "NPO", "C0G");

  private final Revision revision;
  private final Ladder ladder;
  private final Part part;
  private final Traits drawn;
  private final Template template;
  private final Set<String> nets = new HashSet<>();

  CircuitNeeds(Revision revision, Ladder ladder, Part part, Traits drawn, Template template) {
    this.revision = revision;
    this.ladder = ladder;
    this.part = part;
    this.drawn = drawn;
    this.template = template;
    revision.jointsOf(part.reference()).stream()
        .filter(Joint::connected)
        .forEach(j -> nets.add(j.net()));
  }

  List<Requirement> all() {
    List<Requirement> needs = new ArrayList<>();
    for (Trait t : template.traits()) {
      needs.add(fromCircuit(t).or(() -> asDrawn(t)).orElseGet(() -> Requirement.unknown(t)));
    }
    // a drawn part that has no such thing, in a circuit that asks for none, decides nothing
    needs.removeIf(r ->
        r.rule() == Requirement.Rule.UNKNOWN
            && Set.of(TYPE, ENABLE, GENDER, MOUNTING, PAGE, OUTPUT, INTERFACE).contains(r.trait()));
    return needs;
  }

  private Optional<Requirement> fromCircuit(Trait t) {
    return switch (t) {
      case VOLTAGE -> capacitorVoltage();
      case POWER -> resistorPower();
      case LOAD_CAPACITANCE -> crystalLoad();
      case REVERSE_VOLTAGE, SWITCH_VOLTAGE ->
          across()
              .map(v -> Requirement.atLeast(t, v.volts * MARGIN, v.why + ", and a quarter more"));
      case GATE_VOLTAGE ->
          lowestLogic()
              .map(r ->
                  Requirement.atMost(
                      t, r.low(), "driven from " + r.net() + ", at least " + volts(r.low())));
      case OUTPUT_VOLTAGE ->
          step()
              .flatMap(s -> rail(s.to()))
              .map(r -> Requirement.between(t, r.low(), r.high(), "the limits of rail " + r.net()));
      case DROPOUT ->
          step()
              .filter(s -> s.kind() == Ladder.Kind.LINEAR)
              .flatMap(s ->
                  rail(s.from())
                      .map(in ->
                          Requirement.atMost(
                              t,
                              in.low() - s.volts(),
                              s.from() + " at its least less " + volts(s.volts()))));
      case INPUT_VOLTAGE ->
          step()
              .flatMap(s -> rail(s.from()))
              .map(in -> Requirement.atLeast(t, in.high(), "rail " + in.net() + " at its most"));
      case CURRENT -> current();
      case SUPPLY_LOW ->
          supply().map(r -> Requirement.atMost(t, r.low(), "rail " + r.net() + " at its least"));
      case SUPPLY_HIGH ->
          supply().map(r -> Requirement.atLeast(t, r.high(), "rail " + r.net() + " at its most"));
      case PINS ->
          Optional.of(
                  revision.jointsOf(part.reference()).stream().map(Joint::pin).distinct().count())
              .filter(n -> n > 0)
              .map(n -> Requirement.between(t, n, n, "the joints of the board"));
      case MOUNTING ->
          revision.jointsOf(part.reference()).isEmpty()
              ? Optional.empty()
              : Optional.of(
                  Requirement.oneOf(
                      t,
                      revision.throughHole(part)
                          ? List.of("through-hole", "through", "tht", "th")
                          : List.of("surface", "smd", "smt", "surface-mount"),
                      "the joints of the board"));
      case OUTLINE ->
          part.packageName().isBlank()
              ? Optional.empty()
              : Optional.of(
                  Requirement.oneOf(t, List.of(part.packageName()), "the pads of the board"));
      default -> Optional.empty();
    };
  }

  /// What the part that was drawn has, where the circuit says nothing.
  private Optional<Requirement> asDrawn(Trait t) {
    Optional<String> text = drawn.text(t);
    if (text.isEmpty()) {
      return Optional.empty();
    }
    String from = "the part that was drawn";
    if (t == DIELECTRIC) {
      int least = rank(text.get());
      return least < 0
          ? Optional.of(Requirement.oneOf(t, List.of(text.get()), from))
          : Optional.of(
              Requirement.oneOf(
                  t,
                  DIELECTRICS.subList(least, DIELECTRICS.size()),
                  "as stable as the part that was drawn"));
    }
    if (t.unit().isEmpty()) {
      return Optional.of(Requirement.oneOf(t, List.of(text.get()), from));
    }
    return drawn
        .number(t)
        .map(v ->
            switch (t) {
              case RESISTANCE, CAPACITANCE, FREQUENCY, OUTPUT_VOLTAGE, PINS, PITCH, PAGE ->
                  Requirement.between(t, v, v, "the bill");
              case TOLERANCE,
                  SERIES_RESISTANCE,
                  FORWARD_VOLTAGE,
                  DROPOUT,
                  SUPPLY_LOW,
                  GATE_VOLTAGE ->
                  Requirement.atMost(t, v, from);
              default -> Requirement.atLeast(t, v, from);
            });
  }

  private static int rank(String dielectric) {
    return DIELECTRICS.indexOf(dielectric.toUpperCase(Locale.ROOT).strip());
  }

  private record Across(double volts, String why) {}

  /// The greatest voltage that may lie across the part: between the rails that it touches, else
  /// from a net that no rail feeds to the highest rail of the board.
  private Optional<Across> across() {
    List<RailSpec> rails = nets.stream().flatMap(n -> ladder.rail(n).stream()).toList();
    if (rails.stream().anyMatch(RailSpec::guessed)) {
      return Optional.empty(); // what nobody said decides nothing
    }
    boolean grounded = nets.contains(ladder.ground());
    boolean allKnown = rails.size() + (grounded ? 1 : 0) == nets.size();
    if (nets.isEmpty() || ladder.rails().isEmpty()) {
      return Optional.empty();
    }
    if (allKnown) {
      double high = rails.stream().mapToDouble(RailSpec::high).max().orElse(0);
      double low = grounded ? 0 : rails.stream().mapToDouble(RailSpec::low).min().orElse(0);
      return Optional.of(
          new Across(
              high - low, "between " + String.join(" and ", nets.stream().sorted().toList())));
    }
    if (ladder.rails().stream().anyMatch(RailSpec::guessed)) {
      return Optional.empty();
    }
    double highest = ladder.rails().stream().mapToDouble(RailSpec::high).max().orElse(0);
    return Optional.of(
        new Across(highest, "no rail feeds all of its nets: the highest rail, " + volts(highest)));
  }

  private Optional<Requirement> capacitorVoltage() {
    boolean class2 =
        drawn
                .text(DIELECTRIC)
                .map(d -> d.toUpperCase(Locale.ROOT))
                .filter(d -> d.matches("X\\d.|Y5V|Z5U"))
                .isPresent()
            || drawn.text(DIELECTRIC).isEmpty() && !revision.throughHole(part) && big();
    double factor = class2 ? CLASS_2 : OTHERS;
    return across()
        .map(v ->
            Requirement.atLeast(
                VOLTAGE,
                v.volts * factor,
                v.why
                    + ", "
                    + volts(v.volts)
                    + (class2
                        ? " · 2, for a ceramic of class 2 loses capacitance near its rating"
                        : " · 1.25")));
  }

  /// More than 1 nF in a chip is class 2 unless it is said otherwise; common practice.
  private boolean big() {
    OptionalDouble f = PartValue.farads(part);
    return f.isPresent() && f.getAsDouble() > 1e-9;
  }

  private Optional<Requirement> resistorPower() {
    OptionalDouble ohms = PartValue.ohms(part);
    if (ohms.isEmpty() || ohms.getAsDouble() <= 0) {
      return Optional.empty();
    }
    return across()
        .map(v -> {
          double watts = v.volts * v.volts / ohms.getAsDouble();
          return Requirement.atLeast(
              POWER,
              watts * POWER_MARGIN,
              v.why
                  + ": "
                  + volts(v.volts)
                  + "² / "
                  + EngineeringNumber.print(ohms.getAsDouble(), Unit.OHM, 3)
                  + " · 2");
        });
  }

  /// Two capacitors from the crystal's nets to ground in series, and the stray capacitance.
  private Optional<Requirement> crystalLoad() {
    List<Double> each = new ArrayList<>();
    for (String net : nets) {
      if (net.equals(ladder.ground())) {
        continue;
      }
      double sum =
          revision.net(net).stream()
              .map(Joint::part)
              .distinct()
              .flatMap(r -> revision.part(r).stream())
              .filter(p -> p.fitted() && p.kind() == PartKind.CAPACITOR && toGround(p))
              .flatMapToDouble(p -> PartValue.farads(p).stream())
              .sum();
      if (sum > 0) {
        each.add(sum);
      }
    }
    if (each.size() != 2) {
      return Optional.empty();
    }
    double series = each.get(0) * each.get(1) / (each.get(0) + each.get(1));
    return Optional.of(
        Requirement.between(
            LOAD_CAPACITANCE,
            series + STRAY_LOW,
            series + STRAY_HIGH,
            EngineeringNumber.print(each.get(0), Unit.FARAD, 3)
                + " and "
                + EngineeringNumber.print(each.get(1), Unit.FARAD, 3)
                + " in series, and 2…5 pF of board and pins"));
  }

  private boolean toGround(Part p) {
    return revision.jointsOf(p.reference()).stream().anyMatch(j -> j.net().equals(ladder.ground()));
  }

  /// A rail whose volts somebody said, or its name.
  private Optional<RailSpec> rail(String net) {
    return ladder.rail(net).filter(r -> !r.guessed());
  }

  /// Whether what a rail and those behind it draw is not known.
  private boolean guessedBehind(String net) {
    Set<String> behind = new HashSet<>(Set.of(net));
    for (Ladder.Step s : ladder.downwards()) {
      if (behind.contains(s.from())) {
        behind.add(s.to());
      }
    }
    return ladder.loads().stream().anyMatch(l -> l.guessed() && behind.contains(l.rail()));
  }

  private Optional<Ladder.Step> step() {
    return ladder.steps().stream().filter(s -> s.part().equals(part.reference())).findFirst();
  }

  private Optional<Requirement> current() {
    Optional<Ladder.Step> step = step();
    if (step.isEmpty() || guessedBehind(step.get().to())) {
      return Optional.empty();
    }
    double amps =
        LadderState.of(ladder, "worst").rails().stream()
            .filter(r -> r.rail().net().equals(step.get().to()))
            .mapToDouble(LadderState.RailLoad::current)
            .max()
            .orElse(0);
    return Optional.of(
        Requirement.atLeast(
            CURRENT,
            amps * MARGIN,
            "what "
                + step.get().to()
                + " draws at worst, "
                + EngineeringNumber.print(amps, Unit.AMPERE, 3)
                + ", and a quarter more"));
  }

  /// The rail that a chip runs from: the one that most of its pins on rails are on.
  private Optional<RailSpec> supply() {
    return nets.stream()
        .flatMap(n -> rail(n).stream())
        .max(Comparator.comparingLong(r -> pinsOn(r.net())));
  }

  private long pinsOn(String net) {
    return revision.jointsOf(part.reference()).stream().filter(j -> j.net().equals(net)).count();
  }

  /// The lowest rail that feeds a chip which shares a net with the part: what drives its gate.
  private Optional<RailSpec> lowestLogic() {
    Stream<Part> drivers =
        nets.stream()
            .filter(n -> !n.equals(ladder.ground()) && ladder.rail(n).isEmpty())
            .flatMap(n -> revision.net(n).stream())
            .map(Joint::part)
            .distinct()
            .flatMap(r -> revision.part(r).stream())
            .filter(p -> p.kind() == PartKind.CHIP || p.kind() == PartKind.MODULE);
    return drivers
        .flatMap(p ->
            revision.jointsOf(p.reference()).stream().flatMap(j -> ladder.rail(j.net()).stream()))
        .min(Comparator.comparingDouble(RailSpec::volts));
  }

  private static String volts(double v) {
    return EngineeringNumber.print(v, Unit.VOLT, 3);
  }
}
