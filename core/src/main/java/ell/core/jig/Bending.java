package ell.core.jig;

import java.util.List;

/// How a board bends between probes and fingers.
///
/// @param fingers that press against the probes
/// @param fingerSide true when they press on the first side
/// @param rests whether a rest lies under each finger, as probes push from both sides
/// @param held whether they hold the board at all
/// @param deflection greatest, m
/// @param strain greatest of the surface
/// @param strainAt where that is, `{x, y}` in millimetre
/// @param brittle parts that a bent board cracks, with the strain under them, the greatest first
/// @param steps what each finger brought
/// @param even by how much the greatest deflection moved when the cells were halved, as a share
/// @param field middles of cells with their deflection: `{x, y, w}` in m
/// @param told what is to be said of it
public record Bending(
    List<Finger> fingers,
    boolean fingerSide,
    boolean rests,
    boolean held,
    double deflection,
    double strain,
    double[] strainAt,
    List<Brittle> brittle,
    List<Step> steps,
    double even,
    List<double[]> field,
    List<String> told) {

  /// A finger.
  ///
  /// @param newtons that it bears; below 0 where its rest bears it
  public record Finger(double xMm, double yMm, double newtons) {}

  /// A part that cracks when the board bends.
  ///
  /// @param fingerMm from its middle to the nearest finger
  public record Brittle(String part, double strain, double fingerMm) {}

  /// What a number of fingers gives.
  ///
  /// @param deflection NaN when they do not hold the board
  public record Step(int fingers, double deflection, double strain) {}

  public Bending {
    fingers = List.copyOf(fingers);
    strainAt = strainAt.clone();
    brittle = List.copyOf(brittle);
    steps = List.copyOf(steps);
    field = List.copyOf(field);
    told = List.copyOf(told);
  }
}
