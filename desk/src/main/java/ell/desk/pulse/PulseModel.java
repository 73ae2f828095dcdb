package ell.desk.pulse;

import ell.bench.link.BenchException;
import ell.core.entry.Entry;
import ell.core.entry.EntryWords;
import ell.core.entry.Logged;
import ell.core.power.PowerFacts;
import ell.core.pulse.EdgeMarks;
import ell.core.pulse.PulseFacts;
import ell.core.pulse.PulsePlan;
import ell.core.pulse.Wanted;
import ell.core.pulse.Wave;
import ell.core.rack.Stage;
import ell.core.series.Series;
import ell.core.series.Thinning;
import ell.desk.shell.DeskModel;
import ell.desk.shell.Loader;
import ell.desk.shell.Margin;
import ell.desk.shell.Snapshot;
import ell.desk.shell.StageModel;
import ell.files.series.CaptureStore;
import ell.work.pulse.Captures;
import ell.work.pulse.ScopeRun;
import ell.work.space.ActException;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;

/// The lines of one board: the place in hand, its latest capture, what should be there.
public final class PulseModel extends StageModel {
  private static final double STEP = 0.01;

  private final DeskModel desk;
  private final ReadOnlyObjectWrapper<Shown> shown = new ReadOnlyObjectWrapper<>(this, "shown");
  private final Loader<Opened> opening;
  private final Loader<Map<String, Entry.Capture>> comparing;
  private final PulseView.Window window = new PulseView.Window();
  private Snapshot.Work work;
  private Opened opened = Opened.NONE;
  private Map<String, Entry.Capture> others = Map.of();
  private List<String> places = List.of();
  private String place = "";
  private boolean every;
  private boolean lined;
  private final LineFace line;
  private boolean taking;
  private boolean measuring;
  private volatile Reading reading;

  /// A capture that was opened.
  ///
  /// @param entry number that it belongs to, 0 for none
  record Opened(long entry, Optional<Series> series, EdgeMarks marks) {
    static final Opened NONE = new Opened(0, Optional.empty(), EdgeMarks.NONE);
  }

  /// A large file that is being read.
  ///
  /// @param share of its bytes, 0...1
  /// @param soFar the first channel as far as it was read; null before that
  public static final class Reading {
    private final Path file;
    private volatile boolean stopped;
    private double share;
    private Series soFar;

    Reading(Path file) {
      this.file = file;
    }

    /// The share of its bytes that was read, 0...1.
    public double share() {
      return share;
    }

    /// What was read, empty before the first look.
    public Optional<Series> soFar() {
      return Optional.ofNullable(soFar);
    }

    /// The name of the file, cut in its middle where it is long.
    public String name() {
      String name = file.getFileName().toString();
      return name.length() > LONGEST_NAME
          ? name.substring(0, LONGEST_NAME / 2)
              + "…"
              + name.substring(name.length() - LONGEST_NAME / 2)
          : name;
    }

    private static final int LONGEST_NAME = 40;
  }

  /// What is drawn.
  ///
  /// @param places that can be turned to
  /// @param wanted what should be at the place in hand, empty when there are no places
  /// @param capture the latest of the place
  /// @param series the whole of it, once it is opened
  /// @param others the place on other boards, by serial, while every board is shown
  /// @param every whether every board is shown
  /// @param lined whether the net is shown as a line
  /// @param line that net, once it is worked out
  /// @param tap the place on it that is in hand
  /// @param reading a large file that is being read
  /// @param look counts what was seen of it, so that no two are the same
  /// @param taking whether the scope is at it
  /// @param measuring whether a file is being measured
  public record Shown(
      Snapshot.Work work,
      List<String> places,
      int at,
      Optional<Wanted> wanted,
      Optional<Logged> capture,
      Optional<Series> series,
      EdgeMarks marks,
      Map<String, Entry.Capture> others,
      boolean every,
      boolean lined,
      Optional<LineFace.Shown> line,
      int tap,
      Optional<Reading> reading,
      long look,
      boolean taking,
      boolean measuring) {
    /// The capture itself.
    public Optional<Entry.Capture> entry() {
      return capture.map(l -> (Entry.Capture) l.entry());
    }
  }

