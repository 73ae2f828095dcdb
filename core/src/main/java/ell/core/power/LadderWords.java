package ell.core.power;

import ell.core.board.Joint;
import ell.core.board.Revision;
import ell.core.power.Ladder.Kind;
import ell.core.power.LadderSaid.About;
import ell.core.power.LadderSaid.Draw;
import ell.core.power.LadderSaid.Gives;
import ell.core.power.LadderSaid.Span;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Quantity;
import ell.core.quantity.Unit;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;

/// Reads what somebody says of a power ladder, a line for each thing. Used once.
final class LadderWords {
  private final Map<String, Span> rails = new LinkedHashMap<>();
  private final Map<String, Span> sources = new LinkedHashMap<>();
  private final Map<String, Draw> loads = new LinkedHashMap<>();
  private final Map<String, Gives> regulators = new LinkedHashMap<>();
  private final Set<String> notRails = new TreeSet<>();
  private final Map<String, PartSaid> parts = new LinkedHashMap<>();
  private final Revision revision;

  LadderWords(Revision revision) {
    this.revision = revision;
  }

  /// Reads answers; a later one replaces an earlier one on the same thing.
  LadderSaid read(List<String> lines) {
    for (String line : lines) {
      String text = line.strip();
      int blank = text.indexOf(' ');
      Optional<About> about = About.of(blank < 0 ? text : text.substring(0, blank));
      if (about.isEmpty() || blank < 0) {
        throw new IllegalArgumentException(
            "expected such as rail BAT+=3.0..4.25, found '" + text + "'");
      }
      try {
        take(about.get(), text.substring(blank + 1).strip());
      } catch (IllegalArgumentException e) {
        throw new IllegalArgumentException(
            about.get().word()
                + ": "
                + e.getMessage()
                + "; expected such as "
                + about.get().example(),
            e);
      }
    }
    return new LadderSaid(rails, sources, loads, regulators, notRails, parts);
  }

  private void take(About about, String text) {
    if (about == About.NOT_A_RAIL) {
      String net = net(text, revision);
      notRails.add(net);
      rails.remove(net);
      sources.remove(net);
      return;
    }
    int equals =
        about == About.PART
            ? text.indexOf('=')
            : text.lastIndexOf('=', text.indexOf(',') < 0 ? text.length() : text.indexOf(','));
    if (equals < 1) {
      throw new IllegalArgumentException("nothing is said of '" + text + "'");
    }
    String of = text.substring(0, equals).strip();
    String what = text.substring(equals + 1).strip();
    switch (about) {
      case RAIL -> {
        String net = net(of, revision);
        rails.put(net, span(what));
        notRails.remove(net);
      }
      case SOURCE -> {
        String net = net(of, revision);
        sources.remove(net);
        sources.put(net, source(what));
        notRails.remove(net);
      }
      case LOAD -> loads.put(part(of, revision), draw(what, revision));
      case REGULATOR -> regulators.put(part(of, revision), gives(what, revision));
      case PART -> {
        String part = part(of, revision);
        PartSaid said = PartSaid.parse(what);
        if (!said.enable().isEmpty() && revision.joint(part, said.enable()).isEmpty()) {
          throw new IllegalArgumentException(part + " has no pin '" + said.enable() + "'");
        }
        parts.put(part, said);
      }
      case NOT_A_RAIL -> {}
    }
  }

  /// A net by its name or by one of its joints.
  private static String net(String text, Revision revision) {
    if (!revision.net(text).isEmpty()) {
      return text;
    }
    List<String> alike = revision.nets().stream().filter(n -> n.equalsIgnoreCase(text)).toList();
    if (alike.size() == 1) {
      return alike.getFirst();
    }
    Optional<Joint> j = revision.joint(text);
    if (j.isPresent() && j.get().connected()) {
      return j.get().net();
    }
    throw new IllegalArgumentException(
        revision.title() + " has no net and no joint '" + text + "'");
  }

  private static String part(String text, Revision revision) {
    return revision.parts().stream()
        .map(p -> p.reference())
        .filter(r -> r.equalsIgnoreCase(text))
        .findFirst()
        .orElseThrow(
            () -> new IllegalArgumentException(revision.title() + " has no part '" + text + "'"));
  }

  /// `12V`, `3.0..4.25`, `3.0..3.7..4.2`, `5V+-2%`.
  private static Span span(String text) {
    String[] ends = text.split("\\.{2,3}|…");
    if (ends.length == 1) {
      String[] off = text.split("\\+-|\\+/-|±");
      double v = number(off[0], Unit.VOLT);
      double share = LadderSaid.TOLERANCE;
      if (off.length == 2) {
        String t = off[1].strip();
        share =
            t.endsWith("%")
                ? EngineeringNumber.parse(t.substring(0, t.length() - 1), Unit.ONE) / 100
                : number(t, Unit.VOLT) / Math.abs(v);
      }
      double room = Math.abs(v) * share;
      return new Span(plain(v - room), v, plain(v + room));
    }
    if (ends.length > 3) {
      throw new IllegalArgumentException("too many ends in '" + text + "'");
    }
    double low = number(ends[0], Unit.VOLT);
    double high = number(ends[ends.length - 1], Unit.VOLT);
    double middle = ends.length == 3 ? number(ends[1], Unit.VOLT) : plain((low + high) / 2);
    if (!(low <= middle && middle <= high)) {
      throw new IllegalArgumentException("volts must rise in '" + text + "'");
    }
    return new Span(low, middle, high);
  }

