package ell.desk.help;

import ell.desk.mark.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import javafx.scene.Node;
import javafx.scene.control.Hyperlink;
import javafx.scene.control.Label;
import javafx.scene.image.Image;
import javafx.scene.image.ImageView;
import javafx.scene.layout.ColumnConstraints;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.text.Font;
import javafx.scene.text.Text;
import javafx.scene.text.TextFlow;
import org.commonmark.ext.gfm.tables.TableBlock;
import org.commonmark.ext.gfm.tables.TableCell;
import org.commonmark.ext.gfm.tables.TableRow;
import org.commonmark.node.AbstractVisitor;
import org.commonmark.node.BulletList;
import org.commonmark.node.Code;
import org.commonmark.node.FencedCodeBlock;
import org.commonmark.node.HardLineBreak;
import org.commonmark.node.Heading;
import org.commonmark.node.IndentedCodeBlock;
import org.commonmark.node.Link;
import org.commonmark.node.ListItem;
import org.commonmark.node.OrderedList;
import org.commonmark.node.Paragraph;
import org.commonmark.node.SoftLineBreak;
import org.commonmark.node.StrongEmphasis;

/// Makes what is shown of a passage: words with marks, lists, tables, pictures.
final class PassageNodes {
  private static final double SIZE = 14;

  private final double width;
  private final Consumer<String> follow;

  /// @param width how wide a page is, in pixels
  /// @param follow goes where a way leads
  PassageNodes(double width, Consumer<String> follow) {
    this.width = width;
    this.follow = follow;
  }

  /// The node of a passage.
  Region of(Pages.Passage p) {
    Region r = block(p.node());
    r.setAccessibleText(p.text());
    return r;
  }

  private Region block(org.commonmark.node.Node n) {
    return switch (n) {
      case Heading h -> flow(h, h.getLevel() == 1 ? 22 : h.getLevel() == 2 ? 17 : 15, true);
      case Paragraph p
          when p.getFirstChild() instanceof org.commonmark.node.Image i && i.getNext() == null ->
          picture(i);
      case BulletList l -> list(l, 0);
      case OrderedList l ->
          list(l, l.getMarkerStartNumber() == null ? 1 : l.getMarkerStartNumber());
      case FencedCodeBlock c -> code(c.getLiteral());
      case IndentedCodeBlock c -> code(c.getLiteral());
      case TableBlock t -> table(t);
      default -> flow(n, SIZE, false);
    };
  }

  private VBox list(org.commonmark.node.Node l, int from) {
    VBox all = new VBox(4);
    int at = from;
    for (org.commonmark.node.Node i = l.getFirstChild(); i != null; i = i.getNext()) {
      if (!(i instanceof ListItem)) {
        continue;
      }
      VBox item = new VBox(4);
      for (org.commonmark.node.Node b = i.getFirstChild(); b != null; b = b.getNext()) {
        item.getChildren().add(block(b));
      }
      Label mark = new Label(from == 0 ? "–" : at++ + ".");
      mark.getStyleClass().add("help-mark");
      mark.setMinWidth(from == 0 ? 12 : 26);
      HBox.setHgrow(item, Priority.ALWAYS);
      all.getChildren().add(new HBox(6, mark, item));
    }
    return all;
  }

  private static Region code(String text) {
    Label l = new Label(text.stripTrailing());
    l.getStyleClass().add("help-code");
    l.setWrapText(true);
    l.setMinHeight(Region.USE_PREF_SIZE);
    l.setMaxWidth(Double.MAX_VALUE);
    return l;
  }

  private Region picture(org.commonmark.node.Image i) {
    VBox box = new VBox(3);
    Pages.picture(i.getDestination())
        .ifPresent(u -> {
          ImageView v = new ImageView(new Image(u.toExternalForm(), width, 0, true, true));
          v.setFitWidth(width);
          v.setPreserveRatio(true);
          box.getChildren().add(v);
        });
    Text below = new Text(text(i));
    below.getStyleClass().add("help-text");
    below.setFont(Type.words(12));
    box.getChildren().add(new TextFlow(below));
    return box;
  }

  private static String text(org.commonmark.node.Node n) {
    StringBuilder b = new StringBuilder();
    n.accept(
        new AbstractVisitor() {
          @Override
          public void visit(org.commonmark.node.Text t) {
            b.append(t.getLiteral());
          }
        });
    return b.toString();
  }

  private Region table(TableBlock t) {
    GridPane g = new GridPane();
    g.setHgap(14);
    g.setVgap(5);
    List<TableRow> rows = new ArrayList<>();
    for (org.commonmark.node.Node part = t.getFirstChild(); part != null; part = part.getNext()) {
      for (org.commonmark.node.Node r = part.getFirstChild(); r != null; r = r.getNext()) {
        rows.add((TableRow) r);
      }
    }
    List<Double> longest = new ArrayList<>();
    for (int y = 0; y < rows.size(); y++) {
      int x = 0;
      for (org.commonmark.node.Node c = rows.get(y).getFirstChild(); c != null; c = c.getNext()) {
        TextFlow f = flow(c, 13, ((TableCell) c).isHeader());
        g.add(f, x, y);
        double wide = Math.min(text(c).length() + 3, 60);
        if (longest.size() <= x) {
          longest.add(wide);
        } else {
          longest.set(x, Math.max(longest.get(x), wide));
        }
        x++;
      }
    }
    double all = longest.stream().mapToDouble(d -> d).sum();
    for (double d : longest) {
      ColumnConstraints c = new ColumnConstraints();
      c.setPercentWidth(100 * d / all);
      g.getColumnConstraints().add(c);
    }
    g.setMaxWidth(width);
    return g;
  }

  /// A run of words with its marks.
  private TextFlow flow(org.commonmark.node.Node n, double size, boolean bold) {
    TextFlow f = new TextFlow();
    f.setLineSpacing(3);
    f.setMaxWidth(width);
    into(f, n, size, bold);
    return f;
  }

  private void into(TextFlow f, org.commonmark.node.Node n, double size, boolean bold) {
    for (org.commonmark.node.Node c = n.getFirstChild(); c != null; c = c.getNext()) {
      switch (c) {
        case org.commonmark.node.Text t ->
            f.getChildren().add(run(t.getLiteral(), bold ? Type.bold(size) : Type.words(size)));
        case Code k ->
            f.getChildren().add(run(k.getLiteral(), new Font("B612 Mono Regular", size)));
        case SoftLineBreak _ -> f.getChildren().add(run(" ", Type.words(size)));
        case HardLineBreak _ -> f.getChildren().add(run("\n", Type.words(size)));
        case StrongEmphasis s -> into(f, s, size, true);
        case Link l -> f.getChildren().add(way(l, size));
        case org.commonmark.node.Image i -> f.getChildren().add(picture(i));
        default -> into(f, c, size, bold);
      }
    }
  }

  private static Text run(String words, Font font) {
    Text t = new Text(words);
    t.setFont(font);
    t.getStyleClass().add("help-text");
    return t;
  }

  /// A way to another page of the help; whatever leads elsewhere is only words, for nothing is
  /// asked of a network.
  private Node way(Link l, double size) {
    String to = l.getDestination();
    String page = to.replaceFirst("#.*", "").replaceFirst("\\.md$", "");
    if (!Pages.NAMES.contains(page)) {
      return run(text(l), Type.words(size));
    }
    Hyperlink h = new Hyperlink(text(l));
    h.setFont(Type.words(size));
    h.getStyleClass().add("help-way");
    h.setOnAction(_ -> follow.accept(page));
    h.setAccessibleText("to the page " + page);
    return h;
  }
}
