package ell.work.word;

import java.time.format.DateTimeFormatter;
import java.util.Arrays;
import java.util.Locale;
import java.util.Optional;

/// A language that Ell can be read in.
public enum Language {
  /// As everything is said at first; dates as they stand in files.
  ENGLISH("en", "English", '.', "uuuu-MM-dd", "d MMM"),
  GERMAN("de", "Deutsch", ',', "dd.MM.uuuu", "d. MMM"),
  FRENCH("fr", "Français", ',', "dd/MM/uuuu", "d MMM"),
  SPANISH("es", "Español", ',', "dd/MM/uuuu", "d MMM");

  private final String key;
  private final String own;
  private final char point;
  private final String day;
  private final String shortDay;

  Language(String key, String own, char point, String day, String shortDay) {
    this.key = key;
    this.own = own;
    this.point = point;
    this.day = day;
    this.shortDay = shortDay;
  }

  /// Two letters, as ISO 639-1 has them.
  public String key() {
    return key;
  }

  /// Its name in itself.
  public String own() {
    return own;
  }

  /// What stands between the whole and the rest of a number.
  public char point() {
    return point;
  }

  /// Its locale.
  public Locale locale() {
    return Locale.forLanguageTag(key);
  }

  /// How a day with its year is written.
  DateTimeFormatter day() {
    return DateTimeFormatter.ofPattern(day, locale());
  }

  /// How a day without its year is written.
  DateTimeFormatter shortDay() {
    return DateTimeFormatter.ofPattern(shortDay, locale());
  }

  /// The one that comes after it, the first after the last.
  public Language next() {
    return values()[(ordinal() + 1) % values().length];
  }

  /// The language with a key; empty when Ell cannot be read in it.
  public static Optional<Language> of(String key) {
    return Arrays.stream(values()).filter(l -> l.key.equals(key)).findFirst();
  }

  /// The language of this system, English when Ell cannot be read in it.
  public static Language system() {
    return of(Locale.getDefault(Locale.Category.DISPLAY).getLanguage()).orElse(ENGLISH);
  }
}
