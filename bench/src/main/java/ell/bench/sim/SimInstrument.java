package ell.bench.sim;

import java.io.IOException;
import java.util.Locale;

/// A simulated instrument: a SCPI server on the loopback that speaks the protocol of its kind. A
/// new kind is one class that extends this and stands in the list of [SimBench].
public abstract class SimInstrument implements AutoCloseable {
  final ScpiServer server;
  private final String kind;
  private volatile Mischief mischief = Mischief.NONE;

  /// @param kind the word of its kind, as its client names it
  /// @param port 0 for any free one
  SimInstrument(String kind, int port) throws IOException {
    this.kind = kind;
    this.server = new ScpiServer("Ell,simulated " + kind + ",1,1", port);
  }

  /// The word of its kind.
  public final String kind() {
    return kind;
  }

  /// Port that it listens on.
  public final int port() {
    return server.port();
  }

  /// Lets it misbehave from now on.
  public final void mischief(Mischief m) {
    mischief = m;
    server.mischief(m);
  }

  final Mischief mischief() {
    return mischief;
  }

  /// Begins to listen.
  void start() {
    server.start();
  }

  /// Is asked four times a second: what an instrument does by itself, such as switching off when
  /// nobody speaks to it any more.
  void watch() {}

  static String number(double d) {
    return String.format(Locale.ROOT, "%.6E", d);
  }

  /// A measurement as it is answered, with what the instrument makes of it.
  final String measured(double d) {
    return switch (mischief) {
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
