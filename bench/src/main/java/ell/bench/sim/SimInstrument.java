package ell.bench.sim;

import java.io.IOException;
import java.util.Locale;

/// A simulated instrument: a SCPI server on the loopback that speaks the protocol of its kind.
public abstract class SimInstrument extends SimDevice {
  final ScpiServer server;

  /// @param kind the word of its kind, as its client names it
  /// @param port 0 for any free one
  SimInstrument(String kind, int port) throws IOException {
    super(kind);
    this.server = new ScpiServer("Ell,simulated " + kind + ",1,1", port);
  }

  @Override
  public final int port() {
    return server.port();
  }

  /// Lets it misbehave from now on.
  public final void mischief(Mischief m) {
    server.mischief(m);
  }

  /// Lets it misbehave from the next line on whose first word is that one.
  ///
  /// @param begun is run when it does, on the thread of the line
  public final void mischiefFrom(String word, Mischief m, Runnable begun) {
    server.mischiefFrom(word, m, begun);
  }

  final Mischief mischief() {
    return server.mischief();
  }

  @Override
  void start() {
    server.start();
  }

  static String number(double d) {
    return String.format(Locale.ROOT, "%.6E", d);
  }

  /// A measurement as it is answered, with what the instrument makes of it.
  final String measured(double d) {
    return switch (mischief()) {
      case NO_READING -> number(9.91e37);
      case ODD_NUMBER -> "0x1.8p1";
      default -> number(d);
    };
  }

  @Override
  public void close() {
    server.close();
  }
}
