package ell.desk.talk;

import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.quantity.Verdict;
import ell.core.rack.Stage;
import ell.core.talk.ChainOnBoard;
import ell.core.talk.ChainSeen;
import ell.core.talk.ChainSuspects;
import ell.core.talk.Link;
import ell.core.talk.LinkPlan;
import ell.core.talk.Operation;
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
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;

/// One board and what it says: the script in hand, its strip, links and operations, pins, chains.
public final class TalkModel extends StageModel {
  private final DeskModel desk;
  private final ReadOnlyObjectWrapper<Shown> shown = new ReadOnlyObjectWrapper<>(this, "shown");
  private final OpenTalk open;
  private final Loader<Kept> keeping;
  private final Loader<Worked> working;
  private final Loader<Opened> opening;
  private Snapshot.Work work;
  private TalkFace face = TalkFace.STRIP;
  private Kept kept = Kept.NONE;
  private Worked worked = Worked.NONE;
  private Opened opened = new Opened(-1, List.of());
  private int scriptAt;
  private int operationAt;
  private int moduleAt;
  private int chainAt;
  private int scrolled;
  private long looks;

  /// A strip that was read.
  ///
  /// @param entry number that it belongs to
  private record Opened(long entry, List<Strip.Row> rows) {}

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

  /// What takes a while to work out.
  ///
  /// @param moment of the look that it belongs to
  /// @param operations in the order that heats least, what was done left out
  /// @param suspects of the chain in hand
  record Worked(
      long moment,
      Optional<LinkPlan> operations,
      Optional<ChainSeen> seen,
      Optional<ChainSuspects> suspects) {
    static final Worked NONE = new Worked(-1, Optional.empty(), Optional.empty(), Optional.empty());
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
      int operationAt,
      Kept kept,
      Worked worked,
      String module,
      Optional<ChainOnBoard> chain,
      long look) {
    /// What is known of the board.
    public TalkFacts facts() {
      return TalkFacts.of(work.state());
    }

    /// Operations in the order that heats least.
    public Optional<LinkPlan> operations() {
      return worked.operations();
    }

    /// The operation in hand, and what it needs as everything stands now.
    public Optional<LinkPlan.Step> operation() {
      TalkPlan plan = work.plan().talk();
      return worked
          .operations()
          .filter(p -> !p.steps().isEmpty())
          .map(p -> p.steps().get(Math.clamp(operationAt, 0, p.steps().size() - 1)).operation())
          .filter(o -> plan.operation(o.name()).filter(o::equals).isPresent())
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

    /// What was seen of the chain in hand.
    public Optional<ChainSeen> seen() {
      return worked.seen();
    }

    /// What explains it.
    public Optional<ChainSuspects> suspects() {
      return worked.suspects();
    }
  }

  /// A model for a desk.
  public TalkModel(DeskModel desk) {
    this.desk = desk;
    this.open = new OpenTalk(desk, this::fill);
    this.keeping =
        loader(
            desk,
            desk.runner().worker(),
            "scripts and pins",
            k -> {
              kept = k;
              fill();
            });
    this.working =
        loader(
            desk,
            desk.runner().aside(),
            "links and chains",
            w -> {
              worked = w;
              fill();
            });
    this.opening =
        loader(
            desk,
            desk.runner().worker(),
            "what went over the line",
            o -> {
              opened = o;
              fill();
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
      worked = Worked.NONE;
      scrolled = 0;
      operationAt = 0;
    }
    fill();
  }

  /// Asks for what is kept and what has to be worked out; the answers fill again.
  private void load(Optional<Logged> latest) {
    String d = work.build().design();
    String r = work.build().revision();
    keeping.load(
        d + "\n" + r + "\n" + System.identityHashCode(work.plan()),
        desk.reading(w -> kept(w, d, r)));
    Snapshot.Work now = work;
    Optional<ChainOnBoard> chain = chain();
    working.load(now.moment() + " " + chainAt, _ -> worked(now, chain));
    latest.ifPresent(l ->
        opening.load(
            l.number(),
            desk.reading(w ->
                new Opened(
                    l.number(), Strip.rows(w.recordings().pieces((Entry.Talk) l.entry()))))));
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

  private static Worked worked(Snapshot.Work now, Optional<ChainOnBoard> chain) {
    TalkPlan plan = now.plan().talk();
    TalkFacts facts = TalkFacts.of(now.state());
    Optional<LinkPlan> operations = Optional.empty();
    if (!plan.operations().isEmpty()) {
      List<Operation> left =
          plan.operations().stream().filter(o -> !facts.done().contains(o.name())).toList();
      operations =
          Optional.of(
              LinkPlan.of(
                  left.isEmpty() ? plan.operations() : left, plan.links(), facts.stand(plan)));
    }
    Optional<ChainSeen> seen = chain.flatMap(c -> seen(c, facts));
    return new Worked(
        now.moment(),
        operations,
        seen,
        seen.map(s -> ChainSuspects.of(chain.get(), s, ChainSuspects.Feed.UNKNOWN, Map.of())));
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

  private Optional<Script> script() {
    return kept.scripts().isEmpty()
        ? Optional.empty()
        : Optional.of(kept.scripts().get(Math.clamp(scriptAt, 0, kept.scripts().size() - 1)));
  }

  private void fill() {
    if (work == null || !desk.navigation().at(Stage.TALK)) {
      return; // scripts and pins are read when somebody looks
    }
    TalkFacts facts = TalkFacts.of(work.state());
    Optional<Logged> latest = facts.latest(script().map(Script::name).orElse(""));
    if (latest.isEmpty()) {
      latest = facts.latest("");
    }
    // what was done by hand left nothing to show
    latest = latest.filter(l -> !open.runs() && !((Entry.Talk) l.entry()).line().isEmpty());
    load(latest);
    Optional<Entry.Talk> talk = latest.map(l -> (Entry.Talk) l.entry());
    shown.set(
        new Shown(
            work,
            face,
            kept.scripts(),
            kept.scripts().isEmpty() ? -1 : Math.clamp(scriptAt, 0, kept.scripts().size() - 1),
            rows(latest),
            open.runs() ? open.steps() : talk.map(Entry.Talk::steps).orElse(List.of()),
            scrolled,
            talk,
            open.what(),
            open.step(),
            open.question(),
            open.share(),
            open.typing(),
            operationAt,
            kept,
            worked,
            module(),
            chain(),
            ++looks));
    margin(TalkMargin.of(shown.get()));
  }

  private List<Strip.Row> rows(Optional<Logged> latest) {
    if (open.runs()) {
      return open.rows();
    }
    return latest.filter(l -> l.number() == opened.entry()).isPresent() ? opened.rows() : List.of();
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

  /// Turns to the next face.
  void turn() {
    face = face.next();
    fill();
  }

  @Override
  public void move(int by) {
    switch (face) {
      case STRIP -> {
        scriptAt = Math.clamp(scriptAt + by, 0, Math.max(0, kept.scripts().size() - 1));
        scrolled = 0;
      }
      case LINKS -> {
        int last = worked.operations().map(p -> p.steps().size() - 1).orElse(0);
        operationAt = Math.clamp(operationAt + by, 0, Math.max(0, last));
      }
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
    int most = shown.get() == null ? 0 : Math.max(0, shown.get().rows().size() - 1);
    scrolled = Math.clamp(scrolled - 5 * by, 0, most);
    fill();
  }

  @Override
  public String primaryWords() {
    Shown s = shown.get();
    if (open.runs() || s == null) {
      return "";
    }
    return switch (face) {
      case STRIP -> script().map(x -> "run " + x.name()).orElse("");
      case LINKS ->
          s.operation()
              .filter(o -> !o.ready())
              .map(o -> "links and plugs are as " + o.operation().name() + " needs them")
              .orElse("");
      case PINS, CHAIN -> "";
    };
  }

  @Override
  public void primary() {
    if (work == null || open.runs() || shown.get() == null) {
      return;
    }
    switch (face) {
      case STRIP -> {
        scrolled = 0;
        script()
            .ifPresentOrElse(
                s -> open.run(work.plan(), work.board(), s),
                () -> desk.say("no script is kept: L takes one from a file, T types"));
      }
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
    return face == TalkFace.CHAIN && work != null
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
        List<String> unused = new ArrayList<>();
        int n = w.modules().keepNeeds(d, r, file, unused::add).size();
        desk.say(
            n
                + (n == 1 ? " signal is kept" : " signals are kept")
                + (unused.isEmpty() ? "" : "; " + String.join("; ", unused)));
      } else {
        desk.say("the script " + w.scripts().keep(d, r, file).name() + " is kept");
      }
      again();
    });
  }

  private void again() {
    desk.runner()
        .ui()
        .execute(() -> {
          keeping.forget();
          fill();
        });
  }

  /// The changes of the code for the module in hand, while pins are shown.
  List<String> changes() {
    return face == TalkFace.PINS && shown.get() != null
        ? shown.get().pins().map(PinMap::changes).orElse(List.of())
        : List.of();
  }

  /// They were copied.
  void copied() {
    int n = changes().size();
    desk.say(n + (n == 1 ? " line is copied" : " lines are copied"));
  }

  /// What was said of links, operations and lines.
  List<String> said() {
    return kept.said();
  }

  /// Says more, then tells why it could not be said, or nothing.
  void say(String line, Consumer<String> why) {
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
      again();
      desk.runner().ui().execute(() -> why.accept(told));
    });
  }

  /// Opens the line to type over it; nothing is sent but what is typed.
  void open() {
    if (work != null && !runs()) {
      face = TalkFace.STRIP;
      scrolled = 0;
      open.open(work.plan(), work.board());
    }
  }

  /// Sends a line that was typed.
  void type(String text) {
    open.type(text);
  }

  /// It is so.
  void yes() {
    open.yes();
  }

  /// Whether a question waits for an answer.
  boolean asks() {
    return !open.question().isEmpty();
  }

  /// Whether the line is open.
  boolean runs() {
    return open.runs();
  }

  /// Closes the line.
  void stop() {
    open.stop();
  }

  /// Closes the line and waits until what was said is in the book.
  void close() throws InterruptedException {
    open.close();
  }

  /// Of a step: whether it did what was expected.
  static boolean good(Entry.Talk.Step s) {
    return s.verdict() == Verdict.WITHIN;
  }
}
