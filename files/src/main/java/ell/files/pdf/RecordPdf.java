package ell.files.pdf;

import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Limits;
import ell.core.quantity.Verdict;
import ell.core.record.BoardRecord;
import ell.core.record.Section;
import ell.core.record.Section.Cells;
import ell.core.record.Section.Drawing;
import ell.core.record.Section.Picture;
import ell.core.record.Section.Strip;
import ell.core.record.Section.Tone;
import ell.files.Output;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.graphics.image.PDImageXObject;

/// Draws the record of a board as a PDF, section by section: words in columns, readings on limit
/// strips, photographs. The file appears whole or not at all.
public final class RecordPdf {
  private static final int INK = 0x22282B;
  private static final int SOFT = 0x5C625F;
  private static final int HAIR = 0xCBC4B3;
  private static final int GOOD = 0x1E6F62;
  private static final int DOUBT = 0x8A560D;
  private static final int BAD = 0x9E2F3C;

  private final BoardRecord record;
  private final PdfPage page;
  private final Photographs photographs;

  private RecordPdf(BoardRecord record, PdfPage page, Photographs photographs) {
    this.record = record;
    this.page = page;
    this.photographs = photographs;
  }

  /// Where photographs are kept.
  public interface Photographs {
    /// The bytes of a JPEG or PNG by their SHA-256, empty when they are not kept.
    Optional<byte[]> bytes(String sha256) throws IOException;
  }

  /// Writes the record to a file.
  ///
  /// @param photographs gives the pictures that the record speaks of
  /// @throws IOException when the file cannot be written
  public static void write(BoardRecord record, Photographs photographs, Path file, Output.Over over)
      throws IOException {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    try (PDDocument document = new PDDocument()) {
      document.getDocumentInformation().setProducer(Output.PRODUCER);
      document.getDocumentInformation().setTitle(record.board() + ", " + record.revision());
      // without it the time of the clock would be in the file: made again, it is the same again
      document.setDocumentId((long) record.seal().hashCode());
      try (PdfPage page = new PdfPage(document, record.board() + " · " + record.revision())) {
        new RecordPdf(record, page, photographs).draw();
      }
      document.save(bytes);
    }
    Output.write(file, bytes.toByteArray(), over);
  }

  private void draw() throws IOException {
    page.colour(INK);
    page.down(16, 0);
    page.text(page.bold, 22, PdfPage.LEFT, record.board());
    page.textEndingAt(page.bold, 12, PdfPage.RIGHT, "ell · " + record.kind());
    page.down(18, 0);
    page.colour(SOFT);
    page.text(page.words, 10, PdfPage.LEFT, record.revision() + " · " + record.build());
    page.textEndingAt(page.words, 10, PdfPage.RIGHT, record.printed());
    page.down(16, 0);
    page.colour(INK);
    page.text(page.words, 11, PdfPage.LEFT, record.standing());
    page.down(10, 0);
    page.line(PdfPage.LEFT, page.y(), PdfPage.RIGHT, page.y(), 1.2f);
    for (Section s : record.sections()) {
      head(s.title(), s.note());
      if (!s.rows().isEmpty() && !(s.rows().getFirst() instanceof Strip)) {
        page.down(2, 14);
      }
      Section.Row before = null;
      for (Section.Row r : s.rows()) {
        if (before instanceof Strip && r instanceof Cells) {
          page.down(9, 13); // the numbers of the strip's limits stand below it
        }
        before = r;
        switch (r) {
          case Strip x -> reading(x);
          case Cells x -> cells(x, s.widths());
          case Picture x -> picture(x);
          case Drawing x -> drawing(x);
        }
      }
    }
    seal();
  }

  private void head(String title, String note) throws IOException {
    page.down(26, 60);
    page.colour(INK);
    page.text(page.bold, 12.5f, PdfPage.LEFT, title);
    page.colour(SOFT);
    page.textEndingAt(page.words, 9, PdfPage.RIGHT, note);
    page.colour(HAIR);
    page.line(PdfPage.LEFT, page.y() - 5, PdfPage.RIGHT, page.y() - 5, 0.6f);
    page.down(8, 0);
  }

