package ell.desk.scripted;

import ell.desk.shell.Snapshot;
import ell.desk.shell.Station;
import ell.work.demo.DemoWorkspace;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import javafx.application.Platform;
import javafx.scene.input.KeyCode;

/// Plays the main job through the real window without a monitor: the files of a revision are taken
/// in, then every station plays its part, then the record is printed. Says in the terminal what was
/// found at each stage.
public final class OffscreenDemo {
  private static volatile int exit;

  private OffscreenDemo() {}

  /// The exit code of what was played.
  public static int exitCode() {
    return exit;
  }

  static void finish(int code) {
    exit = code;
    Platform.exit();
  }

  /// Plays.
  ///
  /// @param args the folder for pictures, workspace and record; a temporary one when empty
  public static void run(Stagehand app, ScriptedAsker files, List<String> args) {
    try {
      Path folder =
          args.isEmpty() ? Files.createTempDirectory("ell-play") : Path.of(args.getFirst());
      Files.createDirectories(folder);
      play(app, files, folder);
      System.out.println("pictures, workspace and record are in " + folder);
      finish(0);
    } catch (IOException | RuntimeException e) {
      System.err.println("ell: the demo stopped: " + e.getMessage());
      e.printStackTrace();
      finish(1);
    }
  }

  private static void play(Stagehand app, ScriptedAsker files, Path folder) throws IOException {
    WindowRobot robot = new WindowRobot(app, files, folder);
    takeIn(app, robot, files, folder);
    for (Station s : app.window().stations()) {
      s.perform(robot);
    }
    Path record = folder.resolve("board-01.pdf");
    files.record = Optional.of(record);
    robot.board("01");
    robot.key(KeyCode.P, true);
    robot.until("the record is written", () -> Files.isRegularFile(record));
    robot.tell(
        "Record",
        record.getFileName() + ", " + Files.size(record) / 1000 + " kB, sealed by the book");
    robot.key(KeyCode.F12, true);
    robot.picture("keys");
    robot.key(KeyCode.ESCAPE);
  }

  private static void takeIn(Stagehand app, WindowRobot robot, ScriptedAsker files, Path folder)
      throws IOException {
    Path demo = DemoWorkspace.folder();
    Path b = demo.resolve("mg-1-b");
    Path at = folder.resolve("marram.ell");
    Files.deleteIfExists(at);
    files.workspace = Optional.of(at);
    robot.until("the window shows", app::showing);
    robot.press("new-workspace");
    robot.until("the workspace is open", () -> app.desk().snapshotProperty().get().open());
    robot.picture("empty");
    files.files =
        List.of(
            b.resolve("bom.csv"),
            b.resolve("placement.csv"),
            b.resolve("netlist.ipc"),
            b.resolve("outline.csv"),
            b.resolve("ladder.json"),
            demo.resolve("shelf.csv"),
            b.resolve("paste-first.gbr"),
            b.resolve("paste-second.gbr"),
            b.resolve("legend.gbr"),
            b.resolve("drill.xnc"));
    robot.press("choose-files");
    robot.until("the files are told apart", () -> app.scene().lookup("#setup .drop-file") != null);
    robot.fill("design", "MG-1");
    robot.fill("revision", "B");
    robot.fill("boards", "12");
    robot.picture("files");
    robot.press("import");
    robot.until("the revision is in", () -> app.desk().work().isPresent());
    robot.until("what the files said is shown", () -> app.scene().lookup("#account-sheet") != null);
    robot.picture("files-said");
    robot.key(KeyCode.ESCAPE);
    Snapshot.Work w = robot.work();
    robot.tell(
        "Import",
        w.plan().revision().title()
            + ": "
            + w.plan().revision().parts().size()
            + " parts, "
            + w.plan().revision().nets().size()
            + " nets, "
            + w.plan().revision().joints().size()
            + " joints; 12 boards by "
            + w.build().method());
    String faults = Files.readString(b.resolve("faults.json"));
    robot.on(() -> {
      app.desk()
          .act(x -> {
            x.ladders().keepFaults("MG-1", "B", faults);
            x.talks().say("MG-1", "B", Files.readAllLines(b.resolve("talk.txt")));
            x.scripts().keep("MG-1", "B", b.resolve("first-load.json"));
          });
      return null;
    });
  }
}
