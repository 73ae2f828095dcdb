package ell.desk.trace;

import ell.bench.link.BenchException;
import ell.core.entry.EntryWords;
import ell.core.entry.Logged;
import ell.core.trace.Choice;
import ell.core.trace.Outcomes;
import ell.core.trace.Probe;
import ell.core.trace.Suspect;
import ell.core.trace.TraceFacts;
import ell.core.trace.TraceSheets;
import ell.core.trace.Traced;
import ell.desk.shell.DeskModel;
import ell.desk.shell.Loader;
import ell.desk.shell.Margin;
import ell.desk.shell.Snapshot;
import ell.desk.shell.StageModel;
import ell.work.space.ActException;
import ell.work.trace.TraceRun;
import java.io.IOException;
import java.util.List;
import java.util.Optional;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.ReadOnlyBooleanWrapper;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;

/// Where the fault of a board may be, and the measurement in hand: the best one, or one that the
/// maker turned to. It is worked out aside whenever the book has changed.
public final class TraceModel extends StageModel {
  private static final int MANY = 40;

  private final DeskModel desk;
  private final Loader<Answer> tracing;
  private final ReadOnlyObjectWrapper<Shown> shown = new ReadOnlyObjectWrapper<>(this, "shown");
  private final ReadOnlyBooleanWrapper busy = new ReadOnlyBooleanWrapper(this, "busy");
  private Snapshot.Work work;
  private int at;
  private int suspect = -1;

  /// What is drawn.
  ///
  /// @param traced as it was worked out last for this board
  /// @param at the measurement in hand, among those that are proposed; -1 when there is none
  /// @param suspect the group of suspects that is turned to; -1 for none
  public record Shown(Snapshot.Work work, Traced traced, int at, int suspect) {
    /// The measurement in hand.
    public Optional<Choice> choice() {
      return at < 0 ? Optional.empty() : Optional.of(traced.next().get(at));
    }
  }

  private record Answer(Snapshot.Work work, Traced traced) {}

  /// A model for a desk.
  public TraceModel(DeskModel desk) {
    this.desk = desk;
    tracing =
        loader(
            desk,
            desk.runner().aside(),
            "where the fault may be",
            a -> {
              boolean same =
                  shown.get() != null && shown.get().work().board().equals(a.work().board());
              at = 0;
              suspect = same ? Math.min(suspect, a.traced().groups().size() - 1) : -1;
              fill(a.work(), a.traced());
            });
    busy.bind(
        javafx.beans.binding.Bindings.createBooleanBinding(tracing::busy, tracing.stateProperty()));
    whenShown(desk, ell.core.rack.Stage.TRACE, this::ask);
  }

  /// What is drawn; null before anything was worked out.
  public ReadOnlyObjectProperty<Shown> shownProperty() {
    return shown.getReadOnlyProperty();
  }

  /// Whether it is being worked out.
  public ReadOnlyBooleanProperty busyProperty() {
    return busy.getReadOnlyProperty();
  }

  @Override
  public void show(Snapshot.Work w) {
    if (work != null && !work.board().equals(w.board())) {
      shown.set(null);
      suspect = -1;
      margin(Margin.EMPTY);
    }
    work = w;
    ask();
  }

  /// Asks anew, once somebody looks; what takes a while is not worked out for nobody.
  private void ask() {
    if (work == null || !desk.navigation().at(ell.core.rack.Stage.TRACE)) {
      return;
    }
    Snapshot.Work w = work;
    tracing.load(
        List.of(w.board(), w.log().size(), w.standings(), System.identityHashCode(w.plan())),
        cancelled ->
            new Answer(
                w, desk.<Traced>reading(x -> x.traces().of(w.board(), MANY)).get(cancelled)));
  }

  private void fill(Snapshot.Work w, Traced t) {
    Shown s = new Shown(w, t, t.next().isEmpty() ? -1 : Math.min(at, t.next().size() - 1), suspect);
    shown.set(s);
    margin(TraceMargin.say(s));
  }

  private void again() {
    Shown s = shown.get();
    if (s != null) {
      fill(s.work(), s.traced());
    }
  }

