package ell.desk.pulse;

import ell.core.entry.Entry;
import ell.core.entry.Entry.Capture.Outline;
import ell.core.pulse.Arrives;
import ell.core.pulse.Wanted;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import ell.core.series.Series;
import ell.desk.mark.Axes;
import ell.desk.mark.Hairline;
import ell.desk.mark.Ink;
import ell.desk.mark.Picture;
import ell.desk.mark.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.paint.Color;
import javafx.scene.text.TextAlignment;

/// A capture in ink on its slip: levels, thresholds and what an input bears as rules across it, the
/// zone between the thresholds hatched, rising edges numbered, an edge that counts twice ringed,
/// two cursors. Or the same place of every board, one over the other.
final class SlipPicture extends Picture {
  private static final double LEFT = 56;
  private static final double BOTTOM = 26;
  private static final double TOP = 22;
  private static final double RIGHT = 74;
  private static final int MOST_NUMBERED = 24;
  private static final double ROOM = 0.12;

  private PulseModel.Shown shown;
  private PulseView.Window window;

  SlipPicture() {
    super("capture");
    setMinSize(220, 140);
  }

  void show(PulseModel.Shown s, PulseView.Window w) {
    shown = s;
    window = w;
    setAccessibleText(words(s));
    redraw();
  }

  private static String words(PulseModel.Shown s) {
    if (s.wanted().isEmpty()) {
      return "no capture";
    }
    String place = s.wanted().get().place();
    if (s.every()) {
      List<String> all = new ArrayList<>();
      s.others()
          .forEach((b, c) ->
              all.add(
                  "board "
                      + b
                      + " "
                      + c.says()
                      + c.verdict().map(v -> " " + v.words()).orElse("")));
      return place + " of every board. " + String.join(". ", all);
    }
    return s.entry()
        .map(c ->
            "capture of "
                + place
                + ", "
                + c.says()
                + c.verdict().map(v -> ", " + v.words()).orElse(""))
        .orElse(place + " is not captured yet");
  }

  @Override
  protected void draw(GraphicsContext g, double w, double h) {
    if (shown == null) {
      return;
    }
    Ink ink = ink();
    g.setFill(ink.sheet());
    g.fillRect(LEFT, TOP - 12, w - LEFT - RIGHT + 60, h - TOP - BOTTOM + 12);
    if (shown.reading().isPresent()) {
      reading(g, ink, w, h);
      return;
    }
    Optional<Entry.Capture> c = shown.entry();
    Map<String, Entry.Capture> others = shown.others();
    if (c.isEmpty() && others.isEmpty()) {
      empty(g, ink, w, h);
      return;
    }
    double[] v = volts(c, others);
    double from = window.from();
    double to = window.to();
    if (shown.every() && !others.isEmpty()) {
      from = others.values().stream().mapToDouble(x -> x.outline().from()).min().orElse(from);
      to =
          others.values().stream()
              .mapToDouble(x -> x.outline().from() + x.outline().duration())
              .max()
              .orElse(to);
    }
    if (!(to > from)) {
      return;
    }
    Axes axes = new Axes(LEFT, TOP, w - RIGHT, h - BOTTOM, from, to, v[0], v[1]);
    rules(g, ink, axes, c);
    axes.draw(
        g,
        ink,
        Axes.step(to - from, 6),
        t -> EngineeringNumber.print(t, Unit.SECOND),
        Axes.step(v[1] - v[0], 6),
        y -> EngineeringNumber.print(y, Unit.VOLT));
    g.save();
    g.beginPath();
    g.rect(LEFT, 0, w - LEFT - RIGHT, h);
    g.clip();
    if (shown.every()) {
      others(g, ink, axes);
    } else {
      trace(g, ink, axes);
      marks(g, ink, axes, c.orElseThrow());
      cursors(g, ink, axes);
    }
    g.restore();
    if (shown.every()) {
      legend(g, ink, w);
    }
  }

  /// A large file as far as it was read.
  private void reading(GraphicsContext g, Ink ink, double w, double h) {
    PulseModel.Reading r = shown.reading().orElseThrow();
    Hairline.level(g, ink.brass(), LEFT, LEFT + (w - LEFT - RIGHT) * r.share(), TOP - 6, 4);
    Optional<Series> s = r.soFar();
    if (s.isEmpty() || !(s.get().duration() > 0)) {
      return;
    }
    double low = Math.min(0, s.get().least());
    double high = Math.max(0.1, s.get().most());
    double room = ROOM * (high - low);
    double from = s.get().second(0);
    // the whole of it, as far as can be told from what was read
    double to = from + s.get().duration() / Math.max(0.01, r.share());
    Axes axes = new Axes(LEFT, TOP, w - RIGHT, h - BOTTOM, from, to, low - room, high + room);
    axes.draw(
        g,
        ink,
        Axes.step(to - from, 6),
        t -> EngineeringNumber.print(t, Unit.SECOND),
        Axes.step(high - low, 6),
        y -> EngineeringNumber.print(y, Unit.VOLT));
    g.setStroke(ink.ink());
    g.setLineWidth(1.2);
    axes.line(g, s.get(), 0);
  }

