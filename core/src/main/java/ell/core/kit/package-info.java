/// Can I start: need with attrition, boards that the shelf supports, the part that limits.
///
/// Pure computation: immutable values in, immutable values out. Open [ell.core.kit.KitCheck] first.
/// Knows nothing of files, stores, instruments or screens.
package ell.core.kit;
