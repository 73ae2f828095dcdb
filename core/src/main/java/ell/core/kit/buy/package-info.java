/// What to order from whom: the cheapest set of offers that is there in time, proven or with its
/// gap.
///
/// In come what is short and the sellers' offers, out comes an [ell.core.kit.buy.OrderSplit]. Open
/// that first. Knows nothing of files, stores, instruments or screens.
package ell.core.kit.buy;
