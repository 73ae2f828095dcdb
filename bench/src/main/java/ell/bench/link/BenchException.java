package ell.bench.link;

import java.io.IOException;

/// An instrument did not do as it was told, or did not answer; the message names it and what was
/// asked.
public final class BenchException extends IOException {
  private final boolean refused;

  /// A surprise in words.
  public BenchException(String message) {
    this(message, false);
  }

  /// A surprise in words.
  ///
  /// @param refused whether the instrument answered, and said that it will not
  public BenchException(String message, boolean refused) {
    super(message);
    this.refused = refused;
  }

  /// A surprise with its cause.
  public BenchException(String message, Throwable cause) {
    super(message, cause);
    this.refused = false;
  }

  /// Whether the instrument answered, and said that it will not.
  public boolean refused() {
    return refused;
  }
}
