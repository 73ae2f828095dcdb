/// Plates of a jig as files that a drill, a cutter or a printer takes. In go [Plates] of the core;
/// out come XNC, DXF and SVG. Open first: [PlateWriter].
package ell.files.plate;
