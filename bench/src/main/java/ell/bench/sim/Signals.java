package ell.bench.sim;

import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.power.Fault;
import ell.core.power.Ladder;
import ell.core.power.PartValue;
import ell.core.pulse.Bounce.Course;
import ell.core.pulse.Wanted;
import ell.core.pulse.Wanted.Driven;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Random;
import java.util.function.DoubleUnaryOperator;
import java.util.function.ToDoubleFunction;
import java.util.stream.Stream;

/// What moves on the lines of a simulated board: clocks that are wanted there run while the part
/// that drives them has its rail, over their line and its echoes; crystals swing as sines. A fault
/// at the driver, the crystal or the lead under the tip takes the signal away.
final class Signals {
  private static final double CRYSTAL_PPM = 20;
  private static final double AWAKE = 0.8;
  private static final double SWINGS = 0.4;
  private static final double USUAL_EDGE = 4e-9;

  private Signals() {}

  /// Volts over seconds at a place, empty where nothing moves.
  ///
  /// @param place as the hands were told
  /// @param volts of a net now
  /// @param seed of the small error of this board's clocks
  static Optional<DoubleUnaryOperator> at(
      SimBoard b, List<Fault> faults, String place, ToDoubleFunction<String> volts, long seed) {
    Wanted w = b.pulse().at(place);
    if (w.clock() <= 0 || faults.stream().anyMatch(f -> stops(f, w, place))) {
      return Optional.empty();
    }
    Optional<String> driver = driver(b, w);
    if (driver.isEmpty()
        || faults.stream().anyMatch(f -> silences(f, driver.get(), w))
        || !awake(b, driver.get(), volts)) {
      return Optional.empty();
    }
    Random own = new Random(seed * 131 + w.net().hashCode());
    double f = w.clock() * (1 + CRYSTAL_PPM * 1e-6 * Math.clamp(own.nextGaussian(), -2, 2));
    if (w.clockGuessed() || crystal(b, w.net()).isPresent()) {
      Optional<String> y = crystal(b, w.net());
      if (y.isPresent() && faults.stream().anyMatch(x -> kills(x, y.get()))) {
        return Optional.empty();
      }
      double supply = supply(b, driver.get());
      double phase = own.nextDouble();
      return Optional.of(
          t -> supply / 2 + SWINGS * supply * Math.sin(2 * Math.PI * (f * t + phase)));
    }
    return Optional.of(driven(w, series(b, faults, w), place, f, own.nextDouble()));
  }

  /// Ohms in series at the source: those of the resistor that the line begins at, as it is fitted
  /// on this board.
  private static double series(SimBoard b, List<Fault> faults, Wanted w) {
    Driven d = w.line().orElse(Driven.USUAL);
    String from = part(d.from());
    if (PartKind.of(from) != PartKind.RESISTOR) {
      return d.series();
    }
    for (Fault f : faults) {
      if (f instanceof Fault.WrongValue(String part, double ohms) && part.equals(from)) {
        return ohms;
      }
    }
    return b.revision()
        .part(from)
        .map(PartValue::ohms)
        .orElse(OptionalDouble.empty())
        .orElse(d.series());
  }

  private static String part(String joint) {
    int dot = joint.lastIndexOf('.');
    return dot < 0 ? joint : joint.substring(0, dot);
  }

  /// What a switching regulator leaves on its rail, a triangle over seconds; nothing elsewhere.
  /// Charge balance of coil and capacitor, as in the sheet of ripple.
  static Optional<DoubleUnaryOperator> ripple(SimBoard b, String net) {
    Optional<Ladder.Step> step =
        b.ladder().feeding(net).filter(s -> s.kind() == Ladder.Kind.SWITCHING);
    Optional<Ladder.RailSpec> rail = b.ladder().rail(net);
    if (step.isEmpty() || rail.isEmpty() || b.ladder().rail(step.get().from()).isEmpty()) {
      return Optional.empty();
    }
    double in = b.ladder().rail(step.get().from()).get().volts();
    double out = rail.get().volts();
    double share = out > in ? 1 - in / out : out / in;
    double coil = Math.abs(in - Math.min(in, out)) * share / (SWITCHES * coil(b, net));
    double farads = Math.max(rail.get().capacitance(), LEAST_FARADS);
    double high = Math.max(coil, LEAST_COIL) / (8 * SWITCHES * farads) + ESR * coil;
    return Optional.of(t -> {
      double x = t * SWITCHES - Math.floor(t * SWITCHES);
      return high * (x < share ? x / share - 0.5 : 0.5 - (x - share) / (1 - share));
    });
  }

  /// Typical, no source.
  private static final double SWITCHES = 500e3;

  private static final double USUAL_COIL = 10e-6;
  private static final double LEAST_FARADS = 1e-6;
  private static final double LEAST_COIL = 0.05;
  private static final double ESR = 5e-3;

  private static double coil(SimBoard b, String net) {
    return b.revision().net(net).stream()
        .map(Joint::part)
        .distinct()
        .flatMap(p -> b.revision().part(p).stream())
        .filter(p -> p.kind() == PartKind.INDUCTOR)
        .flatMap(p -> {
          try {
            double l = EngineeringNumber.parse(p.value().split("[\\s,/]")[0], Unit.HENRY);
            return l > 0 ? Stream.of(l) : Stream.<Double>empty();
          } catch (NumberFormatException e) {
            return Stream.<Double>empty();
          }
        })
        .findFirst()
        .orElse(USUAL_COIL);
  }

