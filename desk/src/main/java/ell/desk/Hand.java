package ell.desk;

import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.file.Path;
import java.util.concurrent.Callable;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;
import javafx.application.Platform;
import javafx.event.Event;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.Button;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;



/// Works the real window as a hand at the keyboard does, from a thread of its own: keys, buttons,
/// and waiting until the window shows what was asked for.
final class Hand {
  private static final long PATIENCE = 30_000;
  private final App app;

  Hand(App app) {
    this.app = app;
  }

  /// Runs something on the interface thread and waits for it.
  <T> T on(Callable<T> work) {
    CompletableFuture<T> done = new CompletableFuture<>();
    Platform.runLater(() -> {
      try {
        done.complete(work.call());
      } catch (Exception e) {
        done.completeExceptionally(e);
      }
    });
    try {
      return done.get(PATIENCE, TimeUnit.MILLISECONDS);
    } catch (Exception e) {
      throw new IllegalStateException("the window did not answer: " + e, e);
    }
  }

  /// Waits until something is so.
  void until(String what, BooleanSupplier so) {
    long end = System.currentTimeMillis() + PATIENCE;
    while (!on(so::getAsBoolean)) {
      if (System.currentTimeMillis() > end) {
        throw new IllegalStateException(
            "waited in vain for: "
                + what
                + "; the window says: "
                + app.desk().noticeProperty().get());
      }
      pause(15);
    }
  }

  void pause(long millis) {
    try {
      Thread.sleep(millis);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IllegalStateException(e);
    }
  }

  private Scene scene() {
    return app.stage().getScene();
  }

  /// Presses and releases a key where the focus is.
  void key(KeyCode code, boolean shortcut) {
    on(() -> {
      Node at = scene().getFocusOwner() == null ? scene().getRoot() : scene().getFocusOwner();
      boolean mac = System.getProperty("os.name").startsWith("Mac");
      Event.fireEvent(
          at,
          new KeyEvent(
              KeyEvent.KEY_PRESSED, "", "", code, false, shortcut && !mac, false, shortcut && mac));
      Event.fireEvent(
          at,
          new KeyEvent(
              KeyEvent.KEY_RELEASED,
              "",
              "",
              code,
              false,
              shortcut && !mac,
              false,
              shortcut && mac));
      return null;
    });
  }

  void key(KeyCode code) {
    key(code, false);
  }

  /// Types a line on the tape and logs it.
  void tape(String line) {
    on(() -> {
      app.desk().tape().begin(line);
      return null;
    });
    until(
        "'" + line + "' can be logged: " + app.desk().tape().hintProperty().get(),
        () -> app.desk().tape().readyProperty().get());
    long before = on(() -> app.desk().work().map(w -> (long) w.log().size()).orElse(0L));
    key(KeyCode.ENTER);
    until(
        "'" + line + "' is in the book",
        () -> app.desk().work().map(w -> w.log().size()).orElse(0) > before);
  }

  /// Presses a button.
  void press(String id) {
    on(() -> {
      ((Button) scene().lookup("#" + id)).fire();
      return null;
    });
  }

  /// Fills a field.
  void fill(String id, String text) {
    on(() -> {
      ((TextInputControl) scene().lookup("#" + id)).setText(text);
      return null;
    });
  }

  /// Takes a board in hand.
  void board(String serial) {
    on(() -> {
      app.desk().select(serial);
      return null;
    });
    until("board " + serial + " is in hand", () -> app.desk().boardProperty().get().equals(serial));
  }

  /// Takes a picture of the window.
  void picture(Path file) throws IOException {
    on(() -> {
      scene().getRoot().applyCss();
      scene().getRoot().layout();
      return null;
    });
    pause(60);
    BufferedImage image = on(() -> Pictures.take(scene()));
    Pictures.write(image, file);
  }
}
