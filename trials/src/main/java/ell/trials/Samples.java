package ell.trials;

import ell.core.board.Joint;
import ell.core.board.Netlist;
import ell.core.board.Outline;
import ell.core.board.Part;
import ell.core.board.Revision;
import ell.core.board.Side;
import ell.files.NetlistWriter;
import java.io.IOException;
import java.io.Writer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;

/// Large inputs, made up from a seed.
final class Samples {
  private static final String[] SHAPES = {
    "0402", "0603", "0805", "1206", "SOIC-8", "SOT-23", "LQFP-48"
  };
  private static final int[] PINS = {2, 2, 2, 2, 8, 3, 48};

  private Samples() {}

  /// A revision with so many parts, packed as boards are, and a joint for each pin.
  static Revision revision(int parts, long seed) {
    Random random = new Random(seed);
    List<Part> made = new ArrayList<>(parts);
    List<Joint> joints = new ArrayList<>(parts * 4);
    int side = (int) Math.ceil(Math.sqrt(parts));
    int nets = Math.max(4, parts);
    for (int i = 0; i < parts; i++) {
      int k = random.nextInt(20) == 0 ? 6 : random.nextInt(6);
      String ref = (PINS[k] == 2 ? "R" : "U") + i;
      double x = 4.0 * (i % side) + random.nextDouble();
      double y = 4.0 * (i / side) + random.nextDouble();
      Side s = random.nextInt(4) == 0 ? Side.SECOND : Side.FIRST;
      made.add(
          new Part(
              ref,
              "10k",
              SHAPES[k],
              "CODE" + random.nextInt(parts / 10 + 1),
              "",
              true,
              false,
              List.of(),
              "",
              Optional.of(new Part.Spot(x, y, 90 * random.nextInt(4), s)),
              Double.NaN,
              Double.NaN));
      for (int p = 1; p <= PINS[k]; p++) {
        String net =
            random.nextInt(5) == 0
                ? "GND"
                : random.nextInt(8) == 0 ? "3V3" : "N" + random.nextInt(nets);
        joints.add(
            new Joint(
                ref,
                String.valueOf(p),
                net,
                x + 0.4 * p,
                y,
                s == Side.FIRST ? Joint.Reach.FIRST : Joint.Reach.SECOND,
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
    return new Revision("BIG", "1", made, joints, Outline.UNKNOWN);
  }

  /// A revision with about so many joints.
  static Revision joints(int joints, long seed) {
    return revision((int) (joints / 5.3), seed);
  }

  /// A netlist file with so many records.
  static Path netlist(int records) throws IOException {
    List<Joint> joints = new ArrayList<>(records);
    for (int i = 0; i < records; i++) {
      joints.add(
          new Joint(
              "U" + i / 40,
              String.valueOf(1 + i % 40),
              "NET" + i / 3,
              i % 900,
              i / 900.0 % 900,
              Joint.Reach.FIRST,
              false,
              0,
              true,
              0.3,
              0.9,
              0,
              false,
              0));
    }
    Path file = Files.createTempFile("netlist", ".ipc");
    file.toFile().deleteOnExit();
    try (Writer out = Files.newBufferedWriter(file)) {
      NetlistWriter.write(new Netlist(joints, List.of(), List.of()), out);
    }
    return file;
  }
}
