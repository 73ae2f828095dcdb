package ell.desk.practice;

import ell.core.power.FaultWords;
import ell.core.practice.Account;
import ell.core.practice.BestRun;
import ell.core.trace.Choice;
import ell.desk.shell.DeskModel;
import ell.desk.shell.Loader;
import ell.work.Workshop;
import ell.work.practice.Practice;
import ell.work.practice.Runs;
import ell.work.space.ActException;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;

/// How the practice that is open goes, or went. It is worked out on the worker.
public final class PracticeModel {
  private final DeskModel desk;
  private final ReadOnlyObjectWrapper<Optional<Told>> told =
      new ReadOnlyObjectWrapper<>(this, "told", Optional.empty());

  /// Of a desk.
  public PracticeModel(DeskModel desk) {
    this.desk = desk;
  }

  /// What is shown.
  ///
  /// @param state what it is, or how it stands
  /// @param looks what was measured
  /// @param best the best run, a line; empty while it is looked for
  /// @param steps its measurements, with what came out where else stands what would tell more
  /// @param remarks what was risky, which habits cost minutes, what there is to learn
  public record Told(
      String title,
      String words,
      boolean over,
      String state,
      List<Row> looks,
      String best,
      List<Row> steps,
      List<String> remarks) {
    public Told {
      looks = List.copyOf(looks);
      steps = List.copyOf(steps);
      remarks = List.copyOf(remarks);
    }
  }

  /// A measurement.
  ///
  /// @param bits that were known more after it, NaN while it is looked for
  /// @param better what would have told most then, empty while it is looked for
  public record Row(long entry, String words, double minutes, double bits, String better) {}

  /// What is shown; empty before it was worked out.
  public ReadOnlyObjectProperty<Optional<Told>> toldProperty() {
    return told.getReadOnlyProperty();
  }

  /// Works it out.
  public void look() {
    desk.ask(w -> show(w, false));
  }

  /// Gives it up, and tells.
  public void giveUp() {
    desk.ask(w -> show(w, true));
  }

  private void show(Workshop w, boolean giveUp) throws IOException, ActException {
    Optional<Practice> is = Practice.in(w);
    if (is.isEmpty()) {
      return;
    }
    Practice p = is.get();
    if (giveUp && !p.account().over()) {
      p = p.giveUp();
    }
    Practice now = p;
    // weighing every measurement takes seconds, and the book is not to wait for it
    desk.runner()
        .aside()
        .execute(() -> {
          try {
            Told t = of(now);
            desk.runner().ui().execute(() -> told.set(Optional.of(t)));
          } catch (IOException | ActException | RuntimeException e) {
            desk.say(Loader.words(e));
          }
        });
  }

  private static Told of(Practice p) throws IOException, ActException {
    Account a = p.account();
    String so =
        Account.measurements(a.looks().size())
            + ", "
            + minutes(a.minutes())
            + (a.parts().isEmpty() ? "" : ", put in anew: " + String.join(", ", a.parts()));
    List<Row> rows = new ArrayList<>();
    if (!a.over()) {
      a.looks().forEach(k -> rows.add(new Row(k.entry(), k.words(), k.minutes(), Double.NaN, "")));
      return new Told(title(p), p.words(), false, so + " so far", rows, "", List.of(), List.of());
    }
    List<Practice.Better> better = p.better(a);
    for (Account.Look k : a.looks()) {
      rows.add(
          new Row(
              k.entry(),
              k.words(),
              k.minutes(),
              k.bits(),
              better.stream()
                  .filter(b -> b.entry() == k.entry())
                  .findFirst()
                  .flatMap(Practice.Better::choice)
                  .map(PracticeModel::words)
                  .orElse("")));
    }
    BestRun b = p.best();
    Runs.own().add(p.run(a, b));
    List<String> faults = p.faults().stream().map(FaultWords::words).toList();
    List<String> remarks = new ArrayList<>();
    a.risks().forEach(r -> remarks.add("risky: " + r));
    a.habits().forEach(h -> remarks.add("habit: " + h));
    if (!p.lesson().isBlank()) {
      remarks.add(p.lesson());
    }
    return new Told(
        title(p),
        p.words(),
        true,
        (a.found().isEmpty()
                ? "Given up"
                : a.right() ? "Found" : "Not found; you said " + a.found())
            + ". It is: "
            + String.join(", ", faults)
            + ". "
            + so,
        rows,
        String.format(
            Locale.ROOT,
            "The best run takes %s, %s. %s were not known at first, which takes at"
                + " least %.1f of the most telling ones.",
            Account.measurements(b.steps().size()),
            minutes(b.minutes()),
            String.format(Locale.ROOT, "%.1f bit", b.begin()),
            b.bound()),
        b.steps().stream()
            .map(x -> new Row(0, x.line(), x.minutes(), x.bits(), x.showed()))
            .toList(),
        remarks);
  }

  private static String title(Practice p) {
    return "Practice · board "
        + p.board()
        + (p.level() == 0 ? "" : " · level " + p.level())
        + " · "
        + p.title();
  }

  private static String words(Choice c) {
    return c.probe().line() + String.format(Locale.ROOT, ", %.2f bit", c.information());
  }

  private static String minutes(double m) {
    return String.format(Locale.ROOT, m < 10 ? "%.1f min" : "%.0f min", m);
  }
}
