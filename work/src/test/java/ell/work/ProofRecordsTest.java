package ell.work;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertNotEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import com.google.zxing.BinaryBitmap;
import com.google.zxing.DecodeHintType;
import com.google.zxing.RGBLuminanceSource;
import com.google.zxing.common.HybridBinarizer;
import com.google.zxing.qrcode.QRCodeReader;
import ell.core.entry.Entry;
import ell.core.entry.EntryJson;
import ell.core.entry.Logged;
import ell.core.prove.BuildProof;
import ell.core.prove.ProveFacts;
import ell.core.prove.UseGate;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Verdict;
import ell.files.Output;
import ell.files.pdf.RecordPdf;
import ell.work.send.BoardLabels;
import ell.work.send.BuildRecords;
import ell.work.send.ProofTable;
import ell.work.send.RecordMaker;
import ell.work.space.ActException;
import java.awt.image.BufferedImage;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.OptionalLong;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.rendering.PDFRenderer;
import org.apache.pdfbox.text.PDFTextStripper;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/// Proofs that are typed, what a build says of them, the gate before a board is used, and records:
/// every number of a record is read back out of its PDF and held against the book.
public class ProofRecordsTest {
  private static final String PLAN =
      """
      plan typed
      power
      volts 3V3 needs=power
      volts 5V0 needs=power
      ask "Is it clean?" yes name=clean
      loop 3
      ask "Does it write?" yes name=writes
      end
      off
      """;

  private Workshop w;
  private Path folder;

  @BeforeMethod
  public void open() throws Exception {
    w = Demo.workspace(true);
    folder = Files.createTempDirectory("records");
    w.proofs().keep("MG-1", "B", PLAN);
  }

  @AfterMethod(alwaysRun = true)
  public void close() throws Exception {
    w.close();
  }

  private void type(String board, String... lines) throws Exception {
    for (String l : lines) {
      w.type(board, l).orThrow();
    }
  }

  private void proof(String board, double v3, double v5, String... writes) throws Exception {
    type(
        board,
        "proof begin",
        "test power good",
        "test 3V3 " + v3,
        "test 5V0 " + v5,
        "test clean yes");
    for (String x : writes) {
      type(board, "test writes " + x);
    }
    type(board, "proof end");
  }

  private static String text(Path pdf) throws Exception {
    try (PDDocument d = Loader.loadPDF(pdf.toFile())) {
      return new PDFTextStripper().getText(d).replaceAll("\\s+", " ");
    }
  }

  @Test
  public void whatIsTypedIsJudgedByThePlan() throws Exception {
    proof("07", 3.301, 5.01, "yes", "yes", "yes");
    ProveFacts.Run r = ProveFacts.of(w.state("07")).last().orElseThrow();
    assertEquals(r.verdict().orElseThrow(), Verdict.WITHIN, r.made().toString());
    assertEquals(r.made().get(1).limits().orElseThrow().low(), 3.234, 0.001);
    assertTrue(
        w.entries("07").stream()
            .anyMatch(l ->
                l.entry() instanceof Entry.Reading x
                    && x.place().equals("3V3")
                    && x.value() == 3.301));
    proof("07", 2.9, 5.01, "yes", "no", "yes");
    r = ProveFacts.of(w.state("07")).last().orElseThrow();
    assertEquals(r.verdict().orElseThrow(), Verdict.OUT);
    // no step at all is not made without a word
    type("07", "proof begin", "test power good", "proof end");
    r = ProveFacts.of(w.state("07")).last().orElseThrow();
    assertEquals(r.verdict().orElseThrow(), Verdict.CLOSE);
    assertTrue(
        ((Entry.ProofEnded) r.ended().orElseThrow().entry()).why().contains("6 steps not made"));
    type("07", "proof begin");
    for (String[] bad :
        new String[][] {
          {"proof begin", "is open"},
          {"test 3V9 3.3", "no step '3V9'"},
          {"test 3V3 much", "'3V3'"},
          {"test clean 12V", "good, bad or left WHY"},
          {"test clean left", "for a reason"},
          {"test 3V3 400000000V", "no bench measures that"},
        }) {
      int before = w.entries("07").size();
      String is = expectThrows(ActException.class, () -> type("07", bad[0])).getMessage();
      assertTrue(is.contains(bad[1]), is);
      assertEquals(w.entries("07").size(), before);
    }
    type("07", "test \"clean\" left the cloth is lost");
    assertTrue(
        expectThrows(ActException.class, () -> type("07", "test clean yes"))
            .getMessage()
            .contains("made already"));
    assertTrue(
        expectThrows(ActException.class, () -> type("06", "test clean yes"))
            .getMessage()
            .contains("no proof of board 06 is open"));
  }

