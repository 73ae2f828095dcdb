package ell.bench.sim;

/// Something that stands on the simulated bench and listens on a port of the loopback. A new one is
/// one class that stands in the list of [SimBench].
public abstract class SimDevice implements AutoCloseable {
  private final String kind;

  /// @param kind its word
  SimDevice(String kind) {
    this.kind = kind;
  }

  /// The word of its kind.
  public final String kind() {
    return kind;
  }

  /// Port that it listens on.
  public abstract int port();

  /// Begins to listen.
  abstract void start();

  /// Is asked four times a second: what it does by itself.
  void watch() {}

  @Override
  public abstract void close();
}
