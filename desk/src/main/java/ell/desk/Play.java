package ell.desk;

import ell.core.entry.EntryWords;
import ell.core.heat.HeatFacts;
import ell.core.kit.KitCheck;
import ell.core.look.LookFacts;
import ell.core.power.Ladder.RailSpec;
import ell.core.power.PowerFacts;
import ell.core.print.PrintFacts;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Verdict;
import ell.core.rack.Stage;
import ell.core.rack.Standing;
import ell.desk.power.PowerModel.Phase;
import ell.desk.shell.Snapshot;
import ell.work.demo.DemoWorkspace;
import ell.work.kit.Buying;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import javafx.application.Platform;
import javafx.scene.input.KeyCode;







/// Plays the main job through the real window without a monitor: import, kit, order, beep, first
/// power of a good and a faulty board, record. Says in the terminal what it found at each stage.
final class Play {
  private static volatile int exit;

  private Play() {}

  static int exitCode() {
    return exit;
  }

  static void finish(int code) {
    exit = code;
    Platform.exit();
  }

  static void run(App app, Scripted files, List<String> args) {
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

  private static void play(App app, Scripted files, Path folder) throws IOException {
    Hand hand = new Hand(app);
    Path demo = DemoWorkspace.folder();
    Path at = folder.resolve("marram.ell");
    Files.deleteIfExists(at);
    files.workspace = Optional.of(at);
    hand.until("the window shows", () -> app.stage().isShowing());
    hand.press("new-workspace");
    hand.until("the workspace is open", () -> app.desk().snapshotProperty().get().open());
    hand.picture(folder.resolve("1-empty.png"));

    Path b = demo.resolve("mg-1-b");
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
    hand.press("choose-files");
    hand.until(
        "the files are told apart",
        () -> app.stage().getScene().lookup("#setup .drop-file") != null);
    hand.fill("design", "MG-1");
    hand.fill("revision", "B");
    hand.fill("boards", "12");
    hand.picture(folder.resolve("2-files.png"));
    hand.press("import");
    hand.until("the revision is in", () -> app.desk().work().isPresent());
    Snapshot.Work w = work(app, hand);
    say(
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
    faults(app, hand, b);

    stage(app, hand, Stage.KIT);
    files.shelf = List.of(demo.resolve("offers.csv"));
    hand.key(KeyCode.E, true);
    hand.until("the offers are in", () -> app.desk().work().orElseThrow().offers().isPresent());
    hand.until("costs are worked out", () -> !app.window().kit().pricing());
    hand.picture(folder.resolve("3-kit.png"));
    KitCheck k = w.kit();
    say(
        "Kit",
        k.verdict().key()
            + k.date().map(d -> " until " + d).orElse("")
            + "; "
            + k.reasons().getFirst()
            + "; the shelf makes "
            + k.boardsNow()
            + " boards now"
            + hand.on(() ->
                app.window().kit().shownProperty().get().costs().stream()
                    .filter(c -> c.unmet().isEmpty())
                    .findFirst()
                    .map(c -> "; everything by " + c.by() + " costs " + Buying.money(c.total()))
                    .orElse("")));
    hand.board("01");
    if (k.pasteStaysClosed()) {
      hand.tape("override paste the first five boards are built with what is there");
    }

    printed(app, hand, folder);

    stage(app, hand, Stage.ORDER);
    int steps = 1;
    while (steps < 3) {
      int before = hand.on(() -> app.desk().work().orElseThrow().log().size());
      hand.key(KeyCode.SPACE);
      hand.until("the step is logged", () -> app.desk().work().orElseThrow().log().size() > before);
      steps++;
    }
    hand.picture(folder.resolve("4-order.png"));
    int last =
        w.plan().order().steps().stream()
                .filter(s -> s.gate().isPresent())
                .findFirst()
                .orElseThrow()
                .number()
            - 1;
    hand.tape("steps 4-" + last);
    say(
        "Order",
        w.plan().order().steps().size()
            + " steps, "
            + Math.round(w.plan().order().minutes())
            + " min a board; board 01 is built up to gate "
            + w.plan().blocks().getFirst().gate());

    heated(app, hand, folder);
    looked(app, hand, folder);

    power(app, hand, folder, "01", "5");
    hand.board("06");
    hand.tape("steps 1-" + last);
    power(app, hand, folder, "06", "6");
    hand.board("04");
    hand.tape("steps 1-" + last);
    refused(app, hand);

    Path record = folder.resolve("board-01.pdf");
    files.record = Optional.of(record);
    hand.board("01");
    hand.key(KeyCode.P, true);
    hand.until("the record is written", () -> Files.isRegularFile(record));
    say(
        "Record",
        record.getFileName() + ", " + Files.size(record) / 1000 + " kB, sealed by the book");
    hand.key(KeyCode.F12);
    hand.picture(folder.resolve("7-keys.png"));
    hand.key(KeyCode.ESCAPE);
  }

  private static void faults(App app, Hand hand, Path folder) throws IOException {
    String json = Files.readString(folder.resolve("faults.json"));
    hand.on(() -> {
      app.desk().act(w -> w.setFaults("MG-1", "B", json));
      return null;
    });
  }

  private static void power(App app, Hand hand, Path folder, String board, String picture)
      throws IOException {
    stage(app, hand, Stage.BEEP);
    hand.key(KeyCode.G);
    hand.until("the guards are beeped", () -> app.desk().work().orElseThrow().refusal().isEmpty());
    hand.picture(folder.resolve(picture + "-beep-" + board + ".png"));
    Snapshot.Work w = work(app, hand);
    say(
        "Beep " + board,
        w.plan().beep().guarding().size()
            + " checks of rails to ground are within; of "
            + w.plan().beep().checks().size()
            + " checks the list catches "
            + w.plan().beep().coverage().opens()
            + " of "
            + w.plan().beep().coverage().opensTotal()
            + " opens");
    stage(app, hand, Stage.POWER);
    hand.until(
        "first power of " + board + " is worked out",
        () -> app.desk().current().filter(m -> !m.primaryWords().isEmpty()).isPresent());
    hand.key(KeyCode.SPACE);
    hand.until("board " + board + " is on", () -> phase(app) == Phase.ON);
    int rails = w.plan().ladder().fromBench().size();
    for (int i = 0; i < rails; i++) {
      int before = hand.on(() -> app.desk().work().orElseThrow().log().size());
      hand.key(KeyCode.SPACE);
      hand.until("a rail is read", () -> app.desk().work().orElseThrow().log().size() > before);
    }
    hand.picture(folder.resolve(picture + "-power-" + board + ".png"));
    hand.key(KeyCode.O);
    hand.until("the output is off", () -> phase(app) == Phase.OFF);
    hand.until(
        "the end is in the book",
        () -> PowerFacts.of(app.desk().work().orElseThrow().state()).supply().filter(s -> !s.on()).isPresent());
    Snapshot.Work after = work(app, hand);
    StringBuilder s = new StringBuilder();
    for (RailSpec r : after.plan().ladder().fromBench()) {
      PowerFacts.of(after.state()).reading(r)
          .ifPresent(x ->
              s.append(s.isEmpty() ? "" : ", ")
                  .append(r.net())
                  .append(' ')
                  .append(EngineeringNumber.print(x.value(), x.unit(), 4))
                  .append(
                      x.verdict()
                          .filter(v -> v != Verdict.WITHIN)
                          .map(v -> " " + v.words())
                          .orElse("")));
    }
    say("Power " + board, s + "; " + after.standings().get(board).phrase());
  }

  /// A board with a bridge is found by the beeper, and refused power.
  private static void refused(App app, Hand hand) {
    stage(app, hand, Stage.BEEP);
    hand.key(KeyCode.G);
    hand.until(
        "the bridge is found",
        () -> app.desk().work().orElseThrow().standings().get("04").mark() == Standing.Mark.OUT);
    say("Beep 04", work(app, hand).standings().get("04").phrase());
    say("Power 04", "refused: " + work(app, hand).refusal().orElse("it was not refused"));
  }

  private static Phase phase(App app) {
    return app.window().power().shownProperty().get().phase();
  }

  private static Snapshot.Work work(App app, Hand hand) {
    return hand.on(() -> app.desk().work().orElseThrow());
  }

  private static void stage(App app, Hand hand, Stage s) {
    hand.on(() -> {
      app.desk().stageProperty().set(s);
      return null;
    });
    hand.until("stage " + s.title(), () -> app.desk().stageProperty().get() == s);
  }

  private static void say(String what, String words) {
    System.out.println(String.format("%-9s %s", what, words));
  }

  /// The first side printed, one pad told.
  private static void printed(App app, Hand hand, Path folder) throws IOException {
    stage(app, hand, Stage.PRINT);
    hand.until(
        "the paste layer is read",
        () -> app.window().print().shownProperty().get().check().isPresent());
    hand.key(KeyCode.W);
    int before = hand.on(() -> app.desk().work().orElseThrow().log().size());
    hand.key(KeyCode.SPACE);
    hand.until("the print is logged", () -> app.desk().work().orElseThrow().log().size() > before);
    hand.until("pads can be told", () -> app.window().print().canTell());
    hand.key(KeyCode.T);
    hand.until("a pad is told", () -> !PrintFacts.of(app.desk().work().orElseThrow().state()).paste().isEmpty());
    hand.picture(folder.resolve("4-print.png"));
    say(
        "Print",
        hand.on(() -> {
          var c = app.window().print().shownProperty().get().check().orElseThrow();
          return c.lines().size()
              + " openings, "
              + c.bad()
              + " do not release from the foil; one pad came out thin";
        }));
  }

  /// The simulated plate run once at a fast clock, as a test piece.
  private static void heated(App app, Hand hand, Path folder) throws IOException {
    app.desk().plateSpeed(150);
    stage(app, hand, Stage.HEAT);
    hand.until(
        "the plate is worked out",
        () -> app.window().heat().shownProperty().get().schedule().isPresent());
    hand.key(KeyCode.SPACE);
    hand.until(
        "the board is to be lifted off",
        () ->
            app.window()
                .heat()
                .shownProperty()
                .get()
                .look()
                .map(l -> l.next().equals("lift off now"))
                .orElse(false));
    hand.picture(folder.resolve("5-heat.png"));
    hand.key(KeyCode.SPACE);
    hand.until(
        "the run is in the book", () -> !HeatFacts.of(app.desk().work().orElseThrow().state()).runs().isEmpty());
    hand.until("the plate is off", () -> !app.window().heat().live());
    say(
        "Heat",
        hand.on(
            () -> EntryWords.of(HeatFacts.of(app.desk().work().orElseThrow().state()).runs().getLast().entry())));
  }

  /// Three joints looked at, and the rest of the board.
  private static void looked(App app, Hand hand, Path folder) throws IOException {
    stage(app, hand, Stage.LOOK);
    hand.until("the walk is planned", () -> app.window().look().hasStop());
    for (int i = 0; i < 3; i++) {
      int before = hand.on(() -> LookFacts.of(app.desk().work().orElseThrow().state()).seen().size());
      hand.key(KeyCode.SPACE);
      hand.until(
          "a joint is seen", () -> LookFacts.of(app.desk().work().orElseThrow().state()).seen().size() > before);
    }
    hand.picture(folder.resolve("6-look.png"));
    hand.tape("rest good");
    say(
        "Look",
        hand.on(() -> {
          var s = app.window().look().shownProperty().get();
          return s.stops().size() + " joints walked, " + s.hidden().size() + " of them hidden";
        }));
  }
}