  @Override
  public void move(int by) {
    Shown s = shown.get();
    if (s != null && !s.traced().next().isEmpty()) {
      suspect = -1;
      at = Math.clamp(s.at() + by, 0, s.traced().next().size() - 1);
      again();
    }
  }

  /// Turns to a suspect, so that the margin shows what made its chance.
  @Override
  public void across(int by) {
    Shown s = shown.get();
    if (s != null) {
      suspect = Math.clamp(suspect + by, -1, Math.min(s.traced().groups().size(), LISTED) - 1);
      again();
    }
  }

  /// So many suspects are listed.
  static final int LISTED = 12;

  @Override
  public String primaryWords() {
    Shown s = shown.get();
    Optional<Choice> c = s == null ? Optional.empty() : s.choice();
    return c.isEmpty() ? "" : TraceRun.can(c.get().probe()) ? "measure it" : "type what you see";
  }

  /// Measures with the instruments what they show; what is seen, felt or tried is typed.
  @Override
  public void primary() {
    Shown s = shown.get();
    if (s == null || s.choice().isEmpty()) {
      return;
    }
    Probe p = s.choice().get().probe();
    if (!TraceRun.can(p)) {
      desk.tape().begin(line(p));
      return;
    }
    String serial = s.work().board();
    desk.act(w -> {
      try {
        List<Logged> all =
            new TraceRun(w.acts(), w.plan(w.buildOf(serial)), serial, desk.bench().open(w))
                .measure(p, s.traced().next().stream().map(Choice::probe).toList());
        if (!all.isEmpty()) {
          desk.say("logged to " + serial + ": " + EntryWords.of(all.getLast().entry()));
        }
      } catch (BenchException e) {
        throw new ActException(e.getMessage() + "; a reading can be typed instead", e);
      }
    });
  }

  /// Logs one of the words that the measurement in hand may show, counted from 1; nothing where it
  /// shows a number.
  public void answer(int which) {
    Shown s = shown.get();
    if (s == null || s.choice().isEmpty()) {
      return;
    }
    List<String> words = Outcomes.words(s.choice().get());
    if (which > words.size()) {
      return;
    }
    String line = s.choice().get().probe().line(words.get(which - 1));
    String serial = s.work().board();
    desk.act(w -> {
      Logged l = w.type(serial, line).orThrow().getLast();
      desk.say("logged to " + serial + ": " + EntryWords.of(l.entry()));
    });
  }

  /// Whether a finding can be logged: there is one, and the book does not have it as the last.
  public boolean canFind() {
    Shown s = shown.get();
    return s != null
        && s.traced().finding().isPresent()
        && TraceFacts.of(s.work().state())
            .last()
            .filter(f -> f.fault().equals(s.traced().finding().get().suspect().words()))
            .isEmpty();
  }

  /// Logs the finding.
  public void find() {
    Shown s = shown.get();
    if (canFind()) {
      String serial = s.work().board();
      desk.act(w -> found(w, serial));
    }
  }

  private void found(ell.work.Workshop w, String serial) throws IOException, ActException {
    Logged l = w.traces().find(serial, Optional.empty()).orThrow().getLast();
    desk.say("logged to " + serial + ": " + EntryWords.of(l.entry()));
  }

  /// The suspect that is turned to, if it is one fault.
  static Optional<Suspect> turnedTo(Shown s) {
    return s.suspect() < 0
        ? Optional.empty()
        : s.traced().groups().get(s.suspect()).members().getFirst().suspects().stream().findFirst();
  }

  /// The worked sheet of what is selected.
  static ell.core.sheet.Worked sheet(Shown s, Choice c) {
    return turnedTo(s).map(TraceSheets::prior).orElseGet(() -> TraceSheets.information(c));
  }

  /// The line of a measurement up to its answer.
  private static String line(Probe p) {
    return p.line().replaceFirst("\\?.*", "");
  }

  /// A digit begins the line of what shows a number; what shows a word is answered by the digit.
  @Override
  public String readingLine() {
    Shown s = shown.get();
    return s == null || s.choice().isEmpty() || !Outcomes.words(s.choice().get()).isEmpty()
        ? ""
        : line(s.choice().get().probe());
  }

  @Override
  public String faultLine() {
    return "found ";
  }
}
