package ell.core.order;

/// One part before another, with the reason.
///
/// @param before reference of the part that comes first
/// @param after reference of the part that comes later
/// @param why which rule it comes from
/// @param reason a phrase for the part that comes first
public record Arrow(String before, String after, Why why, String reason) {
  /// The rules, with what is lost when an arrow of theirs is dropped to open a loop.
  public enum Why {
    /// Lower first, so that the board lies flat on each.
    FLAT(1),
    /// What dislikes heat after its hot neighbour.
    HEAT(2),
    /// Lower before taller where the tool needs the room.
    ROOM(3),
    /// A module only at its gate.
    MODULE(4),
    /// What is under a body before it.
    COVER(10),
    /// The maker wants it so.
    WISH(1000);

    private final int cost;

    Why(int cost) {
      this.cost = cost;
    }

    /// Higher is worse to lose.
    public int cost() {
      return cost;
    }
  }

  @Override
  public String toString() {
    return before + " before " + after + " (" + reason + ")";
  }
}
