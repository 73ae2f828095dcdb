package ell.bench.sim;

import ell.bench.sim.ScpiServer.Refused;
import java.io.IOException;
import java.util.function.Consumer;

/// A pair of hands: which board lies on the bench, and where the meter's tips touch.
final class SimHands extends SimInstrument {
  SimHands(SimTable table, int port) throws IOException {
    super("hands", port);
    server
        .on("BENCh:BOARd?", _ -> '"' + table.laid() + '"')
        .on("BENCh:BOARd", a -> told(table::lay, a))
        .on("TIP:PLUS", a -> told(table::plus, a))
        .on("TIP:MINus", a -> told(table::minus, a));
  }

  private static String told(Consumer<String> what, String argument) {
    if (argument == null || !argument.matches("\"[^\"]*\"|'[^']*'|\\S+")) {
      throw new Refused(-109, "Missing parameter");
    }
    what.accept(argument.replaceAll("^[\"']|[\"']$", ""));
    return null;
  }
}
