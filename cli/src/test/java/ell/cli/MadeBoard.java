package ell.cli;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;

/// A board made at random together with what is true of it, written as the files that a maker
/// brings. What is true is kept here by the simplest means, so that it can be held against what
/// comes out of the commands.
final class MadeBoard {
  record Pin(String part, String pin, String net, boolean hole) {
    String name() {
      return part + "." + pin;
    }
  }

  record Made(
      String ref,
      String value,
      String shape,
      String code,
      boolean hole,
      boolean second,
      double ohms) {}

  private static final String[] CHIP = {"0402", "0603", "0805", "1206"};
  private static final double[] OHMS = {10, 47, 220, 1000, 4700, 10_000, 47_000};
  private static final String[] WRITTEN = {"10R", "47", "220R", "1k", "4k7", "10k", "47k"};

  final List<Made> parts = new ArrayList<>();
  final List<Pin> pins = new ArrayList<>();
  final Map<String, Integer> stock = new TreeMap<>();
  final boolean inches;
  private final List<double[]> places = new ArrayList<>();
  private final List<double[]> pads = new ArrayList<>();

  MadeBoard(long seed, int count) {
    Random random = new Random(seed);
    inches = random.nextBoolean();
    int wide = (int) Math.ceil(Math.sqrt(count));
    List<String> nets = new ArrayList<>(List.of("GND", "VIN", "3V3"));
    for (int i = 0; i < 3 + count / 2; i++) {
      nets.add("SIG_" + i);
    }
    for (int i = 0; i < count; i++) {
      double x = 5 + 8.0 * (i % wide);
      double y = 5 + 8.0 * (i / wide);
      boolean second = random.nextInt(4) == 0;
      switch (i == 0 ? 9 : random.nextInt(10)) {
        case 0, 1, 2, 3 -> {
          int k = random.nextInt(OHMS.length);
          String shape = CHIP[random.nextInt(CHIP.length)];
          String code = "RES-" + WRITTEN[k] + "-" + shape;
          add(
              "R" + (i + 1),
              WRITTEN[k],
              shape,
              code,
              2,
              false,
              second,
              OHMS[k],
              x,
              y,
              nets,
              random);
        }
        case 4, 5, 6 -> {
          String shape = CHIP[random.nextInt(CHIP.length)];
          add(
              "C" + (i + 1),
              "100n",
              shape,
              "CAP-" + shape,
              2,
              false,
              second,
              0,
              x,
              y,
              nets,
              random);
        }
        case 7, 8 ->
            add(
                "U" + (i + 1),
                "LOGIC",
                "SOIC-8",
                "LOGIC8",
                8,
                false,
                second,
                0,
                x,
                y,
                nets,
                random);
        default ->
            add("J" + (i + 1), "PLUG", "TERM-2", "PLUG2", 2, true, false, 0, x, y, nets, random);
      }
    }
    for (Made m : parts) {
      stock.computeIfAbsent(m.code(), _ -> random.nextInt(60));
    }
  }

  private void add(
      String ref,
      String value,
      String shape,
      String code,
      int count,
      boolean hole,
      boolean second,
      double ohms,
      double x,
      double y,
      List<String> nets,
      Random random) {
    parts.add(new Made(ref, value, shape, code, hole, second, ohms));
    places.add(new double[] {x, y});
    for (int p = 0; p < count; p++) {
      String net =
          ref.equals("J1") ? List.of("VIN", "GND").get(p) : nets.get(random.nextInt(nets.size()));
      pins.add(new Pin(ref, String.valueOf(p + 1), net, hole));
      double across = count == 2 ? 0.8 : 2.4;
      pads.add(
          new double[] {
            x + (p < (count + 1) / 2 ? -across : across), y + 1.2 * (p % Math.max(1, count / 2))
          });
    }
  }

  /// Where a pin's pad lies, millimetre.
  double[] padMm(int pin) {
    return pads.get(pin).clone();
  }

  /// Whether a pin is of a part of the second side.
  boolean second(int pin) {
    return parts.stream()
        .filter(m -> m.ref().equals(pins.get(pin).part()))
        .findFirst()
        .orElseThrow()
        .second();
  }

  /// Parts of a code on one board.
  Map<String, Integer> perBoard() {
    Map<String, Integer> out = new LinkedHashMap<>();
    parts.forEach(p -> out.merge(p.code(), 1, Integer::sum));
    return out;
  }

  String shapeOf(String code) {
    return parts.stream().filter(p -> p.code().equals(code)).findFirst().orElseThrow().shape();
  }

  Map<String, List<Pin>> byNet() {
    Map<String, List<Pin>> out = new TreeMap<>();
    pins.forEach(p -> out.computeIfAbsent(p.net(), _ -> new ArrayList<>()).add(p));
    return out;
  }

