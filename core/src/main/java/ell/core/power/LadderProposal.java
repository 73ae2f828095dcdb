package ell.core.power;

import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Rail;
import ell.core.board.Revision;
import ell.core.power.Ladder.Kind;
import ell.core.power.Ladder.Load;
import ell.core.power.Ladder.RailSpec;
import ell.core.power.Ladder.Source;
import ell.core.power.Ladder.Step;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.TreeMap;

/// Proposes a power ladder from netlist and bill of materials: rails by their names, regulators and
/// pass elements by what they join, loads by typical figures. Every guess is written down as an
/// assumption for the maker to correct. Typical values here have no source.
public final class LadderProposal {
  private static final double TOLERANCE = 0.05;
  private static final double LAMP_VOLTS = 1.9;
  private static final String NO_VOLTAGE = ": its name states no voltage";
  private static final String REGULATOR_WORDS =
      ".*(\\bLDO|REGUL|\\bREG\\b|\\bREG|BUCK|BOOST|DC-?DC|SMPS|STEP.?DOWN|\\bLIN(EAR)?\\d*|V(OLTAGE)? ?REG).*";
  private static final String BOOST_WORDS = ".*(BOOST|STEP.?UP|STEPUP).*";
  private static final String SWITCHER_WORDS = ".*(BUCK|BOOST|DC-?DC|SMPS|STEP.?DOWN|SWITCH).*";

  private final Revision revision;
  private final String ground;
  private final Map<String, Rail> rails = new LinkedHashMap<>();
  private final Map<String, Double> volts = new TreeMap<>();
  private final List<Step> steps = new ArrayList<>();
  private final Set<String> fed = new HashSet<>();
  private final List<String> assumptions = new ArrayList<>();
  private final Set<String> guessed = new HashSet<>();
  private final Map<String, double[]> cells = new LinkedHashMap<>();
  private final LadderSaid said;

  /// Why a net is taken as a rail whose name does not say so.
  private final Map<String, String> reasons = new LinkedHashMap<>();

  private LadderProposal(Revision revision, LadderSaid said) {
    this.revision = revision;
    this.said = said;
    this.ground = ground(revision);
    for (Rail r : Rail.of(revision)) {
      if (!r.ground() && !said.notRails().contains(r.net())) {
        rails.put(r.net(), r);
      }
    }
    said(said.sources());
    said(said.rails());
    new RailShape(revision, ground, said.notRails())
        .rails(rails.keySet())
        .forEach((net, why) -> {
          rails.put(net, new Rail(net, false, OptionalDouble.empty()));
          reasons.put(net, why);
          assumptions.add(net + " is taken as a rail: " + why);
        });
  }

  private void said(Map<String, LadderSaid.Span> spans) {
    spans.forEach((net, s) -> rails.put(net, new Rail(net, false, OptionalDouble.of(s.volts()))));
  }

  /// Proposes a ladder; one without rails when nothing looks like one.
  public static Ladder of(Revision revision) {
    return of(revision, LadderSaid.NOTHING);
  }

  /// Proposes a ladder of which somebody said something.
  ///
  /// @throws IllegalArgumentException when what was said does not fit the board
  public static Ladder of(Revision revision, LadderSaid said) {
    return said.on(new LadderProposal(revision, said).propose(), revision);
  }

  /// A rail of which nothing is known but its volts.
  static RailSpec bare(Revision revision, String net, String ground, double volts) {
    double room = Math.abs(volts) * TOLERANCE;
    return new RailSpec(
        net,
        volts,
        plain(volts - room),
        plain(volts + room),
        plain(capacitance(revision, net)),
        readAt(revision, net));
  }

  /// The main return net: the ground name with the most joints, or `GND` when there is none.
  public static String ground(Revision revision) {
    return Rail.of(revision).stream()
        .filter(Rail::ground)
        .map(Rail::net)
        .max(Comparator.comparingInt(n -> revision.net(n).size()))
        .orElse("GND");
  }

