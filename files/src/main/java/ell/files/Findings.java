package ell.files;

import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;

/// Collects what a reader finds, with a bound on each list.
public final class Findings {
  public static final int MOST = 200;

  private static final int LONGEST = 240;
  private static final Pattern CONTROL = Pattern.compile("\\p{Cntrl}+");

  private final String file;
  private final List<Problem> errors = new ArrayList<>();
  private final List<Problem> warnings = new ArrayList<>();
  private final List<Problem> passedOver = new ArrayList<>();
  private final List<String> found = new ArrayList<>();
  private final List<Guess> guesses = new ArrayList<>();
  private int moreErrors;
  private int moreWarnings;
  private int morePassed;

  public Findings(String file) {
    this.file = file;
  }

  public void error(int line, int column, String message) {
    if (errors.size() < MOST) {
      errors.add(new Problem(file, line, column, tidy(message)));
    } else {
      moreErrors++;
    }
  }

  public void warn(int line, int column, String message) {
    if (warnings.size() < MOST) {
      warnings.add(new Problem(file, line, column, tidy(message)));
    } else {
      moreWarnings++;
    }
  }

  public void pass(int line, String what) {
    if (passedOver.size() < MOST) {
      passedOver.add(new Problem(file, line, 0, tidy(what)));
    } else {
      morePassed++;
    }
  }

  /// Says what was found, in words.
  public void found(String what) {
    found.add(tidy(what));
  }

  /// Says what was guessed.
  ///
  /// @param answer how it is put right, empty when the file has to say it
  public void guess(String what, String taken, String answer) {
    guesses.add(new Guess(file, tidy(what), tidy(taken), answer));
  }

  /// One line of bounded length, whatever was found in the file.
  private static String tidy(String message) {
    String line = CONTROL.matcher(message).replaceAll(" ");
    return line.length() <= LONGEST
        ? line
        : line.substring(0, LONGEST / 2) + " ... " + line.substring(line.length() - LONGEST / 3);
  }

  public int count() {
    return errors.size() + moreErrors;
  }

  public boolean failed() {
    return !errors.isEmpty();
  }

  public <T> Read<T> flawed() {
    more(errors, moreErrors, "problems");
    return new Read.Flawed<>(errors);
  }

  public <T> Read<T> done(T value) {
    if (failed()) {
      return flawed();
    }
    more(warnings, moreWarnings, "warnings");
    more(passedOver, morePassed, "left out");
    return new Read.Whole<>(value, new Account(found, guesses, warnings, passedOver));
  }

  private void more(List<Problem> list, int count, String what) {
    if (count > 0) {
      list.add(new Problem(file, 0, 0, "and " + count + " more " + what));
    }
  }
}
