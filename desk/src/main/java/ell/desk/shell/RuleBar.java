package ell.desk.shell;

import ell.core.rack.Progress;
import ell.core.rack.Stage;
import ell.core.rack.Standing;
import ell.desk.mark.Hairline;
import ell.desk.mark.Ink;
import ell.desk.mark.Picture;
import ell.desk.mark.Type;
import java.util.List;
import java.util.Map;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.scene.text.TextAlignment;

/// The rule across the top: a division per stage in the order of the work, a peg for each board
/// where it is, the brass cursor around the stage that is shown.
public final class RuleBar extends HBox {
  private final Label about = new Label();
  private final Phone phone;

  /// A rule for a desk.
  public RuleBar(DeskModel desk) {
    phone = desk.phone();
    phone.stateProperty().addListener((_, _, _) -> about(desk.snapshotProperty().get()));
    getStyleClass().add("rule-bar");
    Label name = new Label("ell");
    name.getStyleClass().add("name");
    about.getStyleClass().add("about");
    VBox left = new VBox(name, about);
    left.getStyleClass().add("rule-left");
    Stick stick = new Stick(desk);
    HBox.setHgrow(stick, Priority.ALWAYS);
    getChildren().addAll(left, stick);
    desk.snapshotProperty().addListener((_, _, s) -> about(s));
    about(desk.snapshotProperty().get());
  }

  private void about(Snapshot s) {
    about.setText(
        s.bench()
                .map(w -> w.plan().revision().title() + " · build " + w.build().id())
                .orElse(s.open() ? s.name() : "no workspace")
            + s.benches().map(b -> "\n" + b.words()).orElse("")
            + s.practice().map(_ -> "\npractice").orElse("")
            + (phone.stateProperty().get() instanceof Phone.On ? "\non a phone" : ""));
    about.setTooltip(s.practice().map(Tooltip::new).orElse(null));
  }

  /// The stick itself, with the stage names as nodes over it so that readers and tests find them.
  private static final class Stick extends Pane {
    private final DeskModel desk;
    private final Drawing drawing;
    private final List<Stage> stages;
    private final Label[] names;

    Stick(DeskModel desk) {
      this.desk = desk;
      this.stages = desk.navigation().stages();
      this.names = new Label[stages.size()];
      this.drawing = new Drawing(desk);
      drawing.nightProperty().bind(desk.nightProperty());
      setMinHeight(78);
      setPrefHeight(78);
      getChildren().add(drawing);
      for (int i = 0; i < names.length; i++) {
        Stage s = stages.get(i);
        boolean built = desk.navigation().isBuilt(s);
        Label l = new Label(s.title());
        l.setId("stage-" + s.key());
        l.getStyleClass().add(built ? "stage-name" : "stage-later");
        l.setAccessibleText(built ? "stage " + s.title() : s.title() + ", not built yet");
        l.setMouseTransparent(true);
        names[i] = l;
        getChildren().add(l);
      }
      setOnMousePressed(e -> desk.navigation().goTo(at(e.getX())));
      setOnMouseDragged(e -> {
        if (desk.navigation().isBuilt(at(e.getX()))) {
          desk.navigation().stageProperty().set(at(e.getX()));
        }
      });
      desk.snapshotProperty().addListener((_, _, _) -> drawing.again());
      desk.navigation().stageProperty().addListener((_, _, _) -> marked());
      marked();
    }

    private Stage at(double x) {
      int n = names.length;
      return stages.get(Math.clamp((int) (x / (getWidth() / n)), 0, n - 1));
    }

    private void marked() {
      for (Label l : names) {
        l.getStyleClass().remove("current");
      }
      names[desk.navigation().position(desk.navigation().stageProperty().get())]
          .getStyleClass()
          .add("current");
      drawing.again();
    }

    @Override
    protected void layoutChildren() {
      drawing.resizeRelocate(0, 0, getWidth(), getHeight());
      double step = getWidth() / names.length;
      for (int i = 0; i < names.length; i++) {
        double w = names[i].prefWidth(-1);
        names[i].resizeRelocate(i * step + (step - w) / 2, 49, w, 20);
      }
    }
  }

