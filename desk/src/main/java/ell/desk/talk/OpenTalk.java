package ell.desk.talk;

import ell.bench.line.LineAddress;
import ell.bench.link.BenchException;
import ell.core.entry.Entry;
import ell.core.entry.EntryWords;
import ell.core.rack.Plan;
import ell.core.talk.Script;
import ell.core.talk.Strip;
import ell.desk.shell.DeskModel;
import ell.work.Workshop;
import ell.work.space.ActException;
import ell.work.talk.TalkBench;
import ell.work.talk.TalkRun;
import ell.work.talk.Terminal;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Queue;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.RejectedExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;

/// The line that is open, if one is: a script that runs over it, or somebody who types. It works
/// aside; everything that is shown is changed on the interface thread.
final class OpenTalk {
  private static final int MOST_ROWS = 2000;
  private static final int CLOSE_SECONDS = 5;
  private static final int LOOK_MILLIS = 50;
  private static final int MOST_NEWS = 500;

  private final DeskModel desk;
  private final Runnable changed;
  private final Queue<Runnable> news = new ConcurrentLinkedQueue<>();
  private final AtomicBoolean due = new AtomicBoolean();
  private volatile Running running;
  private List<Strip.Row> rows = List.of();
  private List<Entry.Talk.Step> steps = List.of();

  /// One opening of the line.
  private static final class Running {
    private final String board;
    private final String what;
    private final BlockingQueue<String> answers = new ArrayBlockingQueue<>(1);
    private final BlockingQueue<String> typed = new LinkedBlockingQueue<>();
    private final CountDownLatch over = new CountDownLatch(1);
    private final long began = System.nanoTime();
    private volatile TalkRun run;
    private volatile Terminal terminal;
    private volatile boolean stopped;
    private String step = "";
    private String question = "";
    private double share;

    Running(String board, String what) {
      this.board = board;
      this.what = what;
    }

    double seconds() {
      return terminal == null ? (System.nanoTime() - began) * 1e-9 : terminal.seconds();
    }
  }

  /// What is done over an open line.
  private interface Over {
    /// Does it, and says what came of it.
    String talk(Workshop w, TalkBench bench) throws IOException, ActException, InterruptedException;
  }

  /// @param changed is run on the interface thread whenever something else is to be shown
  OpenTalk(DeskModel desk, Runnable changed) {
    this.desk = desk;
    this.changed = changed;
  }

  boolean runs() {
    return running != null;
  }

  /// What goes on over it, empty while it is closed.
  String what() {
    return running == null ? "" : running.what;
  }

  /// The step that is being made, in words.
  String step() {
    return running == null ? "" : running.step;
  }

  /// What waits for an answer, empty when nothing does.
  String question() {
    return running == null ? "" : running.question;
  }

  /// The share of an image that is over, 0...1.
  double share() {
    return running == null ? 0 : running.share;
  }

  /// Whether somebody types over it.
  boolean typing() {
    return running != null && running.terminal != null;
  }

  List<Strip.Row> rows() {
    return rows;
  }

  List<Entry.Talk.Step> steps() {
    return steps;
  }

  /// Runs a script that is kept.
  void run(Plan plan, String board, Script s) {
    String d = plan.revision().design();
    String r = plan.revision().name();
    Running mine = begin(board, s.name());
    aside(
        mine,
        plan,
        s.baud(),
        Optional.of(s),
        (w, bench) -> {
          TalkRun run =
              new TalkRun(w.talks(), w.recordings(), w.acts(), plan, board, new Watching(mine));
          mine.run = run;
          if (mine.stopped) {
            run.stop();
          }
          return EntryWords.of(
              run.run(w.scripts().kept(d, r, s.name()), address(), bench::open, bench.notes())
                  .talk());
        });
  }

  /// Opens the line to type over it; nothing is sent but what is typed.
  void open(Plan plan, String board) {
    Running mine = begin(board, "by hand");
    aside(
        mine,
        plan,
        0,
        Optional.empty(),
        (w, bench) -> {
          try (Terminal t =
              new Terminal(
                  w.recordings(), w.acts(), board, address(), bench::open, new Hearing(mine))) {
            later(mine, () -> mine.terminal = t);
            String typed;
            while ((typed = mine.typed.poll(LOOK_MILLIS, TimeUnit.MILLISECONDS)) != null
                || !mine.stopped) {
              if (typed != null) {
                send(mine, t, typed);
              }
            }
            return EntryWords.of(t.end().entry());
          }
        });
  }

  private Running begin(String board, String what) {
    Running mine = new Running(board, what);
    running = mine;
    rows = List.of();
    steps = List.of();
    changed.run();
    return mine;
  }

