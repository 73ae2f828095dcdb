package ell.core.pulse;

import java.util.List;

/// A step that runs along a line, whatever hangs on it.
public interface OnLine {
  /// Volts of the driver's step without load.
  double swing();

  /// Characteristic impedance of the line, Ω.
  double z0();

  /// The same with another resistance at its source, driver and resistor together.
  OnLine from(double ohms);

  /// Whether it settles soon enough to be gone through.
  boolean settles();

  /// Whether all of it is exact: resistors at both ends and nothing between.
  boolean linear();

  /// The courses at places.
  ///
  /// @param places shares of the line, 0...1
  /// @throws IllegalArgumentException when it does not settle
  List<Bounce.Course> at(List<Double> places);
}
