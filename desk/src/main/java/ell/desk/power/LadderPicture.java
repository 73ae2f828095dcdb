package ell.desk.power;

import ell.core.entry.Entry;
import ell.core.power.Ladder;
import ell.core.power.Ladder.RailSpec;
import ell.core.power.Ladder.Step;
import ell.core.power.LadderState;
import ell.core.power.PowerFacts;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import ell.core.rack.Standing.Mark;
import ell.desk.mark.Hairline;
import ell.desk.mark.Ink;
import ell.desk.mark.LimitStrip;
import ell.desk.mark.Marks;
import ell.desk.mark.Picture;
import ell.desk.mark.Type;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.text.TextAlignment;

/// The voltage ladder: rails at their height on a volt scale, regulators on the arrows that drop
/// from one rail to the next, readings on limit strips; a rail that is not read yet is dashed.
final class LadderPicture extends Picture {
  private static final double SCALE = 44;
  private PowerModel.Shown shown;

  LadderPicture() {
    super("voltage ladder");
    setMinSize(300, 180);
  }

  void show(PowerModel.Shown what) {
    shown = what;
    StringBuilder s = new StringBuilder("voltage ladder");
    for (RailSpec r : what.work().plan().ladder().supplied()) {
      s.append(", ").append(r.net()).append(' ');
      s.append(
          PowerModel.reading(what, r)
              .map(x ->
                  EngineeringNumber.print(x.value(), x.unit(), 4)
                      + " "
                      + x.verdict().map(v -> v.words()).orElse(""))
              .orElse("not read"));
    }
    setAccessibleText(s.toString());
    redraw();
  }

  @Override
  protected void draw(GraphicsContext g, double w, double h) {
    if (shown == null) {
      return;
    }
    Ink ink = ink();
    double top = 56;
    double bottom = h - 16;
    Map<String, LadderLayout.Line> lines =
        LadderLayout.of(shown.work().plan().ladder(), SCALE + 12, w - SCALE - 12, top, bottom);
    if (lines.isEmpty()) {
      g.setFont(Type.words(13));
      g.setFill(ink.ink2());
      Type.write(g, "No rail is named in the netlist. Press L to write the ladder.", 20, 40);
      return;
    }
    double most = lines.values().stream().mapToDouble(l -> l.rail().volts()).max().orElse(1);
    scale(g, ink, most, top, bottom, w);
    notDrawn(g, ink, w);
    for (LadderLayout.Line l : lines.values()) {
      rail(g, ink, l);
    }
    for (LadderLayout.Line l : lines.values()) {
      loads(g, ink, l, bottom);
      l.fed().ifPresent(s -> step(g, ink, s, lines.get(s.from()), l));
    }
  }

  private static void scale(
      GraphicsContext g, Ink ink, double most, double top, double bottom, double w) {
    Hairline.upright(g, ink.ink2(), SCALE, top - 12, bottom, 1);
    g.setFont(Type.numbers(11));
    g.setFill(ink.ink2());
    g.setTextAlign(TextAlignment.RIGHT);
    double step = most > 30 ? 10 : most > 16 ? 5 : most > 6 ? 2 : most > 2 ? 1 : 0.5;
    for (double v = 0; v <= most * 1.0001; v += step / 2) {
      double y = bottom - v / most * (bottom - top);
      boolean major = Math.abs(v / step - Math.rint(v / step)) < 1e-9;
      Hairline.level(g, ink.ink2(), SCALE - (major ? 8 : 4), SCALE, y, 1);
      if (major) {
        g.setFill(ink.ink2());
        Type.write(g, EngineeringNumber.print(v, Unit.VOLT), SCALE - 10, y + 3.5);
      }
    }
    g.setTextAlign(TextAlignment.LEFT);
    Hairline.level(g, ink.ink2(), SCALE, w - 8, bottom, 2);
    g.setFont(Type.words(11));
    g.setTextAlign(TextAlignment.RIGHT);
    Type.write(g, "0 V", w - 10, bottom - 5);
    g.setTextAlign(TextAlignment.LEFT);
  }

