package ell.desk.print;

import ell.core.entry.PasteLook;
import ell.desk.key.Command;
import ell.desk.shell.DeskModel;
import ell.desk.shell.FileAsker;
import java.nio.file.Path;
import java.util.List;
import java.util.function.BooleanSupplier;

/// What can be done by key at the print.
final class PrintKeys {
  private PrintKeys() {}

  static List<Command> of(DeskModel desk, PrintModel print, FileAsker files, BooleanSupplier here) {
    BooleanSupplier told = () -> here.getAsBoolean() && print.canTell();
    return List.of(
        Command.of("wipe", "Print", "foil wiped before this print", "W", print::wipe)
            .inLine()
            .when(here),
        Command.of("paste-missing", "Print", "missing", "E", () -> print.looks(PasteLook.MISSING))
            .inLine()
            .when(told),
        Command.of("paste-thin", "Print", "thin", "T", () -> print.looks(PasteLook.THIN))
            .inLine()
            .when(told),
        Command.of("paste-smeared", "Print", "smeared", "S", () -> print.looks(PasteLook.SMEARED))
            .inLine()
            .when(told),
        Command.of("paste-bridged", "Print", "bridged", "J", () -> print.looks(PasteLook.BRIDGED))
            .inLine()
            .when(told),
        Command.of("paste-good", "Print", "good", "G", () -> print.looks(PasteLook.GOOD))
            .when(told),
        Command.of("jar", "Print", "jar of paste", "P", () -> desk.tape().begin(print.jarLine()))
            .inLine()
            .when(here),
        Command.of(
                "take-layers",
                "Print",
                "take in layers",
                "L",
                () -> {
                  List<Path> chosen = files.revisionFiles();
                  if (!chosen.isEmpty()) {
                    print.take(chosen);
                  }
                })
            .when(here),
        Command.of("thinner", "Print", "thinner foil", "Shift+Left", () -> print.foil(-1))
            .when(here),
        Command.of("thicker", "Print", "thicker foil", "Shift+Right", () -> print.foil(1))
            .when(here),
        Command.of("print-turn", "Print", "look at the other side", "V", print::turnOver)
            .when(here),
        Command.of("print-sheet", "Print", "other sheet", "M", print::nextSheet).when(here));
  }
}
