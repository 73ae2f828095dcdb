/// Every stand-alone sheet by name.
///
/// Pure computation on immutable values in, immutable values out. Open
/// [ell.core.catalogue.Catalogue] first. Knows nothing of files, stores, instruments or screens.
package ell.core.catalogue;
