package ell.core.pulse;

import ell.core.board.Revision;
import ell.core.pulse.Wanted.Driven;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Limits;
import ell.core.quantity.Unit;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// One `name=value` that is said of a place.
final class PulseWord {
  private static final String WORDS =
      "clock, within, family, vil, vih, slowest, vmax, from, driver, series, edge, swing, length,"
          + " z0, velocity, loss, load, tap, or a measure: ";

  private PulseWord() {}

  /// The place with one more thing said of it.
  ///
  /// @throws IllegalArgumentException when it cannot be understood or be right
  static Wanted take(Wanted w, String name, String value, Revision r, List<LogicFamily> families) {
    return switch (name) {
      case "clock" -> clock(w, above(value, Unit.HERTZ, name));
      case "within" -> within(w, PulseSaid.share(value));
      case "family" -> family(w, value, families);
      case "vil", "vih", "slowest", "vmax" -> threshold(w, name, value);
      case "from",
          "driver",
          "series",
          "edge",
          "swing",
          "length",
          "z0",
          "velocity",
          "loss",
          "load",
          "tap" ->
          line(w, name, value, r);
      default -> limit(w, name, value);
    };
  }

  private static double above(String value, Unit unit, String name) {
    double v = EngineeringNumber.parse(value, unit);
    if (!(v > 0)) {
      throw new IllegalArgumentException(name + " is above 0, found '" + value + "'");
    }
    return v;
  }

  private static Wanted clock(Wanted w, double f) {
    return new Wanted(
        w.place(),
        w.net(),
        w.family(),
        w.guessed(),
        w.input(),
        f,
        w.within(),
        false,
        w.limits(),
        w.line(),
        "");
  }

  private static Wanted within(Wanted w, double share) {
    if (!(share > 0 && share < 1)) {
      throw new IllegalArgumentException("within is a share above 0, such as 100ppm or 2%");
    }
    return new Wanted(
        w.place(),
        w.net(),
        w.family(),
        w.guessed(),
        w.input(),
        w.clock(),
        share,
        w.clockGuessed(),
        w.limits(),
        w.line(),
        w.why());
  }

  private static Wanted family(Wanted w, String value, List<LogicFamily> families) {
    LogicFamily f =
        LogicFamily.named(value, families)
            .orElseThrow(() ->
                new IllegalArgumentException(
                    "there is no family '"
                        + value
                        + "'; there are "
                        + String.join(", ", families.stream().map(LogicFamily::name).toList())));
    return new Wanted(
        w.place(),
        w.net(),
        Optional.of(f),
        false,
        Optional.empty(),
        w.clock(),
        w.within(),
        w.clockGuessed(),
        w.limits(),
        w.line(),
        w.why());
  }

  private static Wanted threshold(Wanted w, String name, String value) {
    Arrives.Input was =
        w.thresholds()
            .orElse(
                new Arrives.Input(
                    Double.NEGATIVE_INFINITY,
                    Double.POSITIVE_INFINITY,
                    Double.POSITIVE_INFINITY,
                    Double.POSITIVE_INFINITY));
    Arrives.Input in =
        switch (name) {
          case "vil" ->
              new Arrives.Input(
                  EngineeringNumber.parse(value, Unit.VOLT), was.vih(), was.slowest(), was.most());
          case "vih" ->
              new Arrives.Input(
                  was.vil(), EngineeringNumber.parse(value, Unit.VOLT), was.slowest(), was.most());
          case "slowest" ->
              new Arrives.Input(
                  was.vil(), was.vih(), above(value, Unit.SECOND_PER_VOLT, name), was.most());
          default ->
              new Arrives.Input(was.vil(), was.vih(), was.slowest(), above(value, Unit.VOLT, name));
        };
    return new Wanted(
        w.place(),
        w.net(),
        w.family(),
        w.guessed(),
        Optional.of(in),
        w.clock(),
        w.within(),
        w.clockGuessed(),
        w.limits(),
        w.line(),
        w.why());
  }

