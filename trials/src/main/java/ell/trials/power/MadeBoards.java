package ell.trials.power;

import ell.core.board.Joint;
import ell.core.board.Outline;
import ell.core.board.Part;
import ell.core.board.Revision;
import ell.core.board.Side;
import ell.core.power.Ladder;
import ell.core.power.LadderProposal;
import ell.core.power.LadderSaid;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;

/// Boards made from a seed: a plug, a fuse or a diode, a converter, a linear regulator, capacitors
/// with their volts, lamps, dividers, chips. Everything that the bill of a real board would say is
/// said.
public final class MadeBoards {
  private final Random random;
  private final List<Part> parts = new ArrayList<>();
  private final List<Joint> joints = new ArrayList<>();
  private final List<String> said = new ArrayList<>();
  private int row;

  /// A board and its ladder.
  public record Made(Revision revision, Ladder ladder) {}

  private MadeBoards(long seed) {
    random = new Random(seed);
  }

  /// The board of a seed.
  public static Made of(long seed) {
    return new MadeBoards(seed).make(seed);
  }

  private void part(String reference, String value, String shape, String words, String... nets) {
    double y = 3 * row++;
    parts.add(
        new Part(
            reference,
            value,
            shape,
            value + " " + shape,
            words,
            true,
            false,
            List.of(),
            "",
            Optional.of(new Part.Spot(0, y, 0, Side.FIRST)),
            Double.NaN,
            Double.NaN));
    for (int i = 0; i < nets.length; i++) {
      joints.add(
          new Joint(
              reference,
              "" + (i + 1),
              nets[i],
              2.0 * i,
              y,
              Joint.Reach.FIRST,
              false,
              0,
              true,
              1,
              1,
              0,
              false,
              0));
    }
  }

  private Made make(long seed) {
    double in = new double[] {5, 9, 12, 24}[random.nextInt(4)];
    part("J1", "plug", "HEADER-2", "", "VIN", "GND");
    String from = "VIN";
    switch (random.nextInt(3)) {
      case 0 -> {
        part("F1", "1A", "1206", "fuse", "VIN", "VF");
        from = "VF";
      }
      case 1 -> {
        part("D1", "SK24", "SMA", "Schottky 2A", "VF", "VIN");
        from = "VF";
      }
      default -> {} // nothing between
    }
    String bears = in > 15 ? "35V" : in > 8 ? "25V" : "16V";
    part("C1", "100u " + bears, "RADIAL-8", "electrolytic", from, "GND");
    part("C2", "1u " + bears, "0805", "", from, "GND");
    said.add("source VIN=" + (int) in + "V");
    String logic = from;
    int u = 1;
    if (in > 6) {
      boolean buck = random.nextBoolean();
      part("U" + u, buck ? "CONV-5" : "REG-5", "SOIC-8", "5V", from, "GND", buck ? "SW" : "5V");
      if (buck) {
        part("L1", "10u 2A", "6060", "", "SW", "5V");
      }
      said.add(
          "regulator U"
              + u++
              + "=5V,"
              + (buck ? "1A,switching,efficiency=0.87" : "500mA,linear,dropout=1.1")
              + ",in="
              + from
              + ",out=5V");
      part("C3", "47u 10V", "1210", "", "5V", "GND");
      part("C4", "100n 25V", "0603", "", "5V", "GND");
      logic = "5V";
    }
    part("U" + u, "REG-3V3", "SOT-223", "3V3 linear", logic, "GND", "3V3");
    said.add("regulator U" + u++ + "=3.3V,400mA,dropout=0.3,in=" + logic + ",out=3V3");
    part("C5", "10u 6.3V", "0805", "", "3V3", "GND");
    for (int i = 0; i < 2 + random.nextInt(3); i++) {
      part("C" + (10 + i), "100n 16V", "0402", "", "3V3", "GND");
    }
    for (int i = 0; i < 1 + random.nextInt(3); i++) {
      String rail = random.nextBoolean() ? "3V3" : logic;
      part("U" + u, "CHIP", "SOIC-8", "", rail, "GND", "N" + u, "M" + u);
      part("R" + (10 + u), "10k 1%", "0402", "", "N" + u, rail);
      part("R" + (20 + u), "22k 1%", "0402", "", "M" + u, "GND");
      said.add("load U" + u++ + "=" + (2 + random.nextInt(40)) + "mA");
    }
    part("R1", logic.equals("5V") ? "1k 5%" : "2k2 5%", "0603", "", logic, "A1");
    part("D2", "red", "0603", "LED", "GND", "A1");
    part("R2", "470 5%", "0603", "", "3V3", "A2");
    part("D3", "green", "0603", "LED", "GND", "A2");
    Revision r = new Revision("M" + seed, "1", parts, joints, Outline.UNKNOWN);
    return new Made(r, LadderProposal.of(r, LadderSaid.read(said, r)));
  }
}