  Pin pin(String part, String pin) {
    return pins.stream()
        .filter(p -> p.part().equals(part) && p.pin().equals(pin))
        .findFirst()
        .orElseThrow(() -> new AssertionError("no joint " + part + "." + pin));
  }

  /// Ohms between two nets through the resistors alone, by relaxing the potentials of all nets
  /// until they rest: nothing is shared with the solver under test. Infinite when nothing joins
  /// them.
  double ohms(String from, String to) {
    Map<String, List<double[]>> arms = new TreeMap<>();
    Map<String, Integer> number = new TreeMap<>();
    byNet().keySet().forEach(n -> number.put(n, number.size()));
    for (Made m : parts) {
      if (m.ohms() > 0) {
        String a = pin(m.ref(), "1").net();
        String b = pin(m.ref(), "2").net();
        if (!a.equals(b)) {
          arms.computeIfAbsent(a, _ -> new ArrayList<>())
              .add(new double[] {number.get(b), 1 / m.ohms()});
          arms.computeIfAbsent(b, _ -> new ArrayList<>())
              .add(new double[] {number.get(a), 1 / m.ohms()});
        }
      }
    }
    double[] v = new double[number.size()];
    v[number.get(from)] = 1;
    double moved = 1;
    for (int round = 0; round < 200_000 && moved > 1e-13; round++) {
      moved = 0;
      for (Map.Entry<String, List<double[]>> arm : arms.entrySet()) {
        if (arm.getKey().equals(from) || arm.getKey().equals(to)) {
          continue;
        }
        double top = 0;
        double all = 0;
        for (double[] a : arm.getValue()) {
          top += a[1] * v[(int) a[0]];
          all += a[1];
        }
        int n = number.get(arm.getKey());
        moved = Math.max(moved, Math.abs(top / all - v[n]));
        v[n] = top / all;
      }
    }
    double amps = 0;
    for (double[] a : arms.getOrDefault(to, List.of())) {
      amps += a[1] * v[(int) a[0]];
    }
    return amps < 1e-12 ? Double.POSITIVE_INFINITY : 1 / amps;
  }

  private static String line(String form, Object... values) {
    return String.format(Locale.ROOT, form, values) + "\n";
  }

  /// Writes `bom.csv`, `placement.csv`, `netlist.ipc` and `shelf.csv`.
  void write(Path folder) throws IOException {
    Files.createDirectories(folder);
    StringBuilder bom = new StringBuilder("References,Quantity,Value,Package,Code\n");
    perBoard()
        .forEach((code, n) -> {
          List<Made> of = parts.stream().filter(p -> p.code().equals(code)).toList();
          String refs = String.join(", ", of.stream().map(Made::ref).toList());
          bom.append(
              line("\"%s\",%d,%s,%s,%s", refs, n, of.getFirst().value(), shapeOf(code), code));
        });
    Files.writeString(folder.resolve("bom.csv"), bom);
    double scale = inches ? 1 / 25.4 : 1;
    String unit = inches ? "in" : "mm";
    StringBuilder place =
        new StringBuilder(
            "Designator,Mid X (%s),Mid Y (%s),Rotation,Side,Package\n".formatted(unit, unit));
    for (int i = 0; i < parts.size(); i++) {
      Made m = parts.get(i);
      place.append(
          line(
              "%s,%.5f,%.5f,0,%s,%s",
              m.ref(),
              places.get(i)[0] * scale,
              places.get(i)[1] * scale,
              m.second() ? "B" : "T",
              m.shape()));
    }
    Files.writeString(folder.resolve("placement.csv"), place);
    StringBuilder net = new StringBuilder(inches ? "P  UNITS CUST 0\n" : "P  UNITS CUST 1\n");
    double step = inches ? 1e4 / 25.4 : 1000;
    for (int i = 0; i < pins.size(); i++) {
      Pin p = pins.get(i);
      boolean second =
          parts.stream().filter(m -> m.ref().equals(p.part())).findFirst().orElseThrow().second();
      net.append(
          line(
              "%s%-14s   %-6s-%-4s %sA%sX%+07dY%+07dX%04dY%04dR000S0",
              p.hole() ? "317" : "327",
              p.net(),
              p.part(),
              p.pin(),
              p.hole() ? "D%04dP".formatted(Math.round(0.9 * step)) : "      ",
              p.hole() ? "00" : second ? "02" : "01",
              Math.round(pads.get(i)[0] * step),
              Math.round(pads.get(i)[1] * step),
              Math.round(0.9 * step),
              Math.round(0.7 * step)));
    }
    net.append("999\n");
    Files.writeString(folder.resolve("netlist.ipc"), net);
    StringBuilder shelf = new StringBuilder("Code,Quantity,Bin,On order,Expected,Expiry\n");
    stock.forEach((code, n) -> shelf.append(line("%s,%d,B1,0,,", code, n)));
    Files.writeString(folder.resolve("shelf.csv"), shelf);
  }
}
