/// Trials of tracing: faults put into boards that a simulator of its own measures.
package ell.trials.trace;
