package ell.core.pulse;

import ell.core.board.Joint;
import ell.core.board.Revision;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Limits;
import ell.core.quantity.Unit;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/// Reads what somebody says of a place, a line each: `CLK clock=2MHz within=100ppm family=cmos3.3`,
/// `CLK rise=..5ns`, `CLK from=U1.3 driver=25ohm length=0.48m z0=120ohm velocity=0.61`, `signature
/// U4.7 period=45us..55us bad: restarts, alive, no program`, `CLK none`.
final class PulseSaid {
  private static final String SIGNATURE = "signature ";
  private static final String STACK = "stack ";

  private PulseSaid() {}

  /// What was said so far.
  static final class Gathered {
    final Map<String, Wanted> places = new LinkedHashMap<>();
    final Map<String, Signature> signatures = new LinkedHashMap<>();
    Stack stack = Stack.USUAL;
    final java.util.Set<String> nothing = new java.util.HashSet<>();
  }

  /// Takes one more line.
  ///
  /// @throws IllegalArgumentException saying what was found and what is wanted
  static void take(
      String line, Gathered all, Revision r, List<LogicFamily> families, Guesses guesses) {
    String l = line.strip();
    if (l.startsWith(SIGNATURE)) {
      Signature s = signature(l.substring(SIGNATURE.length()).strip(), r);
      all.signatures.put(s.place() + "\n" + s.name(), s);
      return;
    }
    if (l.startsWith(STACK)) {
      all.stack = stack(l.substring(STACK.length()).strip(), all.stack);
      return;
    }
    if (l.startsWith("no " + SIGNATURE)) {
      String name = l.substring(3 + SIGNATURE.length()).strip();
      if (!all.signatures.values().removeIf(s -> s.name().equals(name))) {
        throw new IllegalArgumentException("there is no signature '" + name + "'");
      }
      return;
    }
    String[] words = l.split("[\\s,]+");
    String place = words[0];
    String net = net(place, r);
    if (words.length == 2 && words[1].equalsIgnoreCase("none")) {
      all.places.remove(place);
      all.nothing.add(place);
      return;
    }
    if (words.length < 2) {
      throw new IllegalArgumentException(
          "after " + place + " comes what should be there, such as clock=2MHz or family=cmos3.3");
    }
    all.nothing.remove(place);
    Wanted w = all.places.getOrDefault(place, guesses.of(place, net));
    for (int i = 1; i < words.length; i++) {
      int eq = words[i].indexOf('=');
      if (eq < 1) {
        throw new IllegalArgumentException(
            "expected name=value, such as clock=2MHz, found '" + words[i] + "'");
      }
      w =
          PulseWord.take(
              w,
              words[i].substring(0, eq).toLowerCase(Locale.ROOT),
              words[i].substring(eq + 1),
              r,
              families);
    }
    all.places.put(place, w);
  }

  /// What is taken of a place before anything is said.
  interface Guesses {
    Wanted of(String place, String net);
  }

  /// The net of a place.
  static String net(String place, Revision r) {
    if (!r.net(place).isEmpty()) {
      return place;
    }
    return r.joint(place)
        .map(Joint::net)
        .orElseThrow(() ->
            new IllegalArgumentException(
                "'"
                    + place
                    + "' is no net and no joint of this revision; joints are written as U3.4"));
  }

  private static Stack stack(String text, Stack was) {
    double height = was.height();
    double er = was.er();
    double thickness = was.thickness();
    boolean between = was.between();
    for (String word : text.split("[\\s,]+")) {
      int eq = word.indexOf('=');
      String name = eq < 0 ? word : word.substring(0, eq);
      String value = word.substring(eq + 1);
      switch (name) {
        case "height" -> height = EngineeringNumber.parse(value, Unit.METRE);
        case "er" -> er = EngineeringNumber.parse(value, Unit.ONE);
        case "thickness" -> thickness = EngineeringNumber.parse(value, Unit.METRE);
        case "between" -> between = true;
        case "over" -> between = false;
        default ->
            throw new IllegalArgumentException(
                "a stack is height=0.2mm er=4.3 thickness=35um, over or between planes; found '"
                    + word
                    + "'");
      }
    }
    return new Stack(height, er, thickness, between, false);
  }