  /// A model for a desk.
  public PulseModel(DeskModel desk) {
    this.desk = desk;
    this.opening =
        loader(
            desk,
            desk.runner().worker(),
            "the capture",
            o -> {
              opened = o;
              fill();
            });
    this.comparing =
        loader(
            desk,
            desk.runner().worker(),
            "the place on every board",
            m -> {
              others = m;
              fill();
            });
    this.line =
        new LineFace(
            desk, shows -> loader(desk, desk.runner().worker(), "the line", shows), this::fill);
    whenShown(desk, Stage.PULSE, this::open);
  }

  /// What is drawn; null before a board is in hand.
  public ReadOnlyObjectProperty<Shown> shownProperty() {
    return shown.getReadOnlyProperty();
  }

  /// The stretch of time that is looked at, and the cursors in it.
  PulseView.Window window() {
    return window;
  }

  @Override
  public void show(Snapshot.Work w) {
    work = w;
    Set<String> all = new LinkedHashSet<>();
    PulsePlan plan = w.plan().pulse();
    plan.places().forEach(p -> all.add(p.place()));
    all.addAll(PulseFacts.of(w.state()).latest().keySet());
    places = List.copyOf(all);
    if (!places.contains(place)) {
      place = places.isEmpty() ? "" : places.getFirst();
    }
    open();
    fill();
  }

  private Optional<Logged> capture() {
    return work == null
        ? Optional.empty()
        : Optional.ofNullable(PulseFacts.of(work.state()).latest().get(place));
  }

  /// Opens the capture of the place in hand, when somebody looks.
  private void open() {
    if (work == null || !desk.navigation().at(Stage.PULSE)) {
      return;
    }
    Optional<Logged> c = capture();
    if (c.isPresent() && c.get().number() != opened.entry()) {
      long number = c.get().number();
      Entry.Capture entry = (Entry.Capture) c.get().entry();
      Optional<Wanted> wanted = wanted();
      opening.load(
          number,
          desk.reading(w -> {
            Optional<Series> s = w.captures().open(entry);
            return new Opened(
                number,
                s,
                s.map(x -> EdgeMarks.of(x, Wave.of(x), wanted.flatMap(Wanted::thresholds)))
                    .orElse(EdgeMarks.NONE));
          }));
    }
    if (lined && !place.isEmpty()) {
      line.show(work, place);
    }
    if (every) {
      String at = place;
      List<String> boards = work.build().boards();
      comparing.load(
          List.of(at, boards, work.moment()),
          desk.reading(w -> {
            Map<String, Entry.Capture> all = new LinkedHashMap<>();
            for (String b : boards) {
              PulseFacts.of(w.state(b)).at(at).ifPresent(c2 -> all.put(b, c2));
            }
            return all;
          }));
    }
  }

  private Optional<Wanted> wanted() {
    if (work == null || place.isEmpty()) {
      return Optional.empty();
    }
    try {
      return Optional.of(work.plan().pulse().at(place));
    } catch (IllegalArgumentException e) {
      return Optional.empty(); // the revision has no such place any more
    }
  }

  private void fill() {
    if (work == null) {
      return;
    }
    Optional<Logged> c = capture();
    boolean open = c.isPresent() && c.get().number() == opened.entry();
    Shown s =
        new Shown(
            work,
            places,
            places.indexOf(place),
            wanted(),
            c,
            open ? opened.series() : Optional.empty(),
            open ? opened.marks() : EdgeMarks.NONE,
            every ? others : Map.of(),
            every,
            lined,
            lined ? Optional.ofNullable(line.shown()) : Optional.empty(),
            line.tap(),
            Optional.ofNullable(reading),
            looks++,
            taking,
            measuring);
    c.ifPresent(l -> window.over(l.number(), ((Entry.Capture) l.entry()).outline()));
    shown.set(s);
    margin(
        s.wanted().isEmpty()
            ? Margin.EMPTY
            : lined ? LineMargin.say(line, work.plan().pulse()) : PulseMargin.say(s, window));
  }