  private void reading(Strip r) throws IOException {
    page.down(24, 24);
    page.colour(INK);
    page.text(page.words, 10, PdfPage.LEFT, page.cut(page.words, 10, 150, r.place()));
    if (r.value().isEmpty()) {
      page.colour(SOFT);
      page.text(page.words, 10, 220, "not read");
    } else {
      page.textEndingAt(page.words, 10, 270, EngineeringNumber.print(r.value().get(), r.unit(), 4));
    }
    r.limits().ifPresent(l -> strip(r, l));
    if (r.verdict().isPresent()) {
      Verdict v = r.verdict().get();
      page.colour(colour(v));
      page.textEndingAt(page.words, 9, PdfPage.RIGHT, v.words());
    }
  }

  private static int colour(Verdict v) {
    return switch (v) {
      case WITHIN -> GOOD;
      case CLOSE -> DOUBT;
      case OUT -> BAD;
    };
  }

  /// The limit strip: two tall ticks, hatched guard bands, a pointer with a whisker.
  private void strip(Strip r, Limits l) {
    if (Double.isInfinite(l.low()) || Double.isInfinite(l.high())) {
      return;
    }
    try {
      float x0 = 300;
      float x1 = 440;
      float y = page.y();
      double span = Math.max(l.high() - l.low(), 1e-12);
      double from = l.low() - span * 0.35;
      double to = l.high() + span * 0.35;
      float low = place(l.low(), from, to, x0, x1);
      float high = place(l.high(), from, to, x0, x1);
      page.colour(HAIR);
      page.line(x0, y, x1, y, 0.8f);
      page.colour(INK);
      page.line(low, y - 3, low, y + 10, 1.1f);
      page.line(high, y - 3, high, y + 10, 1.1f);
      double u = r.uncertainty().orElse(0.0);
      float guard = Math.min((float) (u / (to - from) * (x1 - x0)), (high - low) / 2);
      page.colour(DOUBT);
      hatch(low, low + guard, y);
      hatch(high - guard, high, y);
      page.colour(SOFT);
      page.text(page.words, 6.5f, low - 8, y - 10, EngineeringNumber.print(l.low(), r.unit(), 4));
      page.text(page.words, 6.5f, high - 8, y - 10, EngineeringNumber.print(l.high(), r.unit(), 4));
      if (r.value().isPresent()) {
        float at = place(r.value().get(), from, to, x0, x1);
        float a = place(r.value().get() - u, from, to, x0, x1);
        float b = place(r.value().get() + u, from, to, x0, x1);
        page.colour(r.verdict().map(RecordPdf::colour).orElse(INK));
        page.line(a, y + 3, b, y + 3, 1.4f);
        page.triangle(at, y + 11, 3.2f, 7);
      }
    } catch (IOException e) {
      throw new java.io.UncheckedIOException(e);
    }
  }

  private void hatch(float from, float to, float y) throws IOException {
    for (float x = from; x < to; x += 2.2f) {
      page.line(x, y, Math.min(x + 3, to), y + 6, 0.5f);
    }
  }

  private static float place(double value, double from, double to, float x0, float x1) {
    double f = Math.clamp((value - from) / (to - from), 0, 1);
    return (float) (x0 + f * (x1 - x0));
  }

  private void cells(Cells c, List<Double> widths) throws IOException {
    page.down(13, 13);
    int tone = tone(c.tone());
    float x = PdfPage.LEFT;
    float all = PdfPage.RIGHT - PdfPage.LEFT;
    for (int i = 0; i < c.cells().size(); i++) {
      float w = (float) (widths.get(i) * all);
      page.colour(tone);
      String said = c.cells().get(i);
      if (c.cells().size() == 1) {
        page.wrapped(page.words, 9, x, PdfPage.RIGHT, said);
      } else {
        String shown = page.cut(page.words, 9, w - 6, said);
        page.text(page.words, 9, x, shown);
        if (c.tone() == Tone.STRUCK && i == c.cells().size() - 1) {
          float end = x + page.width(page.words, 9, shown);
          page.line(x, page.y() + 3, end, page.y() + 3, 0.6f);
        }
      }
      x += w;
    }
    if (c.verdict().isPresent()) {
      Verdict v = c.verdict().get();
      page.colour(colour(v));
      page.textEndingAt(page.words, 9, PdfPage.RIGHT, v.words());
    }
  }

  private static int tone(Tone t) {
    return switch (t) {
      case PLAIN -> INK;
      case SOFT, STRUCK -> SOFT;
      case BAD -> BAD;
      case GOOD -> GOOD;
    };
  }

