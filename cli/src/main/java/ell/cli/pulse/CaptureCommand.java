package ell.cli.pulse;

import ell.cli.shell.Exit;
import ell.cli.shell.Given;
import ell.cli.shell.WorkspaceCommand;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.pulse.PulseFacts;
import ell.core.quantity.Unit;
import ell.work.Workshop;
import ell.work.space.ActException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/// Keeps a capture file as that of a place of a board.
@Command(
    name = "capture",
    description = "keep a capture file as that of a place of a board, measured and judged")
public final class CaptureCommand extends WorkspaceCommand {
  @Parameters(
      index = "1",
      arity = "0..1",
      paramLabel = "FILE",
      description = "the capture, CSV or VCD")
  Optional<Path> capture = Optional.empty();

  @Option(
      names = "--out",
      paramLabel = "FILE",
      description = "write the latest capture of the place as it was kept, in place of keeping one")
  Optional<Path> to = Optional.empty();

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
    if (capture.isPresent() == to.isPresent()) {
      throw new ActException(
          "give a capture file to keep, or --out FILE to write one that is kept");
    }
    if (to.isPresent()) {
      return written();
    }
    double band = Given.value(bandwidth, Unit.HERTZ).orElse(0.0);
    try (Workshop w = open()) {
      Logged l =
          w.captures()
              .keep(
                  w.plan(w.buildOf(board)).pulse(),
                  board,
                  place,
                  capture.orElseThrow(),
                  channel,
                  band,
                  spec.commandLine().getErr()::println);
      return new CaptureText(out(), json).print(l);
    }
  }

  private int written() throws Exception {
    try (Workshop w = look()) {
      Entry.Capture c =
          PulseFacts.of(w.state(board))
              .at(place)
              .orElseThrow(
                  () -> new ActException("board " + board + " has no capture of " + place));
      byte[] body = w.captures().body(c);
      if (Files.exists(to.orElseThrow())) {
        throw new ActException(to.get() + " is there already: nothing is written over");
      }
      Files.write(to.get(), body);
      out().println("the capture " + c.name() + " of " + place + " is in " + to.get());
      return Exit.DONE;
    }
  }
}
