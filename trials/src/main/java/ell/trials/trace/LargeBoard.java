package ell.trials.trace;

import ell.core.board.Joint;
import ell.core.board.Outline;
import ell.core.board.Part;
import ell.core.board.Revision;
import ell.core.board.Side;
import ell.core.power.Ladder;
import ell.core.power.LadderProposal;
import ell.core.power.LadderSaid;
import ell.core.pulse.PulsePlan;
import ell.core.talk.TalkPlan;
import ell.core.trace.Board;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// A board of as many parts as is asked for: two regulators, and the same little block again and
/// again: a chip with its capacitor, a divider, a lamp, a resistor that pulls up.
public final class LargeBoard {
  private final List<Part> parts = new ArrayList<>();
  private final List<Joint> joints = new ArrayList<>();

  private LargeBoard() {}

  /// One.
  ///
  /// @param most parts, about
  public static Board of(int most) {
    return new LargeBoard().make(most);
  }

  private void part(String reference, String value, String shape, String words, String... nets) {
    int n = parts.size();
    double x = 6.0 * (n % 20);
    double y = 6.0 * (n / 20);
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
            Optional.of(new Part.Spot(x, y, 0, Side.FIRST)),
            Double.NaN,
            Double.NaN));
    for (int i = 0; i < nets.length; i++) {
      joints.add(
          new Joint(
              reference,
              "" + (i + 1),
              nets[i],
              x + 0.65 * (i % 4),
              y + 2.0 * (i / 4),
              Joint.Reach.FIRST,
              false,
              0,
              true,
              0.4,
              0.6,
              0,
              false,
              0));
    }
  }

  private Board make(int most) {
    List<String> said = new ArrayList<>();
    part("J1", "plug", "HEADER-2", "", "VIN", "GND");
    part("U1", "CONV-5", "SOIC-8", "5V", "VIN", "GND", "SW");
    part("L1", "10u 2A", "6060", "", "SW", "5V");
    part("U2", "REG-3V3", "SOT-223", "3V3 linear", "5V", "GND", "3V3");
    part("C1", "47u 25V", "1210", "", "VIN", "GND");
    part("C2", "47u 10V", "1210", "", "5V", "GND");
    part("C3", "10u 6.3V", "0805", "", "3V3", "GND");
    said.add("source VIN=12V");
    said.add("regulator U1=5V,2A,switching,efficiency=0.87,in=VIN,out=5V");
    said.add("regulator U2=3.3V,800mA,dropout=0.3,in=5V,out=3V3");
    for (int b = 10; parts.size() + 7 <= most; b++) {
      part(
          "U" + b, "CHIP", "SOIC-8", "", "3V3", "GND", "D" + b, "L" + b, "E" + b, "S" + b, "T" + b,
          "GND");
      part("C" + b, "100n 16V", "0402", "", "3V3", "GND");
      part("R" + (2 * b), "10k 1%", "0402", "", "3V3", "D" + b);
      part("R" + (2 * b + 1), "22k 1%", "0402", "", "D" + b, "GND");
      part("R" + (1000 + b), "1k 5%", "0402", "", "3V3", "A" + b);
      part("D" + b, "red", "0603", "LED", "GND", "A" + b);
      part("R" + (2000 + b), "4k7 5%", "0402", "", "3V3", "E" + b);
      said.add("load U" + b + "=" + (2 + b % 7) + "mA");
    }
    Revision r = new Revision("L", "1", parts, joints, Outline.UNKNOWN);
    Ladder l = LadderProposal.of(r, LadderSaid.read(said, r));
    return new Board(
        r,
        l,
        PulsePlan.of(r, l, List.of(), List.of()),
        TalkPlan.of(r, List.of()),
        List.of(),
        Map.of());
  }
}
