package ell.core.kit.substitute;

import ell.core.quantity.Verdict;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/// What the circuit needs of one parameter.
///
/// @param trait which
/// @param rule how a candidate is held against it
/// @param low for at least and between, in the unit of the trait
/// @param high for at most and between
/// @param words for one of
/// @param from where the need comes from, a phrase
public record Requirement(
    Trait trait, Rule rule, double low, double high, List<String> words, String from) {
  /// How a candidate is held against a need.
  public enum Rule {
    /// A number between two others, ends included.
    BETWEEN,
    /// A number not below another.
    AT_LEAST,
    /// A number not above another.
    AT_MOST,
    /// One of some words.
    ONE_OF,
    /// Nobody knows what is needed.
    UNKNOWN
  }

  public Requirement {
    words = List.copyOf(words);
  }

  static Requirement between(Trait t, double low, double high, String from) {
    return new Requirement(t, Rule.BETWEEN, low, high, List.of(), from);
  }

  static Requirement atLeast(Trait t, double low, String from) {
    return new Requirement(t, Rule.AT_LEAST, low, Double.POSITIVE_INFINITY, List.of(), from);
  }

  static Requirement atMost(Trait t, double high, String from) {
    return new Requirement(t, Rule.AT_MOST, Double.NEGATIVE_INFINITY, high, List.of(), from);
  }

  static Requirement oneOf(Trait t, List<String> words, String from) {
    return new Requirement(t, Rule.ONE_OF, Double.NaN, Double.NaN, words, from);
  }

  static Requirement unknown(Trait t) {
    return new Requirement(
        t,
        Rule.UNKNOWN,
        Double.NaN,
        Double.NaN,
        List.of(),
        "neither the circuit nor the part that was drawn says it");
  }

  /// The need in words.
  public String text() {
    return switch (rule) {
      case BETWEEN ->
          close(low, high) ? trait.print(low) : trait.print(low) + "…" + trait.print(high);
      case AT_LEAST -> "at least " + trait.print(low);
      case AT_MOST -> "at most " + trait.print(high);
      case ONE_OF -> String.join(" or ", words);
      case UNKNOWN -> "not known";
    };
  }

  private static boolean close(double a, double b) {
    return Math.abs(a - b) <= 1e-9 * Math.max(Math.abs(a), Math.abs(b));
  }

  /// Holds a candidate against the need; what is not known never passes.
  public Verdict judge(Optional<String> candidate) {
    if (candidate.isEmpty() || rule == Rule.UNKNOWN) {
      return Verdict.CLOSE;
    }
    if (rule == Rule.ONE_OF) {
      String c = plain(candidate.get());
      return words.stream().anyMatch(w -> plain(w).equals(c)) ? Verdict.WITHIN : Verdict.OUT;
    }
    Optional<Double> v = trait.read(candidate.get());
    if (v.isEmpty()) {
      return Verdict.CLOSE;
    }
    double slack = 1e-9 * Math.abs(v.get());
    return v.get() >= low - slack && v.get() <= high + slack ? Verdict.WITHIN : Verdict.OUT;
  }

  private static String plain(String words) {
    return words.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]", "");
  }
}