  private Ladder propose() {
    rails.values().forEach(r -> r.volts().ifPresent(v -> volts.put(r.net(), v)));
    guessNamed();
    revision.parts().stream()
        .filter(Part::fitted)
        .filter(p -> p.kind() == PartKind.CHIP)
        .forEach(this::regulator);
    revision.parts().stream().filter(Part::fitted).forEach(this::pass);
    settlePassVolts();
    List<Source> sources = sources();
    List<Step> reached = LadderAnswers.fed(steps, sources);
    List<Load> loads = new ArrayList<>();
    revision.parts().stream().filter(Part::fitted).forEach(p -> load(p, loads));
    revision.parts().stream()
        .filter(p -> p.fitted() && p.kind() == PartKind.LED)
        .forEach(p -> lamp(p, loads));
    new DrivenLamps(revision, ground, volts, LAMP_VOLTS)
        .loads(loads)
        .forEach((load, why) -> {
          loads.add(load);
          assumptions.add(why);
        });
    revision.parts().stream()
        .filter(p -> p.fitted() && p.kind() == PartKind.RESISTOR)
        .forEach(p -> bleeder(p, loads));
    List<RailSpec> specs = rails.keySet().stream().map(this::spec).toList();
    return new Ladder(specs, sources, reached, loads, ground, assumptions)
        .passedOn(Set.of(), Set.of());
  }

  /// Gives a voltage to rails whose name states none.
  private void guessNamed() {
    for (String net : rails.keySet()) {
      if (volts.containsKey(net)) {
        continue;
      }
      String n = net.toUpperCase(Locale.ROOT);
      Optional<double[]> cell = CellVolts.of(revision, net);
      double top = volts.values().stream().mapToDouble(v -> v).filter(v -> v > 0).max().orElse(3.3);
      double guess =
          cell.isPresent()
              ? cell.get()[1]
              : n.matches(".*(IN|RAW|SUP|PWR|MOT|SYS|PP|HV|DC).*")
                      || reasons.getOrDefault(net, "").endsWith(RailShape.IN)
                  ? (top >= 5 ? Math.max(12, top) : 5)
                  : Math.min(top, 3.3);
      volts.put(net, guess);
      cell.ifPresent(c -> cells.put(net, c));
      if (cell.isEmpty() || cell.get()[3] == 0) {
        guessed.add(net);
      }
      assumptions.add(
          net
              + " is taken as "
              + EngineeringNumber.print(guess, Unit.VOLT)
              + (cell.isPresent()
                  ? ", a cell of "
                      + EngineeringNumber.print(cell.get()[0], Unit.ONE)
                      + "..."
                      + EngineeringNumber.print(cell.get()[2], Unit.VOLT)
                  : NO_VOLTAGE));
    }
  }

  private static boolean cell(String net) {
    return CellVolts.named(net);
  }

  private Set<String> railsOf(Part p) {
    Set<String> found = new LinkedHashSet<>();
    for (Joint j : revision.jointsOf(p.reference())) {
      // what stands below ground is listed and not worked out
      if (rails.containsKey(j.net()) && volts.getOrDefault(j.net(), 0.0) >= 0) {
        found.add(j.net());
      }
    }
    return found;
  }

  private static String words(Part p) {
    return (p.value() + " " + p.code() + " " + p.description()).toUpperCase(Locale.ROOT);
  }

  private void regulator(Part p) {
    Set<String> own = railsOf(p);
    String coil = throughCoil(p, own);
    boolean told = words(p).matches(REGULATOR_WORDS);
    if (words(p).matches(BOOST_WORDS) && lifted(p, own, coil)) {
      return;
    }
    int pins = revision.jointsOf(p.reference()).size();
    if (own.isEmpty() || !told && coil == null && (pins > 6 || own.size() != 2)) {
      return;
    }
    String out =
        coil != null
            ? coil
            : own.stream()
                .filter(r ->
                    !fed.contains(r)
                        && reasons.getOrDefault(r, "").startsWith(p.reference() + RailShape.OUT))
                .findFirst()
                .orElse(null);
    if (out == null) {
      out =
          own.stream()
              .filter(r -> !fed.contains(r))
              .min(Comparator.comparingDouble(r -> stated(p, r)))
              .orElse(null);
    }
    String to = out;
    String from =
        own.stream()
            .filter(r -> !r.equals(to))
            .max(Comparator.comparingDouble(volts::get))
            .orElse(null);
    if (to != null && guessed.contains(to) && told) {
      OptionalDouble named = RegulatorVolts.of(p);
      if (named.isPresent()) {
        volts.put(to, named.getAsDouble());
        guessed.remove(to);
        assumptions.removeIf(a -> a.startsWith(to + " is taken as ") && a.endsWith(NO_VOLTAGE));
        assumptions.add(
            to
                + " is taken as "
                + EngineeringNumber.print(named.getAsDouble(), Unit.VOLT)
                + ": "
                + p.reference()
                + " is a "
                + p.value());
      }
    }
    if (to != null && from != null && told && guessed.contains(from) && !guessed.contains(to)) {
      // a guess at what comes in is at least what the regulator needs
      double least = volts.get(to) < 5 ? 5 : 12;
      if (least > volts.get(from)) {
        volts.put(from, least);
        assumptions.removeIf(a -> a.startsWith(from + " is taken as ") && a.endsWith(NO_VOLTAGE));
        assumptions.add(
            from + " is taken as " + EngineeringNumber.print(least, Unit.VOLT) + NO_VOLTAGE);
      }
    }
    if (to == null || from == null || volts.get(from) <= volts.get(to) || fed.contains(to)) {
      return;
    }
    boolean switching = coil != null || words(p).matches(SWITCHER_WORDS);
    OptionalDouble rated = RatedAmps.of(p);
    double limit = rated.orElse(switching ? 1.0 : 0.5);
    String bears =
        rated.isPresent()
            ? ", limit " + EngineeringNumber.print(limit, Unit.AMPERE) + " by its words"
            : switching ? ", limit 1 A" : ", limit 0.5 A";
    steps.add(
        new Step(
            p.reference(),
            switching ? Kind.SWITCHING : Kind.LINEAR,
            from,
            to,
            volts.get(to),
            switching ? 0.5 : 0.3,
            switching ? 0.88 : 0,
            switching ? 1e-3 : 60e-6,
            switching ? 45 : 110,
            limit,
            0));
    fed.add(to);
    assumptions.add(
        p.reference()
            + " is taken as a "
            + (switching
                ? "switching regulator, efficiency 0.88"
                : "linear regulator, dropout 0.3 V")
            + bears
            + ", from "
            + from
            + " to "
            + to);
  }

