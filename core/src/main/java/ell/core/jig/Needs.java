package ell.core.jig;

import ell.core.board.PartKind;
import ell.core.board.Rail;
import ell.core.board.Revision;
import ell.core.power.Ladder;
import ell.core.power.LadderState;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/// Which nets a jig must reach, and with how many probes.
public final class Needs {
  private Needs() {}

  /// Grounds and rails: what power needs.
  public static Set<String> power(Revision r, Ladder ladder) {
    Set<String> nets = new LinkedHashSet<>();
    if (r.nets().contains(ladder.ground())) {
      nets.add(ladder.ground());
    }
    Rail.of(r).stream().filter(Rail::ground).map(Rail::net).forEach(nets::add);
    ladder.rails().stream()
        .map(Ladder.RailSpec::net)
        .filter(n -> !r.net(n).isEmpty())
        .forEach(nets::add);
    return nets;
  }

  /// What tests need: power, every net that somebody gave a test point, and the places that were
  /// spoken of.
  ///
  /// @param spoken nets or joints
  public static Set<String> tests(Revision r, Ladder ladder, Collection<String> spoken) {
    Set<String> nets = power(r, ladder);
    r.joints().stream()
        .filter(j -> j.connected() && PartKind.of(j.part()) == PartKind.TEST_POINT)
        .forEach(j -> nets.add(j.net()));
    for (String s : spoken) {
      if (!r.net(s).isEmpty()) {
        nets.add(s);
      } else {
        r.joints().stream()
            .filter(j -> j.connected() && j.place().equals(s))
            .forEach(j -> nets.add(j.net()));
      }
    }
    return nets;
  }

  /// The needs of nets: where power comes in as many probes as the current asks for, one more where
  /// a rail must be sensed beside its force, grounds as many as carry all of it back and one for
  /// every few signals.
  ///
  /// @param nets to be reached, each known to the revision
  public static List<Need> of(
      Revision r, Ladder ladder, Collection<String> nets, JigSetup setup, String state) {
    double perProbe = setup.series().getFirst().amps();
    Map<String, Double> amps = new LinkedHashMap<>();
    double all = 0;
    for (Ladder.Source s : ladder.sources()) {
      double a = LadderState.limit(ladder, state, s).limit();
      amps.put(s.rail(), a);
      all = Math.max(all, a);
    }
    Set<String> grounds = new LinkedHashSet<>(Set.of(ladder.ground()));
    Rail.of(r).stream().filter(Rail::ground).map(Rail::net).forEach(grounds::add);
    long signals =
        nets.stream().filter(n -> !grounds.contains(n) && ladder.rail(n).isEmpty()).count();
    List<Need> needs = new ArrayList<>();
    for (String net : nets) {
      if (net.equals(ladder.ground())) {
        int carry = probes(all, perProbe);
        int beside = (int) Math.ceil(signals / setup.number("signalsPerGround"));
        int n = Math.max(carry, beside);
        needs.add(
            new Need(
                net,
                n,
                all,
                false,
                "ground: "
                    + carry
                    + " for the current, "
                    + beside
                    + " for "
                    + signals
                    + " signals"));
      } else if (amps.containsKey(net)) {
        double a = amps.get(net);
        int n = probes(a, perProbe);
        boolean sense = a * (setup.series().getFirst().ohms() / n + wire(setup)) > SENSED;
        needs.add(
            new Need(
                net,
                n + (sense ? 1 : 0),
                a,
                sense,
                "power comes in" + (sense ? ", one probe senses beside the force" : "")));
      } else {
        needs.add(
            new Need(
                net,
                1,
                0,
                false,
                ladder.rail(net).isPresent()
                    ? "rail"
                    : grounds.contains(net) ? "ground" : "signal"));
      }
    }
    return needs;
  }

  /// A drop that is felt at a supply, V; common practice, no source.
  private static final double SENSED = 0.05;

  private static double wire(JigSetup setup) {
    return setup.number("cable") * setup.number("wireOhms");
  }

  private static int probes(double amps, double each) {
    return (int) Math.max(1, Math.ceil(amps / each - 1e-9));
  }
}
