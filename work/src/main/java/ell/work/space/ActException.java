package ell.work.space;

/// What was asked cannot be done; the message is a whole sentence that says what would be right.
/// Nothing was changed.
public class ActException extends Exception {
  /// A refusal with its sentence.
  public ActException(String message) {
    super(message);
  }

  /// A refusal with its sentence and what led to it.
  public ActException(String message, Throwable cause) {
    super(message, cause);
  }
}
