package ell.files;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import ell.core.artwork.Artwork;
import ell.core.artwork.Island;
import ell.core.artwork.Islands;
import ell.core.board.Side;
import ell.core.print.Opening;
import ell.core.print.PasteLayer;
import ell.core.print.SheetFit;
import ell.files.gerber.GerberReader;
import ell.files.gerber.StencilWriter;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import javax.xml.parsers.DocumentBuilderFactory;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import org.w3c.dom.Element;
import org.w3c.dom.NodeList;

/// Stencil sheets read back: SVG by the language's XML parser, DXF group by group, Gerber by the
/// reader of layers; each must hold every opening of every field, where it belongs.
public class StencilWriterTest {
  private static final double[] BOX = {10, 20, 40, 38};
  private static final double HAND = 2;
  private Path dir;

  @BeforeMethod
  public void make() throws IOException {
    dir = Files.createTempDirectory("stencil");
  }

  @AfterMethod
  public void clear() throws IOException {
    try (Stream<Path> all = Files.walk(dir)) {
      for (Path p : all.sorted(java.util.Comparator.reverseOrder()).toList()) {
        Files.delete(p);
      }
    }
  }

  /// Three openings that no turn or mirror image can be mistaken for.
  private static PasteLayer layer() throws IOException {
    String text =
        "%FSLAX36Y36*%\n%MOMM*%\n%ADD10R,2X0.5*%\n%ADD11C,1*%\nD10*\nX12000000Y22000000D03*\n"
            + "D11*\nX39000000Y21000000D03*\nD10*\nX20000000Y37000000D03*\nM02*\n";
    if (!(GerberReader.read(Source.of("p.gbr", text))
        instanceof Read.Whole<Artwork>(Artwork art, var _))) {
      throw new AssertionError("not read");
    }
    return new PasteLayer(
        Side.FIRST,
        Islands.of(art).stream()
            .map(i -> new Opening(i, "R1", "1", Optional.empty(), true))
            .toList(),
        List.of());
  }

  private static SheetFit fit() {
    double w = (BOX[2] - BOX[0] + 2 * HAND) * 1e-3;
    double h = (BOX[3] - BOX[1] + 2 * HAND) * 1e-3;
    return SheetFit.of(0.120, 0.100, w, h, 0.005, 0.002);
  }

  /// A polygon as corners; what is compared is its area and its middle.
  private record Shape(double area, double x, double y) {
    static Shape of(List<double[]> corners) {
      double a = 0;
      double x = 0;
      double y = 0;
      for (int i = 0; i < corners.size(); i++) {
        double[] p = corners.get(i);
        double[] q = corners.get((i + 1) % corners.size());
        double cross = p[0] * q[1] - q[0] * p[1];
        a += cross / 2;
        x += (p[0] + q[0]) * cross / 6;
        y += (p[1] + q[1]) * cross / 6;
      }
      return new Shape(Math.abs(a), x / a, y / a);
    }
  }

  private static List<Shape> svg(String text, double height) throws Exception {
    Element root =
        DocumentBuilderFactory.newInstance()
            .newDocumentBuilder()
            .parse(new java.io.ByteArrayInputStream(text.getBytes("UTF-8")))
            .getDocumentElement();
    assertEquals(root.getAttribute("width"), "120.0000mm");
    List<Shape> out = new ArrayList<>();
    NodeList groups = root.getElementsByTagName("g");
    NodeList paths = ((Element) groups.item(0)).getElementsByTagName("path");
    for (int i = 0; i < paths.getLength(); i++) {
      String d = ((Element) paths.item(i)).getAttribute("d");
      assertTrue(d.endsWith("Z"), d);
      List<double[]> corners = new ArrayList<>();
      for (String p : d.substring(1, d.length() - 1).split("L")) {
        String[] xy = p.split(" ");
        corners.add(new double[] {Double.parseDouble(xy[0]), height - Double.parseDouble(xy[1])});
      }
      out.add(Shape.of(corners));
    }
    return out;
  }

