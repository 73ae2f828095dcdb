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
      Pattern.compile("[ADPSC]?GND[ADP]?\\d?|0V|VSS[AD]?|GROUND|EARTH|COM0V|GND_?[A-Z0-9]{0,4}");
  private static final Pattern VOLTS =
      Pattern.compile("([+-]|N|P|VCC|VDD|V)?(\\d{1,3})V(\\d{0,2})([A-Z]{0,4})");
  private static final Pattern DECIMAL_VOLTS =
      Pattern.compile("([+-]|VCC|VDD|V)?(\\d{1,3}[.,]\\d{1,2})V?([A-Z]{0,4})");
  private static final Pattern NAMED =
      Pattern.compile(
          "V(IN|CC|DD|BAT|BATT|BUS|SYS|SUP|SUPPLY|EE|PP|AUX|RAW|MOT|RTC|OUT|M|S|USB|CORE|IO|DDA|CCA|CCIO|DDIO|DDD|BAK|BACKUP|PROT|F)[A-Z]?\\d{0,2}|[AD]V(CC|DD)\\d?|V\\+|IOVDD|BAT\\+?|VBAT\\+|PWR|\\+?BATT");

  /// Words that make a net a signal about a rail, or at its level, and no rail.
  private static final Set<String> SIGNAL_WORDS =
      Set.of(
          "EN", "ENABLE", "ENA", "PG", "PGOOD", "OK", "GOOD", "SENSE", "SNS", "FB", "DET", "DETECT",
          "MON", "MONITOR", "ADC", "SW", "LX", "PH", "PHASE", "DIV", "CTRL", "CTL", "ON", "OFF",
          "FLT", "FAULT", "INT", "IRQ", "RST", "RESET", "NRST", "LED", "TX", "RX", "TXD", "RXD",
          "SCL", "SDA", "CLK", "MOSI", "MISO", "CS", "NCS", "SCK", "DATA", "BOOT", "BST", "GATE",
          "PWM", "DRV", "COMP", "SS", "UVLO", "SEL", "TEST", "ADJ", "SET", "PULLUP", "PU", "KEY",
          "BTN", "WAKE", "STAT", "ALERT", "DP", "DM", "ID", "REF");

  /// Reads a net name.
  public static Optional<Rail> of(String net) {
    String name = net.toUpperCase(Locale.ROOT).strip();
    name = name.startsWith("/") ? name.substring(name.lastIndexOf('/') + 1) : name;
    if (GROUND.matcher(name).matches()) {
      return Optional.of(new Rail(net, true, OptionalDouble.of(0)));
    }
    boolean rail = false;
    OptionalDouble volts = OptionalDouble.empty();
    for (String token : name.split("(?<=[A-Z0-9+])[_\\-/ ](?=[A-Z0-9+])")) {
      OptionalDouble v = volts(token);
      if (v.isPresent()) {
        volts = volts.isPresent() ? volts : v;
        rail = true;
      } else if (NAMED.matcher(token).matches()) {
        rail = true;
        volts = volts.isEmpty() && token.startsWith("VBUS") ? OptionalDouble.of(5) : volts;
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

  private static OptionalDouble volts(String token) {
    Matcher m = VOLTS.matcher(token);
    if (m.matches()) {
      double v = Double.parseDouble(m.group(2) + "." + (m.group(3).isEmpty() ? "0" : m.group(3)));
      String sign = m.group(1) == null ? "" : m.group(1);
      return OptionalDouble.of(sign.equals("-") || sign.equals("N") ? -v : v);
    }
    Matcher d = DECIMAL_VOLTS.matcher(token);
    if (d.matches()) {
      double v = Double.parseDouble(d.group(2).replace(',', '.'));
      return OptionalDouble.of("-".equals(d.group(1)) ? -v : v);
    }
    return OptionalDouble.empty();
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
