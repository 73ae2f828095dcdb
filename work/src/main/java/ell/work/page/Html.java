package ell.work.page;

import ell.core.quantity.Verdict;
import ell.work.word.Words;
import java.util.List;

/// A page as it is put together. Everything that comes from a book goes through [#text(String)], so
/// that whatever somebody logged stays words.
final class Html {
  private final StringBuilder out = new StringBuilder();
  private final Words words;

  /// @param words the language that it is read in
  Html(Words words) {
    this.words = words;
  }

  /// A text as it may stand in a page, between tags and inside quotes.
  static String text(String s) {
    StringBuilder b = new StringBuilder(s.length() + 16);
    for (int i = 0; i < s.length(); i++) {
      char c = s.charAt(i);
      switch (c) {
        case '<' -> b.append("&lt;");
        case '>' -> b.append("&gt;");
        case '&' -> b.append("&amp;");
        case '"' -> b.append("&quot;");
        case '\'' -> b.append("&#39;");
        default -> b.append(c < ' ' && c != '\n' ? ' ' : c);
      }
    }
    return b.toString();
  }

  /// A verdict as mark and word: never the colour alone.
  static String verdict(Verdict v) {
    return switch (v) {
      case WITHIN -> "✓ within";
      case CLOSE -> "~ too close to call";
      case OUT -> "× out";
    };
  }

  /// Opens an element of a class.
  Html open(String tag, String style) {
    out.append('<').append(tag);
    if (!style.isEmpty()) {
      out.append(" class=\"").append(style).append('"');
    }
    out.append('>');
    return this;
  }

  Html close(String tag) {
    out.append("</").append(tag).append('>');
    return this;
  }

  /// An element with words, nothing where there are none.
  Html say(String tag, String style, String said) {
    if (!said.isEmpty()) {
      open(tag, style);
      out.append(text(words.shown(said)));
      close(tag);
    }
    return this;
  }

  /// A way to another page of the same server.
  ///
  /// @param to begins with a slash; nothing in it needs escaping but `&`
  Html link(String to, String style, String said) {
    out.append("<a class=\"").append(style).append("\" href=\"").append(text(to)).append("\">");
    out.append(text(words.shown(said))).append("</a>");
    return this;
  }

  /// A row of a table.
  ///
  /// @param head whether its cells are heads
  Html row(String style, boolean head, List<String> cells) {
    open("tr", style);
    for (String c : cells) {
      out.append(head ? "<th>" : "<td>")
          .append(text(words.shown(c)))
          .append(head ? "</th>" : "</td>");
    }
    return close("tr");
  }

  /// What is markup already.
  Html raw(String markup) {
    out.append(markup);
    return this;
  }

  @Override
  public String toString() {
    return out.toString();
  }
}
