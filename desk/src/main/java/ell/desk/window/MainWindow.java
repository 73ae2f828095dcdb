package ell.desk.window;

import ell.core.rack.Stage;
import ell.desk.help.HelpSheet;
import ell.desk.help.Pages;
import ell.desk.help.Topic;
import ell.desk.key.Command;
import ell.desk.mark.Type;
import ell.desk.practice.PracticeModel;
import ell.desk.practice.PracticeSheet;
import ell.desk.shell.Benches;
import ell.desk.shell.DeskModel;
import ell.desk.shell.FileAsker;
import ell.desk.shell.Host;
import ell.desk.shell.MarginPane;
import ell.desk.shell.Rack;
import ell.desk.shell.RuleBar;
import ell.desk.shell.Snapshot;
import ell.desk.shell.StageModel;
import ell.desk.shell.Station;
import ell.desk.shell.TapePane;
import ell.desk.word.Glass;
import ell.desk.word.Tongue;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import javafx.css.PseudoClass;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.Scene;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;

/// The window: rule on top, rack left, sheet in the middle, margin right, tape below.
public final class MainWindow {
  private static final PseudoClass NIGHT = PseudoClass.getPseudoClass("night");
  private static final PseudoClass COMPACT = PseudoClass.getPseudoClass("compact");

  /// The smallest page that everything fits on.
  private static final double LEAST_WIDTH = 1000;

  private static final double LEAST_HEIGHT = 620;
  private static final double LARGEST = 1.5;

  /// A page that is smaller than this is set closer.
  private static final double ROOMY_WIDTH = 1090;

  private static final double ROOMY_HEIGHT = 690;

  private final DeskModel desk;
  private final FileAsker files;
  private final Supplier<Path> demoFile;
  private final StackPane root = new StackPane();
  private final Magnified magnified = new Magnified(root);
  private final BorderPane frame = new BorderPane();
  private final StackPane sheet = new StackPane();
  private final Label keys = new Label();
  private final Label troubleLine = new Label();
  private final List<Station> stations;
  private final List<Command> commands;
  private final Label alarmWords = new Label();
  private final Label alarmMore = new Label();
  private final Button alarmOff = new Button("OFF");
  private final HBox alarm = new HBox(16);
  private Node bigView;
  private final LaidOver over = new LaidOver(root, sheet::requestFocus);
  private final Pages pages = new Pages();
  private boolean settingUp;

  /// Makes the stations of a window.
  public interface Stationing {
    /// The stations, in the order of the work.
    List<Station> of(DeskModel desk, FileAsker files, Host host);
  }

  /// A window on a desk, with the stations that ship.
  ///
  /// @param demoFile where to make the demo when it is asked for
  /// @param sampleMillis pause between two looks at the supply
  public MainWindow(DeskModel desk, FileAsker files, Supplier<Path> demoFile, long sampleMillis) {
    this(desk, files, demoFile, (d, f, h) -> Stations.all(d, f, h, sampleMillis));
  }

  /// A window on a desk.
  ///
  /// @param demoFile where to make the demo when it is asked for
  public MainWindow(
      DeskModel desk, FileAsker files, Supplier<Path> demoFile, Stationing stationing) {
    this.desk = desk;
    this.files = files;
    this.demoFile = demoFile;
    this.stations = List.copyOf(stationing.of(desk, files, new Over()));
    stations.forEach(s -> desk.add(s.stage(), s.model()));
    this.commands = Commands.of(desk, stations, files, new Acts());
    build();
  }

