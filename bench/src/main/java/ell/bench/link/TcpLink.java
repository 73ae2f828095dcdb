package ell.bench.link;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetSocketAddress;
import java.net.Socket;

/// Links over a raw socket, as instruments offer it on port 5025.
public final class TcpLink {
  private TcpLink() {}

  /// Connects.
  ///
  /// @param host name or address
  /// @param port 1...65535
  /// @param timeoutMillis for connecting and for each answer, above 0
  public static LineLink connect(String host, int port, int timeoutMillis) throws BenchException {
    String where = host + ":" + port;
    Socket socket = new Socket();
    try {
      socket.connect(new InetSocketAddress(host, port), timeoutMillis);
      return new LineLink(new SocketWire(socket), where, timeoutMillis);
    } catch (IOException e) {
      closeQuietly(socket);
      throw new BenchException("no instrument answers at " + where + ": " + e.getMessage(), e);
    }
  }

  private static final class SocketWire implements Wire {
    private final Socket socket;
    private final InputStream in;
    private final OutputStream out;

    SocketWire(Socket socket) throws IOException {
      this.socket = socket;
      socket.setTcpNoDelay(true);
      this.in = socket.getInputStream();
      this.out = socket.getOutputStream();
    }

    @Override
    public void write(byte[] bytes) throws IOException {
      out.write(bytes);
      out.flush();
    }

    @Override
    public int read(int millis) throws IOException {
      socket.setSoTimeout(millis);
      return in.read();
    }

    @Override
    public void drop() throws IOException {
      for (int left = in.available(); left > 0; ) {
        long skipped = in.skip(left);
        if (skipped <= 0) {
          return;
        }
        left -= (int) skipped;
      }
    }

    @Override
    public void close() {
      closeQuietly(socket);
    }
  }

  private static void closeQuietly(Socket socket) {
    try {
      socket.close();
    } catch (IOException e) {
      // there is nothing left to be done with it
    }
  }
}
