package ell.desk.revise;

import ell.book.RevisionStore;
import ell.core.entry.Entry;
import ell.core.power.Ladder;
import ell.core.rack.Stage;
import ell.core.revise.BodgeMatrix;
import ell.core.revise.ChangeCheck;
import ell.core.revise.Compared;
import ell.core.revise.Erratum;
import ell.core.revise.Improvements;
import ell.core.revise.Lessons;
import ell.core.revise.Proof;
import ell.core.revise.RespinSaid;
import ell.core.revise.Severity;
import ell.core.revise.Stacks;
import ell.core.revise.Stand;
import ell.core.revise.WayOut;
import ell.core.revise.WorkOrder;
import ell.desk.shell.DeskModel;
import ell.desk.shell.FileAsker;
import ell.desk.shell.Loader;
import ell.desk.shell.Margin;
import ell.desk.shell.Snapshot;
import ell.desk.shell.StageModel;
import ell.files.Output;
import ell.work.Workshop;
import ell.work.act.Outcome;
import ell.work.revise.Revising;
import ell.work.send.ChangeListFiles;
import ell.work.space.ActException;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.ReadOnlyBooleanWrapper;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;

/// Errata of the design in hand: against its boards, as a list for the next revision, and what the
/// bench has learned. Everything is worked out aside.
public final class ReviseModel extends StageModel {
  /// What is looked at.
  public enum Page {
    /// Errata against boards.
    BOARDS,
    /// The list for the next revision.
    CHANGES,
    /// What the books say over revisions, stacks and designs.
    LEARNED
  }

  private final DeskModel desk;
  private final FileAsker files;
  private final Loader<Answer> working;
  private final Loader<Advice> advising;
  private final Loader<Learned> learning;
  private final ReadOnlyObjectWrapper<Shown> shown = new ReadOnlyObjectWrapper<>(this, "shown");
  private final ReadOnlyBooleanWrapper busy = new ReadOnlyBooleanWrapper(this, "busy");
  private Snapshot.Work work;
  private Page page = Page.BOARDS;
  private int row;
  private int column;
  private int line;
  private String columnBoard = "";
  private Optional<Learned> learned = Optional.empty();
  private Advice advice = new Advice("", "", List.of());

  /// What was worked out.
  ///
  /// @param mistakes errata that are open, wishes not among them
  /// @param all of the design, wishes too
  /// @param way what to do about the boards that are left, empty when none is
  /// @param revision that the list and the way out are of
  /// @param next the revision that the list was held against, empty where there is no later one
  public record Answer(
      Snapshot.Work work,
      BodgeMatrix mistakes,
      BodgeMatrix all,
      WorkOrder order,
      Ladder ladder,
      Optional<RespinSaid.Question> question,
      Optional<WayOut> way,
      List<Revising.Decided> decided,
      String revision,
      Optional<String> next,
      Optional<ChangeCheck> check,
      List<Erratum> changes,
      List<Improvements.Suggestion> suggestions) {}

  /// What the books say over all boards.
  ///
  /// @param moment of the look that it is of
  public record Learned(long moment, Compared compared, Stacks stacks, Lessons lessons) {}

  /// What the jig of a revision would want of the next one.
  private record Advice(String design, String revision, List<String> words) {}

  /// What is drawn.
  ///
  /// @param learned empty until somebody has asked for it
  /// @param suggestions of the books, and of the jig once that was worked out
  /// @param row erratum that is turned to, 0 when there is none
  /// @param column board that is turned to
  /// @param line of the list that is turned to
  public record Shown(
      Answer answer,
      Optional<Learned> learned,
      List<Improvements.Suggestion> suggestions,
      Page page,
      int row,
      int column,
      int line) {
    /// The erratum that is turned to.
    public Optional<Erratum> erratum() {
      List<Erratum> all = answer.mistakes().errata();
      return row < all.size() ? Optional.of(all.get(row)) : Optional.empty();
    }

    /// The board that is turned to.
    public Optional<BodgeMatrix.Row> board() {
      List<BodgeMatrix.Row> all = answer.mistakes().boards();
      return column < all.size() ? Optional.of(all.get(column)) : Optional.empty();
    }

    /// How the board stands to the erratum.
    Optional<Stand> stand() {
      return erratum().flatMap(e -> board().map(b -> b.stands().get(e.id())));
    }

    /// The suggestion that is turned to.
    Optional<Improvements.Suggestion> suggestion() {
      int i = line - answer.changes().size();
      return i >= 0 && i < suggestions.size() ? Optional.of(suggestions.get(i)) : Optional.empty();
    }

    /// The item of the list that is turned to.
    Optional<Erratum> item() {
      return line < answer.changes().size()
          ? Optional.of(answer.changes().get(line))
          : Optional.empty();
    }
  }

