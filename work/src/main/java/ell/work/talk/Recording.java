package ell.work.talk;

import ell.core.json.JsonObject;
import java.io.BufferedInputStream;
import java.io.ByteArrayOutputStream;
import java.io.DataInputStream;
import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;

/// What went over a line, in time, as bytes: a file that grows while the line is open and can be
/// read up to where the program ended, however it did.
///
/// The file begins with `ELLTALK1` and a line of JSON that says whose it is. Then, for every piece:
/// one byte (`>` to the board, `<` from it, `!` words about the line), eight bytes with the
/// microseconds since it was opened, four with the length, the bytes. Numbers have their greatest
/// byte first. Safe for several threads.
final class Recording implements AutoCloseable {
  static final String HEAD = "ELLTALK1 ";
  private static final int ROOM = 1 << 16;
  private static final long FLUSH_NANOS = 100_000_000;

  private final Path file;
  private final FileChannel out;
  private final FileLock lock;
  private final ByteBuffer held = ByteBuffer.allocate(ROOM);
  private final long began = System.nanoTime();
  private long flushed = began;
  private long sent;
  private long heard;

  /// Whose it is.
  ///
  /// @param at when it began, ISO 8601
  record Of(String board, String line, String script, String operation, String at) {}

  private Recording(Path file, FileChannel out, FileLock lock) {
    this.file = file;
    this.out = out;
    this.lock = lock;
  }

  /// Begins one.
  static Recording begin(Path file, Of of) throws IOException {
    FileChannel c = FileChannel.open(file, StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE);
    FileLock lock = c.tryLock();
    Recording r = new Recording(file, c, lock);
    String json =
        tools.jackson.databind.node.JsonNodeFactory.instance
            .objectNode()
            .put("board", of.board())
            .put("line", of.line())
            .put("script", of.script())
            .put("operation", of.operation())
            .put("at", of.at())
            .toString();
    r.held.put((HEAD + json + "\n").getBytes(StandardCharsets.UTF_8));
    r.flush();
    return r;
  }

  /// Bytes went to the board.
  synchronized void sent(byte[] bytes) throws IOException {
    sent += bytes.length;
    put('>', bytes, bytes.length);
    flush();
  }

  /// Bytes came from it.
  synchronized void heard(byte[] bytes, int n) throws IOException {
    heard += n;
    put('<', bytes, n);
  }

  /// Something happened to the line.
  synchronized void told(String words) throws IOException {
    byte[] b = words.getBytes(StandardCharsets.UTF_8);
    put('!', b, b.length);
    flush();
  }

  private void put(char kind, byte[] bytes, int n) throws IOException {
    if (held.remaining() < 13) {
      flush();
    }
    held.put((byte) kind).putLong((System.nanoTime() - began) / 1000).putInt(n);
    for (int at = 0; at < n; ) {
      if (!held.hasRemaining()) {
        flush();
      }
      int some = Math.min(held.remaining(), n - at);
      held.put(bytes, at, some);
      at += some;
    }
    if (System.nanoTime() - flushed > FLUSH_NANOS) {
      flush();
    }
  }

  /// Hands what is held to the system.
  synchronized void flush() throws IOException {
    held.flip();
    while (held.hasRemaining()) {
      out.write(held);
    }
    held.clear();
    flushed = System.nanoTime();
  }

  synchronized long sentBytes() {
    return sent;
  }

  synchronized long heardBytes() {
    return heard;
  }

  double seconds() {
    return (System.nanoTime() - began) * 1e-9;
  }

  Path file() {
    return file;
  }

  @Override
  public synchronized void close() throws IOException {
    try (out) {
      if (out.isOpen()) {
        flush();
        out.force(false);
        if (lock != null) {
          lock.release();
        }
      }
    }
  }

  /// A piece of a recording.
  ///
  /// @param kind `>`, `<` or `!`
  record Piece(char kind, double seconds, byte[] bytes) {}

  /// Takes pieces.
  interface Takes {
    /// Takes one.
    void piece(Piece p) throws IOException;
  }

  /// Reads a recording up to where it was cut.
  ///
  /// @return whose it is
  /// @throws IOException when it is none
  static Of read(InputStream from, Takes to) throws IOException {
    DataInputStream in = new DataInputStream(new BufferedInputStream(from, ROOM));
    ByteArrayOutputStream head = new ByteArrayOutputStream();
    for (int c = in.read(); c != '\n'; c = in.read()) {
      if (c < 0 || head.size() > 4096) {
        throw new IOException("it is no recording of a line");
      }
      head.write(c);
    }
    String first = head.toString(StandardCharsets.UTF_8);
    if (!first.startsWith(HEAD)) {
      throw new IOException("it is no recording of a line");
    }
    JsonObject o;
    try {
      o = JsonObject.parse(first.substring(HEAD.length()), "the head of a recording");
    } catch (IllegalArgumentException e) {
      throw new IOException(e.getMessage(), e);
    }
    try {
      while (true) {
        int kind = in.read();
        if (kind < 0) {
          break;
        }
        long micros = in.readLong();
        int n = in.readInt();
        if (n < 0 || n > 1 << 24 || kind != '>' && kind != '<' && kind != '!') {
          throw new IOException("the recording is damaged");
        }
        byte[] b = new byte[n];
        in.readFully(b);
        to.piece(new Piece((char) kind, micros * 1e-6, b));
      }
    } catch (EOFException e) {
      // it was cut there: what is whole was taken
    }
    return new Of(
        o.text("board", ""),
        o.text("line", ""),
        o.text("script", ""),
        o.text("operation", ""),
        o.text("at", ""));
  }

  /// Whether somebody still writes it.
  static boolean open(Path file) throws IOException {
    try (FileChannel c = FileChannel.open(file, StandardOpenOption.WRITE);
        FileLock l = c.tryLock()) {
      return l == null;
    } catch (java.nio.channels.OverlappingFileLockException e) {
      return true;
    }
  }

  /// All of a file.
  static Of read(Path file, Takes to) throws IOException {
    try (InputStream in = Files.newInputStream(file)) {
      return read(in, to);
    }
  }
}