  /// A converter that lifts: from the rail behind its coil to the highest that it reaches, by
  /// itself or through its diode.
  private boolean lifted(Part p, Set<String> own, String coil) {
    Set<String> reached = new LinkedHashSet<>(own);
    for (Joint j : revision.jointsOf(p.reference())) {
      if (j.connected() && !rails.containsKey(j.net()) && !j.net().equals(ground)) {
        revision.net(j.net()).stream()
            .flatMap(o -> revision.part(o.part()).stream())
            .filter(o -> o.fitted() && o.kind() == PartKind.DIODE)
            .flatMap(o -> revision.jointsOf(o.reference()).stream())
            .map(Joint::net)
            .filter(rails::containsKey)
            .forEach(reached::add);
      }
    }
    String from =
        coil != null
            ? coil
            : reached.stream().min(Comparator.comparingDouble(volts::get)).orElse(null);
    String to =
        reached.stream()
            .filter(r -> !r.equals(from) && !fed.contains(r))
            .max(Comparator.comparingDouble(volts::get))
            .orElse(null);
    if (from == null || to == null || !(volts.get(to) > volts.get(from))) {
      return false;
    }
    OptionalDouble rated = RatedAmps.of(p);
    steps.add(
        new Step(
            p.reference(),
            Kind.SWITCHING,
            from,
            to,
            volts.get(to),
            0,
            0.88,
            1e-3,
            45,
            rated.orElse(0.5),
            0));
    fed.add(to);
    assumptions.add(
        p.reference()
            + " is taken to lift "
            + from
            + " to "
            + to
            + ", efficiency 0.88"
            + (rated.isPresent() ? "" : ", limit 0.5 A"));
    return true;
  }

  /// Rails that the part's code names are likelier outputs than the lowest one.
  private double stated(Part p, String rail) {
    String digits = EngineeringNumber.print(volts.get(rail), Unit.ONE).replace(".", "");
    boolean named =
        words(p).matches(".*(?<![\\d.,])" + digits + "(?!\\d|[.,]\\d|\\s?[MUµ]?AH?\\b).*");
    return (named ? 0 : 1000) + volts.get(rail);
  }

  /// The rail that a chip reaches through an inductor on one of its own nets that is no rail.
  private String throughCoil(Part chip, Set<String> own) {
    for (Joint j : revision.jointsOf(chip.reference())) {
      if (!j.connected()
          || rails.containsKey(j.net())
          || Rail.of(j.net()).isPresent() && Rail.of(j.net()).get().ground()) {
        continue;
      }
      for (Joint other : revision.net(j.net())) {
        Part coil = revision.part(other.part()).orElse(null);
        if (coil == null || coil.kind() != PartKind.INDUCTOR) {
          continue;
        }
        for (Joint end : revision.jointsOf(coil.reference())) {
          if (rails.containsKey(end.net()) && own.stream().anyMatch(r -> !r.equals(end.net()))) {
            return end.net();
          }
        }
      }
    }
    return null;
  }

