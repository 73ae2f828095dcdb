package ell.desk.trace;

import ell.core.rack.Stage;
import ell.desk.key.Command;
import ell.desk.shell.DeskModel;
import ell.desk.shell.Player;
import ell.desk.shell.StageModel;
import ell.desk.shell.Station;
import java.io.IOException;
import java.util.List;
import java.util.Locale;
import javafx.scene.Node;

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
    return List.of(new Shot("trace", p -> traced(p, "04")));
  }

  /// A board with a bridge that the beeper found: where it is, and what to measure next.
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
            "%.1f bit not known; likeliest %s, %.0f %%; next %s",
            t.entropy(),
            t.first().fault(),
            100 * t.first().chance(),
            t.next().isEmpty() ? "nothing" : t.next().getFirst().probe().line()));
    p.board(before);
  }
}
