package ell.files.pdf;

import ell.core.heat.ProfileCheck;
import ell.core.heat.ProfileLog;
import ell.core.heat.ProfileStatistic;
import ell.core.heat.ProfileWindow;
import ell.core.quantity.Limits;
import ell.files.Output;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import org.apache.pdfbox.pdmodel.PDDocument;

/// Runs over each other in their window, and the statistics of every channel, on A4.
public final class ProfilePdf {
  private static final float LEFT = 60;
  private static final float RIGHT = 540;
  private static final float HIGH = 260;

  private ProfilePdf() {}

  /// One run.
  public record Run(String title, ProfileLog log, ProfileCheck check) {}

  /// Writes runs, all held against one window; the file appears whole or not at all.
  ///
  /// @throws IOException when it cannot be written
  public static void write(List<Run> runs, ProfileWindow window, Path to, Output.Over over)
      throws IOException {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    try (PDDocument document = new PDDocument()) {
      document.getDocumentInformation().setProducer(Output.PRODUCER);
      document.getDocumentInformation().setTitle("Profiles against " + window.name());
      try (PdfPage page =
          new PdfPage(document, "Profiles against " + window.name() + ", " + window.title())) {
        picture(page, runs, window);
        for (int i = 0; i < runs.size(); i++) {
          table(page, i, runs.get(i));
        }
        page.down(16, 40);
        page.wrapped(
            page.words,
            8,
            LEFT,
            RIGHT,
            "Source: "
                + window.source()
                + ". The paste's and the parts' data sheets decide; this window is a start.");
      }
      document.save(bytes);
    }
    Output.write(to, bytes.toByteArray(), over);
  }

  private static void picture(PdfPage page, List<Run> runs, ProfileWindow w) throws IOException {
    page.down(HIGH + 24, 20);
    float bottom = page.y();
    double tMax = 60;
    double cMax = w.above() + 50;
    for (Run r : runs) {
      for (ProfileLog.Channel c : measured(r)) {
        tMax = Math.max(tMax, c.second(c.size() - 1) - c.second(0));
        for (int i = 0; i < c.size(); i++) {
          cMax = Math.max(cMax, c.celsius(i) + 10);
        }
      }
    }
    double sx = (RIGHT - LEFT) / tMax;
    double sy = HIGH / cMax;
    page.line(LEFT, bottom, RIGHT, bottom, 0.8f);
    page.line(LEFT, bottom, LEFT, bottom + HIGH, 0.8f);
    for (int c = 0; c <= cMax; c += 50) {
      float y = (float) (bottom + c * sy);
      page.line(LEFT - 4, y, LEFT, y, 0.6f);
      page.text(page.words, 7, LEFT - 34, y - 2, c + " °C");
    }
    for (int t = 0; t <= tMax; t += 60) {
      float x = (float) (LEFT + t * sx);
      page.line(x, bottom - 4, x, bottom, 0.6f);
      page.text(page.words, 7, x - 5, bottom - 12, t / 60 + " min");
    }
    for (double level : new double[] {w.soakFrom(), w.soakTo(), w.above()}) {
      float y = (float) (bottom + level * sy);
      dashes(page, LEFT, RIGHT, y, level == w.above() ? 0.9f : 0.4f);
      page.text(page.words, 7, RIGHT - 60, y + 2, String.format(Locale.ROOT, "%.0f °C", level));
    }
    Limits peak = w.limits().get(ProfileStatistic.PEAK);
    if (peak != null && Double.isFinite(peak.high())) {
      dashes(page, LEFT, RIGHT, (float) (bottom + peak.high() * sy), 0.4f);
    }
    for (int i = 0; i < runs.size(); i++) {
      for (ProfileLog.Channel c : measured(runs.get(i))) {
        curve(page, c, i, bottom, sx, sy);
      }
    }
    page.down(18, 30);
  }

  private static List<ProfileLog.Channel> measured(Run r) {
    return r.log().channels().stream().filter(c -> !c.wanted() && !c.plate()).toList();
  }

  private static void dashes(PdfPage page, float x0, float x1, float y, float width)
      throws IOException {
    for (float x = x0; x < x1; x += 8) {
      page.line(x, y, Math.min(x + 4, x1), y, width);
    }
  }

  /// The runs are told apart by weight and by gaps, not by colour.
  private static void curve(
      PdfPage page, ProfileLog.Channel c, int run, float bottom, double sx, double sy)
      throws IOException {
    double t0 = c.second(0);
    int step = Math.max(1, c.size() / 600);
    float width = run == 0 ? 1.4f : 0.7f;
    for (int i = step, k = 0; i < c.size(); i += step, k++) {
      if (run > 0 && k % (2 * run + 2) >= run + 1) {
        continue;
      }
      page.line(
          (float) (LEFT + (c.second(i - step) - t0) * sx),
          (float) (bottom + c.celsius(i - step) * sy),
          (float) (LEFT + (c.second(i) - t0) * sx),
          (float) (bottom + c.celsius(i) * sy),
          width);
    }
  }

  private static void table(PdfPage page, int number, Run r) throws IOException {
    page.down(20, 120);
    page.text(
        page.bold,
        10,
        LEFT,
        (number + 1)
            + "  "
            + r.title()
            + ": "
            + r.check().verdict().words()
            + (Double.isNaN(r.check().pwi())
                ? ""
                : String.format(Locale.ROOT, ", window index %.0f", r.check().pwi())));
    for (ProfileCheck.Channel c : r.check().channels()) {
      page.down(15, 30);
      page.text(page.bold, 9, LEFT, c.name());
      for (ProfileCheck.Line l : c.lines()) {
        page.down(12, 20);
        page.text(page.words, 8.5f, LEFT + 10, l.statistic().words());
        page.text(
            page.mono,
            8.5f,
            LEFT + 130,
            Double.isNaN(l.value())
                ? "not reached"
                : String.format(Locale.ROOT, "%.4g %s", l.value(), l.statistic().unit()));
        page.text(
            page.words,
            8.5f,
            LEFT + 240,
            l.limits().map(x -> ProfileCheck.text(x, l.statistic().unit())).orElse("no limit"));
        page.text(page.words, 8.5f, LEFT + 360, l.verdict().words());
      }
    }
  }
}
