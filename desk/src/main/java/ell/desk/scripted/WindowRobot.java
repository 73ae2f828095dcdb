package ell.desk.scripted;

import ell.desk.shell.DeskModel;
import ell.desk.shell.Player;
import ell.work.demo.DemoWorkspace;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
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
final class WindowRobot implements Player {
  private static final long PATIENCE = 30_000;
  private final Stagehand app;
  private final ScriptedAsker files;
  private final Path folder;

  /// @param folder where pictures go
  WindowRobot(Stagehand app, ScriptedAsker files, Path folder) {
    this.app = app;
    this.files = files;
    this.folder = folder;
  }

  @Override
  public DeskModel desk() {
    return app.desk();
  }

  @Override
  public void offers() {
    files.shelf = List.of(DemoWorkspace.folder().resolve("offers.csv"));
  }

  @Override
  public void tell(String what, String words) {
    System.out.println(String.format("%-9s %s", what, words));
  }

  @Override
  public <T> T on(Callable<T> work) {
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

  @Override
  public void until(String what, BooleanSupplier so) {
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
    return app.scene();
  }

  @Override
  public void key(KeyCode code, boolean shortcut) {
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

  @Override
  public void tape(String line) {
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

  @Override
  public void picture(String name) throws IOException {
    Path file = folder.resolve(name + ".png");
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
