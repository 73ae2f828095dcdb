package ell.bench.sim;

import ell.bench.sim.ScpiStatus.Refused;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// The parameters of a command: numbers with suffixes and words for their ends, switches, strings,
/// channel lists. Source: IEEE 488.2, 7.7; SCPI-99 volume 1, 7.2 and 7.3, and its table of
/// multipliers (from memory).
final class ScpiData {
  private static final Pattern NUMBER =
      Pattern.compile(
          "([+-]?(?:\\d+\\.?\\d*|\\.\\d+)(?:\\s*[eE]\\s*[+-]?\\d{1,5})?)\\s*([A-Za-z/]*)");
  private static final Pattern OTHER_BASE =
      Pattern.compile("(?i)#(?:H([0-9A-F]+)|Q([0-7]+)|B([01]+))");
  private static final Map<String, Double> MULTIPLIERS =
      Map.ofEntries(
          Map.entry("EX", 1e18),
          Map.entry("PE", 1e15),
          Map.entry("T", 1e12),
          Map.entry("G", 1e9),
          Map.entry("MA", 1e6),
          Map.entry("K", 1e3),
          Map.entry("", 1.0),
          Map.entry("M", 1e-3),
          Map.entry("U", 1e-6),
          Map.entry("N", 1e-9),
          Map.entry("P", 1e-12),
          Map.entry("F", 1e-15),
          Map.entry("A", 1e-18));

  private ScpiData() {}

  /// The range of a setting.
  ///
  /// @param unit such as `V`, empty when the number has none
  /// @param preset what `DEF` and a reset set
  record Range(String unit, double least, double most, double preset) {
    /// The end that a word means, NaN when it means none.
    private double word(String text) {
      return switch (text.toUpperCase(Locale.ROOT)) {
        case "MIN", "MINIMUM" -> least;
        case "MAX", "MAXIMUM" -> most;
        case "DEF", "DEFAULT" -> preset;
        default -> Double.NaN;
      };
    }

    /// A setting, checked.
    double set(String text) {
      double d = word(text);
      if (Double.isNaN(d)) {
        d = number(text, unit);
      }
      if (!(d >= least && d <= most)) {
        throw new Refused(-222, "Data out of range");
      }
      return d;
    }

    /// What is answered to a query that may ask for an end of the range.
    double ask(List<String> data, double now) {
      if (data.isEmpty()) {
        return now;
      }
      double d = word(data.getFirst());
      if (Double.isNaN(d)) {
        throw new Refused(-141, "Invalid character data");
      }
      return d;
    }
  }

  /// A number with its suffix.
  static double number(String text, String unit) {
    Matcher base = OTHER_BASE.matcher(text);
    if (base.matches()) {
      try {
        return base.group(1) != null
            ? Long.parseLong(base.group(1), 16)
            : base.group(2) != null
                ? Long.parseLong(base.group(2), 8)
                : Long.parseLong(base.group(3), 2);
      } catch (NumberFormatException e) {
        throw new Refused(-222, "Data out of range");
      }
    }
    Matcher m = NUMBER.matcher(text);
    if (!m.matches()) {
      throw !text.isEmpty()
              && (Character.isDigit(text.charAt(0)) || "+-.".indexOf(text.charAt(0)) >= 0)
          ? new Refused(-121, "Invalid character in number")
          : new Refused(-104, "Data type error");
    }
    double d = Double.parseDouble(m.group(1).replaceAll("\\s", ""));
    if (!Double.isFinite(d)) {
      throw new Refused(-123, "Exponent too large");
    }
    String suffix = m.group(2).toUpperCase(Locale.ROOT);
    if (suffix.isEmpty()) {
      return d;
    }
    if (unit.isEmpty()) {
      throw new Refused(-138, "Suffix not allowed");
    }
    Double times =
        suffix.endsWith(unit)
            ? MULTIPLIERS.get(suffix.substring(0, suffix.length() - unit.length()))
            : null;
    if (times == null) {
      throw new Refused(-131, "Invalid suffix");
    }
    boolean mega = suffix.equals("MOHM") || suffix.equals("MHZ");
    return d * (mega ? 1e6 : times);
  }

  /// A switch: a word, or a number that is rounded; everything but 0 is on.
  static boolean flag(String text) {
    return switch (text.toUpperCase(Locale.ROOT)) {
      case "ON" -> true;
      case "OFF" -> false;
      default -> Math.rint(number(text, "")) != 0;
    };
  }

  /// A whole number of a register.
  static int register(String text, int most) {
    double d = Math.rint(number(text, ""));
    if (!(d >= 0 && d <= most)) {
      throw new Refused(-222, "Data out of range");
    }
    return (int) d;
  }

  /// Characters in quotes, a doubled quote one of them; a bare word stands for itself.
  static String string(String text) {
    char c = text.charAt(0);
    if (c == '"' || c == '\'') {
      if (text.length() < 2 || text.charAt(text.length() - 1) != c) {
        throw new Refused(-151, "Invalid string data");
      }
      return text.substring(1, text.length() - 1).replace("" + c + c, "" + c);
    }
    return text;
  }

  /// Parameters, and the channels that a list behind them names.
  ///
  /// @param channels counted from 1; empty when there is no list
  record Listed(List<Integer> channels, List<String> data) {}

  private static final int MOST_LISTED = 64;

  /// Takes a channel list from the end of the parameters: `(@1)`, `(@1,3)`, `(@1:3)`.
  ///
  /// @param outputs how many channels there are
  static Listed listed(List<String> data, int outputs) {
    if (data.isEmpty() || !data.getLast().startsWith("(")) {
      return new Listed(List.of(), data);
    }
    String list = data.getLast().replaceAll("\\s", "");
    if (!list.matches("\\(@\\d+([,:]\\d+)*\\)")) {
      throw new Refused(-171, "Invalid expression");
    }
    List<Integer> all = new ArrayList<>();
    for (String one : list.substring(2, list.length() - 1).split(",")) {
      String[] ends = one.split(":");
      int from = channel(ends[0], outputs);
      int to = channel(ends[ends.length - 1], outputs);
      if (ends.length > 2 || to < from || all.size() > MOST_LISTED) {
        throw new Refused(-171, "Invalid expression");
      }
      for (int c = from; c <= to; c++) {
        all.add(c);
      }
    }
    return new Listed(all, data.subList(0, data.size() - 1));
  }

  private static int channel(String text, int outputs) {
    if (text.length() > 3 || Integer.parseInt(text) < 1 || Integer.parseInt(text) > outputs) {
      throw new Refused(-241, "Hardware missing");
    }
    return Integer.parseInt(text);
  }
}
