/// Jigs as the workshop sees them: what is said of them, plans, files, their own books. Open first:
/// [Jigs].
package ell.work.jig;
