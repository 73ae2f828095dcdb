package ell.desk.scripted;

import ell.core.rack.Stage;
import ell.desk.shell.Station;
import ell.desk.shell.Station.Shot;
import ell.desk.window.MainWindow;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import javafx.application.Platform;

/// Takes the pictures of the documentation from the demo: the empty desk, each stage's own. Also
/// what the start-up cache is trained on.
public final class Screenshots {
  private Screenshots() {}

  /// Names of all pictures, as the files in the documentation are called, without their ending.
  public static List<String> names(MainWindow window) {
    List<String> all = new ArrayList<>(List.of("start"));
    for (Station s : window.stations()) {
      s.shots().forEach(shot -> all.add(shot.name()));
    }
    return all;
  }

  /// Takes every picture into a folder.
  public static void run(Stagehand app, ScriptedAsker files, Path folder) {
    try {
      take(app, new WindowRobot(app, files, folder));
      System.out.println("pictures are in " + folder);
      OffscreenDemo.finish(0);
    } catch (IOException | RuntimeException e) {
      e.printStackTrace();
      OffscreenDemo.finish(1);
    }
  }

  private static void take(Stagehand app, WindowRobot robot) throws IOException {
    robot.until("the window shows", app::showing);
    robot.picture("start");
    robot.on(() -> {
      app.desk().openDemo(app.demoFile());
      return null;
    });
    robot.until("the demo is open", () -> app.desk().work().isPresent());
    for (Station s : app.window().stations()) {
      for (Shot shot : s.shots()) {
        shot.prepare().play(robot);
        robot.pause(150);
        robot.picture(shot.name());
        shot.after().play(robot);
      }
    }
  }

  /// Goes through what a start with a workspace goes through, so that the cache holds it.
  public static void train(Stagehand app, ScriptedAsker files) {
    try {
      WindowRobot robot = new WindowRobot(app, files, Path.of("."));
      robot.until("the workspace is open", () -> app.desk().work().isPresent());
      for (Station s : app.window().stations()) {
        Stage stage = s.stage();
        robot.stage(stage);
        robot.pause(150);
      }
    } catch (RuntimeException e) {
      e.printStackTrace();
    }
    Platform.exit();
  }
}
