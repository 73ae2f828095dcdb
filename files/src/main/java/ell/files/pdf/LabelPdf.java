package ell.files.pdf;

import ell.files.Output;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.common.PDRectangle;

/// Labels on A4, three across: a bin or a serial number large, what it is below, and a QR code
/// (ISO/IEC 18004) to be read off. Cut lines between them.
public final class LabelPdf {
  private static final int ACROSS = 3;
  private static final float HEIGHT = 74;
  private static final float GAP = 6;

  private LabelPdf() {}

  /// One label.
  ///
  /// @param bin set large
  /// @param code below it
  /// @param more in small letters, may be empty
  /// @param scanned what the QR code says
  /// @param head where the book ended when it was printed, in the smallest letters
  public record Label(String bin, String code, String more, String scanned, String head) {}

  /// Writes labels; the file appears whole or not at all.
  ///
  /// @throws IOException when it cannot be written
  public static void write(List<Label> labels, Path to, Output.Over over) throws IOException {
    write("Labels for bins", labels, to, over);
  }

  /// The same for labels of another kind.
  ///
  /// @param title what they are for
  /// @throws IOException when it cannot be written
  public static void write(String title, List<Label> labels, Path to, Output.Over over)
      throws IOException {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    try (PDDocument document = new PDDocument()) {
      document.getDocumentInformation().setProducer(Output.PRODUCER);
      document.getDocumentInformation().setTitle(title);
      document.setDocumentId((long) labels.hashCode());
      try (PdfPage page = new PdfPage(document, title + ", cut along the lines")) {
        for (int i = 0; i < labels.size(); i++) {
          if (i % ACROSS == 0) {
            page.down(i == 0 ? 0 : HEIGHT + GAP, HEIGHT + GAP);
          }
          one(page, labels.get(i), i % ACROSS);
        }
      }
      document.save(bytes);
    }
    Output.write(to, bytes.toByteArray(), over);
  }

  private static void one(PdfPage page, Label label, int column) throws IOException {
    float width = (PDRectangle.A4.getWidth() - 2 * PdfPage.LEFT) / ACROSS;
    float x = PdfPage.LEFT + column * width;
    float top = page.y();
    float right = x + width - GAP;
    page.colour(0xCBC4B3);
    page.line(x, top, right, top, 0.4f);
    page.line(x, top - HEIGHT, right, top - HEIGHT, 0.4f);
    page.line(x, top, x, top - HEIGHT, 0.4f);
    page.line(right, top, right, top - HEIGHT, 0.4f);
    page.colour(0x22282B);
    float qr = 58;
    boolean[][] code = QrCode.modules(label.scanned());
    float module = qr / code.length;
    for (int row = 0; row < code.length; row++) {
      for (int c = 0; c < code.length; c++) {
        if (code[row][c]) {
          page.fill(
              right - qr - 4 + c * module,
              top - 8 - (row + 1) * module,
              module + 0.02f,
              module + 0.02f);
        }
      }
    }
    float room = width - GAP - qr - 14;
    page.text(page.bold, 20, x + 6, top - 26, page.cut(page.bold, 20, room, label.bin()));
    page.text(page.mono, 9, x + 6, top - 44, page.cut(page.mono, 9, room, label.code()));
    page.text(page.words, 7, x + 6, top - 58, page.cut(page.words, 7, room, label.more()));
    page.text(page.mono, 5, x + 6, top - 69, page.cut(page.mono, 5, room, label.head()));
  }
}
