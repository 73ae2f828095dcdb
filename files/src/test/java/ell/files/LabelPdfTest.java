package ell.files;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import com.google.zxing.BinaryBitmap;
import com.google.zxing.LuminanceSource;
import com.google.zxing.RGBLuminanceSource;
import com.google.zxing.Result;
import com.google.zxing.common.HybridBinarizer;
import com.google.zxing.qrcode.QRCodeReader;
import ell.files.pdf.LabelPdf;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.rendering.PDFRenderer;
import org.apache.pdfbox.text.PDFTextStripper;
import org.testng.annotations.Test;

/// Labels are printed, looked at and scanned: the codes are read from the page by the decoder of
/// the bar-code library (QR code, ISO/IEC 18004).
public class LabelPdfTest {
  private static LabelPdf.Label label(int i) {
    return new LabelPdf.Label(
        "A" + i,
        "R10K-0603",
        "use by 2027-01-31",
        "count R10K-0603 A" + i + " ",
        "book 538:2f6a91c04be7d512");
  }

  @Test
  public void codesCanBeScannedFromThePage() throws Exception {
    Path pdf = Files.createTempDirectory("labels").resolve("labels.pdf");
    LabelPdf.write(List.of(label(1), label(2)), pdf, Output.Over.ANY);
    try (PDDocument d = Loader.loadPDF(pdf.toFile())) {
      BufferedImage page = new PDFRenderer(d).renderImageWithDPI(0, 300);
      double mm = 300 / 25.4;
      // the first label lies top left; its code fills the right third of it
      BufferedImage first =
          page.getSubimage((int) (15 * mm), (int) (15 * mm), (int) (58 * mm), (int) (34 * mm));
      assertEquals(scan(first), "count R10K-0603 A1 ");
      String text = new PDFTextStripper().getText(d);
      assertTrue(text.contains("A2") && text.contains("use by"), text);
      assertTrue(text.contains("538:2f6a91c04be7d512"), text);
    }
  }

  private static String scan(BufferedImage image) throws Exception {
    int[] rgb = image.getRGB(0, 0, image.getWidth(), image.getHeight(), null, 0, image.getWidth());
    LuminanceSource light = new RGBLuminanceSource(image.getWidth(), image.getHeight(), rgb);
    Result r = new QRCodeReader().decode(new BinaryBitmap(new HybridBinarizer(light)));
    return r.getText();
  }

  @Test
  public void manyLabelsTakeSeveralPagesAndLongNamesAreCut() throws IOException {
    List<LabelPdf.Label> many = new ArrayList<>();
    for (int i = 0; i < 100; i++) {
      many.add(label(i));
    }
    many.add(
        new LabelPdf.Label("a very long name of a drawer", "X".repeat(80), "", "count X ", ""));
    Path pdf = Files.createTempDirectory("labels").resolve("labels.pdf");
    LabelPdf.write(many, pdf, Output.Over.ANY);
    try (PDDocument d = Loader.loadPDF(pdf.toFile())) {
      assertTrue(d.getNumberOfPages() > 2);
      assertTrue(new PDFTextStripper().getText(d).contains("A99"));
    }
    assertThrows(
        IOException.class,
        () ->
            LabelPdf.write(
                List.of(new LabelPdf.Label("A", "B", "", "x".repeat(5000), "")),
                pdf,
                Output.Over.ANY));
  }
}