  private void build() {
    root.getStyleClass().addAll("desk");
    sheet.getStyleClass().add("sheet");
    sheet.setId("sheet");
    sheet.setFocusTraversable(true);
    sheet.setMinSize(0, 0);
    Rack rack = new Rack(desk);
    MarginPane margin = new MarginPane(desk);
    frame.setTop(new RuleBar(desk));
    frame.setLeft(rack);
    troubleLine.setId("trouble");
    troubleLine.getStyleClass().add("problem");
    troubleLine.setWrapText(true);
    VBox.setVgrow(sheet, Priority.ALWAYS);
    alarm.getStyleClass().add("alarm");
    alarm.setId("alarm");
    alarm.managedProperty().bind(alarm.visibleProperty());
    alarmWords.setWrapText(true);
    alarmWords.setId("alarm-words");
    alarmWords.getStyleClass().add("alarm-words");
    alarmMore.setWrapText(true);
    VBox said = new VBox(2, alarmWords, alarmMore);
    HBox.setHgrow(said, Priority.ALWAYS);
    alarm.getChildren().setAll(said, alarmOff);
    alarmOff.setMinWidth(Region.USE_PREF_SIZE);
    for (Label l : List.of(alarmWords, alarmMore)) {
      l.setMinHeight(Region.USE_PREF_SIZE);
    }
    alarmOff.setId("alarm-off");
    alarmOff.getStyleClass().add("off");
    alarmOff.setAccessibleText("try to switch the output off");
    VBox middle = new VBox(alarm, troubleLine, sheet);
    frame.setCenter(new StackPane(middle));
    frame.getCenter().getStyleClass().add("middle");
    frame.setRight(margin);
    TapePane tape = new TapePane(desk, keys);
    frame.setBottom(tape);
    Topic.mark(rack, "a-boards-life");
    Topic.mark(tape, "book");
    root.getChildren().add(frame);
    magnified.getStylesheets().add(Style.address());
    magnified.factorProperty().bind(desk.sizeProperty());
    desk.snapshotProperty().addListener((_, _, s) -> arrived(s));
    desk.importing()
        .reportProperty()
        .addListener((_, _, r) -> {
          if (r.asks()) {
            over.lay(about(new AccountSheet(desk, r), "files"));
          }
        });
    opening.getStyleClass().add("opening");
    desk.busyProperty()
        .addListener((_, _, _) -> {
          if (!desk.snapshotProperty().get().open()) {
            show();
          }
        });
    desk.navigation()
        .stageProperty()
        .addListener((_, _, _) -> {
          show();
          trouble();
        });
    desk.navigation().bigProperty().addListener((_, _, _) -> show());
    desk.nightProperty().addListener((_, _, n) -> root.pseudoClassStateChanged(NIGHT, n));
    root.pseudoClassStateChanged(NIGHT, desk.nightProperty().get());
    root.layoutBoundsProperty()
        .addListener((_, _, b) ->
            root.pseudoClassStateChanged(
                COMPACT, b.getWidth() < ROOMY_WIDTH || b.getHeight() < ROOMY_HEIGHT));
    stations.forEach(s -> s.model().marginProperty().addListener((_, _, _) -> hint()));
    stations.forEach(s -> s.model().troubleProperty().addListener((_, _, _) -> trouble()));
    stations.forEach(s -> s.model().alarmProperty().addListener((_, _, _) -> alarmed()));
    desk.tape().leaveAskedProperty().addListener((_, _, _) -> sheet.requestFocus());
    root.addEventFilter(KeyEvent.KEY_PRESSED, this::pressed);
    // the character of a key that was a command must not be typed into what the command focused
    root.addEventFilter(KeyEvent.KEY_TYPED, this::typed);
    show();
    trouble();
    alarmed();
    Glass.over(magnified);
  }

  /// The root, for a scene.
  public Parent root() {
    return magnified;
  }

  /// The stations, in the order of the work.
  public List<Station> stations() {
    return stations;
  }

  /// The station of a stage.
  ///
  /// @throws java.util.NoSuchElementException when the window has none
  public Station station(Stage stage) {
    return stations.stream().filter(s -> s.stage().equals(stage)).findFirst().orElseThrow();
  }

  /// The model of a stage, as the kind that it is.
  ///
  /// @throws java.util.NoSuchElementException when the window has none of that kind
  public <M extends StageModel> M model(Class<M> kind) {
    return stations.stream()
        .map(Station::model)
        .filter(kind::isInstance)
        .map(kind::cast)
        .findFirst()
        .orElseThrow();
  }

  /// Switches off whatever is on; to be called before the program ends.
  public void close() throws InterruptedException {
    for (Station s : stations.reversed()) {
      s.close();
    }
  }

  /// Every command, for tests.
  public List<Command> commands() {
    return commands;
  }

  private boolean swallow;

  private void pressed(KeyEvent e) {
    swallow = false;
    boolean typing = typing(e);
    if (over.isThere() && e.getCode() == KeyCode.ESCAPE) {
      over.close(); // from within its fields too
      e.consume();
      return;
    }
    if (over.isThere() && e.getCode() != KeyCode.ESCAPE && !isLaidOverKey(e, typing)) {
      return;
    }
    if (!typing && startsReading(e)) {
      desk.tape().begin(desk.current().map(m -> m.readingLine()).orElse(""));
      return; // the digit itself is typed behind the place
    }
    for (Command c : commands) {
      if (c.means(e) && c.there().getAsBoolean() && (!typing || c.whileTyping())) {
        swallow =
            e.getCode().isLetterKey()
                || e.getCode().isDigitKey()
                || e.getCode() == KeyCode.SPACE
                || e.getCode() == KeyCode.SLASH;
        c.act().run();
        e.consume();
        hint();
        return;
      }
    }
  }

