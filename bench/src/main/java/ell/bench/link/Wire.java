package ell.bench.link;

import java.io.IOException;

/// Bytes to an instrument and back, by whatever carries them.
interface Wire {
  /// Sends bytes.
  void write(byte[] bytes) throws IOException;

  /// The next byte.
  ///
  /// @param millis to wait for it, above 0
  /// @return -1 when the other end hung up
  /// @throws java.net.SocketTimeoutException when none came
  int read(int millis) throws IOException;

  /// Throws away what has come and was not read.
  void drop() throws IOException;

  /// Hangs up; never fails.
  void close();
}