  private void pass(Part p) {
    List<Joint> own = revision.jointsOf(p.reference());
    if (own.size() != 2) {
      return;
    }
    String a = own.get(0).net();
    String b = own.get(1).net();
    if (!rails.containsKey(a)
        || !rails.containsKey(b)
        || a.equals(b)
        || volts.get(a) < 0
        || volts.get(b) < 0) {
      return;
    }
    PartKind kind = p.kind();
    if (kind == PartKind.DIODE) {
      Joint cathode =
          own.stream().filter(j -> j.pin().matches("1|K|C")).findFirst().orElse(own.get(0));
      String to = cathode.net();
      String from = to.equals(a) ? b : a;
      add(p, Kind.DIODE, from, to, 0.4, 0);
      return;
    }
    double ohms =
        switch (kind) {
          case FERRITE, INDUCTOR -> 0.2;
          case FUSE -> 0.1;
          case RESISTOR -> ohms(p);
          default -> Double.NaN;
        };
    if (!(ohms <= 22)) {
      return;
    }
    boolean downA = rank(a) <= rank(b);
    add(p, Kind.PASS, downA ? a : b, downA ? b : a, 0, ohms);
  }

  /// Which of two joined rails is upstream, the lower: one that is fed already, then one that comes
  /// in by a connector or cell, then the one with the plainer name.
  private int rank(String net) {
    boolean comesIn =
        revision.net(net).stream()
            .map(j -> PartKind.of(j.part()))
            .anyMatch(k -> k == PartKind.CONNECTOR || k == PartKind.CELL);
    return (fed.contains(net) ? 0 : comesIn ? 100 : 200) + Math.min(net.length(), 99);
  }

  private static double ohms(Part p) {
    return PartValue.ohms(p).orElse(Double.NaN);
  }

  private void add(Part p, Kind kind, String from, String to, double drop, double ohms) {
    if (!fed.add(to)) {
      return;
    }
    // a fuse, and what else names a current, bears no more; a resistor names ohms
    double limit = p.kind() == PartKind.RESISTOR ? 0 : RatedAmps.of(p).orElse(0);
    steps.add(new Step(p.reference(), kind, from, to, volts.get(to), drop, 0, 0, 0, limit, ohms));
    assumptions.add(p.reference() + " is taken to pass " + from + " on to " + to);
  }

  private void settlePassVolts() {
    for (int round = 0; round < steps.size(); round++) {
      for (int i = 0; i < steps.size(); i++) {
        Step s = steps.get(i);
        if (!s.regulates() && rails.get(s.to()).volts().isEmpty()) {
          double v = Math.max(0, volts.get(s.from()) - s.dropout());
          volts.put(s.to(), v);
          cells.remove(s.to()); // it is held by what feeds it
          if (!guessed.contains(s.from())) {
            guessed.remove(s.to());
          }
          assumptions.removeIf(
              a -> a.startsWith(s.to() + " is taken as ") && a.endsWith(NO_VOLTAGE));
          steps.set(
              i,
              new Step(
                  s.part(),
                  s.kind(),
                  s.from(),
                  s.to(),
                  v,
                  s.dropout(),
                  0,
                  0,
                  0,
                  s.limit(),
                  s.ohms()));
        }
      }
    }
  }

  private List<Source> sources() {
    return rails.keySet().stream()
        .filter(r -> !fed.contains(r) && volts.get(r) >= 0)
        .sorted(
            Comparator.comparing((String r) -> feeds(r) ? 0 : 1)
                .thenComparing(r -> guessed.contains(r) ? 1 : 0)
                .thenComparing(r -> -volts.get(r)))
        .map(r ->
            new Source(
                r,
                volts.get(r),
                cells.containsKey(r) ? cells.get(r)[0] : plain(volts.get(r) * 0.9),
                cells.containsKey(r) ? cells.get(r)[2] : plain(volts.get(r) * 1.1),
                r.toUpperCase(Locale.ROOT).contains("VBUS") ? 0.5 : 0))
        .toList();
  }

  private boolean feeds(String rail) {
    return steps.stream().anyMatch(s -> s.from().equals(rail));
  }

  private void load(Part p, List<Load> loads) {
    Set<String> own = railsOf(p);
    PartKind kind = p.kind();
    if (kind != PartKind.CHIP && kind != PartKind.MODULE
        || steps.stream().anyMatch(s -> s.part().equals(p.reference()))) {
      return;
    }
    // a chip with a back-up supply lives on its main one
    String rail =
        own.stream()
            .min(
                Comparator.comparing((String r) -> cell(r) ? 1 : 0).thenComparingDouble(volts::get))
            .orElse(null);
    if (rail == null) {
      return;
    }
    int pins = revision.jointsOf(p.reference()).size();
    double idle = pins >= 28 ? 15e-3 : kind == PartKind.MODULE ? 20e-3 : 1e-3;
    loads.add(
        new Load(
            p.reference(),
            rail,
            Map.of("off", 0.0, "boot", idle, "idle", idle, "active", 2 * idle, "worst", 3 * idle),
            true,
            ""));
    assumptions.add(
        p.reference()
            + " is taken to draw "
            + EngineeringNumber.print(idle, Unit.AMPERE)
            + " from "
            + rail
            + " at first power");
  }

