package ell.core.talk;

import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import ell.core.circuit.Circuit;
import ell.core.circuit.Operating;
import ell.core.power.BoardCircuit;
import ell.core.power.Fault;
import ell.core.power.Ladder;
import ell.core.power.Ladder.RailSpec;
import ell.core.power.PartValue;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.function.UnaryOperator;

/// Whether a controller on a board with faults can run, hear and be heard: levels at its pins and
/// at the cable, worked out over the board model with a driver at the one end and an input at the
/// other.
///
/// Drivers have 30 ohm, inputs pull up with 45 kohm, a level below 0.3 of the supply is low and
/// above 0.7 high (typical, no source).
///
/// @param volts of its supply, the least share of all its rails
/// @param powered whether it has power
/// @param held whether it is held in reset
/// @param clock its clock over what it should be, 0 when it has none
/// @param heard whether the cable hears it
/// @param hears whether it hears the cable
/// @param straps what its straps say: true for the program, false for the loader; empty when a
///   strap is at neither level
/// @param locked whether its memory is protected
/// @param remembers whether its memory answers
/// @param settled whether the model found a state; when not, nothing of it is known
public record ControllerOnBoard(
    double volts,
    boolean powered,
    boolean held,
    double clock,
    boolean heard,
    boolean hears,
    Optional<Boolean> straps,
    boolean locked,
    boolean remembers,
    boolean settled) {
  /// Share of a rail below which a controller stops; typical, no source.
  public static final double BROWN_OUT = 0.85;

  private static final double DRIVER = 30;
  private static final double PULL = 45e3;
  private static final double LEAK = 1e7;
  private static final double LOW = 0.3;
  private static final double HIGH = 0.7;

  /// Works it out with every supply of the ladder on.
  ///
  /// @param faults of the board, those of links too
  /// @param plugged what is in, of what can be plugged
  public static ControllerOnBoard of(
      TalkPlan plan, Ladder ladder, List<Fault> faults, Map<String, Boolean> plugged) {
    return of(
        plan,
        ladder,
        faults,
        plugged,
        c -> {
          for (int i = 0; i < ladder.sources().size(); i++) {
            Ladder.Source s = ladder.sources().get(i);
            c.set(BoardCircuit.supply(i), s.volts(), Math.max(s.limit(), 0.5), true);
          }
          return c;
        });
  }

  /// Works it out with supplies as they are.
  ///
  /// @param supplies turns the knobs of the supplies of a circuit
  public static ControllerOnBoard of(
      TalkPlan plan,
      Ladder ladder,
      List<Fault> faults,
      Map<String, Boolean> plugged,
      UnaryOperator<Circuit> supplies) {
    return new Work(plan, ladder, faults, plugged, supplies).done();
  }

  /// Whether its program, or its loader, runs at all.
  public boolean runs() {
    return settled && powered && !held && clock > 0;
  }

  /// How a link stands, as a fault of the board model: what is open is no part there.
  ///
  /// @param closed by link
  public static List<Fault> links(Map<String, Boolean> closed) {
    return closed.entrySet().stream()
        .<Fault>map(e -> new Fault.Link(e.getKey(), !e.getValue()))
        .toList();
  }

  private static final class Work {
    private final TalkPlan plan;
    private final Revision r;
    private final Ladder ladder;
    private final List<Fault> faults;
    private final Map<String, Boolean> plugged;
    private final UnaryOperator<Circuit> supplies;
    private final BoardCircuit board;
    private final String controller;
    private boolean settled = true;

    Work(
        TalkPlan plan,
        Ladder ladder,
        List<Fault> faults,
        Map<String, Boolean> plugged,
        UnaryOperator<Circuit> supplies) {
      this.plan = plan;
      this.r = plan.revision();
      this.ladder = ladder;
      this.faults = faults;
      this.plugged = plugged;
      this.supplies = supplies;
      this.board = new BoardCircuit(r, ladder, faults);
      this.controller = plan.port().map(SerialPort::controller).orElse("");
    }

    ControllerOnBoard done() {
      Circuit c = supplies.apply(board.powered("boot", 1));
      inputs(c);
      Operating rest = rest(c);
      double share = share(rest);
      boolean powered = share >= BROWN_OUT && alive();
      double io = Math.max(0.5, share * nominal());
      boolean held = held(rest, io);
      boolean[] both = powered && !held ? speaks(io) : new boolean[2];
      return new ControllerOnBoard(
          share,
          powered,
          held,
          clock(),
          both[0],
          both[1],
          straps(rest, io),
          locked(rest, io),
          remembers(rest),
          settled);
    }

    private Operating rest(Circuit c) {
      Operating o = c.rest();
      settled &= o.settled();
      return o;
    }

    /// Inputs that pull: reset up, the memory's protection down; straps leak to the middle.
    private void inputs(Circuit c) {
      String middle = "talk middle";
      String rail = io().map(RailSpec::net).map(board::node).orElse(Circuit.GROUND);
      c.resistor("talk middle up", middle, rail, 1e3);
      c.resistor("talk middle down", middle, Circuit.GROUND, 1e3);
      reset().ifPresent(j -> c.resistor("talk reset", board.node(j), rail, PULL));
      for (Strap s : plan.straps()) {
        joint(s.joint())
            .ifPresent(j -> c.resistor("talk strap " + s.joint(), board.node(j), middle, LEAK));
      }
      plan.memory()
          .flatMap(m -> joint(m.protect()))
          .ifPresent(j -> c.resistor("talk protect", board.node(j), Circuit.GROUND, 2 * PULL));
    }

    private Optional<Joint> joint(String place) {
      return r.joint(place);
    }

    private String node(String place) {
      return joint(place).map(board::node).orElseGet(() -> board.node(place));
    }

    private List<RailSpec> rails(String part) {
      return r.jointsOf(part).stream()
          .map(Joint::net)
          .distinct()
          .filter(n -> !n.equals(ladder.ground()))
          .flatMap(n -> ladder.rail(n).stream())
          .filter(x -> ladder.supplied().contains(x))
          .toList();
    }

    private Optional<RailSpec> io() {
      return rails(controller).stream().min(java.util.Comparator.comparingDouble(RailSpec::volts));
    }

    private double nominal() {
      return io().map(RailSpec::volts).orElse(3.3);
    }

    private double share(Operating o) {
      double least = Double.POSITIVE_INFINITY;
      for (RailSpec x : rails(controller)) {
        least = Math.min(least, o.at(board.node(x.net())) / x.volts());
      }
      if (controller.isEmpty() || least == Double.POSITIVE_INFINITY) {
        // nobody knows what feeds it: it has power where anything of the board has
        least = 0;
        for (RailSpec x : ladder.supplied()) {
          least = Math.max(least, o.at(board.node(x.net())) / x.volts());
        }
      }
      return Math.max(0, least);
    }

    /// A controller that is there and has a joint on each of its rails and on ground.
    private boolean alive() {
      if (controller.isEmpty()) {
        return true;
      }
      for (Fault f : faults) {
        boolean gone =
            switch (f) {
              case Fault.Dead d -> d.part().equals(controller);
              case Fault.Missing m -> m.part().equals(controller);
              case Fault.Turned t -> t.part().equals(controller);
              case Fault.Short s -> s.part().equals(controller);
              default -> false;
            };
        if (gone) {
          return false;
        }
      }
      Set<String> nets = new HashSet<>();
      rails(controller).forEach(x -> nets.add(x.net()));
      nets.add(ladder.ground());
      for (String n : nets) {
        List<Joint> on = r.jointsOf(controller).stream().filter(j -> j.net().equals(n)).toList();
        if (!on.isEmpty() && on.stream().allMatch(j -> !board.node(j).equals(board.node(n)))) {
          return false;
        }
      }
      return true;
    }

    private Optional<Joint> reset() {
      return r.jointsOf(controller).stream()
          .filter(j ->
              j.net()
                  .toUpperCase(Locale.ROOT)
                  .matches("(.*_)?/?N?_?(RST|RESET|RES)(_?N|B|#)?|MCLR"))
          .findFirst();
    }

    private boolean held(Operating o, double io) {
      return reset().filter(j -> o.at(board.node(j)) < LOW * io).isPresent();
    }

    private double clock() {
      for (Part p : r.parts()) {
        if (p.kind() != PartKind.CRYSTAL || !p.fitted() || !on(p)) {
          continue;
        }
        for (Fault f : faults) {
          switch (f) {
            case Fault.WrongValue(String part, double hertz) when part.equals(p.reference()) -> {
              OptionalDouble is = PartValue.hertz(p);
              return is.isPresent() && hertz > 0 ? hertz / is.getAsDouble() : 1;
            }
            case Fault.Dead(String part) when part.equals(p.reference()) -> {
              return 0;
            }
            case Fault.Missing(String part) when part.equals(p.reference()) -> {
              return 0;
            }
            case Fault.Short(String part) when part.equals(p.reference()) -> {
              return 0;
            }
            default -> {} // the crystal swings all the same
          }
        }
        for (Joint j : r.jointsOf(p.reference())) {
          for (Joint o : r.net(j.net())) {
            boolean ends = o.part().equals(p.reference()) || o.part().equals(controller);
            if (j.connected()
                && !j.net().equals(ladder.ground())
                && ends
                && !board.node(o).equals(board.node(o.net()))) {
              return 0;
            }
          }
        }
      }
      return 1;
    }

    /// Whether a crystal hangs on the controller with both of its ends.
    private boolean on(Part crystal) {
      return r.jointsOf(crystal.reference()).stream()
              .filter(j -> j.connected() && !j.net().equals(ladder.ground()))
              .filter(j -> r.net(j.net()).stream().anyMatch(o -> o.part().equals(controller)))
              .count()
          > 1;
    }

    private boolean[] speaks(double io) {
      if (plan.port().isEmpty()) {
        return new boolean[] {true, true}; // nobody knows where the line is: nothing lies in it
      }
      SerialPort p = plan.port().get();
      // while one end speaks the other rests high; a USB pair has one driver at a time
      boolean out =
          leads(p.tx(), p.heardAt(), p.usb() ? "" : p.spokenAt(), io)
              && (!p.usb() || leads(p.rx(), p.spokenAt(), "", io));
      boolean in =
          leads(p.spokenAt(), p.rx(), p.usb() ? "" : p.tx(), io)
              && (!p.usb() || leads(p.heardAt(), p.tx(), "", io));
      // USB bears a clock that is off by a quarter of a per cent (USB 2.0, 7.1.11, from memory)
      boolean usable = !p.usb() || Math.abs(clock() - 1) <= 0.0025;
      return new boolean[] {out && usable, in && usable};
    }

    /// Whether both levels of a driver at one place arrive at another.
    ///
    /// @param rests a driver that rests high meanwhile, nothing for none
    private boolean leads(String from, String to, String rests, double io) {
      return level(from, to, rests, io, true) > HIGH * io
          && level(from, to, rests, io, false) < LOW * io;
    }

    private double level(String from, String to, String rests, double io, boolean high) {
      Circuit c = supplies.apply(board.powered("boot", 1));
      inputs(c);
      String source = "talk io";
      c.supply(source, source, Circuit.GROUND, io, 1, 0.1);
      c.set(source, io, 1, true);
      c.resistor("talk driver", node(from), high ? source : Circuit.GROUND, DRIVER);
      c.resistor("talk input", node(to), source, PULL);
      if (!rests.isEmpty()) {
        c.resistor("talk rests", node(rests), source, DRIVER);
      }
      for (Sharer s : plan.sharers()) {
        if (plugged.getOrDefault(s.part(), false)) {
          // it rests high, and holds the line there
          c.resistor("talk sharer " + s.part(), node(s.out()), source, DRIVER);
        }
      }
      return rest(c).at(node(to));
    }

    private Optional<Boolean> straps(Operating o, double io) {
      boolean program = true;
      for (Strap s : plan.straps()) {
        double v = joint(s.joint()).map(j -> o.at(board.node(j))).orElse(0.0);
        if (v > LOW * io && v < HIGH * io) {
          return Optional.empty();
        }
        program &= v >= HIGH * io == s.runsHigh();
      }
      return Optional.of(program);
    }

    private boolean locked(Operating o, double io) {
      return plan.memory()
          .filter(m -> !m.protect().isEmpty())
          .filter(m -> {
            double v = o.at(node(m.protect()));
            return m.protectsHigh() ? v > HIGH * io : v < LOW * io;
          })
          .isPresent();
    }

    private boolean remembers(Operating o) {
      if (plan.memory().isEmpty()) {
        return true;
      }
      String memory = plan.memory().get().part();
      for (Fault f : faults) {
        boolean gone =
            switch (f) {
              case Fault.Dead d -> d.part().equals(memory);
              case Fault.Missing m -> m.part().equals(memory);
              case Fault.Turned t -> t.part().equals(memory);
              default -> false;
            };
        if (gone) {
          return false;
        }
      }
      for (RailSpec x : rails(memory)) {
        if (o.at(board.node(x.net())) < BROWN_OUT * x.volts()) {
          return false;
        }
      }
      double io = Math.max(0.5, nominal());
      for (Joint j : r.jointsOf(memory)) {
        if (!j.connected() || plan.memory().get().protect().equals(j.place())) {
          continue;
        }
        if (j.net().equals(ladder.ground()) || ladder.rail(j.net()).isPresent()) {
          // one of several on ground may be an address, which nobody misses
          boolean address = j.net().equals(ladder.ground()) && several(memory, j.net());
          if (!address && !board.node(j).equals(board.node(j.net()))) {
            return false;
          }
          continue;
        }
        for (Joint from : r.net(j.net())) {
          if (from.part().equals(controller) && !carries(from, j, io)) {
            return false;
          }
        }
      }
      return true;
    }

    /// Whether a line to the memory has both of its levels: low is driven, high by the resistor
    /// that pulls the line up, or driven where there is none.
    private boolean carries(Joint from, Joint to, double io) {
      boolean pulled =
          r.net(to.net()).stream()
              .filter(x -> PartKind.of(x.part()) == PartKind.RESISTOR)
              .flatMap(x -> r.jointsOf(x.part()).stream())
              .anyMatch(x -> ladder.rail(x.net()).isPresent() && !x.net().equals(ladder.ground()));
      return memoryLevel(from, to, io, false, false) < LOW * io
          && memoryLevel(from, to, io, true, pulled) > HIGH * io;
    }

    /// The other lines to the memory are low while this one is high: a bridge between them shows.
    private void lowBesides(Circuit c, Joint one) {
      for (Joint j : r.jointsOf(one.part())) {
        boolean supply = j.net().equals(ladder.ground()) || ladder.rail(j.net()).isPresent();
        if (!j.connected() || supply || j.net().equals(one.net())) {
          continue;
        }
        for (Joint from : r.net(j.net())) {
          if (from.part().equals(controller)) {
            c.resistor("talk low " + j.place(), board.node(from), Circuit.GROUND, DRIVER);
          }
        }
      }
    }

    private double memoryLevel(Joint from, Joint to, double io, boolean high, boolean released) {
      Circuit c = supplies.apply(board.powered("boot", 1));
      inputs(c);
      String source = "talk io";
      c.supply(source, source, Circuit.GROUND, io, 1, 0.1);
      c.set(source, io, 1, true);
      if (!released) {
        c.resistor("talk driver", board.node(from), high ? source : Circuit.GROUND, DRIVER);
      }
      if (high) {
        lowBesides(c, to);
      }
      // what hangs on nothing is at neither level
      c.resistor("talk leak", board.node(to), high ? Circuit.GROUND : source, LEAK);
      return rest(c).at(board.node(to));
    }

    private boolean several(String part, String net) {
      return r.jointsOf(part).stream().filter(j -> j.net().equals(net)).count() > 1;
    }
  }
}
