package ell.trials.doors;

import ell.core.board.Joint;
import ell.core.board.Outline;
import ell.core.board.Part;
import ell.core.board.Revision;
import ell.core.board.Side;
import ell.core.heat.Alloy;
import ell.core.kit.ShelfLine;
import ell.core.order.Method;
import ell.work.Workshop;
import ell.work.bring.RevisionImport;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// A board of a few parts on both sides, whose regulator is short on the shelf: quick to plan, and
/// with something for every rule of the work to say. Invented.
final class SmallBoard {
  static final List<String> BOARDS = List.of("01", "02", "03");

  private SmallBoard() {}

  /// Makes a workspace with a build of three boards.
  static void make(Path file, Clock clock) throws Exception {
    try (Workshop w = Workshop.create(file, clock)) {
      w.revisions()
          .store(
              new RevisionImport.Outcome.Whole(
                  revision(), Optional.of(shelf()), Map.of(), List.of()));
      w.revisions().build("SB", "1", 3, Method.STENCIL_PLATE, Alloy.SAC305, "", "");
    }
  }

  private static List<ShelfLine> shelf() {
    return List.of(
        line("R1K", 100, ShelfLine.Kind.PART),
        line("C100N", 100, ShelfLine.Kind.PART),
        line("LED-RED", 100, ShelfLine.Kind.PART),
        line("TERM2", 100, ShelfLine.Kind.PART),
        line("PASTE-A", 1, ShelfLine.Kind.JAR));
  }

  private static ShelfLine line(String code, int n, ShelfLine.Kind kind) {
    return new ShelfLine(0, code, n, "", 0, Optional.empty(), Optional.empty(), kind, 0);
  }

  static Revision revision() {
    List<Part> parts = new ArrayList<>();
    List<Joint> joints = new ArrayList<>();
    add(parts, joints, "J1", "TERM", "TERM2", "TERMINAL-2P", Side.FIRST, true, "VIN", "GND");
    add(parts, joints, "U1", "LDO 3.3", "LDO33", "SOT-23", Side.FIRST, false, "VIN", "3V3", "GND");
    add(parts, joints, "C1", "100n", "C100N", "0603", Side.FIRST, false, "VIN", "GND");
    add(parts, joints, "C2", "100n", "C100N", "0603", Side.SECOND, false, "3V3", "GND");
    add(parts, joints, "R1", "1k", "R1K", "0603", Side.FIRST, false, "3V3", "LED");
    add(parts, joints, "R2", "1k", "R1K", "0603", Side.SECOND, false, "3V3", "GND");
    add(parts, joints, "D1", "red", "LED-RED", "0603", Side.FIRST, false, "LED", "GND");
    return new Revision("SB", "1", parts, joints, Outline.UNKNOWN);
  }

  private static void add(
      List<Part> parts,
      List<Joint> joints,
      String reference,
      String value,
      String code,
      String shape,
      Side side,
      boolean hole,
      String... nets) {
    double x = 6 * parts.size();
    parts.add(
        new Part(
            reference,
            value,
            shape,
            code,
            "",
            true,
            false,
            List.of(),
            "",
            Optional.of(new Part.Spot(x, 0, 0, side)),
            Double.NaN,
            Double.NaN));
    for (int i = 0; i < nets.length; i++) {
      joints.add(
          new Joint(
              reference,
              String.valueOf(i + 1),
              nets[i],
              x + i,
              0,
              hole ? Joint.Reach.BOTH : side == Side.FIRST ? Joint.Reach.FIRST : Joint.Reach.SECOND,
              hole,
              hole ? 1 : 0,
              true,
              0.9,
              0.9,
              0,
              false,
              0));
    }
  }
}
