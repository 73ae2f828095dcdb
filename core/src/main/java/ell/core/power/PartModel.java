package ell.core.power;

import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.circuit.Circuit;
import ell.core.circuit.Diode;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Quantity;
import ell.core.quantity.Unit;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// How a part acts in a circuit, as far as the bill of materials says it; the rest is typical of
/// its kind, no source. A part of which even the kind is not known acts in no way.
final class PartModel {
  static final double FUSE_OHM = 0.1;
  private static final double BEAD_OHM = 0.1;
  static final double COIL_OHM = 0.1;
  private static final double COIL_HENRY = 10e-6;

  /// A wire has as much.
  private static final double LEAST_HENRY = 1e-9;

  private static final double CERAMIC_OHM = 0.01;
  private static final double LARGE_OHM = 0.15;
  private static final double LARGE_FARAD = 33e-6;

  /// A capacitor keeps its charge for so many seconds.
  private static final double KEEPS = 500;

  /// Of a cell of which nobody says it; typical, no source.
  private static final double CELL_OHM = 0.2;

  private static final double GAIN = 150;
  private static final double LOGIC_THRESHOLD = 1.3;
  private static final double ON_OHM = 0.08;

  /// A fuse that resets trips at twice what it holds, and takes its time.
  private static final double TRIPS = 2;

  private static final double TRIP_SECONDS = 0.5;

  private static final String PLUS_END =
      ".*(ELECTROLYT|ELKO|ELCO|TANTAL|POLARI[SZ]ED|POLYMER|RADIAL|CP_|\\bCAN\\b|CAP-EL).*";

  private static final Pattern PLAIN_VOLTS =
      Pattern.compile("(?<![\\w.])(\\d{1,3}(?:\\.\\d{1,2})?)\\s?V(?![\\w])");

  /// A smaller one has no plus end; common practice, no source.
  private static final double LEAST_PLUS_FARAD = 0.4e-6;

  /// The other way round it leads from some volts on; typical, no source.
  private static final Diode WRONG_WAY = Diode.through(1.0, 0.01, 2, 2);

  private static final Pattern VOLTS =
      Pattern.compile("(?<![\\w.])(?:(\\d{1,3})V(\\d)|(\\d{1,3}(?:\\.\\d{1,2})?)\\s?V)(?![\\w])");

  private PartModel() {}

  /// Puts a part into a circuit.
  ///
  /// @param node of a joint
  /// @param wrong what a fault makes of its value
  /// @param turned whether it sits the wrong way round
  /// @param said how it acts, where somebody said it
  /// @param averaged whether it is the coil of a converter, which is averaged over its cycles: on
  ///   the average a coil is the resistance of its wire
  /// @return whether it acts in any way
  static boolean put(
      Circuit c,
      Part p,
      List<Joint> joints,
      Function<Joint, String> node,
      OptionalDouble wrong,
      boolean turned,
      Optional<PartSaid> said,
      boolean averaged) {
    if (joints.size() == 3 && transistors(p, said)) {
      return transistor(c, p, joints, node, said);
    }
    if (joints.size() != 2) {
      return false;
    }
    String name = p.reference();
    String a = node.apply(joints.get(0));
    String b = node.apply(joints.get(1));
    if (said.isPresent() && said.get().kind().equals("cell")) {
      cell(c, name, turned ? b : a, turned ? a : b, said.get());
      return true;
    }
    switch (kind(p, said)) {
      case RESISTOR -> {
        OptionalDouble ohms = first(wrong, said, "ohms", PartValue.ohms(p));
        ohms.ifPresent(r -> c.resistor(name, a, b, r));
        return ohms.isPresent();
      }
      case CAPACITOR -> {
        OptionalDouble farads = first(wrong, said, "farads", PartValue.farads(p));
        farads.stream()
            .filter(f -> f > 0)
            .forEach(f ->
                c.capacitor(
                    name,
                    a,
                    b,
                    f,
                    or(said, "series", f < LARGE_FARAD ? CERAMIC_OHM : LARGE_OHM),
                    or(said, "leak", KEEPS / f)));
        if (polarised(p)) {
          c.diode(name + " reverse", turned ? a : b, turned ? b : a, WRONG_WAY);
        }
        return farads.isPresent();
      }
      case INDUCTOR -> {
        if (averaged) {
          c.resistor(name, a, b, or(said, "ohms", COIL_OHM));
          return true;
        }
        double saturates = 2 * RatedAmps.of(p).orElse(Double.POSITIVE_INFINITY);
        double henries = first(wrong, said, "henries", OptionalDouble.of(henries(p))).getAsDouble();
        c.coil(
            name,
            a,
            b,
            Math.max(henries, LEAST_HENRY),
            or(said, "ohms", COIL_OHM),
            or(said, "saturates", saturates));
        return true;
      }
      case FERRITE -> c.resistor(name, a, b, or(said, "ohms", BEAD_OHM));
      case FUSE -> {
        OptionalDouble holds = first(OptionalDouble.empty(), said, "holds", RatedAmps.of(p));
        double ohms = or(said, "ohms", FUSE_OHM);
        if (words(p).matches(".*(RESET|PTC|POLY).*") && holds.isPresent() && ohms > 0) {
          double trips = TRIPS * holds.getAsDouble();
          c.resettableFuse(name, a, b, ohms, trips, TRIP_SECONDS);
        } else {
          c.resistor(name, a, b, ohms);
        }
      }
      case DIODE, LED -> {
        boolean firstIsCathode = !joints.get(0).pin().matches("2|A") ^ turned;
        c.diode(name, firstIsCathode ? b : a, firstIsCathode ? a : b, diode(p, said));
      }
      default -> {
        return false;
      }
    }
    return true;
  }

