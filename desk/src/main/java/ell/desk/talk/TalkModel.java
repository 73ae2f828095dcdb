package ell.desk.talk;

import ell.bench.line.LineAddress;
import ell.bench.link.BenchException;
import ell.core.entry.Entry;
import ell.core.entry.EntryWords;
import ell.core.entry.Logged;
import ell.core.quantity.Verdict;
import ell.core.rack.Plan;
import ell.core.rack.Stage;
import ell.core.talk.ChainOnBoard;
import ell.core.talk.ChainSeen;
import ell.core.talk.ChainSuspects;
import ell.core.talk.Link;
import ell.core.talk.LinkPlan;
import ell.core.talk.PinMap;
import ell.core.talk.PinTable;
import ell.core.talk.Script;
import ell.core.talk.Strip;
import ell.core.talk.TalkFacts;
import ell.core.talk.TalkPlan;
import ell.desk.shell.DeskModel;
import ell.desk.shell.Loader;
import ell.desk.shell.Snapshot;
import ell.desk.shell.StageModel;
import ell.work.Workshop;
import ell.work.space.ActException;
import ell.work.talk.TalkBench;
import ell.work.talk.TalkRun;
import ell.work.talk.Terminal;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;

/// One board and what it says: the script in hand, its strip, links and operations, pins, chains.
public final class TalkModel extends StageModel {
  private static final int MOST_ROWS = 2000;
  private static final int CLOSE_SECONDS = 5;

  private final DeskModel desk;
  private final ReadOnlyObjectWrapper<Shown> shown = new ReadOnlyObjectWrapper<>(this, "shown");
  private final Loader<Kept> keeping;
  private final Loader<List<Strip.Row>> opening;
  private Snapshot.Work work;
  private TalkFace face = TalkFace.STRIP;
  private Kept kept = Kept.NONE;
  private List<Strip.Row> rows = List.of();
  private List<Entry.Talk.Step> steps = List.of();
  private int scriptAt;
  private int operationAt;
  private int moduleAt;
  private int chainAt;
  private int scrolled;
  private long looks;
  private volatile Running running;

  /// What is kept for a revision.
  ///
  /// @param scripts in the order of their names
  /// @param needs of its firmware
  /// @param maps of them onto the modules of the workspace, by name, the best first
  /// @param offers of the modules
  /// @param said of links, operations and lines
  record Kept(
      List<Script> scripts,
      List<PinTable.Need> needs,
      Map<String, PinMap> maps,
      Map<String, List<PinTable.Offer>> offers,
      List<String> said) {
    static final Kept NONE = new Kept(List.of(), List.of(), Map.of(), Map.of(), List.of());
  }

  /// A line that is open.
  private static final class Running {
    private final String board;
    private final String what;
    private TalkRun run;
    private Terminal terminal;
    private String step = "";
    private String question = "";
    private final BlockingQueue<String> answers = new ArrayBlockingQueue<>(1);
    private double share;
    private final CountDownLatch over = new CountDownLatch(1);
    private volatile boolean stopped;

    Running(String board, String what) {
      this.board = board;
      this.what = what;
    }
  }

