package ell.desk.heat;

import ell.core.heat.PlateModel;
import ell.core.heat.PlateSchedule;
import ell.core.heat.ProfileCheck;
import ell.core.heat.ProfileLog;
import ell.core.heat.ProfileStatistic;
import ell.core.heat.ProfileWindow;
import ell.core.quantity.Limits;
import ell.core.quantity.Verdict;
import ell.core.series.Series;
import ell.desk.mark.Axes;
import ell.desk.mark.Ink;
import ell.desk.mark.Picture;
import ell.desk.mark.Type;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.paint.Color;
import javafx.scene.text.TextAlignment;

/// Temperature over time in its window: the soak as a hatched band, the liquidus as a line, the
/// peak between two ticks; the run in ink, other runs as hairs, the expected one as a tint, the one
/// that grows now in brass.
final class ProfilePicture extends Picture {
  private static final double LEFT = 56;
  private static final double BOTTOM = 24;

  private HeatModel.Shown shown;

  private Axes axes;

  ProfilePicture() {
    super("profile");
    setMinSize(240, 140);
  }

  void show(HeatModel.Shown s) {
    shown = s;
    setAccessibleText(
        "profile"
            + s.track().map(t -> " of " + t.title() + ", " + t.check().verdict().words()).orElse("")
            + s.look()
                .map(l -> ", now " + Math.round(l.samples().getLast()[3]) + " °C")
                .orElse(""));
    redraw();
  }

  @Override
  protected void draw(GraphicsContext g, double w, double h) {
    if (shown == null) {
      return;
    }
    Ink ink = ink();
    if (shown.window().isEmpty()) {
      g.setFont(Type.words(13));
      g.setFill(ink.ink2());
      Type.write(g, "working out the plate", LEFT, h / 2);
      return;
    }
    ProfileWindow win = shown.window().get();
    double tMax = 300;
    double cMax = win.limits().getOrDefault(ProfileStatistic.PEAK, new Limits(0, 250)).high();
    cMax = (Double.isInfinite(cMax) ? 260 : cMax) + 30;
    for (HeatModel.Track t : shown.tracks()) {
      for (ProfileLog.Channel c : t.log().channels()) {
        tMax = Math.max(tMax, c.series().duration());
        if (!c.wanted() && !c.plate()) {
          cMax = Math.max(cMax, c.series().most() + 12);
        }
      }
    }
    if (shown.schedule().isPresent()) {
      tMax = Math.max(tMax, shown.schedule().get().liftAt() + 90);
    }
    axes = new Axes(LEFT, 10, w - 12, h - BOTTOM, 0, tMax, 0, cMax);
    window(g, ink, win, w);
    axes.draw(
        g,
        ink,
        tMax > 900 ? 300 : 60,
        ProfilePicture::clock,
        50,
        c -> String.format(Locale.ROOT, "%.0f °C", c));
    g.save();
    g.beginPath();
    g.rect(LEFT, 0, w - LEFT, axes.bottom());
    g.clip();
    expected(g, ink);
    for (int i = 0; i < shown.tracks().size(); i++) {
      if (i != shown.selected()) {
        ghost(g, ink, shown.tracks().get(i));
      }
    }
    shown.track().ifPresent(t -> track(g, ink, t, win));
    shown.look().ifPresent(l -> live(g, ink, l.samples(), w));
    g.restore();
    says(g, ink, win, w);
  }

  private double x(double t) {
    return axes.x(t);
  }

  private double y(double c) {
    return axes.y(c);
  }

