package ell.core.jig;

import java.util.ArrayList;
import java.util.List;

/// What is set on outputs one after the other, so that shorts between them and lines that are stuck
/// show.
///
/// @param kind how they were made
/// @param vectors of `0` and `1`, a letter an output
public record Patterns(Kind kind, List<String> vectors) {
  /// Ways to make them.
  public enum Kind {
    /// One output after the other; a person can follow it by eye.
    WALKING("walking"),
    /// Each output is given its number, without the one of all zeros and the one of all ones:
    /// ceil(log2(n + 2)) vectors find every short and every stuck line (Kautz, IEEE Transactions on
    /// Computers C-23, 1974; Wagner, International Test Conference 1987).
    COUNTING("counting"),
    /// The same and its complement, which tells shorts that pull low from those that pull high.
    COMPLEMENT("complement"),
    /// All on, all off: two outputs that are joined agree all the time.
    ALL_TOGETHER("all-together");

    private final String key;

    Kind(String key) {
      this.key = key;
    }

    /// The fixed word.
    public String key() {
      return key;
    }

    /// The kind of a word.
    ///
    /// @throws IllegalArgumentException when it is none
    public static Kind of(String word) {
      for (Kind k : values()) {
        if (k.key.equals(word)) {
          return k;
        }
      }
      throw new IllegalArgumentException(
          "patterns are walking, counting, complement or all-together, found '" + word + "'");
    }
  }

  /// What a short between two outputs makes of them.
  public enum Short {
    /// A zero wins.
    WIRED_AND,
    /// A one wins.
    WIRED_OR,
    /// They fight: which wins is not known, and both read alike.
    FIGHTING
  }

  /// How many are caught of how many.
  public record Caught(int caught, int total) {}

  public Patterns {
    vectors = List.copyOf(vectors);
  }

  /// No more outputs are taken.
  public static final int MOST = 4096;

  /// The vectors of a kind.
  ///
  /// @param outputs 1...4096
  /// @throws IllegalArgumentException when there are none, or too many
  public static Patterns of(Kind kind, int outputs) {
    if (outputs < 1 || outputs > MOST) {
      throw new IllegalArgumentException(
          "patterns are for 1 to " + MOST + " outputs, got " + outputs);
    }
    List<String> v = new ArrayList<>();
    switch (kind) {
      case WALKING -> {
        for (int i = 0; i < outputs; i++) {
          v.add("0".repeat(i) + "1" + "0".repeat(outputs - i - 1));
        }
      }
      case COUNTING -> v.addAll(counting(outputs));
      case COMPLEMENT -> {
        List<String> straight = counting(outputs);
        v.addAll(straight);
        straight.forEach(s -> v.add(turned(s)));
      }
      case ALL_TOGETHER -> {
        v.add("1".repeat(outputs));
        v.add("0".repeat(outputs));
      }
    }
    return new Patterns(kind, v);
  }

  /// Vectors that a count of outputs needs: ceil(log2(n + 2)).
  public static int counted(int outputs) {
    return 32 - Integer.numberOfLeadingZeros(outputs + 1);
  }

  private static List<String> counting(int outputs) {
    List<String> v = new ArrayList<>();
    for (int bit = counted(outputs) - 1; bit >= 0; bit--) {
      StringBuilder s = new StringBuilder();
      for (int i = 1; i <= outputs; i++) {
        s.append((i >> bit) & 1);
      }
      v.add(s.toString());
    }
    return v;
  }

  private static String turned(String s) {
    StringBuilder t = new StringBuilder();
    s.chars().forEach(c -> t.append(c == '0' ? '1' : '0'));
    return t.toString();
  }

  /// What a vector reads back where two outputs are joined, with `?` where nobody knows.
  public static String read(String vector, int a, int b, Short how) {
    char x = vector.charAt(a);
    char y = vector.charAt(b);
    if (x == y) {
      return vector;
    }
    char both = how == Short.WIRED_AND ? '0' : how == Short.WIRED_OR ? '1' : '?';
    StringBuilder s = new StringBuilder(vector);
    s.setCharAt(a, both);
    s.setCharAt(b, both);
    return s.toString();
  }

  /// Whether a short between two outputs shows, whatever it makes of them: where they fight, both
  /// read alike, so that one of them reads wrong.
  public boolean catches(int a, int b) {
    return vectors.stream().anyMatch(v -> v.charAt(a) != v.charAt(b));
  }

  /// Shorts between any two outputs.
  public Caught shorts() {
    int n = vectors.getFirst().length();
    int caught = 0;
    for (int a = 0; a < n; a++) {
      for (int b = a + 1; b < n; b++) {
        caught += catches(a, b) ? 1 : 0;
      }
    }
    return new Caught(caught, n * (n - 1) / 2);
  }

  /// Lines that are stuck at zero or at one.
  public Caught stuck() {
    int n = vectors.getFirst().length();
    int caught = 0;
    for (int i = 0; i < n; i++) {
      int at = i;
      caught += vectors.stream().anyMatch(v -> v.charAt(at) == '1') ? 1 : 0;
      caught += vectors.stream().anyMatch(v -> v.charAt(at) == '0') ? 1 : 0;
    }
    return new Caught(caught, 2 * n);
  }
}
