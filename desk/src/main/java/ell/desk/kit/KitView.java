package ell.desk.kit;

import ell.core.kit.KitCheck;
import ell.desk.mark.Ink;
import ell.desk.mark.Marks;
import ell.desk.mark.Picture;
import ell.desk.mark.Type;
import ell.desk.shell.DeskModel;
import ell.desk.shell.Heads;
import javafx.animation.PauseTransition;
import javafx.beans.binding.Bindings;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.scene.text.TextAlignment;
import javafx.util.Duration;

/// The kit: the staircase of boards over days, how far the gates can be reached, and the lines that
/// matter.
public final class KitView extends VBox {
  private final StairPicture stairs = new StairPicture();
  private final ReachPicture reach = new ReachPicture();
  private final GatesPicture gates = new GatesPicture();
  private final Heads heads = new Heads();
  private final PauseTransition still = new PauseTransition(Duration.millis(250));

  /// A view of a model.
  public KitView(DeskModel desk, KitModel model) {
    getStyleClass().add("stage");
    stairs.nightProperty().bind(desk.nightProperty());
    reach.nightProperty().bind(desk.nightProperty());
    gates.nightProperty().bind(desk.nightProperty());
    ScrollPane scroll = new ScrollPane(reach);
    scroll.setFitToWidth(true);
    scroll.setAccessibleText("lines of the kit");
    scroll.setFocusTraversable(false);
    VBox.setVgrow(scroll, Priority.ALWAYS);
    getChildren().addAll(heads, stairs, gates, scroll);
    stairs.setId("stairs");
    stairs.onDay(model::turnTo);
    model.shownProperty().addListener((_, _, _) -> fill(model));
    model
        .selectedProperty()
        .addListener((_, _, line) -> {
          fill(model);
          follow(scroll, line.intValue());
        });
    // however many lines there are, the staircase keeps its room
    stairs.minHeightProperty().bind(stairs.prefHeightProperty());
    scroll.setMinHeight(0);
    stairs
        .prefHeightProperty()
        .bind(
            Bindings.createDoubleBinding(
                () -> Math.clamp(getHeight() * 0.43, 150, 260), heightProperty()));
    reach.setOnMouseClicked(e -> {
      int line = reach.lineAt(e.getY());
      if (line >= 0) {
        model.selectedProperty().set(line);
      }
    });
    still.setOnFinished(_ -> {
      // the wait may end after the window went, and its worker with it
      if (getScene() != null
          && getScene().getWindow() != null
          && getScene().getWindow().isShowing()) {
        model.price();
      }
    });
    desk.navigation().stageProperty().addListener((_, _, _) -> still.playFromStart());
    fill(model);
  }

  /// Keeps the selected line in sight.
  private void follow(ScrollPane scroll, int line) {
    double whole = reach.getMinHeight();
    double seen = scroll.getViewportBounds().getHeight();
    double top = reach.yOf(line);
    double from = scroll.getVvalue() * Math.max(0, whole - seen);
    if (whole <= seen || top >= from && top + ReachPicture.ROW <= from + seen) {
      return;
    }
    double to = top < from ? top : top + ReachPicture.ROW - seen;
    scroll.setVvalue(Math.clamp(to / (whole - seen), 0, 1));
  }

  private void fill(KitModel model) {
    KitModel.Shown s = model.shownProperty().get();
    if (s == null) {
      return;
    }
    heads.show(
        "Kit · " + s.verdict(),
        "Boards that can be built over the days"
            + (s.costs().isEmpty() ? "" : ", and what it costs to have everything by then")
            + "; below, the lines that matter.");
    stairs.show(s);
    still.playFromStart();
    reach.show(s, model.selectedProperty().get());
    gates.show(s.kit());
  }

  /// The gates in their order, each reachable or with what it waits for.
  private static final class GatesPicture extends Picture {
    private KitCheck kit;

    GatesPicture() {
      super("gates");
      setMinHeight(64);
      setPrefHeight(64);
    }

    void show(KitCheck what) {
      kit = what;
      setAccessibleText(
          String.join(
              ", ",
              kit.gates().stream()
                  .map(x ->
                      "gate "
                          + x.gate()
                          + (x.reachable()
                              ? " can be reached"
                              : " waits for " + String.join(" ", x.blockedBy())))
                  .toList()));
      redraw();
    }

    @Override
    protected void draw(GraphicsContext g, double w, double h) {
      if (kit == null || kit.gates().isEmpty()) {
        return;
      }
      Ink ink = ink();
      double y = 14;
      double step = w / kit.gates().size();
      g.setStroke(ink.hair());
      g.setLineWidth(2);
      g.strokeLine(step / 2, y, w - step / 2, y);
      g.setTextAlign(TextAlignment.CENTER);
      for (int i = 0; i < kit.gates().size(); i++) {
        KitCheck.GateReach r = kit.gates().get(i);
        double x = step * (i + 0.5);
        Marks.gate(g, ink, x, y, 8, r.reachable());
        g.setFont(Type.bold(13));
        g.setFill(r.reachable() ? ink.verdigris() : ink.ink());
        Type.write(
            g, Type.cut(Type.bold(13), "GATE " + (i + 1) + " · " + r.gate(), step - 8), x, y + 29);
        g.setFont(Type.words(11));
        g.setFill(r.reachable() ? ink.ink2() : ink.madder());
        Type.write(
            g,
            Type.cut(
                Type.words(11),
                (r.reachable() ? "can be reached" : "waits for " + String.join(", ", r.blockedBy()))
                    + (r.reachable() || r.boards() == 0 ? "" : " · " + r.boards() + " can"),
                step - 8),
            x,
            y + 45);
      }
      g.setTextAlign(TextAlignment.LEFT);
    }
  }
}
