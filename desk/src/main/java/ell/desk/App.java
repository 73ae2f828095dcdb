package ell.desk;

import ell.desk.shell.DeskModel;
import ell.desk.shell.Runner;
import ell.desk.window.FileAsker;
import ell.desk.window.MainWindow;
import ell.desk.window.SystemFiles;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.List;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import javafx.application.Application;
import javafx.application.Platform;
import javafx.scene.Scene;
import javafx.stage.Stage;

/// The application: `--demo`, `--play`, `--shots FOLDER`, `--train`, `--first-look FILE`, or a
/// workspace file.
public final class App extends Application {
  private static final long SAMPLE_MILLIS = 60;

  private final ExecutorService worker =
      Executors.newSingleThreadExecutor(Thread.ofVirtual().name("book").factory());
  private final ExecutorService aside = Executors.newVirtualThreadPerTaskExecutor();
  private final Settings settings = Settings.read();
  private DeskModel desk;
  private MainWindow window;
  private Stage stage;
  private boolean remember;

  @Override
  public void start(Stage stage) {
    this.stage = stage;
    List<String> args = getParameters().getRaw();
    String mode = args.isEmpty() ? "" : args.getFirst();
    boolean offscreen = List.of("--play", "--shots", "--train", "--first-look").contains(mode);
    desk = new DeskModel(new Runner(worker, aside, Platform::runLater), Clock.systemDefaultZone());
    Scripted files = new Scripted();
    FileAsker asker = offscreen ? files : new SystemFiles(stage::getOwner);
    window = new MainWindow(desk, asker, App::demoFile, SAMPLE_MILLIS);
    if (!offscreen) {
      desk.nightProperty().set(settings.text("palette").filter("night"::equals).isPresent());
      settings.text("bench").ifPresent(desk.benchProperty()::set);
    }
    Scene scene =
        window.scene(
            offscreen ? 1280 : Math.clamp(settings.number("width", 1280), 900, 4000),
            offscreen ? 800 : Math.clamp(settings.number("height", 800), 600, 3000));
    stage.setScene(scene);
    stage.setTitle("ell");
    stage.setMinWidth(1000);
    stage.setMinHeight(660);
    if (offscreen) {
      stage.setX(0);
      stage.setY(0);
    }
    stage.show();
    desk.onOpened(file -> settings.set("last", file.toAbsolutePath()));
    begin(mode, args, files);
  }

  private void begin(String mode, List<String> args, Scripted files) {
    switch (mode) {
      case "--demo" -> {
        desk.stageProperty().set(ell.core.rack.Stage.POWER);
        desk.openDemo(demoFile());
      }
      case "--play" -> aside.execute(() -> Play.run(this, files, args.subList(1, args.size())));
      case "--shots" -> aside.execute(() -> Shots.run(this, files, Path.of(args.get(1))));
      case "--train" -> aside.execute(() -> Shots.train(this, files));
      case "--first-look" -> FirstLook.begin(this, Path.of(args.get(1)));
      case "" -> {
        remember = true;
        settings.text("last").map(Path::of).filter(Files::isRegularFile).ifPresent(desk::open);
      }
      default -> {
        remember = true;
        desk.open(Path.of(mode));
      }
    }
  }

  DeskModel desk() {
    return desk;
  }

  MainWindow window() {
    return window;
  }

  Stage stage() {
    return stage;
  }

  /// A fresh place for the demo; nothing of the user's is touched.
  static Path demoFile() {
    try {
      return Files.createTempDirectory("ell-demo").resolve("marram.ell");
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  @Override
  public void stop() throws InterruptedException {
    window.power().close(); // whatever else happens, the output goes off first
    if (stage.isShowing() || remember) {
      remember();
    }
    desk.close();
    worker.shutdown();
    if (!worker.awaitTermination(5, TimeUnit.SECONDS)) {
      worker.shutdownNow();
    }
    aside.shutdownNow();
  }

  private void remember() {
    if (remember) {
      settings.set("width", stage.getScene().getWidth());
      settings.set("height", stage.getScene().getHeight());
    }
    settings.set("palette", desk.nightProperty().get() ? "night" : "day");
    settings.set("bench", desk.benchProperty().get());
    settings.write();
  }
}