  /// A model for a desk.
  public ReviseModel(DeskModel desk, FileAsker files) {
    this.desk = desk;
    this.files = files;
    this.working =
        loader(desk, desk.runner().aside(), "errata and boards", a -> fill(Optional.of(a)));
    this.learning =
        loader(
            desk,
            desk.runner().aside(),
            "what the bench has learned",
            found -> {
              learned = Optional.of(found);
              fill(Optional.empty());
            });
    this.advising = loader(desk, desk.runner().aside(), "what the jig would want", this::advised);
    busy.bind(
        javafx.beans.binding.Bindings.createBooleanBinding(working::busy, working.stateProperty()));
    whenShown(desk, Stage.REVISE, this::load);
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
    boolean other = work != null && !work.build().design().equals(w.build().design());
    if (other) {
      shown.set(null);
      row = 0;
      column = 0;
      line = 0;
      columnBoard = "";
      learned = Optional.empty();
      margin(Margin.EMPTY);
    }
    if (work == null || !work.board().equals(w.board())) {
      columnBoard = w.board();
    }
    work = w;
    load();
  }

  private void load() {
    if (work == null || !desk.navigation().at(Stage.REVISE)) {
      return;
    }
    Snapshot.Work w = work;
    working.load(
        List.of(w.build().design(), w.moment(), System.identityHashCode(w.plan())),
        desk.reading(x -> answer(x, w)));
    learn();
  }

  /// All books are read only for whoever wants to see what they say.
  private void learn() {
    if (page == Page.LEARNED) {
      Snapshot.Work w = work;
      learning.load(
          List.of(w.build().design(), w.moment()),
          desk.reading(x ->
              new Learned(
                  w.moment(),
                  x.revising().compared(w.build().design(), false),
                  x.revising().stacks(),
                  x.revising().lessons())));
    }
  }

  private static Answer answer(Workshop x, Snapshot.Work w) throws IOException, ActException {
    String design = w.build().design();
    Revising r = x.revising();
    BodgeMatrix all = r.matrix(Optional.of(design));
    List<Erratum> open =
        all.errata().stream().filter(e -> e.open() && e.severity() != Severity.WISH).toList();
    BodgeMatrix mistakes =
        new BodgeMatrix(
            open,
            all.boards().stream()
                .filter(b -> open.stream().anyMatch(e -> e.of(design, b.revision().name())))
                .toList());
    RevisionStore.Id of = new RevisionStore.Id(design, revision(all.errata(), w));
    Optional<RespinSaid.Question> q = r.question(design, of.name(), "");
    List<String> later = ChangeListFiles.later(x, of);
    Optional<String> next = later.stream().findFirst();
    Optional<ChangeCheck> check =
        next.isEmpty()
            ? Optional.empty()
            : Optional.of(
                r.check(
                    r.difference(design, of.name(), next.get()), design, of.name(), next.get()));
    return new Answer(
        w,
        mistakes,
        all,
        r.workOrder(mistakes),
        x.ladder(design, of.name()),
        q,
        q.map(y -> WayOut.of(y.asked())),
        r.decisions(design, of.name()),
        of.name(),
        next,
        check,
        r.changes(design, of.name()),
        r.suggestions(design, of.name(), List.of()));
  }

  /// The list is that of the revision whose boards are in hand; where nothing is written down of
  /// it, that of the latest one of which something is.
  private static String revision(List<Erratum> all, Snapshot.Work w) {
    String own = w.build().revision();
    List<Erratum> open = all.stream().filter(Erratum::open).toList();
    return open.isEmpty() || open.stream().anyMatch(e -> e.revisions().contains(own))
        ? own
        : open.getLast().revisions().getLast();
  }

