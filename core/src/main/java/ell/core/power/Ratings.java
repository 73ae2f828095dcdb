package ell.core.power;

import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import ell.core.circuit.Warmth;
import ell.core.power.Rating.Passed;
import ell.core.power.Rating.What;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.function.ToDoubleFunction;

/// What the parts of a board bear: volts, amperes and warmth, from the bill and the ladder where
/// they say it, typical where not. Parts of which nothing can be said are not here.
public final class Ratings {
  /// Surroundings on a bench, °C.
  public static final double AMBIENT = 25;

  private static final double SILICON_CELSIUS = 150;
  private static final double FILM_CELSIUS = 155;

  /// A lamp for signs bears so much for a moment, and a polarised capacitor so many volts the wrong
  /// way; typical, no source.
  private static final double LAMP_AMPS = 0.05;

  private static final double WRONG_WAY = 1.5;

  /// A chip bears this share more than the most that its rail may have; typical, no source.
  private static final double CHIP_MORE = 1.25;

  /// A rating and the nodes between which its volts are, from plus to minus.
  private record Held(Rating rating, String plus, String minus) {}

  private final List<Held> all = new ArrayList<>();
  private final List<Warmth.Body> bodies = new ArrayList<>();
  private final BoardCircuit circuit;
  private final Revision revision;

  private Ratings(Revision revision, BoardCircuit circuit) {
    this.revision = revision;
    this.circuit = circuit;
  }

  /// The ratings of a board.
  ///
  /// @param circuit the board's own, with its faults
  public static Ratings of(Revision revision, Ladder ladder, BoardCircuit circuit) {
    Ratings r = new Ratings(revision, circuit);
    for (Part p : revision.parts()) {
      if (p.fitted()) {
        r.part(p, ladder);
      }
    }
    for (Ladder.Load l : ladder.loads()) {
      Optional<Part> p = revision.part(l.part());
      double high = ladder.rail(l.rail()).orElseThrow().high();
      if (p.isPresent() && p.get().kind() == PartKind.CHIP && p.get().fitted() && high > 0) {
        r.all.add(
            new Held(
                new Rating(
                    l.part(),
                    What.VOLTS,
                    CHIP_MORE * high,
                    "typical: a quarter more than " + l.rail() + " may have"),
                circuit.fed(l),
                circuit.back(l)));
      }
    }
    return r;
  }

  private void part(Part p, Ladder ladder) {
    String name = p.reference();
    switch (p.kind()) {
      case RESISTOR -> warms(p, 0, 0, FILM_CELSIUS, "typical of a film");
      case CAPACITOR -> {
        OptionalDouble said = said(ladder, name, "volts");
        (said.isPresent() ? said : PartModel.ratedVolts(p))
            .ifPresent(
                v -> ends(new Rating(name, What.VOLTS, v, said.isPresent() ? "said" : "its bill")));
        if (PartModel.polarised(p)) {
          ends(new Rating(name, What.REVERSE, WRONG_WAY, "typical"));
        }
      }
      case LED -> {
        OptionalDouble said = said(ladder, name, "amps");
        ends(
            new Rating(
                name, What.AMPS, said.orElse(LAMP_AMPS), said.isPresent() ? "said" : "typical"));
      }
      case INDUCTOR, FERRITE -> {
        if (RatedAmps.of(p).isPresent()) {
          warms(p, 0, PartModel.COIL_OHM, FILM_CELSIUS, "typical of a coil");
        }
      }
      case DIODE, TRANSISTOR, CHIP -> {
        double theta =
            said(ladder, name, "theta")
                .orElseGet(() ->
                    ladder.steps().stream()
                        .filter(s -> s.part().equals(name))
                        .mapToDouble(Ladder.Step::theta)
                        .max()
                        .orElse(0));
        warms(p, theta, 0, SILICON_CELSIUS, "typical of silicon");
      }
      default -> {} // of these nothing is known
    }
  }

  private static OptionalDouble said(Ladder ladder, String part, String key) {
    PartSaid s = ladder.parts().get(part);
    return s == null ? OptionalDouble.empty() : s.number(key);
  }

  private void warms(Part p, double theta, double ohms, double most, String why) {
    bodies.add(PartHeat.body(revision, p, theta, ohms));
    all.add(new Held(new Rating(p.reference(), What.WARMTH, most, why), "", ""));
  }

  /// Between the two ends of a part.
  private void ends(Rating r) {
    List<Joint> joints = revision.jointsOf(r.part());
    if (joints.size() == 2) {
      boolean turned = circuit.turned(r.part());
      all.add(
          new Held(
              r,
              circuit.node(joints.get(turned ? 1 : 0)),
              circuit.node(joints.get(turned ? 0 : 1))));
    }
  }

  /// The parts that get warm.
  public List<Warmth.Body> bodies() {
    return bodies;
  }

  /// All ratings.
  public List<Rating> all() {
    return all.stream().map(Held::rating).toList();
  }

  /// Those that are passed.
  ///
  /// @param volts by node
  /// @param amps by element
  /// @param kelvin above the surroundings, by part
  public List<Passed> passed(
      ToDoubleFunction<String> volts,
      ToDoubleFunction<String> amps,
      ToDoubleFunction<String> kelvin) {
    List<Passed> passed = new ArrayList<>();
    for (Held h : all) {
      Rating r = h.rating();
      double value =
          switch (r.what()) {
            case WARMTH -> AMBIENT + kelvin.applyAsDouble(r.part());
            case AMPS -> Math.abs(amps.applyAsDouble(r.part()));
            case VOLTS -> Math.abs(volts.applyAsDouble(h.plus()) - volts.applyAsDouble(h.minus()));
            case REVERSE -> volts.applyAsDouble(h.minus()) - volts.applyAsDouble(h.plus());
          };
      if (value > r.most()) {
        passed.add(new Passed(r, value));
      }
    }
    return passed;
  }
}
