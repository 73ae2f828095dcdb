package ell.core.jig;

import ell.core.quantity.Check;
import java.util.List;

/// A series of spring probes: what one of them needs and gives. The values that ship are typical of
/// such probes, no source; a data sheet decides.
///
/// @param name its spacing in millimetre, as the trade calls it
/// @param spacingMm least distance of two of them
/// @param drillMm hole in the plate for its tube
/// @param newtons force at the stroke that it is used at
/// @param amps most current through one
/// @param ohms resistance of one with its contact
/// @param tiltMm how far its tip strays sideways, either way
/// @param cost rank in a choice: the smaller, the sturdier
public record ProbeSeries(
    String name,
    double spacingMm,
    double drillMm,
    double newtons,
    double amps,
    double ohms,
    double tiltMm,
    int cost) {

  /// The series that ship, the largest first.
  public static final List<ProbeSeries> TYPICAL =
      List.of(
          new ProbeSeries("2.54", 2.54, 1.75, 1.5, 3, 0.03, 0.08, 0),
          new ProbeSeries("1.91", 1.91, 1.35, 1.2, 2, 0.04, 0.08, 1),
          new ProbeSeries("1.27", 1.27, 1.00, 0.8, 1, 0.06, 0.10, 4));

  public ProbeSeries {
    Check.positive(spacingMm, "spacing of series " + name);
    Check.positive(drillMm, "drill of series " + name);
    Check.positive(newtons, "force of series " + name);
    Check.positive(amps, "current of series " + name);
    Check.positive(ohms, "resistance of series " + name);
    Check.notNegative(tiltMm, "tilt of series " + name);
  }

  /// How far its head wipes along the copper, millimetre: its tilt over the stroke, one and a half
  /// spacings, of the ten millimetre that it is guided over; typical, no source. A sharp head cuts
  /// through flux by it, a round one spares gold.
  public double scrubMm() {
    return 1.5 * spacingMm * tiltMm / 10;
  }

  /// The same series with another force.
  ProbeSeries pressing(double force) {
    return new ProbeSeries(name, spacingMm, drillMm, force, amps, ohms, tiltMm, cost);
  }

  /// The least distance of a probe of this series and one of another, in millimetre.
  public double apartMm(ProbeSeries other) {
    return (spacingMm + other.spacingMm) / 2;
  }
}
