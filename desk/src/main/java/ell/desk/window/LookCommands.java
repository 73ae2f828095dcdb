package ell.desk.window;

import ell.core.look.DefectKind;
import ell.core.rack.Stage;
import ell.desk.key.Command;
import ell.desk.look.LookModel;
import ell.desk.shell.DeskModel;
import java.util.ArrayList;
import java.util.List;
import java.util.function.BooleanSupplier;



/// What can be done by key on the walk.
final class LookCommands {
  private LookCommands() {}

  static List<Command> of(DeskModel desk, LookModel look, FileAsker files) {
    BooleanSupplier here = () -> Commands.at(desk, Stage.LOOK);
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
        Command.of("part-good", "Look", "rest of the part good", "G", look::restOfPart).when(stop));
    all.add(
        Command.of("board-good", "Look", "rest of the board good", "Shift+G", look::restOfBoard)
            .when(here));
    all.add(
        Command.of("mend", "Look", "mended", "E", look::mend)
            .when(() -> here.getAsBoolean() && look.canMend()));
    all.add(Command.of("brief", "Look", "risky joints, or all", "Q", look::brief).when(here));
    all.add(
        Command.of(
                "photograph",
                "Look",
                "photograph",
                "Shift+P",
                () -> files.photograph().ifPresent(look::photograph))
            .when(stop));
    all.add(Command.of("look-sheet", "Look", "other sheet", "A", look::nextSheet).when(here));
    return List.copyOf(all);
  }
}
