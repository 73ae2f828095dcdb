package ell.core;

import ell.core.board.Joint;
import ell.core.board.Outline;
import ell.core.board.Part;
import ell.core.board.Revision;
import ell.core.board.Side;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;

/// Makes boards at random, awkward ones included: parts without a place, without joints, on top of
/// each other, left off, of unknown packages, nets of one joint.
public final class RandomBoards {
  private static final String[] PACKAGES = {
    "0402",
    "0603",
    "0805",
    "1206",
    "SOIC-8",
    "LQFP-48",
    "SOT-23",
    "TERM-2",
    "MOD-20x15x8mm",
    "",
    "odd",
    "RADIAL-6.3"
  };
  private static final String[] KINDS = {
    "R", "C", "L", "D", "U", "J", "Y", "M", "FB", "LED", "SW", "X9"
  };
  private static final String[] NETS = {
    "GND", "3V3", "5V0", "VIN", "VBAT", "AGND", "N1", "N2", "N3", "N4", "N5", "N6", "N7", "N8", ""
  };

  private RandomBoards() {}

  /// A board with about `parts` parts.
  public static Revision make(Random random, int parts) {
    List<Part> made = new ArrayList<>();
    List<Joint> joints = new ArrayList<>();
    double side = 5 * Math.sqrt(parts) + 5;
    for (int i = 0; i < parts; i++) {
      String ref = KINDS[random.nextInt(KINDS.length)] + (i + 1);
      String shape = PACKAGES[random.nextInt(PACKAGES.length)];
      Side s = random.nextInt(3) == 0 ? Side.SECOND : Side.FIRST;
      double x = random.nextDouble() * side;
      double y = random.nextDouble() * side;
      Optional<Part.Spot> spot =
          random.nextInt(20) == 0
              ? Optional.empty()
              : Optional.of(new Part.Spot(x, y, 90 * random.nextInt(4), s));
      made.add(
          new Part(
              ref,
              random.nextBoolean() ? "10k" : "100n",
              shape,
              "CODE" + random.nextInt(1 + parts / 3),
              "",
              random.nextInt(10) > 0,
              false,
              List.of(),
              random.nextInt(3) == 0 ? "block" + random.nextInt(3) : "",
              spot,
              Double.NaN,
              Double.NaN));
      int pins = random.nextInt(12) == 0 ? 0 : random.nextInt(4) == 0 ? 8 : 2;
      boolean hole = random.nextInt(4) == 0;
      for (int p = 1; p <= pins; p++) {
        joints.add(
            new Joint(
                ref,
                String.valueOf(p),
                NETS[random.nextInt(NETS.length)],
                x + p * 0.6,
                y,
                hole ? Joint.Reach.BOTH : s == Side.FIRST ? Joint.Reach.FIRST : Joint.Reach.SECOND,
                hole,
                hole ? 0.9 : 0,
                true,
                0.5,
                0.5,
                0,
                false,
                0));
      }
    }
    return new Revision("RB", "1", made, joints, Outline.UNKNOWN);
  }
}
