package ell.files.series;

import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.core.series.Log;
import ell.core.series.Series;
import ell.files.Findings;
import ell.files.Read;
import ell.files.Source;
import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Locale;
import java.util.regex.Pattern;

/// Reads what an instrument handed over, saved as it came: a preamble of five numbers (samples,
/// seconds from one to the next, seconds of the first, volts of a code, volts of code 0) on a line,
/// and a block of codes of 8 or 16 bits, the higher byte first. Source of the block: IEEE 488.2,
/// 8.7.9 and 8.7.10.
final class BlockReader {
  private static final int HEAD = 400;
  private static final int PARTS = 5;
  private static final long MOST = 1L << 30;
  private static final String NUMBER = "\\s*[+-]?\\d+(?:\\.\\d*)?(?:[eE][+-]?\\d{1,3})?\\s*";
  private static final Pattern LOOKS =
      Pattern.compile(NUMBER + "(?:," + NUMBER + "){4}\\r?\\n#\\d", Pattern.DOTALL);

  private BlockReader() {}

  static boolean looksLike(Source source) throws IOException {
    try (InputStream in = source.open()) {
      return LOOKS
          .matcher(new String(in.readNBytes(HEAD), StandardCharsets.ISO_8859_1))
          .lookingAt();
    }
  }

  static Read<Log> read(Source source) throws IOException {
    Findings f = new Findings(source.name());
    try (InputStream in = new BufferedInputStream(source.open(), 1 << 16)) {
      StringBuilder line = new StringBuilder();
      for (int c = in.read(); c >= 0 && c != '\n'; c = in.read()) {
        line.append((char) c);
      }
      double[] p = new double[PARTS];
      String[] cells = line.toString().split(",");
      for (int i = 0; i < PARTS; i++) {
        p[i] = Double.parseDouble(cells[i].strip());
      }
      byte[] body = body(in, f);
      if (f.failed()) {
        return f.flawed();
      }
      long n = Math.round(p[0]);
      int wide = n > 0 && body.length == 2 * n ? 2 : n > 0 && body.length == n ? 1 : 0;
      if (wide == 0 || n < 2) {
        f.error(
            2,
            0,
            "the preamble says "
                + n
                + " samples, and the block has "
                + body.length
                + " bytes; expected one or two a sample, and two samples or more");
        return f.flawed();
      }
      if (!(p[1] > 0) || !Double.isFinite(p[2]) || p[3] == 0 || !Double.isFinite(p[3] + p[4])) {
        f.error(1, 0, "expected a step above 0 and volts of a code, found '" + line + "'");
        return f.flawed();
      }
      float[] v = new float[(int) n];
      for (int i = 0; i < v.length; i++) {
        int code = wide == 1 ? body[i] : (short) (body[2 * i] << 8 | body[2 * i + 1] & 0xff);
        v[i] = (float) (p[4] + code * p[3]);
      }
      f.found(
          String.format(
              Locale.ROOT,
              "%d samples every %s, codes of %d bits",
              n,
              EngineeringNumber.print(p[1], Unit.SECOND, 4),
              8 * wide));
      return f.done(new Log(List.of(Series.even("CH1", p[2], p[1], v))));
    }
  }

  private static byte[] body(InputStream in, Findings f) throws IOException {
    in.read(); // the sign that it is a block, which was looked at
    int digits = in.read() - '0';
    if (digits == 0) {
      byte[] all = in.readAllBytes();
      int end = all.length;
      if (end > 0 && all[end - 1] == '\n') {
        end--;
      }
      return java.util.Arrays.copyOf(all, end);
    }
    long count = 0;
    for (int i = 0; i < digits; i++) {
      int d = in.read() - '0';
      if (d < 0 || d > 9) {
        f.error(2, 0, "the count of the block has a sign that is no digit");
        return new byte[0];
      }
      count = 10 * count + d;
    }
    if (count > MOST) {
      f.error(2, 0, "a block of " + count + " bytes: more than " + MOST);
      return new byte[0];
    }
    byte[] all = in.readNBytes((int) count);
    if (all.length < count) {
      f.error(2, 0, "a block of " + count + " bytes ends after " + all.length);
    }
    return all;
  }
}
