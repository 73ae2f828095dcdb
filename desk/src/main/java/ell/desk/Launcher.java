package ell.desk;

import java.util.List;

/// Starts the application; not itself an application, so that the toolkit need not be on a module
/// path.
public final class Launcher {
  private Launcher() {}

  /// Starts it.
  public static void main(String[] args) {
    // the one line that the toolkit says about not being a module is no news to a maker
    java.util.logging.Logger.getLogger("javafx").setLevel(java.util.logging.Level.SEVERE);
    App.launch(Startup.begin(List.of(args)));
    System.exit(Play.exitCode());
  }
}
