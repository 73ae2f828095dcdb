/// Tracing in the window: the board shaded by where the fault may be, the suspects by rank, what is
/// not known over the minutes, and the measurement in hand as a fork.
package ell.desk.trace;
