package ell.core.entry;

import ell.core.json.JsonObject;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/// Entries as JSON: `{"v":1,"kind":"reading",...}`. Kinds and keys are fixed words; every kind that
/// was ever written stays readable. A limit that does not exist is left out. What each kind writes
/// stands in its row of [Kinds].
public final class EntryJson {
  /// Version written.
  public static final int VERSION = 1;

  private EntryJson() {}

  /// The fixed word of a kind.
  public static String kind(Entry entry) {
    return Kinds.of(entry).word();
  }

  /// Writes an entry on one line.
  public static String write(Entry entry) {
    return tree(entry).toString();
  }

  /// An entry as a tree.
  public static ObjectNode tree(Entry entry) {
    ObjectNode o = Writing.MAPPER.createObjectNode().put("v", VERSION).put("kind", kind(entry));
    Kinds.of(entry).put(entry, o);
    return o;
  }

  /// Reads an entry.
  ///
  /// @throws IllegalArgumentException with a sentence when the text is no entry
  public static Entry read(String json) {
    JsonObject o = JsonObject.parse(json, "an entry");
    double version = o.number("v", 0);
    if (version > VERSION || version < 1) {
      throw new IllegalArgumentException(
          "entry version " + version + " is not known; this Ell reads up to " + VERSION);
    }
    String kind = o.text("kind");
    return Kinds.named(kind)
        .orElseThrow(() -> new IllegalArgumentException("unknown kind of entry '" + kind + "'"))
        .read()
        .apply(o);
  }

  /// Made at the first entry that is written: reading needs none of it, and a start should not wait
  /// for it.
  private static final class Writing {
    static final JsonMapper MAPPER = JsonMapper.builder().build();

    private Writing() {}
  }
}
