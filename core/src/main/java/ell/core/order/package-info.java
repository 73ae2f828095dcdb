/// Which part next, and why: precedence with reasons, gates, minutes.
///
/// Pure computation: immutable values in, immutable values out. Open [ell.core.order.BuildOrder]
/// first. Knows nothing of files, stores, instruments or screens.
package ell.core.order;