  private void window(GraphicsContext g, Ink ink, ProfileWindow win, double w) {
    // the soak
    double y1 = y(win.soakTo());
    double y0 = y(win.soakFrom());
    g.setFill(Ink.thin(ink.slate(), 0.07));
    g.fillRect(LEFT, y1, w - LEFT - 12, y0 - y1);
    g.setStroke(Ink.thin(ink.slate(), 0.4));
    g.setLineWidth(0.7);
    for (double x = LEFT + 6; x < w - 16; x += 14) {
      g.strokeLine(x, y0, x + 5, y0 - 5);
      g.strokeLine(x, y1, x + 5, y1 + 5);
    }
    // above
    g.setStroke(ink.madder());
    g.setLineWidth(1.1);
    g.setLineDashes(6, 4);
    g.strokeLine(LEFT, y(win.above()), w - 12, y(win.above()));
    g.setLineDashes();
    Limits peak = win.limits().get(ProfileStatistic.PEAK);
    if (peak != null) {
      g.setFill(Ink.thin(ink.verdigris(), 0.16));
      double top = Double.isInfinite(peak.high()) ? 0 : y(peak.high());
      double low = Double.isInfinite(peak.low()) ? y(win.above()) : y(peak.low());
      g.fillRect(LEFT, top, w - LEFT - 12, low - top);
    }
  }

  /// The words of the window, over everything else.
  private void says(GraphicsContext g, Ink ink, ProfileWindow win, double w) {
    words(g, ink, "soak" + limits(win, ProfileStatistic.SOAK_TIME), w - 16, y(win.soakTo()) + 14);
    words(
        g,
        ink,
        trim(win.above()) + " °C, above it" + limits(win, ProfileStatistic.TIME_ABOVE),
        w - 16,
        y(win.above()) - 5);
    Limits peak = win.limits().get(ProfileStatistic.PEAK);
    if (peak != null && Double.isFinite(peak.high())) {
      words(g, ink, "peak " + ProfileCheck.text(peak, "°C"), w - 16, y(peak.high()) - 4);
    }
  }

  private static String limits(ProfileWindow win, ProfileStatistic s) {
    Limits l = win.limits().get(s);
    return l == null ? "" : " " + ProfileCheck.text(l, s.unit());
  }

  private static String trim(double d) {
    return d == Math.rint(d) ? String.valueOf((long) d) : String.valueOf(d);
  }

  private static void words(GraphicsContext g, Ink ink, String text, double x, double y) {
    double tw = Type.width(Type.words(11), text);
    g.setFill(Ink.thin(ink.sheet(), 0.8));
    g.fillRect(x - tw - 2, y - 10, tw + 4, 13);
    g.setFont(Type.words(11));
    g.setFill(ink.ink2());
    g.setTextAlign(TextAlignment.RIGHT);
    Type.write(g, text, x, y);
    g.setTextAlign(TextAlignment.LEFT);
  }

  private void expected(GraphicsContext g, Ink ink) {
    if (shown.schedule().isEmpty()) {
      return;
    }
    PlateSchedule s = shown.schedule().get();
    double band =
        Math.max(3, shown.fit().map(f -> Double.isNaN(f.rms()) ? 8 : 2 * f.rms()).orElse(8.0));
    double end = s.liftAt() + 85;
    int n = 160;
    double[] xs = new double[2 * n];
    double[] ys = new double[2 * n];
    for (int i = 0; i < n; i++) {
      double t = end * i / (n - 1);
      double c = PlateModel.Curve.at(s.expected().boardAt(), t);
      xs[i] = x(t);
      ys[i] = y(c + band);
      xs[2 * n - 1 - i] = x(t);
      ys[2 * n - 1 - i] = y(c - band);
    }
    g.setFill(Ink.thin(ink.verdigris(), 0.2));
    g.fillPolygon(xs, ys, 2 * n);
    g.setStroke(ink.slate());
    g.setLineWidth(1);
    g.setLineDashes(2, 4);
    double drop = x(s.liftAt());
    g.strokeLine(x(0), y(s.soakSet()), x(s.soakFor()), y(s.soakSet()));
    g.strokeLine(x(s.soakFor()), y(s.soakSet()), x(s.soakFor()), y(s.peakSet()));
    g.strokeLine(x(s.soakFor()), y(s.peakSet()), drop, y(s.peakSet()));
    g.setLineDashes();
    g.setFill(ink.slate());
    g.setFont(Type.words(11));
    Type.write(g, "lift off " + clock(s.liftAt()), drop + 5, y(30));
    g.setLineWidth(1.2);
    g.strokeLine(drop, axes.bottom(), drop, y(25));
  }

  private static String clock(double s) {
    return String.format(Locale.ROOT, "%d:%02d", (int) s / 60, (int) s % 60);
  }

