package ell.desk;

import ell.desk.scripted.OffscreenDemo;
import ell.desk.window.Style;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;

/// Starts the application; not itself an application, so that the toolkit need not be on a module
/// path.
public final class Launcher {
  private Launcher() {}

  /// Starts it; `--style FILE` only parses the style sheet into a file.
  public static void main(String[] args) throws IOException {
    // the one line that the toolkit says about not being a module is no news to a maker
    java.util.logging.Logger.getLogger("javafx").setLevel(java.util.logging.Level.SEVERE);
    if (args.length == 2 && args[0].equals("--style")) {
      Style.parse(Path.of(args[1]));
      return;
    }
    App.launch(Startup.begin(List.of(args)));
    System.exit(OffscreenDemo.exitCode());
  }
}
