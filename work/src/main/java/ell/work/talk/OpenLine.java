package ell.work.talk;

import ell.bench.line.Line;
import ell.bench.link.BenchException;
import java.io.IOException;
import java.util.Arrays;
import java.util.Optional;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.TimeUnit;

/// A line that is watched: what comes is recorded at once and handed to whoever listens; when the
/// line is lost it is looked for until it is found again. What nobody takes is dropped from memory,
/// never from the recording.
final class OpenLine implements AutoCloseable {
  private static final int WAIT_MILLIS = 50;
  private static final int AGAIN_MILLIS = 250;
  private static final int MOST_WAITING = 256;
  private static final int ROOM = 1 << 16;

  private final Opens how;
  private final Recording recording;
  private final Watches watches;
  private final BlockingQueue<Heard> waiting = new ArrayBlockingQueue<>(MOST_WAITING);
  private final Thread reader;
  private volatile Line line;
  private volatile boolean closed;
  private volatile int losses;
  private volatile String failed = "";

  /// Opens the line.
  interface Opens {
    /// Opens it, or opens it again.
    Line open() throws BenchException;
  }

  /// Is told what happens; on the thread of the line.
  interface Watches {
    /// Bytes came.
    default void heard(Heard h) {}

    /// The line was lost.
    default void lost(String why) {}

    /// It is there again.
    default void found() {}
  }

  /// Bytes that came together.
  ///
  /// @param seconds since the line was opened
  record Heard(double seconds, byte[] bytes) {}

  /// Opens it.
  ///
  /// @throws BenchException when it cannot be opened
  OpenLine(Opens how, Recording recording, Watches watches) throws BenchException {
    this.how = how;
    this.recording = recording;
    this.watches = watches;
    this.line = how.open();
    this.reader = Thread.ofVirtual().name("line").start(this::listen);
  }

  private void listen() {
    byte[] buffer = new byte[ROOM];
    while (!closed) {
      Line l = line;
      try {
        if (l == null) {
          again();
          continue;
        }
        int n = l.read(buffer, WAIT_MILLIS);
        if (n > 0) {
          recording.heard(buffer, n);
          Heard h = new Heard(recording.seconds(), Arrays.copyOf(buffer, n));
          while (!waiting.offer(h)) {
            waiting.poll();
          }
          watches.heard(h);
        } else {
          recording.flush();
        }
      } catch (BenchException e) {
        if (!closed) {
          gone(e.getMessage());
        }
      } catch (IOException e) {
        // nothing is heard that is not recorded
        failed = "the recording cannot go on: " + e.getMessage();
        closed = true;
        watches.lost(failed);
      }
    }
  }

  private void gone(String why) {
    Line l = line;
    line = null;
    losses++;
    if (l != null) {
      l.close();
    }
    told("lost: " + why);
    watches.lost(why);
  }

  private void again() {
    try {
      Thread.sleep(AGAIN_MILLIS);
      if (closed) {
        return;
      }
      line = how.open();
      told("found again");
      watches.found();
    } catch (BenchException e) {
      // it is looked for until somebody closes it
    } catch (InterruptedException e) {
      closed = true;
    }
  }

  private void told(String words) {
    try {
      recording.told(words);
    } catch (IOException e) {
      failed = "the recording cannot go on: " + e.getMessage();
      closed = true;
    }
  }

  /// Sends bytes.
  ///
  /// @throws BenchException when the line is lost
  void send(byte[] bytes) throws BenchException {
    Line l = line;
    if (!failed.isEmpty()) {
      throw new BenchException(failed);
    }
    if (l == null) {
      throw new BenchException("the line is lost");
    }
    try {
      recording.sent(bytes);
    } catch (IOException e) {
      throw new BenchException("the recording cannot go on: " + e.getMessage(), e);
    }
    l.send(bytes);
  }

  /// What came next.
  ///
  /// @param seconds to wait for it
  /// @return empty when nothing came
  Optional<Heard> next(double seconds) throws InterruptedException {
    return Optional.ofNullable(
        waiting.poll(Math.max(0, (long) (seconds * 1e9)), TimeUnit.NANOSECONDS));
  }

  /// What came and was not taken is not waited for any more.
  void drop() {
    waiting.clear();
  }

  /// Seconds since it was opened.
  double seconds() {
    return recording.seconds();
  }

  /// Whether it is there.
  boolean there() {
    return line != null;
  }

  /// How often it was lost.
  int losses() {
    return losses;
  }

  /// Why nothing goes over it any more, empty while it does.
  String failed() {
    return failed;
  }

  @Override
  public void close() {
    closed = true;
    Line l = line;
    if (l != null) {
      l.close();
    }
    try {
      reader.join(1000);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }
}
