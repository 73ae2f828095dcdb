package ell.desk.shell;

import ell.book.Place;
import ell.files.pdf.QrCode;
import ell.work.page.PageServer;
import ell.work.space.ActException;
import java.io.IOException;
import java.util.List;
import java.util.Optional;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;

/// Boards on a phone, from the window: begins to listen when it is told to and not before, says the
/// address and the code, and ends with the workspace at the latest.
public final class Phone {
  private final DeskModel desk;
  private final Runner run;
  private final ReadOnlyObjectWrapper<State> state =
      new ReadOnlyObjectWrapper<>(this, "state", new Off(""));

  // used on the worker only
  private PageServer server;

  Phone(DeskModel desk, Runner run) {
    this.desk = desk;
    this.run = run;
  }

  /// How it stands.
  public sealed interface State {}

  /// Nothing listens.
  ///
  /// @param problem why it could not begin, empty when nobody tried
  public record Off(String problem) implements State {}

  /// It listens.
  ///
  /// @param where what a browser is told
  /// @param code what is typed there
  /// @param board the only one that is shown; all of them when empty
  /// @param square the address as a QR code, row by row
  public record On(String where, String code, Optional<String> board, boolean[][] square)
      implements State {}

  /// How it stands, changing on the interface thread.
  public ReadOnlyObjectProperty<State> stateProperty() {
    return state.getReadOnlyProperty();
  }

  /// Addresses that this machine could be reached at, for the maker to choose one.
  public static List<String> addresses() {
    return PageServer.addresses();
  }

  /// Begins to listen.
  ///
  /// @param at `ADDRESS:PORT`
  /// @param board this one only
  public void begin(String at, Optional<String> board) {
    desk.act(w -> {
      end();
      try {
        Place place = w.book().place();
        server = PageServer.begin(place, at, board);
        String where = server.where().toString();
        show(new On(where, server.code(), board, QrCode.modules(where)));
      } catch (IOException | ActException e) {
        end();
        show(new Off(Loader.words(e)));
      }
    });
  }

  /// Listens no more.
  public void stop() {
    desk.act(_ -> end());
  }

  /// Listens no more. Runs on the worker.
  void end() {
    if (server != null) {
      try {
        server.close();
      } catch (IOException e) {
        desk.say(Loader.words(e));
      }
      server = null;
      show(new Off(""));
    }
  }

  private void show(State s) {
    run.ui().execute(() -> state.set(s));
  }
}