  /// Whether a capacitor has a plus end, which is its first by common practice.
  static boolean polarised(Part p) {
    return p.kind() == PartKind.CAPACITOR
        && PartValue.farads(p).orElse(0) >= LEAST_PLUS_FARAD
        && (words(p) + " " + p.packageName().toUpperCase(Locale.ROOT)).matches(PLUS_END);
  }

  /// The volts that a capacitor's value or its words name; `3V3` in words is the name of a rail.
  static OptionalDouble ratedVolts(Part p) {
    Optional<Double> own = volts(p.value().toUpperCase(Locale.ROOT));
    Matcher m = PLAIN_VOLTS.matcher(p.description().toUpperCase(Locale.ROOT));
    return own.isPresent()
        ? OptionalDouble.of(own.get())
        : m.find() ? OptionalDouble.of(Double.parseDouble(m.group(1))) : OptionalDouble.empty();
  }

  /// What kind a part is: as it was said, else by its reference.
  private static PartKind kind(Part p, Optional<PartSaid> said) {
    return switch (said.map(PartSaid::kind).orElse("")) {
      case "diode", "schottky" -> PartKind.DIODE;
      case "lamp" -> PartKind.LED;
      case "resistor" -> PartKind.RESISTOR;
      case "capacitor" -> PartKind.CAPACITOR;
      case "coil" -> PartKind.INDUCTOR;
      case "fuse" -> PartKind.FUSE;
      default -> p.kind();
    };
  }

  private static boolean transistors(Part p, Optional<PartSaid> said) {
    return p.kind() == PartKind.TRANSISTOR
        || said.map(PartSaid::kind).filter(k -> k.matches("npn|pnp|[np]-channel")).isPresent();
  }

  private static void cell(Circuit c, String name, String plus, String minus, PartSaid s) {
    c.cell(
        name,
        plus,
        minus,
        s.or("empty", 0),
        s.or("full", 1),
        Math.max(s.or("ohms", CELL_OHM), Circuit.LEAST_OHM),
        s.or("charge", 1),
        s.or("share", 1));
  }

  /// What a fault makes of a value, else what was said, else what the bill says.
  private static OptionalDouble first(
      OptionalDouble wrong, Optional<PartSaid> said, String key, OptionalDouble bill) {
    OptionalDouble own = said.map(s -> s.number(key)).orElse(OptionalDouble.empty());
    return wrong.isPresent() ? wrong : own.isPresent() ? own : bill;
  }

  private static double or(Optional<PartSaid> said, String key, double otherwise) {
    return said.map(s -> s.or(key, otherwise)).orElse(otherwise);
  }

  private static String words(Part p) {
    return (p.value() + " " + p.code() + " " + p.description()).toUpperCase(Locale.ROOT);
  }

