package ell.desk.mark;

import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Limits;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import java.util.Optional;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.paint.Color;
import javafx.scene.text.TextAlignment;

/// Where a reading lies between its limits: a short rule with two tall ticks for the limits,
/// hatched guard bands as wide as the uncertainty, and a pointer with a whisker.
public final class LimitStrip extends Picture {
  private Shown shown;

  /// What a strip shows.
  ///
  /// @param uncertainty expanded, in `unit`; 0 when not known
  public record Shown(
      Limits limits,
      Optional<Double> value,
      double uncertainty,
      Optional<Verdict> verdict,
      Unit unit) {
    /// In words, for screen readers.
    String words() {
      return value.map(v -> EngineeringNumber.print(v, unit, 4)).orElse("not read")
          + ", limits "
          + limits.text(unit, 4)
          + verdict.map(v -> ", " + v.words()).orElse("");
    }
  }

  /// A strip that shows nothing yet.
  public LimitStrip() {
    super("limit strip");
    setMinSize(110, 34);
    setPrefSize(170, 34);
  }

  /// Shows a reading, or its limits only.
  public void show(Shown what) {
    shown = what;
    setAccessibleText(what.words());
    redraw();
  }

  @Override
  protected void draw(GraphicsContext g, double w, double h) {
    if (shown != null) {
      paint(g, ink(), shown, 4, h - 14, w - 8, true);
    }
  }

  /// Paints a strip into another picture.
  ///
  /// @param y of the rule
  /// @param numbers whether the limits are written below
  public static void paint(
      GraphicsContext g, Ink ink, Shown s, double x, double y, double w, boolean numbers) {
    Limits l = s.limits();
    double v = s.value().orElse(Double.NaN);
    boolean lowOpen = Double.isInfinite(l.low());
    boolean highOpen = Double.isInfinite(l.high());
    if (lowOpen && highOpen) {
      return;
    }
    double low = lowOpen ? l.high() - Math.max(Math.abs(l.high()), 1e-12) : l.low();
    double high = highOpen ? openEnd(l.low(), v) : l.high();
    double span = Math.max(high - low, 1e-12);
    double from = lowOpen ? low : low - 0.35 * span;
    double to = highOpen ? high : high + 0.35 * span;
    Hairline.level(g, ink.ink2(), x, x + w, y, 1);
    for (int i = 0; i <= 16; i++) {
      Hairline.upright(g, ink.ink2(), x + w * i / 16, y, y + (i % 4 == 0 ? 4 : 3), 1);
    }
    double a = at(low, from, to, x, w);
    double b = at(high, from, to, x, w);
    Color tint = Ink.thin(s.verdict().map(ink::of).orElse(ink.ink2()), 0.14);
    g.setFill(tint);
    g.fillRect(lowOpen ? x : a, y - 10, (highOpen ? x + w : b) - (lowOpen ? x : a), 10);
    double guard = Math.min(s.uncertainty() / (to - from) * w, (b - a) / 2);
    g.setStroke(ink.ochre());
    if (!lowOpen) {
      hatch(g, a, a + guard, y);
    }
    if (!highOpen) {
      hatch(g, b - guard, b, y);
    }
    if (!lowOpen) {
      Hairline.upright(g, ink.ink(), a, y - 13, y + 4, 2);
    }
    if (!highOpen) {
      Hairline.upright(g, ink.ink(), b, y - 13, y + 4, 2);
    }
    if (numbers) {
      g.setFont(Type.numbers(11));
      g.setFill(ink.ink2());
      g.setTextAlign(TextAlignment.CENTER);
      if (!lowOpen) {
        Type.write(g, number(l.low(), s.unit(), w), clampX(a, x, w), y + 13);
      }
      if (!highOpen) {
        Type.write(g, number(l.high(), s.unit(), w), clampX(b, x, w), y + 13);
      }
      g.setTextAlign(TextAlignment.LEFT);
    }
    if (!Double.isNaN(v)) {
      pointer(g, ink, s, at(v, from, to, x, w), y, w / (to - from));
    }
  }

  /// A limit as it is written below its tick; without its unit where there is little room.
  private static String number(double value, Unit unit, double w) {
    String text = EngineeringNumber.print(value, unit, 4);
    return w < 120 && unit == Unit.VOLT && text.endsWith(" V")
        ? text.substring(0, text.length() - 2)
        : text;
  }

  private static double openEnd(double low, double value) {
    double reach = Math.max(Math.abs(low) * 2, 1e-12);
    return Double.isFinite(value) ? Math.max(low + reach, value * 1.15) : low + reach * 2;
  }

  private static double clampX(double at, double x, double w) {
    return Math.clamp(at, x + 18, x + w - 18);
  }

  private static void pointer(
      GraphicsContext g, Ink ink, Shown s, double at, double y, double perUnit) {
    Color c = s.verdict().map(ink::of).orElse(ink.ink());
    g.setFill(c);
    g.setStroke(c);
    double whisker = Math.min(s.uncertainty() * perUnit, 60);
    g.setLineWidth(2);
    g.strokeLine(at - whisker, y - 4, at + whisker, y - 4);
    g.fillPolygon(new double[] {at - 5, at + 5, at}, new double[] {y - 16, y - 16, y - 6}, 3);
  }

  private static double at(double v, double from, double to, double x, double w) {
    double f = Double.isInfinite(v) ? 1 : (v - from) / (to - from);
    return x + w * Math.clamp(f, 0, 1);
  }

  private static void hatch(GraphicsContext g, double from, double to, double y) {
    g.setLineWidth(1);
    for (double x = from; x < to; x += 3) {
      g.strokeLine(x, y, Math.min(x + 5, to), y - 10);
    }
  }
}
