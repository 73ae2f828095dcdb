package ell.files.plate;

import ell.core.jig.Plates;
import ell.files.Output;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;

/// Writes plates as text: XNC for the drill (a plate a file), DXF (R12, millimetre) and SVG (1.1,
/// one to one) of all of them beside each other.
public final class PlateWriter {
  private static final double APART = 12;
  private static final double BAR = 50;

  private PlateWriter() {}

  /// The holes of a plate in XNC, the drill format of Ucamco's specification of 2021, from memory:
  /// a tool a diameter, millimetre with three decimals.
  public static String xnc(Plates.Plate plate) {
    Map<Double, List<Plates.Hole>> tools =
        plate.holes().stream()
            .collect(
                Collectors.groupingBy(
                    h -> Math.round(h.diameterMm() * 1000) / 1000.0,
                    TreeMap::new,
                    Collectors.toList()));
    StringBuilder s = new StringBuilder("M48\n");
    s.append("; ").append(Output.MARK).append(", ").append(plate.title()).append('\n');
    s.append("; seen from the first side of the board, looking down; drill from the upper face\n");
    s.append("METRIC\n");
    int t = 1;
    for (double d : tools.keySet()) {
      s.append(String.format(Locale.ROOT, "T%02dC%.3f\n", t++, d));
    }
    s.append("%\nG05\n");
    t = 1;
    for (List<Plates.Hole> holes : tools.values()) {
      s.append(String.format(Locale.ROOT, "T%02d\n", t++));
      for (Plates.Hole h : holes) {
        s.append(String.format(Locale.ROOT, "X%.3fY%.3f\n", h.xMm() + 0.0, h.yMm() + 0.0));
      }
    }
    return s.append("M30\n").toString();
  }

  /// All plates as DXF: a layer a plate and kind, each plate to the right of the one before, so
  /// that its own axes are shifted by the text beside it.
  public static String dxf(Plates plates) {
    StringBuilder s =
        new StringBuilder(
            "999\n"
                + Output.MARK
                + "\n0\nSECTION\n2\nHEADER\n9\n$ACADVER\n1\nAC1009\n9\n$INSUNITS\n70\n4\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n");
    double wide = plates.boxMm()[2] - plates.boxMm()[0] + APART;
    for (int i = 0; i < plates.all().size(); i++) {
      Plates.Plate p = plates.all().get(i);
      double dx = i * wide;
      for (Plates.Line l : p.lines()) {
        String layer = layer(p, l.what());
        s.append("0\nPOLYLINE\n8\n").append(layer).append("\n66\n1\n70\n1\n");
        for (double[] c : l.corners()) {
          s.append("0\nVERTEX\n8\n").append(layer).append("\n10\n").append(n(c[0] + dx));
          s.append("\n20\n").append(n(c[1])).append('\n');
        }
        s.append("0\nSEQEND\n");
      }
      for (Plates.Hole h : p.holes()) {
        s.append("0\nCIRCLE\n8\n").append(layer(p, h.what())).append("\n10\n");
        s.append(n(h.xMm() + dx)).append("\n20\n").append(n(h.yMm())).append("\n40\n");
        s.append(n(h.diameterMm() / 2)).append('\n');
      }
      s.append("0\nTEXT\n8\nWORDS\n10\n").append(n(plates.boxMm()[0] + dx)).append("\n20\n");
      s.append(n(plates.boxMm()[3] + 3)).append("\n40\n4\n1\n");
      s.append(p.title()).append(", x shifted by ").append(n(dx)).append(" mm\n");
    }
    return s.append("0\nENDSEC\n0\nEOF\n").toString();
  }

  private static String layer(Plates.Plate p, String what) {
    return (p.name() + "_" + what).toUpperCase(Locale.ROOT).replace('-', '_');
  }

  /// All plates as SVG, one under the other, one to one, each with a bar of 50 mm.
  public static String svg(Plates plates, String title) {
    double[] b = plates.boxMm();
    double w = Math.max(b[2] - b[0], BAR) + 2 * APART;
    double each = b[3] - b[1] + 2 * APART;
    double h = each * plates.all().size() + APART;
    StringBuilder s =
        new StringBuilder(
            String.format(
                Locale.ROOT,
                "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"%smm\" height=\"%smm\" viewBox=\"0 0 %s %s\">%n<!-- %s -->%n<title>%s</title>%n",
                n(w),
                n(h),
                n(w),
                n(h),
                Output.MARK,
                xml(title)));
    s.append(
        "<g fill=\"none\" stroke=\"#22282b\" stroke-width=\"0.15\" font-family=\"sans-serif\" font-size=\"3\">\n");
    for (int i = 0; i < plates.all().size(); i++) {
      Plates.Plate p = plates.all().get(i);
      double left = APART - b[0];
      double bottom = i * each + APART + 6 + (b[3] - b[1]) + b[1];
      s.append("<g id=\"").append(p.name()).append("\">\n");
      text(s, APART, i * each + APART + 2, p.title() + ", seen from above");
      for (Plates.Line l : p.lines()) {
        s.append("<path class=\"").append(l.what()).append("\" d=\"M");
        s.append(
            l.corners().stream()
                .map(c -> n(c[0] + left) + " " + n(bottom - c[1]))
                .collect(Collectors.joining("L")));
        s.append("Z\"/>\n");
      }
      for (Plates.Hole x : p.holes()) {
        s.append("<circle class=\"").append(x.what()).append("\" cx=\"").append(n(x.xMm() + left));
        s.append("\" cy=\"").append(n(bottom - x.yMm())).append("\" r=\"");
        s.append(n(x.diameterMm() / 2)).append("\"/>\n");
        if (x.what().equals("probe")) {
          text(s, x.xMm() + left + x.diameterMm() / 2 + 0.3, bottom - x.yMm() + 1, x.label());
        }
      }
      s.append("</g>\n");
    }
    double y = h - APART / 2;
    s.append("<path class=\"bar\" stroke-width=\"0.4\" d=\"M");
    s.append(n(APART)).append(' ').append(n(y)).append("h").append(n(BAR)).append("\"/>\n");
    text(s, APART + BAR + 2, y + 1, "50 mm, measure it before you drill");
    return s.append("</g>\n</svg>\n").toString();
  }

  private static void text(StringBuilder s, double x, double y, String words) {
    s.append("<text stroke=\"none\" fill=\"#22282b\" x=\"").append(n(x)).append("\" y=\"");
    s.append(n(y)).append("\">").append(xml(words)).append("</text>\n");
  }

  private static String xml(String s) {
    return s.replace("&", "&amp;")
        .replace("<", "&lt;")
        .replace(">", "&gt;")
        .replace("\"", "&quot;");
  }

  private static String n(double d) {
    return String.format(Locale.ROOT, "%.4f", d + 0.0);
  }
}
