/// Paste and stencil
///
/// Pure computation on immutable values in, immutable values out. Open [ell.core.print. how well an
/// opening releases.:Aperture] first. Knows nothing of files, stores, instruments or screens.
package ell.core.print;
