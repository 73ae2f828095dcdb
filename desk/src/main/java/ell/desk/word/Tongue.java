package ell.desk.word;

import ell.work.word.Language;
import ell.work.word.Words;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Consumer;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;

/// The language that the window is read in now; one for the whole program, as what is drawn has
/// nobody to ask.
public final class Tongue {
  private static final ReadOnlyObjectWrapper<Words> NOW =
      new ReadOnlyObjectWrapper<>(null, "words", Words.in(Language.ENGLISH));
  private static final AtomicReference<Consumer<String>> HEARD = new AtomicReference<>();

  private Tongue() {}

  /// The words now.
  public static ReadOnlyObjectProperty<Words> wordsProperty() {
    return NOW.getReadOnlyProperty();
  }

  /// The language now.
  public static Language language() {
    return NOW.get().language();
  }

  /// Changes the language of everything that is shown.
  public static void speak(Language language) {
    if (language != language()) {
      NOW.set(Words.in(language));
    }
  }

  /// A text as it is shown.
  public static String shown(String text) {
    Consumer<String> ear = HEARD.get();
    if (ear != null && text != null) {
      ear.accept(text);
    }
    return NOW.get().shown(text);
  }

  /// Tells of every text before it is put into the language, until nobody is to be told any more.
  ///
  /// @param ear takes each; null for nobody
  public static void listen(Consumer<String> ear) {
    HEARD.set(ear);
  }
}
