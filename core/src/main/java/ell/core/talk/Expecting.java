package ell.core.talk;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// Waits for a pattern in text that comes in pieces. Only the latest part of what was heard is
/// kept, and a pattern that does not come to an end is given up. Not for many threads.
public final class Expecting {
  private static final int KEPT = 1 << 16;

  /// Looks at a character, in one search: a tenth of a second and less.
  private static final int MOST_LOOKS = 20_000_000;

  private final Pattern pattern;
  private final StringBuilder heard = new StringBuilder();
  private long dropped;

  /// Waits for a pattern.
  public Expecting(String pattern) {
    this.pattern = Pattern.compile(pattern, Pattern.MULTILINE);
  }

  /// What was found.
  ///
  /// @param text that matched
  /// @param named groups that matched, by name
  /// @param rest heard behind it
  public record Found(String text, Map<String, String> named, String rest) {
    public Found {
      named = java.util.Collections.unmodifiableMap(new LinkedHashMap<>(named));
    }
  }

  /// More was heard.
  ///
  /// @return what matched, the first time it does
  /// @throws IllegalStateException when the pattern is too hard for what is heard
  public Optional<Found> hear(String text) {
    heard.append(text);
    if (heard.length() > KEPT) {
      dropped += heard.length() - KEPT;
      heard.delete(0, heard.length() - KEPT);
    }
    Matcher m = pattern.matcher(new Limited(heard.toString(), new int[] {MOST_LOOKS}));
    if (!m.find()) {
      return Optional.empty();
    }
    Map<String, String> named = new LinkedHashMap<>();
    for (String g : pattern.namedGroups().keySet()) {
      if (m.group(g) != null) {
        named.put(g, m.group(g));
      }
    }
    return Optional.of(new Found(m.group(), named, heard.substring(m.end())));
  }

  /// Everything that is kept of what was heard.
  public String heard() {
    return heard.toString();
  }

  /// How many characters were heard and are not kept.
  public long dropped() {
    return dropped;
  }

  /// Text that can only be looked at so often.
  private record Limited(String text, int[] left) implements CharSequence {
    @Override
    public int length() {
      return text.length();
    }

    @Override
    public char charAt(int i) {
      if (--left[0] < 0) {
        throw new IllegalStateException("the pattern takes too long on what is heard");
      }
      return text.charAt(i);
    }

    @Override
    public CharSequence subSequence(int from, int to) {
      return text.substring(from, to);
    }

    @Override
    public String toString() {
      return text;
    }
  }
}
