package ell.bench.link;

import java.io.IOException;
import java.net.SocketTimeoutException;
import java.nio.charset.StandardCharsets;

/// Lines over a wire, ended by LF where nothing else is said.
public final class LineLink implements ScpiLink {
  private static final int LONGEST = 4096;

  private static final int QUIET_MILLIS = 40;
  private static final int MOST_NOISE = 1 << 16;

  private final Wire wire;
  private final String where;
  private volatile int timeoutMillis;
  private volatile String lineEnd = "\n";
  private boolean late;

  LineLink(Wire wire, String where, int timeoutMillis) {
    this.wire = wire;
    this.where = where;
    this.timeoutMillis = timeoutMillis;
  }

  @Override
  public synchronized void send(String command) throws BenchException {
    try {
      wire.write((command + lineEnd).getBytes(StandardCharsets.US_ASCII));
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
      wire.drop();
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
        int c = wire.read((int) left);
        if (c < 0) {
          throw new BenchException(where + " hung up while it was asked '" + query + "'");
        }
        if (c == lineEnd.charAt(lineEnd.length() - 1)) {
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

  @Override
  public synchronized byte[] askBlock(String query) throws BenchException {
    if (late) {
      resync();
    }
    try {
      wire.drop();
      send(query);
      return Block.read(() -> byteOf(query), lineEnd.charAt(lineEnd.length() - 1));
    } catch (SocketTimeoutException e) {
      late = true;
      throw new BenchException(
          where + " did not go on with '" + query + "' within " + timeoutMillis + " ms", e);
    } catch (BenchException e) {
      late = true;
      throw new BenchException(where + ", asked '" + query + "': " + e.getMessage(), e);
    } catch (IOException e) {
      throw new BenchException(where + " is gone: asked '" + query + "'", e);
    }
  }

  private int byteOf(String query) throws IOException {
    int c = wire.read(timeoutMillis);
    if (c < 0) {
      throw new BenchException("it hung up");
    }
    return c;
  }

  @Override
  public synchronized void resync() throws BenchException {
    try {
      for (int n = 0; n < MOST_NOISE; n++) {
        if (wire.read(QUIET_MILLIS) < 0) {
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
  public void lineEnd(String end) {
    if (!end.equals("\n") && !end.equals("\r\n") && !end.equals("\r")) {
      throw new IllegalArgumentException("a line ends with LF, CRLF or CR");
    }
    lineEnd = end;
  }

  @Override
  public String where() {
    return where;
  }

  @Override
  public void close() {
    wire.close();
  }
}
