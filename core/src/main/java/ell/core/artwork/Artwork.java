package ell.core.artwork;

import java.util.List;

/// A layer: its figures in the order in which they are laid down.
///
/// @param function what the file says the layer is, such as `Paste,Top`; empty when it does not say
public record Artwork(List<Figure> figures, String function) {
  public Artwork {
    figures = List.copyOf(figures);
  }
}
