/// The acts of the order: plans of builds, what the maker wishes of them, what the book adds.
///
/// Open [ell.work.order.Plans] first, then [ell.work.order.Ordering].
package ell.work.order;
