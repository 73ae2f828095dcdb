package ell.desk.shell;

import ell.core.rack.Stage;
import ell.core.rack.Standing;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Consumer;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleObjectProperty;

/// Where one is in the window: the stage that is shown, the board in hand, the big card.
public final class Navigation {
  private final List<Stage> stages;
  private final Set<Stage> built = new HashSet<>();
  private final ObjectProperty<Stage> stage = new SimpleObjectProperty<>(this, "stage", Stage.KIT);
  private final ReadOnlyStringWrapper board = new ReadOnlyStringWrapper(this, "board", "");
  private final BooleanProperty big = new SimpleBooleanProperty(this, "big");
  private final Consumer<String> says;

  /// @param stages in the order of the work
  /// @param says is told what cannot be done
  Navigation(List<Stage> stages, Consumer<String> says) {
    this.stages = List.copyOf(stages);
    this.says = says;
  }

  /// Every stage in the order of the work, those that have no station too.
  public List<Stage> stages() {
    return stages;
  }

  /// The position of a stage in the order of the work, 0-based.
  public int position(Stage s) {
    return stages.indexOf(s);
  }

  void built(Stage s) {
    built.add(s);
  }

  /// Whether a stage has a station.
  public boolean isBuilt(Stage s) {
    return built.contains(s);
  }

  /// The stage that is shown.
  public ObjectProperty<Stage> stageProperty() {
    return stage;
  }

  /// Whether a stage is shown.
  public boolean at(Stage s) {
    return stage.get().equals(s);
  }

  /// Serial of the board in hand, empty when there is none.
  public ReadOnlyStringProperty boardProperty() {
    return board.getReadOnlyProperty();
  }

  void inHand(String serial) {
    board.set(serial);
  }

  /// Whether the step in hand fills the window.
  public BooleanProperty bigProperty() {
    return big;
  }

  /// Goes to the next stage that has a station, or back.
  public void walk(int by) {
    for (int i = position(stage.get()) + by; i >= 0 && i < stages.size(); i += by) {
      if (isBuilt(stages.get(i))) {
        stage.set(stages.get(i));
        return;
      }
    }
  }

  /// Goes to a stage, or says that it is not built yet.
  public void goTo(Stage s) {
    if (isBuilt(s)) {
      stage.set(s);
    } else {
      says.accept(s.title() + " is not built yet");
    }
  }

  /// The board to begin with: one that is ready for first power, else the one that is furthest and
  /// not held.
  static String first(Map<String, Standing> standings) {
    return standings.entrySet().stream()
        .filter(e -> e.getValue().mark() != Standing.Mark.OUT)
        .max((a, b) -> Double.compare(waitsForPower(a.getValue()), waitsForPower(b.getValue())))
        .map(Map.Entry::getKey)
        .orElse(standings.keySet().iterator().next());
  }

  private static double waitsForPower(Standing s) {
    return (s.stage().equals(Stage.POWER) && s.stageProgress() == 0 ? 10 : 0) + s.progress();
  }
}
