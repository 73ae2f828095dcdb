package ell.desk.prove;

import ell.core.prove.BuildProof;
import ell.core.prove.Sequential;
import ell.core.prove.UseRules;
import ell.desk.mark.Axes;
import ell.desk.mark.Ink;
import ell.desk.mark.Picture;
import ell.desk.mark.Type;
import java.util.List;
import java.util.Locale;
import javafx.scene.canvas.GraphicsContext;

/// How long boards must be tested until the lot is decided: failures over boards, the line at which
/// it is accepted, the line at which it is rejected, and where it is now.
final class StopPicture extends Picture {
  private List<Boolean> failed = List.of();
  private Sequential rule = UseRules.USUAL.lot();

  StopPicture() {
    super("when the lot is decided");
  }

  void show(ProveModel.Shown s) {
    rule = s.rules().lot();
    failed = s.build().map(BuildProof::inOrder).orElse(List.of());
    setAccessibleText("when the lot is decided. " + words());
    redraw();
  }

  /// What is to be done, in a sentence.
  String words() {
    long k = failed.stream().filter(f -> f).count();
    String so = k + " of " + failed.size() + " failed at first: ";
    return so
        + switch (rule.decide(k, failed.size())) {
          case ACCEPT ->
              String.format(
                  Locale.ROOT, "the lot is as good as %.3g %% failing", 100 * rule.good());
          case REJECT ->
              String.format(Locale.ROOT, "the lot is as bad as %.3g %% failing", 100 * rule.bad());
          case GO_ON -> {
            long n = failed.size();
            while (rule.decide(k, n) == Sequential.Decision.GO_ON) {
              n++;
            }
            yield (n - failed.size()) + " more clean boards would accept it";
          }
        };
  }

  @Override
  protected void draw(GraphicsContext g, double w, double h) {
    Ink ink = ink();
    int boards = Math.max(20, (int) (failed.size() * 1.4) + 4);
    double top = Math.max(3, rule.rejectAt() + rule.slope() * boards);
    Axes axes = new Axes(44, 8, w - 150, h - 22, 0, boards, 0, Math.ceil(top));
    double step = Axes.step(boards, 8);
    axes.draw(
        g,
        ink,
        step,
        v -> String.valueOf(Math.round(v)),
        Math.max(1, Axes.step(Math.ceil(top), 4)),
        v -> String.valueOf(Math.round(v)));
    line(g, ink, axes, rule.acceptAt(), rule.slope(), true);
    line(g, ink, axes, rule.rejectAt(), rule.slope(), false);
    g.setFont(Type.words(11));
    g.setFill(ink.ink2());
    Type.write(
        g,
        "reject above",
        axes.right() + 6,
        axes.y(Math.min(axes.y1(), rule.rejectAt() + rule.slope() * boards)) + 12);
    Type.write(
        g,
        "accept below",
        axes.right() + 6,
        Math.min(axes.bottom(), axes.y(Math.max(0, rule.acceptAt() + rule.slope() * boards)) + 4));
    g.setStroke(ink.ink());
    g.setLineWidth(2);
    double x = axes.x(0);
    double y = axes.y(0);
    int k = 0;
    for (int i = 0; i < failed.size(); i++) {
      k += failed.get(i) ? 1 : 0;
      double nx = axes.x(i + 1);
      double ny = axes.y(Math.min(k, axes.y1()));
      g.strokeLine(x, y, nx, y);
      g.strokeLine(nx, y, nx, ny);
      x = nx;
      y = ny;
    }
    g.setFill(ink.brass());
    g.fillOval(x - 4, y - 4, 8, 8);
  }

  private static void line(
      GraphicsContext g, Ink ink, Axes axes, double at, double slope, boolean accept) {
    g.save();
    g.beginPath();
    g.rect(axes.left(), axes.top(), axes.right() - axes.left(), axes.bottom() - axes.top());
    g.clip();
    g.setStroke(accept ? ink.verdigris() : ink.madder());
    g.setLineWidth(1.5);
    if (!accept) {
      g.setLineDashes(6, 4);
    }
    g.strokeLine(axes.x(0), axes.y(at), axes.x(axes.x1()), axes.y(at + slope * axes.x1()));
    g.restore();
  }
}
