package ell.desk.talk;

import ell.desk.key.Command;
import ell.desk.shell.FileAsker;
import ell.desk.shell.Host;
import java.util.List;
import java.util.function.BooleanSupplier;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;

/// What can be done by key at the line.
final class TalkKeys {
  private TalkKeys() {}

  private static void copy(TalkModel talk) {
    ClipboardContent c = new ClipboardContent();
    c.putString(String.join("\n", talk.changes()) + "\n");
    Clipboard.getSystemClipboard().setContent(c);
    talk.copied();
  }

  static List<Command> of(TalkModel talk, FileAsker files, Host host, BooleanSupplier here) {
    BooleanSupplier open = () -> here.getAsBoolean() && talk.runs();
    BooleanSupplier shut = () -> here.getAsBoolean() && !talk.runs();
    return List.of(
        Command.of("talk-turn", "Talk", "line, links, pins, chain", "M", talk::turn)
            .inLine()
            .when(here),
        Command.of("talk-open", "Talk", "type over it", "T", talk::open).inLine().when(shut),
        Command.of("talk-close", "Talk", "close the line", "X", talk::stop).inLine().when(open),
        Command.of("talk-yes", "Talk", "it is so", "Y", talk::yes)
            .inLine()
            .when(() -> here.getAsBoolean() && talk.asks()),
        Command.of(
                "talk-take",
                "Talk",
                "a script or table",
                "L",
                () -> files.script().ifPresent(talk::take))
            .inLine()
            .when(shut),
        Command.of("talk-copy", "Talk", "copy the changes of the code", "C", () -> copy(talk))
            .inLine()
            .when(() -> here.getAsBoolean() && !talk.changes().isEmpty()),
        Command.of(
                "talk-say",
                "Talk",
                "say more",
                "W",
                () -> host.lay(TalkEditor.of(talk, host::clear)))
            .inLine()
            .when(here));
  }
}
