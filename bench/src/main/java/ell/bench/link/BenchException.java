package ell.bench.link;

import java.io.IOException;

/// An instrument did not do as it was told, or did not answer; the message names it and what was
/// asked.
public final class BenchException extends IOException {
  /// A surprise in words.
  public BenchException(String message) {
    super(message);
  }

  /// A surprise with its cause.
  public BenchException(String message, Throwable cause) {
    super(message, cause);
  }
}
