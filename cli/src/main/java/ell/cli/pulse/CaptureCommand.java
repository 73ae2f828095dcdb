package ell.cli.pulse;

import ell.cli.shell.Given;
import ell.cli.shell.WorkspaceCommand;
import ell.core.entry.Logged;
import ell.core.quantity.Unit;
import ell.work.Workshop;
import java.nio.file.Path;
import java.time.Clock;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/// Keeps a capture file as that of a place of a board.
@Command(
    name = "capture",
    description = "keep a capture file as that of a place of a board, measured and judged")
public final class CaptureCommand extends WorkspaceCommand {
  @Parameters(index = "1", paramLabel = "FILE", description = "the capture, CSV or VCD")
  Path capture;

  @Option(names = "--board", required = true, description = "serial of the board")
  String board;

  @Option(names = "--place", required = true, description = "a net, or a joint such as U3.4")
  String place;

  @Option(names = "--channel", description = "of the file, where it has several")
  Optional<String> channel = Optional.empty();

  @Option(names = "--bandwidth", description = "of the instrument, such as 100MHz")
  Optional<String> bandwidth = Optional.empty();

  @Override
  public Integer call() throws Exception {
    double band = Given.value(bandwidth, Unit.HERTZ).orElse(0.0);
    try (Workshop w = Workshop.open(file, Clock.systemDefaultZone())) {
      Logged l =
          w.captures()
              .keep(
                  w.plan(w.buildOf(board)).pulse(),
                  board,
                  place,
                  capture,
                  channel,
                  band,
                  spec.commandLine().getErr()::println);
      return new CaptureText(out(), json).print(l);
    }
  }
}
