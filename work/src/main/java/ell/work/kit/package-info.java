/// The acts of the kit: the shelf as it stands, what to order from whom, what may be fitted
/// instead; the rule that keeps paste closed.
///
/// Open [ell.work.kit.Stockroom] first. The sums stand in the core's package of the same name.
package ell.work.kit;