  private static Wanted limit(Wanted w, String name, String value) {
    String measure;
    try {
      measure = PulseSaid.measure(name);
    } catch (IllegalArgumentException e) {
      throw new IllegalArgumentException(
          "'"
              + name
              + "' cannot be said of a place; there are "
              + WORDS
              + String.join(", ", Measures.NAMES.keySet()),
          e);
    }
    Map<String, Limits> limits = new LinkedHashMap<>(w.limits());
    limits.put(measure, PulseSaid.limits(value, Measures.NAMES.get(measure)));
    return new Wanted(
        w.place(),
        w.net(),
        w.family(),
        w.guessed(),
        w.input(),
        w.clock(),
        w.within(),
        w.clockGuessed(),
        limits,
        w.line(),
        w.why());
  }

  private static Wanted line(Wanted w, String name, String value, Revision r) {
    Driven d = w.line().orElse(usual(w));
    Driven n =
        switch (name) {
          case "from" -> with(d, PulseSaid.joint(value, r));
          case "tap" -> tapped(d, value, r);
          case "driver" -> number(d, 1, notBelow(value, Unit.OHM, name));
          case "series" -> number(d, 2, notBelow(value, Unit.OHM, name));
          case "edge" -> number(d, 3, notBelow(value, Unit.SECOND, name));
          case "swing" -> number(d, 4, above(value, Unit.VOLT, name));
          case "length" -> number(d, 5, above(value, Unit.METRE, name));
          case "z0" -> number(d, 6, above(value, Unit.OHM, name));
          case "velocity" -> number(d, 7, velocity(value));
          case "loss" -> number(d, 8, loss(value));
          default -> number(d, 9, notBelow(value, Unit.FARAD, name));
        };
    return new Wanted(
        w.place(),
        w.net(),
        w.family(),
        w.guessed(),
        w.input(),
        w.clock(),
        w.within(),
        w.clockGuessed(),
        w.limits(),
        Optional.of(n),
        w.why());
  }

  private static Driven usual(Wanted w) {
    Driven u = Driven.USUAL;
    return w.family().isEmpty() ? u : number(u, 4, w.family().get().supply());
  }

  private static double notBelow(String value, Unit unit, String name) {
    double v = EngineeringNumber.parse(value, unit);
    if (!(v >= 0)) {
      throw new IllegalArgumentException(name + " is 0 or more, found '" + value + "'");
    }
    return v;
  }

  private static double velocity(String value) {
    double v =
        value.endsWith("c")
            ? PulseSaid.share(value.substring(0, value.length() - 1))
            : PulseSaid.share(value);
    if (!(v > 0 && v <= 1)) {
      throw new IllegalArgumentException(
          "velocity is a share of that of light, 0 to 1, found '" + value + "'");
    }
    return v;
  }

  private static double loss(String value) {
    double v = PulseSaid.share(value);
    if (!(v >= 0 && v < 1)) {
      throw new IllegalArgumentException(
          "loss is a share from 0 to below 1, found '" + value + "'");
    }
    return v;
  }

  private static Driven with(Driven d, String from) {
    return new Driven(
        from,
        d.ohms(),
        d.series(),
        d.edge(),
        d.swing(),
        d.length(),
        d.z0(),
        d.velocity(),
        d.loss(),
        d.farads(),
        d.taps());
  }

  private static Driven tapped(Driven d, String value, Revision r) {
    int at = value.indexOf('@');
    double share = at < 1 ? Double.NaN : PulseSaid.share(value.substring(at + 1));
    if (!(share >= 0 && share <= 1)) {
      throw new IllegalArgumentException(
          "a tap is a joint and its place on the line, such as tap=U3.11@0.33, found '"
              + value
              + "'");
    }
    Map<String, Double> taps = new LinkedHashMap<>(d.taps());
    taps.put(PulseSaid.joint(value.substring(0, at), r), share);
    return new Driven(
        d.from(),
        d.ohms(),
        d.series(),
        d.edge(),
        d.swing(),
        d.length(),
        d.z0(),
        d.velocity(),
        d.loss(),
        d.farads(),
        taps);
  }

  private static Driven number(Driven d, int which, double v) {
    return new Driven(
        d.from(),
        which == 1 ? v : d.ohms(),
        which == 2 ? v : d.series(),
        which == 3 ? v : d.edge(),
        which == 4 ? v : d.swing(),
        which == 5 ? v : d.length(),
        which == 6 ? v : d.z0(),
        which == 7 ? v : d.velocity(),
        which == 8 ? v : d.loss(),
        which == 9 ? v : d.farads(),
        d.taps());
  }
}
