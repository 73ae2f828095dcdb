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
        // the frame before this one was drawn with the board
        if (app.desk().work().isPresent() && ++frames > 1) {
          stop();
          System.out.println("shown");
          Platform.exit();
        }
      }
    }.start();
  }
}
