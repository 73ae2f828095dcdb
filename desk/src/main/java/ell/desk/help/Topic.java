package ell.desk.help;

import ell.desk.word.Glass;
import javafx.scene.Node;

/// What help is asked about.
///
/// @param page where it stands, such as `beep`
/// @param words what is selected, in the words that the window uses for it; may be empty
public record Topic(String page, String words) {
  private static final String KEY = "ell.help";

  /// Says which page a node and everything in it belongs to.
  public static void mark(Node node, String page) {
    node.getProperties().put(KEY, page);
  }

  /// What a node is about: the page of the nearest node around it that has one, and its own words.
  ///
  /// @param otherwise the page where no node around it says one
  /// @param selected words of what is selected there, for a node that says none itself
  public static Topic of(Node node, String otherwise, String selected) {
    String words = node == null ? null : Glass.told(node);
    for (Node n = node; n != null; n = n.getParent()) {
      if (n.getProperties().get(KEY) instanceof String page) {
        return new Topic(page, words == null || page.equals(otherwise) ? selected : words);
      }
    }
    return new Topic(otherwise, selected);
  }
}