  private static final float DRAWN_WIDE = 300;
  private static final float DRAWN_HIGH = 200;

  /// A part of a board, as large as its room allows.
  private void drawing(Drawing d) throws IOException {
    double wide = Math.max(d.box()[2] - d.box()[0], 1e-6);
    double high = Math.max(d.box()[3] - d.box()[1], 1e-6);
    float scale = (float) Math.min(DRAWN_WIDE / wide, DRAWN_HIGH / high);
    float tall = (float) (high * scale);
    page.down(tall + 16, 6);
    float x0 = PdfPage.LEFT;
    float y0 = page.y();
    Place at = new Place(x0, y0, scale, d.box()[0], d.box()[1]);
    page.clip(x0, y0, (float) (wide * scale), tall);
    page.colour(HAIR);
    for (double[] p : d.pads()) {
      page.fill(at.x(p[0]), at.y(p[1]), (float) (p[2] * scale), (float) (p[3] * scale));
    }
    page.colour(SOFT);
    for (double[] e : d.edges()) {
      for (int i = 2; i + 1 < e.length; i += 2) {
        page.line(at.x(e[i - 2]), at.y(e[i - 1]), at.x(e[i]), at.y(e[i + 1]), 0.8f);
      }
    }
    for (Drawing.Label n : d.names()) {
      page.text(page.words, 6, at.x(n.x()), at.y(n.y()), n.text());
    }
    page.colour(INK);
    for (double[] w : d.wires()) {
      page.line(at.x(w[0]), at.y(w[1]), at.x(w[2]), at.y(w[3]), 1.6f);
      page.dot(at.x(w[0]), at.y(w[1]), 2.4f);
      page.dot(at.x(w[2]), at.y(w[3]), 2.4f);
    }
    page.colour(BAD);
    for (double[] c : d.cuts()) {
      page.line(at.x(c[0]) - 4, at.y(c[1]) - 4, at.x(c[0]) + 4, at.y(c[1]) + 4, 1.4f);
      page.line(at.x(c[0]) - 4, at.y(c[1]) + 4, at.x(c[0]) + 4, at.y(c[1]) - 4, 1.4f);
    }
    page.colour(INK);
    for (Drawing.Label m : d.marks()) {
      page.text(page.bold, 8, at.x(m.x()) + 5, at.y(m.y()) + 3, m.text());
    }
    page.unclip();
    page.colour(SOFT);
    page.text(
        page.words,
        9,
        x0 + (float) (wide * scale) + 12,
        y0 + tall - 10,
        page.cut(page.words, 9, PdfPage.RIGHT - x0 - (float) (wide * scale) - 12, d.words()));
  }

  /// Where a place of the board lies on the page.
  private record Place(float x0, float y0, float scale, double left, double low) {
    float x(double mm) {
      return (float) (x0 + (mm - left) * scale);
    }

    float y(double mm) {
      return (float) (y0 + (mm - low) * scale);
    }
  }

  /// A photograph, or the words that it is not kept here or cannot be drawn: the record is made all
  /// the same.
  private void picture(Picture p) throws IOException {
    page.down(15, 15);
    page.colour(INK);
    Optional<byte[]> bytes = photographs.bytes(p.sha256());
    String words = p.place() + " · " + p.name();
    if (bytes.isEmpty()) {
      page.text(page.words, 9, PdfPage.LEFT, words + " (not kept here)");
      return;
    }
    try {
      PDImageXObject image = page.image(bytes.get(), p.name());
      page.text(page.words, 9, PdfPage.LEFT, words);
      page.down(6, 160);
      float high = page.picture(image, PdfPage.LEFT, 220, 150);
      page.down(high, 0);
    } catch (IOException e) {
      page.text(page.words, 9, PdfPage.LEFT, words + " (cannot be drawn)");
    }
    page.colour(SOFT);
    page.down(10, 0);
    page.text(page.words, 6.5f, PdfPage.LEFT, "SHA-256 " + p.sha256());
  }

  private void seal() throws IOException {
    page.down(26, 30);
    page.colour(SOFT);
    page.text(
        page.words,
        8.5f,
        PdfPage.LEFT,
        "The book's head that this speaks for (entries, SHA-256 of their chain); verify --against it:");
    page.down(12, 12);
    page.text(page.words, 8, PdfPage.LEFT, record.seal());
  }
}
