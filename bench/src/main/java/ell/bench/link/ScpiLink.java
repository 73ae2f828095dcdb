package ell.bench.link;

/// Carries lines to an instrument and back. Every call ends within the link's time-out.
public interface ScpiLink extends AutoCloseable {
  /// Sends a command that has no answer.
  void send(String command) throws BenchException;

  /// Sends a query and waits for its one line.
  String ask(String query) throws BenchException;

  /// Where the instrument is, for messages.
  String where();

  @Override
  void close();
}
