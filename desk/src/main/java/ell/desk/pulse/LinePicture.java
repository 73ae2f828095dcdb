package ell.desk.pulse;

import ell.core.pulse.Arrives;
import ell.core.pulse.Bounce;
import ell.core.pulse.NetLine;
import ell.core.pulse.SeriesWindow;
import ell.core.pulse.Wanted;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.PreferredValue;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import ell.desk.mark.Axes;
import ell.desk.mark.Hairline;
import ell.desk.mark.Ink;
import ell.desk.mark.Picture;
import ell.desk.mark.Type;
import java.util.ArrayList;
import java.util.List;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.text.TextAlignment;

/// A net as a stick with its taps; time runs down from it while the front of the wave goes to and
/// fro, each with its size; beside it the volts at one place against the rules of its input; below,
/// the resistor at the source as a slide on a scale of preferred values.
final class LinePicture extends Picture {
  private static final double LEFT = 64;
  private static final double STICK = 34;
  private static final double SLIDE = 66;
  private static final double MOST_FRONTS = 9;
  private static final double SMALLEST = 0.02;
  private static final double OHMS_FROM = 8;
  private static final double OHMS_TO = 1100;

  private LineFace.Shown shown;
  private int tap;

  LinePicture() {
    super("line");
    setMinSize(260, 200);
  }

  void show(LineFace.Shown s, int place) {
    shown = s;
    tap = place;
    setAccessibleText(words());
    redraw();
  }

  private String words() {
    if (shown == null || shown.line().isEmpty()) {
      return "no line";
    }
    NetLine l = shown.line().get();
    StringBuilder s = new StringBuilder("line " + l.net() + " from " + l.from().place());
    shown
        .seen()
        .ifPresent(w -> {
          for (int i = 0; i < w.arrives().size(); i++) {
            s.append(", ")
                .append(shown.names().get(i))
                .append(' ')
                .append(w.arrives().get(i).verdict().words());
          }
        });
    return s.toString();
  }

  @Override
  protected void draw(GraphicsContext g, double w, double h) {
    Ink ink = ink();
    if (shown == null || shown.line().isEmpty()) {
      g.setFont(Type.words(13));
      g.setFill(ink.ink2());
      Type.write(g, shown == null ? "the copper is followed" : shown.why(), 12, 30);
      return;
    }
    double split = Math.max(220, w * 0.46);
    double bottom = h - SLIDE;
    double right = split - 26;
    Wanted.Driven d = shown.line().get().driven();
    double delay = d.length() / (d.velocity() * ell.core.pulse.LineOnBoard.LIGHT);
    double span = MOST_FRONTS * delay;
    stick(g, ink, LEFT, right);
    fronts(g, ink, LEFT, right, STICK + 22, bottom - 20, delay, span);
    if (shown.courses().isEmpty()) {
      g.setFont(Type.words(13));
      g.setFill(ink.madder());
      Type.write(g, Type.cut(Type.words(13), shown.why(), w - split - 8), split, STICK + 30);
    } else {
      course(g, ink, split + 46, w - 62, STICK + 10, bottom - 20, span);
    }
    slide(g, ink, LEFT, w - 24, h - 30);
  }

  private void stick(GraphicsContext g, Ink ink, double x0, double x1) {
    g.setFill(ink.stick());
    g.fillRect(x0, STICK - 4, x1 - x0, 8);
    Hairline.level(g, ink.ink(), x0, x1, STICK - 4, 1);
    Hairline.level(g, ink.ink(), x0, x1, STICK + 4, 1);
    List<SeriesWindow> seen = shown.seen().stream().toList();
    double named = Double.NEGATIVE_INFINITY;
    for (int i = 0; i < shown.names().size(); i++) {
      double x = x0 + shown.at().get(i) * (x1 - x0);
      boolean mine = i == tap;
      boolean out = !seen.isEmpty() && seen.getFirst().arrives().get(i).verdict() == Verdict.OUT;
      Hairline.upright(g, mine ? ink.brass() : ink.ink(), x, STICK - 9, STICK + 7, mine ? 3 : 1.5);
      if (out) {
        g.setStroke(shown.judges() ? ink.madder() : ink.ink2());
        g.setLineWidth(1.6);
        g.strokeLine(x - 4, STICK + 9, x + 4, STICK + 17);
        g.strokeLine(x - 4, STICK + 17, x + 4, STICK + 9);
      } else if (!seen.isEmpty()) {
        if (shown.judges()) {
          g.setFill(ink.verdigris());
          g.fillOval(x - 3.5, STICK + 10, 7, 7);
        } else {
          g.setStroke(ink.ink2());
          g.setLineWidth(1.2);
          g.strokeOval(x - 3.5, STICK + 10, 7, 7);
        }
      }
      String name = shown.names().get(i);
      var font = mine ? Type.bold(11) : Type.words(11);
      double half = Type.width(font, name) / 2;
      if (mine || x - half > named + 5) {
        g.setFont(font);
        g.setFill(ink.ink());
        g.setTextAlign(TextAlignment.CENTER);
        Type.write(g, name, x, STICK - 14);
        g.setTextAlign(TextAlignment.LEFT);
        named = x + half;
      }
    }
  }

