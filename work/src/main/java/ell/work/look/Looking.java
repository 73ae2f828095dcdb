package ell.work.look;

import ell.book.Build;
import ell.core.board.Revision;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.heat.Alloy;
import ell.core.look.Pitch;
import ell.core.look.Rates;
import ell.core.look.Risk;
import ell.core.look.Walk;
import ell.core.order.Method;
import ell.core.power.Ladder.RailSpec;
import ell.core.print.JarClock;
import ell.core.print.PrintFacts;
import ell.core.rack.Plan;
import ell.work.order.Plans;
import ell.work.print.Printing;
import ell.work.space.ActException;
import ell.work.space.Workspace;
import ell.work.space.Workspace.Change;
import java.io.IOException;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;

/// Inspection: rates over the boards of a build, and the walk of one board.
public final class Looking implements Workspace.Listener {
  private final Workspace w;
  private final Plans plans;
  private final Printing printing;
  private final Map<Revision, Pitch> pitches = new ConcurrentHashMap<>();

  /// The inspection of a workspace.
  public Looking(Workspace w, Plans plans, Printing printing) {
    this.w = w;
    this.plans = plans;
    this.printing = printing;
    w.listen(this);
  }

  @Override
  public void changed(Change change) {
    if (change instanceof Change.Revision || change instanceof Change.Everything) {
      pitches.clear();
    }
  }

  private Pitch pitch(Revision r) {
    return pitches.computeIfAbsent(r, Pitch::of);
  }

  /// Rates over the boards of a build.
  public Rates rates(Build build) throws IOException, ActException {
    return rates(build, build.boards());
  }

  /// Rates over some boards of a build.
  public Rates rates(Build build, List<String> boards) throws IOException, ActException {
    Revision revision = plans.of(build).revision();
    Map<String, List<Logged>> log = new LinkedHashMap<>();
    Map<String, Rates.About> about = new LinkedHashMap<>();
    for (String serial : boards) {
      List<Logged> standing = w.standing(serial);
      log.put(serial, standing);
      about.put(serial, new Rates.About(build.method(), pasteAge(standing)));
    }
    return Rates.of(revision, pitch(revision), log, about);
  }

  /// How long the paste of the last print was out of the cold then, as a class.
  private String pasteAge(List<Logged> standing) throws IOException {
    for (Logged l : standing.reversed()) {
      if (l.entry() instanceof Entry.Printed p && !p.jar().isEmpty()) {
        JarClock c = printing.clockAt(p.jar(), l.at().toInstant());
        double hours = c.out().toMinutes() / 60.0;
        return hours < 8
            ? "under 8 h"
            : hours < 24 ? "8...24 h" : hours < 72 ? "1...3 days" : "over 3 days";
      }
    }
    return "";
  }

  /// The walk of a board, with its risks.
  public Walk walk(Build build, String board) throws IOException, ActException {
    return Walk.of(plans.of(build).revision(), w.state(board), risk(build, board));
  }

  /// The risk at each joint of a board.
  public Risk risk(Build build, String board) throws IOException, ActException {
    Plan plan = plans.of(build);
    return new Risk(
        plan.revision(),
        pitch(plan.revision()),
        Method.of(build.method()),
        Alloy.of(build.alloy()),
        PrintFacts.of(w.state(board)).paste(),
        planes(plan),
        Rates.seenByPart(rates(build)));
  }

  /// Nets that are planes: ground and the rails.
  public static Set<String> planes(Plan plan) {
    Set<String> nets = new HashSet<>();
    nets.add(plan.ladder().ground());
    plan.ladder().supplied().stream().map(RailSpec::net).forEach(nets::add);
    return nets;
  }
}
