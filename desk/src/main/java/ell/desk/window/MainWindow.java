package ell.desk.window;

import ell.core.rack.Stage;
import ell.desk.beep.BeepModel;
import ell.desk.beep.BeepView;
import ell.desk.heat.HeatModel;
import ell.desk.heat.HeatView;
import ell.desk.key.Command;
import ell.desk.kit.KitModel;
import ell.desk.kit.KitView;
import ell.desk.look.LookModel;
import ell.desk.look.LookView;
import ell.desk.mark.Type;
import ell.desk.order.OrderModel;
import ell.desk.order.OrderView;
import ell.desk.power.PowerModel;
import ell.desk.power.PowerView;
import ell.desk.print.PrintModel;
import ell.desk.print.PrintView;
import ell.desk.shell.DeskModel;
import ell.desk.shell.MarginPane;
import ell.desk.shell.Rack;
import ell.desk.shell.RuleBar;
import ell.desk.shell.Snapshot;
import ell.desk.shell.TapePane;
import java.nio.file.Path;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.function.Supplier;
import javafx.css.PseudoClass;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.Scene;
import javafx.scene.control.Label;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.StackPane;



/// The window: rule on top, rack left, sheet in the middle, margin right, tape below.
public final class MainWindow {
  private static final PseudoClass NIGHT = PseudoClass.getPseudoClass("night");

  private final DeskModel desk;
  private final FileAsker files;
  private final Supplier<Path> demoFile;
  private final StackPane root = new StackPane();
  private final BorderPane frame = new BorderPane();
  private final StackPane sheet = new StackPane();
  private final Label keys = new Label();
  private final Map<Stage, Node> views = new EnumMap<>(Stage.class);
  private final OrderModel order;
  private final PowerModel power;
  private final BeepModel beep;
  private final KitModel kit;
  private final PrintModel print;
  private final HeatModel heat;
  private final LookModel look;
  private LookView lookView;
  private HeatView heatView;
  private final List<Command> commands;
  private OrderView orderView;
  private PrintView printView;
  private OrderView bigView;
  private Node overlay;
  private boolean settingUp;

  /// A window on a desk.
  ///
  /// @param demoFile where to make the demo when it is asked for
  /// @param sampleMillis pause between two looks at the supply
  public MainWindow(DeskModel desk, FileAsker files, Supplier<Path> demoFile, long sampleMillis) {
    this.desk = desk;
    this.files = files;
    this.demoFile = demoFile;
    this.kit = new KitModel(desk);
    this.order = new OrderModel(desk);
    this.print = new PrintModel(desk);
    this.heat = new HeatModel(desk);
    this.look = new LookModel(desk);
    this.beep = new BeepModel(desk);
    this.power = new PowerModel(desk, sampleMillis);
    desk.add(Stage.KIT, kit);
    desk.add(Stage.ORDER, order);
    desk.add(Stage.PRINT, print);
    desk.add(Stage.HEAT, heat);
    desk.add(Stage.LOOK, look);
    desk.add(Stage.BEEP, beep);
    desk.add(Stage.POWER, power);
    this.commands =
        Commands.of(
            desk,
            new Commands.Models(kit, order, print, heat, look, beep, power),
            files,
            new Acts());
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
    frame.setCenter(new StackPane(sheet));
    frame.getCenter().getStyleClass().add("middle");
    frame.setRight(margin);
    frame.setBottom(new TapePane(desk, keys));
    root.getChildren().add(frame);
    root.getStylesheets().add(Style.address());
    desk.snapshotProperty().addListener((_, _, s) -> arrived(s));
    desk.stageProperty().addListener((_, _, _) -> show());
    desk.bigProperty().addListener((_, _, _) -> show());
    desk.nightProperty().addListener((_, _, n) -> root.pseudoClassStateChanged(NIGHT, n));
    root.pseudoClassStateChanged(NIGHT, desk.nightProperty().get());
    power.shownProperty().addListener((_, _, _) -> hint());
    order.shownProperty().addListener((_, _, _) -> hint());
    kit.marginProperty().addListener((_, _, _) -> hint());
    print.shownProperty().addListener((_, _, _) -> hint());
    heat.shownProperty().addListener((_, _, _) -> hint());
    look.shownProperty().addListener((_, _, _) -> hint());
    desk.tape().leaveAskedProperty().addListener((_, _, _) -> sheet.requestFocus());
    root.addEventFilter(KeyEvent.KEY_PRESSED, this::pressed);
    // the character of a key that was a command must not be typed into what the command focused
    root.addEventFilter(KeyEvent.KEY_TYPED, this::typed);
    show();
  }

  /// The root, for a scene.
  public Parent root() {
    return root;
  }

