package ell.desk.trace;

import ell.core.entry.Entry;
import ell.core.rack.Stage;
import ell.core.trace.Outcomes;
import ell.core.trace.TraceFacts;
import ell.core.trace.Traced;
import ell.desk.key.Command;
import ell.desk.shell.DeskModel;
import ell.desk.shell.Player;
import ell.desk.shell.StageModel;
import ell.desk.shell.Station;
import java.io.IOException;
import java.util.List;
import java.util.Locale;
import javafx.scene.Node;
import javafx.scene.input.KeyCode;

/// Tracing in the window.
public final class TraceStation extends Station {
  private final TraceModel model;

  /// Tracing on a desk.
  public TraceStation(DeskModel desk) {
    super(desk);
    this.model = new TraceModel(desk);
  }

  @Override
  public Stage stage() {
    return Stage.TRACE;
  }

  @Override
  public StageModel model() {
    return model;
  }

  @Override
  protected Node makeView() {
    return new TraceView(desk, model);
  }

  @Override
  public List<Command> commands() {
    return TraceKeys.of(model, here());
  }

  @Override
  public void zoom(double factor) {
    ((TraceView) view()).zoom(factor);
  }

  private void traced(Player p, String board) throws IOException {
    p.board(board);
    p.stage(stage());
    p.until(
        "the suspects of " + board,
        () ->
            model.shownProperty().get() != null
                && model.shownProperty().get().work().board().equals(board)
                && !model.busyProperty().get());
  }

  @Override
  public List<Shot> shots() {
    String[] before = {""};
    return List.of(
        new Shot(
            "trace",
            p -> {
              before[0] = p.work().board();
              traced(p, "04");
            },
            p -> p.board(before[0])));
  }

  /// A board with a bridge that the beeper found: where it may be. Then one whose analogue rail
  /// does not come up, to the finding.
  @Override
  public void perform(Player p) throws IOException {
    String before = p.work().board();
    traced(p, "04");
    p.picture("trace-04");
    var t = model.shownProperty().get().traced();
    p.tell(
        "Trace 04",
        String.format(
            Locale.ROOT,
            "%.1f bit not known; likeliest %s, %s; next %s",
            t.entropy(),
            t.groups().getFirst().words(),
            Traced.percent(t.groups().getFirst().chance()),
            t.next().isEmpty() ? "nothing" : t.next().getFirst().probe().line()));
    traced(p, "06");
    p.tape("3V3A 0.0");
    int steps = 0;
    while (steps < MOST_STEPS && !p.on(() -> fresh() && model.canFind())) {
      p.until("the suspects after " + steps, this::fresh);
      var c = model.shownProperty().get().choice();
      if (model.canFind() || c.isEmpty()) {
        break;
      }
      steps++;
      int entries = p.work().log().size();
      List<String> words = Outcomes.words(c.get());
      // lamps are lit and joints look good: the fault is where nobody sees it
      p.key(words.isEmpty() ? KeyCode.SPACE : KeyCode.DIGIT1);
      p.until(
          "an answer to " + c.get().probe().line(),
          () -> {
            var log = desk.work().orElseThrow().log();
            return log.size() > entries
                && !(log.getLast().entry() instanceof Entry.Supply s && s.on());
          });
    }
    if (p.on(model::canFind)) {
      p.picture("trace-06");
      p.logs("the finding", KeyCode.E);
      p.tell(
          "Trace 06",
          "after "
              + steps
              + " measurements found: "
              + TraceFacts.of(p.work().state()).last().orElseThrow().fault());
    }
    p.board(before);
  }

  private static final int MOST_STEPS = 14;

  /// Whether what is shown is of the book as it is.
  private boolean fresh() {
    var s = model.shownProperty().get();
    var w = desk.work().orElseThrow();
    return s != null
        && s.work().board().equals(w.board())
        && s.work().log().size() == w.log().size()
        && !model.busyProperty().get();
  }
}
