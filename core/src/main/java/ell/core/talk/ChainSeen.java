package ell.core.talk;

import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// What is seen of a chain.
///
/// @param kind of it
/// @param element the first that is not as it should be, counted from 1; 0 where it is all of them
///   or none
public record ChainSeen(Kind kind, int element) {
  /// Kinds of what is seen.
  public enum Kind {
    /// Every element does what it should.
    FINE,
    /// Nothing from an element on.
    DARK_FROM,
    /// One element does nothing, those behind it do.
    ONE_DARK,
    /// Something else than was sent, from an element on.
    WRONG_FROM,
    /// Every element shows something else than was sent.
    ALL_WRONG,
    /// It comes and goes from an element on.
    FLICKERS_FROM,
    /// What comes out of the far end is nothing; the elements cannot be seen.
    NOTHING_AT_THE_END
  }

  private static final String EXPECTED =
      "expected what is seen, such as lit up to 7, first dead, 5 dead, wrong colour from 12, wrong"
          + " colours, flickers from 20, all dark, nothing at the end, fine";
  private static final Pattern UP_TO =
      Pattern.compile("(?:lit|works|good|fine|right) (?:up )?to (\\d+)");
  private static final Pattern FROM =
      Pattern.compile("(wrong|flickers?|flickering|dark|dead|nothing)[a-z ]* from (\\d+)(?: on)?");
  private static final Pattern ONE = Pattern.compile("(?:only )?(\\d+) (?:is )?(?:dead|dark)");

  /// Reads what somebody says.
  ///
  /// @param elements of the chain
  /// @throws IllegalArgumentException when it cannot be understood, or the chain is not so long
  public static ChainSeen parse(String text, int elements) {
    String t =
        text.strip().toLowerCase(Locale.ROOT).replace("colour", "color").replaceAll("\\s+", " ");
    Matcher m = UP_TO.matcher(t);
    if (m.matches()) {
      int k = number(m.group(1), elements);
      return k == elements ? new ChainSeen(Kind.FINE, 0) : new ChainSeen(Kind.DARK_FROM, k + 1);
    }
    m = FROM.matcher(t);
    if (m.matches()) {
      int k = number(m.group(2), elements);
      Kind kind =
          m.group(1).startsWith("wrong")
              ? Kind.WRONG_FROM
              : m.group(1).startsWith("flicker") ? Kind.FLICKERS_FROM : Kind.DARK_FROM;
      return kind == Kind.WRONG_FROM && k == 1
          ? new ChainSeen(Kind.ALL_WRONG, 0)
          : new ChainSeen(kind, k);
    }
    m = ONE.matcher(t);
    if (m.matches()) {
      return new ChainSeen(Kind.ONE_DARK, number(m.group(1), elements));
    }
    return switch (t) {
      case "first dead", "all dark", "dark", "none lit", "all dead" ->
          new ChainSeen(Kind.DARK_FROM, 1);
      case "wrong color", "wrong colors", "all wrong" -> new ChainSeen(Kind.ALL_WRONG, 0);
      case "flickers", "all flicker" -> new ChainSeen(Kind.FLICKERS_FROM, 1);
      case "nothing at the end", "no data", "nothing" -> new ChainSeen(Kind.NOTHING_AT_THE_END, 0);
      case "fine", "all lit", "good" -> new ChainSeen(Kind.FINE, 0);
      default -> throw new IllegalArgumentException(EXPECTED + "; found '" + text.strip() + "'");
    };
  }

  private static int number(String digits, int elements) {
    int n = digits.length() > 6 ? Integer.MAX_VALUE : Integer.parseInt(digits);
    if (n < 1 || n > elements) {
      throw new IllegalArgumentException(
          "the chain has elements 1..." + elements + ", found " + digits);
    }
    return n;
  }
}
