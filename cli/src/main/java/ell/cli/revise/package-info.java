/// Mistakes of revisions, the work that they make, and what differs between two drawings.
package ell.cli.revise;
