package ell.files.gerber;

import ell.core.artwork.Island;
import ell.core.print.Opening;
import ell.core.print.PasteLayer;
import ell.core.print.SheetFit;
import ell.files.Output;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/// Writes a stencil sheet: the openings of every field and the lines along which it is cut, as SVG
/// (1.1), DXF (R12 polylines, millimetre) or Gerber (RS-274X with X2 attributes), by the ending of
/// the file.
public final class StencilWriter {
  private StencilWriter() {}

  /// Openings as closed corners in millimetre of the sheet, and cut lines.
  private record Drawn(List<List<double[]>> openings, List<double[]> cuts, double w, double h) {}

  /// Writes a sheet; the file appears whole or not at all.
  ///
  /// @param fit where each board lies; its fields are the board's box and `handMm` around it
  /// @param boxMm the board's box, `{x0, y0, x1, y1}`
  /// @throws IOException when it cannot be written
  /// @throws IllegalArgumentException when the file's ending is none of these
  public static void write(
      PasteLayer layer, SheetFit fit, double[] boxMm, double handMm, Path to, Output.Over over)
      throws IOException {
    String name = to.getFileName().toString().toLowerCase(Locale.ROOT);
    Drawn d = drawn(layer, fit, boxMm, handMm);
    String text;
    if (name.endsWith(".svg")) {
      text = svg(d);
    } else if (name.endsWith(".dxf")) {
      text = dxf(d);
    } else if (name.endsWith(".gbr") || name.endsWith(".ger")) {
      text = gerber(d);
    } else {
      throw new IllegalArgumentException(
          "a stencil is written as .svg, .dxf or .gbr, found '" + to.getFileName() + "'");
    }
    Output.write(to, text, over);
  }

  private static Drawn drawn(PasteLayer layer, SheetFit fit, double[] box, double hand) {
    List<List<double[]>> all = new ArrayList<>();
    for (SheetFit.Field f : fit.fields()) {
      for (Opening o : layer.openings()) {
        Island island = o.island();
        for (double[] ring : island.rings()) {
          List<double[]> corners = new ArrayList<>();
          for (int i = 0; i < ring.length; i += 2) {
            double x = ring[i] + island.x() - box[0] + hand;
            double y = ring[i + 1] + island.y() - box[1] + hand;
            // a quarter turn counter-clockwise keeps the paste side up
            double px = f.turned() ? box[3] - box[1] + 2 * hand - y : x;
            double py = f.turned() ? x : y;
            corners.add(new double[] {f.x() * 1e3 + px, f.y() * 1e3 + py});
          }
          all.add(corners);
        }
      }
    }
    List<double[]> cuts = new ArrayList<>();
    for (double[] c : fit.cuts()) {
      cuts.add(new double[] {c[0] * 1e3, c[1] * 1e3, c[2] * 1e3, c[3] * 1e3});
    }
    return new Drawn(all, cuts, fit.sheetWidth() * 1e3, fit.sheetHeight() * 1e3);
  }

  private static String n(double d) {
    return String.format(Locale.ROOT, "%.4f", d + 0.0);
  }

  private static String svg(Drawn d) {
    StringBuilder s = new StringBuilder();
    s.append(
        String.format(
            Locale.ROOT,
            "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"%smm\" height=\"%smm\" viewBox=\"0 0 %s %s\">%n<!-- "
                + Output.MARK
                + " -->%n",
            n(d.w()),
            n(d.h()),
            n(d.w()),
            n(d.h())));
    s.append("<g id=\"openings\" fill=\"#000\" stroke=\"none\">\n");
    for (List<double[]> o : d.openings()) {
      s.append("<path d=\"M");
      for (int i = 0; i < o.size(); i++) {
        s.append(i == 0 ? "" : "L")
            .append(n(o.get(i)[0]))
            .append(' ')
            .append(n(d.h() - o.get(i)[1]));
      }
      s.append("Z\"/>\n");
    }
    s.append("</g>\n<g id=\"cuts\" fill=\"none\" stroke=\"#c00\" stroke-width=\"0.1\">\n");
    for (double[] c : d.cuts()) {
      s.append(
          "<path d=\"M"
              + n(c[0])
              + " "
              + n(d.h() - c[1])
              + "L"
              + n(c[2])
              + " "
              + n(d.h() - c[3])
              + "\"/>\n");
    }
    return s.append("</g>\n</svg>\n").toString();
  }

  private static String dxf(Drawn d) {
    StringBuilder s =
        new StringBuilder(
            "999\n"
                + Output.MARK
                + "\n0\nSECTION\n2\nHEADER\n9\n$ACADVER\n1\nAC1009\n9\n$INSUNITS\n70\n4\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n");
    for (List<double[]> o : d.openings()) {
      s.append("0\nPOLYLINE\n8\nOPENINGS\n66\n1\n70\n1\n");
      for (double[] p : o) {
        s.append("0\nVERTEX\n8\nOPENINGS\n10\n" + n(p[0]) + "\n20\n" + n(p[1]) + "\n");
      }
      s.append("0\nSEQEND\n");
    }
    for (double[] c : d.cuts()) {
      s.append(
          "0\nLINE\n8\nCUTS\n10\n"
              + n(c[0])
              + "\n20\n"
              + n(c[1])
              + "\n11\n"
              + n(c[2])
              + "\n21\n"
              + n(c[3])
              + "\n");
    }
    return s.append("0\nENDSEC\n0\nEOF\n").toString();
  }

  private static String gerber(Drawn d) {
    StringBuilder s =
        new StringBuilder(
            "G04 "
                + Output.MARK
                + "*\n%TF.FileFunction,Paste,Top*%\n%TF.FilePolarity,Positive*%\n%FSLAX46Y46*%\n%MOMM*%\nG01*\n");
    for (List<double[]> o : d.openings()) {
      s.append("G36*\n");
      for (int i = 0; i <= o.size(); i++) {
        double[] p = o.get(i % o.size());
        s.append("X" + micro(p[0]) + "Y" + micro(p[1]) + (i == 0 ? "D02*\n" : "D01*\n"));
      }
      s.append("G37*\n");
    }
    return s.append("M02*\n").toString();
  }

  private static long micro(double mm) {
    return Math.round(mm * 1e6);
  }
}
