package ell.core.trace;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/// Weighs what could be measured next: the information that each measurement is expected to give
/// (Shannon's mutual information between what comes out and where the fault is), over the minutes
/// that it takes with what must be switched for it, and with the risk of power on what may be
/// shorted.
final class Weighing {
  /// Switching power on, and off with waiting until it is discharged, minutes; typical, no source.
  private static final double ON = 0.7;

  private static final double OFF = 0.6;

  /// Power on a short costs so much more, minutes.
  private static final double HARM = 6;

  /// A change of parts costs a heat cycle, as minutes.
  private static final double HEATS = 6;

  /// Looking ahead must pay by so much to change what comes first.
  private static final double PAYS = 1.1;

  private static final double SHARE = 0.6;

  private static final int AHEAD = 6;
  private static final int AHEAD_OF = 50;
  private static final double LEAST_CHANCE = 1e-5;

  /// What was measured is measured again where that tells so much, bit.
  private static final double STRANGE = 0.02;

  private final Board board;
  private final List<Case> cases;
  private final Views views;
  private final Knobs knobs;
  private final double[] chance;
  private final boolean powered;
  private final double risk;
  private final double waits;
  private final Set<Probe> done;
  private final Again again;
  private List<Weighed> weighed = List.of();

  /// @param now how the supplies stand
  /// @param done what was measured since something was done to the board
  /// @param again what may be read again
  /// @param waits minutes of what has to be done before the board may be powered
  Weighing(
      Board board,
      List<Case> cases,
      Views views,
      Belief belief,
      Knobs now,
      Set<Probe> done,
      Again again,
      double waits) {
    this.done = done;
    this.again = again;
    this.board = board;
    this.cases = cases;
    this.views = views;
    knobs = now.on() ? now : Knobs.usual(board.ladder());
    powered = now.on();
    this.waits = powered ? 0 : waits;
    chance = belief.byCase();
    // what nobody thought of answers as a healthy board does, as far as anybody knows
    chance[0] += belief.other();
    risk = knobs.on() ? shorted() : 0;
  }

  /// The chance that power meets a short: cases in which the supply is at its limit.
  private double shorted() {
    Forecast f = views.forecast(knobs);
    double sum = 0;
    for (int i = 1; i < chance.length; i++) {
      if (chance[i] > LEAST_CHANCE && f.row(i).limited()) {
        sum += chance[i];
      }
    }
    return sum;
  }

  /// Measurements that say something, best first.
  ///
  /// @param many how many at most
  List<Choice> best(int many) {
    List<Weighed> found = all();
    found.sort(Comparator.comparingDouble(Weighed::worth).reversed());
    ahead(found);
    weighed = List.copyOf(found);
    return found.stream().limit(many).map(this::told).toList();
  }

  /// Measurements that say something, in the order of who measures.
  ///
  /// @param many how many at most
  List<Choice> first(int many, Comparator<Probe> own) {
    List<Weighed> found = all();
    found.sort(Comparator.comparing(Weighed::probe, own));
    weighed = List.copyOf(found);
    return found.stream().limit(many).map(this::told).toList();
  }

  private List<Weighed> all() {
    List<Weighed> found = new ArrayList<>();
    for (Probe p : new Candidates(board, cases, views, knobs, chance, done).all()) {
      boolean joined = p.kind() == Probe.Kind.OHMS && !own(p) && done.contains(views.between(p));
      if (done.contains(p) || joined) {
        continue; // it would show the same again
      }
      Outlook o = views.of(p);
      double bits = information(o, chance);
      if (bits > 1e-4) {
        found.add(new Weighed(p, o, bits, minutes(p), false));
      }
    }
    for (Probe p : again.probes()) {
      // what was measured with the supplies set otherwise is not measured again
      if (p.knobs().isEmpty() || p.knobs().get().equals(knobs)) {
        Optional<Outlook> o = again.of(p);
        double bits = o.isEmpty() ? 0 : information(o.get(), chance);
        if (bits > STRANGE) {
          found.add(new Weighed(p, o.get(), bits, minutes(p), true));
        }
      }
    }
    return found;
  }

