package ell.core.power;

import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/// A cell of a revision that is to be charged: where it is read, and how it should charge by what
/// was said of it.
///
/// @param cell the part, or the net where the revision has none
/// @param tip where a tip reaches its plus
/// @param places under which the book may have its readings
/// @param expected how it should charge
/// @param assumptions what nobody said, a sentence each
public record ChargedCell(
    String cell, String tip, Set<String> places, Charging expected, List<String> assumptions) {
  /// Volts of a lithium cell that is empty, and full, and its resistance; common practice, no
  /// source.
  private static final double EMPTY = 3.0;

  private static final double FULL = 4.2;
  private static final double OHMS = 0.15;
  private static final double HOURS = 2;
  private static final double END = 0.1;

  public ChargedCell {
    places = Set.copyOf(places);
    assumptions = List.copyOf(assumptions);
  }

  /// Finds it.
  ///
  /// @param cell a part, or a net that a cell feeds
  /// @param said `charge` in coulomb, `amps`, `empty`, `full`, `ohms`, `end`; those that are
  ///   missing are taken from what the ladder knows of the part, and else assumed
  /// @throws IllegalArgumentException when there is no such cell, it is none that is charged, or
  ///   its charge was not said
  public static ChargedCell of(
      Revision revision, Ladder ladder, String cell, Map<String, Double> said) {
    Part part = revision.part(cell).orElse(null);
    if (part == null && revision.net(cell).isEmpty()) {
      throw new IllegalArgumentException("the revision has no cell or net '" + cell + "'");
    }
    if (part != null && part.kind() != PartKind.CELL) {
      throw new IllegalArgumentException(cell + " is no cell: " + part.value());
    }
    String plus = part == null ? cell : plus(revision, ladder, cell);
    PartSaid known = part == null ? null : ladder.parts().get(cell);
    if (known == null || !known.kind().equals("cell")) {
      CellVolts.of(revision, plus)
          .filter(v -> v[3] == 1 && v[2] < FULL)
          .ifPresent(v -> {
            throw new IllegalArgumentException(
                cell
                    + " has "
                    + EngineeringNumber.print(v[1], Unit.VOLT, 2)
                    + " by its words, and is none that is charged: such a cell bursts");
          });
    }
    List<String> assumed = new ArrayList<>();
    Double charge = said.get("charge");
    if (charge == null && known != null && known.number("charge").isPresent()) {
      charge = known.number("charge").getAsDouble();
    }
    if (charge == null) {
      throw new IllegalArgumentException("how much does " + cell + " hold? --capacity 500mAh");
    }
    double empty = value("empty", said, known, EMPTY, Unit.VOLT, assumed);
    double full = value("full", said, known, FULL, Unit.VOLT, assumed);
    double ohms = value("ohms", said, known, OHMS, Unit.OHM, assumed);
    double amps = value("amps", said, known, charge / 3600 / HOURS, Unit.AMPERE, assumed);
    double end = value("end", said, null, END * amps, Unit.AMPERE, assumed);
    Set<String> places = new LinkedHashSet<>(List.of(cell, plus));
    String tip = plus;
    for (Joint j : revision.net(plus)) {
      if (part != null && j.part().equals(cell)) {
        places.add(j.place());
        tip = j.place();
      }
    }
    for (Ladder.RailSpec r : ladder.rails()) {
      if (r.net().equals(plus) && !r.readAt().isEmpty()) {
        places.add(r.readAt());
      }
    }
    return new ChargedCell(
        cell, tip, places, new Charging(charge, empty, full, ohms, amps, end), assumed);
  }

  private static double value(
      String key,
      Map<String, Double> said,
      PartSaid known,
      double otherwise,
      Unit unit,
      List<String> assumed) {
    Double v = said.get(key);
    if (v != null) {
      return v;
    }
    if (known != null && known.number(key).isPresent()) {
      return known.number(key).getAsDouble();
    }
    assumed.add(key + " " + EngineeringNumber.print(otherwise, unit, 3));
    return otherwise;
  }

  private static String plus(Revision revision, Ladder ladder, String cell) {
    return revision.jointsOf(cell).stream()
        .map(Joint::net)
        .filter(n -> !n.isEmpty() && !n.equals(ladder.ground()))
        .findFirst()
        .orElseThrow(() -> new IllegalArgumentException(cell + " is on no net but ground"));
  }
}