  private void rail(GraphicsContext g, Ink ink, LadderLayout.Line l) {
    RailSpec r = l.rail();
    Optional<Entry.Reading> reading = PowerModel.reading(shown, r);
    Optional<Verdict> verdict = PowerFacts.of(shown.work().state()).verdict(r);
    boolean next =
        shown.phase() == PowerModel.Phase.ON
            && shown.next().filter(n -> n.net().equals(r.net())).isPresent();
    g.setStroke(verdict.map(ink::of).orElse(ink.ink()));
    g.setLineWidth(reading.isPresent() ? 2.6 : 1.4);
    if (reading.isEmpty()) {
      g.setLineDashes(6, 4);
    }
    g.strokeLine(l.x0(), l.y(), l.x1(), l.y());
    g.setLineDashes();
    double tx = l.x0() + 20;
    if (next) {
      Marks.paint(g, ink, Mark.NEXT, l.x1() + 2, l.y(), 6);
    }
    double nameWidth = l.column() - 26;
    g.setFont(Type.bold(13));
    g.setFill(ink.ink());
    Type.write(g, Type.cut(Type.bold(13), r.net() + output(r), nameWidth), tx, l.y() - 6);
    if (reading.isPresent()) {
      Entry.Reading x = reading.get();
      g.setFont(Type.numbersBold(15));
      g.setFill(verdict.map(ink::of).orElse(ink.ink()));
      String value =
          EngineeringNumber.print(x.value(), x.unit(), Math.abs(x.value()) < 1e-9 ? 1 : 4);
      Type.write(g, value, tx, l.y() - 22);
      verdict.ifPresent(v ->
          Marks.paint(
              g,
              ink,
              Marks.of(v),
              tx + Type.width(Type.numbersBold(15), value) + 11,
              l.y() - 27,
              4.5));
    } else {
      g.setFont(Type.words(11));
      g.setFill(next ? ink.slate() : ink.ink2());
      String tail = r.readAt().isEmpty() ? "" : " at " + r.readAt();
      Type.write(
          g,
          Type.cut(Type.words(11), (next ? "next" : "not read") + tail, nameWidth),
          tx,
          l.y() - 22);
    }
    double stripWidth = Math.clamp(l.column() - 30, 60, 150);
    boolean roomBelow = getHeight() - 16 - l.y() > 34;
    if (roomBelow && r.guessed()) {
      g.setFont(Type.words(11));
      g.setFill(ink.ochre());
      Type.write(
          g,
          Type.cut(
              Type.words(11),
              "? " + EngineeringNumber.print(r.volts(), Unit.VOLT, 3) + " guessed",
              nameWidth),
          tx,
          l.y() + 18);
    } else if (roomBelow) {
      LimitStrip.paint(
          g,
          ink,
          new LimitStrip.Shown(
              PowerModel.limits(r),
              reading.map(Entry.Reading::value),
              reading.flatMap(Entry.Reading::uncertainty).orElse(0.0),
              verdict,
              Unit.VOLT),
          tx,
          l.y() + 22,
          stripWidth,
          true);
    }
  }

  /// What there is no room for is named all the same.
  private void notDrawn(GraphicsContext g, Ink ink, double w) {
    Ladder ladder = shown.work().plan().ladder();
    List<String> others =
        ladder.sources().stream()
            .filter(s -> !LadderLayout.drawn(ladder).contains(s))
            .map(s -> {
              Optional<RailSpec> r = ladder.rail(s.rail());
              String read =
                  r.flatMap(x -> PowerModel.reading(shown, x))
                      .map(x -> " " + EngineeringNumber.print(x.value(), x.unit(), 4))
                      .orElse(" not read");
              return s.rail()
                  + read
                  + (ladder.raises(s)
                      ? " (output " + ladder.channel(s) + ")"
                      : " (not raised: nothing says its volts)");
            })
            .toList();
    if (!others.isEmpty()) {
      g.setFont(Type.words(11));
      g.setFill(ink.ink2());
      g.setTextAlign(TextAlignment.RIGHT);
      Type.write(
          g,
          Type.cut(
              Type.words(11), "after it, each in its turn: " + String.join(", ", others), w - 60),
          w - 10,
          12);
      g.setTextAlign(TextAlignment.LEFT);
    }
  }

  /// On which output of the supply a source hangs, where there are several.
  private String output(RailSpec r) {
    Ladder ladder = shown.work().plan().ladder();
    return LadderLayout.drawn(ladder).size() < 2
        ? ""
        : ladder.sources().stream()
            .filter(s -> s.rail().equals(r.net()))
            .map(s -> " · output " + ladder.channel(s))
            .findFirst()
            .orElse("");
  }