  private static List<Shape> dxf(String text) {
    String[] lines = text.split("\n");
    assertEquals(lines.length % 2, 0, "codes and values alternate");
    List<Shape> out = new ArrayList<>();
    List<double[]> corners = new ArrayList<>();
    boolean vertex = false;
    double x = 0;
    for (int i = 0; i < lines.length; i += 2) {
      int code = Integer.parseInt(lines[i].strip());
      String value = lines[i + 1];
      if (code == 0) {
        vertex = value.equals("VERTEX");
        if (value.equals("SEQEND")) {
          out.add(Shape.of(corners));
          corners = new ArrayList<>();
        }
      } else if (vertex && code == 10) {
        x = Double.parseDouble(value);
      } else if (vertex && code == 20) {
        corners.add(new double[] {x, Double.parseDouble(value)});
      }
    }
    assertEquals(lines[lines.length - 1], "EOF");
    return out;
  }

  private static List<Shape> gerber(String text) throws IOException {
    if (!(GerberReader.read(Source.of("back.gbr", text))
        instanceof Read.Whole<Artwork>(Artwork art, var _))) {
      throw new AssertionError("not read back");
    }
    List<Shape> out = new ArrayList<>();
    for (Island i : Islands.of(art)) {
      double[] ring = i.rings().getFirst();
      List<double[]> corners = new ArrayList<>();
      for (int k = 0; k < ring.length; k += 2) {
        corners.add(new double[] {ring[k] + i.x(), ring[k + 1] + i.y()});
      }
      out.add(Shape.of(corners));
    }
    return out;
  }

  @DataProvider
  Object[][] formats() {
    return new Object[][] {{"sheet.svg"}, {"sheet.dxf"}, {"sheet.gbr"}, {"SHEET.GER"}};
  }

  @Test(dataProvider = "formats")
  public void everyOpeningOfEveryFieldIsThere(String name) throws Exception {
    SheetFit fit = fit();
    assertTrue(fit.fields().size() > 3, "several boards a sheet");
    Path to = dir.resolve(name);
    StencilWriter.write(layer(), fit, BOX, HAND, to, Output.Over.ANY);
    String text = Files.readString(to);
    List<Shape> found =
        name.endsWith("svg") ? svg(text, 100) : name.endsWith("dxf") ? dxf(text) : gerber(text);
    assertEquals(found.size(), 3 * fit.fields().size());
    double[][] openings = {{12, 22, 1.0}, {39, 21, Math.PI / 4}, {20, 37, 1.0}};
    for (SheetFit.Field f : fit.fields()) {
      for (double[] o : openings) {
        double x = o[0] - BOX[0] + HAND;
        double y = o[1] - BOX[1] + HAND;
        // a quarter turn to the left: what lay right lies up
        double px = f.x() * 1e3 + (f.turned() ? f.width() * 1e3 - y : x);
        double py = f.y() * 1e3 + (f.turned() ? x : y);
        assertEquals(
            found.stream()
                .filter(s ->
                    Math.hypot(s.x() - px, s.y() - py) < 1e-3 && Math.abs(s.area() - o[2]) < 1e-3)
                .count(),
            1,
            "an opening at " + px + ", " + py);
      }
    }
  }

  @Test
  public void someFieldIsTurned() {
    SheetFit fit = fit();
    assertTrue(
        fit.fields().stream().anyMatch(SheetFit.Field::turned)
            && fit.fields().stream().anyMatch(f -> !f.turned()),
        "both ways are looked at: " + fit.fields());
  }

  @Test
  public void anUnknownEndingIsRefusedAndNothingIsLeft() throws IOException {
    PasteLayer layer = layer();
    assertThrows(
        IllegalArgumentException.class,
        () ->
            StencilWriter.write(
                layer, fit(), BOX, HAND, dir.resolve("sheet.pdf"), Output.Over.ANY));
    try (Stream<Path> left = Files.list(dir)) {
      assertEquals(left.count(), 0);
    }
  }

  @Test
  public void aFolderThatIsNotThereIsToldAndNothingIsLeft() throws IOException {
    PasteLayer layer = layer();
    Path to = dir.resolve("missing").resolve("sheet.svg");
    assertThrows(
        IOException.class, () -> StencilWriter.write(layer, fit(), BOX, HAND, to, Output.Over.ANY));
    assertFalse(Files.exists(to));
  }
}