  private void empty(GraphicsContext g, Ink ink, double w, double h) {
    g.setFont(Type.words(13));
    g.setFill(ink.ink2());
    g.setTextAlign(TextAlignment.CENTER);
    Type.write(
        g,
        shown.wanted().isEmpty()
            ? "nothing is known of this revision's lines"
            : shown.every()
                ? "no board has a capture of this place"
                : "no capture of this place yet",
        (LEFT + w - RIGHT) / 2,
        h / 2);
    g.setTextAlign(TextAlignment.LEFT);
  }

  private double[] volts(Optional<Entry.Capture> c, Map<String, Entry.Capture> others) {
    double low = 0;
    double high = 0.1;
    List<Outline> all = new ArrayList<>();
    if (shown.every()) {
      others.values().forEach(o -> all.add(o.outline()));
    } else {
      c.ifPresent(x -> all.add(x.outline()));
    }
    for (Outline o : all) {
      low = Math.min(low, o.least().stream().mapToDouble(x -> x).min().orElse(0));
      high = Math.max(high, o.most().stream().mapToDouble(x -> x).max().orElse(0));
    }
    Optional<Arrives.Input> in = shown.wanted().flatMap(Wanted::thresholds);
    if (in.isPresent() && high > 0.2) {
      high = Math.max(high, finite(in.get().vih(), high));
      double most = finite(in.get().most(), high);
      high = most < 1.6 * high ? Math.max(high, most) : high;
    }
    double room = ROOM * (high - low);
    return new double[] {low - room, high + room};
  }

  private static double finite(double v, double otherwise) {
    return Double.isFinite(v) ? v : otherwise;
  }

  private void rules(GraphicsContext g, Ink ink, Axes a, Optional<Entry.Capture> c) {
    Optional<Arrives.Input> in = shown.wanted().flatMap(Wanted::thresholds);
    double taken = Double.NEGATIVE_INFINITY;
    if (in.isPresent() && Double.isFinite(in.get().vil()) && Double.isFinite(in.get().vih())) {
      double y1 = a.y(in.get().vih());
      double y0 = a.y(in.get().vil());
      hatch(g, ink, a.left(), y1, a.right() - a.left(), y0 - y1);
      Hairline.level(g, ink.slate(), a.left(), a.right(), y1, 1);
      Hairline.level(g, ink.slate(), a.left(), a.right(), y0, 1);
      String guess = shown.wanted().filter(Wanted::judges).isPresent() ? "" : "?";
      label(g, ink.slate(), a, y1, "VIH" + guess, in.get().vih());
      label(g, ink.slate(), a, y0, "VIL" + guess, in.get().vil());
      taken = y1;
    }
    if (in.isPresent() && Double.isFinite(in.get().most()) && in.get().most() < a.y1()) {
      double y = a.y(in.get().most());
      g.setStroke(ink.madder());
      g.setLineWidth(1.2);
      g.setLineDashes(5, 4);
      g.strokeLine(a.left(), y, a.right(), y);
      g.setLineDashes();
      label(g, ink.madder(), a, y, "bears", in.get().most());
    }
    if (!shown.every() && c.isPresent()) {
      for (String level : List.of("high", "low")) {
        double v = c.get().measure(level).map(Entry.Capture.Measure::value).orElse(Double.NaN);
        if (Double.isFinite(v)) {
          Hairline.level(g, Ink.thin(ink.ink2(), 0.6), a.left(), a.right(), a.y(v), 1);
          if (Math.abs(a.y(v) - taken) > 14) {
            label(g, ink.ink2(), a, a.y(v), level, v);
          }
        }
      }
    }
  }

  static void hatch(GraphicsContext g, Ink ink, double x, double y, double w, double h) {
    g.save();
    g.beginPath();
    g.rect(x, y, w, h);
    g.clip();
    g.setStroke(Ink.thin(ink.slate(), 0.28));
    g.setLineWidth(1);
    for (double d = -h; d < w; d += 9) {
      g.strokeLine(x + d, y + h, x + d + h, y);
    }
    g.restore();
  }

  static void label(GraphicsContext g, Color colour, Axes a, double y, String what, double v) {
    g.setFont(Type.words(11));
    g.setFill(colour);
    Type.write(g, what, a.right() + 5, y - 2);
    g.setFont(Type.numbers(11));
    Type.write(g, EngineeringNumber.print(v, Unit.VOLT, 3), a.right() + 5, y + 10);
  }