  private void aside(Running mine, Plan plan, int baud, Optional<Script> script, Over what) {
    desk.ask(w ->
        desk.runner()
            .aside()
            .execute(() -> {
              String says;
              try (TalkBench bench = bench(w, plan, mine.board, baud, script)) {
                says = "logged to " + mine.board + ": " + what.talk(w, bench);
              } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                says = "the line is closed";
              } catch (IOException | ActException | RuntimeException e) {
                says = e.getMessage() == null ? e.toString() : e.getMessage();
              }
              ended(mine, says);
            }));
  }

  private LineAddress address() {
    String own = desk.bench().addresses().get("line");
    return new LineAddress(own == null ? "sim" : own);
  }

  private TalkBench bench(Workshop w, Plan plan, String board, int baud, Optional<Script> script)
      throws IOException, ActException {
    if (script.isPresent()) {
      var no = TalkRun.refusal(w.acts(), board, script.get());
      if (no.isPresent()) {
        throw new ActException(no.get().text()); // before anything is switched on
      }
    }
    LineAddress a = address();
    if (!a.simulated()) {
      return TalkBench.own(a);
    }
    if (!desk.bench().addresses().isEmpty()) {
      throw new ActException(
          "the bench has no line: say where it is, such as line=serial:ttyUSB0@115200");
    }
    return TalkBench.simulated(w.acts(), plan, board, desk.bench().open(w), a, baud, _ -> {});
  }

  private void ended(Running mine, String says) {
    mine.over.countDown();
    desk.say(says);
    desk.runner()
        .ui()
        .execute(() -> {
          if (running == mine) {
            running = null;
          }
          try {
            desk.act(_ -> {}); // the book is looked at anew
          } catch (RejectedExecutionException e) {
            // the window is closing: there is nobody left to look
          }
        });
  }

  /// It is so.
  void yes() {
    Running r = running;
    if (r != null && !r.question.isEmpty()) {
      r.question = "";
      r.answers.offer("yes");
      changed.run();
    }
  }

  /// Sends a line that was typed; a line that is full is waited for elsewhere.
  void type(String text) {
    Running r = running;
    if (r != null && r.terminal != null) {
      r.typed.add(text);
    }
  }

  private void send(Running mine, Terminal t, String text) {
    try {
      t.send(text + "\r");
      later(mine, () -> add(mine, '>', text));
    } catch (BenchException e) {
      desk.say(e.getMessage());
    }
  }

  /// Closes the line.
  void stop() {
    Running r = running;
    if (r != null) {
      r.stopped = true;
      if (r.run != null) {
        r.run.stop();
      }
    }
  }

  /// Closes the line and waits until what was said is in the book.
  void close() throws InterruptedException {
    Running r = running;
    if (r != null) {
      stop();
      r.over.await(CLOSE_SECONDS, TimeUnit.SECONDS);
    }
  }

  private void add(Running mine, char kind, String text) {
    List<Strip.Row> all = new ArrayList<>(rows);
    byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
    all.addAll(Strip.rows(List.of(new Strip.Piece(kind, mine.seconds(), bytes))));
    rows = all.size() > MOST_ROWS ? all.subList(all.size() - MOST_ROWS, all.size()) : all;
  }

  /// What happens is shown in its order; a line that says much is drawn once for all of it.
  private void later(Running mine, Runnable what) {
    news.add(() -> {
      if (running == mine) {
        what.run();
      }
    });
    if (due.compareAndSet(false, true)) {
      desk.runner().ui().execute(this::show);
    }
  }

  private void show() {
    due.set(false);
    Runnable next;
    for (int i = 0; i < MOST_NEWS && (next = news.poll()) != null; i++) {
      next.run();
    }
    if (!news.isEmpty() && due.compareAndSet(false, true)) {
      desk.runner().ui().execute(this::show);
    }
    changed.run();
  }

  /// A terminal, as it is seen.
  private final class Hearing implements Terminal.Watcher {
    private final Running mine;

    Hearing(Running mine) {
      this.mine = mine;
    }

    @Override
    public void heard(String text) {
      later(mine, () -> add(mine, '<', text));
    }

    @Override
    public void line(boolean there, String words) {
      later(mine, () -> add(mine, '!', there ? "found again" : "lost: " + words));
    }
  }

  /// A script that runs, as it is seen.
  private final class Watching implements TalkRun.Watcher {
    private final Running mine;

    Watching(Running mine) {
      this.mine = mine;
    }

    @Override
    public void begins(int number, Script.Step step) {
      later(
          mine,
          () -> {
            mine.step = number + "  " + step.words();
            mine.share = 0;
          });
    }

    @Override
    public Optional<String> answers(String key, String question) {
      later(mine, () -> mine.question = question);
      try {
        while (!mine.stopped) {
          String answer = mine.answers.poll(LOOK_MILLIS, TimeUnit.MILLISECONDS);
          if (answer != null) {
            return Optional.of(answer);
          }
        }
      } catch (InterruptedException e) {
        Thread.currentThread().interrupt();
      }
      return Optional.empty();
    }

    @Override
    public void sends(String text) {
      later(mine, () -> add(mine, '>', text));
    }

    @Override
    public void hears(String text) {
      later(mine, () -> add(mine, '<', text));
    }

    @Override
    public void ended(Entry.Talk.Step step) {
      later(
          mine,
          () -> {
            List<Entry.Talk.Step> all = new ArrayList<>(steps);
            all.add(step);
            steps = List.copyOf(all);
          });
    }

    @Override
    public void loaded(double share) {
      later(mine, () -> mine.share = share);
    }
  }
}
