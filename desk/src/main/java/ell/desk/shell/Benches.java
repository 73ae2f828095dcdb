package ell.desk.shell;

import java.util.List;
import java.util.Optional;

/// The benches that share a workspace, as this one sees them at one moment. Immutable.
///
/// @param bench name of this one
/// @param place the address, as it is typed
/// @param role of whoever sits here: `owner`, `maker`, `helper` or `reader`; empty while it is not
///   known
/// @param since when the server does not answer, as a clock shows it; empty when it does
/// @param held boards that are in hand, here or elsewhere
/// @param waits what was written here while the server did not answer
public record Benches(
    String bench, String place, String role, String since, List<Held> held, List<Waits> waits) {
  public Benches {
    held = List.copyOf(held);
    waits = List.copyOf(waits);
  }

  /// A board in hand.
  ///
  /// @param until when it is free by itself, as a clock shows it
  /// @param words with which it was handed over, may be empty
  public record Held(String board, String bench, String person, String until, String words) {}

  /// An entry that waits.
  ///
  /// @param conflict why it was not taken over, empty when it waits for the server alone
  public record Waits(String board, String words, String conflict) {}

  /// The other bench that has a board in hand, if one has.
  public Optional<Held> elsewhere(String board) {
    return held.stream()
        .filter(h -> h.board().equals(board) && !h.bench().equals(bench))
        .findFirst();
  }

  /// What matters most of it, in the few words that the rule has room for.
  public String words() {
    long conflicts = waits.stream().filter(w -> !w.conflict().isEmpty()).count();
    if (!since.isEmpty()) {
      return "alone since " + since;
    }
    return conflicts > 0
        ? conflicts + " to settle · Ctrl+H"
        : waits.isEmpty() ? bench : waits.size() + " wait · Ctrl+H";
  }
}
