package ell.cli.power;

import ell.book.RevisionStore;
import ell.cli.shell.Exit;
import ell.cli.shell.Which;
import ell.cli.shell.WorkspaceCommand;
import ell.core.board.Folded;
import ell.core.entry.EntryWords;
import ell.core.entry.Logged;
import ell.core.power.LadderSaid;
import ell.core.power.PowerJson;
import ell.work.Workshop;
import ell.work.power.PartsFile;
import ell.work.space.ActException;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;

/// The power ladder of a revision as JSON, to read and to correct.
@Command(
    name = "ladder",
    description =
        "the power ladder as JSON; --rail, --source, --load, --regulator and"
            + " --not-a-rail put one thing right, --set F keeps a whole one")
public final class LadderCommand extends WorkspaceCommand {
  @Mixin Which which;

  @Option(names = "--set", description = "a corrected ladder, JSON")
  Optional<Path> set = Optional.empty();

  @Option(names = "--set-faults", description = "faults for the simulated bench, JSON")
  Optional<Path> faults = Optional.empty();

  @Option(
      names = "--rail",
      paramLabel = "NET=VOLTS",
      description = "how many volts a rail has: BAT+=3.0..4.25, 5V_SW=5V, V12=12V+-2%%, N12=-12V")
  List<String> rails = new ArrayList<>();

  @Option(
      names = "--source",
      paramLabel = "PLACE=VOLTS",
      description = "where power comes in, the first said is what the supply feeds: J1.1=12V")
  List<String> sources = new ArrayList<>();

  @Option(
      names = "--load",
      paramLabel = "PART=AMPS",
      description = "what a part draws: U3=80mA, or U3=20mA,worst=80mA,rail=3V3")
  List<String> loads = new ArrayList<>();

  @Option(
      names = "--regulator",
      paramLabel = "PART=...",
      description =
          "what a regulator gives: U2=3.3V,600mA,dropout=0.3, also in=NET, out=NET, switching,"
              + " efficiency=90%%")
  List<String> regulators = new ArrayList<>();

  @Option(
      names = "--not-a-rail",
      paramLabel = "NET",
      description = "a net that is named like a rail and is none")
  List<String> notRails = new ArrayList<>();

  @Option(
      names = "--part",
      paramLabel = "PART=...",
      description =
          "how a part acts: Q1=n-channel,threshold=1.1V,on=40mohm, U2=enable=3,foldback=0.3,"
              + " C4=series=2ohm, BT1=cell,empty=2.0,full=3.0,charge=220mAh")
  List<String> parts = new ArrayList<>();

  @Option(
      names = "--parts",
      paramLabel = "FILE",
      description = "the same from a file, a line for each part: Q1,n-channel,threshold=1.1V")
  Optional<Path> partsFile = Optional.empty();

  @Option(names = "--as-proposed", description = "forget what was said of the ladder")
  boolean asProposed;

  private List<String> said() throws IOException, ActException {
    List<String> all = new ArrayList<>();
    rails.forEach(t -> all.add(LadderSaid.About.RAIL.word() + " " + t));
    sources.forEach(t -> all.add(LadderSaid.About.SOURCE.word() + " " + t));
    regulators.forEach(t -> all.add(LadderSaid.About.REGULATOR.word() + " " + t));
    loads.forEach(t -> all.add(LadderSaid.About.LOAD.word() + " " + t));
    parts.forEach(t -> all.add(LadderSaid.About.PART.word() + " " + t));
    if (partsFile.isPresent()) {
      PartsFile.read(partsFile.get()).forEach(t -> all.add(LadderSaid.About.PART.word() + " " + t));
    }
    notRails.forEach(t -> all.add(LadderSaid.About.NOT_A_RAIL.word() + " " + t));
    return all;
  }

  @Override
  public Integer call() throws Exception {
    List<String> said = said();
    if (set.isEmpty() && faults.isEmpty() && said.isEmpty() && !asProposed) {
      try (Workshop w = look()) {
        RevisionStore.Id id = which.id(w);
        print(PowerJson.tree(w.ladder(id.design(), id.name())));
      }
      return Exit.DONE;
    }
    try (Workshop w = open()) {
      RevisionStore.Id id = which.id(w);
      List<Logged> again = new ArrayList<>();
      w.space()
          .whole(() -> {
            if (set.isPresent()) {
              again.addAll(w.keepLadder(id.design(), id.name(), Files.readString(set.get())));
            }
            if (asProposed) {
              w.ladders().unsay(id.design(), id.name());
            }
            if (!said.isEmpty()) {
              again.addAll(w.say(id.design(), id.name(), said));
            }
            if (faults.isPresent()) {
              w.ladders().keepFaults(id.design(), id.name(), Files.readString(faults.get()));
            }
          });
      if (json) {
        print(PowerJson.tree(w.ladder(id.design(), id.name())));
      } else {
        out().println("kept with " + id.design() + " rev " + id.name());
        again.forEach(l ->
            out()
                .println(
                    "board "
                        + l.board()
                        + ", entry "
                        + l.number()
                        + " · "
                        + EntryWords.of(l.entry())));
        if (!said.isEmpty()) {
          Folded.assumptions(w.ladder(id.design(), id.name()).assumptions())
              .forEach(a -> out().println("still taken for granted: " + a));
        }
      }
    }
    return Exit.DONE;
  }
}