  @Override
  public String primaryWords() {
    return place.isEmpty() || taking || lined ? "" : "capture";
  }

  @Override
  public void primary() {
    if (work == null || place.isEmpty() || taking || lined) {
      return;
    }
    String serial = work.board();
    String at = place;
    PulsePlan plan = work.plan().pulse();
    taking = true;
    fill();
    desk.act(w -> {
      try (ScopeRun run = new ScopeRun(w.captures(), plan, serial, desk.bench().open(w))) {
        boolean off = !PowerFacts.of(w.state(serial)).mayBeOn();
        Logged l = run.keep(at, ScopeRun.Look.FOUND);
        desk.say(
            "logged to "
                + serial
                + ": "
                + EntryWords.of(l.entry())
                + (off ? "; the book has the supply off: first power is on F7" : ""));
      } catch (BenchException e) {
        throw new ActException(e.getMessage() + "; a file can be taken instead: L", e);
      } finally {
        desk.runner()
            .ui()
            .execute(() -> {
              taking = false;
              fill();
            });
      }
    });
  }

  private long looks;

  /// Keeps a file as the capture of the place in hand; a large one is read first, and can be
  /// stopped.
  void take(Path file) {
    if (work == null || place.isEmpty()) {
      desk.say("say first what should be seen where: W");
      return;
    }
    if (reading != null) {
      desk.say(reading.name() + " is still being read: X stops it");
      return;
    }
    Belongs to = new Belongs(work.board(), place, work.plan().pulse());
    desk.ask(w -> {
      if (Files.isRegularFile(file) && Files.size(file) > Captures.MOST_KEPT) {
        Path beside = w.captures().beside();
        desk.runner().ui().execute(() -> readLarge(file, beside, to));
      } else {
        desk.runner().ui().execute(() -> keep(file, to));
      }
    });
  }

  private void readLarge(Path file, Path beside, Belongs to) {
    Reading mine = new Reading(file);
    reading = mine;
    fill();
    desk.runner()
        .aside()
        .execute(() -> {
          String why = "";
          boolean whole = false;
          try {
            whole =
                !CaptureStore.of(file, beside)
                    .read((bytes, of, soFar) -> seen(mine, bytes, of, soFar), () -> mine.stopped)
                    .isEmpty();
          } catch (IOException e) {
            why = e.getMessage();
          }
          String problem = why;
          boolean all = whole;
          desk.runner()
              .ui()
              .execute(() -> {
                reading = null;
                if (all) {
                  keep(file, to); // what was read lies there
                } else {
                  desk.say(
                      problem.isEmpty()
                          ? mine.name() + " was stopped; taken again it goes on from there"
                          : mine.name() + ": " + problem);
                }
                fill();
              });
        });
  }

  private void seen(Reading mine, long bytes, long of, List<Series> soFar) {
    long now = System.nanoTime();
    if (now - lastLook < LOOK_NANOS) {
      return;
    }
    lastLook = now;
    // the picture is worked out here: nobody may look into what still grows
    Series s = soFar.getFirst();
    int[] kept = Thinning.of(s, s.second(0), s.second(s.size() - 1), LOOK_COLUMNS);
    double[] t = new double[kept.length];
    double[] v = new double[kept.length];
    for (int i = 0; i < kept.length; i++) {
      t[i] = s.second(kept[i]);
      v[i] = s.value(kept[i]);
    }
    Series picture = new Series(s.name(), t, v);
    desk.runner()
        .ui()
        .execute(() -> {
          if (reading == mine) {
            mine.share = (double) bytes / of;
            mine.soFar = picture;
            fill();
          }
        });
  }

