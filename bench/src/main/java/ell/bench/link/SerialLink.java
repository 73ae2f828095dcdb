package ell.bench.link;

import com.fazecast.jSerialComm.SerialPort;
import com.fazecast.jSerialComm.SerialPortInvalidPortException;
import java.io.IOException;
import java.net.SocketTimeoutException;

/// Links over a serial line.
public final class SerialLink {
  private SerialLink() {}

  /// Opens a port. Nobody else has it then.
  ///
  /// @param name as the system calls it, such as `/dev/ttyUSB0` or `COM3`
  /// @param timeoutMillis for each answer, above 0
  public static LineLink connect(String name, SerialLine line, int timeoutMillis)
      throws BenchException {
    String where = "serial:" + name;
    try {
      SerialPort port = SerialPort.getCommPort(name);
      port.setComPortParameters(line.baud(), line.dataBits(), line.stopBits(), line.parity());
      if (!port.openPort()) {
        throw new BenchException(
            "the serial port "
                + name
                + " cannot be opened: is it there, is it free, may you use it?");
      }
      return new LineLink(new PortWire(port), where, timeoutMillis);
    } catch (SerialPortInvalidPortException e) {
      throw new BenchException("there is no serial port " + name, e);
    }
  }

  private static final class PortWire implements Wire {
    private final SerialPort port;
    private final byte[] one = new byte[1];
    private int patience = -1;

    PortWire(SerialPort port) {
      this.port = port;
    }

    @Override
    public void write(byte[] bytes) throws IOException {
      if (port.writeBytes(bytes, bytes.length) != bytes.length) {
        throw new IOException("the serial port took less than was sent");
      }
    }

    @Override
    public int read(int millis) throws IOException {
      if (millis != patience) {
        port.setComPortTimeouts(SerialPort.TIMEOUT_READ_BLOCKING, millis, 0);
        patience = millis;
      }
      int n = port.readBytes(one, 1);
      if (n == 0) {
        throw new SocketTimeoutException();
      }
      return n < 0 ? -1 : one[0] & 0xff;
    }

    @Override
    public void drop() throws IOException {
      int waiting = port.bytesAvailable();
      if (waiting < 0) {
        throw new IOException("the serial port is gone");
      }
      port.readBytes(new byte[waiting], waiting);
    }

    @Override
    public void close() {
      port.closePort();
    }
  }
}
