package ell.files.pdf;

import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.List;
import org.apache.fontbox.ttf.OTFParser;
import org.apache.pdfbox.io.RandomAccessReadBuffer;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.pdmodel.PDPageContentStream;
import org.apache.pdfbox.pdmodel.common.PDRectangle;
import org.apache.pdfbox.pdmodel.font.PDFont;
import org.apache.pdfbox.pdmodel.font.PDType0Font;
import org.apache.pdfbox.pdmodel.graphics.image.PDImageXObject;

/// Sets text and lines on A4 pages from the top down, with the shipped typefaces. Points, 1/72
/// inch.
final class PdfPage implements AutoCloseable {
  static final float LEFT = 54;
  static final float RIGHT = PDRectangle.A4.getWidth() - 54;
  private static final float TOP = PDRectangle.A4.getHeight() - 54;
  private static final float BOTTOM = 60;

  final PDFont words;
  final PDFont bold;
  final PDFont mono;
  private final PDDocument document;
  private final List<PDPage> pages = new ArrayList<>();
  private final String foot;
  private PDPageContentStream out;
  private float y;

  PdfPage(PDDocument document, String foot) throws IOException {
    this.document = document;
    this.foot = foot;
    this.words = font(document, "B612-Regular");
    this.bold = font(document, "B612-Bold");
    this.mono = font(document, "B612Mono-Regular");
    turn();
  }

  static PDFont font(PDDocument document, String name) throws IOException {
    try (InputStream in = PdfPage.class.getResourceAsStream("/ell/files/font/" + name + ".otf")) {
      // outlines of this kind are embedded whole: they cannot be cut down to the letters in use
      return PDType0Font.load(
          document, new OTFParser().parse(new RandomAccessReadBuffer(in)), false);
    }
  }

  private void turn() throws IOException {
    if (out != null) {
      out.close();
    }
    PDPage page = new PDPage(PDRectangle.A4);
    document.addPage(page);
    pages.add(page);
    out = new PDPageContentStream(document, page);
    y = TOP;
  }

  float y() {
    return y;
  }

  /// Moves down, and to a new page when `room` points are not left.
  void down(float by, float room) throws IOException {
    y -= by;
    if (y - room < BOTTOM) {
      turn();
    }
  }

  void colour(int rgb) throws IOException {
    float r = (rgb >> 16 & 0xff) / 255f;
    float g = (rgb >> 8 & 0xff) / 255f;
    float b = (rgb & 0xff) / 255f;
    out.setNonStrokingColor(r, g, b);
    out.setStrokingColor(r, g, b);
  }

  void text(PDFont font, float size, float x, String text) throws IOException {
    text(font, size, x, y, text);
  }

  void text(PDFont font, float size, float x, float at, String text) throws IOException {
    out.beginText();
    out.setFont(font, size);
    out.newLineAtOffset(x, at);
    out.showText(shown(font, text));
    out.endText();
  }

  void textEndingAt(PDFont font, float size, float x, String text) throws IOException {
    text(font, size, x - width(font, size, text), text);
  }

  float width(PDFont font, float size, String text) throws IOException {
    return font.getStringWidth(shown(font, text)) / 1000 * size;
  }

  /// Sets words in lines that end before `right`.
  void wrapped(PDFont font, float size, float x, float right, String text) throws IOException {
    StringBuilder line = new StringBuilder();
    for (String word : text.split("\\s+")) {
      String longer = line.isEmpty() ? word : line + " " + word;
      if (!line.isEmpty() && x + width(font, size, longer) > right) {
        text(font, size, x, line.toString());
        down(size * 1.35f, size);
        line.setLength(0);
        line.append(word);
      } else {
        line.setLength(0);
        line.append(longer);
      }
    }
    text(font, size, x, cut(font, size, right - x, line.toString()));
  }

  /// A text that fits in a width, its end left off where it must be.
  String cut(PDFont font, float size, float width, String text) throws IOException {
    String t = text;
    while (t.length() > 1 && width(font, size, t) > width) {
      t = t.substring(0, t.length() - 2).stripTrailing() + "…";
    }
    return t;
  }

  void line(float x0, float y0, float x1, float y1, float width) throws IOException {
    out.setLineWidth(width);
    out.moveTo(x0, y0);
    out.lineTo(x1, y1);
    out.stroke();
  }

  void fill(float x, float y0, float w, float h) throws IOException {
    out.addRect(x, y0, w, h);
    out.fill();
  }

  void dot(float x, float y0, float radius) throws IOException {
    // four curves are a circle to the eye
    float k = 0.5523f * radius;
    out.moveTo(x + radius, y0);
    out.curveTo(x + radius, y0 + k, x + k, y0 + radius, x, y0 + radius);
    out.curveTo(x - k, y0 + radius, x - radius, y0 + k, x - radius, y0);
    out.curveTo(x - radius, y0 - k, x - k, y0 - radius, x, y0 - radius);
    out.curveTo(x + k, y0 - radius, x + radius, y0 - k, x + radius, y0);
    out.closePath();
    out.fill();
  }

  /// Nothing is drawn outside of a rectangle until [#unclip].
  void clip(float x, float y0, float w, float h) throws IOException {
    out.saveGraphicsState();
    out.addRect(x, y0, w, h);
    out.clip();
  }

  void unclip() throws IOException {
    out.restoreGraphicsState();
  }

  /// Draws a picture with its upper left corner at the pen, no wider and no higher than it may be.
  ///
  /// @return its height on the page
  float picture(PDImageXObject image, float x, float mostWide, float mostHigh) throws IOException {
    float scale = Math.min(mostWide / image.getWidth(), mostHigh / image.getHeight());
    float h = image.getHeight() * scale;
    out.drawImage(image, x, y - h, image.getWidth() * scale, h);
    return h;
  }

  /// A picture out of the bytes of a JPEG or PNG.
  ///
  /// @throws IOException when they are neither
  PDImageXObject image(byte[] bytes, String name) throws IOException {
    try {
      return PDImageXObject.createFromByteArray(document, bytes, name);
    } catch (IllegalArgumentException e) {
      throw new IOException("the photograph " + name + " cannot be drawn", e);
    }
  }

  void triangle(float x, float top, float half, float height) throws IOException {
    out.moveTo(x - half, top);
    out.lineTo(x + half, top);
    out.lineTo(x, top - height);
    out.closePath();
    out.fill();
  }

  /// What the font has no letter for is set as a question mark.
  static String shown(PDFont font, String text) {
    StringBuilder s = new StringBuilder(text.length());
    text.codePoints()
        .forEach(c -> {
          String one = Character.toString(Character.isISOControl(c) ? ' ' : c);
          try {
            font.encode(one);
            s.append(one);
          } catch (IOException | IllegalArgumentException e) {
            s.append('?');
          }
        });
    return s.toString();
  }

  /// Closes the last page and numbers all of them.
  @Override
  public void close() throws IOException {
    out.close();
    for (int i = 0; i < pages.size(); i++) {
      try (PDPageContentStream c =
          new PDPageContentStream(
              document, pages.get(i), PDPageContentStream.AppendMode.APPEND, true)) {
        c.setNonStrokingColor(0x5C / 255f, 0x62 / 255f, 0x5F / 255f);
        c.beginText();
        c.setFont(words, 7.5f);
        c.newLineAtOffset(LEFT, 34);
        c.showText(shown(words, foot + " · page " + (i + 1) + " of " + pages.size()));
        c.endText();
      }
    }
  }
}
