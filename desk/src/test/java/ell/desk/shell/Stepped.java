package ell.desk.shell;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.concurrent.Executor;

/// An executor that runs what it was given when a test says so, in the order that the test says: so
/// that late answers, and answers in the wrong order, can be made to happen.
public final class Stepped implements Executor {
  private final Deque<Runnable> waiting = new ArrayDeque<>();

  @Override
  public void execute(Runnable r) {
    waiting.add(r);
  }

  /// How many wait.
  public int waiting() {
    return waiting.size();
  }

  /// Runs the one that has waited longest.
  public void one() {
    waiting.remove().run();
  }

  /// Runs the one that came last.
  public void last() {
    waiting.removeLast().run();
  }

  /// Runs everything, what is added meanwhile too.
  public void all() {
    while (!waiting.isEmpty()) {
      one();
    }
  }

  /// Everything that waits, taken out.
  public List<Runnable> take() {
    List<Runnable> all = new ArrayList<>(waiting);
    waiting.clear();
    return all;
  }
}