  /// Counts by hand: of five boards one fails, one is not settled.
  @Test
  public void whatABuildSays() throws Exception {
    proof("05", 3.300, 5.00, "yes", "yes", "yes");
    proof("06", 3.302, 5.01, "yes", "yes", "yes");
    proof("07", 3.304, 5.02, "yes", "no", "yes");
    proof("08", 3.298, 5.03, "yes", "yes", "yes");
    type("09", "proof begin", "test power good", "test 3V3 3.299", "proof end");
    // mended, and proved again: what was first counts
    type("07", "U6.7 touched-up");
    proof("07", 3.304, 5.02, "yes", "yes", "yes");
    BuildProof b = w.proofs().build(w.plan(w.buildOf("07")), w.buildOf("07"));
    assertEquals(b.unsettled(), 1);
    BuildProof.OfTest v =
        b.tests().stream().filter(t -> t.name().equals("3V3")).findFirst().orElseThrow();
    // boards 01 and 02 of the fixture were read by hand
    List<Double> values = v.points().stream().map(BuildProof.Point::value).toList();
    double mean = values.stream().mapToDouble(x -> x).average().orElseThrow();
    double sd =
        Math.sqrt(
            values.stream().mapToDouble(x -> (x - mean) * (x - mean)).sum() / (values.size() - 1));
    assertEquals(v.mean(), mean, 1e-12);
    assertEquals(v.sd(), sd, 1e-12);
    assertEquals(
        v.capability().orElseThrow().cpk(), Math.min(3.366 - mean, mean - 3.234) / (3 * sd), 1e-9);
    BuildProof.OfTest writes =
        b.tests().stream().filter(t -> t.name().equals("writes")).findFirst().orElseThrow();
    assertEquals(writes.n(), 4);
    assertEquals(writes.failed(), 1);
    long passed = b.inOrder().stream().filter(x -> !x).count();
    assertEquals(b.passed(), passed);
    assertEquals(b.yield().orElseThrow().value(), (double) passed / b.tested(), 1e-12);
    double product = 1;
    for (BuildProof.OfTest t : b.tests()) {
      product *= t.n() == 0 ? 1 : 1 - (double) t.failed() / t.n();
    }
    assertEquals(b.rolled().orElseThrow().value(), product, 1e-12);
    assertTrue(
        b.rolled().orElseThrow().low() < product && product <= b.rolled().orElseThrow().high());
  }

  /// The gate names what is missing, one thing after the other, until nothing is.
  @Test
  public void theGateBeforeUse() throws Exception {
    String refused = expectThrows(ActException.class, () -> type("07", "released")).getMessage();
    for (String missing : List.of("not proved yet", "of its order is done", "not read within")) {
      assertTrue(refused.contains(missing), refused);
    }
    assertTrue(refused.contains("override use WHY"), refused);
    proof("07", 3.301, 5.01, "yes", "no", "yes");
    UseGate g = w.proofs().gate(w.plan(w.buildOf("07")), w.state("07"));
    assertTrue(
        g.missing().stream().anyMatch(m -> m.contains("test writes: bad at 1 of")),
        g.missing().toString());
    // the old rate was one in three: eight clean tries in a row
    type("07", "U6.7 touched-up");
    for (int i = 0; i < 3; i++) {
      proof("07", 3.301, 5.01, "yes", "yes", "yes");
    }
    g = w.proofs().gate(w.plan(w.buildOf("07")), w.state("07"));
    assertFalse(
        g.missing().stream().anyMatch(m -> m.contains("test writes")), g.missing().toString());

    w.proofs().say("MG-1", "B", List.of("use=flies,heats", "heats=1"));
    g = w.proofs().gate(w.plan(w.buildOf("07")), w.state("07"));
    String all = String.join("; ", g.missing());
    for (String missing : List.of("reworked by hand", "nobody felt how warm", "heated 2 times")) {
      assertTrue(all.contains(missing), all);
    }
    assertTrue(g.caution().contains("licensed"), g.caution());
    assertTrue(
        expectThrows(ActException.class, () -> w.proofs().say("MG-1", "B", List.of("use=sings")))
            .getMessage()
            .contains("sings"));
    type("07", "override use it stays on the bench", "released to the bench");
    assertTrue(ProveFacts.of(w.state("07")).released().isPresent());
    assertEquals(w.standing("07").phrase(), "in use");
    w.proofs()
        .say("MG-1", "B", List.of("use=", "heats=", "proofs=2", "confidence=99%", "lot=0.02,0.2"));
    assertEquals(w.proofs().rules("MG-1", "B").clean(), 2);
    assertEquals(w.proofs().rules("MG-1", "B").sure(), 0.99);
    assertEquals(w.proofs().rules("MG-1", "B").lot().bad(), 0.2);
  }

