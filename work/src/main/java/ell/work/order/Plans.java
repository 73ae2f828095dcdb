package ell.work.order;

import ell.book.BookException;
import ell.book.Build;
import ell.core.beep.BeepList;
import ell.core.board.Block;
import ell.core.board.Revision;
import ell.core.order.Blocks;
import ell.core.order.BuildOrder;
import ell.core.order.Method;
import ell.core.order.Wish;
import ell.core.power.Ladder;
import ell.core.pulse.LogicFamily;
import ell.core.pulse.PulsePlan;
import ell.core.rack.Plan;
import ell.core.revise.ErrataBeep;
import ell.core.revise.ErrataGates;
import ell.core.revise.Erratum;
import ell.core.talk.TalkPlan;
import ell.work.bring.Revisions;
import ell.work.errata.KeptErrata;
import ell.work.power.Ladders;
import ell.work.pulse.Pulses;
import ell.work.space.ActException;
import ell.work.space.Workspace;
import ell.work.space.Workspace.Change;
import ell.work.talk.Talks;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;

/// The plans of builds, kept until a revision, its ladder or its wishes change. Safe for several
/// threads.
public final class Plans implements Workspace.Listener {
  private final Revisions revisions;
  private final Ladders ladders;
  private final Wishes wishes;
  private final Panels panels;
  private final Pulses pulses;
  private final Talks talks;
  private final KeptErrata errata;
  private final Map<String, Plan> known = new ConcurrentHashMap<>();

  /// The plans of a workspace.
  public Plans(
      Workspace space,
      Revisions revisions,
      Ladders ladders,
      Wishes wishes,
      Panels panels,
      Pulses pulses,
      Talks talks,
      KeptErrata errata) {
    this.revisions = revisions;
    this.ladders = ladders;
    this.wishes = wishes;
    this.panels = panels;
    this.pulses = pulses;
    this.talks = talks;
    this.errata = errata;
    space.listen(this);
  }

  @Override
  public void changed(Change change) {
    if (change instanceof Change.Revision || change instanceof Change.Everything) {
      known.clear();
    }
  }

  /// Everything planned for a build.
  public Plan of(Build build) throws BookException, ActException {
    return of(
        build.design(),
        build.revision(),
        Method.of(build.method()),
        build.variant(),
        panels.of(build));
  }

  /// Everything planned for a variant of a revision built by a method.
  ///
  /// @param variant empty for the bill as it is
  /// @param panel boards that hang together until their paste is melted, 1 when none do
  public Plan of(String design, String name, Method method, String variant, int panel)
      throws BookException, ActException {
    String key = design + "\n" + name + "\n" + method + "\n" + variant + "\n" + panel;
    Plan is = known.get(key);
    if (is != null) {
      return is;
    }
    Revisions.known(revisions.get(design, name), variant);
    Revision revision = revisions.get(design, name).in(variant);
    Ladder ladder = ladders.of(design, name);
    List<Erratum> mistakes = errata.of(design, name);
    List<Block> blocks = ErrataGates.with(Blocks.of(revision, ladder), mistakes, revision);
    List<Wish> wanted = wishes.of(revision, blocks);
    List<LogicFamily> own = pulses.families();
    List<String> lines = pulses.said(design, name);
    List<String> said = talks.said(design, name);
    Plan plan =
        new Plan(
            revision,
            method,
            ladder,
            blocks,
            panel,
            () -> BuildOrder.of(revision, method, blocks, wanted, panel, () -> false),
            () -> ErrataBeep.with(BeepList.of(revision, ladder), mistakes, revision, ladder),
            () -> PulsePlan.of(revision, ladder, own, lines),
            () -> TalkPlan.of(revision, said));
    known.put(key, plan);
    return plan;
  }
}
