package ell.cli.power;

import ell.book.RevisionStore;
import ell.cli.shell.Exit;
import ell.cli.shell.Which;
import ell.cli.shell.WorkspaceCommand;
import ell.core.power.PowerJson;
import ell.work.Workshop;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;

/// The power ladder of a revision as JSON, to read and to correct.
@Command(name = "ladder", description = "the power ladder as JSON; --set F keeps a corrected one")
public final class LadderCommand extends WorkspaceCommand {
  @Mixin Which which;

  @Option(names = "--set", description = "a corrected ladder, JSON")
  Optional<Path> set = Optional.empty();

  @Option(names = "--set-faults", description = "faults for the simulated bench, JSON")
  Optional<Path> faults = Optional.empty();

  @Override
  public Integer call() throws Exception {
    if (set.isEmpty() && faults.isEmpty()) {
      try (Workshop w = Workshop.look(file)) {
        RevisionStore.Id id = which.id(w);
        print(PowerJson.tree(w.ladder(id.design(), id.name())));
      }
      return Exit.DONE;
    }
    try (Workshop w = Workshop.open(file, Clock.systemDefaultZone())) {
      RevisionStore.Id id = which.id(w);
      w.space()
          .whole(() -> {
            if (set.isPresent()) {
              w.ladders().keep(id.design(), id.name(), Files.readString(set.get()));
            }
            if (faults.isPresent()) {
              w.ladders().keepFaults(id.design(), id.name(), Files.readString(faults.get()));
            }
          });
      if (json) {
        print(PowerJson.tree(w.ladder(id.design(), id.name())));
      } else {
        out().println("kept with " + id.design() + " rev " + id.name());
      }
    }
    return Exit.DONE;
  }
}
