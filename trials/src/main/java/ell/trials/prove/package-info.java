/// Proofs in numbers: orders of tests, and what a large build says of itself.
package ell.trials.prove;
