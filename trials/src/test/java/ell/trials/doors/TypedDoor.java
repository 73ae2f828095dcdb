package ell.trials.doors;

import ell.work.Workshop;
import ell.work.space.ActException;
import java.nio.file.Path;
import java.time.Clock;

/// The tape without a window: lines typed into the workshop.
final class TypedDoor implements Door {
  private final Workshop w;

  TypedDoor(Path file, Clock clock) throws Exception {
    this.w = Workshop.open(file, clock);
  }

  @Override
  public void play(String board, Move.Kind kind, String line) throws Exception {
    try {
      w.type(board, line);
    } catch (ActException e) {
      // what cannot be right is said, and changes nothing
    }
  }

  @Override
  public void close() throws Exception {
    w.close();
  }
}
