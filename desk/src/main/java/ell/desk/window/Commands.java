package ell.desk.window;

import ell.core.rack.Stage;
import ell.desk.beep.BeepModel;
import ell.desk.heat.HeatModel;
import ell.desk.key.Command;
import ell.desk.kit.KitModel;
import ell.desk.look.LookModel;
import ell.desk.order.OrderModel;
import ell.desk.power.PowerModel;
import ell.desk.print.PrintModel;
import ell.desk.shell.DeskModel;
import ell.desk.shell.StageModel;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.BooleanSupplier;



/// Everything that the window can do by key.
public final class Commands {
  /// What stands in the line of keys when it is there.
  private static final Set<String> HANDS =
      Set.of(
          "primary",
          "fault",
          "reading",
          "note",
          "open-loop",
          "guards",
          "off",
          "big",
          "buy",
          "substitute",
          "instead",
          "override",
          "all-boards",
          "wipe",
          "paste-missing",
          "paste-thin",
          "paste-smeared",
          "paste-bridged",
          "jar",
          "plate-off",
          "iron",
          "take-log",
          "part-good",
          "board-good",
          "mend",
          "brief",
          "photograph");

  private Commands() {}

  /// What only the window itself can do.
  interface Acts {
    void keySheet();

    void editLadder();

    void makeWorkspace();

    void openWorkspace();

    void addRevision();

    void zoom(double factor);

    void leave();
  }

  /// The models of the stages.
  record Models(
      KitModel kit,
      OrderModel order,
      PrintModel print,
      HeatModel heat,
      LookModel look,
      BeepModel beep,
      PowerModel power) {}

  static List<Command> of(DeskModel desk, Models models, FileAsker files, Acts acts) {
    KitModel kit = models.kit();
    OrderModel order = models.order();
    BeepModel beep = models.beep();
    PowerModel power = models.power();
    List<Command> all = new ArrayList<>();
    BooleanSupplier board = () -> desk.work().isPresent();
    BooleanSupplier onPower = () -> at(desk, Stage.POWER);
    BooleanSupplier onBeep = () -> at(desk, Stage.BEEP);
    all.add(
        Command.of(
                "primary",
                "At the bench",
                "",
                "Space",
                () -> desk.current().ifPresent(StageModel::primary))
            .when(() -> desk.current().map(m -> !m.primaryWords().isEmpty()).orElse(false))
            .saying(() -> desk.current().map(StageModel::primaryWords).orElse("")));
    all.add(
        Command.of(
                "fault",
                "At the bench",
                "fault",
                "F",
                () -> begin(desk, desk.current().map(StageModel::faultLine)))
            .when(board));
    all.add(
        Command.of(
                "reading",
                "At the bench",
                "reading",
                "R",
                () -> begin(desk, desk.current().map(StageModel::readingLine)))
            .when(board));
    all.add(
        Command.of("note", "At the bench", "note", "N", () -> desk.tape().begin("note "))
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
                () -> desk.bigProperty().set(!desk.bigProperty().get()))
            .when(() ->
                desk.bigProperty().get()
                    || desk.current().map(StageModel::canBeBig).orElse(false)));
    all.addAll(KitCommands.of(desk, kit, files));
    all.addAll(OrderCommands.of(desk, order));
    all.addAll(PrintCommands.of(desk, models.print(), files));
    all.addAll(HeatCommands.of(desk, models.heat(), files));
    all.addAll(LookCommands.of(desk, models.look(), files));
    all.add(Command.of("open-loop", "Beep", "open loop", "O", beep::openLoop).when(onBeep));
    all.add(Command.of("guards", "Beep", "all guards", "G", beep::measureGuards).when(onBeep));
    all.add(
        Command.of(
                "off", "Power", "output off", "O or Esc", () -> power.off("switched off by hand"))
            .whileTypingToo()
            .when(() -> onPower.getAsBoolean() && live(power)));
    all.add(
        Command.of("ladder", "Power", "edit the power ladder", "L", acts::editLadder)
            .when(onPower));
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
                "stage-left", "Stages", "stage before", "Shortcut+Left", () -> desk.walkStages(-1))
            .whileTypingToo());
    all.add(
        Command.of(
                "stage-right", "Stages", "stage after", "Shortcut+Right", () -> desk.walkStages(1))
            .whileTypingToo());
    for (Stage s : Stage.values()) {
      if (s.ordinal() < 12 && s.built()) {
        all.add(
            Command.of(
                    "stage-" + s.key(),
                    "Stages",
                    s.title(),
                    "F" + (s.ordinal() + 1),
                    () -> desk.goTo(s))
                .whileTypingToo());
      }
    }
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
                "night",
                "Window",
                "night bench, or day",
                "Shortcut+D",
                () -> desk.nightProperty().set(!desk.nightProperty().get()))
            .whileTypingToo());
    all.add(
        Command.of("new", "Window", "new workspace", "Shortcut+N", acts::makeWorkspace)
            .whileTypingToo());
    all.add(
        Command.of("open", "Window", "open a workspace", "Shortcut+O", acts::openWorkspace)
            .whileTypingToo());
    all.add(
        Command.of("import", "Window", "import another revision", "Shortcut+I", acts::addRevision)
            .whileTypingToo()
            .when(() -> desk.snapshotProperty().get().open()));
    all.add(
        Command.of("keys", "Window", "this sheet of keys", "Shift+Slash or F12", acts::keySheet));
    all.add(Command.of("leave", "Window", "close what is laid over", "Esc", acts::leave));
    return List.copyOf(all);
  }

  static boolean at(DeskModel desk, Stage s) {
    return desk.work().isPresent() && desk.stageProperty().get() == s;
  }

  private static boolean live(PowerModel power) {
    PowerModel.Shown s = power.shownProperty().get();
    return s != null && s.phase() != PowerModel.Phase.OFF;
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
    files.record(desk.boardProperty().get()).ifPresent(desk::record);
  }

  /// The keys that matter now, in one line.
  static String line(List<Command> all) {
    List<String> words = new ArrayList<>();
    for (Command c : all) {
      boolean hands = HANDS.contains(c.id());
      if (hands && c.there().getAsBoolean()) {
        words.add(c.keyText().split(" or ")[0] + " " + c.words().get());
      }
    }
    words.add("? keys");
    return String.join(" · ", words);
  }

  /// An order model's zoom needs the view; the type is named here so that the wiring reads in one
  /// place.
  static boolean drawsBoard(StageModel m) {
    return m instanceof OrderModel || m instanceof BeepModel;
  }
}