  /// What is drawn.
  ///
  /// @param scripts by name
  /// @param scriptAt the one in hand, -1 when there is none
  /// @param rows of the strip
  /// @param steps that were made
  /// @param scrolled rows from its end that are not shown
  /// @param talk the latest of the script, while no line is open
  /// @param running what goes on over the line, empty when it is closed
  /// @param step of the script that is being made, in words
  /// @param question that waits for an answer, empty for none
  /// @param loaded share of an image that is over, 0 when none is being sent
  /// @param typing whether somebody types over the line
  /// @param operations in the order that heats least, what was done left out
  /// @param look counts looks: no two are the same
  public record Shown(
      Snapshot.Work work,
      TalkFace face,
      List<Script> scripts,
      int scriptAt,
      List<Strip.Row> rows,
      List<Entry.Talk.Step> steps,
      int scrolled,
      Optional<Entry.Talk> talk,
      String running,
      String step,
      String question,
      double loaded,
      boolean typing,
      Optional<LinkPlan> operations,
      int operationAt,
      Kept kept,
      String module,
      Optional<ChainOnBoard> chain,
      Optional<ChainSeen> seen,
      Optional<ChainSuspects> suspects,
      long look) {
    /// What is known of the board.
    public TalkFacts facts() {
      return TalkFacts.of(work.state());
    }

    /// The operation in hand, and what it needs as everything stands now.
    public Optional<LinkPlan.Step> operation() {
      TalkPlan plan = work.plan().talk();
      return operations
          .filter(p -> !p.steps().isEmpty())
          .map(p -> p.steps().get(Math.clamp(operationAt, 0, p.steps().size() - 1)).operation())
          .map(o -> LinkPlan.of(o, plan.links(), facts().stand(plan)));
    }

    /// The script in hand.
    public Optional<Script> script() {
      return scriptAt < 0 ? Optional.empty() : Optional.of(scripts.get(scriptAt));
    }

    /// The pins of the module in hand.
    public Optional<PinMap> pins() {
      return Optional.ofNullable(kept.maps().get(module));
    }
  }

  /// A model for a desk.
  public TalkModel(DeskModel desk) {
    this.desk = desk;
    this.keeping =
        loader(
            desk,
            desk.runner().worker(),
            "scripts and pins",
            k -> {
              kept = k;
              fill();
            });
    this.opening =
        loader(
            desk,
            desk.runner().worker(),
            "what went over the line",
            r -> {
              if (running == null) {
                rows = r;
                fill();
              }
            });
    whenShown(desk, Stage.TALK, this::fill);
  }

  /// What is drawn.
  public ReadOnlyObjectProperty<Shown> shownProperty() {
    return shown.getReadOnlyProperty();
  }

  @Override
  public void show(Snapshot.Work now) {
    boolean other =
        work == null || !work.board().equals(now.board()) || work.build().id() != now.build().id();
    work = now;
    if (other) {
      rows = List.of();
      steps = List.of();
      scrolled = 0;
      operationAt = 0;
    }
    if (!desk.navigation().at(Stage.TALK)) {
      return; // scripts and pins are read when somebody looks
    }
    fill();
  }

  private void load() {
    String d = work.build().design();
    String r = work.build().revision();
    keeping.load(
        d + "\n" + r + "\n" + work.plan().hashCode(),
        desk.reading(w -> kept(w, d, r)));
  }

  private static Kept kept(Workshop w, String d, String r) throws IOException, ActException {
    List<PinTable.Need> needs = w.modules().needs(d, r);
    Map<String, List<PinTable.Offer>> offers = w.modules().all();
    Map<String, PinMap> maps = new LinkedHashMap<>();
    if (!needs.isEmpty()) {
      List<Map.Entry<String, PinMap>> all = new ArrayList<>();
      offers.forEach((n, o) -> all.add(Map.entry(n, PinMap.of(needs, o))));
      all.sort((a, b) -> {
        int c = Integer.compare(a.getValue().unmet().size(), b.getValue().unmet().size());
        return c != 0 ? c : Integer.compare(b.getValue().kept(), a.getValue().kept());
      });
      all.forEach(e -> maps.put(e.getKey(), e.getValue()));
    }
    return new Kept(w.scripts().kept(d, r), needs, maps, offers, w.talks().said(d, r));
  }

  private Optional<Script> script() {
    return kept.scripts().isEmpty()
        ? Optional.empty()
        : Optional.of(kept.scripts().get(Math.clamp(scriptAt, 0, kept.scripts().size() - 1)));
  }

