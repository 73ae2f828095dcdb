/// Commands of the inspection: the walk and photographs.
///
/// Open [ell.cli.look.LookCommand] first.
package ell.cli.look;
