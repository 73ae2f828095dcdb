package ell.bench.sim;

import ell.bench.sim.ScpiStatus.Refused;
import java.util.ArrayList;
import java.util.List;

/// A line taken apart into its units, each with a header from the root and its parameters. Headers
/// after a semicolon begin where the one before them stood. Source: IEEE 488.2, 7.3 to 7.6; SCPI-99
/// volume 1, 6.2.4 (from memory).
///
/// @param header without a leading colon, a `?` at its end when it asks
/// @param data parameters, blanks around them left out
record ScpiMessage(String header, List<String> data) {
  private static final int LONGEST_WORD = 12;

  /// No header and no parameter that means anything is longer.
  private static final int LONGEST = 400;

  ScpiMessage {
    data = List.copyOf(data);
  }

  boolean common() {
    return header.startsWith("*");
  }

  /// The units of a line, without those that are empty.
  static List<String> units(String line) {
    return split(line, ';').stream().map(String::strip).filter(u -> !u.isEmpty()).toList();
  }

  /// One unit.
  ///
  /// @param path of the unit before it, up to its last colon; empty at the root
  static ScpiMessage of(String unit, String path) {
    int end = 0;
    while (end < unit.length() && unit.charAt(end) > ' ') {
      end++;
    }
    String said = unit.substring(0, end);
    if (said.length() > LONGEST) {
      throw new Refused(-112, "Program mnemonic too long");
    }
    String header =
        said.startsWith(":") ? said.substring(1) : said.startsWith("*") ? said : path + said;
    if (!header.matches("\\*?[A-Za-z][A-Za-z0-9_]*(:[A-Za-z][A-Za-z0-9_]*)*\\??")) {
      throw said.chars().anyMatch(c -> c > 126)
          ? new Refused(-101, "Invalid character")
          : new Refused(-110, "Command header error");
    }
    for (String word : header.split(":")) {
      if (word.replaceAll("[?*]", "").length() > LONGEST_WORD) {
        throw new Refused(-112, "Program mnemonic too long");
      }
    }
    String rest = unit.substring(end).strip();
    List<String> data = rest.isEmpty() ? List.of() : split(rest, ',');
    if (data.stream().anyMatch(d -> d.length() > LONGEST)) {
      throw new Refused(-124, "Too many digits");
    }
    if (data.stream().anyMatch(String::isBlank)) {
      throw new Refused(-102, "Syntax error");
    }
    return new ScpiMessage(header, data.stream().map(String::strip).toList());
  }

  /// Where the next header begins that does not begin at the root.
  String path() {
    return header.substring(0, header.lastIndexOf(':') + 1);
  }

  /// Cuts at a mark that stands in no quotes and in no brackets.
  private static List<String> split(String text, char at) {
    List<String> parts = new ArrayList<>();
    StringBuilder part = new StringBuilder();
    char quote = 0;
    int depth = 0;
    for (int i = 0; i < text.length(); i++) {
      char c = text.charAt(i);
      if (quote != 0) {
        quote = c == quote ? 0 : quote;
      } else if (c == '"' || c == '\'') {
        quote = c;
      } else if (c == '(') {
        depth++;
      } else if (c == ')') {
        depth--;
      } else if (c == at && depth <= 0) {
        parts.add(part.toString());
        part.setLength(0);
        continue;
      }
      part.append(c);
    }
    if (quote != 0) {
      throw new Refused(-151, "Invalid string data");
    }
    parts.add(part.toString());
    return parts;
  }
}
