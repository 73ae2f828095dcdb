package ell.desk.shell;

import ell.work.space.ActException;
import java.io.IOException;
import java.util.concurrent.Executor;
import java.util.concurrent.RejectedExecutionException;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;

/// The one way to compute aside: a question is asked with a key, its answer is shown on the
/// interface thread, and an answer that comes late never overwrites a newer one. Everything but the
/// work itself happens on the interface thread.
public final class Loader<T> {
  private final Executor where;
  private final Executor ui;
  private final String what;
  private final Consumer<T> shows;
  private final ReadOnlyObjectWrapper<State> state =
      new ReadOnlyObjectWrapper<>(this, "state", new State.Idle());
  private Object key;
  private Work<T> work;
  private Turn turn = new Turn();

  /// Where a loader is.
  public sealed interface State {
    /// Nothing was asked.
    record Idle() implements State {}

    /// It is being worked out.
    record Busy() implements State {}

    /// It was worked out and is shown.
    record Done() implements State {}

    /// It could not be worked out.
    ///
    /// @param why a sentence
    record Failed(String why) implements State {}
  }

  /// What is worked out aside.
  public interface Work<T> {
    /// Works it out.
    ///
    /// @param cancelled becomes true once nobody wants the answer any more
    T get(BooleanSupplier cancelled) throws IOException, ActException;
  }

  /// One asking; a new one makes the ones before it old.
  private static final class Turn {
    volatile boolean old;
  }

  /// A loader.
  ///
  /// @param where the work runs
  /// @param ui the interface thread
  /// @param what is worked out, in words, for the sentence that says that it could not be
  /// @param shows takes the answer, on the interface thread
  public Loader(Executor where, Executor ui, String what, Consumer<T> shows) {
    this.where = where;
    this.ui = ui;
    this.what = what;
    this.shows = shows;
  }

  /// Where it is.
  public ReadOnlyObjectProperty<State> stateProperty() {
    return state.getReadOnlyProperty();
  }

  /// Whether it is being worked out.
  public boolean busy() {
    return state.get() instanceof State.Busy;
  }

  /// Asks, unless the same was asked last and did not fail.
  ///
  /// @param about what makes two questions the same: equal keys, equal answers
  /// @return whether it was asked
  public boolean load(Object about, Work<T> how) {
    if (about.equals(key) && !(state.get() instanceof State.Failed)) {
      return false;
    }
    key = about;
    work = how;
    begin();
    return true;
  }

  /// Asks once more what was asked last; nothing when nothing was.
  public void again() {
    if (work != null) {
      begin();
    }
  }

  /// Nobody wants the answer any more; what is shown stays.
  public void cancel() {
    if (busy()) {
      turn.old = true;
      key = null;
      state.set(new State.Idle());
    }
  }

  /// Forgets what was asked, so that the same question is asked anew.
  public void forget() {
    turn.old = true;
    key = null;
    work = null;
    state.set(new State.Idle());
  }

  private void begin() {
    turn.old = true;
    Turn mine = new Turn();
    turn = mine;
    Work<T> how = work;
    state.set(new State.Busy());
    try {
      where.execute(() -> work(mine, how));
    } catch (RejectedExecutionException e) {
      // the window is closing and its worker is gone: there is nobody left to answer, or to ask
      forget();
    }
  }

  private void work(Turn mine, Work<T> how) {
    T value = null;
    Throwable problem = null;
    try {
      value = how.get(() -> mine.old);
    } catch (IOException | ActException | RuntimeException | Error e) {
      problem = e;
    }
    T found = value;
    Throwable wrong = problem;
    ui.execute(() -> ended(mine, found, wrong));
    if (wrong instanceof Error e) {
      throw e;
    }
  }

  private void ended(Turn mine, T found, Throwable wrong) {
    if (mine.old) {
      return;
    }
    if (wrong != null) {
      state.set(new State.Failed(what + " could not be worked out: " + words(wrong)));
      return;
    }
    state.set(new State.Done());
    shows.accept(found);
  }

  /// A problem as a sentence; one without words says what kind it is.
  public static String words(Throwable e) {
    boolean told = e instanceof IOException || e instanceof ActException;
    String message = e.getMessage();
    if (message == null) {
      return e.toString();
    }
    return told ? message : e.getClass().getSimpleName() + ": " + message;
  }
}
