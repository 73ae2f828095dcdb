package ell.core.circuit;

import java.util.List;

/// What is asked of one state of a circuit after the other, see [AtRest#answer]: volts of some
/// nodes, amperes of some elements, watts of some groups of elements. Where they are is looked up
/// once for each circuit. Not for many threads.
public final class Asked {
  final List<String> volts;
  final List<String> amps;
  final List<List<String>> watts;
  private Variants of;
  private Places places;

  /// @param volts names of nodes whose volts against `GND` are asked for
  /// @param amps names of elements whose amperes are
  /// @param watts names of the elements of each group whose watts together are
  public Asked(List<String> volts, List<String> amps, List<List<String>> watts) {
    this.volts = List.copyOf(volts);
    this.amps = List.copyOf(amps);
    this.watts = watts.stream().map(List::copyOf).toList();
  }

  /// Where they are in a circuit.
  ///
  /// @param volts place of each node, -1 for the reference and for one that is not there
  /// @param amps element of each name, null for none
  record Places(int[] volts, Element[] amps, Element[][] watts) {}

  Places places(Variants v) {
    if (of != v) {
      of = v;
      places =
          new Places(
              volts.stream().mapToInt(n -> v.find(n)).toArray(),
              amps.stream().map(n -> v.named(n).findFirst().orElse(null)).toArray(Element[]::new),
              watts.stream()
                  .map(g -> g.stream().flatMap(v::named).toArray(Element[]::new))
                  .toArray(Element[][]::new));
    }
    return places;
  }
}
