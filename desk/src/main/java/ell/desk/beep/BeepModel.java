package ell.desk.beep;

import ell.bench.link.BenchException;
import ell.core.beep.BeepCheck;
import ell.core.beep.BeepFacts;
import ell.core.beep.BeepList;
import ell.core.entry.Entry;
import ell.core.entry.EntryWords;
import ell.core.entry.Logged;
import ell.core.quantity.Verdict;
import ell.desk.shell.DeskModel;
import ell.desk.shell.Margin;
import ell.desk.shell.Snapshot;
import ell.desk.shell.StageModel;
import ell.work.beep.BeepRun;
import ell.work.space.ActException;
import java.util.List;
import java.util.Optional;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;

/// The check in hand of one board: the next that was not made, or one that the maker turned to.
public final class BeepModel extends StageModel {
  private final DeskModel desk;
  private final ReadOnlyObjectWrapper<Shown> shown = new ReadOnlyObjectWrapper<>(this, "shown");
  private Snapshot.Work work;
  private int at = -1;
  private int offered = -1;

  /// What is drawn.
  ///
  /// @param reading of the check in hand, when it was made
  /// @param made how many of all checks were made
  public record Shown(
      Snapshot.Work work,
      BeepCheck check,
      Optional<Entry.Check> reading,
      int made,
      int guardsMade,
      int guards) {}

  /// A model for a desk.
  public BeepModel(DeskModel desk) {
    this.desk = desk;
  }

  /// What is drawn; null when there is nothing to beep.
  public ReadOnlyObjectProperty<Shown> shownProperty() {
    return shown.getReadOnlyProperty();
  }

  @Override
  public void show(Snapshot.Work w) {
    boolean sameBoard = work != null && work.board().equals(w.board());
    work = w;
    List<BeepCheck> checks = w.plan().beep().checks();
    if (checks.isEmpty()) {
      shown.set(null);
      margin(Margin.EMPTY);
      return;
    }
    int next =
        BeepFacts.of(w.state())
            .next(w.plan().beep())
            .map(c -> c.number() - 1)
            .orElse(checks.size() - 1);
    if (!sameBoard || at < 0 || at >= checks.size() || at == offered) {
      at = next;
    }
    offered = next;
    fill();
  }

  private void fill() {
    BeepList list = work.plan().beep();
    BeepCheck c = list.checks().get(at);
    Optional<Entry.Check> reading =
        Optional.ofNullable(BeepFacts.of(work.state()).checks().get(c.key()))
            .map(l -> (Entry.Check) l.entry());
    List<BeepCheck> guards = list.guarding();
    shown.set(
        new Shown(
            work,
            c,
            reading,
            BeepFacts.of(work.state()).checks().size(),
            (int)
                guards.stream()
                    .filter(g -> BeepFacts.of(work.state()).verdict(g.key()).isPresent())
                    .count(),
            guards.size()));
    margin(BeepMargin.say(list, c, reading));
  }

  @Override
  public String primaryWords() {
    return "measure with the meter";
  }

  @Override
  public void primary() {
    Shown s = shown.get();
    if (s != null) {
      measure(List.of(s.check()));
    }
  }

  /// Makes every check that power waits for and that is open, with the meter.
  public void measureGuards() {
    if (work != null) {
      measure(
          work.plan().beep().guarding().stream()
              .filter(c -> BeepFacts.of(work.state()).verdict(c.key()).isEmpty())
              .toList());
    }
  }

  private void measure(List<BeepCheck> checks) {
    String serial = work.board();
    desk.act(w -> {
      try (BeepRun run = new BeepRun(w.acts(), serial, desk.bench().open(w))) {
        for (BeepCheck c : checks) {
          Logged l = run.check(c);
          desk.say("logged to " + serial + ": " + EntryWords.of(l.entry()));
          if (((Entry.Check) l.entry()).verdict() == Verdict.OUT) {
            break;
          }
        }
      } catch (BenchException e) {
        throw new ActException(e.getMessage() + "; a reading can be typed instead", e);
      }
    });
  }

  /// Logs that the meter shows an open loop.
  public void openLoop() {
    Shown s = shown.get();
    if (s != null) {
      desk.log(List.of(s.check().read(Double.POSITIVE_INFINITY)));
    }
  }

  @Override
  public String readingLine() {
    Shown s = shown.get();
    return s == null ? "" : "beep " + s.check().number() + " ";
  }

  @Override
  public String faultLine() {
    Shown s = shown.get();
    return s == null ? "" : s.check().b().place() + " ";
  }

  @Override
  public void move(int by) {
    if (work != null && !work.plan().beep().checks().isEmpty()) {
      at = Math.clamp(at + by, 0, work.plan().beep().checks().size() - 1);
      fill();
    }
  }
}
