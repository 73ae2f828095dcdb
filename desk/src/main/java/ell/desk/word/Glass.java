package ell.desk.word;

import javafx.collections.ListChangeListener;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.control.Labeled;
import javafx.scene.control.TextInputControl;
import javafx.scene.control.Tooltip;
import javafx.scene.text.Text;

/// The pane of glass between what the window says and who reads it: it follows every text that is
/// put into the window and shows it in the language of the day. What is typed is never touched, nor
/// what is marked to be left.
public final class Glass {
  private static final String OVER = "ell.glass";
  private static final String SAID = "ell.glass.said";
  private static final String LEAVE = "ell.glass.leave";

  private Glass() {}

  /// Leaves a node and everything in it as it is: what is not Ell's own words.
  public static void leave(Node node) {
    node.getProperties().put(LEAVE, true);
  }

  /// What a node tells who listens, before it was put into a language; null where it tells nothing.
  public static String told(Node node) {
    return node.getProperties().get(SAID) instanceof Followed f
        ? f.said()
        : node.getAccessibleText();
  }

  /// Lays the glass over a node and everything that is in it now and later.
  public static void over(Node node) {
    if (node == null || node.getProperties().putIfAbsent(OVER, true) != null) {
      return;
    }
    if (node.getProperties().containsKey(LEAVE)) {
      return;
    }
    node.getProperties().put(SAID, Followed.follow(node.accessibleTextProperty()));
    switch (node) {
      case TextInputControl t -> Followed.follow(t.promptTextProperty());
      case Labeled l -> {
        Followed.follow(l.textProperty());
        l.tooltipProperty().addListener((_, _, t) -> tip(t));
        tip(l.getTooltip());
        l.graphicProperty().addListener((_, _, g) -> over(g));
        over(l.getGraphic());
      }
      case Text t -> Followed.follow(t.textProperty());
      case Parent p -> {
        p.getChildrenUnmodifiable()
            .addListener(
                (ListChangeListener<Node>)
                    c -> {
                      while (c.next()) {
                        c.getAddedSubList().forEach(Glass::over);
                      }
                    });
        p.getChildrenUnmodifiable().forEach(Glass::over);
      }
      default -> {}
    }
  }

  private static void tip(Tooltip t) {
    if (t != null && t.getProperties().putIfAbsent(OVER, true) == null) {
      Followed.follow(t.textProperty());
    }
  }
}
