package ell.desk;

import javafx.animation.AnimationTimer;
import javafx.application.Platform;

/// Waits until the board of the workspace is on the screen, and ends: for timing the start.
final class FirstLook {
  private FirstLook() {}

  static void begin(App app) {
    new AnimationTimer() {
      private int frames;

      @Override
      public void handle(long now) {
        // the frame after the one in which the board arrived has been drawn with it
        if (app.desk().work().isPresent() && ++frames > 2) {
          stop();
          System.out.println("shown");
          Platform.exit();
        }
      }
    }.start();
  }
}