  /// What hangs on a rail, with what it draws: blocks below the line, those of one kind together.
  private void loads(GraphicsContext g, Ink ink, LadderLayout.Line l, double bottom) {
    List<LoadBlock> blocks =
        LoadBlock.of(shown.work().plan().revision(), shown.work().plan().ladder(), l.rail().net());
    double y = l.y() + 52;
    double width = Math.min(l.column() - 40, 190);
    if (blocks.isEmpty() || width < 84) {
      return;
    }
    double x = l.x0() + 30;
    int shownBlocks = 0;
    for (LoadBlock b : blocks) {
      if (y + 32 > bottom - 4 || shownBlocks == MOST_BLOCKS) {
        break;
      }
      Hairline.level(g, ink.ink2(), x - 10, x, y + 14, 1);
      g.setFill(ink.sheet());
      g.fillRect(x, y, width, 28);
      g.setStroke(ink.ink2());
      g.setLineWidth(1);
      if (b.guessed()) {
        g.setLineDashes(3, 3);
      }
      g.strokeRect(x + 0.5, y + 0.5, width, 28);
      g.setLineDashes();
      g.setFont(Type.bold(11));
      g.setFill(ink.ink());
      Type.write(g, Type.cut(Type.bold(11), b.name(), width - 10), x + 5, y + 11.5);
      g.setFont(Type.words(11));
      g.setFill(ink.ink2());
      Type.write(g, Type.cut(Type.words(11), b.words(), width - 10), x + 5, y + 24);
      y += 34;
      shownBlocks++;
    }
    if (shownBlocks > 0) {
      Hairline.upright(g, ink.ink2(), x - 10, l.y(), y - 34 + 14, 1);
    }
  }

  private static final int MOST_BLOCKS = 4;

  /// Heights between two rails from which there is room for one line of words beside a part, and
  /// for two, in pixel.
  private static final double ONE_LINE = 64;

  private static final double TWO_LINES = 88;

  private void step(
      GraphicsContext g, Ink ink, Step s, LadderLayout.Line from, LadderLayout.Line to) {
    double x = to.x0() + 4;
    g.setStroke(ink.ink());
    g.setLineWidth(1.2);
    double gap = to.y() - from.y();
    Optional<LadderState.RegulatorHeat> heat =
        shown.state().regulators().stream()
            .filter(r -> r.step().part().equals(s.part()))
            .findFirst();
    if (gap < 44) {
      // almost the same height: the part sits in the line, at the edge of the column
      double bx = to.x0() - 9;
      if (gap > 1) {
        g.strokeLine(bx, from.y(), bx, to.y());
        g.strokeLine(bx, to.y(), to.x0(), to.y());
      }
      box(g, ink, s.part(), bx, (from.y() + to.y()) / 2);
      return;
    }
    g.strokeLine(x, from.y(), x, to.y() - 6);
    g.setFill(ink.ink());
    g.fillPolygon(
        new double[] {x - 4, x + 4, x}, new double[] {to.y() - 8, to.y() - 8, to.y() - 1}, 3);
    double y = middle(from, to);
    box(g, ink, s.part(), x, y);
    g.setFont(Type.words(11));
    g.setFill(ink.ink2());
    String words =
        switch (s.kind()) {
          case SWITCHING -> String.format(Locale.ROOT, "switching %.0f %%", s.efficiency() * 100);
          case LINEAR -> "linear";
          case PASS -> "passes on";
          case DIODE -> "diode";
        };
    double tx = x + 26;
    if (gap < ONE_LINE) {
      return; // the name of the lower rail takes the room
    }
    Type.write(g, Type.cut(Type.words(11), words, to.column() - 30), tx, y - 1);
    if (gap < TWO_LINES) {
      return;
    }
    heat.ifPresent(q -> {
      String text =
          EngineeringNumber.print(q.dissipation(), Unit.WATT, 2)
              + (Double.isFinite(q.junction())
                  ? String.format(Locale.ROOT, " · %.0f °C", q.junction())
                  : "");
      Type.write(g, Type.cut(Type.words(11), text, to.column() - 30), tx, y + 12);
    });
  }

  /// Where the part sits on its arrow: in the middle, clear of what is written over the lower rail.
  private static double middle(LadderLayout.Line from, LadderLayout.Line to) {
    double gap = to.y() - from.y();
    return from.y() + (gap < 110 ? gap * 0.36 : Math.min(gap * 0.5, gap - 52));
  }

  private static void box(GraphicsContext g, Ink ink, String name, double x, double y) {
    double w = Math.max(34, Type.width(Type.bold(11), name) + 12);
    g.setFill(ink.sheet());
    g.fillRect(x - w / 2, y - 10, w, 20);
    g.setStroke(ink.ink());
    g.setLineWidth(1.2);
    g.strokeRect(x - w / 2, y - 10, w, 20);
    g.setFont(Type.bold(11));
    g.setFill(ink.ink());
    g.setTextAlign(TextAlignment.CENTER);
    Type.write(g, name, x, y + 4);
    g.setTextAlign(TextAlignment.LEFT);
  }
}
