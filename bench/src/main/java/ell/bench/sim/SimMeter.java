package ell.bench.sim;

import ell.bench.sim.ScpiStatus.Refused;
import java.io.IOException;
import java.util.List;
import java.util.Locale;
import java.util.OptionalDouble;

/// A meter whose tips the hands hold: volts, ohms, continuity, junctions, and current through its
/// own shunt. It is told what to measure, triggered and read (SCPI-99 volume 2, 3: CONFigure, READ,
/// INITiate, FETCh), or all at once.
final class SimMeter extends SimInstrument {
  /// What an overloaded instrument answers. Source: SCPI-99, 7.2.1.5.
  private static final double OVERLOAD = 9.9e37;

  /// Continuity is measured in this range.
  private static final double CONTINUITY_OHMS = 1200;

  /// What can be measured.
  private enum Function {
    VOLTS("VOLT", "V", 1000, "VOLTage[:DC]"),
    AMPS("CURR", "A", 10, "CURRent[:DC]"),
    OHMS("RES", "OHM", 60e6, "RESistance"),
    FOUR_WIRE("FRES", "OHM", 60e6, "FRESistance"),
    CONTINUITY("CONT", "OHM", CONTINUITY_OHMS, "CONTinuity"),
    DIODE("DIOD", "V", 3, "DIODe");

    private final String name;
    private final ScpiData.Range range;
    private final String header;

    Function(String name, String unit, double most, String header) {
      this.name = name;
      this.range = new ScpiData.Range(unit, 0, most, most);
      this.header = header;
    }
  }

  private final SimTable table;
  private Function function = Function.VOLTS;

  /// The greatest value that is measured, the function's own when it chooses by itself.
  private double most = Function.VOLTS.range.most();

  private OptionalDouble held = OptionalDouble.empty();

  SimMeter(SimTable table, int port) throws IOException {
    super("meter", port);
    this.table = table;
    for (Function f : Function.values()) {
      int parameters = f == Function.CONTINUITY || f == Function.DIODE ? 0 : 2;
      server
          .on(
              "MEASure[:SCALar]:" + f.header + "?",
              0,
              parameters,
              a -> {
                configure(f, a);
                return read();
              })
          .on(
              "CONFigure[:SCALar]:" + f.header,
              0,
              parameters,
              a -> {
                configure(f, a);
                return null;
              });
    }
    server
        .on("CONFigure?", 0, 0, _ -> '"' + function.name + " " + number(most) + '"')
        .on("[SENSe:]FUNCtion[:ON]?", 0, 0, _ -> '"' + function.name + '"')
        .on("[SENSe:]FUNCtion[:ON]", 1, 1, this::chosen)
        .on(
            "INITiate[:IMMediate]",
            0,
            0,
            _ -> {
              held = OptionalDouble.of(value());
              return null;
            })
        .on("FETCh?", 0, 0, _ -> fetched())
        .on("READ?", 0, 0, _ -> read())
        .onReset(() -> configure(Function.VOLTS, List.of()));
  }

  private void configure(Function f, List<String> data) {
    double range =
        data.isEmpty() || data.getFirst().equalsIgnoreCase("AUTO")
            ? f.range.most()
            : f.range.set(data.getFirst());
    if (data.size() > 1) {
      f.range.set(data.get(1)); // a resolution: this one always gives all that it has
    }
    function = f;
    most = range;
    held = OptionalDouble.empty();
  }

  private String chosen(List<String> data) {
    String name = ScpiData.string(data.getFirst()).toUpperCase(Locale.ROOT);
    for (Function f : Function.values()) {
      if (new ScpiHeader(f.header).is(name)) {
        configure(f, List.of());
        return null;
      }
    }
    throw new Refused(-224, "Illegal parameter value");
  }

  private String read() {
    held = OptionalDouble.of(value());
    return fetched();
  }

  private String fetched() {
    if (held.isEmpty()) {
      throw new Refused(-230, "Data corrupt or stale");
    }
    return measured(held.getAsDouble());
  }

  private double value() {
    double v =
        switch (function) {
          case VOLTS -> table.tipVolts();
          case AMPS -> table.tipAmps();
          case OHMS, CONTINUITY -> table.tipOhms(true);
          case FOUR_WIRE -> table.tipOhms(false);
          case DIODE -> table.tipDiode();
        };
    return Math.abs(v) > most ? Math.copySign(OVERLOAD, v) : v;
  }
}