  private static Signature signature(String text, Revision r) {
    int colon = text.indexOf(':');
    if (colon < 0 || colon == text.length() - 1) {
      throw new IllegalArgumentException(
          "a signature ends with what it means: signature U4.7 period=45us..55us bad: no program");
    }
    String name = text.substring(colon + 1).strip();
    String[] words = text.substring(0, colon).strip().split("\\s+");
    net(words[0], r);
    boolean good = true;
    Map<String, Limits> limits = new LinkedHashMap<>();
    for (int i = 1; i < words.length; i++) {
      int eq = words[i].indexOf('=');
      if (words[i].equalsIgnoreCase("bad") || words[i].equalsIgnoreCase("good")) {
        good = words[i].equalsIgnoreCase("good");
      } else if (eq > 0) {
        String m = measure(words[i].substring(0, eq));
        limits.put(m, limits(words[i].substring(eq + 1), Measures.NAMES.get(m)));
      } else {
        throw new IllegalArgumentException(
            "expected limits, good or bad, found '" + words[i] + "'");
      }
    }
    return new Signature(words[0], name, good, limits);
  }

  /// The measure of a name, however its capitals are.
  static String measure(String name) {
    return Measures.NAMES.keySet().stream()
        .filter(m -> m.equalsIgnoreCase(name))
        .findFirst()
        .orElseThrow(() ->
            new IllegalArgumentException(
                "nothing measures '"
                    + name
                    + "'; there are "
                    + String.join(", ", Measures.NAMES.keySet())));
  }

  /// Limits as `2ns..5ns`, `..5ns`, `2ns..`, or one value for both.
  static Limits limits(String text, Unit unit) {
    int dots = text.indexOf("..");
    if (dots < 0) {
      double v = EngineeringNumber.parse(text, unit);
      return new Limits(v, v);
    }
    String low = text.substring(0, dots);
    String high = text.substring(dots + 2);
    if (low.isEmpty() && high.isEmpty()) {
      throw new IllegalArgumentException("limits are written as 2ns..5ns, found '" + text + "'");
    }
    return new Limits(
        low.isEmpty() ? Double.NEGATIVE_INFINITY : EngineeringNumber.parse(low, unit),
        high.isEmpty() ? Double.POSITIVE_INFINITY : EngineeringNumber.parse(high, unit));
  }

  /// The same as text.
  static String range(Limits l, Unit unit) {
    return (Double.isInfinite(l.low()) ? "" : plain(l.low(), unit))
        + ".."
        + (Double.isInfinite(l.high()) ? "" : plain(l.high(), unit));
  }

  static String hertz(double f) {
    return plain(f, Unit.HERTZ);
  }

  /// A number that is read back as the same.
  private static String plain(double v, Unit unit) {
    return EngineeringNumber.print(v, unit, 6)
        .replace("\u00a0", "")
        .replace(" ", "")
        .replace('\u2212', '-');
  }

  /// Reads a share, also as `100ppm` or `2%`.
  static double share(String text) {
    String t = text.strip().toLowerCase(Locale.ROOT);
    if (t.endsWith("ppm")) {
      return EngineeringNumber.parse(t.substring(0, t.length() - 3), Unit.ONE) * 1e-6;
    }
    return t.endsWith("%")
        ? EngineeringNumber.parse(t.substring(0, t.length() - 1), Unit.ONE) / 100
        : EngineeringNumber.parse(t, Unit.ONE);
  }

  /// A joint that the revision has.
  static String joint(String text, Revision r) {
    return r.joint(text)
        .map(Joint::place)
        .orElseThrow(
            () -> new IllegalArgumentException("'" + text + "' is no joint of this revision"));
  }
}