  /// The front of the wave on its way, each pass with its size at the end that it comes from.
  private void fronts(
      GraphicsContext g,
      Ink ink,
      double x0,
      double x1,
      double top,
      double bottom,
      double delay,
      double span) {
    Axes a = new Axes(x0, top, x1, bottom, 0, 1, span, 0);
    Hairline.upright(g, ink.hair(), x0, top, bottom, 1);
    Hairline.upright(g, ink.hair(), x1, top, bottom, 1);
    g.setFont(Type.numbers(11));
    g.setFill(ink.ink2());
    g.setTextAlign(TextAlignment.RIGHT);
    double tick = Axes.step(span, 5);
    for (double t = 0; t <= span * 1.0001; t += tick) {
      Hairline.level(g, ink.ink2(), x0 - 4, x0, at(a, t, span), 1);
      Type.write(
          g, EngineeringNumber.print(Axes.round(t), Unit.SECOND), x0 - 7, at(a, t, span) + 4);
    }
    g.setTextAlign(TextAlignment.LEFT);
    Wanted.Driven d = shown.line().get().driven();
    double source = d.ohms() + shown.ohms();
    double back = (source - d.z0()) / (source + d.z0());
    double pass = 1 - d.loss();
    double size = d.swing() * d.z0() / (d.z0() + source);
    double first = size;
    double x = a.x(shown.at().get(Math.clamp(tap, 0, shown.at().size() - 1)));
    g.setLineDashes(2, 4);
    g.setStroke(ink.brass());
    g.setLineWidth(1);
    g.strokeLine(x, top, x, bottom);
    g.setLineDashes();
    for (int k = 0; k < MOST_FRONTS && Math.abs(size) > SMALLEST * first; k++) {
      double y0 = at(a, k * delay, span);
      double y1 = at(a, (k + 1) * delay, span);
      boolean out = k % 2 == 0;
      g.setStroke(size >= 0 ? ink.ink() : ink.slate());
      g.setLineWidth(0.8 + 2.4 * Math.min(1, Math.abs(size / first)));
      g.setLineDashes(size >= 0 ? new double[0] : new double[] {5, 3});
      g.strokeLine(out ? x0 : x1, y0, out ? x1 : x0, y1);
      g.setLineDashes();
      label(g, ink, out ? x0 + 8 : x1 - 8, y0 + 4, size, out);
      size *= pass * (out ? 1 : back);
    }
  }

  private static double at(Axes a, double t, double span) {
    return a.top() + t / span * (a.bottom() - a.top());
  }

  private static void label(
      GraphicsContext g, Ink ink, double x, double y, double volts, boolean left) {
    String text = (volts >= 0 ? "+" : "−") + EngineeringNumber.print(Math.abs(volts), Unit.VOLT, 3);
    double wide = Type.width(Type.numbers(11), text);
    double from = left ? x + 14 : x - 14 - wide;
    g.setFill(Ink.thin(ink.sheet(), 0.9));
    g.fillRect(from - 2, y - 4, wide + 4, 14);
    g.setFont(Type.numbers(11));
    g.setFill(ink.ink());
    Type.write(g, text, from, y + 7);
  }

