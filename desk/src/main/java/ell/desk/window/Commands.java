package ell.desk.window;

import ell.desk.key.Command;
import ell.desk.shell.DeskModel;
import ell.desk.shell.FileAsker;
import ell.desk.shell.StageModel;
import ell.desk.shell.Station;
import ell.desk.word.Tongue;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.BooleanSupplier;

/// Everything that the window can do by key.
public final class Commands {
  private Commands() {}

  /// What only the window itself can do.
  interface Acts {
    void keySheet();

    /// Help about what is selected.
    void help();

    void makeWorkspace();

    void openWorkspace();

    /// Asks for the address of a workspace on a server.
    void openOnServer();

    /// Shows the benches that share the workspace.
    void benches();

    /// Shows boards on a phone.
    void phone();

    /// Shows how the practice goes.
    void practice();

    void addRevision();

    /// Shows what the files that were taken in last said.
    void account();

    void zoom(double factor);

    void demo();

    void size(int by);

    void leave();

    /// The next language.
    void language();
  }

  static List<Command> of(DeskModel desk, List<Station> stations, FileAsker files, Acts acts) {
    List<Command> all = new ArrayList<>();
    BooleanSupplier board = () -> desk.work().isPresent();
    all.add(
        Command.of(
                "primary",
                "At the bench",
                "",
                "Space",
                () -> desk.current().ifPresent(StageModel::primary))
            .inLine()
            .when(() -> desk.current().map(m -> !m.primaryWords().isEmpty()).orElse(false))
            .saying(() -> desk.current().map(StageModel::primaryWords).orElse("")));
    all.add(
        Command.of(
                "fault",
                "At the bench",
                "fault",
                "F",
                () -> begin(desk, desk.current().map(StageModel::faultLine)))
            .inLine()
            .when(board));
    all.add(
        Command.of(
                "reading",
                "At the bench",
                "reading",
                "R",
                () -> begin(desk, desk.current().map(StageModel::readingLine)))
            .inLine()
            .when(board));
    all.add(
        Command.of("note", "At the bench", "note", "N", () -> desk.tape().begin("note "))
            .inLine()
            .when(board));
    all.add(
        Command.of("next", "At the bench", "one further", "Down", () -> move(desk, 1)).when(board));
    all.add(
        Command.of("right", "At the bench", "one to the right", "Right", () -> across(desk, 1))
            .when(board));
    all.add(
        Command.of("left", "At the bench", "one to the left", "Left", () -> across(desk, -1))
            .when(board));
    all.add(
        Command.of("previous", "At the bench", "one back", "Up or Backspace", () -> move(desk, -1))
            .when(board));
    all.add(
        Command.of(
                "big",
                "At the bench",
                "big step card",
                "B",
                () -> desk.navigation().bigProperty().set(!desk.navigation().bigProperty().get()))
            .inLine()
            .when(() ->
                desk.navigation().bigProperty().get()
                    || desk.current().map(StageModel::canBeBig).orElse(false)));
    stations.forEach(s -> all.addAll(s.commands()));
    all.add(
        Command.of("find", "Tape", "type a line", "Slash", () -> desk.tape().begin(""))
            .when(board));
    all.add(
        Command.of("strike", "Tape", "strike the last entry", "Shortcut+Z", desk::strikeLast)
            .whileTypingToo()
            .when(board));
    all.add(
        Command.of(
                "record",
                "Board",
                "record of the board as PDF",
                "Shortcut+P",
                () -> record(desk, files))
            .whileTypingToo()
            .when(board));
    all.add(
        Command.of("board-up", "Board", "board above", "Alt+Up", () -> desk.walkRack(-1))
            .whileTypingToo()
            .when(board));
    all.add(
        Command.of("board-down", "Board", "board below", "Alt+Down", () -> desk.walkRack(1))
            .whileTypingToo()
            .when(board));
    all.add(
        Command.of("build", "Board", "next build", "Shortcut+B", desk::walkBuilds)
            .whileTypingToo()
            .when(board));
    all.add(
        Command.of(
                "stage-left",
                "Stages",
                "stage before",
                "Shortcut+Left",
                () -> desk.navigation().walk(-1))
            .whileTypingToo());
    all.add(
        Command.of(
                "stage-right",
                "Stages",
                "stage after",
                "Shortcut+Right",
                () -> desk.navigation().walk(1))
            .whileTypingToo());
    stages(desk, stations, all);
    all.add(
        Command.of(
                "zoom-in",
                "Window",
                "zoom the board in",
                "Plus or Equals or Add",
                () -> acts.zoom(1.25))
            .when(board));
    all.add(
        Command.of(
                "zoom-out",
                "Window",
                "zoom the board out",
                "Minus or Subtract",
                () -> acts.zoom(0.8))
            .when(board));
    all.add(
        Command.of(
                "larger",
                "Window",
                "everything larger",
                "Shortcut+Plus or Shortcut+Equals or Shortcut+Add",
                () -> acts.size(1))
            .whileTypingToo());
    all.add(
        Command.of(
                "smaller",
                "Window",
                "everything smaller",
                "Shortcut+Minus or Shortcut+Subtract",
                () -> acts.size(-1))
            .whileTypingToo());
    all.add(
        Command.of(
                "night",
                "Window",
                "night bench, or day",
                "Shortcut+D",
                () -> desk.nightProperty().set(!desk.nightProperty().get()))
            .whileTypingToo());
    all.add(
        Command.of("language", "Window", "the next language", "Shortcut+Shift+L", acts::language)
            .saying(() -> "language: " + Tongue.language().own())
            .whileTypingToo());
    all.add(
        Command.of("new", "Window", "new workspace", "Shortcut+N", acts::makeWorkspace)
            .whileTypingToo());
    all.add(
        Command.of("open", "Window", "open a workspace", "Shortcut+O", acts::openWorkspace)
            .whileTypingToo());
    all.add(
        Command.of(
                "open-server",
                "Window",
                "a workspace on a server",
                "Shortcut+Shift+O",
                acts::openOnServer)
            .whileTypingToo());
    all.add(
        Command.of("benches", "Board", "who has which board in hand", "Shortcut+H", acts::benches)
            .whileTypingToo()
            .when(() -> desk.snapshotProperty().get().benches().isPresent()));
    all.add(
        Command.of("phone", "Board", "boards on a phone", "Shortcut+Shift+P", acts::phone)
            .whileTypingToo()
            .when(() -> desk.snapshotProperty().get().open()));
    all.add(
        Command.of("practice", "Board", "how the practice goes", "Shortcut+T", acts::practice)
            .whileTypingToo()
            .when(() -> desk.snapshotProperty().get().practice().isPresent()));
    all.add(
        Command.of("import", "Window", "import another revision", "Shortcut+I", acts::addRevision)
            .whileTypingToo()
            .when(() -> desk.snapshotProperty().get().open()));
    all.add(
        Command.of("account", "Window", "what the files said", "Shift+I", acts::account)
            .when(() -> !desk.importing().reportProperty().get().files().isEmpty()));
    all.add(
        Command.of("demo", "Window", "look at the demo", "Shift+D", acts::demo)
            .inLine()
            .when(() -> !desk.snapshotProperty().get().open()));
    all.add(
        Command.of("help", "Window", "help on what is selected", "Shortcut+F1 or Help", acts::help)
            .whileTypingToo());
    all.add(
        Command.of(
            "keys", "Window", "this sheet of keys", "Shift+Slash or Shortcut+F12", acts::keySheet));
    all.add(
        Command.of(
                "again",
                "Window",
                "try again",
                "Shortcut+R",
                () -> desk.current().ifPresent(StageModel::tryAgain))
            .whileTypingToo()
            .inLine()
            .when(() ->
                desk.current().filter(m -> !m.troubleProperty().get().isEmpty()).isPresent()));
    all.add(Command.of("leave", "Window", "close what is laid over", "Esc", acts::leave));
    return List.copyOf(all);
  }

