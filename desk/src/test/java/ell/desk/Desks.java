package ell.desk;

import ell.desk.shell.DeskModel;
import ell.desk.shell.Runner;
import ell.work.demo.DemoWorkspace;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneOffset;

/// Desks for tests: models on one thread, without a toolkit.
final class Desks {
  static final Path DEMO = Path.of("../fixtures/marram");

  private Desks() {}

  static Path file() throws IOException {
    return Files.createTempDirectory("ell-desk").resolve("ws.ell");
  }

  /// A desk on which everything happens at once, on the calling thread.
  static DeskModel atOnce(Clock clock) {
    return new DeskModel(new Runner(Runnable::run, Runnable::run, Runnable::run), clock);
  }

  static Clock clock() {
    return Clock.fixed(Instant.parse("2026-11-25T10:00:00Z"), ZoneOffset.UTC);
  }

  /// Makes the demo into a file and closes it again.
  static Path demo() throws Exception {
    Path file = file();
    DemoWorkspace.make(file, DEMO, true).close();
    return file;
  }
}
