package ell.files;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import ell.core.board.BomLine;
import ell.files.csv.BomReader;
import ell.files.csv.CsvFiles;
import ell.files.csv.Spreadsheet;
import ell.files.pdf.LabelPdf;
import java.io.IOException;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// What is written never takes away what somebody may miss.
public final class OutputTest {
  private Path dir;

  @BeforeMethod
  public void make() throws IOException {
    dir = Files.createTempDirectory("output");
  }

  private static String refused(Path to, Output.Over over) {
    return expectThrows(IOException.class, () -> Output.write(to, "new", over)).getMessage();
  }

  private void nothingIsLeft(int files) throws IOException {
    try (Stream<Path> all = Files.list(dir)) {
      assertEquals(all.count(), files, "no half-written file is left beside");
    }
  }

  @Test
  public void aNewFileAppearsWhole() throws IOException {
    Path to = dir.resolve("new.svg");
    Output.write(to, "text", Output.Over.OURS);
    assertEquals(Files.readString(to), "text");
    nothingIsLeft(1);
  }

  @Test
  public void whatOthersMadeStaysUnlessTheMakerSaysSo() throws IOException {
    Path theirs = dir.resolve("theirs.csv");
    Files.writeString(theirs, "years of work\n");
    assertTrue(refused(theirs, Output.Over.OURS).contains("was not made by Ell"));
    assertEquals(Files.readString(theirs), "years of work\n");
    Output.write(theirs, "new", Output.Over.ANY);
    assertEquals(Files.readString(theirs), "new");
    nothingIsLeft(1);
  }

  @Test
  public void whatEllMadeIsMadeAnew() throws IOException {
    Path own = dir.resolve("own.svg");
    Output.write(own, "<svg>\n<!-- " + Output.MARK + " -->", Output.Over.OURS);
    Output.write(own, "again", Output.Over.OURS);
    assertEquals(Files.readString(own), "again");
    Path pdf = dir.resolve("own.pdf");
    List<LabelPdf.Label> labels = List.of(new LabelPdf.Label("A", "B", "", "count A ", ""));
    LabelPdf.write(labels, pdf, Output.Over.OURS);
    LabelPdf.write(labels, pdf, Output.Over.OURS);
    Path empty = dir.resolve("empty");
    Files.createFile(empty);
    Output.write(empty, "an empty file holds nothing to miss", Output.Over.OURS);
  }

  @Test
  public void aPdfOfOthersStays() throws IOException {
    Path pdf = dir.resolve("theirs.pdf");
    Files.writeString(pdf, "%PDF-1.4\n% a manual that somebody bought\n%%EOF\n");
    assertTrue(refused(pdf, Output.Over.OURS).contains("was not made by Ell"));
  }

  @DataProvider
  Object[][] overs() {
    return new Object[][] {{Output.Over.OURS}, {Output.Over.ANY}};
  }

  /// A workspace, its side files and inputs are never replaced, whatever was said.
  @Test(dataProvider = "overs")
  public void workspacesAndInputsNeverAre(Output.Over over) throws IOException {
    Path ws = dir.resolve("ws.ell");
    byte[] store = "SQLite format 3\0 and more".getBytes(StandardCharsets.US_ASCII);
    Files.write(ws, store);
    assertTrue(refused(ws, over).contains("is a workspace"));
    for (String end : List.of("-wal", "-shm", "-lock")) {
      Path side = dir.resolve("ws.ell" + end);
      assertTrue(refused(side, over).contains("belongs to the workspace"), end);
      Files.writeString(side, "x");
      assertTrue(refused(side, over).contains("belongs to the workspace"), end);
    }
    assertEquals(Files.readAllBytes(ws), store);
    Path log = dir.resolve("run.csv");
    Files.writeString(log, "time,T\n");
    Path link = dir.resolve("link.csv");
    Files.createSymbolicLink(link, log);
    Output.Over reads = new Output.Over(over.any(), List.of(log));
    for (Path p : List.of(log, link, dir.resolve("./x/../run.csv"))) {
      assertTrue(refused(p, reads).contains("is read by this command"), p.toString());
    }
    assertEquals(Files.readString(log), "time,T\n");
  }

  @Test
  public void foldersAndDevicesAreNoFiles() {
    assertTrue(refused(dir, Output.Over.ANY).contains("is a folder"));
    if (Files.exists(Path.of("/dev/null"))) {
      assertTrue(refused(Path.of("/dev/null"), Output.Over.ANY).contains("no plain file"));
    }
    assertTrue(refused(dir.resolve("no/where.txt"), Output.Over.ANY).contains("no folder"));
  }

  @DataProvider
  Object[][] cells() {
    return new Object[][] {
      {"=1+1", "'=1+1"}, {"+49 30", "'+49 30"}, {"-5V", "'-5V"}, {"@x", "'@x"}, {"\tx", "'\tx"},
      {"\rx", "'\rx"}, {"-5", "-5"}, {"+3.3", "+3.3"}, {"-1e-9", "-1e-9"}, {"10k", "10k"},
      {"'=a", "''=a"}, {"'", "'"}, {"'tis", "'tis"}, {"", ""}, {"--", "'--"},
    };
  }

  @Test(dataProvider = "cells")
  public void cellsAreNoFormulasAndReadBackTheSame(String text, String written) {
    assertEquals(Spreadsheet.guard(text), written);
    assertEquals(Spreadsheet.bare(Spreadsheet.guard(text)), text);
  }

  @Test
  public void aBillWithFormulasReadsBackTheSame() throws IOException {
    String bom =
        "Reference,Value,Package,Code,Description\nR1,-5V,0402,=CMD(1),@home\nR2,1k,0402,A,x\n";
    List<BomLine> lines = read(bom);
    StringWriter out = new StringWriter();
    CsvFiles.bom(lines, out);
    assertFalse(out.toString().contains(",=CMD"), out.toString());
    assertFalse(out.toString().contains(",@home"), out.toString());
    assertEquals(read(out.toString()).toString(), lines.toString());
  }

  /// A disk that is full while a table is written is a problem with the file, not a slip.
  @Test
  public void aFullDiskIsAProblemWithTheFile() {
    java.io.Writer full =
        new java.io.Writer() {
          @Override
          public void write(char[] text, int from, int count) throws IOException {
            throw new IOException("no space left");
          }

          @Override
          public void flush() {}

          @Override
          public void close() {}
        };
    List<List<String>> rows = List.of(List.of("x".repeat(100_000)));
    assertEquals(
        expectThrows(IOException.class, () -> CsvFiles.table(List.of("A"), rows, full))
            .getMessage(),
        "no space left");
  }

  @SuppressWarnings("unchecked")
  private static List<BomLine> read(String text) throws IOException {
    return switch (BomReader.read(Source.of("bom.csv", text))) {
      case Read.Whole<?> w -> (List<BomLine>) w.value();
      case Read.Flawed<?> f -> throw new AssertionError(f.problems().toString());
    };
  }
}
