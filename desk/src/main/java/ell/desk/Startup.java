package ell.desk;

import ell.book.BookException;
import ell.book.Place;
import ell.desk.shell.DeskModel;
import ell.desk.shell.Runner;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayDeque;
import java.util.List;
import java.util.Optional;
import java.util.Queue;
import java.util.concurrent.Executor;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import javafx.application.Platform;

/// What can begin before the toolkit is there: the desk, its threads, and opening the workspace, so
/// that the book is read while the window is still being made.
final class Startup {
  private final ExecutorService worker =
      Executors.newSingleThreadExecutor(Thread.ofVirtual().name("book").factory());
  private final ExecutorService aside = Executors.newVirtualThreadPerTaskExecutor();
  private final Waiting ui = new Waiting();
  private final Settings settings = Settings.read();
  private final DeskModel desk =
      new DeskModel(new Runner(worker, aside, ui), Clock.systemDefaultZone());
  private final List<String> args;

  private Startup(List<String> args) {
    this.args = args;
  }

  /// Begins, and opens the workspace that the command line or the last time names.
  static Startup begin(List<String> args) {
    Startup s = new Startup(args);
    s.desk.onOpened(place -> s.settings.set("last", place.typed()));
    s.workspace().ifPresent(s::open);
    return s;
  }

  /// The first word of the command line, empty when there is none.
  String mode() {
    return args.isEmpty() ? "" : args.getFirst();
  }

  /// The word after the mode.
  Path argument() {
    return Path.of(args.get(1));
  }

  List<String> rest() {
    return args.subList(1, args.size());
  }

  private void open(String typed) {
    try {
      desk.open(Place.of(typed));
    } catch (BookException e) {
      desk.say(e.getMessage());
    }
  }

  private Optional<String> workspace() {
    return switch (mode()) {
      case "--demo", "--play", "--shots" -> Optional.empty();
      case "--first-look", "--train" -> Optional.of(args.get(1));
      case "" ->
          settings
              .text("last")
              .filter(t -> t.startsWith(Place.SCHEME) || Files.isRegularFile(Path.of(t)));
      default -> Optional.of(mode());
    };
  }

  /// Whether a workspace is being opened already.
  boolean opens() {
    return workspace().isPresent();
  }

  /// Whether the window is only worked by the program itself.
  boolean offscreen() {
    return List.of("--play", "--shots", "--train", "--first-look").contains(mode());
  }

  /// Whether size, palette and workspace are the maker's own and worth remembering.
  boolean own() {
    return !mode().startsWith("--");
  }

  Settings settings() {
    return settings;
  }

  DeskModel desk() {
    return desk;
  }

  ExecutorService aside() {
    return aside;
  }

  /// From now on what is for the interface thread goes there.
  void toolkitIsThere() {
    ui.open();
  }

  /// Closes the workspace and ends the threads.
  void end() throws InterruptedException {
    desk.close();
    worker.shutdown();
    if (!worker.awaitTermination(5, TimeUnit.SECONDS)) {
      worker.shutdownNow();
    }
    aside.shutdownNow();
  }

  /// Keeps what is for the interface thread until there is one, in order.
  private static final class Waiting implements Executor {
    private final Queue<Runnable> kept = new ArrayDeque<>();
    private boolean open;

    @Override
    public synchronized void execute(Runnable r) {
      if (open) {
        Platform.runLater(r);
      } else {
        kept.add(r);
      }
    }

    synchronized void open() {
      open = true;
      kept.forEach(Platform::runLater);
      kept.clear();
    }
  }
}
