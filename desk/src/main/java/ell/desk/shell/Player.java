package ell.desk.shell;

import ell.core.rack.Stage;
import java.io.IOException;
import java.util.concurrent.Callable;
import java.util.function.BooleanSupplier;
import javafx.scene.input.KeyCode;

/// Somebody who works the window as a person does, for pictures and for the offscreen demo: keys,
/// buttons, and waiting until the window shows what was asked for.
public interface Player {
  /// The desk of the window.
  DeskModel desk();

  /// Runs something on the interface thread and waits for it.
  <T> T on(Callable<T> work);

  /// Waits until something is so.
  ///
  /// @throws IllegalStateException when it takes too long, with what the window says
  void until(String what, BooleanSupplier so);

  /// Presses and releases a key where the focus is.
  void key(KeyCode code, boolean shortcut);

  /// Types a line on the tape and logs it.
  void tape(String line);

  /// Takes a picture of the window.
  ///
  /// @param name of the file, without its ending
  void picture(String name) throws IOException;

  /// The next question for files about the shelf is answered with the demo's offers.
  void offers();

  /// Tells whoever watches what came of it.
  void tell(String what, String words);

  /// Presses and releases a key without others.
  default void key(KeyCode code) {
    key(code, false);
  }

  /// The board in hand.
  default Snapshot.Work work() {
    return on(() -> desk().work().orElseThrow());
  }

  /// Goes to a stage.
  default void stage(Stage s) {
    on(() -> {
      desk().navigation().stageProperty().set(s);
      return null;
    });
    until("stage " + s.title(), () -> desk().navigation().at(s));
  }

  /// Takes a board in hand.
  default void board(String serial) {
    on(() -> {
      desk().select(serial);
      return null;
    });
    until(
        "board " + serial + " is in hand",
        () -> desk().navigation().boardProperty().get().equals(serial));
  }

  /// Presses a key and waits until the book is longer.
  default void logs(String what, KeyCode code) {
    int before = work().log().size();
    key(code);
    until(what, () -> desk().work().orElseThrow().log().size() > before);
  }
}
