package ell.core.board;

/// The two sides of a board. The first side is the one that faces up in the placement file.
public enum Side {
  /// The side that is built first, also called top.
  FIRST("first"),
  /// The other side, also called bottom.
  SECOND("second");

  private final String key;

  Side(String key) {
    this.key = key;
  }

  /// The side as a key in files and on screen.
  public String key() {
    return key;
  }

  /// The side behind it.
  public Side other() {
    return this == FIRST ? SECOND : FIRST;
  }
}
