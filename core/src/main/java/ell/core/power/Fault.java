package ell.core.power;

/// Something wrong with one board, with its design or with an instrument, as the simulated bench
/// can have it. Written and read as words by [FaultWords]. Ohms are not below 0.
public sealed interface Fault {
  /// A joint that was never made: the lead does not touch its pad.
  record Open(String part, String pin) implements Fault {}

  /// A joint that leads badly.
  record Resistive(String part, String pin, double ohms) implements Fault {}

  /// Solder or a sliver between two places.
  ///
  /// @param a a net, or a joint `part.pin`
  /// @param b the other
  record Bridge(String a, String b, double ohms) implements Fault {}

  /// A part that does nothing: a regulator without output, a chip that draws nothing.
  record Dead(String part) implements Fault {}

  /// A part of the wrong value.
  ///
  /// @param ohms what a resistor really has; what another part has, in its own unit
  record WrongValue(String part, double ohms) implements Fault {}

  /// A diode or a lamp that sits the wrong way round.
  record Turned(String part) implements Fault {}

  /// A part that joins its ends.
  record Short(String part) implements Fault {}

  /// A part that was left off.
  record Missing(String part) implements Fault {}

  /// A joint that the design hangs on another net, on every board.
  record Tied(String part, String pin, String net) implements Fault {}

  /// A joint that the design hangs on nothing, on every board.
  record Loose(String part, String pin) implements Fault {}

  /// A link that is not as it must be.
  record Link(String part, boolean open) implements Fault {}

  /// An instrument that is set wrongly.
  ///
  /// @param what such as `ac`, `x10`, `current-jack`
  record Setting(String instrument, String what) implements Fault {}

  /// Firmware that does something wrong.
  record Firmware(String words) implements Fault {}

  /// A fault that is there at some tries only.
  ///
  /// @param chance at each, above 0 and up to 1
  record Sometimes(double chance, Fault fault) implements Fault {
    public Sometimes {
      if (!(chance > 0 && chance <= 1)) {
        throw new IllegalArgumentException("a chance is above 0 and up to 1, found " + chance);
      }
    }
  }
}
