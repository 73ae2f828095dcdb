package ell.core.power;

/// Something wrong with one board, as the simulated bench can have it. The kind in files is the
/// record's name in lower case.
public sealed interface Fault {
  /// A joint that was never made: the lead does not touch its pad.
  record Open(String part, String pin) implements Fault {}

  /// Solder or a sliver between two nets.
  ///
  /// @param a one net
  /// @param b the other net
  /// @param ohms resistance of the bridge, not below 0
  record Bridge(String a, String b, double ohms) implements Fault {}

  /// A part that does nothing: a regulator without output, a chip that draws nothing.
  record Dead(String part) implements Fault {}

  /// A part of the wrong value.
  ///
  /// @param ohms what a resistor really has, not below 0
  record WrongValue(String part, double ohms) implements Fault {}
}
