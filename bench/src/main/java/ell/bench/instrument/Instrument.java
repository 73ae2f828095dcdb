package ell.bench.instrument;

import ell.bench.link.BenchException;
import ell.bench.link.ScpiLink;

/// What every instrument client does: identify, clear, send a command and see that it was taken,
/// ask for a number. IEEE 488.2 common commands, SCPI-99 error queue.
public abstract sealed class Instrument implements AutoCloseable
    permits Supply, Meter, Hands, Plate {
  /// What an overloaded instrument answers. Source: SCPI-99, 7.2.1.5.
  static final double OVERLOAD = 9.9e37;

  final ScpiLink link;
  private final String kind;

  Instrument(ScpiLink link, String kind) {
    this.link = link;
    this.kind = kind;
  }

  /// What it says it is: `*IDN?`.
  public String identity() throws BenchException {
    return link.ask("*IDN?");
  }

  /// Sends a command and asks the error queue whether it was taken.
  public void command(String command) throws BenchException {
    link.send(command);
    String said = link.ask("SYST:ERR?");
    if (!said.matches("[+-]?0+\\s*(,.*)?")) {
      throw new BenchException(
          "the "
              + kind
              + " at "
              + link.where()
              + " refused '"
              + command
              + "': "
              + (said.isEmpty() ? "no words" : said));
    }
  }

  /// Asks for a number.
  double number(String query) throws BenchException {
    String said = link.ask(query);
    try {
      double d = Double.parseDouble(said);
      if (Double.isFinite(d)) {
        return d;
      }
    } catch (NumberFormatException e) {
      // told below
    }
    throw new BenchException(
        "the "
            + kind
            + " at "
            + link.where()
            + " answered '"
            + query
            + "' with '"
            + said
            + "', expected a number");
  }

  @Override
  public void close() {
    link.close();
  }
}
