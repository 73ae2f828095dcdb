/// The acts of the inspection: walks, rates, photographs.
///
/// Open [ell.work.look.Looking] first.
package ell.work.look;