  private void fill() {
    if (work == null) {
      return;
    }
    load();
    TalkFacts facts = TalkFacts.of(work.state());
    Optional<Logged> latest = facts.latest(script().map(Script::name).orElse(""));
    if (latest.isEmpty()) {
      latest = facts.latest("");
    }
    Optional<Entry.Talk> talk =
        running != null ? Optional.empty() : latest.map(l -> (Entry.Talk) l.entry());
    if (running == null) {
      steps = talk.map(Entry.Talk::steps).orElse(List.of());
      if (talk.isPresent()) {
        Entry.Talk t = talk.get();
        opening.load(
            latest.get().number(), desk.reading(w -> Strip.rows(w.recordings().pieces(t))));
      } else {
        rows = List.of();
      }
    }
    Running r = running;
    Optional<ChainOnBoard> chain = chain();
    Optional<ChainSeen> seen = chain.flatMap(c -> seen(c, facts));
    shown.set(
        new Shown(
            work,
            face,
            kept.scripts(),
            kept.scripts().isEmpty() ? -1 : Math.clamp(scriptAt, 0, kept.scripts().size() - 1),
            rows,
            steps,
            scrolled,
            talk,
            r == null ? "" : r.what,
            r == null ? "" : r.step,
            r == null ? "" : r.question,
            r == null ? 0 : r.share,
            r != null && r.terminal != null,
            operations(facts),
            operationAt,
            kept,
            module(),
            chain,
            seen,
            seen.map(s ->
                ChainSuspects.of(chain.get(), s, ChainSuspects.Feed.UNKNOWN, Map.of())),
            ++looks));
    margin(TalkMargin.of(shown.get()));
  }

  private Optional<LinkPlan> operations(TalkFacts facts) {
    var plan = work.plan().talk();
    if (plan.operations().isEmpty()) {
      return Optional.empty();
    }
    var left =
        plan.operations().stream().filter(o -> !facts.done().contains(o.name())).toList();
    return Optional.of(
        LinkPlan.of(
            left.isEmpty() ? plan.operations() : left, plan.links(), facts.stand(plan)));
  }

  private String module() {
    List<String> names = List.copyOf(kept.maps().keySet());
    return names.isEmpty() ? "" : names.get(Math.floorMod(moduleAt, names.size()));
  }

  private Optional<ChainOnBoard> chain() {
    List<ChainOnBoard> all = work.plan().talk().chains();
    return all.isEmpty()
        ? Optional.empty()
        : Optional.of(all.get(Math.floorMod(chainAt, all.size())));
  }

  private static Optional<ChainSeen> seen(ChainOnBoard c, TalkFacts facts) {
    Entry.ChainLook look = facts.chains().get(c.elements().getFirst());
    try {
      return look == null
          ? Optional.empty()
          : Optional.of(ChainSeen.parse(look.seen(), c.elements().size()));
    } catch (IllegalArgumentException e) {
      return Optional.empty(); // the chain has changed since
    }
  }

  /// Turns to the next face.
  void turn() {
    face = face.next();
    fill();
  }

  TalkFace face() {
    return face;
  }

  @Override
  public void move(int by) {
    switch (face) {
      case STRIP -> {
        scriptAt = Math.clamp(scriptAt + by, 0, Math.max(0, kept.scripts().size() - 1));
        scrolled = 0;
      }
      case LINKS ->
          operationAt =
              Math.clamp(
                  operationAt + by,
                  0,
                  Math.max(
                      0,
                      shown.get() == null
                          ? 0
                          : shown.get().operations().map(p -> p.steps().size() - 1).orElse(0)));
      case PINS -> moduleAt += by;
      case CHAIN -> chainAt += by;
    }
    fill();
  }

  @Override
  public void across(int by) {
    if (face != TalkFace.STRIP) {
      move(by);
      return;
    }
    scrolled = Math.clamp(scrolled - 5 * by, 0, Math.max(0, rows.size() - 1));
    fill();
  }

  @Override
  public String primaryWords() {
    if (running != null) {
      return "";
    }
    return switch (face) {
      case STRIP -> script().map(s -> "run " + s.name()).orElse("");
      case LINKS ->
          shown.get() == null || shown.get().operation().filter(s -> !s.ready()).isEmpty()
              ? ""
              : "links and plugs are as " + shown.get().operation().get().operation().name()
                  + " needs them";
      case PINS, CHAIN -> "";
    };
  }