  /// F1 to F12 are the first twelve stages; those behind them are reached with Shift and F1, F2, …
  /// Whatever there is, Ctrl+Left and Ctrl+Right walk through it, and so does a click on the rule.
  private static void stages(DeskModel desk, List<Station> stations, List<Command> all) {
    for (Station s : stations) {
      int at = desk.navigation().position(s.stage());
      String key = at < 12 ? "F" + (at + 1) : "Shift+F" + (at - 11);
      all.add(
          Command.of(
                  "stage-" + s.stage().key(),
                  "Stages",
                  s.stage().title(),
                  key,
                  () -> desk.navigation().goTo(s.stage()))
              .whileTypingToo());
    }
  }

  private static void begin(DeskModel desk, Optional<String> line) {
    desk.tape().begin(line.orElse(""));
  }

  private static void move(DeskModel desk, int by) {
    desk.current().ifPresent(m -> m.move(by));
  }

  private static void across(DeskModel desk, int by) {
    desk.current().ifPresent(m -> m.across(by));
  }

  private static void record(DeskModel desk, FileAsker files) {
    files.record(desk.navigation().boardProperty().get()).ifPresent(desk::record);
  }

  /// The keys that matter now, in one line.
  static String line(List<Command> all) {
    List<String> words = new ArrayList<>();
    for (Command c : all) {
      if (c.atHand() && c.there().getAsBoolean()) {
        words.add(Tongue.shown(c.keyText().split(" or ")[0]) + " " + Tongue.shown(c.words().get()));
      }
    }
    words.add("? keys, help");
    return String.join(" · ", words);
  }
}
