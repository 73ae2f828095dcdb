package ell.core.order;

import ell.core.quantity.Check;
import ell.core.sheet.Worked;
import java.util.List;

/// Several boards: one after the other, or each step on all of them. Step after step opens each
/// reel once and fills the plate; board after board spares reaching for the next board at every
/// step.
///
/// @param boards of the build
/// @param perPlate how many lie on the plate at once
/// @param boardAfterBoard seconds for all
/// @param stepAfterStep seconds for all
public record SeveralBoards(
    int boards, int perPlate, double boardAfterBoard, double stepAfterStep) {
  /// Compares the two.
  ///
  /// @param times of this bench
  /// @param perPlate 1 or more
  /// @param panel boards that hang together and are printed, melted and cut as one, 1 or more
  /// @throws IllegalArgumentException when boards, perPlate or panel is not above 0
  public static SeveralBoards of(
      List<Step> steps, StepTimes times, int boards, int perPlate, int panel) {
    Check.positive(boards, "boards");
    Check.positive(perPlate, "perPlate");
    Check.positive(panel, "panel");
    int panels = Math.ceilDiv(boards, panel);
    double one = 0;
    double all = 0;
    for (Step s : steps) {
      double f = times.factor(s.action());
      boolean shared =
          switch (s.action()) {
            case PASTE, REFLOW, CUT -> true;
            default -> false;
          };
      one += (shared ? panels : boards) * f * s.seconds();
      if (s.action() == Step.Action.REFLOW) {
        all += Math.ceilDiv(boards, Math.max(panel, perPlate)) * f * s.seconds();
      } else if (shared) {
        all += panels * f * s.seconds() + (panels - 1) * StepTimes.NEXT_BOARD;
      } else {
        all +=
            f * s.setup()
                + boards * f * (s.seconds() - s.setup())
                + (boards - 1) * StepTimes.NEXT_BOARD;
      }
    }
    return new SeveralBoards(boards, perPlate, one, all);
  }

  /// Whether each step is better done on all boards.
  public boolean stepwise() {
    return stepAfterStep < boardAfterBoard;
  }

  /// The comparison as a worked sheet.
  public Worked sheet() {
    return Worked.of("order.boards", "Several boards")
        .input("boards", (double) boards)
        .input("perPlate", (double) perPlate)
        .line("board after board", "boards · every step", boardAfterBoard / 60, "min")
        .line(
            "step after step",
            "reels once, plates filled, the rest · boards, 4 s to the next board",
            stepAfterStep / 60,
            "min")
        .result("boardAfterBoard", boardAfterBoard)
        .result("stepAfterStep", stepAfterStep)
        .result("pick", stepwise() ? "step after step" : "board after board")
        .source("typical times, no source, corrected by the book")
        .done();
  }
}
