package ell.desk.shell;

import ell.core.rack.Stage;
import ell.desk.key.Command;
import java.io.IOException;
import java.util.List;
import java.util.Optional;
import java.util.function.BooleanSupplier;
import javafx.scene.Node;

/// A stage as the window sees it: its model, its view, its keys, what it wants at zoom and at
/// closing, its pictures for the documentation and its part of the offscreen demo. The window holds
/// a list of stations and names none of them.
public abstract class Station {
  /// The desk.
  protected final DeskModel desk;

  private Node view;

  /// A station on a desk.
  protected Station(DeskModel desk) {
    this.desk = desk;
  }

  /// Which stage.
  public abstract Stage stage();

  /// What the stage shows and can be asked to do.
  public abstract StageModel model();

  /// Makes the view; asked once, when somebody goes to the stage first.
  protected abstract Node makeView();

  /// The view.
  public final Node view() {
    if (view == null) {
      view = makeView();
    }
    return view;
  }

  /// Whether the view was made already.
  protected final boolean hasView() {
    return view != null;
  }

  /// What can be done by key at this stage.
  public List<Command> commands() {
    return List.of();
  }

  /// Makes the picture larger or smaller by a factor; nothing where there is none.
  public void zoom(double factor) {}

  /// A new view in which the step in hand fills the window, empty where there is none.
  public Optional<Node> bigView() {
    return Optional.empty();
  }

  /// The window closes: whatever is on is switched off before this returns.
  public void close() throws InterruptedException {}

  /// Its pictures in the documentation, the first of them named as the stage.
  public List<Shot> shots() {
    return List.of(new Shot(stage().key(), p -> p.stage(stage())));
  }

  /// Plays its part of the demo in the real window, and tells what it found.
  public void perform(Player p) throws IOException {}

  /// A picture of the documentation.
  ///
  /// @param name of the file, without its ending
  /// @param prepare brings the window to where the picture is taken
  /// @param after puts back what must not stay for the pictures that follow
  public record Shot(String name, Act prepare, Act after) {
    /// A picture after which nothing is to be put back.
    public Shot(String name, Act prepare) {
      this(name, prepare, _ -> {});
    }
  }

  /// Something that a player does.
  public interface Act {
    /// Does it.
    void play(Player p) throws IOException;
  }

  /// Whether this stage is shown and a board is in hand.
  protected final BooleanSupplier here() {
    return () -> desk.work().isPresent() && desk.navigation().at(stage());
  }

  /// Whether this stage is shown, a board is in hand, and something else is so.
  protected final BooleanSupplier here(BooleanSupplier and) {
    BooleanSupplier here = here();
    return () -> here.getAsBoolean() && and.getAsBoolean();
  }
}
