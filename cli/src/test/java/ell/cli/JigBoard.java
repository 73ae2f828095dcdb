package ell.cli;

import ell.core.board.Joint;
import ell.core.board.Netlist;
import ell.files.netlist.NetlistWriter;
import java.io.IOException;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/// A board for jigs, written as the files that a maker brings.
final class JigBoard {
  private final StringBuilder bom = new StringBuilder("Reference,Value,Package\n");
  private final StringBuilder places = new StringBuilder("Ref,X,Y,Rotation,Side\n");
  private final StringBuilder drill = new StringBuilder("M48\nMETRIC\nT01C3.200\n%\nT01\n");
  final List<Joint> joints = new ArrayList<>();
  final List<Joint> vias = new ArrayList<>();
  private final double w;
  private final double h;

  JigBoard(double w, double h) {
    this.w = w;
    this.h = h;
  }

  JigBoard part(
      String ref, String value, String shape, double x, double y, double turn, boolean first) {
    bom.append(ref).append(',').append(value).append(',').append(shape).append('\n');
    places.append(
        String.format(
            Locale.ROOT, "%s,%.3f,%.3f,%.0f,%s%n", ref, x, y, turn, first ? "top" : "bottom"));
    return this;
  }

  /// @param side 0 both, 1 first, 2 second
  JigBoard joint(
      String ref, String pin, String net, double x, double y, int side, double drillMm, double mm) {
    joints.add(
        new Joint(
            ref,
            pin,
            net,
            x,
            y,
            side == 0 ? Joint.Reach.BOTH : side == 1 ? Joint.Reach.FIRST : Joint.Reach.SECOND,
            drillMm > 0,
            drillMm,
            drillMm > 0,
            mm,
            mm,
            0,
            false,
            0));
    return this;
  }

  JigBoard via(String net, double x, double y, int mask) {
    vias.add(
        new Joint("", "", net, x, y, Joint.Reach.BOTH, true, 0.3, true, 0.7, 0.7, 0, false, mask));
    return this;
  }

  JigBoard hole(double x, double y) {
    drill.append(String.format(Locale.ROOT, "X%.3fY%.3f%n", x, y));
    return this;
  }

  /// Writes the files and imports them into a workspace.
  String into(Path folder, String name) throws IOException {
    Path f = Files.createDirectories(folder.resolve(name));
    Files.writeString(f.resolve("bom.csv"), bom);
    Files.writeString(f.resolve("placement.csv"), places);
    Files.writeString(
        f.resolve("outline.csv"),
        String.format(
            Locale.ROOT,
            "Loop,X (mm),Y (mm)%nedge,0,0%nedge,%.2f,0%nedge,%.2f,%.2f%nedge,0,%.2f%n",
            w,
            w,
            h,
            h));
    Files.writeString(f.resolve("drill.xnc"), drill + "M30\n");
    StringWriter net = new StringWriter();
    NetlistWriter.write(new Netlist(joints, vias, List.of()), net);
    Files.writeString(f.resolve("netlist.ipc"), net.toString());
    String ws = folder.resolve(name + ".ell").toString();
    TestRun.good("new", ws);
    TestRun.good(
        "import",
        ws,
        "--design",
        name,
        "--revision",
        "1",
        "--bom",
        f.resolve("bom.csv").toString(),
        "--placement",
        f.resolve("placement.csv").toString(),
        "--netlist",
        f.resolve("netlist.ipc").toString(),
        "--outline",
        f.resolve("outline.csv").toString(),
        "--drill",
        f.resolve("drill.xnc").toString());
    return ws;
  }

