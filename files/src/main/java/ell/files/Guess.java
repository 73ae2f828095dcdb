package ell.files;

/// Something that a file did not say and a reader had to take for one thing or another. A guess is
/// always told, never decides a verdict, and can be put right.
///
/// @param file name of the file
/// @param what was not said, such as `the column of values`
/// @param taken what was taken for it, such as `Name`
/// @param answer how it is put right on the command line, such as `--column value=HEADING`; empty
///   when the file itself has to say it
public record Guess(String file, String what, String taken, String answer) {
  /// As a sentence.
  public String words() {
    return what
        + " is not said: "
        + taken
        + " was taken"
        + (answer.isEmpty() ? "" : "; otherwise " + answer);
  }

  @Override
  public String toString() {
    return file + ": " + words();
  }
}
