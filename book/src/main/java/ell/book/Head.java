package ell.book;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// Where a book ended at some time, kept outside of it: how many entries it held, and the hash of
/// the last. A book that was cut or written anew since then does not hold it any more.
///
/// @param entries how many
/// @param hash of the last, hexadecimal, at least eight of its figures
public record Head(long entries, String hash) {
  private static final Pattern WRITTEN =
      Pattern.compile("(\\d{1,18}+)[:·\\s-]++([0-9a-fA-F]{8,64}+)");
  private static final int SHORT = 16;

  public Head {
    hash = hash.toLowerCase(Locale.ROOT);
  }

  /// A head as it is printed, `538:2f6a91c04be7d512`, or the one that a copy of the workspace
  /// holds.
  ///
  /// @throws BookException when it is neither
  public static Head of(String words) throws BookException {
    Matcher m = WRITTEN.matcher(words.strip());
    if (m.matches()) {
      return new Head(Long.parseLong(m.group(1)), m.group(2));
    }
    Path file = Path.of(words);
    if (!Files.exists(file)) {
      throw new BookException(
          "expected a head such as 538:2f6a91c04be7d512, or a copy of the workspace, found '"
              + words
              + "'");
    }
    try (Book b = Book.openReadOnly(file)) {
      return b.head();
    }
  }

  /// Whether a book still holds it.
  ///
  /// @return what speaks against it, empty when nothing does
  public Optional<String> against(Book book) throws BookException {
    if (entries == 0) {
      return Optional.empty();
    }
    Optional<String> is = book.hashOf(entries);
    if (is.isEmpty()) {
      return Optional.of(
          "the book was cut: it holds " + book.size() + " entries, and held " + entries);
    }
    return is.get().startsWith(hash)
        ? Optional.empty()
        : Optional.of("the book was written anew: entry " + entries + " is another one");
  }

  @Override
  public String toString() {
    return entries + ":" + hash.substring(0, Math.min(SHORT, hash.length()));
  }
}
