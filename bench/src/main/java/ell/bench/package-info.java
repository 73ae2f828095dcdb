/// The bench: instruments opened by kind and address.
///
/// Open [ell.bench.Bench] first. Clients stand in `instrument`, what carries their lines in `link`,
/// the bench that is not there in `sim`.
package ell.bench;
