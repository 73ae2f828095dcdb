package ell.desk.shell;

import ell.core.rack.Stage;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;



/// What every stage can be asked to do from the keys; a stage does what makes sense in it.
public abstract class StageModel {
  private final ReadOnlyObjectWrapper<Margin> margin =
      new ReadOnlyObjectWrapper<>(this, "margin", Margin.EMPTY);

  /// What the margin says about what is selected here.
  public final ReadOnlyObjectProperty<Margin> marginProperty() {
    return margin.getReadOnlyProperty();
  }

  /// Puts something else into the margin.
  protected final void margin(Margin m) {
    margin.set(m);
  }

  /// Does something whenever this stage comes to the front.
  protected static void whenShown(DeskModel desk, Stage stage, Runnable what) {
    desk.stageProperty()
        .addListener((_, _, now) -> {
          if (now == stage) {
            what.run();
          }
        });
  }

  /// Shows what the desk holds now.
  public abstract void show(Snapshot.Work work);

  /// What Space does here, in words; empty when nothing.
  public abstract String primaryWords();

  /// Space.
  public abstract void primary();

  /// The beginning of a tape line for a fault at what is selected.
  public String faultLine() {
    return "";
  }

  /// The beginning of a tape line for a reading at what is selected.
  public String readingLine() {
    return "";
  }

  /// One further, or one back.
  public void move(int by) {}

  /// One to the right, or one to the left; the same as further and back where there is one line
  /// only.
  public void across(int by) {
    move(by);
  }

  /// Whether the step in hand can fill the window.
  public boolean canBeBig() {
    return false;
  }
}
