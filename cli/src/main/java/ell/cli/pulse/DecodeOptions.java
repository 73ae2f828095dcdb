package ell.cli.pulse;

import ell.cli.shell.Given;
import ell.core.pulse.Wave;
import ell.core.pulse.bus.Decoded;
import ell.core.pulse.bus.Levels;
import ell.core.pulse.bus.Spi;
import ell.core.pulse.bus.TwoWire;
import ell.core.pulse.bus.Uart;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.core.series.Log;
import ell.core.series.Series;
import ell.work.pulse.Captures;
import ell.work.space.ActException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import picocli.CommandLine.Option;

/// Which bus a capture is read as.
final class DecodeOptions {
  @Option(
      names = "--decode",
      paramLabel = "BUS",
      description = "uart, two-wire or spi: what is said on the lines")
  Optional<String> bus = Optional.empty();

  @Option(
      names = "--baud",
      description = "of a uart, such as 115200; by its shortest pulse when not said")
  Optional<String> baud = Optional.empty();

  @Option(names = "--frame", description = "of a uart, such as 8N1 or 7E1")
  String frame = "8N1";

  @Option(names = "--inverted", description = "a uart whose idle level is low")
  boolean inverted;

  @Option(
      names = "--lines",
      paramLabel = "ROLE=CHANNEL",
      split = ",",
      description =
          "which channel is what: tx=CH1,rx=CH2 or clock=CH1,data=CH2 or"
              + " clock=A,out=B,in=C,select=D; in the order of the file when not said")
  List<String> lines = new ArrayList<>();

  @Option(names = "--mode", description = "of spi, 0 to 3")
  int mode;

  @Option(names = "--bits", description = "of a word of spi")
  int bits = 8;

  /// What is said, empty when it was not asked for.
  Optional<Decoded> decode(Log log, Optional<String> vil, Optional<String> vih)
      throws ActException {
    if (bus.isEmpty()) {
      return Optional.empty();
    }
    List<String> roles =
        switch (bus.get()) {
          case "uart" -> List.of("tx", "rx");
          case "two-wire" -> List.of("clock", "data");
          case "spi" -> List.of("clock", "out", "in", "select");
          default ->
              throw new ActException(
                  "--decode is uart, two-wire or spi, found '" + bus.get() + "'");
        };
    Map<String, Series> by = roles(log, roles);
    double swing = 0;
    for (Series s : by.values()) {
      swing = Math.max(swing, Wave.of(s).amplitude());
    }
    Map<String, Levels> levels = new LinkedHashMap<>();
    for (Map.Entry<String, Series> e : by.entrySet()) {
      levels.put(
          e.getKey(),
          vil.isPresent() && vih.isPresent()
              ? Levels.of(
                  e.getValue(),
                  Given.value(vil, Unit.VOLT).orElseThrow(),
                  Given.value(vih, Unit.VOLT).orElseThrow())
              : Levels.of(e.getValue(), swing));
    }
    try {
      return Optional.of(
          switch (bus.get()) {
            case "uart" -> uart(levels);
            case "two-wire" -> TwoWire.of(need(levels, "clock"), need(levels, "data"));
            default -> spi(levels);
          });
    } catch (IllegalArgumentException e) {
      throw new ActException(e.getMessage(), e);
    }
  }

  private Map<String, Series> roles(Log log, List<String> roles) throws ActException {
    Map<String, Series> by = new LinkedHashMap<>();
    if (lines.isEmpty()) {
      for (int i = 0; i < Math.min(roles.size(), log.series().size()); i++) {
        by.put(roles.get(i), log.series().get(i));
      }
      return by;
    }
    for (String l : lines) {
      int eq = l.indexOf('=');
      if (eq < 1 || !roles.contains(l.substring(0, eq))) {
        throw new ActException(
            "--lines names " + String.join(", ", roles) + " as ROLE=CHANNEL, found '" + l + "'");
      }
      by.put(l.substring(0, eq), Captures.channel(log, Optional.of(l.substring(eq + 1))));
    }
    return by;
  }

  private static Levels need(Map<String, Levels> levels, String role) throws ActException {
    Levels l = levels.get(role);
    if (l == null) {
      throw new ActException("which channel is the " + role + "? say --lines " + role + "=CHANNEL");
    }
    return l;
  }

  private Decoded uart(Map<String, Levels> levels) throws ActException {
    if (!frame.matches("[5-9][NEOneo][12]")) {
      throw new ActException("--frame is such as 8N1, found '" + frame + "'");
    }
    List<Decoded.Item> all = new ArrayList<>();
    List<String> told = new ArrayList<>();
    for (Map.Entry<String, Levels> e : levels.entrySet()) {
      Levels l = inverted ? e.getValue().inverted() : e.getValue();
      double rate = Given.value(baud, Unit.ONE).orElse(0.0);
      if (baud.isEmpty()) {
        rate = Uart.guess(l);
        if (rate == 0) {
          told.add(e.getKey() + " has too few edges to tell its rate");
          continue;
        }
        told.add(
            e.getKey()
                + ": "
                + EngineeringNumber.print(rate, Unit.ONE, 4)
                + " baud by its shortest pulse, a guess; say --baud");
      }
      all.addAll(
          new Uart(rate, frame.charAt(0) - '0', Character.toUpperCase(frame.charAt(1)))
              .decode(l, e.getKey()));
    }
    all.sort(java.util.Comparator.comparingDouble(Decoded.Item::at));
    return new Decoded(all, told);
  }

  private Decoded spi(Map<String, Levels> levels) throws ActException {
    Levels clock = need(levels, "clock");
    Map<String, Levels> data = new LinkedHashMap<>(levels);
    data.keySet().removeAll(List.of("clock", "select"));
    if (data.isEmpty()) {
      throw new ActException("spi needs a data line: --lines clock=A,out=B");
    }
    return new Spi(mode, bits).decode(clock, Optional.ofNullable(levels.get("select")), data);
  }
}
