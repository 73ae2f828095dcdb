package ell.desk.shell;

import javafx.scene.Node;

/// What a station may ask of the window around it.
public interface Host {
  /// Lays something over the window, in place of what lay there.
  void lay(Node node);

  /// Takes away what was laid over.
  void clear();
}
