package ell.bench.line;

import com.fazecast.jSerialComm.SerialPort;
import ell.bench.link.BenchException;
import ell.bench.link.SerialLine;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;

/// Where a line is: `tcp:host:port`, `serial:NAME[@baud[,8N1[,rtscts|xonxoff]]]`, or `sim[@baud]`
/// for the line of the simulated bench, which whoever has one opens as a socket.
///
/// @param text as it was written
public record LineAddress(String text) {
  private static final int LAST_PORT = 65_535;
  private static final String EXPECTED =
      "a line is tcp:host:port, serial:NAME@115200,8N1 or sim, found '";

  /// The serial ports of this machine, each with its name and what the system says of it.
  public static List<String> ports() {
    return Arrays.stream(SerialPort.getCommPorts())
        .map(p -> p.getSystemPortName() + " " + p.getDescriptivePortName())
        .toList();
  }

  /// Whether it is that of the simulated bench.
  public boolean simulated() {
    return text.equals("sim") || text.startsWith("sim@");
  }

  /// Bits a second that it names, 0 when it names none.
  ///
  /// @throws BenchException when what it names is none
  public int baud() throws BenchException {
    int at = text.lastIndexOf('@');
    if (at < 0) {
      return 0;
    }
    try {
      return SerialLine.parse(words(at)[0]).baud();
    } catch (IllegalArgumentException e) {
      throw new BenchException(e.getMessage(), e);
    }
  }

  /// Opens it.
  ///
  /// @param timeoutMillis for connecting, above 0
  /// @throws BenchException when it is no address, or cannot be opened
  public Line open(int timeoutMillis) throws BenchException {
    if (text.startsWith("serial:")) {
      return serial();
    }
    String at = text.startsWith("tcp:") ? text.substring(4) : text;
    int colon = at.lastIndexOf(':');
    if (colon > 0) {
      try {
        int port = Integer.parseInt(at.substring(colon + 1));
        if (port > 0 && port <= LAST_PORT) {
          return TcpLine.connect(at.substring(0, colon), port, timeoutMillis);
        }
      } catch (NumberFormatException e) {
        // told below
      }
    }
    throw new BenchException(EXPECTED + text + "'");
  }

  /// Line and flow, as they stand behind the `@`.
  private String[] words(int at) {
    String all = text.substring(at + 1);
    String low = all.toLowerCase(Locale.ROOT);
    for (String flow : new String[] {"rtscts", "xonxoff", "none"}) {
      if (low.endsWith("," + flow)) {
        return new String[] {all.substring(0, all.length() - flow.length() - 1), flow};
      }
    }
    return new String[] {all, "none"};
  }

  private Line serial() throws BenchException {
    int at = text.lastIndexOf('@');
    String name = text.substring("serial:".length(), at < 0 ? text.length() : at);
    if (name.isEmpty()) {
      throw new BenchException(EXPECTED + text + "'");
    }
    try {
      String[] words = at < 0 ? new String[] {"115200", "none"} : words(at);
      int flow =
          switch (words[1]) {
            case "rtscts" ->
                SerialPort.FLOW_CONTROL_RTS_ENABLED | SerialPort.FLOW_CONTROL_CTS_ENABLED;
            case "xonxoff" ->
                SerialPort.FLOW_CONTROL_XONXOFF_IN_ENABLED
                    | SerialPort.FLOW_CONTROL_XONXOFF_OUT_ENABLED;
            default -> SerialPort.FLOW_CONTROL_DISABLED;
          };
      return SerialPortLine.open(name, SerialLine.parse(words[0]), flow);
    } catch (IllegalArgumentException e) {
      throw new BenchException(e.getMessage(), e);
    }
  }
}
