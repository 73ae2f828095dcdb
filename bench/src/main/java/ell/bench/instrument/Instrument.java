package ell.bench.instrument;

import ell.bench.dialect.Dialect;
import ell.bench.link.BenchException;
import ell.bench.link.ScpiLink;
import java.util.regex.Pattern;

/// What every instrument client does: identify, clear, send a command and see that it was taken,
/// ask for a number. IEEE 488.2 common commands, SCPI-99 error queue.
public abstract sealed class Instrument implements AutoCloseable
    permits Supply, Meter, Hands, Plate, Scope {
  /// What an overloaded instrument answers. Source: SCPI-99, 7.2.1.5.
  static final double OVERLOAD = 9.9e37;

  private static final int TRIES = 3;
  private static final int LONGEST = 64;
  private static final String NO_QUEUE = "0,\"No error\"";

  /// A number as instruments write it: NR1, NR2 or NR3. Source: IEEE 488.2, 8.7.2 to 8.7.4; no
  /// hexadecimal, no letters behind it, no words for infinity.
  private static final Pattern NUMBER =
      Pattern.compile("[+-]?+(?:\\d++(?:\\.\\d*+)?+|\\.\\d++)(?:[eE][+-]?+\\d{1,4}+)?+");

  private static final Pattern NO_ERROR = Pattern.compile("[+-]?+0++\\s*+(?:,.*+)?+");
  private static final Pattern ERROR = Pattern.compile("[+-]?+\\d{1,6}+\\s*+,.*+");

  final ScpiLink link;
  final Dialect says;
  private final String kind;

  /// @param says how it wants to be told
  Instrument(ScpiLink link, String kind, Dialect says) {
    this.link = link;
    this.kind = kind;
    this.says = says;
  }

  /// What it says it is; empty when it cannot be asked.
  public String identity() throws BenchException {
    return says.has("identity") ? link.ask(says.line("identity")) : "";
  }

  /// Clears its error queue, if it has one.
  void clearErrors() throws BenchException {
    if (says.has("clear")) {
      link.send(says.line("clear"));
    }
  }

  /// Sends a command and asks the error queue whether it was taken; of an instrument without one
  /// only what it says later tells.
  public void command(String command) throws BenchException {
    link.send(command);
    taken(command);
  }

  /// Whether the error queue is empty after a command.
  ///
  /// @throws BenchException when it is not, or answers and questions stay out of step
  private void taken(String what) throws BenchException {
    if (!says.has("error")) {
      return;
    }
    String said = "";
    for (int i = 0; i < TRIES; i++) {
      said = link.ask(says.line("error"));
      if (NO_ERROR.matcher(said).matches()) {
        return;
      }
      if (ERROR.matcher(said).matches()) {
        throw refused(what, said);
      }
      link.resync(); // that was the answer to something else
    }
    throw wrong("refused '" + what + "': " + (said.isEmpty() ? "no words" : said));
  }

  /// Asks for a number, and then whether its error queue is empty: that answer looks unlike a
  /// number, so a line too many before or after cannot be taken for a reading.
  ///
  /// @throws BenchException when it gives none: letters, infinity, the sign for no reading
  double number(String query) throws BenchException {
    String said = "";
    for (int i = 0; i < TRIES; i++) {
      said = link.ask(query);
      String queue = says.has("error") ? link.askNext(says.line("error")) : NO_QUEUE;
      boolean number = said.length() <= LONGEST && NUMBER.matcher(said).matches();
      if (number && NO_ERROR.matcher(queue).matches() && queue.indexOf(',') > 0) {
        double d = Double.parseDouble(said);
        if (Double.isFinite(d)) {
          return d;
        }
      }
      if (ERROR.matcher(queue).matches() && !NO_ERROR.matcher(queue).matches()) {
        throw refused(query, queue);
      }
      if (!number && NO_ERROR.matcher(queue).matches() && !ERROR.matcher(said).matches()) {
        break; // in step, and no number
      }
      link.resync();
    }
    throw wrong("answered '" + query + "' with '" + said + "', expected a number");
  }

  /// A reading: a number that is not the sign for an overload or for none.
  double reading(String query) throws BenchException {
    double d = number(query);
    if (Math.abs(d) >= OVERLOAD) {
      throw wrong("has no reading for '" + query + "': it answered the sign for none");
    }
    return d;
  }

  /// A state: `0` or `1`, or `OFF` or `ON` of an instrument that has its own dialect.
  boolean flag(String query) throws BenchException {
    if (!says.has("error")) {
      String said = link.ask(query).strip();
      if (said.equalsIgnoreCase("ON") || said.equalsIgnoreCase("OFF")) {
        return said.equalsIgnoreCase("ON");
      }
    }
    double d = number(query);
    if (d != 0 && d != 1) {
      throw wrong("answered '" + query + "' with " + d + ", expected 0 or 1");
    }
    return d == 1;
  }

  private BenchException refused(String what, String said) {
    return new BenchException(
        "the " + kind + " at " + link.where() + " refused '" + what + "': " + said, true);
  }

  BenchException wrong(String what) {
    return new BenchException("the " + kind + " at " + link.where() + " " + what);
  }

  /// Waits no longer than this for each answer from now on.
  ///
  /// @param millis above 0
  public void patience(int millis) throws BenchException {
    link.patience(millis);
  }

  @Override
  public void close() {
    link.close();
  }
}
