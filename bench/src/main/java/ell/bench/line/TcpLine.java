package ell.bench.line;

import ell.bench.link.BenchException;
import java.io.IOException;
import java.io.InputStream;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.net.SocketTimeoutException;

/// A line over a raw socket.
final class TcpLine implements Line {
  private static final int ROOM = 1 << 20;

  private final String where;
  private final Socket socket;
  private final InputStream in;
  private int patience = -1;

  private TcpLine(String where, Socket socket) throws IOException {
    this.where = where;
    this.socket = socket;
    socket.setTcpNoDelay(true);
    this.in = socket.getInputStream();
  }

  static TcpLine connect(String host, int port, int timeoutMillis) throws BenchException {
    Socket s = new Socket();
    try {
      s.setReceiveBufferSize(ROOM);
      s.connect(new InetSocketAddress(host, port), timeoutMillis);
      return new TcpLine(host + ":" + port, s);
    } catch (IOException e) {
      quietly(s);
      throw new BenchException("no line at " + host + ":" + port + ": " + e.getMessage(), e);
    }
  }

  @Override
  public String where() {
    return where;
  }

  @Override
  public void send(byte[] bytes) throws BenchException {
    try {
      socket.getOutputStream().write(bytes);
      socket.getOutputStream().flush();
    } catch (IOException e) {
      throw new BenchException(where + " is gone: " + e.getMessage(), e);
    }
  }

  @Override
  public int read(byte[] into, int millis) throws BenchException {
    try {
      if (millis != patience) {
        socket.setSoTimeout(millis);
        patience = millis;
      }
      int n = in.read(into);
      if (n < 0) {
        throw new BenchException(where + " hung up");
      }
      return n;
    } catch (SocketTimeoutException e) {
      return 0;
    } catch (BenchException e) {
      throw e;
    } catch (IOException e) {
      throw new BenchException(where + " is gone: " + e.getMessage(), e);
    }
  }

  @Override
  public void baud(int baud) {
    // a socket has none
  }

  @Override
  public void close() {
    quietly(socket);
  }

  private static void quietly(Socket s) {
    try {
      s.close();
    } catch (IOException e) {
      // there is nothing left to be done with it
    }
  }
}