  /// Volts, and on which output of the supply: `12V,channel=2`.
  private Span source(String text) {
    int comma = text.indexOf(',');
    if (comma < 0) {
      return span(text);
    }
    String rest = text.substring(comma + 1).strip();
    if (!rest.matches("(?i)channel\\s*=\\s*\\d{1,2}")) {
      throw new IllegalArgumentException("'" + rest + "' is no channel");
    }
    int channel = Integer.parseInt(rest.replaceAll("\\D", ""));
    if (channel < 1 || channel > Ladder.MOST_CHANNELS) {
      throw new IllegalArgumentException(
          "channels go from 1 to " + Ladder.MOST_CHANNELS + ", found " + channel);
    }
    sources.forEach((net, s) -> {
      if (s.channel() == channel) {
        throw new IllegalArgumentException("channel " + channel + " feeds " + net + " already");
      }
    });
    Span s = span(text.substring(0, comma));
    return new Span(s.low(), s.volts(), s.high(), channel);
  }

  static double plain(double value) {
    return new java.math.BigDecimal(value).round(new java.math.MathContext(6)).doubleValue();
  }

  private static double number(String text, Unit unit) {
    double v = EngineeringNumber.parse(text.strip(), unit);
    if (!(Math.abs(v) <= 1000)) {
      throw new IllegalArgumentException("'" + text.strip() + "' is beyond what a bench has");
    }
    return v;
  }

  /// `80mA`, `20mA,worst=80mA`, `5mA,rail=3V3`.
  private static Draw draw(String text, Revision revision) {
    Map<String, Double> amps = new HashMap<>();
    String rail = "";
    for (String one : text.split(",")) {
      int equals = one.indexOf('=');
      String key = equals < 0 ? "boot" : one.substring(0, equals).strip().toLowerCase(Locale.ROOT);
      String what = one.substring(equals + 1).strip();
      if (key.equals("rail")) {
        rail = net(what, revision);
      } else if (Ladder.STATES.contains(key)) {
        amps.put(key, notNegative(number(what, Unit.AMPERE), what));
      } else {
        throw new IllegalArgumentException(
            "'" + key + "' is no state; there are " + String.join(", ", Ladder.STATES));
      }
    }
    if (amps.isEmpty()) {
      throw new IllegalArgumentException("no current in '" + text + "'");
    }
    return new Draw(rail, Map.copyOf(amps));
  }

  private static double notNegative(double v, String text) {
    if (v < 0) {
      throw new IllegalArgumentException("'" + text + "' is below 0");
    }
    return v;
  }

  private static Gives gives(String text, Revision revision) {
    double volts = Double.NaN;
    double limit = Double.NaN;
    double dropout = Double.NaN;
    double efficiency = Double.NaN;
    Kind kind = null;
    String from = "";
    String to = "";
    for (String one : text.split(",")) {
      int equals = one.indexOf('=');
      String key = equals < 0 ? "" : one.substring(0, equals).strip().toLowerCase(Locale.ROOT);
      String what = one.substring(equals + 1).strip();
      switch (key) {
        case "" -> {
          if (what.equalsIgnoreCase("linear")) {
            kind = Kind.LINEAR;
          } else if (what.equalsIgnoreCase("switching")) {
            kind = Kind.SWITCHING;
          } else {
            Quantity q = EngineeringNumber.read(what, Unit.VOLT);
            if (q.unit() == Unit.AMPERE) {
              limit = notNegative(q.value(), what);
            } else if (q.unit() == Unit.VOLT) {
              volts = notNegative(q.value(), what);
            } else {
              throw new IllegalArgumentException("'" + what + "' is neither volts nor amperes");
            }
          }
        }
        case "dropout" -> dropout = notNegative(number(what, Unit.VOLT), what);
        case "limit" -> limit = notNegative(number(what, Unit.AMPERE), what);
        case "efficiency" -> {
          efficiency =
              what.endsWith("%")
                  ? EngineeringNumber.parse(what.substring(0, what.length() - 1), Unit.ONE) / 100
                  : EngineeringNumber.parse(what, Unit.ONE);
          if (!(efficiency > 0 && efficiency <= 1)) {
            throw new IllegalArgumentException("an efficiency lies above 0 and up to 1");
          }
        }
        case "in" -> from = net(what, revision);
        case "out" -> to = net(what, revision);
        default -> throw new IllegalArgumentException("'" + key + "' is not known here");
      }
    }
    return new Gives(volts, limit, dropout, efficiency, kind, from, to);
  }
}
