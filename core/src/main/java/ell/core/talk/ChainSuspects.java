package ell.core.talk;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// Which single fault explains what is seen of a chain, and where to look next.
///
/// The data goes from lead to lead: out of what drives the first, into it, out of it, into the
/// second. A tip on a lead tells whether the data is still there, so the break lies before or
/// behind it. Weights of the kinds of faults are typical (a joint 1, an element 0.4, a joint of its
/// supply 0.5, a bridge of its data 0.2, the count in the code 0.5), no source.
///
/// @param suspects sorted, their chances summing to 1; empty when nothing is wrong
/// @param next where to look, empty when nothing is left to be told apart that way
public record ChainSuspects(List<Suspect> suspects, Optional<Look> next) {
  private static final double JOINT = 1;
  private static final double DEAD = 0.4;
  private static final double SUPPLY = 0.5;
  private static final double BRIDGE = 0.2;
  private static final double CODE = 0.5;
  private static final double SAGS = 4;

  /// Minutes for a tip on a pin, and for one that something covers; common practice, no source.
  private static final double TIP = 1;

  public ChainSuspects {
    suspects = List.copyOf(suspects);
  }

  /// A fault that explains it.
  ///
  /// @param fault in the words of faults where there are some
  /// @param chance 0...1
  /// @param why a sentence
  public record Suspect(String fault, double chance, String why) {}

  /// Where to look next.
  ///
  /// @param place a joint
  /// @param what is looked for
  /// @param there the chance that the data is there
  /// @param minutes that the whole search is expected to take; NaN when that is not worked out
  public record Look(String place, String what, double there, double minutes) {}

  /// What is known of the chain's supply.
  ///
  /// @param volts at each element as it is worked out, empty when it is not known
  /// @param least volts at which an element still works, NaN when not known
  public record Feed(List<Double> volts, double least) {
    /// Nothing is known.
    public static final Feed UNKNOWN = new Feed(List.of(), Double.NaN);

    public Feed {
      volts = List.copyOf(volts);
    }

    /// The first element with too few volts, counted from 1; 0 when there is none.
    public int sags() {
      for (int i = 0; i < volts.size(); i++) {
        if (volts.get(i) < least) {
          return i + 1;
        }
      }
      return 0;
    }
  }

  /// Works it out.
  ///
  /// @param cost minutes of a look at a joint, from which looks that are not cheap are known; 1 for
  ///   every joint that is not named
  public static ChainSuspects of(
      ChainOnBoard chain, ChainSeen seen, Feed feed, Map<String, Double> cost) {
    int n = chain.elements().size();
    Tally t = new Tally(chain, cost);
    int k = seen.element();
    switch (seen.kind()) {
      case FINE -> {
        return new ChainSuspects(List.of(), Optional.empty());
      }
      case DARK_FROM -> {
        t.broken(k);
        if (k > 1) {
          t.add(
              "firmware sends to " + (k - 1) + " elements only",
              CODE,
              "the count in the code is " + (k - 1),
              -1);
        } else {
          t.add(
              "firmware sends nothing, or on another pin",
              CODE,
              "nothing reaches even the first element",
              -1);
          t.add(
              "the data's high is too low for the first element",
              CODE,
              "an element on 5 V wants 0.7 of it, more than a 3.3 V output gives",
              -1);
        }
        sag(t, feed, k, "goes dark");
      }
      case ONE_DARK -> {
        t.add(
            "dead " + chain.elements().get(k - 1),
            JOINT,
            "it passes the data on, and does nothing itself",
            -1);
      }
      case WRONG_FROM -> {
        t.add(
            "resistive " + chain.nearJoint(k),
            JOINT,
            "edges that are rounded at its input are read wrongly there and behind it",
            -1);
        if (k > 1) {
          t.add("resistive " + chain.farJoint(k - 1), JOINT, "as the joint at the other end", -1);
        }
        t.add(
            chain.elements().get(k - 1) + " and those behind it are of another kind",
            DEAD,
            "elements of another batch take the colours in another order",
            -1);
        sag(t, feed, k, "shows wrong colours");
      }
      case ALL_WRONG ->
          t.add(
              "firmware sends the colours in another order",
              JOINT,
              "every element is wrong alike: the order of colours, or another version of the code",
              -1);
      case FLICKERS_FROM -> {
        t.add(
            "sometimes open " + chain.nearJoint(k),
            JOINT,
            "a joint that comes and goes takes everything behind it along",
            -1);
        if (k > 1) {
          t.add(
              "sometimes open " + chain.farJoint(k - 1),
              JOINT,
              "as the joint at the other end",
              -1);
        }
        t.add(
            "the ground of " + chain.elements().get(k - 1) + " is resistive",
            SUPPLY,
            "levels move with what its neighbours draw",
            -1);
        sag(t, feed, k, "flickers");
      }
      case NOTHING_AT_THE_END -> {
        for (int i = 1; i <= n; i++) {
          t.broken(i);
        }
      }
    }
    return t.done();
  }

