package ell.bench.sim;

import java.util.List;
import java.util.Optional;

/// What every SCPI instrument understands beside the common commands: its error queue, its version,
/// its status registers. Source: SCPI-99 volume 2, 20 (STATus) and 21 (SYSTem), from memory.
final class SystemCommands {
  private static final int MOST = 0x7fff;

  private static final ScpiHeader NEXT = new ScpiHeader("SYSTem:ERRor[:NEXT]?");
  private static final ScpiHeader COUNT = new ScpiHeader("SYSTem:ERRor:COUNt?");
  private static final ScpiHeader ALL = new ScpiHeader("SYSTem:ERRor:ALL?");
  private static final ScpiHeader VERSION = new ScpiHeader("SYSTem:VERSion?");
  private static final ScpiHeader CLIENTS = new ScpiHeader("SYSTem:CLIents?");
  private static final ScpiHeader PRESET = new ScpiHeader("STATus:PRESet");
  private static final Three OPERATION = new Three("STATus:OPERation");
  private static final Three QUESTIONABLE = new Three("STATus:QUEStionable");

  private SystemCommands() {}

  /// The commands over one register pair.
  private record Three(
      ScpiHeader event, ScpiHeader condition, ScpiHeader enable, ScpiHeader enabled) {
    Three(String header) {
      this(
          new ScpiHeader(header + "[:EVENt]?"),
          new ScpiHeader(header + ":CONDition?"),
          new ScpiHeader(header + ":ENABle"),
          new ScpiHeader(header + ":ENABle?"));
    }

    Optional<String> answer(String header, List<String> data, ScpiStatus.Register r) {
      if (event.is(header)) {
        return none(data, r.takeEvent());
      }
      if (condition.is(header)) {
        return none(data, r.condition());
      }
      if (enabled.is(header)) {
        return none(data, r.enable());
      }
      if (enable.is(header)) {
        ScpiServer.counted(data, 1, 1);
        r.enable(ScpiData.register(data.getFirst(), MOST));
        return Optional.of("");
      }
      return Optional.empty();
    }
  }

  private static Optional<String> none(List<String> data, Object answer) {
    ScpiServer.counted(data, 0, 0);
    return Optional.of(String.valueOf(answer));
  }

  /// The answer; an empty text for a command, nothing for a header that is not one of these.
  static Optional<String> answer(ScpiMessage m, ScpiStatus status, int clients) {
    String header = m.header();
    List<String> data = m.data();
    if (NEXT.is(header)) {
      ScpiServer.counted(data, 0, 0);
      return Optional.of(status.nextError());
    }
    if (COUNT.is(header)) {
      return none(data, status.errorCount());
    }
    if (ALL.is(header)) {
      ScpiServer.counted(data, 0, 0);
      return Optional.of(status.allErrors());
    }
    if (VERSION.is(header)) {
      return none(data, "1999.0");
    }
    if (CLIENTS.is(header)) {
      return none(data, clients);
    }
    if (PRESET.is(header)) {
      ScpiServer.counted(data, 0, 0);
      status.preset();
      return Optional.of("");
    }
    return OPERATION
        .answer(header, data, status.operation)
        .or(() -> QUESTIONABLE.answer(header, data, status.questionable));
  }
}
