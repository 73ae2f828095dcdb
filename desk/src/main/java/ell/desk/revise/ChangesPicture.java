package ell.desk.revise;

import ell.core.revise.ChangeCheck;
import ell.core.revise.Erratum;
import ell.core.revise.Improvements;
import ell.desk.mark.Ink;
import ell.desk.mark.Picture;
import ell.desk.mark.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.IntConsumer;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.paint.Color;
import javafx.scene.text.TextAlignment;

/// The list for the next revision: each item with what its drawing shows, then what the books
/// suggest, then what changed and nobody asked for.
final class ChangesPicture extends Picture {
  private static final double LINE = 17;

  private ReviseModel.Shown shown;
  private final List<double[]> spans = new ArrayList<>();
  private IntConsumer turn = _ -> {};

  ChangesPicture() {
    super("changes for the next revision");
    setOnMouseClicked(e -> {
      for (double[] s : spans) {
        if (e.getY() >= s[1] && e.getY() < s[2]) {
          turn.accept((int) s[0]);
          return;
        }
      }
    });
  }

  void onLine(IntConsumer listener) {
    turn = listener;
  }

  void show(ReviseModel.Shown s) {
    shown = s;
    if (s != null) {
      setAccessibleText("changes for the next revision. " + String.join(". ", words(s)));
    }
    redraw();
  }

  /// A sentence for each line, for screen readers.
  static List<String> words(ReviseModel.Shown s) {
    List<String> all = new ArrayList<>();
    for (Erratum e : s.answer().changes()) {
      all.add(e.id() + " " + e.title() + change(s, e).map(c -> ", " + c.state().key()).orElse(""));
    }
    s.suggestions().forEach(x -> all.add("suggested: " + x.title() + ", " + x.why()));
    s.answer().check().ifPresent(c -> c.unexplained().forEach(u -> all.add("unasked: " + u)));
    return all;
  }

  private static Optional<ChangeCheck.Change> change(ReviseModel.Shown s, Erratum e) {
    return s.answer()
        .check()
        .flatMap(c -> c.changes().stream().filter(x -> x.item().id().equals(e.id())).findFirst());
  }

  /// A block of lines that is drawn or left out whole.
  private record Block(int line, String head, List<String> below, int state) {}

  private List<Block> blocks() {
    List<Block> all = new ArrayList<>();
    int n = 0;
    for (Erratum e : shown.answer().changes()) {
      Optional<ChangeCheck.Change> c = change(shown, e);
      List<String> below = new ArrayList<>(c.map(ChangeCheck.Change::evidence).orElse(List.of()));
      if (below.isEmpty()) {
        below.add(e.fixWords().isBlank() ? e.severity().words() : "should: " + e.fixWords());
      }
      all.add(
          new Block(
              n++,
              e.id() + "  " + e.title(),
              below.stream().limit(4).toList(),
              c.map(x -> x.state().ordinal()).orElse(3)));
    }
    for (Improvements.Suggestion x : shown.suggestions()) {
      all.add(new Block(n++, x.title(), List.of(x.why()), 4));
    }
    shown
        .answer()
        .check()
        .filter(c -> !c.unexplained().isEmpty())
        .ifPresent(c -> {
          List<String> some = new ArrayList<>(c.unexplained().stream().limit(10).toList());
          if (c.unexplained().size() > 10) {
            some.add("and " + (c.unexplained().size() - 10) + " more: diff says them all");
          }
          all.add(new Block(-1, "Changed, and nothing on the list asks for it", some, 5));
        });
    return all;
  }

