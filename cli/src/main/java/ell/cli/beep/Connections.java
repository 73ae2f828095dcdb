package ell.cli.beep;

import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.JsonText;
import ell.core.beep.BeepFacts;
import ell.core.beep.ShortPlaces;
import ell.core.beep.Transfer;
import ell.core.board.Joint;
import ell.core.board.NetDifference;
import ell.core.board.Revision;
import ell.core.entry.BoardState;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.core.rack.Plan;
import ell.work.Workshop;
import ell.work.space.ActException;
import java.io.PrintWriter;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// What is joined and what should be: places of a short, the list of connections, the difference to
/// another netlist.
final class Connections {
  private final PrintWriter out;
  private final boolean json;

  Connections(PrintWriter out, boolean json) {
    this.out = out;
    this.json = json;
  }

  int shorts(
      Workshop w,
      Plan plan,
      Optional<String> board,
      List<String> nets,
      Optional<String> feed,
      List<String> readings)
      throws Exception {
    for (String net : nets) {
      if (plan.revision().net(net).isEmpty()) {
        throw new ActException("the revision has no net '" + net + "'");
      }
    }
    if (nets.get(0).equals(nets.get(1))) {
      throw new ActException("a short is between two nets, found " + nets.get(0) + " twice");
    }
    Optional<ShortPlaces.Feed> fed = Optional.empty();
    if (feed.isPresent()) {
      Named n = named("--feed", plan.revision(), nets, feed.get(), Unit.AMPERE, "J2.1=100mA");
      if (n.value() <= 0 || n.value() > ShortPlaces.MOST_AMPS) {
        throw new ActException(
            "--feed " + feed.get() + ": above 0 A and at most " + ShortPlaces.MOST_AMPS + " A");
      }
      fed = Optional.of(new ShortPlaces.Feed(n.joint(), n.value()));
    }
    List<ShortPlaces.At> own = new ArrayList<>();
    for (String r : readings) {
      own.add(reading(plan.revision(), nets, r, fed));
    }
    ShortPlaces.Readings at = new ShortPlaces.Readings(own, fed);
    Optional<BoardState> state =
        board.isPresent() ? Optional.of(w.state(board.get())) : Optional.empty();
    if (own.isEmpty() && fed.isPresent()) {
      throw new ActException(
          "--feed goes with the volts that are read along the net: --at U3.8=2.4mV for each");
    }
    if (own.isEmpty() && state.isPresent()) {
      at = ShortPlaces.logged(plan.revision(), state.get(), nets.get(0), nets.get(1));
    }
    ShortPlaces found = ShortPlaces.of(plan.revision(), nets.get(0), nets.get(1), state, at);
    if (json) {
      ObjectNode o = Json.object().put("netA", nets.get(0)).put("netB", nets.get(1));
      ArrayNode places = o.putArray("places");
      for (ShortPlaces.Place p : found.places()) {
        ObjectNode one =
            places
                .addObject()
                .put("a", p.a().place())
                .put("b", p.b().place())
                .put("x", (p.a().xMm() + p.b().xMm()) / 2 * 1e-3)
                .put("y", (p.a().yMm() + p.b().yMm()) / 2 * 1e-3)
                .put("probability", p.probability());
        Json.strings(one, "why", p.why());
      }
      o.put("elsewhere", found.elsewhere());
      o.put("readings", at.at().size());
      out.println(JsonText.of(o));
      return Exit.DONE;
    }
    for (ShortPlaces.Place p : found.places()) {
      out.printf(
          java.util.Locale.ROOT,
          "%3.0f %%  %-12s %-12s %s%n",
          100 * p.probability(),
          p.a().place(),
          p.b().place(),
          String.join(", ", p.why()));
    }
    out.printf(
        java.util.Locale.ROOT,
        "%3.0f %%  elsewhere: under a part, or between traces%n",
        100 * found.elsewhere());
    if (at.at().size() < 3) {
      out.println(
          "three milliohm readings along one of the nets would tell more: --at PLACE=OHMS for each,"
              + " the other tip staying where it is");
      out.println(
          "or a small current, board unpowered, supply at no more than 0.5 V and 0.1 A between the"
              + " nets: --feed PLACE=AMPS where it goes in, and --at PLACE=VOLTS along that net");
    }
    return Exit.DONE;
  }

  private record Named(Joint joint, double value) {}

  private static ShortPlaces.At reading(
      Revision r, List<String> nets, String text, Optional<ShortPlaces.Feed> feed)
      throws ActException {
    if (feed.isEmpty()) {
      Named n = named("--at", r, nets, text, Unit.OHM, "U3.4=12mohm");
      if (n.value() >= 0) {
        return new ShortPlaces.At(n.joint(), n.value());
      }
      throw new ActException("--at " + text + ": ohms are not below 0");
    }
    List<String> fed = List.of(feed.get().joint().net());
    Named n = named("--at", r, fed, text, Unit.VOLT, "U3.4=2.4mV");
    if (Math.abs(n.value()) > ShortPlaces.MOST_VOLTS) {
      throw new ActException(
          "--at " + text + ": a small current makes no more than " + ShortPlaces.MOST_VOLTS + " V");
    }
    return new ShortPlaces.At(n.joint(), n.value() / feed.get().amps());
  }

