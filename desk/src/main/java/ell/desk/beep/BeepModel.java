package ell.desk.beep;

import ell.bench.link.BenchException;
import ell.core.beep.BeepCheck;
import ell.core.beep.BeepFacts;
import ell.core.beep.BeepList;
import ell.core.beep.ShortPlaces;
import ell.core.beep.Steady;
import ell.core.entry.Entry;
import ell.core.entry.EntryWords;
import ell.core.entry.Logged;
import ell.core.quantity.Verdict;
import ell.desk.shell.DeskModel;
import ell.desk.shell.Loader;
import ell.desk.shell.Margin;
import ell.desk.shell.Snapshot;
import ell.desk.shell.StageModel;
import ell.work.beep.BeepRun;
import ell.work.space.ActException;
import java.io.IOException;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
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
  /// @param places where the short that was read may sit, the likeliest first; empty for none
  /// @param made how many of all checks were made
  public record Shown(
      Snapshot.Work work,
      BeepCheck check,
      Optional<Entry.Check> reading,
      List<ShortPlaces.Place> places,
      int made,
      int guardsMade,
      int guards) {}

  private final ReadOnlyObjectWrapper<Optional<Double>> live =
      new ReadOnlyObjectWrapper<>(this, "live", Optional.empty());
  private Listening listening;
  private final Loader<Found> placing;
  private List<ShortPlaces.Place> places = List.of();
  private Object placed;

  /// A model for a desk.
  public BeepModel(DeskModel desk) {
    this.desk = desk;
    this.placing =
        loader(
            desk,
            desk.runner().aside(),
            "where the short may sit",
            found -> {
              places = found.places();
              placed = found.key();
              fill();
            });
    desk.navigation()
        .stageProperty()
        .addListener((_, _, to) -> {
          if (to != ell.core.rack.Stage.BEEP) {
            stop();
          }
        });
  }

  /// What the meter shows while it is listened to, empty when it is not.
  public ReadOnlyObjectProperty<Optional<Double>> liveProperty() {
    return live.getReadOnlyProperty();
  }

  /// Whether the meter is listened to.
  public boolean listens() {
    return listening != null;
  }

  /// Begins to listen to the meter, or stops: a reading that is steady is taken by itself, and the
  /// next check comes up.
  public void listen() {
    if (listening != null) {
      stop();
      return;
    }
    Shown s = shown.get();
    if (s == null) {
      return;
    }
    String serial = work.board();
    Listening mine = new Listening(s.check());
    listening = mine;
    live.set(Optional.of(Double.NaN));
    desk.act(w -> {
      BeepRun run;
      try {
        run = new BeepRun(w.acts(), serial, desk.bench().open(w));
      } catch (BenchException e) {
        desk.runner().ui().execute(this::stop);
        throw new ActException(e.getMessage() + "; a reading can be typed instead", e);
      }
      desk.runner().aside().execute(() -> hear(run, serial, mine));
    });
  }

  /// Stops listening; at once, and without waiting for the meter.
  public void stop() {
    Listening l = listening;
    if (l != null) {
      l.over = true;
      listening = null;
      live.set(Optional.empty());
    }
  }

  /// What is listened for; the check is changed on the interface thread and read aside.
  private static final class Listening {
    private volatile BeepCheck check;
    private volatile boolean over;

    Listening(BeepCheck check) {
      this.check = check;
    }
  }

  private void hear(BeepRun run, String serial, Listening mine) {
    try (run) {
      Steady steady = new Steady(run.touches());
      BeepCheck before = mine.check;
      while (!mine.over) {
        BeepCheck c = mine.check;
        if (c != before && run.touches()) {
          steady.moved();
        }
        before = c;
        double ohms = run.ohms(c);
        desk.runner().ui().execute(() -> shows(mine, ohms));
        OptionalDouble taken = steady.look(ohms);
        if (taken.isPresent() && !mine.over && c == mine.check) {
          Logged l = run.log(c, taken.getAsDouble());
          desk.say("logged to " + serial + ": " + EntryWords.of(l.entry()));
          desk.act(_ -> {});
          if (((Entry.Check) l.entry()).verdict() == Verdict.OUT) {
            desk.runner().ui().execute(this::stop);
            return;
          }
          for (int i = 0; i < PATIENCE && !mine.over && mine.check == c; i++) {
            Thread.sleep(LOOK_MILLIS); // until the next check is in hand
          }
        }
        Thread.sleep(LOOK_MILLIS);
      }
    } catch (IOException | ActException e) {
      desk.say(e.getMessage());
      desk.runner().ui().execute(this::stop);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }

  private void shows(Listening mine, double ohms) {
    if (listening == mine) {
      live.set(Optional.of(ohms));
    }
  }

  private static final int LOOK_MILLIS = 60;

  /// So many looks it waits for the next check.
  private static final int PATIENCE = 50;

  /// What is drawn; null when there is nothing to beep.
  public ReadOnlyObjectProperty<Shown> shownProperty() {
    return shown.getReadOnlyProperty();
  }

  @Override
  public void show(Snapshot.Work w) {
    boolean sameBoard = work != null && work.board().equals(w.board());
    if (!sameBoard) {
      stop();
    }
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

  /// Where a short that was read may sit: worked out aside, shown when it is there.
  private List<ShortPlaces.Place> where(BeepCheck c, Optional<Entry.Check> reading) {
    boolean shorted =
        c.kind() == BeepCheck.Kind.ISOLATION
            && reading
                .filter(r -> r.verdict() == Verdict.OUT && Double.isFinite(r.ohms()))
                .isPresent();
    if (!shorted) {
      return List.of();
    }
    Snapshot.Work w = work;
    Object key = List.of(c.key(), w.board(), w.log().size());
    if (!key.equals(placed)) {
      places = List.of();
      placing.load(
          key,
          _ ->
              new Found(
                  key,
                  ShortPlaces.of(
                          w.plan().revision(),
                          c.netA(),
                          c.netB(),
                          Optional.of(w.state()),
                          ShortPlaces.logged(w.plan().revision(), w.state(), c.netA(), c.netB()))
                      .places()));
    }
    return places;
  }

  private record Found(Object key, List<ShortPlaces.Place> places) {}

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
            where(c, reading),
            BeepFacts.of(work.state()).checks().size(),
            (int)
                guards.stream()
                    .filter(g -> BeepFacts.of(work.state()).verdict(g.key()).isPresent())
                    .count(),
            guards.size()));
    margin(BeepMargin.say(list, c, reading, shown.get().places()));
    if (listening != null) {
      listening.check = c;
    }
  }

  @Override
  public String primaryWords() {
    return "measure";
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
