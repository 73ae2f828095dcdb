package ell.cli.book;

import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.WorkspaceCommand;
import ell.work.Workshop;
import ell.work.send.Restore;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

/// The workspace of an export, made again.
@Command(
    name = "restore",
    description = "make the workspace of an export again, entry for entry, in a new or empty file")
public final class RestoreCommand extends WorkspaceCommand {
  @Option(names = "--from", required = true, description = "the folder of the export")
  Path from;

  @Override
  public Integer call() throws Exception {
    boolean made = !Files.exists(file);
    boolean whole = false;
    try (Workshop w =
        made
            ? Workshop.create(file, Clock.systemDefaultZone())
            : Workshop.open(file, Clock.systemDefaultZone())) {
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
      if (made && !whole) {
        Files.deleteIfExists(file); // nothing half done is left behind
      }
    }
    return Exit.DONE;
  }
}
