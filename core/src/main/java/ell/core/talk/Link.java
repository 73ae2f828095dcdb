package ell.core.talk;

/// A link: two places that are joined or not, by solder, a jumper or a switch.
///
/// @param part its reference
/// @param kind what changes it
/// @param closed how it comes from the fabricator
/// @param guessed whether nobody said that it is a link, or of which kind
public record Link(String part, Kind kind, boolean closed, boolean guessed) {
  /// What changes a link.
  public enum Kind {
    /// The iron: each change heats its pads.
    SOLDER,
    /// A jumper on pins.
    JUMPER,
    /// A switch.
    SWITCH;

    /// As it is written.
    public String word() {
      return name().toLowerCase(java.util.Locale.ROOT);
    }
  }

  /// Whether a change needs the iron.
  public boolean iron() {
    return kind == Kind.SOLDER;
  }

  /// `open` or `closed`.
  public static String word(boolean closed) {
    return closed ? "closed" : "open";
  }
}