  /// A joint of some nets and a value.
  private static Named named(
      String option, Revision r, List<String> nets, String text, Unit unit, String example)
      throws ActException {
    int eq = text.indexOf('=');
    String place = eq < 0 ? text : text.substring(0, eq);
    Optional<Joint> joint = r.joint(place).or(() -> r.jointsOf(place).stream().findFirst());
    if (eq < 0 || joint.isEmpty() || !nets.contains(joint.get().net())) {
      throw new ActException(
          option
              + " takes a joint of "
              + String.join(" or ", nets)
              + " and "
              + unit.symbol()
              + ", such as "
              + example
              + ", found '"
              + text
              + "'");
    }
    try {
      return new Named(joint.get(), EngineeringNumber.parse(text.substring(eq + 1), unit));
    } catch (NumberFormatException e) {
      throw new ActException(option + " " + text + ": " + e.getMessage(), e);
    }
  }

  int transfer(Workshop w, Plan plan, Optional<String> board, Optional<String> part)
      throws Exception {
    BeepFacts facts =
        board.isPresent() ? BeepFacts.of(w.state(board.get())) : new BeepFacts(java.util.Map.of());
    Transfer t = Transfer.of(plan.revision(), facts);
    List<Transfer.PartPins> parts = t.parts();
    if (part.isPresent()) {
      parts =
          List.of(
              t.part(part.get())
                  .orElseThrow(() ->
                      new ActException("the revision has no part '" + part.get() + "' on a net")));
    }
    if (json) {
      ObjectNode o = Json.object().put("pins", t.pins()).put("ticked", t.ticked());
      board.ifPresent(b -> o.put("board", b));
      ArrayNode all = o.putArray("parts");
      for (Transfer.PartPins p : parts) {
        ObjectNode one = all.addObject().put("part", p.part()).put("left", p.left());
        ArrayNode pins = one.putArray("pins");
        for (Transfer.Pin x : p.pins()) {
          ObjectNode pin =
              pins.addObject()
                  .put("pin", x.pin())
                  .put("net", x.net())
                  .put("state", x.state().words());
          Json.strings(pin, "with", x.with());
        }
      }
      out.println(JsonText.of(o));
      return Exit.DONE;
    }
    for (Transfer.PartPins p : parts) {
      out.println(
          p.part()
              + (p.left() == 0
                  ? ": every pin is ticked off"
                  : ": " + p.left() + " of " + p.pins().size() + " pins are left"));
      for (Transfer.Pin x : p.pins()) {
        out.printf("  %-6s %-14s %-8s %s%n", x.pin(), x.net(), x.state().words(), with(x));
      }
    }
    out.println(t.ticked() + " of " + t.pins() + " pins are ticked off");
    return Exit.DONE;
  }

  private static final int FEW = 6;

  private static String with(Transfer.Pin x) {
    List<String> first = x.with().subList(0, Math.min(FEW, x.with().size()));
    return "with "
        + String.join(" ", first)
        + (x.with().size() > FEW ? " and " + (x.with().size() - FEW) + " more" : "");
  }

  int against(NetDifference d) {
    if (json) {
      ObjectNode o = Json.object().put("same", d.same());
      ArrayNode renamed = o.putArray("renamed");
      d.renamed().forEach((a, b) -> renamed.addObject().put("from", a).put("to", b));
      ArrayNode joints = o.putArray("joints");
      d.moved()
          .forEach(m ->
              joints.addObject().put("place", m.place()).put("from", m.from()).put("to", m.to()));
      Json.strings(o, "added", d.added());
      Json.strings(o, "removed", d.removed());
      Json.strings(o, "came", d.came());
      Json.strings(o, "gone", d.gone());
      out.println(JsonText.of(o));
      return d.same() ? Exit.DONE : Exit.NOT_HELD;
    }
    d.renamed().forEach((a, b) -> out.println(a + " is called " + b + " there"));
    d.moved()
        .forEach(m ->
            out.println(m.place() + ": " + net(m.from()) + " here, " + net(m.to()) + " there"));
    d.gone().forEach(p -> out.println(p + " is not there"));
    d.came().forEach(p -> out.println(p + " is only there"));
    d.added().forEach(n -> out.println("net " + n + " is only there"));
    d.removed().forEach(n -> out.println("nothing is left of net " + n));
    out.println(d.same() ? "the two join the same" : "the two do not join the same");
    return d.same() ? Exit.DONE : Exit.NOT_HELD;
  }

  private static String net(String net) {
    return net.isEmpty() ? "on no net" : "on " + net;
  }
}