  private static void sag(Tally t, Feed feed, int k, String what) {
    int first = feed.sags();
    if (first > 0 && Math.abs(first - k) <= Math.max(1, k / 5)) {
      t.add(
          "the supply sags: feed again before " + t.chain.elements().get(first - 1),
          SAGS,
          String.format(
              java.util.Locale.ROOT,
              "from element %d on there are less than %.3g V, and one that has too few %s",
              first,
              feed.least(),
              what),
          -1);
    }
  }

  private static final class Tally {
    private final ChainOnBoard chain;
    private final Map<String, Double> cost;
    private final List<Suspect> all = new ArrayList<>();

    /// Weights by stretch of the way: 3 (i - 1) from the lead before element i to its net, one more
    /// from there into it, one more through it.
    private final Map<Integer, Double> way = new LinkedHashMap<>();

    Tally(ChainOnBoard chain, Map<String, Double> cost) {
      this.chain = chain;
      this.cost = cost;
    }

    void add(String fault, double weight, String why, int stretch) {
      all.add(new Suspect(fault, weight, why));
      if (stretch >= 0) {
        way.merge(stretch, weight, Double::sum);
      }
    }

    /// Everything that lets the data not get through element i.
    void broken(int i) {
      String e = chain.elements().get(i - 1);
      String before = i == 1 ? chain.head() : chain.farJoint(i - 1);
      int at = 3 * (i - 1);
      if (!before.isEmpty()) {
        add(
            "open " + before,
            JOINT,
            "the data is at one side of this joint and not at the other",
            at);
      }
      add(
          "open " + chain.nearJoint(i),
          JOINT,
          "the data is at one side of this joint and not at the other",
          at + 1);
      add(
          "bridge of the data before " + e + " to a neighbour",
          BRIDGE,
          "the lead before has no data once it is joined",
          at);
      add("dead " + e, DEAD, "the data goes in and does not come out", at + 2);
      add(
          "a joint of the supply of " + e + " is open",
          SUPPLY,
          "without its supply it passes nothing on: read the volts at its own leads first",
          at + 2);
      if (i > 1) {
        add(
            "dead output of " + chain.elements().get(i - 2),
            DEAD / 2,
            "it works, and sends nothing on",
            at);
      }
    }

    ChainSuspects done() {
      double sum = all.stream().mapToDouble(Suspect::chance).sum();
      List<Suspect> sorted =
          all.stream()
              .map(s -> new Suspect(s.fault(), s.chance() / sum, s.why()))
              .sorted(Comparator.comparingDouble(Suspect::chance).reversed())
              .toList();
      return new ChainSuspects(sorted, look());
    }

    private Optional<Look> look() {
      if (way.isEmpty()) {
        return Optional.empty();
      }
      int first = way.keySet().stream().min(Integer::compare).orElseThrow();
      int last = way.keySet().stream().max(Integer::compare).orElseThrow();
      double[] chance = new double[last - first + 1];
      way.forEach((s, w) -> chance[s - first] = w);
      double[] costs = new double[chance.length - 1];
      for (int i = 0; i < costs.length; i++) {
        costs[i] = cost.getOrDefault(place(first + i), TIP);
      }
      if (costs.length == 0) {
        return Optional.empty();
      }
      ChainSearch.Next n = ChainSearch.of(chance, costs);
      if (n.look() < 0) {
        return Optional.empty();
      }
      return Optional.of(
          new Look(
              place(first + n.look()),
              "whether the data is there while it is sent",
              1 - n.before(),
              n.expected()));
    }

    /// Where the look behind a stretch of the way is made: on the net before an element (at the
    /// other lead's pad), on its near lead, on its far lead.
    private String place(int stretch) {
      int i = stretch / 3 + 1;
      return switch (stretch % 3) {
        case 0 -> "net of " + chain.nearJoint(i);
        case 1 -> chain.nearJoint(i);
        default -> chain.farJoint(i);
      };
    }
  }
}