  /// A resistor from a rail to ground draws all the time.
  private void bleeder(Part p, List<Load> loads) {
    List<Joint> ends = revision.jointsOf(p.reference());
    if (ends.size() != 2 || !(ohms(p) > 0)) {
      return;
    }
    for (int i = 0; i < 2; i++) {
      String rail = ends.get(i).net();
      if (rails.containsKey(rail) && volts.get(rail) >= 0 && ends.get(1 - i).net().equals(ground)) {
        loads.add(new Load(p.reference(), rail, Map.of("boot", volts.get(rail) / ohms(p))));
      }
    }
  }

  /// A lamp that hangs with one resistor between a rail and ground burns all the time.
  private void lamp(Part lamp, List<Load> loads) {
    List<Joint> ends = revision.jointsOf(lamp.reference());
    if (ends.size() != 2) {
      return;
    }
    for (int i = 0; i < 2; i++) {
      String near = ends.get(i).net();
      String far = ends.get(1 - i).net();
      boolean nearHeld = rails.containsKey(near) || near.equals(ground);
      if (!nearHeld || !ends.get(1 - i).connected()) {
        continue;
      }
      for (Joint j : revision.net(far)) {
        Part resistor = revision.part(j.part()).orElse(null);
        if (resistor == null || resistor.kind() != PartKind.RESISTOR) {
          continue;
        }
        for (Joint end : revision.jointsOf(resistor.reference())) {
          String other = end.net();
          String rail = near.equals(ground) ? other : near;
          boolean closes = near.equals(ground) ? rails.containsKey(other) : other.equals(ground);
          if (closes && volts.getOrDefault(rail, 0.0) > LAMP_VOLTS && ohms(resistor) > 0) {
            double amps = (volts.get(rail) - LAMP_VOLTS) / ohms(resistor);
            loads.add(new Load(lamp.reference(), rail, Map.of("boot", amps)));
            assumptions.add(
                lamp.reference()
                    + " is taken to draw "
                    + EngineeringNumber.print(amps, Unit.AMPERE, 3)
                    + " through "
                    + resistor.reference());
            return;
          }
        }
      }
    }
  }

  private RailSpec spec(String net) {
    double v = volts.get(net);
    double c = capacitance(revision, net);
    Source source = sources().stream().filter(s -> s.rail().equals(net)).findFirst().orElse(null);
    double room = Math.abs(v) * TOLERANCE;
    double[] cell = cells.get(net); // its charge moves it, whoever feeds it
    double low = cell != null ? cell[0] : source != null ? source.low() : v - room;
    double high = cell != null ? cell[2] : source != null ? source.high() : v + room;
    return new RailSpec(
        net, v, plain(low), plain(high), plain(c), readAt(revision, net), guessed.contains(net));
  }

  private static double capacitance(Revision revision, String net) {
    double c = 0;
    for (Joint j : revision.net(net)) {
      Part p = revision.part(j.part()).orElse(null);
      if (p != null && p.fitted() && p.kind() == PartKind.CAPACITOR) {
        OptionalDouble f = PartValue.farads(p);
        c += f.orElse(0);
      }
    }
    return c;
  }

  /// A proposed figure without the crumbs of binary arithmetic.
  private static double plain(double value) {
    return new java.math.BigDecimal(value).round(new java.math.MathContext(6)).doubleValue();
  }

  /// Where to put the tip for a net: a test point, else a connector, else the largest pad.
  public static String readAt(Revision revision, String net) {
    return revision.net(net).stream()
        .filter(j -> j.reach() != Joint.Reach.NONE)
        .min(
            Comparator.comparingInt((Joint j) ->
                    switch (PartKind.of(j.part())) {
                      case TEST_POINT -> 0;
                      case CONNECTOR -> 1;
                      default -> 2;
                    })
                .thenComparingDouble(j -> -Math.max(j.widthMm() * j.heightMm(), j.drillMm())))
        .map(j -> PartKind.of(j.part()) == PartKind.TEST_POINT ? j.part() : j.place())
        .orElse("");
  }
}
