/// Benchmarks, not shipped: each as a ratio to a named reference of the same run.
///
/// Open [ell.trials.Bench] first.
package ell.trials;
