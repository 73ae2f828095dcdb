package ell.trials;

import javafx.animation.AnimationTimer;
import javafx.application.Application;
import javafx.application.Platform;
import javafx.scene.Scene;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.VBox;
import javafx.stage.Stage;

/// The reference for the start: the least window that has a text, a field and a button.
public final class BareWindow extends Application {
  /// Starts it; kept apart from the application class, which the toolkit would want on a module
  /// path.
  public static final class Start {
    private Start() {}

    public static void main(String[] args) {
      Application.launch(BareWindow.class, args);
    }
  }

  @Override
  public void start(Stage stage) {
    stage.setScene(
        new Scene(
            new VBox(new Label("ready"), new TextField("3V3 3.287"), new Button("go")), 1280, 800));
    stage.show();
    new AnimationTimer() {
      private int frames;

      @Override
      public void handle(long now) {
        if (++frames > 1) {
          stop();
          System.out.println("shown");
          Platform.exit();
        }
      }
    }.start();
  }
}
