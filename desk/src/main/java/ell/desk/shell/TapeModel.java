package ell.desk.shell;

import ell.core.entry.Entry;
import ell.work.act.Refusal;
import ell.work.tape.Meaning;
import java.util.List;
import java.util.Optional;
import javafx.beans.property.IntegerProperty;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.ReadOnlyBooleanWrapper;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;
import javafx.beans.property.SimpleIntegerProperty;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;

/// The one line to type into: says what it would log before Enter, completes names with Tab.
public final class TapeModel {
  private final DeskModel desk;
  private final StringProperty text = new SimpleStringProperty(this, "text", "");
  private final ReadOnlyStringWrapper hint = new ReadOnlyStringWrapper(this, "hint", "");
  private final ReadOnlyBooleanWrapper ready = new ReadOnlyBooleanWrapper(this, "ready");
  private final ReadOnlyBooleanWrapper wrong = new ReadOnlyBooleanWrapper(this, "wrong");
  private final IntegerProperty focusAsked = new SimpleIntegerProperty(this, "focusAsked");
  private final IntegerProperty leaveAsked = new SimpleIntegerProperty(this, "leaveAsked");
  private List<String> candidates = List.of();
  private int candidate = -1;
  private boolean completing;
  private final Loader<Optional<Refusal>> asking;

  TapeModel(DeskModel desk) {
    this.desk = desk;
    this.asking =
        new Loader<>(
            desk.runner().worker(), desk.runner().ui(), "whether a rule refuses it", this::asked);
    text.addListener((_, _, _) -> understand());
    desk.snapshotProperty().addListener((_, _, _) -> understand());
  }

  /// What is typed.
  public StringProperty textProperty() {
    return text;
  }

  /// What it would log, or what is missing.
  public ReadOnlyStringProperty hintProperty() {
    return hint.getReadOnlyProperty();
  }

  /// Whether Enter would log it.
  public ReadOnlyBooleanProperty readyProperty() {
    return ready.getReadOnlyProperty();
  }

  /// Whether it cannot be logged as it stands.
  public ReadOnlyBooleanProperty wrongProperty() {
    return wrong.getReadOnlyProperty();
  }

  /// Rises each time the line should take the keys.
  public IntegerProperty focusAskedProperty() {
    return focusAsked;
  }

  /// Rises each time the line should give the keys back to the stage.
  public IntegerProperty leaveAskedProperty() {
    return leaveAsked;
  }

  /// Begins a line and takes the keys.
  public void begin(String line) {
    text.set(line);
    focusAsked.set(focusAsked.get() + 1);
  }

  /// Gives the keys back; what was typed stays until it is logged or cleared.
  public void leave() {
    text.set("");
    leaveAsked.set(leaveAsked.get() + 1);
  }

  private Optional<Meaning> meaning() {
    return desk.work().map(w -> w.tape().understand(text.get(), w.state(), w.log()));
  }

  private void understand() {
    if (!completing) {
      candidate = -1;
      candidates = List.of();
    }
    ready.set(false);
    wrong.set(false);
    if (text.get().isBlank()) {
      hint.set("");
      asking.forget();
      return;
    }
    switch (meaning().orElse(null)) {
      case null -> hint.set("no board is in hand");
      case Meaning.Ready r -> {
        ready.set(true);
        hint.set("↵ logs to " + desk.navigation().boardProperty().get() + ": " + r.words());
        ask(r.entries());
      }
      case Meaning.Unfinished u -> hint.set(u.hint());
      case Meaning.Wrong x -> {
        wrong.set(true);
        hint.set(x.why());
      }
    }
  }

  /// Completes what is typed with the next name that fits.
  public void complete() {
    desk.work()
        .ifPresent(w -> {
          if (candidates.isEmpty()) {
            candidates = w.tape().complete(text.get(), 12);
          }
          if (!candidates.isEmpty()) {
            candidate = (candidate + 1) % candidates.size();
            completing = true;
            text.set(candidates.get(candidate));
            completing = false;
            if (candidates.size() > 1 && !ready.get()) {
              hint.set("Tab: " + String.join(" ", candidates.stream().map(String::strip).toList()));
            }
          }
        });
  }

  /// Logs what is typed, when it can be logged.
  public void enter() {
    if (text.get().isBlank()) {
      leave();
      return;
    }
    if (meaning().orElse(null) instanceof Meaning.Ready r) {
      String typed = text.get();
      desk.log(
          r.entries(),
          () -> {
            if (text.get().equals(typed)) {
              leave();
            }
          },
          this::refuse);
    }
  }

  /// The rules of the work are asked while one still types, off the interface thread.
  private void ask(List<Entry> entries) {
    String serial = desk.navigation().boardProperty().get();
    asking.load(
        List.of(text.get(), desk.work().map(Snapshot.Work::moment).orElse(0L)),
        desk.reading(w -> w.refusal(serial, entries)));
  }

  private void asked(Optional<Refusal> no) {
    no.ifPresent(this::refuse);
  }

  /// The line stays as it was typed: a word more may make it right.
  private void refuse(Refusal r) {
    ready.set(false);
    wrong.set(true);
    hint.set(r.text());
  }
}
