package ell.core.pulse;

import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import ell.core.power.Ladder;
import ell.core.power.PartValue;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Quantity;
import ell.core.quantity.Unit;
import ell.core.sheet.SheetProblem;
import ell.core.sheet.Worked;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;

/// Sheets of clocks and buses with the parts of a revision filled in: the capacitors beside a
/// crystal, the pull-ups of a two-wire bus. What neither bill nor netlist says is left at what is
/// usual, and the sheet says so.
public final class FilledSheets {
  /// What a pin of a two-wire bus has at most. Source: NXP UM10204, table 10, from memory.
  private static final double PIN = 10e-12;

  private FilledSheets() {}

  /// The sheets of a net.
  public static List<Worked> of(Revision r, Ladder ladder, String net) {
    List<Worked> all = new ArrayList<>();
    r.net(net).stream()
        .map(Joint::part)
        .distinct()
        .flatMap(p -> r.part(p).stream())
        .filter(p -> p.fitted() && p.kind() == PartKind.CRYSTAL)
        .findFirst()
        .flatMap(p -> crystal(r, ladder, p))
        .ifPresent(all::add);
    if (twoWire(net)) {
      pullUp(r, ladder, net).flatMap(p -> bus(r, p, net)).ifPresent(all::add);
    }
    return all;
  }

  /// Whether a name is that of a line of a two-wire bus.
  public static boolean twoWire(String net) {
    return net.toUpperCase(Locale.ROOT).matches(".*(SDA|SCL|I2C|TWI).*");
  }

  /// A resistor from a net to a rail.
  ///
  /// @param volts of the rail
  record PullUp(Part part, double ohms, double volts) {}

  static Optional<PullUp> pullUp(Revision r, Ladder ladder, String net) {
    for (Joint j : r.net(net)) {
      Optional<Part> p = r.part(j.part()).filter(Part::fitted);
      if (p.isEmpty() || p.get().kind() != PartKind.RESISTOR) {
        continue;
      }
      OptionalDouble ohms = PartValue.ohms(p.get());
      Optional<Ladder.RailSpec> rail =
          r.jointsOf(j.part()).stream()
              .filter(x -> !x.net().equals(net))
              .flatMap(x -> ladder.rail(x.net()).stream())
              .findFirst();
      if (ohms.isPresent() && rail.isPresent() && rail.get().volts() > 0) {
        return Optional.of(new PullUp(p.get(), ohms.getAsDouble(), rail.get().volts()));
      }
    }
    return Optional.empty();
  }

  private static Optional<Worked> crystal(Revision r, Ladder ladder, Part y) {
    Optional<Double> wanted = load(y);
    if (wanted.isEmpty()) {
      return Optional.empty();
    }
    List<Double> each = new ArrayList<>();
    for (Joint j : r.jointsOf(y.reference())) {
      if (!j.connected() || j.net().equals(ladder.ground())) {
        continue;
      }
      double sum =
          r.net(j.net()).stream()
              .map(Joint::part)
              .distinct()
              .flatMap(p -> r.part(p).stream())
              .filter(p -> p.fitted() && p.kind() == PartKind.CAPACITOR)
              .filter(p ->
                  r.jointsOf(p.reference()).stream().anyMatch(x -> x.net().equals(ladder.ground())))
              .flatMapToDouble(p -> PartValue.farads(p).stream())
              .sum();
      if (sum > 0) {
        each.add(sum);
      }
    }
    Map<String, String> in = new LinkedHashMap<>();
    in.put("loadCapacitance", wanted.get() + "F");
    if (each.size() == 2) {
      // two that differ load it as two alike of twice their series would
      in.put("fitted", 2 * each.get(0) * each.get(1) / (each.get(0) + each.get(1)) + "F");
    }
    return work("clock.load-caps", in);
  }

  /// What a crystal wants to be loaded with: the picofarads in its value or its description.
  private static Optional<Double> load(Part y) {
    String words = y.value() + " " + y.description();
    for (String w : words.replaceAll("(?<=\\d)\\s+(?=[pP][fF])", "").split("[\\s,;/]+")) {
      if (w.toLowerCase(Locale.ROOT).matches("\\d+(\\.\\d+)?pf")) {
        try {
          Quantity q = EngineeringNumber.read(w, Unit.FARAD);
          return Optional.of(q.value());
        } catch (NumberFormatException e) {
          // another word
        }
      }
    }
    return Optional.empty();
  }

  private static Optional<Worked> bus(Revision r, PullUp p, String net) {
    long pins =
        r.net(net).stream()
            .filter(j -> {
              PartKind k = PartKind.of(j.part());
              return k == PartKind.CHIP || k == PartKind.MODULE || k == PartKind.CONNECTOR;
            })
            .count();
    Map<String, String> in = new LinkedHashMap<>();
    in.put("vdd", p.volts() + "V");
    in.put("capacitance", Math.max(1, pins) * PIN + "F");
    in.put("resistance", p.ohms() + "ohm");
    double taken = Math.max(1, pins) * PIN;
    // what rests on a capacitance that nobody said is no verdict
    return work("bus.pullup", in)
        .map(w ->
            saying(
                w,
                "of the bus "
                    + EngineeringNumber.print(taken, Unit.FARAD, 2)
                    + " are taken, 10 pF a pin; traces and cables are not in it: work bus.pullup with"
                    + " what you know"));
  }

  private static Worked saying(Worked w, String assumption) {
    List<String> all = new ArrayList<>(w.assumptions());
    all.add(assumption);
    return new Worked(
        w.sheet(),
        w.title(),
        w.inputs(),
        w.lines(),
        w.results(),
        Optional.empty(),
        all,
        w.sources(),
        w.cautions());
  }

  private static Optional<Worked> work(String sheet, Map<String, String> in) {
    try {
      return PulseSheets.all().stream()
          .filter(s -> s.name().equals(sheet))
          .findFirst()
          .map(s -> s.work(in));
    } catch (SheetProblem e) {
      return Optional.empty(); // a value outside of what the sheet takes says nothing
    }
  }
}
