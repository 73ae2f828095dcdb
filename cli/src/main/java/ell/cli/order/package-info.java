/// Commands of the order.
///
/// Open [ell.cli.order.OrderCommand] first.
package ell.cli.order;
