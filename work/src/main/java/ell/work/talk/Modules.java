package ell.work.talk;

import ell.core.talk.PinTable.Need;
import ell.core.talk.PinTable.Offer;
import ell.files.Source;
import ell.files.TextFile;
import ell.files.csv.PinTables;
import ell.work.space.ActException;
import ell.work.space.Workspace;
import ell.work.space.Workspace.Change;
import java.io.IOException;
import java.io.Reader;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;

/// Controller boards that the maker has, each with what its pins offer.
public final class Modules {
  static final String KEPT = "modules";
  private static final String NEEDS = "talk-needs";

  private final Workspace space;

  /// Those of a workspace.
  public Modules(Workspace space) {
    this.space = space;
  }

  /// All of them by name.
  public Map<String, List<Offer>> all() throws IOException, ActException {
    Optional<String> text = space.book().keepsake(KEPT).filter(t -> !t.isBlank());
    return text.isEmpty()
        ? Map.of()
        : PinFiles.whole(PinTables.modules(Source.of(KEPT, text.get())));
  }

  /// Keeps one, in place of one of the same name.
  ///
  /// @throws ActException when the name is no word
  public void keep(String name, List<Offer> offers) throws IOException, ActException {
    if (!name.matches("[A-Za-z0-9][A-Za-z0-9_.-]*")) {
      throw new ActException("a module's name is a word, found '" + name + "'");
    }
    Map<String, List<Offer>> all = new LinkedHashMap<>(all());
    all.put(name, offers);
    put(all);
  }

  /// What the firmware of a revision needs, empty when nobody said.
  public List<Need> needs(String design, String name) throws IOException, ActException {
    Optional<String> text = space.book().document(design, name, NEEDS).filter(t -> !t.isBlank());
    return text.isEmpty()
        ? List.of()
        : PinFiles.whole(PinTables.needs(Source.of(NEEDS, text.get())));
  }

  /// Keeps what the firmware of a revision needs, and where its signals are.
  ///
  /// @param file a table of signals
  /// @param warned is told what of it was not used, a sentence each
  /// @throws ActException when it is no such table, naming the file, the line and what was expected
  public List<Need> keepNeeds(String design, String name, Path file, Consumer<String> warned)
      throws IOException, ActException {
    List<Need> all = PinFiles.read(file, PinTables::needs, warned);
    Source source = Source.of(file);
    try (Reader text = TextFile.open(source, TextFile.encoding(source))) {
      space.book().putDocument(design, name, NEEDS, text.readAllAsString());
    }
    space.tell(new Change.Revision(design, name));
    return all;
  }

  private void put(Map<String, List<Offer>> all) throws IOException {
    space.book().putKeepsake(KEPT, PinTables.write(all));
    space.tell(new Change.Everything());
  }
}
