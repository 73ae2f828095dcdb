package ell.bench.link;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.net.SocketTimeoutException;
import java.nio.charset.StandardCharsets;

/// A link over a raw socket, lines ended by LF, as instruments offer it on port 5025.
public final class TcpLink implements ScpiLink {
  private static final int LONGEST = 4096;

  private final Socket socket;
  private final InputStream in;
  private final OutputStream out;
  private final String where;
  private static final int QUIET_MILLIS = 40;
  private static final int MOST_NOISE = 1 << 16;

  private volatile int timeoutMillis;
  private boolean late;

  private TcpLink(Socket socket, String where, int timeoutMillis) throws IOException {
    this.socket = socket;
    this.where = where;
    this.timeoutMillis = timeoutMillis;
    socket.setTcpNoDelay(true);
    this.in = socket.getInputStream();
    this.out = socket.getOutputStream();
  }

  /// Connects.
  ///
  /// @param host name or address
  /// @param port 1...65535
  /// @param timeoutMillis for connecting and for each answer, above 0
  public static TcpLink connect(String host, int port, int timeoutMillis) throws BenchException {
    String where = host + ":" + port;
    Socket socket = new Socket();
    try {
      socket.connect(new InetSocketAddress(host, port), timeoutMillis);
      return new TcpLink(socket, where, timeoutMillis);
    } catch (IOException e) {
      closeQuietly(socket);
      throw new BenchException("no instrument answers at " + where + ": " + e.getMessage(), e);
    }
  }

  @Override
  public synchronized void send(String command) throws BenchException {
    try {
      out.write((command + "\n").getBytes(StandardCharsets.US_ASCII));
      out.flush();
    } catch (IOException e) {
      throw new BenchException(where + " is gone: could not send '" + command + "'", e);
    }
  }

  @Override
  public synchronized String ask(String query) throws BenchException {
    if (late) {
      resync(); // an answer that comes now is that of an earlier question
    }
    try {
      drop(in.available());
    } catch (IOException e) {
      throw new BenchException(where + " is gone: asked '" + query + "'", e);
    }
    return askNext(query);
  }

  @Override
  public synchronized String askNext(String query) throws BenchException {
    send(query);
    StringBuilder line = new StringBuilder();
    long end = System.nanoTime() + timeoutMillis * 1_000_000L;
    try {
      while (true) {
        long left = (end - System.nanoTime()) / 1_000_000;
        if (left <= 0) {
          throw new SocketTimeoutException();
        }
        socket.setSoTimeout((int) left);
        int c = in.read();
        if (c < 0) {
          throw new BenchException(where + " hung up while it was asked '" + query + "'");
        }
        if (c == '\n') {
          return line.toString().strip();
        }
        line.append((char) c);
        if (line.length() > LONGEST) {
          late = true;
          throw new BenchException(
              where + " answered '" + query + "' with more than " + LONGEST + " characters");
        }
      }
    } catch (SocketTimeoutException e) {
      late = true;
      throw new BenchException(
          where + " did not answer '" + query + "' within " + timeoutMillis + " ms", e);
    } catch (BenchException e) {
      throw e;
    } catch (IOException e) {
      throw new BenchException(where + " is gone: asked '" + query + "'", e);
    }
  }

  private void drop(int bytes) throws IOException {
    for (int left = bytes; left > 0; ) {
      long skipped = in.skip(left);
      if (skipped <= 0) {
        return;
      }
      left -= (int) skipped;
    }
  }

  @Override
  public synchronized void resync() throws BenchException {
    try {
      socket.setSoTimeout(QUIET_MILLIS);
      for (int n = 0; n < MOST_NOISE; n++) {
        if (in.read() < 0) {
          throw new BenchException(where + " hung up");
        }
      }
      throw new BenchException(where + " does not stop talking");
    } catch (SocketTimeoutException e) {
      late = false; // it is quiet
    } catch (BenchException e) {
      throw e;
    } catch (IOException e) {
      throw new BenchException(where + " is gone", e);
    }
  }

  @Override
  public void patience(int millis) {
    if (millis <= 0) {
      throw new IllegalArgumentException("a time-out is above 0 ms, got " + millis);
    }
    timeoutMillis = millis;
  }

  @Override
  public String where() {
    return where;
  }

  @Override
  public void close() {
    closeQuietly(socket);
  }

  private static void closeQuietly(Socket socket) {
    try {
      socket.close();
    } catch (IOException e) {
      // there is nothing left to be done with it
    }
  }
}
