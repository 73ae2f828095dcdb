/// Jigs on the command line: `jig`.
package ell.cli.jig;
