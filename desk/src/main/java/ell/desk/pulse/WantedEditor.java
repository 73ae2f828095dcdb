package ell.desk.pulse;

import ell.desk.shell.SayEditor;
import java.util.List;

/// What should be seen at a place, put right in a line.
final class WantedEditor {
  private WantedEditor() {}

  static SayEditor of(PulseModel model, Runnable close) {
    return new SayEditor(
        new SayEditor.Asks(
            "wanted",
            "What should be seen on the lines of this revision",
            model.said(),
            "One place, then what should be there, and Enter:",
            model.placeInHand().isEmpty() ? "" : model.placeInHand() + " ",
            List.of(
                "CLK clock=2MHz within=100ppm family=cmos3.3",
                "CLK rise=..5ns overshoot=..0.2",
                "CLK from=U1.3 driver=25ohm edge=3ns length=0.48m z0=120ohm velocity=0.61",
                "signature U1.7 period=45us..55us bad: restarts, alive, no program",
                "stack height=0.2mm er=4.3",
                "CLK none",
                "families: " + String.join(", ", model.families()))),
        model::say,
        close);
  }
}