  @Override
  public void primary() {
    if (work == null || running != null) {
      return;
    }
    switch (face) {
      case STRIP -> script().ifPresentOrElse(
          this::run, () -> desk.say("no script is kept: L takes one from a file, T types"));
      case LINKS ->
          shown.get().operation().filter(s -> !s.ready()).ifPresent(s -> desk.log(stands(s)));
      case PINS, CHAIN -> {} // there is nothing to be done by one key
    }
  }

  private static List<Entry> stands(LinkPlan.Step s) {
    List<Entry> all = new ArrayList<>();
    s.changes().forEach(c -> all.add(new Entry.Stands(c.link(), Link.word(c.to()), "")));
    s.plug().forEach(p -> all.add(new Entry.Stands(p, "in", "")));
    s.unplug().forEach(p -> all.add(new Entry.Stands(p, "out", "")));
    return all;
  }

  @Override
  public String faultLine() {
    return face == TalkFace.CHAIN
        ? chain().map(c -> "chain " + c.elements().getFirst() + " ").orElse("")
        : "";
  }

  /// Takes a file: a script, or on the face of pins what firmware needs.
  void take(Path file) {
    if (work == null) {
      return;
    }
    String d = work.build().design();
    String r = work.build().revision();
    boolean pins = face == TalkFace.PINS;
    desk.act(w -> {
      if (pins) {
        desk.say(
            w.modules().keepNeeds(d, r, java.nio.file.Files.readString(file)).size()
                + " signals are kept");
      } else {
        desk.say("the script " + w.scripts().keep(d, r, file).name() + " is kept");
      }
      desk.runner()
          .ui()
          .execute(() -> {
            keeping.forget();
            fill();
          });
    });
  }

  /// What was said of links, operations and lines.
  List<String> said() {
    return kept.said();
  }

  /// What is guessed.
  List<String> told() {
    return work == null ? List.of() : work.plan().talk().told();
  }

  /// Says more, then tells why it could not be said, or nothing.
  void say(String line, java.util.function.Consumer<String> why) {
    if (work == null) {
      return;
    }
    String d = work.build().design();
    String r = work.build().revision();
    desk.act(w -> {
      String wrong = "";
      try {
        w.talks().say(d, r, List.of(line));
      } catch (ActException e) {
        wrong = e.getMessage();
      }
      String told = wrong;
      desk.runner()
          .ui()
          .execute(() -> {
            keeping.forget();
            why.accept(told);
          });
    });
  }

  private LineAddress address() {
    String own = desk.bench().addresses().get("line");
    return new LineAddress(own == null ? "sim" : own);
  }

