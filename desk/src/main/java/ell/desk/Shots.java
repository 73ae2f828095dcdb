package ell.desk;

import ell.core.rack.Stage;
import java.io.IOException;
import java.nio.file.Path;
import javafx.application.Platform;
import javafx.scene.input.KeyCode;



/// Takes the pictures of the documentation from the demo, and is what the start-up cache is trained
/// on.
final class Shots {
  private Shots() {}

  /// Takes every picture into a folder.
  static void run(App app, Scripted files, Path folder) {
    try {
      take(app, files, folder);
      System.out.println("pictures are in " + folder);
      Play.finish(0);
    } catch (IOException | RuntimeException e) {
      e.printStackTrace();
      Play.finish(1);
    }
  }

  private static void take(App app, Scripted files, Path folder) throws IOException {
    Hand hand = new Hand(app);
    hand.until("the window shows", () -> app.stage().isShowing());
    hand.picture(folder.resolve("start.png"));
    Path empty = App.demoFile();
    hand.on(() -> {
      app.desk().create(empty);
      return null;
    });
    hand.until("an empty workspace is open", () -> app.desk().snapshotProperty().get().open());
    hand.picture(folder.resolve("setup.png"));
    demo(app, hand);
    hand.on(() -> {
      app.desk().stageProperty().set(Stage.KIT);
      return null;
    });
    hand.until(
        "costs are worked out", () -> !app.window().kit().shownProperty().get().costs().isEmpty());
    shot(app, hand, folder, Stage.KIT, "kit");
    hand.board("08");
    shot(app, hand, folder, Stage.ORDER, "order");
    hand.key(KeyCode.B);
    hand.picture(folder.resolve("step-card.png"));
    hand.key(KeyCode.B);
    hand.board("07");
    stage(app, hand, Stage.PRINT);
    hand.until(
        "the paste layer is read",
        () -> app.window().print().shownProperty().get().check().isPresent());
    shot(app, hand, folder, Stage.PRINT, "print");
    hand.board("02");
    stage(app, hand, Stage.HEAT);
    hand.until(
        "the plate is worked out",
        () -> app.window().heat().shownProperty().get().schedule().isPresent());
    shot(app, hand, folder, Stage.HEAT, "heat");
    hand.key(KeyCode.I);
    hand.key(KeyCode.DOWN);
    hand.picture(folder.resolve("iron.png"));
    hand.key(KeyCode.I);
    hand.board("05");
    stage(app, hand, Stage.LOOK);
    hand.until("the walk is planned", () -> app.window().look().hasStop());
    hand.key(KeyCode.DOWN);
    hand.key(KeyCode.RIGHT);
    hand.key(KeyCode.J);
    hand.until(
        "a bridge is logged",
        () ->
            app.desk().work().orElseThrow().state().findings().stream()
                .anyMatch(f -> f.what().equals("bridge")));
    hand.key(KeyCode.LEFT);
    hand.key(KeyCode.RIGHT);
    shot(app, hand, folder, Stage.LOOK, "look");
    hand.board("03");
    shot(app, hand, folder, Stage.BEEP, "beep");
    hand.board("02");
    shot(app, hand, folder, Stage.POWER, "rails");
    hand.board("07");
    powered(app, hand);
    shot(app, hand, folder, Stage.POWER, "power");
    hand.key(KeyCode.O);
    hand.until("the output is off", () -> off(app));
    hand.on(() -> {
      app.desk().nightProperty().set(true);
      return null;
    });
    shot(app, hand, folder, Stage.POWER, "power-night");
    hand.on(() -> {
      app.desk().nightProperty().set(false);
      return null;
    });
    hand.key(KeyCode.F12);
    hand.picture(folder.resolve("keys.png"));
    hand.key(KeyCode.ESCAPE);
  }

  private static void demo(App app, Hand hand) {
    hand.on(() -> {
      app.desk().openDemo(App.demoFile());
      return null;
    });
    hand.until("the demo is open", () -> app.desk().work().isPresent());
  }

  private static void stage(App app, Hand hand, Stage stage) {
    hand.on(() -> {
      app.desk().stageProperty().set(stage);
      return null;
    });
  }

  private static void shot(App app, Hand hand, Path folder, Stage stage, String name)
      throws IOException {
    hand.on(() -> {
      app.desk().stageProperty().set(stage);
      return null;
    });
    hand.pause(120);
    hand.picture(folder.resolve(name + ".png"));
  }

  /// First power of the board in hand, with some rails read.
  private static void powered(App app, Hand hand) {
    hand.on(() -> {
      app.desk().stageProperty().set(Stage.POWER);
      return null;
    });
    hand.until(
        "first power is worked out",
        () -> app.desk().current().filter(m -> !m.primaryWords().isEmpty()).isPresent());
    hand.key(KeyCode.SPACE);
    hand.until(
        "the board is on",
        () ->
            app.window().power().shownProperty().get().phase()
                == ell.desk.power.PowerModel.Phase.ON);
    for (int i = 0; i < 5; i++) {
      int before = hand.on(() -> app.desk().work().orElseThrow().log().size());
      hand.key(KeyCode.SPACE);
      hand.until("a rail is read", () -> app.desk().work().orElseThrow().log().size() > before);
    }
  }

  private static boolean off(App app) {
    return app.window().power().shownProperty().get().phase()
        == ell.desk.power.PowerModel.Phase.OFF;
  }

  /// Goes through what a start with a workspace goes through, so that the cache holds it.
  static void train(App app) {
    try {
      Hand hand = new Hand(app);
      hand.until("the workspace is open", () -> app.desk().work().isPresent());
      for (Stage s : Stage.values()) {
        if (s.built()) {
          hand.on(() -> {
            app.desk().stageProperty().set(s);
            return null;
          });
          hand.pause(150);
        }
      }
    } catch (RuntimeException e) {
      e.printStackTrace();
    }
    Platform.exit();
  }
}
