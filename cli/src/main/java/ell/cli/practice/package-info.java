/// Practice on the command line.
package ell.cli.practice;
