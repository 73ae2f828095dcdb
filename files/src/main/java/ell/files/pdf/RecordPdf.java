package ell.files.pdf;

import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Limits;
import ell.core.quantity.Verdict;
import ell.core.record.BoardRecord;
import ell.core.record.BoardRecord.ReadingLine;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import org.apache.pdfbox.pdmodel.PDDocument;


/// Draws the record of a board as a PDF: rails with limit strips, checks, findings, steps, the
/// book. The file appears whole or not at all.
public final class RecordPdf {
  private static final int INK = 0x22282B;
  private static final int SOFT = 0x5C625F;
  private static final int HAIR = 0xCBC4B3;
  private static final int GOOD = 0x1E6F62;
  private static final int DOUBT = 0x8A560D;
  private static final int BAD = 0x9E2F3C;

  private final BoardRecord record;
  private final PdfPage page;

  private RecordPdf(BoardRecord record, PdfPage page) {
    this.record = record;
    this.page = page;
  }

  /// Writes the record to a file, in place of one that is there.
  ///
  /// @throws IOException when the file cannot be written
  public static void write(BoardRecord record, Path file) throws IOException {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    try (PDDocument document = new PDDocument()) {
      document
          .getDocumentInformation()
          .setTitle("Board " + record.board() + ", " + record.revision());
      try (PdfPage page =
          new PdfPage(document, "Board " + record.board() + " · " + record.revision())) {
        new RecordPdf(record, page).draw();
      }
      document.save(bytes);
    }
    Path part = file.resolveSibling(file.getFileName() + ".new");
    try {
      Files.write(part, bytes.toByteArray());
      Files.move(part, file, StandardCopyOption.REPLACE_EXISTING);
    } finally {
      Files.deleteIfExists(part);
    }
  }

  private void draw() throws IOException {
    page.colour(INK);
    page.down(16, 0);
    page.text(page.bold, 22, PdfPage.LEFT, "Board " + record.board());
    page.textEndingAt(page.bold, 12, PdfPage.RIGHT, "ell · board record");
    page.down(18, 0);
    page.colour(SOFT);
    page.text(page.words, 10, PdfPage.LEFT, record.revision() + " · " + record.build());
    page.textEndingAt(page.words, 10, PdfPage.RIGHT, "printed " + record.printed());
    page.down(16, 0);
    page.colour(INK);
    page.text(page.words, 11, PdfPage.LEFT, record.standing());
    page.down(10, 0);
    page.line(PdfPage.LEFT, page.y(), PdfPage.RIGHT, page.y(), 1.2f);
    findings();
    rails();
    checks();
    readings();
    steps();
    log();
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

  private void findings() throws IOException {
    head("Findings", record.findings().isEmpty() ? "" : record.findings().size() + " open");
    page.down(12, 14);
    if (record.findings().isEmpty()) {
      page.colour(GOOD);
      page.text(page.words, 10, PdfPage.LEFT, "none open");
      return;
    }
    for (String f : record.findings()) {
      page.colour(BAD);
      page.text(page.bold, 10, PdfPage.LEFT, "×");
      page.wrapped(page.words, 10, PdfPage.LEFT + 14, PdfPage.RIGHT, f);
      page.down(14, 14);
    }
  }

  private void rails() throws IOException {
    if (record.rails().isEmpty()) {
      return;
    }
    head("Rails", "guard bands hatched; bar = reading with its uncertainty");
    for (ReadingLine r : record.rails()) {
      reading(r);
    }
  }

  private void readings() throws IOException {
    if (!record.readings().isEmpty()) {
      head("Other readings", "");
      for (ReadingLine r : record.readings()) {
        reading(r);
      }
    }
  }

  private void reading(ReadingLine r) throws IOException {
    page.down(24, 24);
    page.colour(INK);
    page.text(page.words, 10, PdfPage.LEFT, page.cut(page.words, 10, 150, r.place()));
    if (r.value().isEmpty()) {
      page.colour(SOFT);
      page.text(page.words, 10, 220, "not read");
    } else {
      page.textEndingAt(page.mono, 10, 270, EngineeringNumber.print(r.value().get(), r.unit(), 4));
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
  private void strip(ReadingLine r, Limits l) {
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
      page.text(page.mono, 6.5f, low - 8, y - 10, EngineeringNumber.print(l.low(), r.unit(), 4));
      page.text(page.mono, 6.5f, high - 8, y - 10, EngineeringNumber.print(l.high(), r.unit(), 4));
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

  private void checks() throws IOException {
    if (record.checks().isEmpty()) {
      return;
    }
    head("Checks without power", record.checks().size() + " made");
    for (BoardRecord.CheckLine c : record.checks()) {
      page.down(13, 13);
      page.colour(INK);
      page.text(page.words, 9, PdfPage.LEFT, c.kind());
      page.text(page.words, 9, PdfPage.LEFT + 62, page.cut(page.words, 9, 170, c.between()));
      page.textEndingAt(page.mono, 9, 350, c.read());
      page.colour(SOFT);
      page.text(page.words, 8.5f, 362, page.cut(page.words, 8.5f, 110, "expected " + c.expected()));
      Verdict v = Verdict.ofKey(c.verdict());
      page.colour(colour(v));
      page.textEndingAt(page.words, 9, PdfPage.RIGHT, v.words());
    }
  }

  private void steps() throws IOException {
    long done = record.steps().stream().filter(BoardRecord.StepLine::done).count();
    head("Steps", done + " of " + record.steps().size() + " done");
    for (BoardRecord.StepLine s : record.steps()) {
      page.down(12, 12);
      page.colour(s.done() ? INK : SOFT);
      page.textEndingAt(page.mono, 8.5f, PdfPage.LEFT + 20, String.valueOf(s.number()));
      page.text(page.words, 8.5f, PdfPage.LEFT + 28, s.done() ? "done" : "open");
      page.text(page.words, 8.5f, PdfPage.LEFT + 62, s.action());
      page.text(
          page.words,
          8.5f,
          PdfPage.LEFT + 130,
          page.cut(page.words, 8.5f, PdfPage.RIGHT - PdfPage.LEFT - 130, s.parts()));
    }
  }

  private void log() throws IOException {
    head("Book", record.log().size() + " entries of this board");
    for (BoardRecord.LogLine l : record.log()) {
      page.down(12, 12);
      page.colour(l.struck() ? SOFT : INK);
      page.textEndingAt(page.mono, 8, PdfPage.LEFT + 26, String.valueOf(l.number()));
      page.text(page.mono, 8, PdfPage.LEFT + 34, l.at());
      String text = page.cut(page.words, 8.5f, PdfPage.RIGHT - PdfPage.LEFT - 150, l.text());
      page.text(page.words, 8.5f, PdfPage.LEFT + 150, text);
      if (l.struck()) {
        float end = PdfPage.LEFT + 150 + page.width(page.words, 8.5f, text);
        page.line(PdfPage.LEFT + 150, page.y() + 3, end, page.y() + 3, 0.6f);
      }
    }
  }

  private void seal() throws IOException {
    page.down(26, 30);
    page.colour(SOFT);
    page.text(
        page.words,
        8.5f,
        PdfPage.LEFT,
        "The book's seal when this was printed (SHA-256 of its chain):");
    page.down(12, 12);
    page.text(page.mono, 8, PdfPage.LEFT, record.seal());
  }
}
