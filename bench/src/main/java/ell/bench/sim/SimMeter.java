package ell.bench.sim;

import java.io.IOException;

/// A meter whose tips the hands hold.
final class SimMeter extends SimInstrument {
  /// What an overloaded instrument answers. Source: SCPI-99, 7.2.1.5.
  private static final double OVERLOAD = 9.9e37;

  SimMeter(SimTable table, int port) throws IOException {
    super("meter", port);
    server
        .on("MEASure:VOLTage[:DC]?", _ -> measured(table.tipVolts()))
        .on("MEASure:RESistance?", _ -> ohms(table))
        .on("MEASure:FRESistance?", _ -> ohms(table));
  }

  private String ohms(SimTable table) {
    double r = table.tipOhms();
    return measured(Double.isInfinite(r) ? OVERLOAD : r);
  }
}
