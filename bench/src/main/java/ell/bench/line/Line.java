package ell.bench.line;

import ell.bench.link.BenchException;

/// A line to a board that carries bytes both ways.
public interface Line extends AutoCloseable {
  /// Where it leads, as it is told to people.
  String where();

  /// Sends bytes.
  ///
  /// @throws BenchException when the line is gone, or takes none for five seconds
  void send(byte[] bytes) throws BenchException;

  /// Takes what has come, or waits for some.
  ///
  /// @param into at least one byte
  /// @param millis to wait when nothing has come, above 0
  /// @return how many bytes, 0 when none came
  /// @throws BenchException when the line is gone
  int read(byte[] into, int millis) throws BenchException;

  /// Sets the rate where it can be set; nothing on a socket.
  ///
  /// @param baud 50...12 000 000
  /// @throws BenchException when the line cannot be set so
  void baud(int baud) throws BenchException;

  @Override
  void close();
}
