package ell.core.jig;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;

/// Several products on one jig: what they have in common stays in the base, what differs goes onto
/// a personality board of each.
///
/// @param common nets that every product is reached at, by name: their channels stay
/// @param personality what is each product's own, in the order of the products
/// @param samePlaces probes that stand at the same place of every product, measured from its round
///   pin
public record Shared(List<String> common, List<Own> personality, int samePlaces) {
  /// Places nearer than this are one, millimetre.
  private static final double SAME_MM = 0.1;

  /// What is one product's own.
  ///
  /// @param nets that only it has, or not all have
  /// @param probes that stand where another product has none
  public record Own(String product, List<String> nets, int probes) {
    public Own {
      nets = List.copyOf(nets);
    }
  }

  public Shared {
    common = List.copyOf(common);
    personality = List.copyOf(personality);
  }

  /// Compares jigs.
  ///
  /// @param all two or more
  public static Shared of(List<JigPlan> all) {
    Set<String> common = new TreeSet<>(nets(all.getFirst()));
    all.forEach(p -> common.retainAll(nets(p)));
    List<Own> own = new ArrayList<>();
    int same = 0;
    for (JigPlan p : all) {
      int apart = 0;
      for (Probe x : p.probes()) {
        boolean everywhere = all.stream().allMatch(o -> o == p || stands(o, p, x));
        apart += everywhere ? 0 : 1;
        same += everywhere && p == all.getFirst() ? 1 : 0;
      }
      own.add(
          new Own(
              p.revision().title(),
              nets(p).stream().filter(n -> !common.contains(n)).sorted().toList(),
              apart));
    }
    return new Shared(List.copyOf(common), own, same);
  }

  private static Set<String> nets(JigPlan p) {
    return p.probes().stream().map(x -> x.target().net()).collect(Collectors.toSet());
  }

  private static boolean stands(JigPlan other, JigPlan own, Probe x) {
    double dx = x.target().xMm() - own.tooling().round().xMm();
    double dy = x.target().yMm() - own.tooling().round().yMm();
    return other.probes().stream()
        .anyMatch(o ->
            o.target().side() == x.target().side()
                && o.target().net().equals(x.target().net())
                && Math.hypot(
                        o.target().xMm() - other.tooling().round().xMm() - dx,
                        o.target().yMm() - other.tooling().round().yMm() - dy)
                    < SAME_MM);
  }
}
