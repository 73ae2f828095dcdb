package ell.desk.scripted;

import ell.desk.shell.DeskModel;
import ell.desk.window.MainWindow;
import java.nio.file.Path;
import javafx.scene.Scene;

/// What a player needs of the application around the window.
public interface Stagehand {
  /// The desk.
  DeskModel desk();

  /// The window.
  MainWindow window();

  /// The scene that the window is in.
  Scene scene();

  /// Whether it is on the screen.
  boolean showing();

  /// A fresh place for the demo.
  Path demoFile();
}