  private void fill(Optional<Answer> found) {
    Optional<Answer> a =
        found.isPresent() ? found : Optional.ofNullable(shown.get()).map(Shown::answer);
    if (a.isEmpty()) {
      return;
    }
    List<BodgeMatrix.Row> boards = a.get().mistakes().boards();
    if (found.isPresent()) {
      for (int i = 0; i < boards.size(); i++) {
        column = boards.get(i).board().equals(columnBoard) ? i : column;
      }
    }
    row = Math.clamp(row, 0, Math.max(0, a.get().mistakes().errata().size() - 1));
    column = Math.clamp(column, 0, Math.max(0, boards.size() - 1));
    List<Improvements.Suggestion> suggested = suggestions(a.get());
    int lines = a.get().changes().size() + suggested.size();
    line = Math.clamp(line, 0, Math.max(0, lines - 1));
    if (column < boards.size()) {
      columnBoard = boards.get(column).board();
    }
    Shown s = new Shown(a.get(), learned, suggested, page, row, column, line);
    shown.set(s);
    margin(ReviseMargin.say(s));
  }

  /// To the next page, round and round.
  void turn() {
    page = Page.values()[(page.ordinal() + 1) % Page.values().length];
    fill(Optional.empty());
    if (work != null) {
      learn();
    }
    Shown s = shown.get();
    if (page == Page.CHANGES && s != null) {
      String design = s.answer().work().build().design();
      String revision = s.answer().revision();
      advising.load(
          List.of(design, revision),
          desk.reading(x ->
              new Advice(
                  design,
                  revision,
                  ChangeListFiles.advice(x, new RevisionStore.Id(design, revision)))));
    }
  }

  /// The suggestions with what the jig would want behind them.
  private void advised(Advice a) {
    advice = a;
    fill(Optional.empty());
  }

  private List<Improvements.Suggestion> suggestions(Answer a) {
    List<Improvements.Suggestion> all = new ArrayList<>(a.suggestions());
    if (advice.design().equals(a.work().build().design())
        && advice.revision().equals(a.revision())) {
      advice.words().stream()
          .filter(x ->
              a.changes().stream()
                  .noneMatch(e -> x.startsWith(e.title().replaceAll("\u2026$", ""))))
          .forEach(x ->
              all.add(
                  new Improvements.Suggestion(
                      x,
                      "the jig of this revision would be easier to build",
                      List.of(),
                      List.of())));
    }
    return all;
  }

  @Override
  public void move(int by) {
    if (page == Page.BOARDS) {
      row += by;
    } else {
      line += by;
    }
    fill(Optional.empty());
  }

  @Override
  public void across(int by) {
    if (page == Page.BOARDS) {
      column += by;
      fill(Optional.empty());
    }
  }

  /// Turns to a crossing.
  void turnTo(int toRow, int toColumn) {
    row = toRow;
    column = toColumn;
    fill(Optional.empty());
  }

  /// Turns to a line of the list.
  void turnToLine(int to) {
    line = to;
    fill(Optional.empty());
  }

  @Override
  public String primaryWords() {
    Shown s = shown.get();
    if (s == null) {
      return "";
    }
    if (s.page() == Page.CHANGES) {
      return s.suggestion().isPresent() ? "take it into the list" : "";
    }
    if (s.page() != Page.BOARDS || s.stand().isEmpty()) {
      return "";
    }
    String id = s.erratum().orElseThrow().id();
    return switch (s.stand().get().state()) {
      case NEEDED ->
          s.erratum().orElseThrow().bodge().isEmpty()
              ? "say how " + id + " is mended"
              : id + " is mended on " + s.board().orElseThrow().board();
      case DONE -> "show that " + id + " holds";
      case PROVED, NOT_NEEDED, CANNOT -> "";
    };
  }

  @Override
  public void primary() {
    Shown s = shown.get();
    if (s == null || primaryWords().isEmpty()) {
      return;
    }
    if (s.page() == Page.CHANGES) {
      s.suggestion().ifPresent(this::take);
      return;
    }
    Erratum e = s.erratum().orElseThrow();
    String board = s.board().orElseThrow().board();
    if (s.stand().orElseThrow().state() == Stand.State.DONE) {
      String line =
          e.shows()
              .map(p ->
                  switch (p) {
                    case Proof.Joined j -> j.a() + " " + j.b() + " ";
                    case Proof.Apart x -> x.a() + " " + x.b() + " ";
                    case Proof.Rail r -> r.net() + " ";
                    case Proof.Test t -> "test \"" + t.name() + "\" ";
                    case Proof.Run _ -> "proof begin";
                  })
              .orElse("bodge " + e.id() + " proved ");
      begin(board, line);
    } else if (e.bodge().isEmpty()) {
      begin(board, "erratum " + e.id() + " bodge ");
    } else {
      log(board, new Entry.Bodge(e.id(), "done", 0, ""));
    }
  }