  private static double henries(Part p) {
    String[] words = p.value().strip().split("[\\s/;]+");
    try {
      Quantity q = EngineeringNumber.read(words[0], Unit.HENRY);
      return q.unit() == Unit.HENRY && q.value() > 0 ? q.value() : COIL_HENRY;
    } catch (NumberFormatException e) {
      return COIL_HENRY;
    }
  }

  /// The junction of a diode or a lamp. A clamp hangs with its cathode at a rail and breaks down at
  /// its volts.
  static Diode diode(Part p, Optional<PartSaid> said) {
    Diode law = bill(p, said.map(PartSaid::kind).orElse(""));
    if (said.isPresent() && said.get().number("forward").isPresent()) {
      double v = said.get().or("forward", 0);
      // said at 10 mA, as lamps and small diodes are
      law = Diode.through(v, 0.01, v > 1 ? 2 : 1.5, law.ohms()).breaking(law.breakdown());
    }
    return said.isPresent() && said.get().number("breakdown").isPresent()
        ? law.breaking(said.get().or("breakdown", 0))
        : law;
  }

  private static Diode bill(Part p, String kind) {
    String w = words(p);
    if (kind.equals("schottky")) {
      return Diode.SCHOTTKY;
    }
    if (kind.equals("diode")) {
      return Diode.SILICON;
    }
    if (p.kind() == PartKind.LED || kind.equals("lamp")) {
      return Diode.lamp(w.matches(".*\\b(BLUE|WHITE|UV)\\b.*") ? 3.0 : 1.9);
    }
    if (w.contains("SCHOTTKY") || w.contains("SKY")) {
      return Diode.SCHOTTKY;
    }
    Optional<Double> breaks =
        w.matches(".*\\b(ZENER|TVS|CLAMP|SUPPRESSOR).*") ? volts(w) : Optional.empty();
    return breaks.map(Diode.SILICON::breaking).orElse(Diode.SILICON);
  }

  private static Optional<Double> volts(String words) {
    Matcher m = VOLTS.matcher(words);
    if (!m.find()) {
      return Optional.empty();
    }
    double v =
        m.group(1) != null
            ? Double.parseDouble(m.group(1) + "." + m.group(2))
            : Double.parseDouble(m.group(3));
    return v > 1 ? Optional.of(v) : Optional.empty();
  }

  /// A transistor whose kind the bill says and whose pins its case or their names say.
  private static boolean transistor(
      Circuit c,
      Part p,
      List<Joint> joints,
      Function<Joint, String> node,
      Optional<PartSaid> said) {
    String kind = said.map(PartSaid::kind).orElse("");
    String w = kind.isEmpty() ? words(p) : kind.toUpperCase(Locale.ROOT);
    boolean npn = w.matches(".*\\bNPN\\b.*");
    boolean pnp = w.matches(".*\\bPNP\\b.*");
    boolean n = w.matches(".*\\b(N-?MOS|N-?FET|N-?MOSFET|N[- ]CH|N[- ]CHANNEL)\\b.*");
    boolean pc = w.matches(".*\\b(P-?MOS|P-?FET|P-?MOSFET|P[- ]CH|P[- ]CHANNEL)\\b.*");
    if ((npn ? 1 : 0) + (pnp ? 1 : 0) + (n ? 1 : 0) + (pc ? 1 : 0) != 1) {
      return false;
    }
    boolean small =
        p.packageName().toUpperCase(Locale.ROOT).matches(".*(SOT-?23|SC-?70|SOT-?323).*");
    String control = pin(joints, node, npn || pnp ? "B" : "G", small ? "1" : "");
    String low = pin(joints, node, npn || pnp ? "E" : "S", small ? "2" : "");
    String high = pin(joints, node, npn || pnp ? "C" : "D", small ? "3" : "");
    if (control == null || low == null || high == null) {
      return false;
    }
    if (npn || pnp) {
      c.bipolar(p.reference(), high, control, low, or(said, "gain", GAIN), pnp);
    } else {
      c.fieldEffect(
          p.reference(),
          high,
          control,
          low,
          or(said, "threshold", LOGIC_THRESHOLD),
          or(said, "on", ON_OHM),
          pc);
    }
    return true;
  }

  private static String pin(
      List<Joint> joints, Function<Joint, String> node, String letter, String number) {
    return joints.stream()
        .filter(j -> j.pin().equalsIgnoreCase(letter) || j.pin().equals(number))
        .findFirst()
        .map(node)
        .orElse(null);
  }
}
