package ell.core.pulse;

import ell.core.quantity.Limits;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// What should be seen at a place: the kind of its inputs, limits of measures, the clock that runs
/// there, who drives it over which line. Everything may be unsaid.
///
/// @param place a net, or a joint `U3.4`
/// @param net of the place
/// @param family of its inputs
/// @param guessed whether the family is only taken from the volts of a rail; such a one judges
///   nothing
/// @param input thresholds of its own, in place of those of the family
/// @param clock hertz that should be there, 0 for none
/// @param within how far the clock may be off, a share; 0 when not said
/// @param clockGuessed whether the clock is taken from the value of a part
/// @param limits of measures, by their names
/// @param line who drives it, over which line
/// @param why where a guess comes from, empty for none
public record Wanted(
    String place,
    String net,
    Optional<LogicFamily> family,
    boolean guessed,
    Optional<Arrives.Input> input,
    double clock,
    double within,
    boolean clockGuessed,
    Map<String, Limits> limits,
    Optional<Driven> line,
    String why) {

  /// The driver of a net, and the line from it to the last input.
  ///
  /// @param from joint of the driver, empty when not said
  /// @param ohms of the driver
  /// @param series resistor at the source, Ω
  /// @param edge 10 to 90 % of its edge, s
  /// @param swing V
  /// @param length of the line, m; 0 when not said
  /// @param z0 Ω; 0 when not said
  /// @param velocity share of that of light; 0 when not said
  /// @param loss share that one pass takes
  /// @param farads at the far end
  /// @param taps joints on the way, by shares of the line
  public record Driven(
      String from,
      double ohms,
      double series,
      double edge,
      double swing,
      double length,
      double z0,
      double velocity,
      double loss,
      double farads,
      Map<String, Double> taps) {
    /// What is taken for a driver of which nothing is said: typical, no source.
    public static final Driven USUAL = new Driven("", 25, 0, 3e-9, 3.3, 0, 0, 0, 0, 0, Map.of());

    public Driven {
      taps = Map.copyOf(taps);
    }

    /// The same with another resistor at the source.
    public Driven with(double ohmsInSeries) {
      return new Driven(
          from, ohms, ohmsInSeries, edge, swing, length, z0, velocity, loss, farads, taps);
    }

    /// Whether the line itself is known.
    public boolean lined() {
      return length > 0 && z0 > 0 && velocity > 0;
    }

    /// The step on its line.
    ///
    /// @throws IllegalArgumentException when the line is not known
    public Bounce bounce() {
      if (!lined()) {
        throw new IllegalArgumentException("length, z0 and velocity of the line are not all known");
      }
      return new Bounce(
          swing,
          ohms + series,
          z0,
          length / (velocity * LineOnBoard.LIGHT),
          loss,
          edge,
          Double.POSITIVE_INFINITY,
          farads,
          Double.POSITIVE_INFINITY);
    }
  }

  /// The same, driven otherwise.
  public Wanted driven(Driven d) {
    return new Wanted(
        place,
        net,
        family,
        guessed,
        input,
        clock,
        within,
        clockGuessed,
        limits,
        Optional.of(d),
        why);
  }

  public Wanted {
    limits = Map.copyOf(limits);
  }

  /// Nothing is said of a place.
  public static Wanted nothing(String place, String net) {
    return new Wanted(
        place,
        net,
        Optional.empty(),
        false,
        Optional.empty(),
        0,
        0,
        false,
        Map.of(),
        Optional.empty(),
        "");
  }

  /// What its inputs want, by their own thresholds or those of the family.
  public Optional<Arrives.Input> thresholds() {
    return input.isPresent() ? input : family.map(LogicFamily::input);
  }

  /// Whether thresholds are known well enough to judge by.
  public boolean judges() {
    return input.isPresent() || family.isPresent() && !guessed;
  }

  /// Whether nobody spoke of it: all that is known is a guess.
  public boolean onlyGuessed() {
    return clockGuessed || guessed && clock == 0 && limits.isEmpty() && line.isEmpty();
  }

  /// Everything that is guessed, and how it is put right.
  public List<String> guesses() {
    List<String> all = new java.util.ArrayList<>();
    if (family.isPresent() && guessed && input.isEmpty()) {
      all.add(
          "thresholds of "
              + family.get().name()
              + " are a guess; say: "
              + place
              + " family="
              + family.get().name());
    }
    if (clockGuessed) {
      all.add(why + "; say: " + place + " clock=" + PulseSaid.hertz(clock) + " within=100ppm");
    }
    return all;
  }
}