  /// Byte for byte the same, from the same entries, whatever came later.
  @Test
  public void aRecordCanBeMadeAgain() throws Exception {
    proof("07", 3.301, 5.01, "yes", "no", "yes");
    long then = w.book().size();
    RecordMaker.pdf(w, "07", OptionalLong.empty(), folder.resolve("a.pdf"), Output.Over.ANY);
    RecordPdf.write(
        BuildRecords.build(w, w.buildOf("07"), OptionalLong.empty()),
        w.book()::photograph,
        folder.resolve("b.pdf"),
        Output.Over.ANY);
    byte[] board = Files.readAllBytes(folder.resolve("a.pdf"));
    byte[] build = Files.readAllBytes(folder.resolve("b.pdf"));
    type("07", "U6.7 touched-up", "note later");
    proof("06", 3.2, 5.01, "no", "no", "yes");
    RecordMaker.pdf(w, "07", OptionalLong.of(then), folder.resolve("c.pdf"), Output.Over.ANY);
    RecordPdf.write(
        BuildRecords.build(w, w.buildOf("07"), OptionalLong.of(then)),
        w.book()::photograph,
        folder.resolve("d.pdf"),
        Output.Over.ANY);
    assertEquals(Files.readAllBytes(folder.resolve("c.pdf")), board);
    assertEquals(Files.readAllBytes(folder.resolve("d.pdf")), build);
    RecordMaker.pdf(w, "07", OptionalLong.empty(), folder.resolve("e.pdf"), Output.Over.ANY);
    assertNotEquals(Files.readAllBytes(folder.resolve("e.pdf")), board);
    assertTrue(
        expectThrows(ActException.class, () -> RecordMaker.of(w, "07", OptionalLong.of(99_999)))
            .getMessage()
            .contains("no entry 99999"));
    String text = text(folder.resolve("a.pdf"));
    assertTrue(text.contains("as of entry " + then), text);
    assertTrue(text.contains(then + ":" + w.book().hashOf(then).orElseThrow()), text);
  }

