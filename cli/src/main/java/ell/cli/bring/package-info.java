/// Commands that take in revisions and make builds.
///
/// Open [ell.cli.bring.ImportCommand] first.
package ell.cli.bring;
