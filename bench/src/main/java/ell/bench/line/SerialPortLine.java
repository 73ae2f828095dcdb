package ell.bench.line;

import com.fazecast.jSerialComm.SerialPort;
import com.fazecast.jSerialComm.SerialPortInvalidPortException;
import ell.bench.link.BenchException;
import ell.bench.link.SerialLine;

/// A line over a serial port.
final class SerialPortLine implements Line {
  private static final int WRITE_MILLIS = 5000;
  private static final int ROOM = 1 << 18;

  private final String name;
  private final SerialPort port;
  private int patience = -1;

  private SerialPortLine(String name, SerialPort port) {
    this.name = name;
    this.port = port;
  }

  static SerialPortLine open(String name, SerialLine as, int flow) throws BenchException {
    try {
      SerialPort p = SerialPort.getCommPort(name);
      p.setComPortParameters(as.baud(), as.dataBits(), as.stopBits(), as.parity());
      p.setFlowControl(flow);
      if (!p.openPort(0, ROOM, ROOM)) {
        throw new BenchException(
            "the serial port "
                + name
                + " cannot be opened: is it there, is it free, may you use it?");
      }
      return new SerialPortLine(name, p);
    } catch (SerialPortInvalidPortException e) {
      throw new BenchException("there is no serial port " + name, e);
    }
  }

  @Override
  public String where() {
    return "serial:" + name;
  }

  @Override
  public void send(byte[] bytes) throws BenchException {
    if (port.writeBytes(bytes, bytes.length) != bytes.length) {
      throw new BenchException(where() + " took less than was sent: it is gone, or it is held");
    }
  }

  @Override
  public int read(byte[] into, int millis) throws BenchException {
    if (millis != patience) {
      port.setComPortTimeouts(
          SerialPort.TIMEOUT_READ_SEMI_BLOCKING | SerialPort.TIMEOUT_WRITE_BLOCKING,
          millis,
          WRITE_MILLIS);
      patience = millis;
    }
    int n = port.readBytes(into, into.length);
    if (n < 0 || n == 0 && (!port.isOpen() || port.bytesAvailable() < 0)) {
      throw new BenchException(where() + " is gone");
    }
    return n;
  }

  @Override
  public void baud(int baud) throws BenchException {
    if (!port.setBaudRate(baud)) {
      throw new BenchException(where() + " cannot be set to " + baud + " bits a second");
    }
  }

  @Override
  public void close() {
    port.closePort();
  }
}
