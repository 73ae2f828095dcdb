package ell.desk.talk;

import ell.core.talk.PinMap;
import ell.core.talk.PinTable;
import ell.desk.mark.Hairline;
import ell.desk.mark.Ink;
import ell.desk.mark.Picture;
import ell.desk.mark.Type;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.text.TextAlignment;

/// Two combs of pins with threads between them: signals at the left, pins at the right. A thread
/// that had to move is slate and thick; one that cannot be met hangs loose.
final class CombPicture extends Picture {
  private static final double TOOTH = 16;
  private static final double MOST_ROW = 24;

  private Optional<PinMap> map = Optional.empty();
  private List<PinTable.Need> needs = List.of();
  private List<PinTable.Offer> offers = List.of();

  CombPicture() {
    super("signals and pins");
    setMinSize(200, 120);
  }

  void show(TalkModel.Shown s) {
    map = s.pins();
    needs = s.kept().needs();
    offers = s.kept().offers().getOrDefault(s.module(), List.of());
    setAccessibleText(
        map.map(m ->
                m.assignments().size()
                    + " signals have a pin, "
                    + m.kept()
                    + " stay, "
                    + m.unmet().size()
                    + " have none")
            .orElse("no pins"));
    redraw();
  }

  @Override
  protected void draw(GraphicsContext g, double w, double h) {
    if (map.isEmpty()) {
      return;
    }
    Ink ink = ink();
    PinMap m = map.get();
    Map<String, PinMap.Assignment> by = new LinkedHashMap<>();
    m.assignments().forEach(a -> by.put(a.signal(), a));
    List<String> pins = new ArrayList<>();
    // pins that carry something, in the order of the module; the others are counted
    offers.stream()
        .map(PinTable.Offer::pin)
        .filter(p -> m.assignments().stream().anyMatch(a -> a.pin().equals(p)))
        .forEach(pins::add);
    int most = Math.max(needs.size(), pins.size());
    double row = Math.min(MOST_ROW, (h - 40) / Math.max(1, most));
    double size = row < 13 ? 10 : 13;
    double left = w * 0.30;
    double right = w * 0.68;
    double top = 24;
    g.setFont(Type.bold(12));
    g.setFill(ink.ink2());
    g.setTextAlign(TextAlignment.RIGHT);
    Type.write(g, "signals", left - TOOTH - 6, 14);
    g.setTextAlign(TextAlignment.LEFT);
    Type.write(g, "pins", right + TOOTH + 6, 14);
    Hairline.upright(g, ink.ink(), left - TOOTH, top - 4, top + needs.size() * row, 2);
    Hairline.upright(g, ink.ink(), right + TOOTH, top - 4, top + pins.size() * row, 2);
    Map<String, Double> at = new LinkedHashMap<>();
    for (int i = 0; i < pins.size(); i++) {
      double y = top + (i + 0.5) * row;
      at.put(pins.get(i), y);
      pin(g, ink, m, pins.get(i), right, y, size, w);
    }
    for (int i = 0; i < needs.size(); i++) {
      double y = top + (i + 0.5) * row;
      PinMap.Assignment a = by.get(needs.get(i).signal());
      Hairline.level(g, ink.ink(), left - TOOTH, left, y, 1.4);
      g.setFont(a == null || a.changed() ? Type.bold(size) : Type.words(size));
      g.setFill(a == null ? ink.madder() : a.changed() ? ink.slate() : ink.ink());
      g.setTextAlign(TextAlignment.RIGHT);
      Type.write(
          g,
          Type.cut(Type.words(size), needs.get(i).signal(), left - TOOTH - 14),
          left - TOOTH - 6,
          y + 4);
      g.setTextAlign(TextAlignment.LEFT);
      if (a == null) {
        loose(g, ink, left, y, needs.get(i));
      } else {
        thread(g, ink, left, y, right, at.get(a.pin()), a.changed());
      }
    }
    long spare = offers.size() - pins.size();
    g.setFont(Type.words(11));
    g.setFill(ink.ink2());
    Type.write(
        g,
        spare + (spare == 1 ? " pin is spare" : " pins are spare"),
        right + TOOTH + 6,
        Math.min(h - 6, top + pins.size() * row + 16));
  }

  private static void thread(
      GraphicsContext g, Ink ink, double x0, double y0, double x1, double y1, boolean moved) {
    g.setStroke(moved ? ink.slate() : ink.ink());
    g.setLineWidth(moved ? 2.2 : 1);
    double pull = (x1 - x0) * 0.4;
    g.beginPath();
    g.moveTo(x0, y0);
    g.bezierCurveTo(x0 + pull, y0, x1 - pull, y1, x1, y1);
    g.stroke();
  }

  private static void loose(GraphicsContext g, Ink ink, double x, double y, PinTable.Need n) {
    g.setStroke(ink.madder());
    g.setLineWidth(1.8);
    g.setLineDashes(5, 3);
    g.beginPath();
    g.moveTo(x, y);
    g.bezierCurveTo(x + 30, y, x + 44, y + 2, x + 40, y + 18);
    g.stroke();
    g.setLineDashes();
    g.setFont(Type.words(11));
    g.setFill(ink.madder());
    Type.write(g, "needs " + String.join(" ", n.needs()), x + 48, y + 10);
  }

  private static void pin(
      GraphicsContext g, Ink ink, PinMap m, String pin, double x, double y, double size, double w) {
    Hairline.level(g, ink.ink(), x, x + TOOTH, y, 1.4);
    Optional<PinMap.Strapped> s = m.straps().stream().filter(p -> p.pin().equals(pin)).findFirst();
    g.setFont(Type.numbers(size));
    g.setFill(ink.ink());
    Type.write(g, pin, x + TOOTH + 6, y + 4);
    String note =
        s.map(t -> "strap, " + t.level() + (t.wrong() ? ": pulled wrong" : ""))
            .orElseGet(() ->
                m.conflicts().stream()
                    .filter(c -> c.pin().equals(pin) && c.why().contains("shared"))
                    .map(c -> c.why().substring(c.why().indexOf("shared")))
                    .findFirst()
                    .orElse(""));
    if (!note.isEmpty()) {
      double from = x + TOOTH + 12 + Type.width(Type.numbers(size), pin);
      g.setFont(Type.words(11));
      g.setFill(s.filter(PinMap.Strapped::wrong).isPresent() ? ink.madder() : ink.ochre());
      Type.write(g, Type.cut(Type.words(11), note, w - from - 6), from, y + 4);
    }
  }
}