  private TalkBench bench(Workshop w, Plan plan, String board, int baud)
      throws IOException, ActException {
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

  private void run(Script s) {
    Running mine = begin(s.name());
    String d = work.build().design();
    String r = work.build().revision();
    Plan plan = work.plan();
    String board = mine.board;
    desk.ask(w ->
        desk.runner()
            .aside()
            .execute(() -> {
              String says;
              try (TalkBench bench = checked(w, s, plan, board)) {
                TalkRun run =
                    new TalkRun(
                        w.talks(), w.recordings(), w.acts(), plan, board, new Watching(mine));
                mine.run = run;
                if (mine.stopped) {
                  run.stop();
                }
                TalkRun.Done done =
                    run.run(
                        w.scripts().kept(d, r, s.name()),
                        address(),
                        bench::open,
                        bench.notes());
                says = "logged to " + board + ": " + EntryWords.of(done.talk());
              } catch (IOException | ActException | RuntimeException e) {
                says = e.getMessage() == null ? e.toString() : e.getMessage();
              }
              ended(mine, says);
            }));
  }

  private TalkBench checked(Workshop w, Script s, Plan plan, String board)
      throws IOException, ActException {
    var no = TalkRun.refusal(w.acts(), board, s);
    if (no.isPresent()) {
      throw new ActException(no.get().text());
    }
    return bench(w, plan, board, s.baud());
  }

  private Running begin(String what) {
    Running mine = new Running(work.board(), what);
    running = mine;
    rows = List.of();
    steps = List.of();
    scrolled = 0;
    fill();
    return mine;
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
          desk.act(_ -> {});
        });
  }

  /// Opens the line to type over it; nothing is sent but what is typed.
  void open() {
    if (work == null || running != null) {
      return;
    }
    face = TalkFace.STRIP;
    Running mine = begin("by hand");
    Plan plan = work.plan();
    String board = mine.board;
    desk.ask(w ->
        desk.runner()
            .aside()
            .execute(() -> {
              String says;
              try (TalkBench bench = bench(w, plan, board, 0);
                  Terminal t =
                      new Terminal(
                          w.recordings(),
                          w.acts(),
                          board,
                          address(),
                          bench::open,
                          new Terminal.Watcher() {
                            @Override
                            public void heard(String text) {
                              later(mine, () -> add('<', text));
                            }

                            @Override
                            public void line(boolean there, String words) {
                              later(
                                  mine,
                                  () -> add('!', there ? "found again" : "lost: " + words));
                            }
                          })) {
                later(mine, () -> mine.terminal = t);
                while (!mine.stopped) {
                  Thread.sleep(50);
                }
                says = "logged to " + board + ": " + EntryWords.of(t.end().entry());
              } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                says = "the line is closed";
              } catch (IOException | ActException | RuntimeException e) {
                says = e.getMessage() == null ? e.toString() : e.getMessage();
              }
              ended(mine, says);
            }));
  }

  /// Sends a line that was typed.
  void type(String text) {
    Running r = running;
    if (r == null || r.terminal == null) {
      return;
    }
    try {
      r.terminal.send(text + "\r");
      add('>', text);
      fill();
    } catch (BenchException e) {
      desk.say(e.getMessage());
    }
  }

  /// Whether a question waits for an answer.
  boolean asks() {
    Running r = running;
    return r != null && !r.question.isEmpty();
  }

  /// It is so.
  void yes() {
    Running r = running;
    if (asks()) {
      r.question = "";
      r.answers.offer("yes");
      fill();
    }
  }

  /// Whether the line is open.
  boolean runs() {
    return running != null;
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

  private void add(char kind, String text) {
    List<Strip.Row> all = new ArrayList<>(rows);
    double now = running == null || running.terminal == null ? 0 : running.terminal.seconds();
    for (String l : text.split("[\\r\\n]+")) {
      if (!l.isBlank()) {
        all.add(new Strip.Row(kind, now, l));
      }
    }
    rows = all.size() > MOST_ROWS ? all.subList(all.size() - MOST_ROWS, all.size()) : all;
  }

  private void later(Running mine, Runnable what) {
    desk.runner()
        .ui()
        .execute(() -> {
          if (running == mine) {
            what.run();
            fill();
          }
        });
  }

  /// A script that runs, as it is seen.
  private final class Watching implements TalkRun.Watcher {
    private final Running mine;
    private final long began = System.nanoTime();

    Watching(Running mine) {
      this.mine = mine;
    }

    private void row(char kind, String text) {
      double at = (System.nanoTime() - began) * 1e-9;
      List<Strip.Row> more =
          Strip.rows(
              List.of(new Strip.Piece(kind, at, text.getBytes(StandardCharsets.UTF_8))));
      later(
          mine,
          () -> {
            List<Strip.Row> all = new ArrayList<>(rows);
            all.addAll(more);
            rows = all;
          });
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
          String answer = mine.answers.poll(100, TimeUnit.MILLISECONDS);
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
      row('>', text);
    }

    @Override
    public void hears(String text) {
      row('<', text);
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

  /// Of a step: whether it did what was expected.
  static boolean good(Entry.Talk.Step s) {
    return s.verdict() == Verdict.WITHIN;
  }
}
