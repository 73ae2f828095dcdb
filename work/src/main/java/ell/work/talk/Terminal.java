package ell.work.talk;

import ell.bench.line.LineAddress;
import ell.bench.link.BenchException;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.talk.HeardLines;
import ell.core.talk.HeardText;
import ell.core.talk.Restarts;
import ell.work.act.Acts;
import ell.work.space.ActException;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// A line that somebody types over. Nothing is sent but what is typed; everything is kept.
public final class Terminal implements AutoCloseable {
  private final Recordings recordings;
  private final Acts acts;
  private final String board;
  private final LineAddress address;
  private final Recording recording;
  private final OpenLine line;
  private final Watcher watcher;
  private final HeardLines lines = new HeardLines();
  private final HeardText text = new HeardText();
  private volatile boolean heard;
  private boolean kept;

  /// Is told what is heard, on the thread of the line.
  public interface Watcher {
    /// Text, as it came.
    void heard(String text);

    /// The line was lost or found.
    ///
    /// @param words why it was lost
    void line(boolean there, String words);
  }

  /// Opens a line.
  ///
  /// @throws BenchException when it cannot be opened
  public Terminal(
      Recordings recordings,
      Acts acts,
      String board,
      LineAddress address,
      TalkRun.Opens opens,
      Watcher watcher)
      throws IOException {
    this.recordings = recordings;
    this.acts = acts;
    this.board = board;
    this.address = address;
    this.watcher = watcher;
    this.recording = recordings.begin(board, address.text(), "", "");
    try {
      this.line =
          new OpenLine(
              opens::open,
              recording,
              new OpenLine.Watches() {
                @Override
                public void heard(OpenLine.Heard h) {
                  take(h);
                }

                @Override
                public void lost(String why) {
                  watcher.line(false, why);
                }

                @Override
                public void found() {
                  watcher.line(true, "");
                }
              });
    } catch (BenchException e) {
      recording.close();
      Files.deleteIfExists(recording.file());
      throw e;
    }
  }

  private synchronized void take(OpenLine.Heard h) {
    String more = text.take(h.bytes(), 0, h.bytes().length).replace("\r", "");
    heard = true;
    watcher.heard(more);
    lines.add(h.seconds(), more);
  }

  /// Sends text as it is.
  ///
  /// @throws BenchException when the line is lost
  public void send(String typed) throws BenchException {
    line.send(typed.getBytes(StandardCharsets.UTF_8));
  }

  /// Whether the line is there.
  public boolean there() {
    return line.there();
  }

  /// Whether anything came yet.
  public boolean heard() {
    return heard;
  }

  /// Seconds since it was opened.
  public double seconds() {
    return recording.seconds();
  }

  /// Closes the line and logs what was said.
  public Logged end() throws IOException, ActException {
    line.close(); // whoever listens has to get out first
    return ended();
  }

  private synchronized Logged ended() throws IOException, ActException {
    kept = true;
    Restarts r = Restarts.of(lines.all(recording.seconds()), Optional.empty());
    List<String> told = new ArrayList<>();
    if (r.count() > 0) {
      told.add("'" + r.banner() + "' came " + (r.count() + 1) + " times");
    }
    if (line.losses() > 0) {
      told.add("the line was lost " + line.losses() + (line.losses() == 1 ? " time" : " times"));
    }
    if (text.odd() > 0) {
      told.add(text.odd() + " bytes were no text");
    }
    return recordings.close(
        board,
        recording,
        new Entry.Talk(
            address.text(),
            "",
            "",
            recording.seconds(),
            recording.sentBytes(),
            recording.heardBytes(),
            "",
            "",
            "",
            r.regular() ? r.count() : 0,
            0,
            List.of(),
            Optional.empty(),
            told));
  }

  /// What is still to be written reaches the disk; for a program that is being ended.
  public void closed() {
    try {
      recording.flush();
    } catch (IOException e) {
      // it was told when it was heard
    }
  }

  @Override
  public void close() throws IOException {
    if (!kept) {
      line.close();
      recording.close(); // it is logged by whoever looks next
    }
  }
}
