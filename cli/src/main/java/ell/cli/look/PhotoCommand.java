package ell.cli.look;

import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.WorkspaceCommand;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.look.LookFacts;
import ell.work.Workshop;
import ell.work.look.Photographs;
import ell.work.space.ActException;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.node.ObjectNode;

/// Keeps a photograph of a place, or writes those that are kept.
@Command(name = "photo", description = "keep a photograph of a joint, or write those that are kept")
public final class PhotoCommand extends WorkspaceCommand {
  @Option(names = "--board", required = true, description = "serial of the board")
  String board;

  @Option(names = "--place", required = true, description = "part or part.pin")
  String place;

  @Option(names = "--out", description = "a folder into which those that are kept are written")
  Optional<Path> out = Optional.empty();

  @Parameters(index = "1", arity = "0..1", paramLabel = "FILE", description = "JPEG or PNG")
  Optional<Path> photograph = Optional.empty();

  @Override
  public Integer call() throws Exception {
    if (photograph.isPresent() == out.isPresent()) {
      throw new ActException("give a photograph to keep, or --out and a folder to write into");
    }
    try (Workshop w = out.isPresent() ? look() : open()) {
      String where =
          w.tape(w.plan(w.buildOf(board)))
              .places()
              .find(place)
              .orElseThrow(
                  () -> new ActException("there is no place '" + place + "' on this board"));
      if (out.isPresent()) {
        List<Entry.Photo> kept =
            LookFacts.of(w.state(board)).photos().getOrDefault(where, List.of());
        List<Path> files = Photographs.write(w.space(), kept, out.get());
        if (json) {
          ObjectNode o = Json.object();
          files.forEach(f -> o.withArray("files").add(f.toString()));
          print(o);
        } else {
          out().println(kept.size() + " photographs of " + where + " are in " + out.get());
        }
        return Exit.DONE;
      }
      Logged l = Photographs.keep(w.space(), board, where, photograph.get());
      if (json) {
        ObjectNode o = Json.object();
        o.set("entry", Json.entry(l));
        print(o);
      } else {
        out().println("entry " + l.number() + " · " + board + " · photograph of " + where);
      }
      return Exit.DONE;
    }
  }
}
