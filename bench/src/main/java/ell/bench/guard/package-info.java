/// A second process that holds the supply's link, and switches off when the first one dies.
///
/// Open [ell.bench.guard.Guard] first.
package ell.bench.guard;
