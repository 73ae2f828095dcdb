package ell.bench.sim;

import java.io.IOException;
import java.util.List;
import java.util.function.Consumer;

/// A pair of hands: which board lies on the bench, and where the meter's tips touch.
final class SimHands extends SimInstrument {
  SimHands(SimTable table, SimLine line, int port) throws IOException {
    super("hands", port);
    server
        .on("BENCh:BOARd?", 0, 0, _ -> '"' + table.laid() + '"')
        .on("BENCh:BOARd", 1, 1, a -> told(table::lay, a))
        .on("TIP:PLUS", 1, 1, a -> told(table::plus, a))
        .on("TIP:MINus", 1, 1, a -> told(table::minus, a))
        .on(
            "TIP:PROBe",
            2,
            2,
            a -> {
              table.probe(
                  ScpiData.register(a.getFirst(), SimScope.CHANNELS), ScpiData.string(a.get(1)));
              return null;
            })
        .on("LINE:BAUD?", 0, 0, _ -> String.valueOf(line.baud()))
        .on(
            "LINE:BAUD",
            1,
            1,
            a -> {
              line.baud(ScpiData.register(a.getFirst(), SimLine.MOST_BAUD));
              return null;
            })
        .on(
            "LINE:PULL",
            0,
            0,
            _ -> {
              line.pull();
              return null;
            })
        .on("TIP:WARMth?", 1, 1, a -> number(table.touched(ScpiData.string(a.getFirst()))))
        .on(
            "BENCh:PASSed?",
            0,
            0,
            _ -> '"' + String.join("; ", table.passed()).replace("\"", "'") + '"');
  }

  private static String told(Consumer<String> what, List<String> data) {
    what.accept(ScpiData.string(data.getFirst()));
    return null;
  }
}
