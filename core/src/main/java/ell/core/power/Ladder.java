package ell.core.power;

import ell.core.board.Revision;
import ell.core.quantity.Check;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/// The power ladder of a revision: sources, the steps down from rail to rail, and the loads on
/// each. Proposed from netlist and bill of materials, corrected by the maker.
///
/// @param rails every rail, sources included
/// @param sources where power comes in; the first is the one that the bench supply feeds
/// @param steps regulators and pass elements
/// @param loads what draws current
/// @param ground the return net
/// @param assumptions what the proposal took for granted, one sentence each
/// @param notRails nets that are named like rails, of which somebody said that they are none
/// @param parts how parts act, where somebody said it, by reference
public record Ladder(
    List<RailSpec> rails,
    List<Source> sources,
    List<Step> steps,
    List<Load> loads,
    String ground,
    List<String> assumptions,
    List<String> notRails,
    Map<String, PartSaid> parts) {

  /// The states in which loads are stated, from least to most.
  public static final List<String> STATES = List.of("off", "boot", "idle", "active", "worst");

  /// A rail with its limits.
  ///
  /// @param net the net's name
  /// @param volts nominal
  /// @param low least allowed, V
  /// @param high greatest allowed, V
  /// @param capacitance sum of the capacitors on it, F
  /// @param readAt where to put the tip, as `TP4` or `C5.1`
  /// @param guessed whether nothing said how many volts: a guess decides no verdict
  public record RailSpec(
      String net,
      double volts,
      double low,
      double high,
      double capacitance,
      String readAt,
      boolean guessed) {
    /// A rail whose volts are known.
    public RailSpec(
        String net, double volts, double low, double high, double capacitance, String readAt) {
      this(net, volts, low, high, capacitance, readAt, false);
    }

    /// The same rail with other limits, which somebody said.
    public RailSpec with(double newVolts, double newLow, double newHigh) {
      return new RailSpec(net, newVolts, newLow, newHigh, capacitance, readAt, false);
    }

    public RailSpec {
      Check.finite(volts, "volts of " + net);
      Check.notNegative(capacitance, "capacitance of " + net);
      if (!(low <= volts && volts <= high)) {
        throw new IllegalArgumentException(
            "rail "
                + net
                + ": low <= volts <= high must hold, got "
                + low
                + ", "
                + volts
                + ", "
                + high);
      }
      readAt = readAt == null ? "" : readAt;
    }
  }

  /// No bench supply has more outputs.
  public static final int MOST_CHANNELS = 16;

  /// Where power comes in.
  ///
  /// @param rail the net
  /// @param volts nominal
  /// @param low least, V
  /// @param high greatest, V
  /// @param limit the most that it, its connector and its fuse bear, A; 0 when not known
  /// @param channel output of the bench supply that feeds it, counted from 1; 0 when not said
  public record Source(
      String rail, double volts, double low, double high, double limit, int channel) {
    /// A source of which nobody said which output feeds it.
    public Source(String rail, double volts, double low, double high, double limit) {
      this(rail, volts, low, high, limit, 0);
    }

    public Source {
      Check.inRange(channel, 0, MOST_CHANNELS, "channel of " + rail);
      Check.notNegative(volts, "volts of " + rail);
      Check.notNegative(limit, "limit of " + rail);
    }
  }

  /// What kind of step leads from one rail to the next.
  public enum Kind {
    /// Linear regulator.
    LINEAR,
    /// Switching regulator.
    SWITCHING,
    /// Bead, inductor, small resistor, fuse, switch: the same voltage less a drop.
    PASS,
    /// Diode: a fixed drop.
    DIODE
  }

  /// A step down the ladder.
  ///
  /// @param part the reference
  /// @param kind linear, switching, pass or diode
  /// @param from rail that feeds it
  /// @param to rail that it feeds
  /// @param volts output of a regulator; for a pass or diode the nominal of the rail
  /// @param dropout least difference of input and output of a regulator, or a diode's drop, V
  /// @param efficiency of a switching regulator, 0...1
  /// @param quiescent own current, A
  /// @param theta junction to ambient, K/W; 0 when not known
  /// @param limit greatest output current, A; 0 when not known
  /// @param ohms series resistance of a pass element
  public record Step(
      String part,
      Kind kind,
      String from,
      String to,
      double volts,
      double dropout,
      double efficiency,
      double quiescent,
      double theta,
      double limit,
      double ohms) {
    public Step {
      if (kind == null) {
        throw new IllegalArgumentException(
            "step " + part + ": kind must be LINEAR, SWITCHING, PASS or DIODE");
      }
      Check.notNegative(volts, "volts of " + part);
      Check.notNegative(dropout, "dropout of " + part);
      Check.inRange(efficiency, 0, 1, "efficiency of " + part);
      if (kind == Kind.SWITCHING && efficiency == 0) {
        throw new IllegalArgumentException(
            "step " + part + ": a switching regulator needs an efficiency above 0");
      }
      Check.notNegative(quiescent, "quiescent of " + part);
      Check.notNegative(theta, "theta of " + part);
      Check.notNegative(limit, "limit of " + part);
      Check.notNegative(ohms, "ohms of " + part);
    }

    /// Whether it holds its output by itself.
    public boolean regulates() {
      return kind == Kind.LINEAR || kind == Kind.SWITCHING;
    }

    /// The same with another output.
    ///
    /// @param output V, not negative
    public Step at(double output) {
      return new Step(
          part, kind, from, to, output, dropout, efficiency, quiescent, theta, limit, ohms);
    }
  }

  /// What draws current from a rail.
  ///
  /// @param part the reference
  /// @param rail the net
  /// @param amps by state; a state that is not there draws as the next lower one that is
  /// @param guessed whether nobody said how much
  /// @param stands what the part stands for, such as `D1…D256`; empty for itself
  public record Load(
      String part, String rail, Map<String, Double> amps, boolean guessed, String stands) {
    /// A load that is known.
    public Load(String part, String rail, Map<String, Double> amps) {
      this(part, rail, amps, false, "");
    }

    /// The part, or what it stands for.
    public String name() {
      return stands.isEmpty() ? part : stands;
    }

    public Load {
      amps = Map.copyOf(amps);
      amps.forEach((state, a) -> {
        if (!STATES.contains(state)) {
          throw new IllegalArgumentException(
              "load " + part + ": unknown state '" + state + "', expected one of " + STATES);
        }
        Check.notNegative(a, "current of " + part);
      });
    }

    /// Current in a state, A.
    public double in(String state) {
      for (int i = STATES.indexOf(state); i >= 0; i--) {
        Double a = amps.get(STATES.get(i));
        if (a != null) {
          return a;
        }
      }
      return 0;
    }
  }

  /// The output of the bench supply that feeds a source: as it was said, else the lowest that no
  /// other source has, in their order.
  ///
  /// @throws IllegalArgumentException when the ladder has no such source
  public int channel(Source of) {
    Set<Integer> taken = new HashSet<>();
    sources.forEach(s -> taken.add(s.channel()));
    int next = 0;
    for (Source s : sources) {
      int own = s.channel();
      while (own == 0) {
        next++;
        own = taken.contains(next) ? 0 : next;
      }
      if (s.equals(of)) {
        return own;
      }
    }
    throw new IllegalArgumentException("the ladder has no source " + of.rail());
  }

  /// Whether a step lifts its output above its input, as a boost converter does.
  public boolean lifts(Step s) {
    return s.kind() == Kind.SWITCHING
        && rail(s.from()).filter(r -> r.volts() < s.volts()).isPresent();
  }

  /// A ladder of which nothing named like a rail is left out.
  public Ladder(
      List<RailSpec> rails,
      List<Source> sources,
      List<Step> steps,
      List<Load> loads,
      String ground,
      List<String> assumptions) {
    this(rails, sources, steps, loads, ground, assumptions, List.of(), Map.of());
  }

  /// The same with what was said of its parts.
  public Ladder with(Map<String, PartSaid> said) {
    return new Ladder(rails, sources, steps, loads, ground, assumptions, notRails, said);
  }

  /// The same with other steps.
  public Ladder stepping(List<Step> other) {
    return new Ladder(rails, sources, other, loads, ground, assumptions, notRails, parts);
  }

  public Ladder {
    notRails = notRails == null ? List.of() : List.copyOf(notRails);
    parts = Map.copyOf(parts);
    rails = List.copyOf(rails);
    sources = List.copyOf(sources);
    steps = List.copyOf(steps);
    loads = List.copyOf(loads);
    assumptions = assumptions == null ? List.of() : List.copyOf(assumptions);
    Set<String> names = new HashSet<>();
    for (RailSpec r : rails) {
      if (!names.add(r.net())) {
        throw new IllegalArgumentException("rail " + r.net() + " is there twice");
      }
    }
    Set<String> fed = new HashSet<>();
    for (Source s : sources) {
      known(names, s.rail(), "source");
      fed.add(s.rail());
    }
    for (Step s : steps) {
      known(names, s.from(), "step " + s.part());
      known(names, s.to(), "step " + s.part());
      if (!fed.add(s.to())) {
        throw new IllegalArgumentException(
            "rail " + s.to() + " is fed twice, the second time by " + s.part());
      }
    }
    for (Load l : loads) {
      known(names, l.rail(), "load " + l.part());
    }
    downwards(sources, steps);
  }

  private static void known(Set<String> names, String rail, String who) {
    if (!names.contains(rail)) {
      throw new IllegalArgumentException(
          who + " names rail '" + rail + "', which the ladder does not list");
    }
  }

  private static List<Step> downwards(List<Source> sources, List<Step> steps) {
    List<Step> order = new ArrayList<>();
    Set<String> live = new HashSet<>();
    sources.forEach(s -> live.add(s.rail()));
    boolean moved = true;
    while (moved) {
      moved = false;
      for (Step s : steps) {
        if (!order.contains(s) && live.contains(s.from())) {
          order.add(s);
          live.add(s.to());
          moved = true;
        }
      }
    }
    for (Step s : steps) {
      if (!order.contains(s)) {
        throw new IllegalArgumentException(
            "step "
                + s.part()
                + " is not fed by any source: its rail "
                + s.from()
                + " has none above it");
      }
    }
    return order;
  }

  /// The steps from the sources down.
  public List<Step> downwards() {
    return downwards(sources, steps);
  }

  /// The rail of this net.
  public Optional<RailSpec> rail(String net) {
    return rails.stream().filter(r -> r.net().equals(net)).findFirst();
  }

  /// The step that feeds a rail.
  public Optional<Step> feeding(String net) {
    return steps.stream().filter(s -> s.to().equals(net)).findFirst();
  }

  /// This ladder with what passes a rail on, a fuse, a bead, a diode, passing its limits on too:
  /// two nets that a fuse joins have one expectation.
  ///
  /// @param from rails whose limits are passed on, and from those on; all of them when empty
  /// @param kept rails whose limits stay as they are
  Ladder passedOn(Set<String> from, Set<String> kept) {
    Map<String, RailSpec> specs = new LinkedHashMap<>();
    rails.forEach(r -> specs.put(r.net(), r));
    Set<String> changed = new HashSet<>(from);
    for (Step s : downwards()) {
      if (s.regulates()
          || kept.contains(s.to())
          || !from.isEmpty() && !changed.contains(s.from())) {
        continue;
      }
      RailSpec f = specs.get(s.from());
      RailSpec t = specs.get(s.to());
      boolean pass = s.kind() == Kind.PASS;
      double low = pass ? f.low() : Math.min(t.low(), f.low() - s.dropout());
      double high = pass ? f.high() : Math.max(t.high(), f.high() - s.dropout());
      specs.put(
          t.net(),
          new RailSpec(
              t.net(),
              Math.clamp(from.isEmpty() ? t.volts() : f.volts() - s.dropout(), low, high),
              low,
              high,
              t.capacitance(),
              t.readAt(),
              t.guessed() && f.guessed()));
      changed.add(t.net());
    }
    return new Ladder(
        List.copyOf(specs.values()), sources, steps, loads, ground, assumptions, notRails, parts);
  }

  /// Loads that nobody said, on the rails that hang on some sources.
  public List<Load> guessedLoads(List<Source> some) {
    Set<String> live = new HashSet<>();
    below(some).forEach(r -> live.add(r.net()));
    return loads.stream().filter(l -> l.guessed() && live.contains(l.rail())).toList();
  }

  /// Whether first power raises a source: the first, and any other of which somebody said the
  /// volts.
  public boolean raises(Source s) {
    return s.equals(sources.getFirst())
        || s.volts() > 0 && rail(s.rail()).filter(r -> !r.guessed()).isPresent();
  }

  /// The outputs of the bench supply that first power uses, each once.
  public List<Integer> outputs() {
    List<Integer> used =
        sources.stream().filter(this::raises).map(this::channel).distinct().toList();
    return used.isEmpty() ? List.of(1) : used;
  }

  /// The rails that hang on the sources which first power raises, in the order from the top down.
  public List<RailSpec> raised() {
    return below(sources.stream().filter(this::raises).toList());
  }

  /// The rails that hang on any source: a board is within when every one of them was read.
  public List<RailSpec> supplied() {
    return below(sources);
  }

  /// The rails that hang on some sources, from the top down.
  public List<RailSpec> below(List<Source> some) {
    Map<String, RailSpec> found = new LinkedHashMap<>();
    for (Source s : some) {
      rail(s.rail()).ifPresent(r -> found.put(r.net(), r));
      for (Step step : downwards()) {
        if (found.containsKey(step.from())) {
          rail(step.to()).ifPresent(r -> found.putIfAbsent(r.net(), r));
        }
      }
    }
    return List.copyOf(found.values());
  }

  /// Where the other tip of the meter goes: the place on the return net that is easiest to hold.
  public static String tipOnGround(Revision revision, Ladder ladder) {
    String at = LadderProposal.readAt(revision, ladder.ground());
    return at.isEmpty() ? ladder.ground() : at;
  }
}