  /// An iron-only shield: two headers and a terminal, all in holes.
  static JigBoard shield() {
    JigBoard b = new JigBoard(68, 53);
    b.part("J1", "HEADER 8", "HDR-8", 30, 5, 0, true);
    b.part("J2", "HEADER 6", "HDR-6", 30, 48, 0, true);
    b.part("R1", "4k7", "R-AXIAL", 20, 25, 0, true);
    b.part("C1", "100u", "CAP-RADIAL-6.3", 45, 25, 0, true);
    String[] low = {"GND", "5V", "D0", "D1", "D2", "D3", "D4", "D5"};
    for (int i = 0; i < low.length; i++) {
      b.joint("J1", "" + (i + 1), low[i], 21.11 + 2.54 * i, 5, 0, 1.0, 1.7);
    }
    String[] high = {"GND", "5V", "A0", "A1", "A2", "A3"};
    for (int i = 0; i < high.length; i++) {
      b.joint("J2", "" + (i + 1), high[i], 23.65 + 2.54 * i, 48, 0, 1.0, 1.7);
    }
    b.joint("R1", "1", "5V", 15, 25, 0, 0.8, 1.6).joint("R1", "2", "D2", 25, 25, 0, 0.8, 1.6);
    b.joint("C1", "1", "5V", 43.75, 25, 0, 0.8, 1.6)
        .joint("C1", "2", "GND", 46.25, 25, 0, 0.8, 1.6);
    return b.hole(4, 4).hole(64, 49).hole(64, 4);
  }

  /// A board with parts on both sides, a cell, test points close to each other, vias with and
  /// without mask, and a net that is at the surface of the first side only.
  static JigBoard cell() {
    JigBoard b = new JigBoard(40, 30);
    b.part("U1", "CHARGER", "SOIC-8", 12, 15, 0, true);
    b.part("C1", "22u", "1210", 22, 8, 0, true);
    b.part("C2", "22u", "1210", 22, 22, 0, false);
    b.part("BT1", "CELL", "HOLDER", 30, 15, 0, true);
    String[] left = {"VBUS", "GND", "STAT", "PROG"};
    String[] right = {"VBAT", "EN", "SDA", "SCL"};
    for (int i = 0; i < 4; i++) {
      b.joint("U1", "" + (i + 1), left[i], 9.3, 16.905 - 1.27 * i, 1, 0, 0.6);
      b.joint("U1", "" + (8 - i), right[i], 14.7, 16.905 - 1.27 * i, 1, 0, 0.6);
    }
    b.joint("C1", "1", "VBUS", 20.5, 8, 1, 0, 1.0).joint("C1", "2", "GND", 23.5, 8, 1, 0, 1.0);
    b.joint("C2", "1", "VBAT", 20.5, 22, 2, 0, 1.0).joint("C2", "2", "GND", 23.5, 22, 2, 0, 1.0);
    b.joint("BT1", "1", "VBAT", 27, 15, 0, 1.2, 2.2).joint("BT1", "2", "GND", 33, 15, 0, 1.2, 2.2);
    b.joint("TP1", "1", "SDA", 10, 4, 2, 0, 1.0).joint("TP2", "1", "SCL", 12, 4, 2, 0, 1.0);
    b.joint("TP3", "1", "VBUS", 14, 4, 2, 0, 1.0).joint("TP4", "1", "EN", 18, 26, 1, 0, 1.2);
    b.via("STAT", 6, 10, 0).via("PROG", 6, 14, 3).via("GND", 6, 22, 0);
    return b.hole(3, 27).hole(37, 3);
  }

  /// A panel of hundreds of equal resistors, each net at a pad or two.
  static JigBoard panel() {
    JigBoard b = new JigBoard(120, 120);
    b.part("J1", "POWER", "TERM-2", 60, 4, 0, true);
    b.joint("J1", "1", "5V", 57.5, 4, 0, 1.2, 2.4).joint("J1", "2", "GND", 62.5, 4, 0, 1.2, 2.4);
    for (int i = 0; i < 150; i++) {
      double x = 6 + 7.5 * (i % 15);
      double y = 14 + 10 * (i / 15);
      String ref = "R" + (i + 1);
      b.part(ref, "330", "1206", x, y, 0, false);
      b.joint(ref, "1", "5V", x - 1.9, y, 2, 0, 1.5);
      b.joint(ref, "2", "N" + i, x + 1.9, y, 2, 0, 1.5);
    }
    return b.hole(4, 4).hole(116, 116);
  }
}
