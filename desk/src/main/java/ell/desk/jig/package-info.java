/// Jigs in the window: the board between its plates from above and in section, what it costs and
/// when it has paid. Open first: [JigStation].
package ell.desk.jig;
