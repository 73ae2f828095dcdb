package ell.desk.pulse;

import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.pulse.Arrives;
import ell.core.pulse.Bounce;
import ell.core.pulse.LineFit;
import ell.core.pulse.NetLine;
import ell.core.pulse.OnLine;
import ell.core.pulse.PulseFacts;
import ell.core.pulse.PulsePlan;
import ell.core.pulse.SeriesWindow;
import ell.core.pulse.Wanted;
import ell.core.quantity.PreferredValue;
import ell.core.series.Series;
import ell.desk.shell.DeskModel;
import ell.desk.shell.Loader;
import ell.desk.shell.Snapshot;
import ell.work.Workshop;
import ell.work.space.ActException;
import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Function;

/// The net in hand as a line: its copper, a step on it, the resistor at its source as a slide.
public final class LineFace {
  private static final int SERIES = 24;

  private final DeskModel desk;
  private final Loader<Shown> working;
  private Shown shown;
  private Object key;
  private int tap;
  private double ohms = Double.NaN;

  /// A line that was worked out.
  ///
  /// @param names of the places: the driver's joint, then the others
  /// @param at shares of the line, as many
  /// @param ohms in series now
  /// @param seen what arrives, empty where no thresholds are known or nothing takes the wave up
  /// @param courses at the places, empty where nothing takes the wave up
  /// @param laid captures of this board by place, to be laid over the courses
  /// @param judges whether its thresholds are more than a guess
  /// @param why in words, where it is no line
  public record Shown(
      Optional<NetLine> line,
      List<String> names,
      List<Double> at,
      double ohms,
      Optional<Arrives.Input> input,
      Optional<SeriesWindow> seen,
      List<Bounce.Course> courses,
      Map<String, Laid> laid,
      boolean judges,
      String why) {
    Shown laying(Map<String, Laid> captures) {
      return new Shown(line, names, at, ohms, input, seen, courses, captures, judges, why);
    }
  }

  /// A capture of a place on the line, and the line that fits it.
  ///
  /// @param fit empty where nothing fits
  public record Laid(Series series, Optional<LineFit> fit) {}

  LineFace(DeskModel desk, Function<Consumer<Shown>, Loader<Shown>> loader, Runnable changed) {
    this.desk = desk;
    this.working =
        loader.apply(s -> {
          shown = s;
          ohms = s.ohms();
          tap = Math.clamp(tap, 0, Math.max(0, s.names().size() - 1));
          changed.run();
        });
  }

  /// What was worked out; null before that.
  Shown shown() {
    return shown;
  }

  /// The place whose course is drawn.
  int tap() {
    return tap;
  }

  /// Works the net of a place out, unless it is there.
  void show(Snapshot.Work w, String place) {
    String net = net(w.plan().pulse(), place);
    Object now = List.of(net, w.build().design(), w.build().revision(), w.moment());
    boolean same = shown != null && shown.line().filter(l -> l.net().equals(net)).isPresent();
    if (!same) {
      ohms = Double.NaN;
      tap = Integer.MAX_VALUE; // the far end is where it rings most
      shown = null;
    }
    key = now;
    PulsePlan plan = w.plan().pulse();
    captures = PulseFacts.of(w.state()).latest();
    ask(plan, net);
  }

  private Map<String, Logged> captures = Map.of();

  private static String net(PulsePlan plan, String place) {
    try {
      return plan.at(place).net();
    } catch (IllegalArgumentException e) {
      return place;
    }
  }

  private void ask(PulsePlan plan, String net) {
    double r = ohms;
    Map<String, Logged> had = captures;
    working.load(
        List.of(key, r),
        desk.reading(w -> {
          NetLine line;
          try {
            line = w.lines().of(plan, net);
          } catch (ActException e) {
            return new Shown(
                Optional.empty(),
                List.of(),
                List.of(),
                0,
                Optional.empty(),
                Optional.empty(),
                List.of(),
                Map.of(),
                false,
                e.getMessage());
          }
          Shown s = worked(plan.at(net), line, Double.isNaN(r) ? line.driven().series() : r);
          return s.laying(laidOnce(w, had, s, line));
        }));
  }

  private Object laidKey;
  private Map<String, Laid> laidThen = Map.of();

  /// The captures and their fits, worked out once: a slide changes what is reckoned, not what was
  /// measured.
  private synchronized Map<String, Laid> laidOnce(
      Workshop w, Map<String, Logged> had, Shown s, NetLine line) throws IOException, ActException {
    List<Object> now = new ArrayList<>(List.of(line.net(), line.driven()));
    s.names().forEach(n -> now.add(had.containsKey(n) ? had.get(n).number() : 0L));
    if (!now.equals(laidKey)) {
      laidThen = laid(w, had, s, line);
      laidKey = now;
    }
    return laidThen;
  }

  private static Map<String, Laid> laid(Workshop w, Map<String, Logged> had, Shown s, NetLine line)
      throws IOException, ActException {
    Map<String, Laid> all = new HashMap<>();
    for (int i = 0; i < s.names().size(); i++) {
      Logged l = had.get(s.names().get(i));
      if (l != null) {
        Optional<Series> series = w.captures().open((Entry.Capture) l.entry());
        if (series.isPresent() && series.get().size() < MOST_LAID) {
          all.put(
              s.names().get(i),
              new Laid(series.get(), LineFit.of(series.get(), s.at().get(i), line.driven())));
        }
      }
    }
    return all;
  }

  private static final int MOST_LAID = 1_000_000;

  private static Shown worked(Wanted w, NetLine line, double series) {
    List<String> names = new ArrayList<>(List.of(line.from().place()));
    List<Double> at = new ArrayList<>(List.of(0.0));
    for (NetLine.Reached x : line.reached()) {
      names.add(x.joint().place());
      at.add(x.at());
    }
    Optional<Arrives.Input> in =
        w.thresholds().filter(t -> Double.isFinite(t.vil()) && Double.isFinite(t.vih()));
    OnLine b = line.step(series);
    boolean settles = b.settles();
    return new Shown(
        Optional.of(line),
        names,
        at,
        series,
        in,
        settles ? in.map(i -> SeriesWindow.of(b, line.driven().ohms(), at, i)) : Optional.empty(),
        settles ? b.at(at) : List.of(),
        Map.of(),
        w.judges(),
        settles ? "" : "nothing takes the wave up: a resistor at the source would");
  }

  /// Another place along the line.
  void place(int by) {
    if (shown != null) {
      tap = Math.clamp((long) tap + by, 0, Math.max(0, shown.names().size() - 1));
    }
  }

  /// The next resistor of the series, up or down; below the least there is none at all.
  void slide(int by, PulsePlan plan) {
    if (shown == null || shown.line().isEmpty()) {
      return;
    }
    double r = Double.isNaN(ohms) ? shown.ohms() : ohms;
    for (int i = 0; i < Math.abs(by); i++) {
      r = by > 0 ? above(r) : below(r);
    }
    ohms = r;
    ask(plan, shown.line().get().net());
  }

  private static final double LEAST = 10;
  private static final double MOST = 1000;

  private static double above(double r) {
    return r < LEAST ? LEAST : Math.min(MOST, PreferredValue.atLeast(r * 1.001, SERIES));
  }

  private static double below(double r) {
    if (r <= LEAST) {
      return 0;
    }
    double next = LEAST;
    while (above(next) < r * 0.999) {
      next = above(next);
    }
    return next;
  }
}
