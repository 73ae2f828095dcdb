package ell.core.artwork;

/// What a figure says of itself; each empty when it says nothing.
///
/// @param part reference of the part
/// @param pin name of the pin
/// @param net name of the net
public record Tag(String part, String pin, String net) {
  /// Nothing is said.
  public static final Tag NONE = new Tag("", "", "");
}
