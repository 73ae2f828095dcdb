/// Can I start
///
/// Pure computation on immutable values in, immutable values out. Open [ell.core.kit. need with
/// attrition, boards that the shelf supports, the part that limits.:KitCheck] first. Knows nothing
/// of files, stores, instruments or screens.
package ell.core.kit;
