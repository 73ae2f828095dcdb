/// Will the paste release: the ratios of stencil openings.
///
/// Pure computation: immutable values in, immutable values out. Open [ell.core.print.Aperture]
/// first. Knows nothing of files, stores, instruments or screens.
package ell.core.print;
