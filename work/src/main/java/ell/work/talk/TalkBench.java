package ell.work.talk;

import ell.bench.Bench;
import ell.bench.instrument.Hands;
import ell.bench.line.Line;
import ell.bench.line.LineAddress;
import ell.bench.link.BenchException;
import ell.core.entry.Logged;
import ell.core.rack.Plan;
import ell.work.act.Acts;
import ell.work.act.Refusal;
import ell.work.power.PowerRun;
import ell.work.space.ActException;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;

/// A line and what has to be done before it says anything: on a simulated bench the hands lay the
/// board down and set the rate, and the board is powered by its ladder and by the rules of first
/// power. A line of one's own is opened as it is.
public final class TalkBench implements AutoCloseable {
  private static final int OPEN_MILLIS = 2000;
  private static final int TICK_MILLIS = 40;
  private static final int WATCH_MILLIS = 200;

  private final LineAddress address;
  private final Optional<Bench> simulated;
  private final List<String> notes = new ArrayList<>();
  private Optional<PowerRun> power = Optional.empty();
  private volatile boolean closed;

  private TalkBench(LineAddress address, Optional<Bench> simulated) {
    this.address = address;
    this.simulated = simulated;
  }

  /// A line of one's own.
  public static TalkBench own(LineAddress address) {
    return new TalkBench(address, Optional.empty());
  }

  /// The line of a simulated bench, with a board on it.
  ///
  /// @param baud bits a second at the cable's end, 0 where it is that of the board
  /// @param logged is told what powering logs
  public static TalkBench simulated(
      Acts acts,
      Plan plan,
      String board,
      Bench bench,
      LineAddress address,
      int baud,
      Consumer<Logged> logged)
      throws IOException, ActException {
    TalkBench t = new TalkBench(address, Optional.of(bench));
    try (Hands hands = bench.need(Hands.KIND)) {
      hands.lay(board);
      hands.rate(baud > 0 ? baud : address.baud());
    }
    Optional<Refusal> no = PowerRun.refusal(acts, board);
    if (no.isPresent()) {
      t.notes.add("board " + board + " is not powered: " + no.get().why());
      return t;
    }
    if (plan.ladder().raised().isEmpty()) {
      t.notes.add("board " + board + " is not powered: no source of it is known, see ladder");
      return t;
    }
    String[] ended = {""};
    PowerRun run =
        new PowerRun(
            acts,
            plan,
            board,
            bench,
            new PowerRun.Watcher() {
              @Override
              public void logged(Logged l) {
                logged.accept(l);
              }

              @Override
              public void ended(String why, boolean surprise, boolean mayBeOn) {
                ended[0] = why;
              }
            },
            TICK_MILLIS);
    boolean climbed = false;
    try {
      climbed = run.climb();
    } finally {
      if (!climbed) {
        run.close();
      }
    }
    if (climbed) {
      t.power = Optional.of(run);
      Thread.ofVirtual().name("talk power").start(() -> t.watch(run));
    } else {
      t.notes.add("board " + board + " is not powered: " + ended[0]);
    }
    return t;
  }

  /// The supply is held, and looked at, while the line is open.
  private void watch(PowerRun run) {
    try {
      while (!closed && run.watch()) {
        Thread.sleep(WATCH_MILLIS);
      }
    } catch (IOException | InterruptedException e) {
      // the run has switched off, or the line is closed
    }
  }

  /// What is to be known before anything is said, a sentence each.
  public List<String> notes() {
    return List.copyOf(notes);
  }

  /// Opens the line.
  public Line open() throws BenchException {
    if (simulated.isPresent()) {
      String at = simulated.get().addresses().get("line");
      if (at == null) {
        throw new BenchException("this bench has no line");
      }
      return new LineAddress("tcp:" + at).open(OPEN_MILLIS);
    }
    return address.open(OPEN_MILLIS);
  }

  @Override
  public void close() throws IOException {
    closed = true;
    if (power.isPresent()) {
      try (PowerRun p = power.get()) {
        p.off("the line is closed");
      }
    }
    power = Optional.empty();
  }
}