  private void ghost(GraphicsContext g, Ink ink, HeatModel.Track t) {
    g.setStroke(Ink.thin(ink.ink2(), 0.45));
    g.setLineWidth(1);
    g.setLineDashes(1, 3);
    t.log().channels().stream()
        .filter(c -> !c.wanted() && !c.plate())
        .findFirst()
        .ifPresent(c -> axes.line(g, c.series(), c.second(0)));
    g.setLineDashes();
  }

  private void track(GraphicsContext g, Ink ink, HeatModel.Track t, ProfileWindow win) {
    Optional<ProfileCheck.Channel> inHand = shown.line();
    for (ProfileLog.Channel c : t.log().channels()) {
      if (c.wanted()) {
        continue;
      }
      boolean own = inHand.filter(x -> x.name().equals(c.name())).isPresent();
      g.setStroke(c.plate() ? ink.hair() : own ? ink.ink() : ink.ink2());
      g.setLineWidth(own ? 2 : c.plate() ? 2.4 : 1.1);
      if (!own && !c.plate()) {
        g.setLineDashes(7, 4);
      }
      axes.line(g, c.series(), c.second(0));
      g.setLineDashes();
      if (own) {
        above(g, ink, c, win, inHand.get());
      }
    }
  }

  /// What of a line lies above the liquidus, and where its peak is.
  private void above(
      GraphicsContext g,
      Ink ink,
      ProfileLog.Channel c,
      ProfileWindow win,
      ProfileCheck.Channel check) {
    Verdict v = check.line(ProfileStatistic.PEAK).verdict();
    double t0 = c.second(0);
    double at = check.peakAt() - t0;
    double peak = check.line(ProfileStatistic.PEAK).value();
    Color colour = ink.of(v);
    g.setStroke(colour);
    g.setLineWidth(1.6);
    g.strokeLine(x(at) - 6, y(peak) - 7, x(at) + 6, y(peak) - 7);
    g.strokeLine(x(at), y(peak) - 7, x(at), y(peak) - 1);
    g.setFill(colour);
    g.setFont(Type.numbersBold(11));
    g.setTextAlign(TextAlignment.CENTER);
    Type.write(g, String.format(Locale.ROOT, "%.1f °C", peak), x(at), y(peak) - 11);
    g.setTextAlign(TextAlignment.LEFT);
    double from = Double.NaN;
    double to = Double.NaN;
    for (int i = 0; i < c.size(); i++) {
      if (c.celsius(i) > win.above()) {
        from = Double.isNaN(from) ? c.second(i) - t0 : from;
        to = c.second(i) - t0;
      }
    }
    if (!Double.isNaN(from)) {
      g.setStroke(ink.of(check.line(ProfileStatistic.TIME_ABOVE).verdict()));
      g.setLineWidth(3);
      g.strokeLine(x(from), y(win.above()), x(to), y(win.above()));
    }
  }

  private void live(GraphicsContext g, Ink ink, List<double[]> samples, double w) {
    for (int k : new int[] {2, 3}) {
      g.setStroke(k == 3 ? ink.brass() : ink.hair());
      g.setLineWidth(k == 3 ? 2.6 : 2);
      int column = k;
      axes.line(
          g,
          new Series(
              k == 3 ? "board" : "plate",
              samples.stream().mapToDouble(x -> x[0]).toArray(),
              samples.stream().mapToDouble(x -> x[column]).toArray()),
          0);
    }
    double[] last = samples.getLast();
    g.setFill(ink.brass());
    g.fillOval(x(last[0]) - 4, y(last[3]) - 4, 8, 8);
    String text = String.format(Locale.ROOT, "%.0f °C", last[3]);
    double tx = Math.min(x(last[0]) + 9, w - 66);
    g.setFill(Ink.thin(ink.sheet(), 0.9));
    g.fillRect(tx - 2, y(last[3]) + 8, Type.width(Type.numbersBold(13), text) + 4, 17);
    g.setFont(Type.numbersBold(13));
    g.setFill(ink.ink());
    Type.write(g, text, tx, y(last[3]) + 21);
  }
}
