package ell.desk.talk;

import ell.desk.shell.SayEditor;
import java.util.List;

/// Links, operations, line, straps and memory, put right in a line.
final class TalkEditor {
  private TalkEditor() {}

  static SayEditor of(TalkModel model, Runnable close) {
    return new SayEditor(
        new SayEditor.Asks(
            "talk",
            "Links, operations and the line of this revision",
            model.said(),
            "One line, and Enter:",
            "",
            List.of(
                "link SJ1 solder closed",
                "operation program open SJ1 SJ2 out M1",
                "operation run closed SJ1 in M1 after program",
                "line U4 tx=U4.39 rx=U4.40 at=TP7,TP8 baud=115200",
                "strap U4.44 runs low",
                "memory U6 protect=U6.7 high",
                "shares M1 out=J6.4",
                "link SJ1 none")),
        model::say,
        close);
  }
}
