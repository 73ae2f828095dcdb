/// Proofs on the command line: `prove`.
package ell.cli.prove;
