package ell.work.heat;

import ell.book.BookException;
import ell.book.Build;
import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.heat.Alloy;
import ell.core.heat.FloorLife;
import ell.core.heat.HeatFacts;
import ell.core.heat.HoleFit;
import ell.core.heat.PlateFit;
import ell.core.heat.PlateRun;
import ell.core.heat.ProfileCheck;
import ell.core.heat.ProfileLog;
import ell.core.heat.ProfileWindow;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.core.rack.Plan;
import ell.work.space.ActException;
import ell.work.space.Workspace;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// Profiles of boards: runs that the book keeps, the window of a build, the plate that they tell
/// of.
public final class Heating {
  private static final String WINDOW = "window ";
  private static final int MOST_POINTS = 400;

  private final Workspace w;

  /// The heat of a workspace.
  public Heating(Workspace w) {
    this.w = w;
  }

  /// The window of an alloy: the maker's, else the one that ships.
  public ProfileWindow window(Alloy alloy) throws BookException {
    return w.book()
        .keepsake(WINDOW + alloy.key())
        .map(ProfileWindow::read)
        .orElseGet(() -> ProfileWindow.of(alloy));
  }

  /// The window of an alloy as the maker gave it, empty when the one that ships stands.
  public Optional<String> windowText(Alloy alloy) throws BookException {
    return w.book().keepsake(WINDOW + alloy.key());
  }

  /// Keeps a window of one's own for an alloy.
  public void setWindow(Alloy alloy, String json) throws BookException, ActException {
    try {
      ProfileWindow.read(json);
    } catch (IllegalArgumentException e) {
      throw new ActException(e.getMessage(), e);
    }
    w.book().putKeepsake(WINDOW + alloy.key(), json);
  }

  /// The entry of a logged run.
  ///
  /// @param side that was heated, empty for a test piece
  public Entry.HeatRun entry(String board, Path log, String side) throws IOException, ActException {
    Build build = w.buildOf(board);
    return entry(
        Profiles.read(log).log(),
        window(Alloy.of(build.alloy())),
        side,
        log.getFileName().toString());
  }

  /// The entry of a run.
  public static Entry.HeatRun entry(
      ProfileLog log, ProfileWindow window, String side, String source) throws ActException {
    ProfileCheck c = Profiles.check(log, window, 0);
    return new Entry.HeatRun(
        side, window.name(), source, c.pwi(), Optional.of(c.verdict()), curves(log));
  }

  /// Channels at an even step, thinned to at most 400 points.
  static List<Entry.HeatRun.Curve> curves(ProfileLog log) {
    double from = Double.POSITIVE_INFINITY;
    double to = Double.NEGATIVE_INFINITY;
    for (ProfileLog.Channel c : log.channels()) {
      from = Math.min(from, c.second(0));
      to = Math.max(to, c.second(c.size() - 1));
    }
    double step = Math.max(1, Math.ceil((to - from) / MOST_POINTS));
    List<Entry.HeatRun.Curve> all = new ArrayList<>();
    boolean board = false;
    for (ProfileLog.Channel c : log.channels()) {
      List<Double> v = new ArrayList<>();
      for (double t = from; t <= to + 1e-9; t += step) {
        // a set point stays until the next one is said
        double x = c.wanted() ? held(c, t) : c.at(t);
        v.add(Math.round(x * 10) / 10.0);
      }
      String role = c.wanted() ? "set" : c.plate() ? "plate" : board ? c.name() : "board";
      board |= role.equals("board");
      all.add(new Entry.HeatRun.Curve(role, step, v));
    }
    return all;
  }

  private static double held(ProfileLog.Channel c, double t) {
    int lo = 0;
    int hi = c.size() - 1;
    while (lo < hi) {
      int mid = (lo + hi + 1) / 2;
      if (c.second(mid) <= t + 1e-9) {
        lo = mid;
      } else {
        hi = mid - 1;
      }
    }
    return c.celsius(lo);
  }

  /// A kept run as a log.
  public static ProfileLog log(Entry.HeatRun run) {
    List<ProfileLog.Channel> all = new ArrayList<>();
    for (Entry.HeatRun.Curve c : run.curves()) {
      double[] t = new double[c.celsius().size()];
      double[] v = new double[t.length];
      for (int i = 0; i < t.length; i++) {
        t[i] = i * c.step();
        v[i] = c.celsius().get(i);
      }
      all.add(new ProfileLog.Channel(c.role(), t, v));
    }
    return new ProfileLog(all);
  }

  /// A run that the book keeps.
  public record Kept(String board, Logged entry) {
    /// What was run.
    public Entry.HeatRun run() {
      return (Entry.HeatRun) entry.entry();
    }
  }

  /// Runs of the boards of a build, oldest first.
  public List<Kept> runs(Build build) throws BookException {
    List<Kept> all = new ArrayList<>();
    for (String b : build.boards()) {
      HeatFacts.of(w.state(b)).runs().forEach(l -> all.add(new Kept(b, l)));
    }
    all.sort(java.util.Comparator.comparing(k -> k.entry().at().toInstant()));
    return all;
  }

  /// The plate, fitted to the latest runs of a build, at most 6.
  public PlateFit plate(Build build) throws BookException {
    List<PlateRun> runs =
        runs(build).reversed().stream()
            .flatMap(k -> PlateRun.of(k.run()).stream())
            .limit(6)
            .toList();
    return PlateFit.of(runs);
  }

  /// Parts that lay out of their dry bag, by code.
  public Map<String, FloorLife> bags() throws BookException {
    List<Logged> log = w.everywhere(Entry.Bag.class);
    Map<String, FloorLife> all = new LinkedHashMap<>();
    for (Logged l : log) {
      String code = ((Entry.Bag) l.entry()).code();
      if (!all.containsKey(code)) {
        all.put(code, FloorLife.fold(code, log, w.clock().instant()));
      }
    }
    return all;
  }

  /// A lead that is known, in its hole.
  public record Holed(Joint joint, HoleFit fit) {}

  /// Leads whose thickness is known (the parameter `lead` of their code), each in its hole.
  public List<Holed> holes(Plan plan) throws BookException {
    List<Holed> all = new ArrayList<>();
    Map<String, Optional<Double>> known = new HashMap<>();
    for (Part p : plan.revision().parts()) {
      if (!p.fitted() || !plan.revision().throughHole(p)) {
        continue;
      }
      Optional<Double> lead = known.get(p.code());
      if (lead == null) {
        lead = lead(w.book().parameters(p.code()));
        known.put(p.code(), lead);
      }
      for (Joint j : plan.revision().jointsOf(p.reference())) {
        if (j.hole() && j.drillMm() > 0 && lead.isPresent()) {
          all.add(new Holed(j, HoleFit.of(lead.get(), j.drillMm() * 1e-3, false)));
        }
      }
    }
    return all;
  }

  private static Optional<Double> lead(Map<String, String> parameters) {
    for (String key : List.of("lead", "lead diameter", "wire")) {
      if (parameters.containsKey(key)) {
        try {
          double d = EngineeringNumber.parse(parameters.get(key), Unit.METRE);
          return d > 0 && d < 0.02 ? Optional.of(d) : Optional.empty();
        } catch (NumberFormatException e) {
          return Optional.empty();
        }
      }
    }
    return Optional.empty();
  }
}
