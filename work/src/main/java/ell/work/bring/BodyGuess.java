package ell.work.bring;

import ell.core.board.PackageShape;
import ell.files.Guess;
import java.util.Locale;
import java.util.Optional;

/// The guess that a body is as large as its joints and as tall as its kind, and the command that
/// puts it right.
public final class BodyGuess {
  private static final String COMMAND = "packages --set-one ";
  private static final String HEIGHT = "=HEIGHT";

  private BodyGuess() {}

  /// The guess.
  ///
  /// @param file in which the package stands
  /// @param packageName as written, empty for parts that have none: those cannot be put right by it
  /// @param parts how many have it
  static Guess of(String file, String packageName, int parts, PackageShape shape) {
    return new Guess(
        file,
        (packageName.isEmpty()
                ? "the body of parts without a package"
                : "the body of " + packageName)
            + " ("
            + parts
            + (parts == 1 ? " part)" : " parts)"),
        String.format(
            Locale.ROOT,
            "%.3g x %.3g mm by its joints, %.3g mm tall by its kind",
            shape.lengthMm(),
            shape.widthMm(),
            shape.heightMm()),
        packageName.isEmpty() ? "" : COMMAND + packageName + HEIGHT);
  }

  /// The package that a guess is about; empty when it is about something else.
  public static Optional<String> packageOf(Guess g) {
    String a = g.answer();
    return a.startsWith(COMMAND) && a.endsWith(HEIGHT)
        ? Optional.of(a.substring(COMMAND.length(), a.length() - HEIGHT.length()))
        : Optional.empty();
  }
}
