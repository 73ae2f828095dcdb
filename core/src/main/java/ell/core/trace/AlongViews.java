package ell.core.trace;

import ell.core.beep.AlongCopper;
import ell.core.beep.AlongCopper.Spot;
import ell.core.beep.ShortPlaces;
import ell.core.board.Joint;
import ell.core.power.Fault;
import ell.core.power.ShortWays;
import ell.core.power.ShortWays.Touch;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// What milliohms along a net would show under each case: the nearer a joint is to where the two
/// nets touch, the less. Cases in which they do not touch are left as they are, for how much is
/// read between the nets speaks of them already.
final class AlongViews {
  /// Beside so many ohms nobody reads what the copper adds to them.
  private static final double MOST_OHMS = 5;

  private final Board board;
  private final List<Case> cases;

  /// Of each case, as far as it was asked for.
  private final List<List<Touch>> touches = new ArrayList<>();

  AlongViews(Board board, List<Case> cases) {
    this.board = board;
    this.cases = cases;
  }

  /// Where two nets touch under each case in which they do so well that the copper is read beside
  /// it, on the first of them.
  Map<Integer, Joint> touching(String net, String other) {
    for (int i = touches.size(); i < cases.size(); i++) {
      touches.add(
          cases.get(i).faults().stream()
              .filter(f -> !(f instanceof Fault.Bridge b && b.ohms() > MOST_OHMS))
              .flatMap(f -> ShortWays.touch(board.revision(), f).stream())
              .toList());
    }
    Map<Integer, Joint> all = new LinkedHashMap<>();
    for (int i = 1; i < touches.size(); i++) {
      for (Touch t : touches.get(i)) {
        Optional<Joint> j = t.on(net, other);
        if (j.isPresent()) {
          all.putIfAbsent(i, j.get());
        }
      }
    }
    return all;
  }

  void truncate(int size) {
    if (touches.size() > size) {
      touches.subList(size, touches.size()).clear();
    }
  }

  private static Spot spot(Joint j) {
    return new Spot(j.xMm(), j.yMm());
  }

  /// The outlook of readings that will be made at some joints: which of them reads least.
  Outlook ahead(Probe p) {
    List<Joint> joints =
        p.places().stream().flatMap(place -> board.revision().joint(place).stream()).toList();
    List<String> words = joints.stream().map(j -> "least at " + j.place()).toList();
    double[] even = new double[joints.size()];
    java.util.Arrays.fill(even, 1.0 / joints.size());
    Map<Integer, double[]> own = new HashMap<>();
    Map<String, double[]> known = new HashMap<>();
    touching(joints.getFirst().net(), p.b())
        .forEach((i, to) ->
            own.put(
                i,
                known.computeIfAbsent(
                    to.place(),
                    _ ->
                        AlongCopper.least(joints.stream().mapToDouble(to::distanceMm).toArray()))));
    return new Words(words, even, own);
  }

  /// The outlook of readings that were made.
  Outlook made(Probe p) {
    return new Made(touching(p.a(), p.b()));
  }

  /// Readings are weighed together, for what the short itself takes is in all of them.
  static final class Made implements Outlook {
    /// A reading that was written down at another joint.
    private static final double MISTAKEN = 0.01;

    private final int[] who;
    private final List<Spot> spots = new ArrayList<>();
    private final Map<Answer, double[]> known = new HashMap<>();

    private Made(Map<Integer, Joint> touching) {
      who = touching.keySet().stream().mapToInt(Integer::intValue).sorted().toArray();
      for (int w : who) {
        spots.add(spot(touching.get(w)));
      }
    }

    /// As many times as likely as at a place of these that nobody knows.
    private double[] fits(Answer a) {
      return known.computeIfAbsent(
          a,
          _ -> {
            double[] f = AlongCopper.fits(spots, ((Answer.Along) a).readings());
            double mean = java.util.Arrays.stream(f).average().orElse(1);
            for (int i = 0; i < f.length; i++) {
              f[i] = (1 - MISTAKEN) * f[i] / mean + MISTAKEN;
            }
            return f;
          });
    }

    @Override
    public double chance(Answer answer, int at, int times) {
      int i = java.util.Arrays.binarySearch(who, at);
      return i < 0 ? 1 : fits(answer)[i];
    }

    @Override
    public double best(int at, Answer answer) {
      return Math.max(1, java.util.Arrays.stream(fits(answer)).max().orElse(1));
    }

    @Override
    public int[] who() {
      return who;
    }

    @Override
    public int[] group() {
      return new int[who.length];
    }

    @Override
    public double[][] table() {
      return new double[][] {{1}};
    }

    @Override
    public List<Outcome> outcomes() {
      return List.of(new Outcome(Double.NaN, Double.NaN, "read"));
    }
  }

  /// Readings of one net so far.
  static Answer.Along with(
      Optional<Answer.Along> before, ShortPlaces.At one, Optional<ShortPlaces.Feed> feed) {
    List<ShortPlaces.At> all = new ArrayList<>();
    before.ifPresent(b -> all.addAll(b.readings().at()));
    all.removeIf(x -> x.joint().place().equals(one.joint().place()));
    all.add(one);
    return new Answer.Along(new ShortPlaces.Readings(all, feed));
  }
}
