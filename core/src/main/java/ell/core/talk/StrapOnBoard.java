package ell.core.talk;

import ell.core.board.Joint;
import ell.core.board.Revision;
import ell.core.circuit.Circuit;
import ell.core.circuit.Operating;
import ell.core.power.BoardCircuit;
import ell.core.power.Ladder;
import ell.core.power.Ladder.RailSpec;
import ell.core.talk.PinTable.Need;
import ell.core.talk.PinTable.Offer;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.BiFunction;

/// Straps on a board that is drawn: what hangs on a signal is the net of the pin that it was on,
/// and the level at reset is that of the board model with the strap's own pull on that net.
public final class StrapOnBoard implements BiFunction<Offer, Need, PinMap.Strapped> {
  private final Revision r;
  private final Ladder ladder;
  private final String part;

  /// @param part the controller; pins are named as its joints
  public StrapOnBoard(Revision r, Ladder ladder, String part) {
    this.r = r;
    this.ladder = ladder;
    this.part = part;
  }

  @Override
  public PinMap.Strapped apply(Offer o, Need n) {
    Optional<Joint> was =
        n.was().isEmpty() ? Optional.empty() : r.joint(part, n.was()).filter(Joint::connected);
    Optional<RailSpec> io =
        r.jointsOf(part).stream()
            .map(Joint::net)
            .distinct()
            .flatMap(x -> ladder.rail(x).stream())
            .filter(x -> !x.net().equals(ladder.ground()) && x.volts() > 0)
            .min(Comparator.comparingDouble(RailSpec::volts));
    if (was.isEmpty() || io.isEmpty() || !n.load().isEmpty()) {
      return StrapPull.of(o, n); // what was said comes before what is drawn
    }
    BoardCircuit board = new BoardCircuit(r, ladder, List.of());
    Circuit c = board.powered("boot", 1);
    for (int i = 0; i < ladder.sources().size(); i++) {
      Ladder.Source s = ladder.sources().get(i);
      c.set(BoardCircuit.supply(i), s.volts(), Math.max(s.limit(), 0.5), true);
    }
    StrapPull.Load own =
        o.pull().isEmpty()
            ? new StrapPull.Load(StrapPull.OWN_PULL, o.strap().equals("high"))
            : StrapPull.Load.parse(o.pull());
    String node = board.node(was.get());
    c.resistor(
        "strap pull", node, own.up() ? board.node(io.get().net()) : Circuit.GROUND, own.ohms());
    Operating rest = c.rest();
    String must = "must be " + o.strap() + " at reset";
    if (!rest.settled()) {
      return new PinMap.Strapped(
          o.pin(), o.strap(), n.signal(), false, must + "; the board model did not settle");
    }
    double share = rest.at(node) / io.get().volts();
    boolean wrong = o.strap().equals("high") ? share < StrapPull.HIGH : share > StrapPull.LOW;
    return new PinMap.Strapped(
        o.pin(),
        o.strap(),
        n.signal(),
        wrong,
        String.format(
            Locale.ROOT,
            "%s; with what hangs on %s it has %.2f V of %.2f V: %s",
            must,
            was.get().net(),
            rest.at(node),
            io.get().volts(),
            wrong
                ? share > StrapPull.LOW && share < StrapPull.HIGH
                    ? "neither level"
                    : "the wrong level"
                : "as it must be"));
  }
}
