package ell.work.talk;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.util.concurrent.atomic.AtomicLong;

/// A cable between a line and a board that is pulled after so many bytes of one way, and is not put
/// in again.
final class CutLine implements AutoCloseable {
  private final ServerSocket server;
  private final int to;
  private final AtomicLong left;
  private final boolean towardsBoard;
  private volatile boolean cut;

  /// @param to port of the board
  /// @param bytes after which it is pulled; fewer than 0 for never
  /// @param towardsBoard whether bytes to the board are counted, or those from it
  CutLine(int to, long bytes, boolean towardsBoard) throws IOException {
    this.server = new ServerSocket(0, 4, InetAddress.getLoopbackAddress());
    this.to = to;
    this.left = new AtomicLong(bytes < 0 ? Long.MAX_VALUE : bytes);
    this.towardsBoard = towardsBoard;
    Thread.ofVirtual().start(this::accept);
  }

  int port() {
    return server.getLocalPort();
  }

  private void accept() {
    while (!server.isClosed()) {
      try {
        Socket a = server.accept();
        if (cut) {
          a.close();
          continue;
        }
        Socket b = new Socket(InetAddress.getLoopbackAddress(), to);
        Thread.ofVirtual().start(() -> carry(a, b, towardsBoard));
        Thread.ofVirtual().start(() -> carry(b, a, !towardsBoard));
      } catch (IOException e) {
        return;
      }
    }
  }

  private void carry(Socket from, Socket into, boolean counted) {
    byte[] one = new byte[1];
    try (from;
        into) {
      InputStream in = from.getInputStream();
      OutputStream out = into.getOutputStream();
      while (in.read(one) > 0) {
        if (counted && left.getAndDecrement() <= 0) {
          cut = true;
          return;
        }
        out.write(one);
      }
    } catch (IOException e) {
      // it was pulled
    }
  }

  @Override
  public void close() throws IOException {
    cut = true;
    server.close();
  }
}
