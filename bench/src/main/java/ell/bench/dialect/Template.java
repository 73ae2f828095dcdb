package ell.bench.dialect;

/// A line that a kind of instrument needs, or may have.
///
/// @param key its name in a dialect file
/// @param takes what stands in braces in it, empty for nothing
/// @param query whether it is answered
/// @param needed whether nothing goes without it
record Template(String key, String takes, boolean query, boolean needed) {
  static Template query(String key) {
    return new Template(key, "", true, true);
  }

  static Template command(String key) {
    return new Template(key, "", false, true);
  }

  Template taking(String word) {
    return new Template(key, word, query, needed);
  }

  Template maybe() {
    return new Template(key, takes, query, false);
  }
}
