/// A fabricated layer as it is drawn: figures in the order in which they are laid down, and the
/// filled islands that come of them.
///
/// In: flashes, strokes and regions, dark or clear. Out: islands with area and perimeter, loops of
/// an edge. Open [ell.core.artwork.Artwork] first, then [ell.core.artwork.Islands]. Knows nothing
/// of files or screens.
package ell.core.artwork;
