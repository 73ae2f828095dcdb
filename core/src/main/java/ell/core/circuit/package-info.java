/// Direct-current networks: nodal analysis of resistors, diodes, sources, regulators and loads.
///
/// Pure computation: immutable values in, immutable values out. Open [ell.core.circuit.Network]
/// first. Knows nothing of files, stores, instruments or screens.
package ell.core.circuit;