  /// Whether both places are on one net.
  private boolean own(Probe p) {
    return views.net(p.a()).equals(views.net(p.b()));
  }

  /// The most that any of them gives, bit; known once they were weighed.
  double most() {
    return weighed.stream().mapToDouble(Weighed::bits).max().orElse(0);
  }

  /// The most that any gives which takes no longer, bit; known once they were weighed.
  double quick(double minutes) {
    return weighed.stream()
        .filter(w -> w.minutes() <= minutes)
        .mapToDouble(Weighed::bits)
        .max()
        .orElse(0);
  }

  /// @param again whether it was measured already
  private record Weighed(Probe probe, Outlook outlook, double bits, double minutes, boolean again) {
    double worth() {
      return Choice.worth(bits, minutes);
    }
  }

  /// Looks two ahead among the best: what is best with what follows comes first.
  private void ahead(List<Weighed> found) {
    int n = Math.min(AHEAD, found.size());
    if (n < 2) {
      return;
    }
    List<Weighed> next = found.subList(0, Math.min(AHEAD_OF, found.size()));
    Map<Weighed, Double> worth = new HashMap<>();
    for (Weighed w : found.subList(0, n)) {
      double bits = w.bits();
      double minutes = w.minutes() + Choice.THOUGHT;
      double[][] table = w.outlook().table();
      for (int b = 0; b < table[0].length; b++) {
        double[] after = after(w.outlook(), b);
        double p = sum(after);
        if (p < 0.02) {
          continue;
        }
        for (int i = 0; i < after.length; i++) {
          after[i] /= p;
        }
        double best = 0;
        double takes = 0;
        for (Weighed x : next) {
          if (x != w) {
            double more = information(x.outlook(), after);
            double t =
                x.probe().kind().power() == w.probe().kind().power()
                    ? board.minutes(x.probe())
                    : board.minutes(x.probe()) + (x.probe().kind().power() ? ON + waits : OFF);
            t += Choice.THOUGHT;
            if (more / t > best) {
              best = more / t;
              takes = t;
            }
          }
        }
        bits += p * best * takes;
        minutes += p * takes;
      }
      worth.put(w, bits / minutes);
    }
    Weighed best = found.getFirst();
    for (Weighed w : found.subList(1, n)) {
      if (w.worth() > SHARE * found.getFirst().worth() && worth.get(w) > PAYS * worth.get(best)) {
        best = w;
      }
    }
    found.remove(best);
    found.addFirst(best);
  }

  private double[] after(Outlook o, int outcome) {
    double[][] table = o.table();
    double[] after = new double[chance.length];
    double base = table[0][outcome];
    for (int i = 0; i < after.length; i++) {
      after[i] = chance[i] * base;
    }
    int[] who = o.who();
    int[] group = o.group();
    for (int k = 0; k < who.length; k++) {
      after[who[k]] = chance[who[k]] * table[group[k]][outcome];
    }
    return after;
  }

  private static double sum(double[] p) {
    double s = 0;
    for (double x : p) {
      s += x;
    }
    return s;
  }

  /// The information that an outlook is expected to give, bit.
  static double information(Outlook o, double[] chance) {
    double[][] table = o.table();
    double[] weight = new double[table.length];
    int[] who = o.who();
    int[] group = o.group();
    double all = 0;
    for (double c : chance) {
      all += c;
    }
    double listed = 0;
    for (int k = 0; k < who.length; k++) {
      weight[group[k]] += chance[who[k]];
      listed += chance[who[k]];
    }
    weight[0] += Math.max(0, all - listed);
    int outcomes = table[0].length;
    double bits = 0;
    for (int b = 0; b < outcomes; b++) {
      double p = 0;
      for (int g = 0; g < weight.length; g++) {
        p += weight[g] * table[g][b];
      }
      for (int g = 0; g < weight.length; g++) {
        double joint = weight[g] * table[g][b];
        if (joint > 0) {
          bits += joint * Math.log(table[g][b] * all / p);
        }
      }
    }
    return Math.max(0, bits / Math.log(2) / all);
  }

