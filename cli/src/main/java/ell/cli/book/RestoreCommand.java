package ell.cli.book;

import ell.book.Book;
import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.WorkspaceCommand;
import ell.work.Workshop;
import ell.work.send.Restore;
import ell.work.space.ActException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.node.ObjectNode;

/// The workspace of an export made again, or a backup put back in its place.
@Command(
    name = "restore",
    description =
        "restore BACKUP WS puts a backup back in its place; restore WS --from DIR makes the"
            + " workspace of an export again, entry for entry, in a new or empty file")
public final class RestoreCommand extends WorkspaceCommand {
  @Option(names = "--from", description = "the folder of the export")
  Optional<Path> from = Optional.empty();

  @Parameters(
      index = "1",
      arity = "0..1",
      paramLabel = "PLACE",
      description = "where the backup goes; what is there is kept beside it")
  Optional<Path> place = Optional.empty();

  @Override
  public Integer call() throws Exception {
    if (from.isPresent() == place.isPresent()) {
      throw new ActException(
          "say: restore BACKUP WS, or: restore WS --from and the folder of an export");
    }
    return from.isPresent() ? made(from.get()) : putBack(place.get());
  }

  private int putBack(Path to) throws Exception {
    Optional<Path> kept = Book.putBack(file.fileOnly(), to);
    try (Workshop w = Workshop.look(to)) {
      if (json) {
        ObjectNode o = Json.object().put("workspace", to.toString());
        o.put("entries", w.book().size()).put("seal", w.book().seal());
        kept.ifPresent(k -> o.put("kept", k.toString()));
        print(o);
      } else {
        out().println(to + " holds " + w.book().size() + " entries, seal " + w.book().seal());
        kept.ifPresent(k -> out().println("what was there is " + k));
      }
    }
    return Exit.DONE;
  }

  private int made(Path from) throws Exception {
    boolean made = file.file().map(f -> !Files.exists(f)).orElse(true);
    boolean whole = false;
    try (Workshop w = made ? Workshop.create(file, Clock.systemDefaultZone()) : open()) {
      Restore.read(from, w);
      whole = true;
      if (json) {
        print(
            Json.object()
                .put("workspace", file.toString())
                .put("entries", w.book().size())
                .put("seal", w.book().seal()));
      } else {
        out().println(file + " holds " + w.book().size() + " entries, seal " + w.book().seal());
      }
    } finally {
      if (made && !whole && file.file().isPresent()) {
        Path gone = file.file().get();
        for (String end : new String[] {"", "-wal", "-shm", "-lock"}) {
          // nothing half done is left behind
          Files.deleteIfExists(gone.resolveSibling(gone.getFileName() + end));
        }
      }
    }
    return Exit.DONE;
  }
}
