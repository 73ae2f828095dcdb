package ell.work;

import ell.core.rack.Progress;
import ell.core.rack.Sections;
import ell.core.rack.Stage;
import ell.work.act.StageWork;
import ell.work.beep.BeepVerbs;
import ell.work.heat.HeatVerbs;
import ell.work.jig.JigVerbs;
import ell.work.kit.KitVerbs;
import ell.work.look.LookVerbs;
import ell.work.order.OrderVerbs;
import ell.work.power.PowerVerbs;
import ell.work.print.PrintVerbs;
import ell.work.prove.ProveVerbs;
import ell.work.pulse.PulseVerbs;
import ell.work.revise.ReviseVerbs;
import ell.work.space.Workspace;
import ell.work.talk.TalkVerbs;
import ell.work.tape.BookVerbs;
import ell.work.tape.Verb;
import ell.work.trace.TraceVerbs;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;

/// The lists that a stage has a line in. Everything that goes through the stages (rule, rack, tape,
/// record, export) goes through these, so that a stage which stands on them is nowhere forgotten.
///
/// @param all stages in the order of the work, those that are not built too
/// @param progress how the stages that are built see a board, in the order of the work
/// @param sections what they say in a record, in the order of the page
/// @param verbs words of the tape; what is known by its form alone is asked in this order, readings
///   last
/// @param more works of stages that do not ship, made over a workspace
public record Stages(
    List<Stage> all,
    List<Progress> progress,
    List<Sections> sections,
    List<Verb> verbs,
    Function<Workspace, List<StageWork>> more) {
  /// The stages that ship.
  public static final Stages SHIPPED =
      new Stages(Stage.ALL, Progress.ALL, Sections.ALL, words(), _ -> List.of());

  public Stages {
    all = List.copyOf(all);
    progress = List.copyOf(progress);
    sections = List.copyOf(sections);
    verbs = List.copyOf(verbs);
  }

  private static List<Verb> words() {
    List<Verb> all = new ArrayList<>();
    all.addAll(BookVerbs.ALL);
    all.addAll(KitVerbs.ALL);
    all.addAll(OrderVerbs.ALL);
    all.addAll(PrintVerbs.ALL);
    all.addAll(HeatVerbs.ALL);
    all.addAll(TalkVerbs.ALL); // before defects: an open link is none
    all.addAll(LookVerbs.ALL);
    all.addAll(TraceVerbs.ALL);
    all.addAll(JigVerbs.ALL);
    all.addAll(ProveVerbs.ALL);
    all.addAll(ReviseVerbs.ALL);
    all.addAll(BeepVerbs.ALL);
    all.addAll(PulseVerbs.ALL);
    all.addAll(PowerVerbs.ALL);
    return all;
  }

  /// The same lists with one more stage behind the others: one line in each.
  public Stages with(
      Stage stage,
      Progress its,
      Sections says,
      List<Verb> words,
      Function<Workspace, StageWork> work) {
    return new Stages(
        and(all, stage),
        and(progress, its),
        and(sections, says),
        both(words, verbs),
        w -> and(more.apply(w), work.apply(w)));
  }

  /// The stage with a key, empty when there is none.
  public Optional<Stage> named(String key) {
    return all.stream().filter(s -> s.key().equals(key)).findFirst();
  }

  /// How a stage sees boards, empty when it is not built.
  public Optional<Progress> progress(Stage stage) {
    return progress.stream().filter(p -> p.stage().equals(stage)).findFirst();
  }

  private static <T> List<T> and(List<T> list, T one) {
    return both(list, List.of(one));
  }

  private static <T> List<T> both(List<T> a, List<T> b) {
    List<T> all = new ArrayList<>(a);
    all.addAll(b);
    return List.copyOf(all);
  }
}