  private static final class Drawing extends Picture {
    private final DeskModel desk;

    Drawing(DeskModel desk) {
      super("rule of stages");
      this.desk = desk;
    }

    void again() {
      redraw();
    }

    @Override
    protected void draw(GraphicsContext g, double w, double h) {
      Ink ink = ink();
      List<Stage> all = desk.navigation().stages();
      double step = w / all.size();
      double y = 40;
      cursor(
          g,
          ink,
          desk.navigation().position(desk.navigation().stageProperty().get()) * step,
          step,
          h);
      Hairline.level(g, ink.ink(), 0, w, y, 1);
      for (int i = 0; i <= all.size(); i++) {
        Hairline.upright(g, ink.ink(), i * step, y, y + 13, 1);
        if (i < all.size()) {
          ticks(g, ink, all.get(i), i * step, step, y);
        }
      }
      pegs(g, ink, step, y);
    }

    /// Ticks inside a division are that stage's steps for the board in hand.
    private void ticks(GraphicsContext g, Ink ink, Stage s, double x, double step, double y) {
      int n =
          desk.work()
              .flatMap(w -> desk.stages().progress(s).map(p -> p.far().apply(w.plan(), w.state())))
              .map(Progress.Far::of)
              .filter(k -> k > 1)
              .orElse(10);
      int shown = Math.min(n, (int) (step / 4));
      for (int k = 1; k < shown; k++) {
        double tx = x + step * k / shown;
        Hairline.upright(
            g,
            desk.navigation().isBuilt(s) ? ink.ink2() : ink.hair(),
            tx,
            y,
            y + (k % 5 == 0 ? 8 : 5),
            1);
      }
    }

    private void pegs(GraphicsContext g, Ink ink, double step, double y) {
      desk.work()
          .ifPresent(w -> {
            for (Map.Entry<String, Standing> e : w.standings().entrySet()) {
              if (!e.getKey().equals(w.board())) {
                peg(g, ink, x(e.getValue(), step), y, ink.ink2(), 4.2);
              }
            }
            double x = x(w.standings().get(w.board()), step);
            peg(g, ink, x, y, ink.verdigris(), 5.4);
            g.setFont(Type.bold(13));
            g.setFill(ink.verdigris());
            g.setTextAlign(TextAlignment.CENTER);
            double half = Type.width(Type.bold(13), w.board()) / 2 + 2;
            Type.write(
                g,
                w.board(),
                Math.clamp(x, half, step * desk.navigation().stages().size() - half),
                y - 20);
            g.setTextAlign(TextAlignment.LEFT);
          });
    }

    private double x(Standing s, double step) {
      return (desk.navigation().position(s.stage()) + 0.08 + 0.84 * s.stageProgress()) * step;
    }

    private static void peg(
        GraphicsContext g, Ink ink, double x, double y, javafx.scene.paint.Color c, double r) {
      g.setFill(c);
      g.setStroke(ink.stick());
      g.setLineWidth(1);
      double[] xs = {x - r, x + r, x + r, x, x - r};
      double[] ys = {y - r * 3, y - r * 3, y - r * 1.2, y - 1, y - r * 1.2};
      g.fillPolygon(xs, ys, 5);
      g.strokePolygon(xs, ys, 5);
    }

    /// The cursor is a slide: two rails with a hairline down its middle.
    private static void cursor(GraphicsContext g, Ink ink, double x, double w, double h) {
      g.setFill(Ink.thin(ink.brass(), 0.16));
      g.fillRect(x + 1, 6, w - 2, h - 10);
      Hairline.level(g, ink.brass(), x + 1, x + w - 1, 6, 3);
      Hairline.level(g, ink.brass(), x + 1, x + w - 1, h - 4, 3);
      Hairline.upright(g, ink.brass(), x + 1, 6, h - 4, 2);
      Hairline.upright(g, ink.brass(), x + w - 1, 6, h - 4, 2);
    }
  }
}