  private static DoubleUnaryOperator driven(
      Wanted w, double series, String place, double f, double phase) {
    Driven d = w.line().orElse(Driven.USUAL).with(series);
    double half = 0.5 / f;
    if (!d.lined() || !d.bounce().settles()) {
      double ramp = Math.min(half, (d.edge() > 0 ? d.edge() : USUAL_EDGE) / 0.8);
      return t ->
          summed(t, half, phase, ramp, d.swing(), x -> d.swing() * Math.clamp(x / ramp, 0, 1));
    }
    double at = place.equals(d.from()) ? 0 : d.taps().getOrDefault(place, 1.0);
    Course c = d.bounce().at(List.of(at)).getFirst();
    double[] s = c.seconds();
    return t -> summed(t, half, phase, s[s.length - 1], c.last(), x -> value(c, x));
  }

  /// A square wave of which each edge makes the same course: those that have settled are one level,
  /// the others are added up.
  private static double summed(
      double t, double half, double phase, double lasts, double last, DoubleUnaryOperator course) {
    double now = t + 2 * half * phase;
    long newest = (long) Math.floor(now / half);
    double v = 0;
    long n = newest;
    for (; now - n * half < lasts && newest - n < 10_000; n--) {
      v += (up(n) ? 1 : -1) * course.applyAsDouble(now - n * half);
    }
    return v + (up(n) ? last : 0);
  }

  private static boolean up(long edge) {
    return Math.floorMod(edge, 2) == 0;
  }

  private static double value(Course c, double t) {
    double[] s = c.seconds();
    double[] v = c.volts();
    int lo = 0;
    int hi = s.length - 1;
    if (t <= s[0]) {
      return v[0];
    }
    while (hi - lo > 1) {
      int mid = (lo + hi) / 2;
      if (s[mid] <= t) {
        lo = mid;
      } else {
        hi = mid;
      }
    }
    double wide = s[hi] - s[lo];
    return wide <= 0 ? v[hi] : v[lo] + (v[hi] - v[lo]) * Math.min(1, (t - s[lo]) / wide);
  }

  /// The part that drives a net: as it is said, else the first chip or module on it.
  private static Optional<String> driver(SimBoard b, Wanted w) {
    String from = w.line().map(Driven::from).orElse("");
    if (!from.isEmpty()) {
      return Optional.of(part(from));
    }
    return b.revision().net(w.net()).stream()
        .map(Joint::part)
        .filter(p -> {
          PartKind k = PartKind.of(p);
          return k == PartKind.CHIP || k == PartKind.MODULE;
        })
        .findFirst();
  }

  private static Optional<String> crystal(SimBoard b, String net) {
    return b.revision().net(net).stream()
        .map(Joint::part)
        .filter(p -> PartKind.of(p) == PartKind.CRYSTAL)
        .findFirst();
  }

  private static boolean awake(SimBoard b, String part, ToDoubleFunction<String> volts) {
    if (b.revision().part(part).filter(Part::fitted).isEmpty()) {
      return false;
    }
    PartKind kind = PartKind.of(part);
    boolean outside = kind == PartKind.RESISTOR || kind == PartKind.CONNECTOR;
    // what comes in from outside is there while anything of the board has power
    List<Ladder.RailSpec> rails = outside ? b.ladder().supplied() : rails(b, part);
    return !rails.isEmpty()
        && rails.stream().allMatch(r -> volts.applyAsDouble(r.net()) > AWAKE * r.volts());
  }

  private static List<Ladder.RailSpec> rails(SimBoard b, String part) {
    return b.revision().jointsOf(part).stream()
        .map(Joint::net)
        .distinct()
        .flatMap(n -> b.ladder().rail(n).stream())
        .filter(r -> b.ladder().supplied().contains(r))
        .toList();
  }

  private static double supply(SimBoard b, String part) {
    return rails(b, part).stream().mapToDouble(Ladder.RailSpec::volts).min().orElse(3.3);
  }

  /// Whether a fault keeps the signal from the tip: the lead under it has no joint, or the net is
  /// joined to another.
  private static boolean stops(Fault f, Wanted w, String place) {
    return switch (f) {
      case Fault.Open(String part, String pin) -> place.equals(part + "." + pin);
      case Fault.Loose(String part, String pin) -> place.equals(part + "." + pin);
      case Fault.Tied(String part, String pin, String net) -> place.equals(part + "." + pin);
      case Fault.Bridge(String a, String c, double ohms) -> ohms < 20 && (net(a, w) || net(c, w));
      default -> false;
    };
  }

  private static boolean net(String bridged, Wanted w) {
    return bridged.equals(w.net()) || bridged.equals(w.place());
  }

  private static boolean silences(Fault f, String driver, Wanted w) {
    String from = w.line().map(Driven::from).orElse("");
    return switch (f) {
      case Fault.Dead(String part) -> part.equals(driver);
      case Fault.Missing(String part) -> part.equals(driver);
      case Fault.Turned(String part) -> part.equals(driver);
      case Fault.Open(String part, String pin) -> from.equals(part + "." + pin);
      case Fault.Firmware(String words) -> true;
      default -> false;
    };
  }

  private static boolean kills(Fault f, String crystal) {
    return switch (f) {
      case Fault.Dead(String part) -> part.equals(crystal);
      case Fault.Missing(String part) -> part.equals(crystal);
      case Fault.Short(String part) -> part.equals(crystal);
      case Fault.Open(String part, String pin) -> part.equals(crystal);
      default -> false;
    };
  }
}