  private long lastLook;
  private static final long LOOK_NANOS = 150_000_000;
  private static final int LOOK_COLUMNS = 1600;

  /// Stops reading a large file; what was read stays, and is gone on with.
  void stopReading() {
    if (reading != null) {
      reading.stopped = true;
    }
  }

  /// Whether a large file is being read.
  boolean reads() {
    return reading != null;
  }

  /// What a capture belongs to: what was in hand when it was asked for, whatever is by now.
  private record Belongs(String board, String place, PulsePlan plan) {}

  private void keep(Path file, Belongs to) {
    measuring = true;
    fill();
    desk.act(w -> {
      try {
        List<String> warned = new ArrayList<>();
        Logged l =
            w.captures()
                .keep(to.plan(), to.board(), to.place(), file, Optional.empty(), 0, warned::add);
        desk.say(
            "logged to "
                + to.board()
                + ": "
                + EntryWords.of(l.entry())
                + (warned.isEmpty() ? "" : "; " + warned.getFirst()));
      } finally {
        desk.runner()
            .ui()
            .execute(() -> {
              measuring = false;
              fill();
            });
      }
    });
  }

  /// Keeps what is said of the revision's lines.
  ///
  /// @param wrong takes what is wrong with it, or nothing when it is kept; on the interface thread
  void say(String line, Consumer<String> wrong) {
    desk.act(w -> {
      try {
        w.pulses().say(work.build().design(), work.build().revision(), List.of(line));
        if (!PowerFacts.of(w.state(work.board())).mayBeOn()) {
          desk.bench().renew(); // its boards carry the signals that are wanted
        }
        desk.say("kept: " + line);
        desk.runner().ui().execute(() -> wrong.accept(""));
      } catch (ActException e) {
        desk.runner().ui().execute(() -> wrong.accept(e.getMessage()));
      }
    });
  }

  /// What was said and what is guessed, a line each.
  List<String> said() {
    List<String> all = new ArrayList<>();
    if (work != null) {
      for (Wanted w : work.plan().pulse().places()) {
        all.add(PulseMargin.words(w));
      }
      work.plan().pulse().signatures().forEach(s -> all.add(s.words()));
    }
    return all;
  }

  /// Names of the logic families.
  List<String> families() {
    return work == null
        ? List.of()
        : work.plan().pulse().families().stream().map(f -> f.name()).distinct().toList();
  }

  /// The place in hand, empty when there is none.
  String placeInHand() {
    return place;
  }

  /// Turns from the board in hand to every board, and back.
  void turn() {
    every = !every;
    lined = false;
    open();
    fill();
  }

  /// Turns from the capture to the net as a line, and back.
  void turnLine() {
    lined = !lined;
    every = false;
    open();
    fill();
  }

  /// The net as a line.
  LineFace line() {
    return line;
  }

  /// Moves the other cursor from now on.
  void otherCursor() {
    window.other();
    fill();
  }

  /// Zooms in time about the cursor.
  void zoom(double factor) {
    window.zoom(factor);
    fill();
  }

  @Override
  public void move(int by) {
    if (lined && line.shown() != null && line.shown().line().isPresent()) {
      line.place(by);
      fill();
      return;
    }
    if (!places.isEmpty()) {
      int at = Math.clamp((long) places.indexOf(place) + by, 0, places.size() - 1);
      place = places.get(at);
      open();
      fill();
    }
  }

  /// The cursor in hand goes along.
  @Override
  public void across(int by) {
    if (lined) {
      line.slide(by, work.plan().pulse());
      return;
    }
    window.move(by * STEP);
    fill();
  }

  @Override
  public String readingLine() {
    return place.isEmpty() ? "" : place + " clock ";
  }

  @Override
  public String faultLine() {
    return place.isEmpty() ? "" : place + " ";
  }
}
