package ell.core.pulse.bus;

import java.util.List;
import java.util.Locale;
import java.util.OptionalInt;

/// What was said on a bus.
///
/// @param items in the order of time
/// @param told what is guessed or taken, a sentence each
public record Decoded(List<Item> items, List<String> told) {
  public Decoded {
    items = List.copyOf(items);
    told = List.copyOf(told);
  }

  /// One frame, or one thing that happened.
  ///
  /// @param at second at which it begins
  /// @param until second at which it ends
  /// @param kind `byte`, `address`, `start`, `stop`, `select`, `release`, `stretch`, `break`
  /// @param channel that says it: `tx`, `out`, `in`; empty where there is one only
  /// @param value 0...255 or more bits, empty where there is none
  /// @param problem in words, empty when nothing is wrong
  public record Item(
      double at, double until, String kind, String channel, OptionalInt value, String problem) {
    /// In words: `0x55 'U'`.
    public String words() {
      String what =
          value.isEmpty()
              ? kind
              : (kind.equals("byte") ? "" : kind + " ")
                  + String.format(Locale.ROOT, "0x%02X", value.getAsInt())
                  + letter(value.getAsInt());
      return what + (problem.isEmpty() ? "" : ": " + problem);
    }

    private String letter(int v) {
      return kind.equals("byte") && v > ' ' && v < 127 ? " '" + (char) v + "'" : "";
    }
  }

  /// Frames with something wrong about them.
  public long problems() {
    return items.stream().filter(i -> !i.problem().isEmpty()).count();
  }

  /// The bytes of a channel as text; what cannot be printed is left out.
  public String text(String channel) {
    StringBuilder s = new StringBuilder();
    for (Item i : items) {
      if (i.kind().equals("byte") && i.channel().equals(channel) && i.value().isPresent()) {
        int v = i.value().getAsInt();
        if (v >= ' ' && v < 127 || v == '\n') {
          s.append((char) v);
        }
      }
    }
    return s.toString();
  }
}
