package ell.desk.key;

import java.util.Arrays;
import java.util.List;
import java.util.function.BooleanSupplier;
import java.util.function.Supplier;
import javafx.scene.input.KeyCodeCombination;
import javafx.scene.input.KeyCombination;
import javafx.scene.input.KeyEvent;

/// One thing that the interface can do.
///
/// @param id a fixed word, for tests
/// @param group under which the sheet of keys lists it
/// @param words what it does, as it stands now
/// @param keys any of which does it
/// @param whileTyping whether it also works while the tape is typed into
/// @param atHand whether it stands in the line of keys under the tape while it can be done
/// @param there whether it can be done now
/// @param act does it
public record Command(
    String id,
    String group,
    Supplier<String> words,
    List<KeyCombination> keys,
    boolean whileTyping,
    boolean atHand,
    BooleanSupplier there,
    Runnable act) {
  /// A command that is always there.
  public static Command of(String id, String group, String words, String keys, Runnable act) {
    return new Command(id, group, () -> words, keys(keys), false, false, () -> true, act);
  }

  /// The same command, also while typing.
  public Command whileTypingToo() {
    return new Command(id, group, words, keys, true, atHand, there, act);
  }

  /// The same command, in the line of keys while it can be done.
  public Command inLine() {
    return new Command(id, group, words, keys, whileTyping, true, there, act);
  }

  /// The same command, there only at times.
  public Command when(BooleanSupplier there) {
    return new Command(id, group, words, keys, whileTyping, atHand, there, act);
  }

  /// The same command with words that depend on where one is.
  public Command saying(Supplier<String> now) {
    return new Command(id, group, now, keys, whileTyping, atHand, there, act);
  }

  private static List<KeyCombination> keys(String text) {
    return Arrays.stream(text.split(" or ")).map(Command::key).toList();
  }

  /// A combination by the toolkit's own name of its key; any other word would match nothing,
  /// silently.
  private static KeyCombination key(String name) {
    if (KeyCombination.valueOf(name) instanceof KeyCodeCombination k) {
      return k;
    }
    throw new IllegalArgumentException("there is no key named '" + name + "'");
  }

  /// Whether a key press means this command.
  public boolean means(KeyEvent e) {
    return keys.stream().anyMatch(k -> k.match(e));
  }

  /// Its keys as they are shown.
  public String keyText() {
    return String.join(
        " or ",
        keys.stream()
            .map(k -> k.getDisplayText().replace("Back Space", "Backspace"))
            .distinct()
            .toList());
  }
}
