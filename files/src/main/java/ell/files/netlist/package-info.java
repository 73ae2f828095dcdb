/// Netlists by IPC-D-356A.
///
/// Open [ell.files.netlist.NetlistReader] first.
package ell.files.netlist;
