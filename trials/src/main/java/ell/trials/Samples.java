package ell.trials;

import ell.core.board.Joint;
import ell.core.board.Netlist;
import ell.core.board.Outline;
import ell.core.board.Part;
import ell.core.board.Revision;
import ell.core.board.Side;
import ell.core.circuit.Circuit;
import ell.core.circuit.Diode;
import ell.core.circuit.Regulator;
import ell.core.kit.ShelfLine;
import ell.core.kit.buy.Offer;
import ell.core.kit.buy.Want;
import ell.files.netlist.NetlistWriter;
import java.io.IOException;
import java.io.Writer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
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

  /// A powered board of about so many parts: two converters, two linear regulators, and on each
  /// rail dividers, lamps, capacitors and chips.
  static Circuit circuit(int parts) {
    Random random = new Random(3);
    Circuit c = new Circuit();
    c.supply("S", "in", "GND", 12, 5, 0.01);
    c.diode("D", "in", "vin", Diode.SCHOTTKY);
    c.regulator("U1", "vin", "5", new Regulator(5, 0.5, 2, 2e-3, 0.9).rising(4e-3));
    c.regulator("U2", "5", "3", new Regulator(3.3, 0.3, 1, 1e-3, 0).rising(1e-3));
    c.regulator("U3", "vin", "9", new Regulator(9, 0.5, 1, 1e-3, 0.9).rising(4e-3));
    c.regulator("U4", "3", "1", new Regulator(1.8, 0.2, 1, 1e-3, 0).rising(1e-3));
    String[] rails = {"vin", "9", "5", "3", "1"};
    double[] volts = {12, 9, 5, 3.3, 1.8};
    for (int i = 0; i < parts - 6; i += 5) {
      int k = random.nextInt(rails.length);
      c.resistor("RA" + i, rails[k], "m" + i, 1e3 * (1 + random.nextInt(50)));
      c.resistor("RB" + i, "m" + i, "GND", 1e3 * (1 + random.nextInt(50)));
      c.capacitor("C" + i, rails[k], "GND", 1e-7 * (1 + random.nextInt(30)), 0.01, 1e9);
      c.resistor("RL" + i, rails[k], "l" + i, 680);
      c.diode("LED" + i, "l" + i, "GND", Diode.lamp(1.9));
      if (i % 25 == 0) {
        c.load("U" + (10 + i), rails[k], "GND", 0.01 * random.nextDouble(), 0.7 * volts[k]);
      }
    }
    return c;
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
              0.3 + i / 40 % 7 * 0.05, // each part has pads of its own size
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

  /// So many lines that are short.
  static List<Want> wants(int lines, long seed) {
    Random random = new Random(seed);
    List<Want> wants = new ArrayList<>();
    for (int i = 0; i < lines; i++) {
      wants.add(new Want("CODE" + i, 5 + random.nextInt(400), List.of()));
    }
    return wants;
  }

  /// Offers of each line by some of the sellers, with packs, breaks, stocks and shipping.
  static List<Offer> offers(List<Want> wants, int sellers, int perLine, long seed) {
    Random random = new Random(seed);
    double[] shipping = random.doubles(sellers, 3, 25).toArray();
    long[] packs = {1, 1, 1, 5, 10, 100};
    List<Offer> offers = new ArrayList<>();
    for (Want w : wants) {
      double about = 0.02 + random.nextDouble() * 2;
      for (int k = 0; k < perLine; k++) {
        int s = perLine == sellers ? k : random.nextInt(sellers);
        double price = about * (0.7 + 0.6 * random.nextDouble());
        offers.add(
            new Offer(
                1,
                "S" + s,
                w.code(),
                packs[random.nextInt(packs.length)],
                1,
                List.of(
                    new Offer.PriceBreak(1, price),
                    new Offer.PriceBreak(25, price * 0.85),
                    new Offer.PriceBreak(100, price * 0.7)),
                random.nextInt(4) == 0 ? 50 + random.nextInt(200) : 100_000,
                1 + random.nextInt(14),
                shipping[s],
                Optional.empty()));
      }
    }
    return offers;
  }

  /// A revision with a part for each of so many codes; every tenth has an alternate.
  static Revision codes(int lines) {
    List<Part> parts = new ArrayList<>();
    for (int i = 0; i < lines; i++) {
      parts.add(
          new Part(
              "R" + i,
              "10k",
              SHAPES[i % 6],
              "CODE" + i,
              "",
              true,
              false,
              i % 10 == 0 ? List.of("CODE" + (i + 1), "ALT" + i % 50) : List.of(),
              "",
              Optional.empty(),
              Double.NaN,
              Double.NaN));
    }
    return new Revision("BIG", "1", parts, List.of(), Outline.UNKNOWN);
  }

  /// A shelf for those codes, with goods coming on many days.
  static List<ShelfLine> shelf(int lines, LocalDate today) {
    Random random = new Random(3);
    List<ShelfLine> shelf = new ArrayList<>();
    for (int i = 0; i < lines; i++) {
      boolean coming = random.nextInt(8) == 0;
      shelf.add(
          new ShelfLine(
              i + 2,
              "CODE" + i,
              15 + random.nextInt(60),
              "A" + i % 40,
              coming ? 50 : 0,
              coming ? Optional.of(today.plusDays(1 + random.nextInt(30))) : Optional.empty(),
              Optional.empty()));
    }
    return shelf;
  }

  /// A paste layer with so many openings on a raster, half of them named for joints of a revision.
  static String paste(Revision revision, int openings) {
    StringBuilder s = new StringBuilder("%FSLAX46Y46*%\n%MOMM*%\n");
    for (int i = 0; i < 20; i++) {
      s.append(
          String.format(
              java.util.Locale.ROOT, "%%ADD%dR,%.2fX%.2f*%%\n", 10 + i, 0.3 + i * 0.05, 0.25));
    }
    List<ell.core.board.Joint> joints = revision.joints();
    for (int n = 0; n < openings; n++) {
      ell.core.board.Joint j = joints.get(n % joints.size());
      if (n % 2 == 0) {
        s.append("%TO.P,").append(j.part()).append(',').append(j.pin()).append("*%\n");
      } else {
        s.append("%TD*%\n");
      }
      s.append('D').append(10 + n % 20).append("*\nX").append(n % 400 * 1_500_000L);
      s.append('Y').append(n / 400 * 600_000L).append("D03*\n");
    }
    return s.append("M02*\n").toString();
  }

  /// A temperature log of so many rows and channels.
  static String log(int rows, int channels) {
    Random random = new Random(9);
    StringBuilder s = new StringBuilder("Time (s)");
    for (int c = 0; c < channels; c++) {
      s.append(",T").append(c + 1).append(" (°C)");
    }
    s.append('\n');
    for (int i = 0; i < rows; i++) {
      double t = i * 0.1;
      s.append(i / 10).append('.').append(i % 10);
      int base = (int) (10 * (25 + 110 * (1 + Math.sin(t / 60))));
      for (int c = 0; c < channels; c++) {
        int v = base + random.nextInt(9);
        s.append(',').append(v / 10).append('.').append(v % 10);
      }
      s.append('\n');
    }
    return s.toString();
  }
}
