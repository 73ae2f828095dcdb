package ell.work.talk;

import ell.bench.link.BenchException;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.quantity.Verdict;
import ell.core.rack.Plan;
import ell.work.space.ActException;
import java.io.IOException;
import java.nio.file.Files;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BooleanSupplier;

/// A line that stays open while single lines are said to a board and its answers are held against
/// patterns; kept as one talk when it is closed. Not for many threads.
public final class Spoken {
  private static final int LOOKS = 12;
  private static final double LOOK = 0.05;

  private final Recordings recordings;
  private final String board;
  private final String address;
  private final Recording recording;
  private final OpenLine line;
  private final Hearing hearing;
  private final List<Entry.Talk.Step> steps = new ArrayList<>();

  /// What a board answered.
  ///
  /// @param got what matched, or what came instead
  public record Answer(boolean good, String got) {}

  /// Opens the line.
  ///
  /// @param name under which the talk is kept
  /// @throws BenchException when it cannot be opened
  public Spoken(
      Recordings recordings,
      Plan plan,
      String board,
      String address,
      TalkRun.Opens opens,
      String name,
      BooleanSupplier stopped)
      throws IOException {
    this.recordings = recordings;
    this.board = board;
    this.address = address;
    this.recording = recordings.begin(board, address, name, "");
    try {
      this.line = new OpenLine(opens::open, recording, new OpenLine.Watches() {});
    } catch (BenchException e) {
      recording.close();
      Files.deleteIfExists(recording.file());
      throw e;
    }
    this.hearing =
        new Hearing(
            line,
            Map.of(
                "board",
                board,
                "design",
                plan.revision().design(),
                "revision",
                plan.revision().name()),
            stopped,
            _ -> {},
            _ -> {});
    awake();
  }

  /// A board that begins when its line is opened hears nothing before it said so.
  private void awake() throws BenchException {
    try {
      for (int i = 0; i < LOOKS && !hearing.spoke(); i++) {
        hearing.wait(LOOK);
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }

  /// Says something, and waits for a pattern if there is one.
  ///
  /// @throws BenchException when the line is lost
  public Answer say(String text, Optional<String> pattern, double within) throws BenchException {
    long began = System.nanoTime();
    Hearing.Outcome o;
    try {
      o = hearing.say(text, pattern, within);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new BenchException("interrupted", e);
    } catch (IllegalStateException e) {
      o = new Hearing.Outcome(false, e.getMessage()); // a pattern that never ends
    }
    steps.add(
        new Entry.Talk.Step(
            steps.size() + 1,
            text.strip(),
            pattern.orElse(""),
            o.got(),
            (System.nanoTime() - began) * 1e-9,
            o.good() ? Verdict.WITHIN : Verdict.OUT));
    return new Answer(o.good(), o.got());
  }

  /// Closes the line and logs what was said. The talk as a whole is not judged: whoever asked
  /// judges each answer.
  public Logged close() throws IOException, ActException {
    try {
      hearing.drain();
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
    line.close();
    return recordings.close(
        board,
        recording,
        new Entry.Talk(
            address,
            "",
            "",
            recording.seconds(),
            recording.sentBytes(),
            recording.heardBytes(),
            "",
            "",
            hearing.found("firmware"),
            0,
            0,
            steps,
            Optional.empty(),
            List.of()));
  }
}
