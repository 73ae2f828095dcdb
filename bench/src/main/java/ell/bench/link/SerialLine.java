package ell.bench.link;

import com.fazecast.jSerialComm.SerialPort;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// How a serial line is set.
///
/// @param baud 50...4 000 000
/// @param dataBits 5...8
/// @param parity 0 none, 1 odd, 2 even
/// @param stopBits 1 or 2
public record SerialLine(int baud, int dataBits, int parity, int stopBits) {
  /// What most instruments come with; common practice, no source.
  public static final SerialLine USUAL = new SerialLine(9600, 8, SerialPort.NO_PARITY, 1);

  private static final Pattern WORDS = Pattern.compile("(\\d{2,7})(?:,([5-8])([NOEnoe])([12]))?");

  public SerialLine {
    if (baud < 50 || baud > 4_000_000) {
      throw new IllegalArgumentException("a baud rate is in 50...4000000, got " + baud);
    }
  }

  /// Reads `9600` or `115200,8N1`.
  ///
  /// @throws IllegalArgumentException when it is none
  public static SerialLine parse(String text) {
    Matcher m = WORDS.matcher(text.strip());
    if (!m.matches()) {
      throw new IllegalArgumentException(
          "a serial line is set as 9600 or 115200,8N1, found '" + text + "'");
    }
    int baud = Integer.parseInt(m.group(1));
    if (m.group(2) == null) {
      return new SerialLine(baud, 8, SerialPort.NO_PARITY, 1);
    }
    int parity =
        switch (m.group(3)) {
          case "O", "o" -> SerialPort.ODD_PARITY;
          case "E", "e" -> SerialPort.EVEN_PARITY;
          default -> SerialPort.NO_PARITY;
        };
    return new SerialLine(baud, Integer.parseInt(m.group(2)), parity, Integer.parseInt(m.group(4)));
  }
}
