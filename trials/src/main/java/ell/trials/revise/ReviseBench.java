package ell.trials.revise;

import ell.core.board.Joint;
import ell.core.board.NetDifference;
import ell.core.board.Outline;
import ell.core.board.Part;
import ell.core.board.Revision;
import ell.core.board.Side;
import ell.core.revise.difference.RevisionDifference;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Random;

/// Two drawings of a large board held against each other, one of them numbered and named anew,
/// against the difference of their netlists by names alone.
public final class ReviseBench {
  private static final int PARTS = 2000;
  private static final double LIMIT = 10;

  private ReviseBench() {}

  /// One line of a report.
  ///
  /// @param held whether it is as it is wanted
  public record Line(String text, boolean held) {}

  /// Runs it.
  public static List<Line> run() {
    Revision was = board("R", 0);
    Revision now = board("R", 1); // each part has the number of the next
    RevisionDifference.of(was, now);
    long from = System.nanoTime();
    RevisionDifference d = RevisionDifference.of(was, now);
    double seconds = (System.nanoTime() - from) / 1e9;
    long then = System.nanoTime();
    NetDifference names = NetDifference.of(was.joints(), now.joints());
    double plain = (System.nanoTime() - then) / 1e9;
    return List.of(
        new Line(
            String.format(
                Locale.ROOT,
                "revise: %d parts, all numbered and named anew, in %.2f s: %d changes, %.0f times the"
                    + " difference by names, which finds %d",
                PARTS,
                seconds,
                d.joints().size() + d.moved().size() + d.added().size(),
                seconds / plain,
                names.moved().size()),
            d.same() && seconds < LIMIT));
  }

  private static Revision board(String kind, int turn) {
    Random q = new Random(7);
    List<Part> parts = new ArrayList<>();
    List<Joint> joints = new ArrayList<>();
    for (int i = 0; i < PARTS; i++) {
      String ref = kind + ((i + turn) % PARTS + 1);
      double x = 2.5 * (i % 50);
      double y = 2.5 * (i / 50);
      parts.add(
          new Part(
              ref,
              q.nextInt(40) + "k",
              "0402",
              "",
              "",
              true,
              false,
              List.of(),
              "",
              Optional.of(new Part.Spot(x, y, 0, Side.FIRST)),
              Double.NaN,
              Double.NaN));
      for (int pin = 1; pin <= 2; pin++) {
        int net = pin == 1 && i % 9 == 0 ? 0 : 1 + q.nextInt(PARTS / 2);
        joints.add(
            new Joint(
                ref,
                String.valueOf(pin),
                (turn == 0 ? "S" : "T") + net,
                x + pin,
                y,
                Joint.Reach.FIRST,
                false,
                0,
                false,
                0.5,
                0.5,
                0,
                false,
                0));
      }
    }
    return new Revision("LARGE", String.valueOf(turn), parts, joints, new Outline(List.of()));
  }
}