  private void typed(KeyEvent e) {
    if (swallow) {
      swallow = false;
      e.consume();
    }
  }

  /// Over what is laid over, its own key closes it and help can be asked about it.
  private boolean isLaidOverKey(KeyEvent e, boolean typing) {
    return commands.stream()
        .filter(c -> c.means(e) && (!typing || c.whileTyping()))
        .anyMatch(
            c -> c.id().equals("keys") && over.top() instanceof KeySheet || c.id().equals("help"));
  }

  private static boolean typing(KeyEvent e) {
    return e.getTarget() instanceof TextInputControl
        || e.getTarget() instanceof Node n
            && n.getScene() != null
            && n.getScene().getFocusOwner() instanceof TextInputControl;
  }

  /// A digit at the bench begins a reading of what is selected.
  private boolean startsReading(KeyEvent e) {
    boolean digit =
        e.getCode().isDigitKey()
            || e.getCode().isKeypadKey() && e.getCode().name().startsWith("NUMPAD");
    return digit
        && !e.isShortcutDown()
        && !e.isAltDown()
        && !e.isShiftDown()
        && desk.current().map(m -> !m.readingLine().isEmpty()).orElse(false);
  }

  private void arrived(Snapshot s) {
    if (s.bench().isPresent()) {
      settingUp = false;
    }
    show();
  }

  private void show() {
    Snapshot s = desk.snapshotProperty().get();
    Node next;
    if (!s.open() && !desk.busyProperty().get().isEmpty()) {
      next = opening;
    } else if (!s.open()) {
      next = start();
    } else if (s.bench().isEmpty() || settingUp) {
      next = setup();
    } else {
      next = stageView(desk.navigation().stageProperty().get());
    }
    if (sheet.getChildren().isEmpty() || sheet.getChildren().getFirst() != next) {
      sheet.getChildren().setAll(next);
    }
    big(s);
    hint();
    if (!over.isThere()
        && !(frame.getScene() != null
            && frame.getScene().getFocusOwner() instanceof TextInputControl)) {
      sheet.requestFocus();
    }
  }

  private void big(Snapshot s) {
    Optional<Station> station =
        stations.stream()
            .filter(x -> desk.navigation().at(x.stage()) && x.model().canBeBig())
            .findFirst();
    boolean on =
        desk.navigation().bigProperty().get() && s.bench().isPresent() && station.isPresent();
    if (on && bigView == null) {
      bigView = station.get().bigView().orElse(null);
      if (bigView != null) {
        bigView.setId("big");
        root.getChildren().add(bigView);
      }
    } else if (!on && bigView != null) {
      root.getChildren().remove(bigView);
      bigView = null;
    }
  }

  /// Stands on the sheet while the first workspace is being opened: the start view would only
  /// flash.
  private final Label opening = new Label("opening the workspace");

  private Node startView;
  private Node setupView;

  private Node start() {
    if (startView == null) {
      startView =
          new StartView(
              this::make,
              this::open,
              this::address,
              () -> desk.openDemo(demoFile.get()),
              desk.nightProperty());
    }
    return startView;
  }

  private Node setup() {
    if (setupView == null) {
      setupView = new SetupView(desk, new SetupModel(desk), files);
    }
    return setupView;
  }

  private Node stageView(Stage s) {
    setupView = null;
    return station(s).view();
  }

  /// What must not be overlooked stands over everything, at every stage, until it is over.
  private void alarmed() {
    Optional<StageModel> raised =
        stations.stream()
            .map(Station::model)
            .filter(m -> !m.alarmProperty().get().isEmpty())
            .findFirst();
    String[] words = raised.map(m -> m.alarmProperty().get()).orElse("").split("\n", 2);
    alarmWords.setText(words[0]);
    alarmMore.setText(words.length > 1 ? words[1] : "");
    alarmOff.setOnAction(_ -> raised.ifPresent(StageModel::answerAlarm));
    alarm.setVisible(raised.isPresent());
  }