  /// Volts at the place in hand over the same time.
  private void course(
      GraphicsContext g,
      Ink ink,
      double left,
      double right,
      double top,
      double bottom,
      double span) {
    int i = Math.clamp(tap, 0, shown.courses().size() - 1);
    Bounce.Course c = shown.courses().get(i);
    double most = 0.1;
    double least = 0;
    for (double v : c.volts()) {
      most = Math.max(most, v);
      least = Math.min(least, v);
    }
    Arrives.Input in = shown.input().orElse(null);
    if (in != null && in.most() < 1.5 * most) {
      most = Math.max(most, in.most());
    }
    double room = 0.1 * (most - least);
    Axes a = new Axes(left, top, right, bottom, 0, span, least - room, most + room);
    if (in != null) {
      SlipPicture.hatch(g, ink, left, a.y(in.vih()), right - left, a.y(in.vil()) - a.y(in.vih()));
      Hairline.level(g, ink.slate(), left, right, a.y(in.vih()), 1);
      Hairline.level(g, ink.slate(), left, right, a.y(in.vil()), 1);
      SlipPicture.label(g, ink.slate(), a, a.y(in.vih()), "VIH", in.vih());
      SlipPicture.label(g, ink.slate(), a, a.y(in.vil()), "VIL", in.vil());
      if (in.most() < a.y1()) {
        g.setStroke(ink.madder());
        g.setLineWidth(1.2);
        g.setLineDashes(5, 4);
        g.strokeLine(left, a.y(in.most()), right, a.y(in.most()));
        g.setLineDashes();
        SlipPicture.label(g, ink.madder(), a, a.y(in.most()), "bears", in.most());
      }
    }
    a.draw(
        g,
        ink,
        Axes.step(span, 4),
        t -> EngineeringNumber.print(t, Unit.SECOND),
        Axes.step(most - least, 5),
        v -> EngineeringNumber.print(v, Unit.VOLT));
    LineFace.Laid laid = shown.laid().get(shown.names().get(i));
    if (laid != null && laid.fit().isPresent()) {
      // the capture in slate, dashed: what is reckoned stays in ink
      g.setStroke(ink.slate());
      g.setLineWidth(1.3);
      g.setLineDashes(4, 3);
      a.line(g, laid.series(), laid.fit().get().edgeAt());
      g.setLineDashes();
      g.setFont(Type.words(11));
      g.setFill(ink.slate());
      Type.write(
          g,
          "dashed: captured",
          left + 16 + Type.width(Type.bold(12), "volts at " + shown.names().get(i)),
          top - 14);
    }
    g.setStroke(ink.ink());
    g.setLineWidth(1.6);
    g.save();
    g.beginPath();
    g.rect(left, 0, right - left, bottom + 40);
    g.clip();
    g.beginPath();
    for (int k = 0; k < c.volts().length && (k == 0 || c.seconds()[k - 1] <= span); k++) {
      if (k == 0) {
        g.moveTo(a.x(c.seconds()[k]), a.y(c.volts()[k]));
      } else {
        g.lineTo(a.x(c.seconds()[k]), a.y(c.volts()[k]));
      }
    }
    g.stroke();
    g.restore();
    g.setFont(Type.bold(12));
    g.setFill(ink.ink());
    Type.write(g, "volts at " + shown.names().get(i), left, top - 14);
  }

  /// The scale of resistors: the window in which every place is within, what is there, what to
  /// take.
  private void slide(GraphicsContext g, Ink ink, double x0, double x1, double y) {
    shown
        .seen()
        .flatMap(SeriesWindow::range)
        .ifPresent(r -> {
          double a = ohms(r.low(), x0, x1);
          double b = ohms(r.high(), x0, x1);
          g.setFill(Ink.thin(ink.verdigris(), 0.2));
          g.fillRect(a, y - 14, b - a, 14);
        });
    Hairline.level(g, ink.ink(), x0, x1, y, 1);
    g.setFont(Type.numbers(10.5));
    g.setTextAlign(TextAlignment.CENTER);
    List<Double> values = new ArrayList<>(List.of(0.0));
    for (double decade = 10; decade < 1000; decade *= 10) {
      for (double m : PreferredValue.decade(24)) {
        values.add(m * decade);
      }
    }
    values.add(1000.0);
    for (double v : values) {
      double x = ohms(v, x0, x1);
      boolean named = v == 0 || List.of(10.0, 22.0, 47.0, 100.0, 220.0, 470.0, 1000.0).contains(v);
      Hairline.upright(g, ink.ink2(), x, y - (named ? 8 : 4), y, 1);
      if (named) {
        g.setFill(ink.ink2());
        Type.write(g, v == 0 ? "none" : EngineeringNumber.print(v, Unit.OHM), x, y + 13);
      }
    }
    double x = ohms(shown.ohms(), x0, x1);
    g.setFill(ink.brass());
    g.fillPolygon(new double[] {x - 6, x + 6, x}, new double[] {y - 24, y - 24, y - 13}, 3);
    g.setFont(Type.bold(11));
    g.setFill(ink.ink());
    Type.write(
        g,
        shown.ohms() == 0 ? "no resistor" : EngineeringNumber.print(shown.ohms(), Unit.OHM, 3),
        Math.clamp(x, x0 + 24, x1 - 20),
        y - 28);
    shown
        .seen()
        .flatMap(SeriesWindow::range)
        .ifPresent(r -> {
          double n = ohms(r.nearest(), x0, x1);
          g.setFill(ink.slate());
          g.fillOval(n - 3.5, y - 3.5, 7, 7);
        });
    g.setTextAlign(TextAlignment.LEFT);
  }

  private static double ohms(double r, double x0, double x1) {
    if (r < OHMS_FROM) {
      return x0 + r / OHMS_FROM * 24;
    }
    double share = Math.log(Math.min(r, OHMS_TO) / OHMS_FROM) / Math.log(OHMS_TO / OHMS_FROM);
    return x0 + 24 + share * (x1 - x0 - 24);
  }
}
