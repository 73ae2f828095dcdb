package ell.desk.word;

import ell.work.word.Words;
import java.util.Objects;
import javafx.beans.InvalidationListener;
import javafx.beans.property.Property;
import javafx.beans.value.ChangeListener;
import javafx.beans.value.WeakChangeListener;

/// One text of the window: what was said, and how it is shown.
final class Followed implements InvalidationListener {
  private final Property<String> text;
  private String said;
  private String shown;

  /// Holds the weak listener for as long as the text is there.
  private final ChangeListener<Words> again = (_, _, _) -> show();

  private Followed(Property<String> text) {
    this.text = text;
  }

  /// Follows a text from now on; one that is bound shows what it is bound to.
  static Followed follow(Property<String> text) {
    Followed f = new Followed(text);
    text.addListener(f);
    Tongue.wordsProperty().addListener(new WeakChangeListener<>(f.again));
    f.invalidated(text);
    return f;
  }

  /// What was said, whatever is shown.
  String said() {
    return said;
  }

  @Override
  public void invalidated(javafx.beans.Observable o) {
    String now = text.getValue();
    if (Objects.equals(now, shown)) {
      return; // it was put there below
    }
    said = now;
    show();
  }

  private void show() {
    if (said == null || text.isBound()) {
      shown = text.getValue();
      return;
    }
    shown = Tongue.shown(said);
    if (!Objects.equals(shown, text.getValue())) {
      text.setValue(shown);
    }
  }
}
