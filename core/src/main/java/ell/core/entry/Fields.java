package ell.core.entry;

import ell.core.json.JsonObject;
import ell.core.quantity.Limits;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.Optional;
import tools.jackson.databind.node.ObjectNode;

/// Fields that several kinds of entries share, as they stand in files and in words.
final class Fields {
  private Fields() {}

  static void limits(ObjectNode o, Limits l) {
    if (Double.isFinite(l.low())) {
      o.put("low", l.low());
    }
    if (Double.isFinite(l.high())) {
      o.put("high", l.high());
    }
  }

  static Limits limits(JsonObject o) {
    return new Limits(
        o.number("low", Double.NEGATIVE_INFINITY), o.number("high", Double.POSITIVE_INFINITY));
  }

  static Optional<Limits> someLimits(JsonObject o) {
    return o.has("low") || o.has("high") ? Optional.of(limits(o)) : Optional.empty();
  }

  static Optional<LocalDate> due(JsonObject o) {
    try {
      return o.has("due") ? Optional.of(LocalDate.parse(o.text("due"))) : Optional.empty();
    } catch (DateTimeParseException e) {
      throw o.wrong("due", "a date");
    }
  }

  static Optional<Verdict> verdict(JsonObject o) {
    return o.has("verdict") ? Optional.of(Verdict.ofKey(o.text("verdict"))) : Optional.empty();
  }

  static Optional<Double> optional(JsonObject o, String key) {
    return o.has(key) ? Optional.of(o.number(key)) : Optional.empty();
  }

  static Unit unit(String symbol) {
    for (Unit u : Unit.values()) {
      if (u.symbol().equals(symbol)) {
        return u;
      }
    }
    throw new IllegalArgumentException("unknown unit '" + symbol + "'");
  }

  /// Words behind what was said, where there are any.
  static String tail(String why) {
    return why.isEmpty() ? "" : " · " + why;
  }
}
