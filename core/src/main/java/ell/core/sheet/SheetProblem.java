package ell.core.sheet;

/// A sheet was asked for in a way that cannot be answered; the message is a whole sentence that
/// names the input and lists what would be right.
public final class SheetProblem extends IllegalArgumentException {
  /// A problem with its sentence.
  public SheetProblem(String message) {
    super(message);
  }
}
