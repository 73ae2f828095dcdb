package ell.desk.window;

import javafx.scene.Node;
import javafx.scene.layout.Pane;
import javafx.scene.layout.StackPane;

/// What is laid over the window: one sheet at a time, and at most one more over it that gives it
/// back when it is closed.
final class LaidOver {
  private final Pane root;
  private final Runnable back;
  private Node top;
  private Node under;

  /// @param root over which it is laid
  /// @param back gives the keys back when nothing is laid over any more
  LaidOver(Pane root, Runnable back) {
    this.root = root;
    this.back = back;
  }

  boolean isThere() {
    return top != null;
  }

  /// What lies on top; null when nothing does.
  Node top() {
    return top;
  }

  /// Lays a sheet over the window in place of what was there.
  void lay(Node sheet) {
    take(top);
    take(under);
    under = null;
    put(sheet);
  }

  /// Lays a sheet over what is there, which comes back afterwards; until then it stays in the
  /// window unseen, for a sheet that leaves the window hears of nothing any more.
  void layOver(Node sheet) {
    take(under);
    under = top;
    if (under != null) {
      under.getParent().setVisible(false);
    }
    put(sheet);
  }

  /// Takes away what lies on top.
  void close() {
    if (top == null) {
      return;
    }
    take(top);
    top = under;
    under = null;
    if (top != null) {
      top.getParent().setVisible(true);
      top.requestFocus();
    } else {
      back.run();
    }
  }

  private void put(Node sheet) {
    top = sheet;
    StackPane shade = new StackPane(sheet);
    shade.getStyleClass().add("shade");
    root.getChildren().add(shade);
    sheet.requestFocus();
  }

  private void take(Node sheet) {
    if (sheet != null) {
      root.getChildren().remove(sheet.getParent());
    }
  }
}
