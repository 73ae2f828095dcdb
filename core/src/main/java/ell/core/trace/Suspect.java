package ell.core.trace;

import ell.core.power.Fault;
import ell.core.power.FaultWords;
import java.util.List;

/// A fault that may be, with how likely it is before anything was measured.
///
/// @param fault what it is
/// @param words the fault in words, unique among those of a board
/// @param origin whose fault it would be
/// @param places joints `U3.4` and parts that it is at; what is done there may end it
/// @param nets that it touches
/// @param prior chance, above 0 and below 1
/// @param factors what made the chance, the first with its rate
public record Suspect(
    Fault fault,
    String words,
    Origin origin,
    List<String> places,
    List<String> nets,
    double prior,
    List<Factor> factors) {
  /// Whose fault it would be.
  public enum Origin {
    /// Of this board.
    BOARD,
    /// Of the design, so of every board.
    DESIGN,
    /// A link that is not as it must be.
    LINK,
    /// Of an instrument.
    INSTRUMENT,
    /// What was loaded, or the cable.
    OUTSIDE
  }

  /// One reason for a chance.
  ///
  /// @param why in words
  /// @param times by which it multiplies; for the first the rate itself
  public record Factor(String why, double times) {}

  public Suspect {
    places = List.copyOf(places);
    nets = List.copyOf(nets);
    factors = List.copyOf(factors);
  }

  /// A suspect in the words of its fault.
  static Suspect of(
      Fault fault,
      Origin origin,
      List<String> places,
      List<String> nets,
      double prior,
      List<Factor> factors) {
    return new Suspect(fault, FaultWords.words(fault), origin, places, nets, prior, factors);
  }

  /// The same with another chance.
  Suspect withPrior(double chance, List<Factor> why) {
    return new Suspect(fault, words, origin, places, nets, chance, why);
  }
}
