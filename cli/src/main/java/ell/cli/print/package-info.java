/// Commands of the print: stencils and jars.
///
/// Open [ell.cli.print.StencilCommand] first.
package ell.cli.print;