  /// Every step of the last proof stands in the PDF with its value, as the book has it.
  @Test
  public void whatThePdfSaysIsWhatTheBookSays() throws Exception {
    proof("07", 3.301, 5.01, "yes", "no", "yes");
    RecordMaker.pdf(w, "07", OptionalLong.empty(), folder.resolve("a.pdf"), Output.Over.ANY);
    String text = text(folder.resolve("a.pdf"));
    for (Entry.ProofStep s : ProveFacts.of(w.state("07")).last().orElseThrow().made()) {
      assertTrue(text.contains(s.name()), s.name());
      s.value()
          .ifPresent(v ->
              assertTrue(
                  text.contains(EngineeringNumber.print(v, s.unit(), 4)), s + " in " + text));
    }
    assertTrue(text.contains("Proof failed"), text);
    proof("06", 3.302, 5.0, "yes", "yes", "yes");
    RecordPdf.write(
        BuildRecords.build(w, w.buildOf("07"), OptionalLong.empty()),
        w.book()::photograph,
        folder.resolve("b.pdf"),
        Output.Over.ANY);
    String build = text(folder.resolve("b.pdf"));
    BuildProof p = w.proofs().build(w.plan(w.buildOf("07")), w.buildOf("07"));
    for (BuildProof.OfTest t : p.tests()) {
      if (t.n() > 0) {
        assertTrue(
            build.contains(t.name() + " " + t.n() + " made, " + t.failed() + " failed"), t.name());
      }
    }
    assertTrue(build.contains(p.passed() + " of " + p.tested() + " boards"), build);
    RecordPdf.write(
        BuildRecords.lot(w, w.buildOf("07"), OptionalLong.empty()),
        w.book()::photograph,
        folder.resolve("l.pdf"),
        Output.Over.ANY);
    String lot = text(folder.resolve("l.pdf"));
    assertTrue(lot.contains("2 boards: 06, 07"), lot);
    assertTrue(lot.contains("Clopper"), lot);
    ProofTable.csv(w, w.buildOf("07").boards(), folder.resolve("t.csv"), Output.Over.ANY);
    long rows = Files.readAllLines(folder.resolve("t.csv")).size();
    long steps =
        w.buildOf("07").boards().stream()
            .mapToLong(b -> {
              try {
                return ProveFacts.of(w.state(b)).runs().stream()
                    .mapToLong(r -> r.steps().size())
                    .sum();
              } catch (java.io.IOException e) {
                throw new java.io.UncheckedIOException(e);
              }
            })
            .sum();
    assertEquals(rows, steps + 1);
  }

  /// The code of a label is read off the printed page by a reader that did not write it, and held
  /// against the book.
  @Test
  public void aLabelIsReadOff() throws Exception {
    proof("07", 3.301, 5.01, "yes", "yes", "yes");
    BoardLabels.write(w, List.of("07"), folder.resolve("l.pdf"), Output.Over.ANY);
    String read;
    try (PDDocument d = Loader.loadPDF(folder.resolve("l.pdf").toFile())) {
      BufferedImage page = new PDFRenderer(d).renderImageWithDPI(0, 300);
      read =
          new QRCodeReader()
              .decode(
                  new BinaryBitmap(
                      new HybridBinarizer(
                          new RGBLuminanceSource(
                              page.getWidth(),
                              page.getHeight(),
                              page.getRGB(
                                  0,
                                  0,
                                  page.getWidth(),
                                  page.getHeight(),
                                  null,
                                  0,
                                  page.getWidth())))),
                  Map.of(DecodeHintType.TRY_HARDER, true))
              .getText();
    }
    assertEquals(read, BoardLabels.scanned(w, "07"));
    BoardLabels.Checked c = BoardLabels.check(w, read);
    assertTrue(c.ok(), c.message());
    assertTrue(c.message().contains("proof passed"), c.message());
    type("07", "note later");
    assertTrue(BoardLabels.check(w, read).message().contains("1 entry since"), "told");
    assertFalse(BoardLabels.check(w, read.replace(" 07 ", " 77 ")).ok());
    assertFalse(BoardLabels.check(w, read.replaceAll("[0-9a-f]{8}$", "00000000")).ok());
    expectThrows(ActException.class, () -> BoardLabels.check(w, "count LDO33A 7"));
  }

  /// What is typed goes through export and restore letter for letter.
  @Test
  public void proofsAreRestored() throws Exception {
    proof("07", 3.301, 5.01, "yes", "no", "yes");
    w.proofs().say("MG-1", "B", List.of("use=charges"));
    try (Workshop back = OddBoard.reopened(w)) {
      assertEquals(back.book().seal(), w.book().seal());
      List<Logged> a = w.entries("07");
      List<Logged> b = back.entries("07");
      for (int i = 0; i < a.size(); i++) {
        assertEquals(EntryJson.tree(b.get(i).entry()), EntryJson.tree(a.get(i).entry()));
      }
      String sha = ProveFacts.of(back.state("07")).last().orElseThrow().begun().sha256();
      assertTrue(back.proofs().text(sha).orElseThrow().contains("plan typed"));
      assertTrue(back.proofs().rules("MG-1", "B").mayHurt());
      assertTrue(back.proofs().kept(back.plan(back.buildOf("07"))).isPresent());
    }
  }
}
