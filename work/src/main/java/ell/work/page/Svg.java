package ell.work.page;

import ell.core.record.Section;
import java.util.Locale;

/// A drawing of a record for a page.
final class Svg {
  private Svg() {}

  static String of(Section.Drawing d) {
    double x = d.box()[0];
    double y = d.box()[1];
    double w = Math.max(d.box()[2] - x, 1e-6);
    double h = Math.max(d.box()[3] - y, 1e-6);
    StringBuilder b = new StringBuilder();
    b.append(
        String.format(
            Locale.ROOT,
            "<svg viewBox=\"%.3f %.3f %.3f %.3f\" role=\"img\" aria-label=\"%s\">",
            x,
            -(y + h),
            w,
            h,
            Html.text(d.words())));
    for (double[] e : d.edges()) {
      b.append("<polyline class=\"edge\" points=\"");
      for (int i = 0; i + 1 < e.length; i += 2) {
        b.append(String.format(Locale.ROOT, "%.3f,%.3f ", e[i], -e[i + 1]));
      }
      b.append("\"/>");
    }
    for (double[] p : d.pads()) {
      b.append(
          String.format(
              Locale.ROOT,
              "<rect class=\"pad\" x=\"%.3f\" y=\"%.3f\" width=\"%.3f\" height=\"%.3f\"/>",
              p[0],
              -(p[1] + p[3]),
              p[2],
              p[3]));
    }
    for (double[] p : d.wires()) {
      b.append(
          String.format(
              Locale.ROOT,
              "<line class=\"wire\" x1=\"%.3f\" y1=\"%.3f\" x2=\"%.3f\" y2=\"%.3f\"/>",
              p[0],
              -p[1],
              p[2],
              -p[3]));
    }
    for (double[] p : d.cuts()) {
      b.append(
          String.format(
              Locale.ROOT, "<text class=\"cut\" x=\"%.3f\" y=\"%.3f\">×</text>", p[0], -p[1]));
    }
    d.names().forEach(n -> label(b, "name", n));
    d.marks().forEach(n -> label(b, "mark", n));
    return b.append("</svg>").toString();
  }

  /// A reading on its limit strip: the limits as ends, hatched where the uncertainty straddles
  /// them, the reading as a bar as wide as its uncertainty. Empty where a limit is open or there is
  /// no reading.
  static String of(Section.Strip s) {
    if (s.value().isEmpty() || s.limits().isEmpty()) {
      return "";
    }
    double low = s.limits().get().low();
    double high = s.limits().get().high();
    double span = high - low;
    if (!Double.isFinite(span) || span <= 0) {
      return "";
    }
    double u = s.uncertainty().orElse(0.0);
    double from = low - 0.25 * span;
    double k = 100 / (1.5 * span);
    double at = Math.clamp((s.value().get() - from) * k, 0.5, 99.5);
    double half = Math.clamp(u * k, 0.3, 50);
    double guard = Math.min(u, span / 2) * k;
    double a = (low - from) * k;
    double b = (high - from) * k;
    return String.format(
        Locale.ROOT,
        "<svg class=\"reading\" viewBox=\"0 0 100 6\" preserveAspectRatio=\"none\" aria-hidden=\"true\">"
            + "<line class=\"edge\" x1=\"0\" y1=\"3\" x2=\"100\" y2=\"3\"/>"
            + "%3$s%4$s"
            + "<line class=\"edge\" x1=\"%1$.2f\" y1=\"0\" x2=\"%1$.2f\" y2=\"6\"/>"
            + "<line class=\"edge\" x1=\"%2$.2f\" y1=\"0\" x2=\"%2$.2f\" y2=\"6\"/>"
            + "<rect class=\"bar\" x=\"%5$.2f\" y=\"0.5\" width=\"%6$.2f\" height=\"5\"/></svg>",
        a,
        b,
        hatch(a, guard),
        hatch(b - guard, guard),
        at - half,
        2 * half);
  }

  private static String hatch(double from, double wide) {
    StringBuilder b = new StringBuilder();
    for (double x = 0; x <= wide; x += 0.7) {
      b.append(
          String.format(
              Locale.ROOT,
              "<line class=\"guard\" x1=\"%1$.2f\" y1=\"1\" x2=\"%1$.2f\" y2=\"5\"/>",
              from + x));
    }
    return b.toString();
  }

  private static void label(StringBuilder b, String style, Section.Drawing.Label n) {
    b.append(
        String.format(
            Locale.ROOT,
            "<text class=\"%s\" x=\"%.3f\" y=\"%.3f\">%s</text>",
            style,
            n.x(),
            -n.y(),
            Html.text(n.text())));
  }
}
