package ell.core.talk;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/// Something that is done with a board: program, run, charge, measure its sleep current.
///
/// @param name a word
/// @param links how they must stand for it, true for closed; those it does not name may stand as
///   they like
/// @param plugs what must be plugged in (true) or not (false)
/// @param after operations that must be done before it
public record Operation(
    String name, Map<String, Boolean> links, Map<String, Boolean> plugs, List<String> after) {
  /// @throws IllegalArgumentException when the name is no word
  public Operation {
    if (!name.matches("[A-Za-z][A-Za-z0-9_-]*")) {
      throw new IllegalArgumentException("an operation is a word, found '" + name + "'");
    }
    links = Collections.unmodifiableMap(new TreeMap<>(links));
    plugs = Collections.unmodifiableMap(new LinkedHashMap<>(plugs));
    after = List.copyOf(after);
  }
}
