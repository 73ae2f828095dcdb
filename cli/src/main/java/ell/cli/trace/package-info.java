/// The command line of tracing: where the fault is, and what to measure next.
package ell.cli.trace;
