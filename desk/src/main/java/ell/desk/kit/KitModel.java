package ell.desk.kit;

import ell.core.kit.KitCheck;
import ell.core.kit.KitLine;
import ell.desk.shell.Margin;
import ell.desk.shell.Snapshot;
import ell.desk.shell.StageModel;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import javafx.beans.property.IntegerProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleIntegerProperty;

/// How many boards each line of the kit reaches, shortest first, and what that means for the build.
public final class KitModel extends StageModel {
  private static final int MOST_FOLDED = 9;

  private final ReadOnlyObjectWrapper<Shown> shown = new ReadOnlyObjectWrapper<>(this, "shown");
  private final IntegerProperty selected = new SimpleIntegerProperty(this, "selected", 0);
  private boolean unfolded;

  /// A line of the kit and how many boards it reaches.
  ///
  /// @param boards that its stock makes by itself, attrition counted, at most twice the build
  public record Reach(KitLine line, long boards) {}

  /// What is drawn.
  ///
  /// @param lines shortest first, as far as they are unfolded
  /// @param folded how many more reach the whole build
  /// @param verdict in words
  public record Shown(KitCheck kit, List<Reach> lines, int folded, String verdict) {}

  /// A model that shows nothing yet.
  public KitModel() {
    selected.addListener((_, _, _) -> explain());
  }

  /// What is drawn.
  public ReadOnlyObjectProperty<Shown> shownProperty() {
    return shown.getReadOnlyProperty();
  }

  /// Which of the drawn lines is selected.
  public IntegerProperty selectedProperty() {
    return selected;
  }

  @Override
  public void show(Snapshot.Work work) {
    fill(work.kit());
  }

  private void fill(KitCheck kit) {
    List<Reach> all = new ArrayList<>();
    kit.lines().forEach(l -> all.add(new Reach(l, reach(l, kit.boards() * 2L))));
    all.sort(
        Comparator.comparing((Reach r) -> r.line().shortBy() > 0 ? 0 : 1)
            .thenComparingLong(Reach::boards));
    long need = all.stream().filter(r -> r.line().shortBy() > 0).count();
    int keep = unfolded ? all.size() : (int) Math.min(all.size(), Math.max(MOST_FOLDED, need));
    shown.set(new Shown(kit, List.copyOf(all.subList(0, keep)), all.size() - keep, verdict(kit)));
    selected.set(Math.clamp(selected.get(), 0, Math.max(0, keep - 1)));
    explain();
  }

  /// The most boards for which stock and alternates of a line suffice.
  private static long reach(KitLine l, long most) {
    long have = l.onHand() + l.fromAlternates();
    long low = 0;
    long high = most;
    while (low < high) {
      long mid = (low + high + 1) / 2;
      long quantity = mid * l.perBoard();
      if (quantity + l.rule().extra(quantity) <= have) {
        low = mid;
      } else {
        high = mid - 1;
      }
    }
    return low;
  }

  private static String verdict(KitCheck k) {
    return switch (k.verdict()) {
      case START -> "Start: everything for " + k.boards() + " boards is here";
      case START_UP_TO -> "Start, up to gate " + k.gate().orElse("");
      case WAIT ->
          "Wait"
              + k.date()
                  .map(d -> " until " + d)
                  .orElse(": not everything that is short is on order");
    };
  }

  private void explain() {
    Shown s = shown.get();
    if (s == null) {
      return;
    }
    List<Margin.Note> notes = new ArrayList<>();
    notes.add(Margin.Note.plain("Why this verdict", s.kit().reasons()));
    notes.add(
        Margin.Note.plain(
            "Boards now",
            List.of(
                "the shelf makes "
                    + s.kit().boardsNow()
                    + " boards now"
                    + s.kit().limiting().map(c -> "; " + c + " limits").orElse(""))));
    if (s.kit().verdict() == KitCheck.Verdict.WAIT) {
      notes.add(
          Margin.Note.care(
              List.of(
                  "Opened paste ages: do not open it for a side that cannot be finished.",
                  "The paste's data sheet decides how long it may stand.")));
    }
    margin(
        new Margin(
            Optional.of(s.lines())
                .filter(l -> !l.isEmpty())
                .map(l -> l.get(selected.get()).line().sheet(s.kit().boards())),
            notes));
  }

  @Override
  public String primaryWords() {
    return unfolded ? "fold lines that suffice" : "show every line";
  }

  @Override
  public void primary() {
    unfolded = !unfolded;
    if (shown.get() != null) {
      fill(shown.get().kit());
    }
  }

  @Override
  public void move(int by) {
    if (shown.get() != null && !shown.get().lines().isEmpty()) {
      selected.set(Math.clamp(selected.get() + by, 0, shown.get().lines().size() - 1));
    }
  }
}
