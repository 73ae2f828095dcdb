package ell.core.jig;

import java.util.ArrayList;
import java.util.List;

/// How a jig is checked without a board: on a bare sheet of copper every wire is joined to every
/// other one; on nothing none is. Wires in two groups, joined within each, are held against each
/// other: of n wires ceil(log2(n + 2)) groupings find every short (Kautz, 1974).
///
/// @param joined wires that must show less than [#MOST_OHMS] to the first one, on copper
/// @param apart groupings, each with the numbers of the probes that are joined against the rest;
///   nothing may beep, on nothing
public record SelfTest(List<Integer> joined, List<List<Integer>> apart) {
  /// A probe and its wire show no more, Ω; common practice, no source.
  public static final double MOST_OHMS = 1;

  public SelfTest {
    joined = List.copyOf(joined);
    apart = apart.stream().map(List::copyOf).toList();
  }

  /// The checks of some probes; those of one net are joined anyhow, and count as one.
  public static SelfTest of(List<Probe> probes) {
    List<Integer> joined = probes.stream().map(Probe::number).toList();
    List<String> nets = probes.stream().map(p -> p.target().net()).distinct().toList();
    List<List<Integer>> apart = new ArrayList<>();
    if (nets.size() > 1) {
      for (String v : Patterns.of(Patterns.Kind.COUNTING, nets.size()).vectors()) {
        List<Integer> group =
            probes.stream()
                .filter(p -> v.charAt(nets.indexOf(p.target().net())) == '1')
                .map(Probe::number)
                .toList();
        if (!group.isEmpty() && group.size() < probes.size()) {
          apart.add(group);
        }
      }
    }
    return new SelfTest(joined, apart);
  }
}
