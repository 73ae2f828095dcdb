package ell.desk.power;

import ell.core.power.PowerFacts;
import ell.core.power.RailSpread;
import ell.desk.shell.DeskModel;
import ell.desk.shell.Loader;
import ell.desk.shell.Snapshot;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import java.util.function.Function;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.ReadOnlyBooleanWrapper;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;

/// The rails of every board of the build, read from the book when they are looked at.
public final class EveryBoard {
  /// What is worked out, in words.
  static final String WHAT = "the rails of every board";

  private final DeskModel desk;
  private final Loader<List<RailSpread>> comparing;
  private final ReadOnlyBooleanWrapper shown = new ReadOnlyBooleanWrapper(this, "shown", false);
  private final ReadOnlyObjectWrapper<List<RailSpread>> rails =
      new ReadOnlyObjectWrapper<>(this, "rails", List.of());
  private Snapshot.Work work;

  /// @param loader makes a loader that shows what it found
  EveryBoard(
      DeskModel desk, Function<Consumer<List<RailSpread>>, Loader<List<RailSpread>>> loader) {
    this.desk = desk;
    this.comparing = loader.apply(rails::set);
  }

  /// Whether they are shown instead of the ladder.
  public ReadOnlyBooleanProperty shownProperty() {
    return shown.getReadOnlyProperty();
  }

  /// The rails, empty until they were asked for.
  public ReadOnlyObjectProperty<List<RailSpread>> railsProperty() {
    return rails.getReadOnlyProperty();
  }

  /// Turns from the ladder to the rails of every board, and back.
  public void turn() {
    shown.set(!shown.get());
    compare();
  }

  /// Another board is in hand, or its book is longer.
  void show(Snapshot.Work w) {
    work = w;
    compare();
  }

  private void compare() {
    if (work == null || !shown.get()) {
      return;
    }
    Snapshot.Work w = work;
    comparing.load(
        List.of(w.build().boards(), w.log().size(), w.board()),
        desk.reading(ws -> {
          Map<String, PowerFacts> facts = new LinkedHashMap<>();
          for (String b : w.build().boards()) {
            facts.put(b, PowerFacts.of(ws.state(b)));
          }
          return RailSpread.of(w.plan().ladder(), facts);
        }));
  }
}
