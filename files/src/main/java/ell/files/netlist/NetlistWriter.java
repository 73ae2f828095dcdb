package ell.files.netlist;

import ell.core.board.Joint;
import ell.core.board.Netlist;
import java.io.IOException;
import java.io.Writer;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Stream;

/// Writes an IPC-D-356A netlist in units of 0.001 mm (`P UNITS CUST 1`), as [NetlistReader] reads
/// it; of 0.0001 inch (`CUST 0`) where a length does not fit its columns otherwise.
public final class NetlistWriter {
  private NetlistWriter() {}

  /// Writes a netlist.
  ///
  /// @throws IllegalArgumentException when a coordinate or a name does not fit its columns
  public static void write(Netlist netlist, Writer out) throws IOException {
    boolean fine =
        Stream.concat(netlist.joints().stream(), netlist.vias().stream())
            .allMatch(NetlistWriter::fitsMicrometres);
    double perMm = fine ? 1000 : 1 / 0.00254;
    out.write(
        "C  netlist for bare board test, lengths in " + (fine ? "0.001 mm" : "0.0001 inch") + "\n");
    out.write("P  UNITS CUST " + (fine ? 1 : 0) + "\n");
    Map<String, String> names = new LinkedHashMap<>();
    for (Joint j : netlist.joints()) {
      name(j.net(), names);
    }
    for (Joint j : netlist.vias()) {
      name(j.net(), names);
    }
    for (Map.Entry<String, String> e : names.entrySet()) {
      if (!e.getKey().equals(e.getValue()) && !e.getKey().isEmpty()) {
        out.write("P  " + e.getValue() + "  " + e.getKey() + "\n");
      }
    }
    for (Joint j : netlist.joints()) {
      out.write(record(j, names.get(j.net()), perMm));
    }
    for (Joint j : netlist.vias()) {
      out.write(record(j, names.get(j.net()), perMm));
    }
    out.write("999\n");
  }

  private static void name(String net, Map<String, String> names) {
    names.computeIfAbsent(
        net,
        n ->
            n.isEmpty()
                ? "N/C"
                : n.length() <= 14 && !n.startsWith("NNAME") ? n : "NNAME" + (names.size() + 1));
  }

  private static boolean fitsMicrometres(Joint j) {
    return Math.abs(j.xMm()) < 999.999
        && Math.abs(j.yMm()) < 999.999
        && Math.max(j.widthMm(), j.heightMm()) < 9.999
        && j.drillMm() < 9.999;
  }

  private static String record(Joint j, String net, double perMm) {
    StringBuilder s = new StringBuilder(80);
    s.append(j.hole() ? "317" : "327");
    s.append(pad(net, 14)).append("   ");
    s.append(
        j.part().isEmpty()
            ? pad("VIA", 6) + " " + pad("", 4)
            : pad(j.part(), 6) + "-" + pad(j.pin(), 4));
    s.append(j.middle() ? 'M' : ' ');
    s.append(j.hole() ? "D" + digits(j.drillMm(), 4, perMm) + (j.plated() ? "P" : "U") : "      ");
    s.append("A0").append(access(j));
    s.append('X').append(signed(j.xMm(), perMm)).append('Y').append(signed(j.yMm(), perMm));
    s.append('X')
        .append(digits(j.widthMm(), 4, perMm))
        .append('Y')
        .append(digits(j.heightMm(), 4, perMm));
    s.append(String.format(Locale.ROOT, "R%03d", Math.floorMod(Math.round(j.rotationDeg()), 360)));
    s.append('S').append(j.mask()).append('\n');
    return s.toString();
  }

  private static char access(Joint j) {
    return switch (j.reach()) {
      case BOTH -> '0';
      case FIRST -> '1';
      case SECOND -> '2';
      case NONE -> j.hole() ? '0' : (j.mask() & 2) != 0 ? '2' : '1';
    };
  }

  private static String pad(String text, int width) {
    if (text.length() > width) {
      throw new IllegalArgumentException("'" + text + "' does not fit in " + width + " columns");
    }
    return text + " ".repeat(width - text.length());
  }

  private static String signed(double mm, double perMm) {
    return (mm < 0 ? "-" : "+") + digits(Math.abs(mm), 6, perMm);
  }

  private static String digits(double mm, int width, double perMm) {
    String s = String.format(Locale.ROOT, "%0" + width + "d", Math.round(mm * perMm));
    if (s.length() > width) {
      throw new IllegalArgumentException(mm + " mm does not fit in " + width + " digits");
    }
    return s;
  }
}
