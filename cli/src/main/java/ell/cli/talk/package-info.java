/// Links, pins, lines and chains on the command line.
package ell.cli.talk;
