/// Circuits at rest and in time: nodal analysis of resistors, capacitors, coils, junctions,
/// transistors, supplies, cells, regulators, fuses and loads.
///
/// Pure computation. Open [ell.core.circuit.Circuit] first, then [ell.core.circuit.Run]. Knows
/// nothing of files, stores, instruments or screens.
package ell.core.circuit;