  @Override
  protected void draw(GraphicsContext g, double w, double h) {
    spans.clear();
    if (shown == null) {
      return;
    }
    Ink ink = ink();
    List<Block> all = blocks();
    if (all.isEmpty()) {
      g.setFont(Type.words(13));
      g.setFill(ink.ink2());
      Type.write(g, "Nothing is on the list, and the books suggest nothing.", 8, 24);
      Type.write(g, "On the tape: wish WORDS, or erratum WORDS.", 8, 44);
      return;
    }
    // from the top, unless what is turned to would lie below
    int from = 0;
    while (from < all.size() - 1 && below(all, from, h)) {
      from++;
    }
    double y = 6;
    int i = from;
    for (; i < all.size(); i++) {
      Block b = all.get(i);
      double tall = tall(b);
      if (y + tall > h && i > from) {
        break;
      }
      block(g, ink, b, y, tall, w);
      spans.add(new double[] {b.line(), y, y + tall});
      y += tall;
    }
    if (i < all.size()) {
      g.setFont(Type.words(11));
      g.setFill(ink.ink2());
      g.setTextAlign(TextAlignment.RIGHT);
      Type.write(g, "and " + (all.size() - i) + " more below", w - 6, h - 2);
      g.setTextAlign(TextAlignment.LEFT);
    }
  }

  private boolean below(List<Block> all, int from, double h) {
    double y = 6;
    for (int i = from; i < all.size(); i++) {
      y += tall(all.get(i));
      if (all.get(i).line() == shown.line()) {
        return y > h - 14;
      }
    }
    return false;
  }

  private static double tall(Block b) {
    return 22 + LINE * b.below().size() + 8;
  }

  private void block(GraphicsContext g, Ink ink, Block b, double y, double tall, double w) {
    if (b.line() == shown.line()) {
      g.setFill(ink.stick());
      g.fillRect(0, y + 1, w, tall - 2);
      g.setFill(ink.brass());
      g.fillRect(0, y + 1, 3, tall - 2);
    }
    double word = 92;
    g.setFont(Type.bold(12));
    g.setFill(colour(ink, b.state()));
    state(g, ink, b.state(), 16, y + 13);
    Type.write(g, said(b.state()), 28, y + 17);
    g.setFont(Type.bold(13));
    g.setFill(ink.ink());
    Type.write(g, Type.cut(Type.bold(13), b.head(), w - word - 22), word + 12, y + 17);
    g.setFont(Type.words(12));
    g.setFill(ink.ink2());
    for (int i = 0; i < b.below().size(); i++) {
      Type.write(
          g,
          Type.cut(Type.words(12), b.below().get(i), w - word - 22),
          word + 12,
          y + 17 + LINE * (i + 1));
    }
    g.setStroke(ink.hair());
    g.setLineWidth(1);
    g.strokeLine(0, y + tall - 0.5, w, y + tall - 0.5);
  }

  private static String said(int state) {
    return switch (state) {
      case 0 -> "done";
      case 1 -> "partly";
      case 2 -> "forgotten";
      case 3 -> "to draw";
      case 4 -> "suggested";
      default -> "unasked";
    };
  }

  private static Color colour(Ink ink, int state) {
    return switch (state) {
      case 0 -> ink.verdigris();
      case 1 -> ink.slate();
      case 2 -> ink.madder();
      default -> ink.ink2();
    };
  }

  /// Done a full square, partly a half one, forgotten one crossed out, to draw an open one.
  private static void state(GraphicsContext g, Ink ink, int state, double x, double y) {
    double r = 5;
    g.setStroke(colour(ink, state));
    g.setLineWidth(1.6);
    switch (state) {
      case 0 -> g.fillRect(x - r, y - r, 2 * r, 2 * r);
      case 1 -> {
        g.fillPolygon(new double[] {x - r, x + r, x - r}, new double[] {y + r, y + r, y - r}, 3);
        g.strokeRect(x - r, y - r, 2 * r, 2 * r);
      }
      case 2 -> {
        g.strokeRect(x - r, y - r, 2 * r, 2 * r);
        g.strokeLine(x - r, y - r, x + r, y + r);
        g.strokeLine(x - r, y + r, x + r, y - r);
      }
      case 3 -> g.strokeRect(x - r, y - r, 2 * r, 2 * r);
      default -> g.strokeLine(x - r, y, x + r, y);
    }
  }
}
