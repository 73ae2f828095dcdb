package ell.desk;

import ell.desk.mark.Type;
import ell.desk.scripted.OffscreenDemo;
import ell.desk.scripted.Screenshots;
import ell.desk.scripted.ScriptedAsker;
import ell.desk.scripted.Stagehand;
import ell.desk.shell.DeskModel;
import ell.desk.shell.FileAsker;
import ell.desk.window.MainWindow;
import ell.desk.window.SystemFiles;
import ell.desk.word.Tongue;
import ell.work.word.Language;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import javafx.animation.PauseTransition;
import javafx.application.Application;
import javafx.beans.InvalidationListener;
import javafx.scene.Scene;
import javafx.scene.image.Image;
import javafx.stage.Stage;
import javafx.util.Duration;

/// The application: `--demo`, `--play`, `--shots FOLDER`, `--train FILE`, `--first-look FILE`, or a
/// workspace file.
public final class App extends Application implements Stagehand {
  private static final int[] ICONS = {32, 64, 128};
  private static final long SAMPLE_MILLIS = 60;
  private static final Duration PATIENCE = Duration.millis(1500);
  private static Startup begun;

  private Startup startup;
  private MainWindow window;
  private Stage stage;

  /// Hands over what was begun before the toolkit.
  static void launch(Startup begun) {
    App.begun = begun;
    launch(App.class);
  }

  /// The typefaces are read while the window is put together.
  @Override
  public void init() {
    begun.aside().execute(Type::load);
  }

  @Override
  public void start(Stage stage) {
    this.stage = stage;
    this.startup = begun;
    DeskModel desk = startup.desk();
    Settings settings = startup.settings();
    boolean offscreen = startup.offscreen();
    ScriptedAsker files = new ScriptedAsker();
    FileAsker asker = offscreen ? files : new SystemFiles(() -> stage);
    if (!offscreen) {
      desk.nightProperty().set(settings.text("palette").filter("night"::equals).isPresent());
      Tongue.speak(settings.text("language").flatMap(Language::of).orElseGet(Language::system));
      desk.bench().benchProperty().set(settings.bench());
      desk.sizeProperty().set(Math.clamp(settings.number("size", 1), 1, 1.5));
    }
    window = new MainWindow(desk, asker, this::demoFile, SAMPLE_MILLIS);
    Scene scene =
        window.scene(
            offscreen ? 1280 : Math.clamp(settings.number("width", 1280), 900, 4000),
            offscreen ? 800 : Math.clamp(settings.number("height", 800), 600, 3000));
    stage.setScene(scene);
    stage.setTitle("ell");
    for (int size : ICONS) {
      stage
          .getIcons()
          .add(new Image(App.class.getResourceAsStream("/ell/desk/icon-" + size + ".png")));
    }
    stage.setMinWidth(1000);
    stage.setMinHeight(660);
    if (offscreen) {
      stage.setX(0);
      stage.setY(0);
    }
    if (startup.opens()) {
      showWithItsBoard();
    } else {
      stage.show();
    }
    startup.toolkitIsThere();
    begin(files);
  }

  /// A window that would be empty for a moment waits for its board, but not for long.
  private void showWithItsBoard() {
    PauseTransition patience = new PauseTransition(PATIENCE);
    patience.setOnFinished(_ -> stage.show());
    patience.play();
    InvalidationListener there =
        _ -> {
          patience.stop();
          stage.show();
        };
    startup.desk().snapshotProperty().addListener(there);
    startup.desk().noticeProperty().addListener(there);
    // meanwhile what does not depend on the board is styled and laid out
    stage.getScene().getRoot().applyCss();
    stage.getScene().getRoot().layout();
  }

  private void begin(ScriptedAsker files) {
    switch (startup.mode()) {
      case "--demo" -> {
        startup.desk().navigation().stageProperty().set(ell.core.rack.Stage.POWER);
        startup.desk().openDemo(demoFile());
      }
      case "--play" ->
          startup.aside().execute(() -> OffscreenDemo.run(this, files, startup.rest()));
      case "--shots" ->
          startup.aside().execute(() -> Screenshots.run(this, files, startup.argument()));
      case "--train" -> startup.aside().execute(() -> Screenshots.train(this, files));
      case "--first-look" -> FirstLook.begin(this);
      default -> {} // the workspace is being opened already
    }
  }

  @Override
  public DeskModel desk() {
    return startup.desk();
  }

  @Override
  public MainWindow window() {
    return window;
  }

  @Override
  public Scene scene() {
    return stage.getScene();
  }

  @Override
  public boolean showing() {
    return stage.isShowing();
  }

  /// A fresh place for the demo; nothing of the user's is touched.
  @Override
  public Path demoFile() {
    try {
      return Files.createTempDirectory("ell-demo").resolve("marram.ell");
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  @Override
  public void stop() throws InterruptedException {
    window.close(); // whatever else happens, what is on goes off first
    if (!startup.offscreen()) {
      remember();
    }
    startup.end();
  }

  private void remember() {
    Settings settings = startup.settings();
    if (startup.own()) {
      settings.set("width", stage.getScene().getWidth());
      settings.set("height", stage.getScene().getHeight());
      settings.bench(startup.desk().bench().addresses());
    }
    settings.set("size", startup.desk().sizeProperty().get());
    settings.set("language", Tongue.language().key());
    settings.set("palette", startup.desk().nightProperty().get() ? "night" : "day");
    settings.write();
  }
}