  private double minutes(Probe p) {
    double t = board.minutes(p);
    if (p.kind().power()) {
      t += powered ? 0 : ON + HARM * risk + waits;
    } else if (powered && p.kind() != Probe.Kind.LOOK) {
      t += OFF;
    }
    return p.kind() == Probe.Kind.SWAP ? t + HEATS : t;
  }

  private Choice told(Weighed w) {
    List<Outlook.Outcome> outcomes = w.outlook().outcomes();
    List<Choice.Result> results = new ArrayList<>();
    for (int b = 0; b < outcomes.size(); b++) {
      double[] after = after(w.outlook(), b);
      double p = sum(after) / sum(chance);
      if (p > 0.002) {
        Outlook.Outcome o = outcomes.get(b);
        results.add(new Choice.Result(o.low(), o.high(), o.words(), p, best(after)));
      }
    }
    join(results, w.outlook());
    double yes = results.stream().mapToDouble(Choice.Result::chance).max().orElse(1);
    boolean power = w.probe().kind().power();
    String split = String.format(Locale.ROOT, "%.0f:%.0f", 100 * yes, 100 * (1 - yes));
    String takes =
        w.minutes() < 1.5
            ? String.format(Locale.ROOT, "%.0f s", 60 * w.minutes())
            : String.format(Locale.ROOT, "%.0f min", w.minutes());
    List<String> places = w.probe().places();
    String along =
        places.size() < 2
            ? ""
            : "by four wires from "
                + String.join(", ", places)
                + " to "
                + w.probe().b()
                + ": the least is nearest to the short; ";
    String why =
        (w.again() ? "once more, for a tip may have slipped; " : "")
            + along
            + (yes > 0.995 ? "hardly splits the suspects" : "splits the suspects " + split)
            + ", "
            + takes
            + (power ? powered ? ", power is on" : ", with power" : ", no power")
            + (power && !powered && risk > 0.02
                ? String.format(Locale.ROOT, "; %.0f %% that it meets a short", 100 * risk)
                : "")
            + (power && waits > 0 ? "; what power waits for comes first" : "")
            + (w.probe().kind() == Probe.Kind.SWAP ? "; heats the part once more" : "");
    return new Choice(w.probe(), feed(w.probe()), power, w.minutes(), w.bits(), results, why);
  }

  /// What lies side by side and leaves the same suspects is one thing that may come out.
  private static void join(List<Choice.Result> results, Outlook o) {
    if (!(o instanceof Numbers n)) {
      return;
    }
    for (int i = 0; i + 1 < results.size(); ) {
      Choice.Result a = results.get(i);
      Choice.Result b = results.get(i + 1);
      if (a.high() == b.low() && alike(a.left(), b.left())) {
        results.set(
            i,
            new Choice.Result(
                a.low(), b.high(), n.words(a.low(), b.high()), a.chance() + b.chance(), a.left()));
        results.remove(i + 1);
      } else {
        i++;
      }
    }
  }

  private static boolean alike(List<String> a, List<String> b) {
    int n = Math.min(2, Math.min(a.size(), b.size()));
    return n > 0
        && a.get(0).equals(b.get(0))
        && (n < 2 || b.contains(a.get(1)) || a.contains(b.get(1)));
  }

  private Optional<Choice.Feed> feed(Probe p) {
    if (p.knobs().isEmpty()) {
      return Optional.empty();
    }
    for (int i = 0; i < knobs.volts().size(); i++) {
      if (knobs.volts().get(i) > 0) {
        return Optional.of(
            new Choice.Feed(
                board.ladder().sources().get(i).rail(),
                knobs.volts().get(i),
                knobs.limits().get(i)));
      }
    }
    return Optional.empty();
  }

  private List<String> best(double[] after) {
    int[] top = {-1, -1, -1};
    for (int i = 0; i < after.length; i++) {
      for (int k = 0; k < top.length; k++) {
        if (top[k] < 0 || after[i] > after[top[k]]) {
          System.arraycopy(top, k, top, k + 1, top.length - 1 - k);
          top[k] = i;
          break;
        }
      }
    }
    return java.util.Arrays.stream(top)
        .filter(i -> i >= 0 && after[i] > 0)
        .mapToObj(i -> cases.get(i).words())
        .toList();
  }
}