  private void trace(GraphicsContext g, Ink ink, Axes a) {
    g.setStroke(ink.ink());
    g.setLineWidth(1.5);
    if (shown.series().isPresent()) {
      a.line(g, shown.series().get(), 0);
      return;
    }
    shown.entry().ifPresent(c -> outline(g, a, c.outline()));
  }

  /// Upright strokes from least to greatest, joined.
  private static void outline(GraphicsContext g, Axes a, Outline o) {
    g.beginPath();
    for (int i = 0; i < o.least().size(); i++) {
      double x = a.x(o.from() + (i + 0.5) * o.step());
      double y0 = a.y(o.least().get(i));
      double y1 = a.y(o.most().get(i));
      if (i == 0) {
        g.moveTo(x, y0);
      }
      g.lineTo(x, i % 2 == 0 ? y0 : y1);
      g.lineTo(x, i % 2 == 0 ? y1 : y0);
    }
    g.stroke();
  }

  private void marks(GraphicsContext g, Ink ink, Axes a, Entry.Capture c) {
    double middle =
        (c.measure("low").map(Entry.Capture.Measure::value).orElse(0.0)
                + c.measure("high").map(Entry.Capture.Measure::value).orElse(0.0))
            / 2;
    List<Double> rising = shown.marks().rising();
    int first = 0;
    int seen = 0;
    for (int i = 0; i < rising.size(); i++) {
      if (rising.get(i) >= a.x0() && rising.get(i) <= a.x1()) {
        first = seen == 0 ? i : first;
        seen++;
      }
    }
    if (seen <= MOST_NUMBERED) {
      g.setFont(Type.numbers(11));
      g.setTextAlign(TextAlignment.CENTER);
      for (int i = first; i < first + seen; i++) {
        double x = a.x(rising.get(i));
        Hairline.upright(g, ink.brass(), x, a.top() - 6, a.top(), 1);
        g.setFill(ink.ink2());
        Type.write(g, String.valueOf(i + 1), x, a.top() - 9);
      }
      g.setTextAlign(TextAlignment.LEFT);
    }
    g.setStroke(ink.madder());
    g.setLineWidth(2);
    double vih = shown.wanted().flatMap(Wanted::thresholds).map(Arrives.Input::vih).orElse(middle);
    for (double t : shown.marks().doubled()) {
      if (t >= a.x0() && t <= a.x1()) {
        g.strokeOval(a.x(t) - 9, a.y(vih) - 9, 18, 18);
      }
    }
  }

  private void cursors(GraphicsContext g, Ink ink, Axes a) {
    for (int i = 0; i < 2; i++) {
      double t = window.cursor(i);
      if (t < a.x0() || t > a.x1()) {
        continue;
      }
      boolean mine = i == window.inHand();
      double x = a.x(t);
      Hairline.upright(g, ink.brass(), x, a.top(), a.bottom(), mine ? 2 : 1);
      g.setFont(mine ? Type.bold(11) : Type.words(11));
      g.setFill(ink.ink());
      Type.write(g, i == 0 ? "A" : "B", x + 4, a.bottom() - 5);
    }
  }

  private void others(GraphicsContext g, Ink ink, Axes a) {
    String mine = shown.work().board();
    shown
        .others()
        .forEach((b, c) -> {
          boolean out = c.verdict().filter(v -> v == Verdict.OUT).isPresent();
          g.setStroke(b.equals(mine) ? ink.ink() : out ? ink.madder() : Ink.thin(ink.slate(), 0.6));
          g.setLineWidth(b.equals(mine) ? 2 : 1.2);
          g.setLineDashes(out ? new double[] {6, 3} : new double[0]);
          outline(g, a, c.outline());
          g.setLineDashes();
        });
  }

  private void legend(GraphicsContext g, Ink ink, double w) {
    g.setFont(Type.words(11));
    double x = LEFT + 6;
    for (Map.Entry<String, Entry.Capture> e : shown.others().entrySet()) {
      boolean out = e.getValue().verdict().filter(v -> v == Verdict.OUT).isPresent();
      String name =
          e.getKey()
              + (out ? " out, dashed" : "")
              + (e.getKey().equals(shown.work().board()) ? " in hand" : "");
      double wide = Type.width(Type.words(11), name);
      if (x + wide > w - RIGHT) {
        Type.write(g, "…", x, TOP - 8);
        return;
      }
      g.setFill(out ? ink.madder() : ink.ink());
      Type.write(g, name, x, TOP - 8);
      x += wide + 14;
    }
  }
}
