package ell.files;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import ell.core.quantity.Limits;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import ell.core.record.BoardRecord;
import ell.core.record.Section;
import ell.files.pdf.RecordPdf;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javax.imageio.ImageIO;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.testng.annotations.Test;

public class RecordPdfTest {
  private static BoardRecord record(int steps, String place) {
    List<Section.Row> lines = new ArrayList<>();
    for (int i = 1; i <= steps; i++) {
      lines.add(
          Section.cells(
              i % 2 == 0 ? Section.Tone.PLAIN : Section.Tone.SOFT,
              String.valueOf(i),
              i % 2 == 0 ? "done" : "open",
              "place",
              "R" + i + " C" + i));
    }
    return new BoardRecord(
        "board record",
        "Board 07",
        "MG-1 rev B",
        "stencil-plate, sac305, build 2",
        "rails within",
        "2026-11-25 09:00:00",
        "ab".repeat(32),
        List.of(
            new Section(
                "Findings",
                "1 open",
                List.of(1.0),
                List.of(Section.cells(Section.Tone.BAD, "U4.7 bridge"))),
            new Section(
                "Rails",
                "",
                List.of(),
                List.of(
                    new Section.Strip(
                        place,
                        Optional.of(3.287),
                        Unit.VOLT,
                        Optional.of(new Limits(3.24, 3.36)),
                        Optional.of(0.018),
                        Optional.of(Verdict.WITHIN)),
                    new Section.Strip(
                        "3V3A",
                        Optional.empty(),
                        Unit.VOLT,
                        Optional.of(new Limits(3.2, 3.4)),
                        Optional.empty(),
                        Optional.empty()),
                    new Section.Strip(
                        "Y1",
                        Optional.of(12e6),
                        Unit.HERTZ,
                        Optional.empty(),
                        Optional.empty(),
                        Optional.empty()))),
            new Section(
                "Checks without power",
                "1 made",
                List.of(0.12, 0.35, 0.15, 0.25),
                List.of(
                    Section.judged(
                        Verdict.WITHIN,
                        "isolation",
                        "GND to 3V3",
                        "open loop",
                        "expected above 100 Ω"))),
            new Section(
                "Steps",
                steps / 2 + " of " + steps + " done",
                List.of(0.06, 0.07, 0.14, 0.73),
                lines),
            new Section(
                "Joints",
                "",
                List.of(0.25, 0.75),
                List.of(
                    new Section.Picture("U4.13", "bridge.png", "cd".repeat(32)),
                    new Section.Picture("U4.14", "gone.jpg", "ef".repeat(32)),
                    new Section.Picture("U4.15", "torn.jpg", "aa".repeat(32)))),
            new Section(
                "Book",
                "2 entries of this board",
                List.of(0.07, 0.24, 0.69),
                List.of(
                    Section.cells(
                        Section.Tone.PLAIN,
                        "1",
                        "2026-11-20 09:00:00",
                        "a note with µ, Ω, → and 漢字"),
                    Section.cells(
                        Section.Tone.STRUCK, "2", "2026-11-20 09:01:00", "taken back")))));
  }

  /// One photograph that can be drawn, one that is not kept, one that is no picture.
  private static Optional<byte[]> photograph(String sha256) throws IOException {
    if (sha256.startsWith("cd")) {
      ByteArrayOutputStream out = new ByteArrayOutputStream();
      ImageIO.write(new BufferedImage(40, 30, BufferedImage.TYPE_INT_RGB), "png", out);
      return Optional.of(out.toByteArray());
    }
    return sha256.startsWith("aa") ? Optional.of(new byte[] {1, 2, 3}) : Optional.empty();
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
    RecordPdf.write(record(60, "3V3 at TP4"), RecordPdfTest::photograph, file, Output.Over.ANY);
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
            "bridge.png",
            "gone.jpg (not kept here)",
            "torn.jpg (cannot be drawn)",
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
    RecordPdf.write(
        record(0, "A_NET_WITH_A_NAME_THAT_GOES_ON_AND_ON_AND_ON_AND_ON"),
        RecordPdfTest::photograph,
        file,
        Output.Over.ANY);
    assertTrue(text(file).contains("…"), "a long name is cut, with a sign that it is");
    BoardRecord empty =
        new BoardRecord(
            "board record",
            "1",
            "",
            "",
            "",
            "",
            "",
            List.of(
                new Section(
                    "Findings",
                    "",
                    List.of(1.0),
                    List.of(Section.cells(Section.Tone.GOOD, "none open")))));
    RecordPdf.write(empty, RecordPdfTest::photograph, file, Output.Over.ANY);
    assertTrue(text(file).contains("none open"));
  }

  @Test
  public void aFolderThatIsNotThereIsTold() throws IOException {
    Path nowhere = Files.createTempDirectory("pdf").resolve("none/x.pdf");
    assertThrows(
        IOException.class,
        () ->
            RecordPdf.write(record(1, "3V3"), RecordPdfTest::photograph, nowhere, Output.Over.ANY));
    assertFalse(Files.exists(nowhere));
  }
}
