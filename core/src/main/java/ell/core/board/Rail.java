package ell.core.board;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// A net that carries a supply, told by its name. Common practice, no source.
///
/// @param net the net's name
/// @param ground true for a return
/// @param volts the voltage that the name states, if it does
public record Rail(String net, boolean ground, OptionalDouble volts) {
  private static final Pattern GROUND =
      Pattern.compile(
          "[ADPSCE]?GND[ADPS]?\\d?|0V|VSS[AD]?\\d?|GROUND|MASSE|EARTH|COM0V|GND[_-]?[A-Z0-9]{0,6}|[A-Z]{1,6}_GND|GNDPWR|GNDREF");

  /// `12V`, `V12`, `3V3`, `V3P3`, `P3V3`, `N12V`, `5V0A`, `+5`, `12VDC`, `V1V8`.
  private static final Pattern VOLTS =
      Pattern.compile("([+-]|N|P|VCC|VDD|V)?(\\d{1,3})V(\\d{0,2})(DC|SB|STBY|[A-Z]{0,4})");

  private static final Pattern DECIMAL_VOLTS =
      Pattern.compile("([+-]|VCC|VDD|V|P|N)?(\\d{1,3}[.,]\\d{1,2})V?([A-Z]{0,4})");

  /// A number behind the letter: `V12`, `V3P3`, `V3_3` is `V3P3` when its parts are joined.
  private static final Pattern BEHIND = Pattern.compile("V(\\d{1,2})(?:P(\\d{1,2}))?([A-Z]{0,2})");

  /// `3P3V`, `1P8`.
  private static final Pattern POINT =
      Pattern.compile("([+-])?(\\d{1,2})P(\\d{1,2})V?([A-Z]{0,2})");

  /// A number with its sign and nothing else.
  private static final Pattern SIGNED = Pattern.compile("([+-])(\\d{1,3})");

  private static final Pattern NAMED =
      Pattern.compile(
          "[+]?V(IN|CC|DD|BAT|BATT|BUS|SYS|SUP|SUPPLY|EE|PP|AUX|RAW|MOT|MOTOR|RTC|OUT|M|S|USB|CORE|IO|DDA|CCA|CCIO|DDIO|DDD|BAK|BACKUP|PROT|F|LED|HV|DC|PWR|AA|DRIVE|DRV|SERVO|SOLAR|PV|CELL|PACK|STBY|STANDBY|REG|LDO|BOOST|HIGH|CHG|EXT)[A-Z]?\\d{0,2}"
              + "|[AD]V(CC|DD)\\d?|V[+-]|[+-]V|IOVDD|PVDD|AVEE|BAT(T(ERY)?)?\\+?|\\+BAT(T(ERY)?)?|VBAT\\+|PWR|POWER|HV\\+?|DCIN|DC\\+|LED\\+|CELL\\+|PACK\\+|LIPO\\+?|PV\\+|SOLAR\\+?|B\\+|USBV|VUSB\\d?");

  /// Two words that are a rail together and neither alone: `DC_IN`, `PWR_IN`, `V_BAT`, `LDO_OUT`.
  private static final Pattern PAIR =
      Pattern.compile(
          "(DC|PWR|POWER|SUPPLY|BATT?|BATTERY|SOLAR)_?(IN|OUT|RAW|POS)\\+?\\d?"
              + "|V_(IN|BATT?|USB|BUS|SYS|MOT|MOTOR|LED|CC|DD|OUT|SUP|SUPPLY|RAW|EXT|DC|CORE|IO|HV)\\d?"
              + "|(LDO|BUCK|BOOST|REG)\\d?_?(OUT|VOUT)\\d?|(USB|EXT|MOT|MOTOR)_?(PWR|POWER|SUPPLY|V)");

  /// Words that make a net a signal about a rail, or at its level, and no rail.
  private static final Set<String> SIGNAL_WORDS =
      Set.of(
          "EN", "ENABLE", "ENA", "PG", "PGOOD", "OK", "GOOD", "SENSE", "SNS", "FB", "DET", "DETECT",
          "MON", "MONITOR", "ADC", "SW", "LX", "PH", "PHASE", "DIV", "CTRL", "CTL", "ON", "OFF",
          "FLT", "FAULT", "INT", "IRQ", "RST", "RESET", "NRST", "LED", "TX", "RX", "TXD", "RXD",
          "SCL", "SDA", "CLK", "MOSI", "MISO", "CS", "NCS", "SCK", "DATA", "BOOT", "BST", "GATE",
          "PWM", "DRV", "COMP", "SS", "UVLO", "SEL", "TEST", "ADJ", "SET", "PULLUP", "PU", "KEY",
          "BTN", "WAKE", "STAT", "ALERT", "DP", "DM", "ID", "REF");