  /// What could not be worked out stands over the sheet, with the key that tries again.
  private void trouble() {
    String why = desk.current().map(m -> m.troubleProperty().get()).orElse("");
    troubleLine.setText(why.isEmpty() ? "" : why + " · Ctrl+R tries again");
    troubleLine.setVisible(!why.isEmpty());
    troubleLine.setManaged(!why.isEmpty());
    hint();
  }

  private void hint() {
    keys.setText(Commands.line(commands));
  }

  /// Help about what has the focus, else about what is selected at the stage that is shown.
  private void help() {
    if (over.top() instanceof HelpSheet) {
      over.close();
      return;
    }
    Node focused = root.getScene() == null ? null : root.getScene().getFocusOwner();
    boolean sheetHasIt = focused == null || focused == sheet;
    Node about = over.isThere() && sheetHasIt ? over.top() : focused == sheet ? null : focused;
    Topic topic =
        Topic.of(
            about,
            desk.snapshotProperty().get().bench().isEmpty()
                ? "files"
                : desk.navigation().stageProperty().get().key(),
            desk.current().map(StageModel::selectedWords).orElse(""));
    over.layOver(new HelpSheet(pages, topic));
  }

  private void make() {
    files.workspaceToMake().ifPresent(desk::create);
  }

  private static Node about(Node sheet, String page) {
    Topic.mark(sheet, page);
    return sheet;
  }

  private void address() {
    over.lay(
        about(
            new AddressSheet(
                desk,
                desk.snapshotProperty().get().benches().map(Benches::place).orElse(""),
                over::close),
            "many-benches"));
  }

  private void open() {
    files.workspaceToOpen().ifPresent(desk::open);
  }

  /// A scene of the design's size or another.
  public Scene scene(double width, double height) {
    Type.load();
    return new Scene(magnified, width, height);
  }

  private final class Over implements Host {
    @Override
    public void lay(Node node) {
      over.lay(node);
    }

    @Override
    public void clear() {
      over.close();
    }
  }

  private final class Acts implements Commands.Acts {
    @Override
    public void keySheet() {
      if (over.top() instanceof KeySheet) {
        over.close();
      } else {
        over.lay(
            new KeySheet(
                commands,
                desk.stages().verbs(),
                desk.navigation().stageProperty().get(),
                desk.stages().all()));
      }
    }

    @Override
    public void help() {
      MainWindow.this.help();
    }

    @Override
    public void makeWorkspace() {
      make();
    }

    @Override
    public void openWorkspace() {
      open();
    }

    @Override
    public void openOnServer() {
      address();
    }

    @Override
    public void benches() {
      over.lay(about(new BenchesSheet(desk), "many-benches"));
    }

    @Override
    public void phone() {
      over.lay(about(new PhoneSheet(desk), "in-the-hand"));
    }

    @Override
    public void practice() {
      over.lay(about(new PracticeSheet(new PracticeModel(desk)), "practice"));
    }

    @Override
    public void addRevision() {
      settingUp = !settingUp;
      setupView = null;
      show();
    }

    @Override
    public void account() {
      over.lay(about(new AccountSheet(desk, desk.importing().reportProperty().get()), "files"));
    }

    @Override
    public void zoom(double factor) {
      if (desk.work().isPresent()) {
        station(desk.navigation().stageProperty().get()).zoom(factor);
      }
    }

    @Override
    public void demo() {
      desk.openDemo(demoFile.get());
    }

    @Override
    public void size(int by) {
      double now = desk.sizeProperty().get();
      double next = Math.clamp(now + 0.25 * by, 1, LARGEST);
      double wide = LEAST_WIDTH * next;
      double high = LEAST_HEIGHT * next;
      if (next > now && (magnified.getWidth() < wide || magnified.getHeight() < high)) {
        desk.say(
            String.format(
                java.util.Locale.ROOT,
                "%.0f %% needs a window of %.0f × %.0f",
                100 * next,
                wide,
                high));
        return;
      }
      desk.sizeProperty().set(next);
      desk.say(String.format(java.util.Locale.ROOT, "shown at %.0f %%", 100 * next));
    }

    @Override
    public void language() {
      Tongue.speak(Tongue.language().next());
      desk.say("language: " + Tongue.language().own());
    }

    @Override
    public void leave() {
      if (over.isThere()) {
        over.close();
      } else if (desk.navigation().bigProperty().get()) {
        desk.navigation().bigProperty().set(false);
      } else if (settingUp) {
        settingUp = false;
        show();
      }
    }
  }
}
