package ell.core.jig;

/// What a probe lands on, the best first.
public enum TargetKind {
  /// Bare copper that was made to be touched.
  POINT("point", "round"),
  /// A plated hole without a lead.
  HOLE("hole", "spear"),
  /// The end of a lead that comes through its hole.
  PIN("pin", "crown"),
  /// A hole that only joins layers, free of mask.
  VIA("via", "spear"),
  /// A contact at the edge of the board.
  FINGER("finger", "round"),
  /// A soldered pad on the surface.
  PAD("pad", "sharp");

  private final String key;
  private final String head;

  TargetKind(String key, String head) {
    this.key = key;
    this.head = head;
  }

  /// The fixed word.
  public String key() {
    return key;
  }

  /// The head that suits it: round for gold, a crown over the end of a lead, a spear into a hole, a
  /// sharp point through what flux left. Common practice, no source.
  public String head() {
    return head;
  }
}
