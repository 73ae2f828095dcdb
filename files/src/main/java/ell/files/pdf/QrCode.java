package ell.files.pdf;

import com.google.zxing.BarcodeFormat;
import com.google.zxing.EncodeHintType;
import com.google.zxing.WriterException;
import com.google.zxing.common.BitMatrix;
import com.google.zxing.qrcode.QRCodeWriter;
import com.google.zxing.qrcode.decoder.ErrorCorrectionLevel;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Map;

/// A text as a QR code.
public final class QrCode {
  private QrCode() {}

  /// The modules of a QR code with two modules of its quiet zone around it.
  ///
  /// @return a square: row by row from the top, true for dark
  /// @throws IOException when the text is too long for one
  public static boolean[][] modules(String text) throws IOException {
    try {
      BitMatrix m =
          new QRCodeWriter()
              .encode(
                  text,
                  BarcodeFormat.QR_CODE,
                  0,
                  0,
                  Map.of(
                      EncodeHintType.ERROR_CORRECTION,
                      ErrorCorrectionLevel.M,
                      EncodeHintType.CHARACTER_SET,
                      StandardCharsets.UTF_8.name(),
                      EncodeHintType.MARGIN,
                      2));
      boolean[][] rows = new boolean[m.getHeight()][m.getWidth()];
      for (int r = 0; r < rows.length; r++) {
        for (int c = 0; c < rows[r].length; c++) {
          rows[r][c] = m.get(c, r);
        }
      }
      return rows;
    } catch (WriterException e) {
      throw new IOException("no code for '" + text + "': " + e.getMessage(), e);
    }
  }
}
