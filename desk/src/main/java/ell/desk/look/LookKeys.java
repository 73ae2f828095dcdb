package ell.desk.look;

import ell.core.look.DefectKind;
import ell.desk.key.Command;
import ell.desk.shell.FileAsker;
import java.util.ArrayList;
import java.util.List;
import java.util.function.BooleanSupplier;

/// What can be done by key on the walk.
final class LookKeys {
  private LookKeys() {}

  static List<Command> of(LookModel look, FileAsker files, BooleanSupplier here) {
    BooleanSupplier stop = () -> here.getAsBoolean() && look.hasStop();
    List<Command> all = new ArrayList<>();
    for (DefectKind k : DefectKind.values()) {
      if (!k.letter().isEmpty()) {
        all.add(
            Command.of("defect-" + k.word(), "Look", k.word(), k.letter(), () -> look.defect(k))
                .when(stop));
      }
    }
    all.add(
        Command.of("part-good", "Look", "rest of the part good", "G", look::restOfPart)
            .inLine()
            .when(stop));
    all.add(
        Command.of("board-good", "Look", "rest of the board good", "Shift+G", look::restOfBoard)
            .inLine()
            .when(here));
    all.add(
        Command.of("mend", "Look", "mended", "E", look::mend)
            .inLine()
            .when(() -> here.getAsBoolean() && look.canMend()));
    all.add(
        Command.of("brief", "Look", "risky joints, or all", "Q", look::brief).inLine().when(here));
    all.add(
        Command.of(
                "photograph",
                "Look",
                "photograph",
                "Shift+P",
                () -> files.photograph().ifPresent(look::photograph))
            .inLine()
            .when(stop));
    all.add(Command.of("look-sheet", "Look", "other sheet", "A", look::nextSheet).when(here));
    return List.copyOf(all);
  }
}
