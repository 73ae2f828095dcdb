package ell.core.print;

import ell.core.heat.Alloy;
import ell.core.quantity.Check;

/// A solder paste: powder of an alloy in flux.
///
/// @param metalMassFraction 0...1, typically 0.885
/// @param fluxDensity kg/m³, typically 1000
public record Paste(Alloy alloy, double metalMassFraction, double fluxDensity) {
  /// Mass fraction of metal where no data sheet says it; typical.
  public static final double METAL = 0.885;

  /// Density of flux where no data sheet says it, kg/m³; typical.
  public static final double FLUX = 1000;

  public Paste {
    Check.inRange(metalMassFraction, 0.01, 0.99, "metalMassFraction");
    Check.positive(fluxDensity, "fluxDensity");
  }

  /// A paste as it is usual.
  public static Paste of(Alloy alloy) {
    return new Paste(alloy, METAL, FLUX);
  }

  /// Fraction of its volume that is metal, which is what stays: `(w/ρM) / (w/ρM + (1 − w)/ρF)`.
  public double metalVolumeFraction() {
    double metal = metalMassFraction / alloy.density();
    return metal / (metal + (1 - metalMassFraction) / fluxDensity);
  }

  /// Density of the paste, kg/m³.
  public double density() {
    return 1 / (metalMassFraction / alloy.density() + (1 - metalMassFraction) / fluxDensity);
  }

  /// How much of an opening's volume stays on the pad: 0.9 from an area ratio of 0.75, down a
  /// straight line through 0.5 at 0.5, not below 0. Typical, no source.
  ///
  /// @throws IllegalArgumentException when areaRatio is below 0
  public static double transfer(double areaRatio) {
    Check.notNegative(areaRatio, "areaRatio");
    return Math.clamp(0.5 + (areaRatio - 0.5) * 1.6, 0, 0.9);
  }
}
