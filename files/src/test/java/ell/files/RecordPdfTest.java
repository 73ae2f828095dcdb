package ell.files;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;
import ell.core.quantity.Limits;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import ell.core.record.BoardRecord;
import ell.files.pdf.RecordPdf;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.testng.annotations.Test;




public class RecordPdfTest {
  private static BoardRecord record(int steps, String place) {
    List<BoardRecord.StepLine> lines = new ArrayList<>();
    for (int i = 1; i <= steps; i++) {
      lines.add(new BoardRecord.StepLine(i, "place", "R" + i + " C" + i, i % 2 == 0));
    }
    return new BoardRecord(
        "07",
        "MG-1 rev B",
        "stencil-plate, sac305, build 2",
        "rails within",
        "2026-11-25 09:00:00",
        "ab".repeat(32),
        lines,
        List.of(
            new BoardRecord.CheckLine(
                "isolation", "GND to 3V3", "open loop", "above 100 Ω", "within")),
        List.of(
            new BoardRecord.ReadingLine(
                place,
                Optional.of(3.287),
                Unit.VOLT,
                Optional.of(new Limits(3.24, 3.36)),
                Optional.of(0.018),
                Optional.of(Verdict.WITHIN)),
            new BoardRecord.ReadingLine(
                "3V3A",
                Optional.empty(),
                Unit.VOLT,
                Optional.of(new Limits(3.2, 3.4)),
                Optional.empty(),
                Optional.empty())),
        List.of(
            new BoardRecord.ReadingLine(
                "Y1",
                Optional.of(12e6),
                Unit.HERTZ,
                Optional.empty(),
                Optional.empty(),
                Optional.empty())),
        List.of("U4.7 bridge"),
        List.of(
            new BoardRecord.LogLine(1, "2026-11-20 09:00:00", "a note with µ, Ω, → and 漢字", false),
            new BoardRecord.LogLine(2, "2026-11-20 09:01:00", "taken back", true)));
  }

  private static String text(Path file) throws IOException {
    try (PDDocument d = Loader.loadPDF(file.toFile())) {
      return new PDFTextStripper().getText(d);
    }
  }

  @Test
  public void everythingThatMattersIsOnIt() throws IOException {
    Path folder = Files.createTempDirectory("pdf");
    Path file = folder.resolve("07.pdf");
    RecordPdf.write(record(60, "3V3 at TP4"), file);
    String t = text(file);
    for (String s :
        List.of(
            "Board 07",
            "MG-1 rev B",
            "rails within",
            "U4.7 bridge",
            "3V3 at TP4",
            "3.287 V",
            "3.240 V",
            "3.360 V",
            "not read",
            "GND to 3V3",
            "open loop",
            "above 100 Ω",
            "30 of 60 done",
            "12.00 MHz",
            "taken back",
            "ab".repeat(32),
            "page 1 of")) {
      assertTrue(t.contains(s), s + " in\n" + t);
    }
    try (PDDocument d = Loader.loadPDF(file.toFile())) {
      assertTrue(d.getNumberOfPages() >= 2);
      assertEquals(d.getDocumentInformation().getTitle(), "Board 07, MG-1 rev B");
    }
    assertEquals(Files.list(folder).count(), 1, "no leftovers beside it");
  }

  @Test
  public void longNamesAndEmptyRecords() throws IOException {
    Path file = Files.createTempDirectory("pdf").resolve("x.pdf");
    RecordPdf.write(record(0, "A_NET_WITH_A_NAME_THAT_GOES_ON_AND_ON_AND_ON_AND_ON"), file);
    assertTrue(text(file).contains("…"), "a long name is cut, with a sign that it is");
    BoardRecord empty =
        new BoardRecord(
            "1", "", "", "", "", "", List.of(), List.of(), List.of(), List.of(), List.of(),
            List.of());
    RecordPdf.write(empty, file);
    assertTrue(text(file).contains("none open"));
  }

  @Test
  public void aFolderThatIsNotThereIsTold() throws IOException {
    Path nowhere = Files.createTempDirectory("pdf").resolve("none/x.pdf");
    assertThrows(IOException.class, () -> RecordPdf.write(record(1, "3V3"), nowhere));
    assertFalse(Files.exists(nowhere));
  }
}
