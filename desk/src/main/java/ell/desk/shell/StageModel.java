package ell.desk.shell;

import ell.core.rack.Stage;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Executor;
import java.util.function.Consumer;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;

/// What every stage can be asked to do from the keys; a stage does what makes sense in it.
public abstract class StageModel {
  private final ReadOnlyObjectWrapper<Margin> margin =
      new ReadOnlyObjectWrapper<>(this, "margin", Margin.EMPTY);
  private final ReadOnlyStringWrapper trouble = new ReadOnlyStringWrapper(this, "trouble", "");
  private final ReadOnlyStringWrapper alarm = new ReadOnlyStringWrapper(this, "alarm", "");
  private final List<Loader<?>> loaders = new ArrayList<>();

  /// What the margin says about what is selected here.
  public final ReadOnlyObjectProperty<Margin> marginProperty() {
    return margin.getReadOnlyProperty();
  }

  /// Puts something else into the margin.
  protected final void margin(Margin m) {
    margin.set(m);
  }

  /// What could not be worked out and why; empty when nothing failed.
  public final ReadOnlyStringProperty troubleProperty() {
    return trouble.getReadOnlyProperty();
  }

  /// What must be said at every stage until it is over, its first line in the largest letters;
  /// empty when nothing must.
  public final ReadOnlyStringProperty alarmProperty() {
    return alarm.getReadOnlyProperty();
  }

  /// Raises an alarm, or ends it with an empty one.
  protected final void alarm(String words) {
    alarm.set(words);
  }

  /// What the alarm's button does.
  public void answerAlarm() {}

  /// Tries again what could not be worked out.
  public final void tryAgain() {
    loaders.stream()
        .filter(l -> l.stateProperty().get() instanceof Loader.State.Failed)
        .toList()
        .forEach(Loader::again);
  }

  /// A loader of this stage; when it fails the window says so.
  ///
  /// @param where its work runs
  /// @param what is worked out, in words
  /// @param shows takes the answer
  protected final <T> Loader<T> loader(
      DeskModel desk, Executor where, String what, Consumer<T> shows) {
    Loader<T> l = new Loader<>(where, desk.runner().ui(), what, shows);
    loaders.add(l);
    l.stateProperty()
        .addListener((_, _, _) ->
            trouble.set(
                loaders.stream()
                    .map(x -> x.stateProperty().get())
                    .filter(Loader.State.Failed.class::isInstance)
                    .map(x -> ((Loader.State.Failed) x).why())
                    .findFirst()
                    .orElse("")));
    return l;
  }

  /// Does something whenever this stage comes to the front.
  protected static void whenShown(DeskModel desk, Stage stage, Runnable what) {
    desk.navigation()
        .stageProperty()
        .addListener((_, _, now) -> {
          if (now.equals(stage)) {
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

  /// What is selected here, in the words that the window uses for it: what Space would do, where a
  /// fault or a reading would be logged, and what the margin has to say.
  public final String selectedWords() {
    List<String> words = new ArrayList<>();
    for (String s : List.of(primaryWords(), faultLine(), readingLine())) {
      words.add(s.strip());
    }
    Margin m = margin.get();
    m.sheet().ifPresent(s -> words.add(s.title()));
    // cautions, where to look if it goes wrong, and what stands last are much the same for
    // everything
    // at a stage
    m.notes().stream()
        .filter(n -> n.kind() == Margin.Kind.PLAIN)
        .limit(2)
        .forEach(n -> words.add(n.title() + ": " + String.join("; ", n.lines())));
    return String.join(" · ", words.stream().filter(w -> !w.isEmpty()).distinct().toList());
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
