package ell.files.pdf;

import ell.core.jig.Plates;
import ell.files.Output;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.pdmodel.PDPageContentStream;
import org.apache.pdfbox.pdmodel.common.PDRectangle;
import org.apache.pdfbox.pdmodel.font.PDFont;

/// Plates on pages of their own size, one to one, with a bar to measure: each as it is seen from
/// above, and the probe plate once more from below, as it is wired.
public final class PlatesPdf {
  private static final double POINTS = 72 / 25.4;
  private static final double MARGIN = 14;
  private static final double BAR = 50;

  private PlatesPdf() {}

  /// The bytes of the file.
  public static byte[] bytes(Plates plates, String title) throws IOException {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    try (PDDocument d = new PDDocument()) {
      d.getDocumentInformation().setProducer(Output.PRODUCER);
      d.getDocumentInformation().setTitle(title);
      PDFont words = PdfPage.font(d, "B612-Regular");
      for (Plates.Plate p : plates.all()) {
        page(d, words, plates.boxMm(), p, title, false);
        if (p.name().equals("probe-plate")) {
          page(d, words, plates.boxMm(), p, title, true);
        }
      }
      d.save(bytes);
    }
    return bytes.toByteArray();
  }

  private static void page(
      PDDocument d, PDFont words, double[] box, Plates.Plate p, String title, boolean below)
      throws IOException {
    double w = Math.max(box[2] - box[0], 110) + 2 * MARGIN;
    double h = box[3] - box[1] + 3 * MARGIN;
    PDPage page = new PDPage(new PDRectangle((float) (w * POINTS), (float) (h * POINTS)));
    d.addPage(page);
    try (PDPageContentStream out = new PDPageContentStream(d, page)) {
      out.setLineWidth(0.35f);
      for (Plates.Line l : p.lines()) {
        for (int i = 0; i < l.corners().size(); i++) {
          float x = x(l.corners().get(i)[0], box, below);
          float y = y(l.corners().get(i)[1], box);
          if (i == 0) {
            out.moveTo(x, y);
          } else {
            out.lineTo(x, y);
          }
        }
        out.closeAndStroke();
      }
      for (Plates.Hole o : p.holes()) {
        circle(out, x(o.xMm(), box, below), y(o.yMm(), box), (float) (o.diameterMm() / 2 * POINTS));
        if (o.what().equals("probe")) {
          text(
              out,
              words,
              6,
              x(o.xMm(), box, below) + (float) (o.diameterMm() / 2 * POINTS) + 1,
              y(o.yMm(), box) - 2,
              o.label());
        }
      }
      text(
          out,
          words,
          9,
          (float) (MARGIN * POINTS),
          (float) ((h - MARGIN) * POINTS),
          title
              + " · "
              + p.title()
              + (below ? ", seen from below: the wires" : ", seen from above"));
      float bar = (float) (0.7 * MARGIN * POINTS);
      out.setLineWidth(1);
      out.moveTo((float) (MARGIN * POINTS), bar);
      out.lineTo((float) ((MARGIN + BAR) * POINTS), bar);
      out.stroke();
      text(
          out,
          words,
          7,
          (float) ((MARGIN + BAR + 2) * POINTS),
          bar - 2,
          "50 mm: print at 100 %, measure it before you drill");
    }
  }

  private static float x(double mm, double[] box, boolean below) {
    return (float) ((MARGIN + (below ? box[2] - mm : mm - box[0])) * POINTS);
  }

  private static float y(double mm, double[] box) {
    return (float) ((1.5 * MARGIN + mm - box[1]) * POINTS);
  }

  private static void text(
      PDPageContentStream out, PDFont words, float size, float x, float y, String text)
      throws IOException {
    out.beginText();
    out.setFont(words, size);
    out.newLineAtOffset(x, y);
    out.showText(PdfPage.shown(words, text));
    out.endText();
  }

  /// A circle of four curves, with a cross in its middle.
  private static void circle(PDPageContentStream out, float x, float y, float r)
      throws IOException {
    float k = 0.5523f * r;
    out.moveTo(x + r, y);
    out.curveTo(x + r, y + k, x + k, y + r, x, y + r);
    out.curveTo(x - k, y + r, x - r, y + k, x - r, y);
    out.curveTo(x - r, y - k, x - k, y - r, x, y - r);
    out.curveTo(x + k, y - r, x + r, y - k, x + r, y);
    out.closeAndStroke();
    out.moveTo(x - r / 2, y);
    out.lineTo(x + r / 2, y);
    out.moveTo(x, y - r / 2);
    out.lineTo(x, y + r / 2);
    out.stroke();
  }
}
