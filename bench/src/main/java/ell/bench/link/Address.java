package ell.bench.link;

/// Where an instrument is: `host`, `host:port`, `tcp:host:port` or `serial:NAME[@baud[,8N1]]`.
///
/// @param text as it was written
public record Address(String text) {
  /// The port that instruments listen on by custom, where an address names none.
  public static final int SCPI_PORT = 5025;

  private static final String SERIAL = "serial:";
  private static final int LAST_PORT = 65_535;

  /// Connects.
  ///
  /// @param timeoutMillis for connecting and for each answer, above 0
  /// @throws BenchException when it is no address, or nothing answers there
  public LineLink connect(int timeoutMillis) throws BenchException {
    if (text.startsWith(SERIAL)) {
      int at = text.lastIndexOf('@');
      try {
        return SerialLink.connect(
            text.substring(SERIAL.length(), at < 0 ? text.length() : at),
            at < 0 ? SerialLine.USUAL : SerialLine.parse(text.substring(at + 1)),
            timeoutMillis);
      } catch (IllegalArgumentException e) {
        throw new BenchException(e.getMessage(), e);
      }
    }
    String at = text.startsWith("tcp:") ? text.substring(4) : text;
    int colon = at.lastIndexOf(':');
    String host = colon < 0 ? at : at.substring(0, colon);
    try {
      int port = colon < 0 ? SCPI_PORT : Integer.parseInt(at.substring(colon + 1));
      if (port > 0 && port <= LAST_PORT && !host.isEmpty()) {
        return TcpLink.connect(host, port, timeoutMillis);
      }
    } catch (NumberFormatException e) {
      // told below
    }
    throw new BenchException(
        "an instrument's address is host:port with a port in 1...65535, or serial:NAME@baud,8N1,"
            + " found '"
            + text
            + "'");
  }
}
