package ell.core.sheet;

import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/// One input of a stand-alone sheet.
///
/// @param name the key on the command line
/// @param unit the stated unit, in which a bare number is read; empty for words
/// @param kind what kind of value it is
/// @param byDefault the value taken when it is not given, as text
/// @param min the least value, in the stated unit
/// @param max the greatest value, in the stated unit
/// @param choices the words that are allowed, empty for numbers
/// @param optional true when the sheet works without it
public record Input(
    String name,
    String unit,
    Kind kind,
    Optional<String> byDefault,
    double min,
    double max,
    List<String> choices,
    boolean optional) {
  public Input {
    choices = List.copyOf(choices);
  }

  /// What kind of value an input takes, and how one is read. Each kind answers for itself: a switch
  /// over kinds would be linked anew at each start of a sum.
  public sealed interface Kind {
    /// Reads a value of this kind.
    ///
    /// @param of the input it is for
    /// @return a [Double] in the stated unit, or a [String]
    /// @throws NumberFormatException when it is no number of this kind
    /// @throws SheetProblem when it is out of range or none of the choices
    Object read(Input of, String text);

    /// What is taken: `a number in V`.
    String takes(Input of);

    /// A number in a unit of Ell.
    record Number(Unit unit) implements Kind {
      @Override
      public Object read(Input of, String text) {
        return of.ranged(EngineeringNumber.parse(text, unit), text);
      }

      @Override
      public String takes(Input of) {
        return of.numberWords();
      }
    }

    /// A whole number.
    record Whole() implements Kind {
      @Override
      public Object read(Input of, String text) {
        double d = EngineeringNumber.parse(text, Unit.ONE);
        if (d != Math.rint(d)) {
          throw new NumberFormatException("expected a whole number, found '" + text + "'");
        }
        return of.ranged(d, text);
      }

      @Override
      public String takes(Input of) {
        return "a whole number";
      }
    }

    /// A number in percent, `0.5` and `0.5 %` alike.
    record Percent() implements Kind {
      @Override
      public Object read(Input of, String text) {
        String bare = text.strip();
        bare = bare.endsWith("%") ? bare.substring(0, bare.length() - 1).stripTrailing() : bare;
        return of.ranged(EngineeringNumber.parse(bare, Unit.ONE), text);
      }

      @Override
      public String takes(Input of) {
        return of.numberWords();
      }
    }

    /// One of the listed words, or a synonym of one.
    record Choice(Map<String, String> synonyms) implements Kind {
      public Choice {
        synonyms = Collections.unmodifiableMap(new LinkedHashMap<>(synonyms));
      }

      @Override
      public Object read(Input of, String text) {
        String t = text.strip().toLowerCase(Locale.ROOT);
        String known = synonyms.getOrDefault(t, t);
        if (!of.choices.contains(known)) {
          throw new SheetProblem(
              of.name
                  + ": expected one of "
                  + String.join(", ", of.choices)
                  + ", found '"
                  + text
                  + "'");
        }
        return known;
      }

      @Override
      public String takes(Input of) {
        return "one of " + String.join(", ", of.choices);
      }
    }

    /// Words that the sheet reads itself, such as a list.
    record Words(String example) implements Kind {
      @Override
      public Object read(Input of, String text) {
        return text;
      }

      @Override
      public String takes(Input of) {
        return "words such as " + example;
      }
    }
  }

  private static final double NONE = Double.NaN;

  /// A number in `unit` that must be given.
  public static Input number(String name, Unit unit) {
    return new Input(
        name, unit.symbol(), new Kind.Number(unit), Optional.empty(), NONE, NONE, List.of(), false);
  }

  /// A whole number that must be given.
  public static Input whole(String name) {
    return new Input(name, "", new Kind.Whole(), Optional.empty(), NONE, NONE, List.of(), false);
  }

  /// A number in percent that must be given.
  public static Input percent(String name) {
    return new Input(name, "%", new Kind.Percent(), Optional.empty(), NONE, NONE, List.of(), false);
  }

  /// One of some words; `synonyms` maps other words that people use to one of the choices.
  public static Input choice(String name, Map<String, String> synonyms, String... choices) {
    return new Input(
        name,
        "",
        new Kind.Choice(Map.copyOf(synonyms)),
        Optional.empty(),
        NONE,
        NONE,
        List.of(choices),
        false);
  }

  /// Words that the sheet reads itself.
  public static Input words(String name, String example) {
    return new Input(
        name, "", new Kind.Words(example), Optional.empty(), NONE, NONE, List.of(), false);
  }

  /// The same input with a default, written as on the command line.
  public Input or(String text) {
    return new Input(name, unit, kind, Optional.of(text), min, max, choices, optional);
  }

  /// The same input, ends included.
  public Input in(double least, double greatest) {
    return new Input(name, unit, kind, byDefault, least, greatest, choices, optional);
  }

  /// The same input, with a least value only.
  public Input from(double least) {
    return in(least, NONE);
  }

  /// The same input, which may be left out.
  public Input maybe() {
    return new Input(name, unit, kind, byDefault, min, max, choices, true);
  }

  /// Reads a value.
  ///
  /// @return a [Double] in the stated unit, or a [String]
  /// @throws SheetProblem naming the key, what was read and what would be right
  public Object read(String text) {
    try {
      return kind.read(this, text);
    } catch (NumberFormatException e) {
      throw new SheetProblem(name + ": " + e.getMessage() + "; " + right());
    }
  }

  private double ranged(double d, String text) {
    if (d < min || d > max) {
      throw new SheetProblem(name + ": '" + text + "' is out of range; " + right());
    }
    return d;
  }

  /// What would be right, as a phrase: `name takes a number in V from 0 to 100`.
  public String right() {
    StringBuilder s = new StringBuilder(name).append(" takes ").append(kind.takes(this));
    if (!Double.isNaN(min)) {
      s.append(" from ").append(EngineeringNumber.print(min, Unit.ONE));
    }
    if (!Double.isNaN(max)) {
      s.append(" to ").append(EngineeringNumber.print(max, Unit.ONE));
    }
    return s.toString();
  }

  private String numberWords() {
    return unit.isEmpty() ? "a plain number" : "a number in " + unit;
  }
}