  /// Begins a line on the tape, with a board in hand.
  private void begin(String board, String text) {
    desk.select(board);
    // behind the look that the other board takes
    desk.ask(_ -> desk.runner().ui().execute(() -> desk.tape().begin(text)));
  }

  private void log(String board, Entry entry) {
    desk.act(w -> {
      switch (w.log(board, List.of(entry))) {
        case Outcome.Done d ->
            desk.say(
                "logged to "
                    + board
                    + ": "
                    + ell.core.entry.EntryWords.of(d.entries().getFirst().entry()));
        case Outcome.Refused r -> desk.runner().ui().execute(() -> desk.refused(r.refusal()));
      }
    });
  }

  private void take(Improvements.Suggestion x) {
    String board = work.board();
    List<Long> first = x.taughtBy().isEmpty() ? List.of() : List.of(x.taughtBy().getFirst());
    log(
        board,
        new Entry.Erratum(
            "", x.title(), "", List.of(), "", List.of(), "wish", List.of(), "", "", first));
  }

  /// Writes an erratum down from what was found last on the board in hand, whatever stage is shown.
  void fromLast() {
    desk.log(
        List.of(
            new Entry.Erratum(
                "", "", "", List.of(), "", List.of(), "", List.of(), "", "", List.of())));
  }

  /// Begins the line that says something of the erratum in hand.
  void begin(String words) {
    Shown s = shown.get();
    Optional<Erratum> e =
        s == null ? Optional.empty() : s.page() == Page.CHANGES ? s.item() : s.erratum();
    e.ifPresent(x -> desk.tape().begin("erratum " + x.id() + " " + words + " "));
  }

  /// Whether an erratum is turned to.
  boolean atErratum() {
    Shown s = shown.get();
    return s != null && (s.page() == Page.CHANGES ? s.item() : s.erratum()).isPresent();
  }

  /// Begins the line that says why the board in question needs no bodge, or that it was undone.
  void notNeeded() {
    Shown s = shown.get();
    if (s != null && s.page() == Page.BOARDS && s.stand().isPresent()) {
      boolean mended =
          s.stand().get().state() == Stand.State.DONE
              || s.stand().get().state() == Stand.State.PROVED;
      begin(
          s.board().orElseThrow().board(),
          "bodge " + s.erratum().orElseThrow().id() + (mended ? " undone " : " not-needed "));
    }
  }

  /// Begins the line that decides what is done about the boards that are left.
  void decide() {
    Shown s = shown.get();
    if (s != null) {
      desk.tape()
          .begin("decided " + s.answer().way().map(w -> w.choice().name()).orElse("rework") + " ");
    }
  }

  /// What is kept of prices and times.
  List<String> said() {
    Shown s = shown.get();
    return s == null
        ? List.of()
        : s.answer().question().map(RespinSaid.Question::guessed).orElse(List.of());
  }

  /// Says a price or a time.
  ///
  /// @param wrong takes why it cannot be, or nothing
  void say(String words, Consumer<String> wrong) {
    Snapshot.Work w = work;
    desk.act(x -> {
      try {
        x.revising()
            .say(w.build().design(), w.build().revision(), List.of(words.strip().split("\\s+")));
        desk.say("kept: " + words);
        desk.runner().ui().execute(() -> wrong.accept(""));
      } catch (ActException e) {
        desk.runner().ui().execute(() -> wrong.accept(e.getMessage()));
      }
    });
  }

  /// Writes the list with a card for each bodge.
  void print() {
    Shown s = shown.get();
    if (s == null) {
      return;
    }
    Optional<Path> to = files.record("change list");
    to.ifPresent(f ->
        desk.act(w -> {
          ChangeListFiles.write(
              w, s.answer().work().build().design(), s.answer().revision(), f, Output.Over.OURS);
          desk.say("wrote " + f);
        }));
  }

  @Override
  public boolean canBeBig() {
    Shown s = shown.get();
    return s != null && s.page() == Page.BOARDS && s.erratum().isPresent();
  }

  @Override
  public String readingLine() {
    return "";
  }

  @Override
  public String faultLine() {
    return "erratum ";
  }
}