  /// Behind a voltage they say that the rail is switched, and not that the net is a signal.
  private static final Set<String> SWITCHED = Set.of("SW", "SWITCHED", "GATED");

  /// Reads a net name.
  public static Optional<Rail> of(String net) {
    String name = net.toUpperCase(Locale.ROOT).strip();
    name = name.startsWith("/") ? name.substring(name.lastIndexOf('/') + 1) : name;
    if (GROUND.matcher(name).matches()) {
      return Optional.of(new Rail(net, true, OptionalDouble.of(0)));
    }
    if (PAIR.matcher(name).matches()) {
      return Optional.of(new Rail(net, false, OptionalDouble.empty()));
    }
    boolean rail = false;
    OptionalDouble volts = OptionalDouble.empty();
    String[] tokens = name.split("(?<=[A-Z0-9+])[_\\-/ ](?=[A-Z0-9+])");
    for (int i = 0; i < tokens.length; i++) {
      String token = tokens[i];
      OptionalDouble v = volts(token);
      if (v.isPresent()) {
        volts = volts.isPresent() ? volts : v;
        rail = true;
      } else if (NAMED.matcher(token).matches()) {
        rail = true;
        volts = volts.isEmpty() && token.startsWith("VBUS") ? OptionalDouble.of(5) : volts;
      } else if (i > 0 && i == tokens.length - 1 && SWITCHED.contains(token) && v(tokens[i - 1])) {
        continue; // a rail behind a switch
      } else if (SIGNAL_WORDS.contains(token)
          || SIGNAL_WORDS.contains(token.replaceAll("\\d+$", ""))) {
        return Optional.empty();
      }
    }
    // a lone switch node or sense line such as SW_5V or 5V_SENSE is no rail
    return rail && !name.matches("(SW|REF|ADC)[_-].*")
        ? Optional.of(new Rail(net, false, volts))
        : Optional.empty();
  }

  private static boolean v(String token) {
    return volts(token).isPresent();
  }

  private static OptionalDouble volts(String token) {
    Matcher b = BEHIND.matcher(token);
    if (b.matches()) {
      return number(null, b.group(1), b.group(2));
    }
    Matcher p = POINT.matcher(token);
    if (p.matches()) {
      return number(p.group(1), p.group(2), p.group(3));
    }
    Matcher n = SIGNED.matcher(token);
    if (n.matches()) {
      return number(n.group(1), n.group(2), null);
    }
    Matcher m = VOLTS.matcher(token);
    if (m.matches()) {
      double v = Double.parseDouble(m.group(2) + "." + (m.group(3).isEmpty() ? "0" : m.group(3)));
      String sign = m.group(1) == null ? "" : m.group(1);
      return OptionalDouble.of(sign.equals("-") || sign.equals("N") ? -v : v);
    }
    Matcher d = DECIMAL_VOLTS.matcher(token);
    if (d.matches()) {
      double v = Double.parseDouble(d.group(2).replace(',', '.'));
      return OptionalDouble.of("-".equals(d.group(1)) || "N".equals(d.group(1)) ? -v : v);
    }
    return OptionalDouble.empty();
  }

  private static OptionalDouble number(String sign, String whole, String tenths) {
    double v =
        Double.parseDouble(whole + "." + (tenths == null || tenths.isEmpty() ? "0" : tenths));
    return OptionalDouble.of("-".equals(sign) ? -v : v);
  }

  /// The rails of a revision with at least two joints, grounds first, then by voltage falling.
  public static List<Rail> of(Revision revision) {
    List<Rail> rails = new ArrayList<>();
    for (String net : revision.nets()) {
      if (revision.net(net).size() >= 2) {
        of(net).ifPresent(rails::add);
      }
    }
    rails.sort((a, b) ->
        a.ground() != b.ground()
            ? Boolean.compare(b.ground(), a.ground())
            : Double.compare(b.volts().orElse(1e3), a.volts().orElse(1e3)));
    return List.copyOf(rails);
  }
}
