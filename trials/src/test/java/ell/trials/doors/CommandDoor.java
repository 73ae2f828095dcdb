package ell.trials.doors;

import ell.cli.Main;
import java.io.ByteArrayOutputStream;
import java.io.OutputStream;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;

/// The command line: `log` for every move, the file opened and closed each time.
final class CommandDoor implements Door {
  private final String file;

  CommandDoor(Path file) {
    this.file = file.toString();
  }

  @Override
  public void play(String board, Move.Kind kind, String line) {
    ByteArrayOutputStream problems = new ByteArrayOutputStream();
    int code =
        Main.run(
            new PrintStream(OutputStream.nullOutputStream()),
            new PrintStream(problems, true, StandardCharsets.UTF_8),
            "log",
            file,
            "--board",
            board,
            line);
    if (code != 0 && code != 2) {
      throw new AssertionError(
          "log '"
              + line
              + "' ended with "
              + code
              + ": "
              + problems.toString(StandardCharsets.UTF_8));
    }
  }

  @Override
  public void close() {}
}