  /// The model of first power, which must be closed with the window.
  public PowerModel power() {
    return power;
  }

  /// The model of the plate, which must be switched off with the window.
  public HeatModel heat() {
    return heat;
  }

  /// The model of the walk.
  public LookModel look() {
    return look;
  }

  /// The model of the print.
  public PrintModel print() {
    return print;
  }

  /// The model of the kit.
  public KitModel kit() {
    return kit;
  }

  /// Every command, for tests.
  public List<Command> commands() {
    return commands;
  }

  private boolean swallow;

  private void pressed(KeyEvent e) {
    swallow = false;
    boolean typing = typing(e);
    if (overlay != null && e.getCode() != KeyCode.ESCAPE && !isKeySheetKey(e)) {
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

  private boolean isKeySheetKey(KeyEvent e) {
    return overlay instanceof KeySheet
        && commands.stream().anyMatch(c -> c.id().equals("keys") && c.means(e));
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
    if (!s.open()) {
      next = start();
    } else if (s.bench().isEmpty() || settingUp) {
      next = setup();
    } else {
      next = stageView(desk.stageProperty().get());
    }
    if (sheet.getChildren().isEmpty() || sheet.getChildren().getFirst() != next) {
      sheet.getChildren().setAll(next);
    }
    big(s);
    hint();
    if (overlay == null
        && !(frame.getScene() != null
            && frame.getScene().getFocusOwner() instanceof TextInputControl)) {
      sheet.requestFocus();
    }
  }

  private void big(Snapshot s) {
    boolean on =
        desk.bigProperty().get()
            && s.bench().isPresent()
            && desk.stageProperty().get() == Stage.ORDER;
    if (on && bigView == null) {
      bigView = new OrderView(desk, order, true);
      bigView.setId("big");
      root.getChildren().add(bigView);
    } else if (!on && bigView != null) {
      root.getChildren().remove(bigView);
      bigView = null;
    }
  }

  private Node startView;
  private Node setupView;

  private Node start() {
    if (startView == null) {
      startView = new StartView(this::make, this::open, () -> desk.openDemo(demoFile.get()));
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
    return views.computeIfAbsent(
        s,
        k ->
            switch (k) {
              case ORDER -> orderView = new OrderView(desk, order, false);
              case PRINT -> printView = new PrintView(desk, print);
              case HEAT -> heatView = new HeatView(desk, heat);
              case LOOK -> lookView = new LookView(desk, look);
              case BEEP -> new BeepView(desk, beep);
              case POWER -> new PowerView(desk, power);
              default -> new KitView(desk, kit);
            });
  }

  private void hint() {
    keys.setText(Commands.line(commands));
  }

  private void lay(Node node) {
    closeOverlay();
    overlay = node;
    StackPane shade = new StackPane(node);
    shade.getStyleClass().add("shade");
    root.getChildren().add(shade);
    node.requestFocus();
  }

  private void closeOverlay() {
    if (overlay != null) {
      root.getChildren().remove(overlay.getParent());
      overlay = null;
      sheet.requestFocus();
    }
  }

  private void make() {
    files.workspaceToMake().ifPresent(desk::create);
  }

  private void open() {
    files.workspaceToOpen().ifPresent(desk::open);
  }

  /// A scene of the design's size or another.
  public Scene scene(double width, double height) {
    Type.load();
    return new Scene(root, width, height);
  }

  private final class Acts implements Commands.Acts {
    @Override
    public void keySheet() {
      if (overlay instanceof KeySheet) {
        closeOverlay();
      } else {
        lay(new KeySheet(commands, desk.stageProperty().get()));
      }
    }

    @Override
    public void editLadder() {
      lay(new LadderEditor(power, MainWindow.this::closeOverlay));
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
    public void addRevision() {
      settingUp = !settingUp;
      setupView = null;
      show();
    }

    @Override
    public void zoom(double factor) {
      if (desk.stageProperty().get() == Stage.PRINT && printView != null) {
        printView.zoom(factor);
        return;
      }
      if (desk.stageProperty().get() == Stage.HEAT && heatView != null) {
        heatView.zoom(factor);
        return;
      }
      if (desk.stageProperty().get() == Stage.LOOK && lookView != null) {
        lookView.zoom(factor);
        return;
      }
      OrderView v = bigView != null ? bigView : orderView;
      if (v != null) {
        v.zoom(factor);
      }
    }

    @Override
    public void leave() {
      if (overlay != null) {
        closeOverlay();
      } else if (desk.bigProperty().get()) {
        desk.bigProperty().set(false);
      } else if (settingUp) {
        settingUp = false;
        show();
      }
    }
  }
}
