package ell.core.jig;

import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import ell.core.power.Ladder;
import ell.core.power.PartValue;
import ell.core.pulse.TwoWireBus;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/// What the wires of a jig do to buses and supplies.
///
/// @param buses nets that are pulled up and read over the cable
/// @param supplies where power comes in
/// @param grounds probes on ground
/// @param told advice, a sentence each
public record JigWires(List<Bus> buses, List<Supply> supplies, int grounds, List<String> told) {
  /// A pin and its pad load a line so much, F; typical.
  private static final double PIN_FARADS = 8e-12;

  /// Slowest edges of a two-wire bus at 100 and at 400 kHz, and the most capacitance, from NXP
  /// UM10204, from memory.
  private static final double SLOW_RISE = 1e-6;

  private static final double FAST_RISE = 300e-9;
  private static final double MOST_FARADS = 400e-12;

  /// A line with a resistor up.
  ///
  /// @param farads of board and cable
  /// @param rise from 30 to 70 %, s
  public record Bus(String net, String resistor, double ohms, double farads, double rise) {
    /// What it bears: a clock in Hz, 0 when none of the usual.
    public double clock() {
      return farads > MOST_FARADS || rise > SLOW_RISE ? 0 : rise > FAST_RISE ? 100e3 : 400e3;
    }
  }

  /// A supply wire.
  ///
  /// @param drop of probes and wire there and back, V
  public record Supply(String net, double amps, int probes, double drop) {}

  public JigWires {
    buses = List.copyOf(buses);
    supplies = List.copyOf(supplies);
    told = List.copyOf(told);
  }

  /// The wires of chosen probes.
  static JigWires of(Revision r, Ladder ladder, List<Need> needs, List<Probe> probes, JigSetup s) {
    List<String> told = new ArrayList<>();
    List<Bus> buses = new ArrayList<>();
    double cable = s.number("cable");
    for (Probe p : probes) {
      String net = p.target().net();
      if (!p.role().equals("signal") || !twoWire(net)) {
        continue;
      }
      pullUp(r, ladder, net)
          .ifPresent(up -> {
            double farads = r.net(net).size() * PIN_FARADS + cable * s.number("cableFarads");
            buses.add(
                new Bus(
                    net,
                    up.part().reference(),
                    up.ohms(),
                    farads,
                    TwoWireBus.RISES * up.ohms() * farads));
          });
    }
    for (Bus b : buses) {
      if (b.clock() < 400e3) {
        told.add(
            String.format(
                Locale.ROOT,
                "%s over %.2g m of cable: %.0f pF against %s, an edge of %.2g µs: %s",
                b.net,
                cable,
                1e12 * b.farads,
                b.resistor,
                1e6 * b.rise,
                b.clock() > 0
                    ? "100 kHz at most, or a buffer in the jig"
                    : "put a buffer into the jig, or shorten the wires"));
      }
    }
    int grounds = (int) probes.stream().filter(p -> p.role().equals("ground")).count();
    double each = s.series().getFirst().ohms();
    List<Supply> supplies = new ArrayList<>();
    for (Need n : needs) {
      int own =
          (int)
              probes.stream()
                  .filter(p -> p.target().net().equals(n.net()) && p.role().equals("force"))
                  .count();
      if (n.amps() <= 0 || n.why().startsWith("ground") || own == 0) {
        continue;
      }
      double wire = cable * s.number("wireOhms");
      double drop = n.amps() * (each / own + 2 * wire + each / Math.max(1, grounds));
      supplies.add(new Supply(n.net(), n.amps(), own, drop));
      told.add(
          String.format(
              Locale.ROOT,
              "a switch in the wire to %s, opened before the board is laid in or taken out; %.2g V"
                  + " are lost in probes and wires at %.2g A%s",
              n.net(),
              drop,
              n.amps(),
              n.sense() ? ": read it at the sensing probe" : ""));
    }
    return new JigWires(buses, supplies, grounds, told);
  }

  private record Up(Part part, double ohms) {}

  /// Whether a net is one of a two-wire bus by its name.
  private static boolean twoWire(String net) {
    return net.toUpperCase(Locale.ROOT).matches("(.*[^A-Z])?(SDA|SCL)(\\d|[^A-Z].*)?");
  }

  private static java.util.Optional<Up> pullUp(Revision r, Ladder ladder, String net) {
    for (Joint j : r.net(net)) {
      Part p = r.part(j.part()).orElse(null);
      if (p == null || !p.fitted() || p.kind() != PartKind.RESISTOR) {
        continue;
      }
      boolean rail =
          r.jointsOf(p.reference()).stream().anyMatch(o -> ladder.rail(o.net()).isPresent());
      var ohms = PartValue.ohms(p);
      if (rail && ohms.isPresent()) {
        return java.util.Optional.of(new Up(p, ohms.getAsDouble()));
      }
    }
    return java.util.Optional.empty();
  }
}
