package ell.core.talk;

import ell.core.talk.PinTable.Need;
import ell.core.talk.PinTable.Offer;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.BiFunction;
import org.jgrapht.alg.matching.KuhnMunkresMinimalWeightBipartitePerfectMatching;
import org.jgrapht.graph.DefaultWeightedEdge;
import org.jgrapht.graph.SimpleWeightedGraph;

/// Signals of firmware on pins of a controller board: as many as can be are met, then as many as
/// can be stay on the pins they were on, then straps are left free, then pins that something else
/// uses, then those that offer most.
///
/// @param assignments one for each signal that is met, in the order of the needs
/// @param kept how many of them stay where they were
/// @param unmet signals without a pin
/// @param straps straps that a signal is on
/// @param conflicts what was wrong before: two signals on a pin, a pin that is not there; and pins
///   that something else uses
/// @param ways out, the cheapest first
public record PinMap(
    List<Assignment> assignments,
    int kept,
    List<Unmet> unmet,
    List<Strapped> straps,
    List<Conflict> conflicts,
    List<Way> ways) {
  /// Above these the assignment would take minutes.
  static final int MOST = 400;

  public PinMap {
    assignments = List.copyOf(assignments);
    unmet = List.copyOf(unmet);
    straps = List.copyOf(straps);
    conflicts = List.copyOf(conflicts);
    ways = List.copyOf(ways);
  }

  /// A signal on its pin.
  ///
  /// @param was empty when it was on none
  public record Assignment(String signal, String pin, String was, boolean shared) {
    /// Whether the code changes.
    public boolean changed() {
      return !pin.equals(was);
    }
  }

  /// A signal for which there is no pin.
  ///
  /// @param why a sentence
  public record Unmet(String signal, Set<String> needs, String why) {
    public Unmet {
      needs = java.util.Collections.unmodifiableSet(new LinkedHashSet<>(needs));
    }
  }

  /// A strap that a signal is on.
  ///
  /// @param level it must have at reset
  /// @param wrong whether what hangs on the signal pulls it the other way
  /// @param why a sentence
  public record Strapped(String pin, String level, String signal, boolean wrong, String why) {}

  /// Something that cannot have worked before.
  public record Conflict(String pin, List<String> signals, String why) {
    public Conflict {
      signals = List.copyOf(signals);
    }
  }

  /// A way out.
  ///
  /// @param cost in parts and changes of the code, for comparing ways only
  /// @param words a sentence
  public record Way(double cost, String words) {}

  /// Assigns.
  ///
  /// @throws IllegalArgumentException when there is nothing to assign, something stands twice, or
  ///   there are more than 400 signals or pins
  public static PinMap of(List<Need> needs, List<Offer> offers) {
    return of(needs, offers, PinMap::pulled);
  }

  /// What a signal does to a strap by the load that is said of it.
  ///
  /// @throws IllegalArgumentException when its load, or the pin's own pull, cannot be understood
  public static Strapped pulled(Offer o, Need n) {
    return StrapPull.of(o, n);
  }

  /// Assigns, with straps looked at in another way.
  ///
  /// @param look what a signal does to a strap
  /// @throws IllegalArgumentException as above
  public static PinMap of(
      List<Need> needs, List<Offer> offers, BiFunction<Offer, Need, Strapped> look) {
    if (needs.isEmpty() || offers.isEmpty()) {
      throw new IllegalArgumentException("there are no signals, or no pins");
    }
    if (needs.size() > MOST || offers.size() > MOST) {
      throw new IllegalArgumentException(
          "at most " + MOST + " signals and pins, found " + needs.size() + " and " + offers.size());
    }
    List<String> doubles = PinTable.doubles(needs, offers);
    if (!doubles.isEmpty()) {
      throw new IllegalArgumentException(String.join("; ", doubles));
    }
    int[] at = assign(needs, offers);
    List<Assignment> all = new ArrayList<>();
    List<Strapped> straps = new ArrayList<>();
    List<Need> left = new ArrayList<>();
    for (int i = 0; i < needs.size(); i++) {
      Need n = needs.get(i);
      if (at[i] < 0) {
        left.add(n);
        continue;
      }
      Offer o = offers.get(at[i]);
      all.add(new Assignment(n.signal(), o.pin(), n.was(), !o.shared().isEmpty()));
      if (!o.strap().isEmpty()) {
        straps.add(look.apply(o, n));
      }
    }
    List<Unmet> unmet = left.stream().map(n -> unmet(n, needs, offers, at)).toList();
    int kept = (int) all.stream().filter(a -> !a.changed()).count();
    return new PinMap(
        all,
        kept,
        unmet,
        straps,
        conflicts(needs, offers, at),
        PinWays.of(left, needs, offers, at, straps));
  }

  /// The pin of each need, -1 for none. Costs are whole numbers below 2^53: sums are exact.
  static int[] assign(List<Need> needs, List<Offer> offers) {
    // one place more for each signal: that it stays without a pin
    int size = needs.size() + offers.size();
    SimpleWeightedGraph<Integer, DefaultWeightedEdge> g =
        new SimpleWeightedGraph<>(DefaultWeightedEdge.class);
    Set<Integer> left = new LinkedHashSet<>();
    Set<Integer> right = new LinkedHashSet<>();
    for (int i = 0; i < size; i++) {
      left.add(i);
      right.add(size + i);
      g.addVertex(i);
      g.addVertex(size + i);
    }
    int words = offers.stream().mapToInt(o -> o.offers().size()).max().orElse(0) + 1;
    double base = needs.size() + 1.0;
    double spare = 1.0; // words that the pin offers and the signal does not need
    double shared = spare * words * base;
    double strap = shared * base;
    double moved = strap * base;
    double without = moved * base;
    for (int i = 0; i < size; i++) {
      for (int j = 0; j < size; j++) {
        double w;
        if (i >= needs.size()) {
          w = 0; // a pin that nobody needs
        } else if (j >= offers.size()) {
          w = without;
        } else {
          Need n = needs.get(i);
          Offer o = offers.get(j);
          w =
              !o.meets(n)
                  ? without * base
                  : (o.pin().equals(n.was()) ? 0 : moved)
                      + (o.strap().isEmpty() ? 0 : strap)
                      + (o.shared().isEmpty() ? 0 : shared)
                      + spare * (o.offers().size() - n.needs().size());
        }
        DefaultWeightedEdge e = g.addEdge(i, size + j);
        g.setEdgeWeight(e, w);
      }
    }
    int[] at = new int[needs.size()];
    java.util.Arrays.fill(at, -1);
    for (DefaultWeightedEdge e :
        new KuhnMunkresMinimalWeightBipartitePerfectMatching<>(g, left, right)
            .getMatching()
            .getEdges()) {
      int i = Math.min(g.getEdgeSource(e), g.getEdgeTarget(e));
      int j = Math.max(g.getEdgeSource(e), g.getEdgeTarget(e)) - size;
      if (i < needs.size() && j < offers.size() && offers.get(j).meets(needs.get(i))) {
        at[i] = j;
      }
    }
    return at;
  }

  /// Why a signal has no pin: no pin offers it at all, or those that do are taken by signals that
  /// cannot go elsewhere either (those are found by alternating ways).
  private static Unmet unmet(Need n, List<Need> needs, List<Offer> offers, int[] at) {
    List<Offer> could = offers.stream().filter(o -> o.meets(n)).toList();
    if (could.isEmpty()) {
      Optional<Offer> near =
          offers.stream()
              .max(
                  Comparator.comparingInt(
                      o -> (int) n.needs().stream().filter(o.offers()::contains).count()));
      Set<String> lacks = new LinkedHashSet<>(n.needs());
      near.ifPresent(o -> lacks.removeAll(o.offers()));
      Set<String> known = new HashSet<>();
      offers.forEach(o -> known.addAll(o.offers()));
      Set<String> nowhere = new LinkedHashSet<>(n.needs());
      nowhere.removeAll(known);
      return new Unmet(
          n.signal(),
          n.needs(),
          nowhere.isEmpty()
              ? "no pin offers "
                  + String.join(" and ", n.needs())
                  + " at once; nearest is "
                  + near.map(Offer::pin).orElse("none")
                  + ", which lacks "
                  + String.join(" and ", lacks)
              : "no pin offers " + String.join(" and ", nowhere));
    }
    Tight t = Tight.of(n, needs, offers, at);
    return new Unmet(
        n.signal(),
        n.needs(),
        t.signals().size()
            + " signals ("
            + String.join(", ", t.signals())
            + ") can only be on "
            + t.pins().size()
            + (t.pins().size() == 1 ? " pin: " : " pins: ")
            + String.join(", ", t.pins()));
  }

  /// Signals that have fewer pins between them than they are.
  record Tight(Set<String> signals, Set<String> pins) {
    static Tight of(Need n, List<Need> needs, List<Offer> offers, int[] at) {
      Map<Integer, Need> by = new LinkedHashMap<>();
      for (int i = 0; i < at.length; i++) {
        if (at[i] >= 0) {
          by.put(at[i], needs.get(i));
        }
      }
      Set<String> signals = new LinkedHashSet<>(List.of(n.signal()));
      Set<String> pins = new TreeSet<>(PinMap::natural);
      List<Need> open = new ArrayList<>(List.of(n));
      while (!open.isEmpty()) {
        Need x = open.removeLast();
        for (int j = 0; j < offers.size(); j++) {
          if (offers.get(j).meets(x) && pins.add(offers.get(j).pin()) && by.containsKey(j)) {
            if (signals.add(by.get(j).signal())) {
              open.add(by.get(j));
            }
          }
        }
      }
      return new Tight(signals, pins);
    }
  }

  /// Pins in the order people count them: D2 before D10.
  static int natural(String a, String b) {
    String da = a.replaceAll("\\D", "");
    String db = b.replaceAll("\\D", "");
    int letters = a.replaceAll("\\d.*", "").compareTo(b.replaceAll("\\d.*", ""));
    if (letters != 0 || da.isEmpty() || db.isEmpty() || da.length() > 9 || db.length() > 9) {
      return letters != 0 ? letters : a.compareTo(b);
    }
    int n = Integer.compare(Integer.parseInt(da), Integer.parseInt(db));
    return n != 0 ? n : a.compareTo(b);
  }

  private static List<Conflict> conflicts(List<Need> needs, List<Offer> offers, int[] at) {
    Map<String, List<Need>> by = new LinkedHashMap<>();
    needs.stream()
        .filter(n -> !n.was().isEmpty())
        .forEach(n -> by.computeIfAbsent(n.was(), _ -> new ArrayList<>()).add(n));
    List<Conflict> all = new ArrayList<>();
    by.forEach((pin, on) -> {
      List<String> names = on.stream().map(Need::signal).toList();
      Optional<Offer> o = PinTable.named(offers, pin);
      if (o.isEmpty()) {
        all.add(new Conflict(pin, names, "there is no pin " + pin + " on this board"));
        return;
      }
      if (on.size() > 1) {
        all.add(new Conflict(pin, names, on.size() + " signals on one pin"));
      }
      for (Need n : on) {
        if (!o.get().meets(n)) {
          Set<String> lacks = new LinkedHashSet<>(n.needs());
          lacks.removeAll(o.get().offers());
          all.add(
              new Conflict(
                  pin,
                  List.of(n.signal()),
                  pin + " does not offer " + String.join(" and ", lacks)));
        }
      }
    });
    for (int i = 0; i < at.length; i++) {
      if (at[i] >= 0 && !offers.get(at[i]).shared().isEmpty()) {
        Offer o = offers.get(at[i]);
        all.add(
            new Conflict(
                o.pin(),
                List.of(needs.get(i).signal()),
                o.pin() + " is shared with " + o.shared()));
      }
    }
    return all;
  }

  /// What changes in the code, a line each, to copy.
  public List<String> changes() {
    return assignments.stream()
        .filter(Assignment::changed)
        .map(a ->
            a.was().isEmpty()
                ? a.signal() + ": " + a.pin()
                : a.signal() + ": " + a.was() + " -> " + a.pin())
        .toList();
  }

  /// Whether every signal has a pin and no strap is pulled the wrong way.
  public boolean works() {
    return unmet.isEmpty() && straps.stream().noneMatch(Strapped::wrong);
  }
}
