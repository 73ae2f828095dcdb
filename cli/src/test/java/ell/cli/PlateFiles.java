package ell.cli;

import java.awt.geom.Point2D;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.contentstream.PDFGraphicsStreamEngine;
import org.apache.pdfbox.cos.COSName;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.pdmodel.graphics.image.PDImage;

/// Reads drawings of plates by the simplest means: circles as `{x, y, diameter}` in millimetre,
/// from the corner of the board that lies at the least x and y.
final class PlateFiles {
  private static final double POINTS = 72 / 25.4;

  private PlateFiles() {}

  /// The corner of least x and greatest y of an SVG path of straight lines.
  static double[] corner(String d) {
    double x = Double.POSITIVE_INFINITY;
    double y = Double.NEGATIVE_INFINITY;
    for (String p : d.replaceAll("[MLZ]", " ; ").split(";")) {
      String[] xy = p.strip().split("\\s+");
      if (xy.length == 2) {
        x = Math.min(x, Double.parseDouble(xy[0]));
        y = Math.max(y, Double.parseDouble(xy[1]));
      }
    }
    return new double[] {x, y};
  }

  /// Circles of a DXF by plate: pairs of group code and value, entities one after the other.
  static Map<String, List<double[]>> dxf(String text) {
    List<String> lines = text.lines().toList();
    Map<String, List<double[]>> circles = new TreeMap<>();
    Map<String, double[]> zero = new TreeMap<>();
    String entity = "";
    Map<Integer, String> at = new TreeMap<>();
    for (int i = 0; i + 1 < lines.size(); i += 2) {
      int code = Integer.parseInt(lines.get(i).strip());
      String value = lines.get(i + 1);
      if (code == 0) {
        take(entity, at, circles, zero);
        entity = value;
        at.clear();
      }
      at.put(code, value);
    }
    Map<String, List<double[]>> out = new TreeMap<>();
    circles.forEach((plate, all) -> {
      double[] o = zero.get(plate);
      if (o != null) {
        out.put(
            plate, all.stream().map(c -> new double[] {c[0] - o[0], c[1] - o[1], c[2]}).toList());
      }
    });
    return out;
  }

  private static void take(
      String entity,
      Map<Integer, String> at,
      Map<String, List<double[]>> circles,
      Map<String, double[]> zero) {
    String layer = at.getOrDefault(8, "").toLowerCase(Locale.ROOT).replace('_', '-');
    int cut = layer.lastIndexOf('-');
    if (cut < 0) {
      return;
    }
    String plate = layer.substring(0, cut);
    if (entity.equals("CIRCLE")) {
      circles
          .computeIfAbsent(plate, _ -> new ArrayList<>())
          .add(
              new double[] {
                Double.parseDouble(at.get(10)),
                Double.parseDouble(at.get(20)),
                2 * Double.parseDouble(at.get(40))
              });
    } else if (entity.equals("VERTEX") && layer.endsWith("-board")) {
      double x = Double.parseDouble(at.get(10));
      double y = Double.parseDouble(at.get(20));
      zero.merge(
          plate,
          new double[] {x, y},
          (a, b) -> new double[] {Math.min(a[0], b[0]), Math.min(a[1], b[1])});
    }
  }

  /// Circles of each page, measured from the board's corner of least x and y; on a mirrored page
  /// from the corner of greatest x, and x counts backwards.
  static List<List<double[]>> pdf(Path file) throws IOException {
    List<List<double[]>> pages = new ArrayList<>();
    try (PDDocument d = Loader.loadPDF(file.toFile())) {
      for (PDPage p : d.getPages()) {
        Strokes s = new Strokes(p);
        s.processPage(p);
        boolean mirrored = pages.size() == 3;
        double[] zero = s.board(mirrored);
        pages.add(
            s.circles.stream()
                .map(c -> new double[] {c[0] - zero[0], c[1] - zero[1], c[2]})
                .toList());
      }
    }
    return pages;
  }

  /// Gathers closed paths: of four curves circles, of straight lines rectangles.
  private static final class Strokes extends PDFGraphicsStreamEngine {
    final List<double[]> circles = new ArrayList<>();
    private final List<double[]> boxes = new ArrayList<>();
    private double[] box;
    private int curves;
    private float x;
    private float y;

    Strokes(PDPage page) {
      super(page);
      begin();
    }

    private void begin() {
      box = new double[] {1e9, 1e9, -1e9, -1e9};
      curves = 0;
    }

    private void grow(double px, double py) {
      box[0] = Math.min(box[0], px / POINTS);
      box[1] = Math.min(box[1], py / POINTS);
      box[2] = Math.max(box[2], px / POINTS);
      box[3] = Math.max(box[3], py / POINTS);
      x = (float) px;
      y = (float) py;
    }

    /// The second largest box is the board; the largest is the plate.
    double[] board(boolean mirrored) {
      List<double[]> all = new ArrayList<>(boxes);
      all.sort((a, b) -> Double.compare(b[2] - b[0], a[2] - a[0]));
      double[] b = all.size() > 1 ? all.get(1) : all.getFirst();
      return new double[] {mirrored ? b[2] : b[0], b[1]};
    }

    @Override
    public void moveTo(float px, float py) {
      begin();
      grow(px, py);
    }

    @Override
    public void lineTo(float px, float py) {
      grow(px, py);
    }

    @Override
    public void curveTo(float a, float b, float c, float d, float px, float py) {
      curves++;
      grow(px, py);
    }

    @Override
    public void closePath() {
      if (curves == 4) {
        circles.add(new double[] {(box[0] + box[2]) / 2, (box[1] + box[3]) / 2, box[2] - box[0]});
      } else if (curves == 0) {
        boxes.add(box);
      }
    }

    @Override
    public void appendRectangle(Point2D a, Point2D b, Point2D c, Point2D d) {}

    @Override
    public void drawImage(PDImage image) {}

    @Override
    public void clip(int rule) {}

    @Override
    public Point2D getCurrentPoint() {
      return new Point2D.Float(x, y);
    }

    @Override
    public void endPath() {}

    @Override
    public void strokePath() {}

    @Override
    public void fillPath(int rule) {}

    @Override
    public void fillAndStrokePath(int rule) {}

    @Override
    public void shadingFill(COSName name) {}
  }
}
