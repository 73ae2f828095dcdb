package ell.core.entry;

import ell.core.json.JsonObject;
import java.util.function.BiConsumer;
import java.util.function.Function;
import tools.jackson.databind.node.ObjectNode;

/// One row of the list of kinds: how an entry of one kind is named in files, written, read, and
/// told in words. The rows stand in [Kinds]; a test holds that every kind of [Entry] has exactly
/// one.
///
/// @param type the record
/// @param word the fixed word in files; never changed once it was written
/// @param write puts everything but version and word into an object
/// @param read makes the entry of an object
/// @param words one line for a person
public record Kind<E extends Entry>(
    Class<E> type,
    String word,
    BiConsumer<E, ObjectNode> write,
    Function<JsonObject, E> read,
    Function<E, String> words) {

  /// Writes an entry of this kind.
  ///
  /// @throws ClassCastException when it is of another kind
  void put(Entry entry, ObjectNode into) {
    write.accept(type.cast(entry), into);
  }

  /// An entry of this kind in words.
  ///
  /// @throws ClassCastException when it is of another kind
  String tell(Entry entry) {
    return words.apply(type.cast(entry));
  }
}
