package ell.book;

import ell.core.board.Revision;
import ell.core.entry.Entry;
import ell.core.entry.EntryJson;
import ell.core.kit.ShelfLine;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// Reads what can still be read of a damaged workspace, row by row, and says what cannot.
///
/// @param contents for a new workspace; an entry that is lost leaves a note in its place, so that
///   the others keep their numbers
/// @param missing what could not be read, a sentence each
public record Rescue(Contents contents, List<String> missing) {
  private static final String NO_TIME = "1970-01-01T00:00Z";

  public Rescue {
    missing = List.copyOf(missing);
  }

  /// Reads a workspace as far as it can be.
  ///
  /// @throws BookException when it is no database any more
  public static Rescue read(Path named) throws BookException {
    Path file = BookFile.inspect(named);
    try (Connection db = BookFile.connectToLook(file)) {
      return new Reader(db).all();
    } catch (SQLException e) {
      throw new BookException(
          named + " is damaged beyond reading: " + e.getMessage() + "; open a backup", e);
    }
  }

  private interface Sql<T> {
    T run() throws SQLException;
  }

  private static final class Reader {
    private final Connection db;
    private final List<String> missing = new ArrayList<>();

    Reader(Connection db) {
      this.db = db;
    }

    /// A part of the whole, or what stands for it when it cannot be read.
    private <T> T part(String what, T otherwise, Sql<T> work) {
      try {
        return work.run();
      } catch (SQLException | RuntimeException e) {
        missing.add(what + ": " + e.getMessage());
        return otherwise;
      }
    }

    Rescue all() {
      RevisionStore revisions = new RevisionStore(db);
      ShelfStore shelf = new ShelfStore(db);
      List<Contents.Kept> kept = new ArrayList<>();
      for (RevisionStore.Id id :
          part("the list of revisions", List.<RevisionStore.Id>of(), revisions::list)) {
        String title = id.design() + " rev " + id.name();
        Optional<Revision> r =
            part(
                "revision " + title,
                Optional.<Revision>empty(),
                () -> revisions.load(id.design(), id.name()));
        Map<String, String> documents =
            part(
                "what is kept with " + title,
                Map.<String, String>of(),
                () -> revisions.documents(id.design(), id.name()));
        r.ifPresent(x -> kept.add(new Contents.Kept(x, documents)));
      }
      List<Build> builds =
          part("the builds", List.<Build>of(), revisions::builds).stream()
              .filter(b -> known(kept, b))
              .toList();
      List<ShelfLine> lines = part("the shelf", List.<ShelfLine>of(), shelf::lines);
      Map<String, Map<String, String>> parameters = new LinkedHashMap<>();
      for (String code :
          part("the parameters of parts", List.<String>of(), shelf::codesWithParameters)) {
        parameters.put(
            code,
            part("parameters of " + code, Map.<String, String>of(), () -> shelf.parameters(code)));
      }
      Map<String, String> keepsakes =
          part("what is kept with the workspace", Map.<String, String>of(), shelf::keepsakes);
      List<Contents.Photograph> photographs =
          part("the photographs", List.<Contents.Photograph>of(), this::photographs);
      List<Written> entries = entries();
      return new Rescue(
          new Contents(
              kept,
              builds,
              lines,
              parameters,
              keepsakes,
              photographs,
              entries,
              Chain.seal(entries)),
          missing);
    }

    private boolean known(List<Contents.Kept> kept, Build b) {
      boolean there =
          kept.stream()
              .anyMatch(k ->
                  k.revision().design().equals(b.design())
                      && k.revision().name().equals(b.revision()));
      if (!there) {
        missing.add("build " + b.id() + ": its revision cannot be read");
      }
      return there;
    }

    private List<Contents.Photograph> photographs() throws SQLException {
      List<Contents.Photograph> all = new ArrayList<>();
      try (Statement s = db.createStatement();
          ResultSet r = s.executeQuery("SELECT sha256, name, body FROM photograph")) {
        while (r.next()) {
          byte[] body = r.getBytes(3);
          if (HexFormat.of().formatHex(SealStore.sha256().digest(body)).equals(r.getString(1))) {
            all.add(new Contents.Photograph(r.getString(1), r.getString(2), body));
          } else {
            missing.add("photograph " + r.getString(2) + ": it is not as it was kept");
          }
        }
      } catch (SQLException e) {
        missing.add("further photographs: " + e.getMessage());
      }
      return all;
    }

    /// Each entry by its number: where one cannot be read, the next may be.
    private List<Written> entries() {
      long last =
          part(
              "the end of the entries",
              0L,
              () -> {
                try (Statement s = db.createStatement();
                    ResultSet r = s.executeQuery("SELECT max(number) FROM entry")) {
                  return r.next() ? r.getLong(1) : 0L;
                }
              });
      List<Written> all = new ArrayList<>();
      String at = NO_TIME;
      for (long n = 1; n <= last; n++) {
        long number = n;
        Optional<Written> w =
            part("entry " + number, Optional.<Written>empty(), () -> entry(number));
        if (w.isEmpty()) {
          String lost = "entry " + number + " of the damaged workspace could not be read";
          w = Optional.of(new Written(number, at, "", EntryJson.write(new Entry.Note(lost))));
        }
        at = w.get().at();
        all.add(w.get());
      }
      return all;
    }

    private Optional<Written> entry(long number) throws SQLException {
      try (PreparedStatement p =
          db.prepareStatement("SELECT at, board, body FROM entry NOT INDEXED WHERE number = ?")) {
        p.setLong(1, number);
        try (ResultSet r = p.executeQuery()) {
          if (!r.next()) {
            missing.add("entry " + number + ": it is not there");
            return Optional.empty();
          }
          OffsetDateTime.parse(r.getString(1));
          EntryJson.read(r.getString(3)); // what nobody understands would stop every later reading
          return Optional.of(new Written(number, r.getString(1), r.getString(2), r.getString(3)));
        }
      }
    }
  }
}
