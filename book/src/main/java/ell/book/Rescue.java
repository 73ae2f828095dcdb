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
import java.util.Arrays;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;

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
    private final Set<Long> absent = new TreeSet<>();

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
      List<Long> gone = new ArrayList<>();
      Chain chain = new Chain();
      byte[] before = Chain.START;
      for (long n = 1; n <= last; n++) {
        long number = n;
        Optional<Row> found = part("entry " + number, Optional.<Row>empty(), () -> entry(number));
        if (found.isEmpty()) {
          gone.add(number);
          continue;
        }
        Written w = found.get().written();
        byte[] next = chain.next(before, w.number(), w.at(), w.board(), w.body());
        // where the chain goes on over what is not there, it never was: a server left it out
        if (!Arrays.equals(next, found.get().hash())) {
          gone.forEach(g -> all.add(lost(g, all)));
        } else {
          gone.forEach(absent::remove);
        }
        gone.clear();
        before = found.get().hash();
        all.add(w);
      }
      gone.forEach(g -> all.add(lost(g, all)));
      absent.forEach(g -> missing.add("entry " + g + ": it is not there"));
      return all;
    }

    /// What stands in the place of an entry that is lost.
    private static Written lost(long number, List<Written> before) {
      String lost = "entry " + number + " of the damaged workspace could not be read";
      return new Written(
          number,
          before.isEmpty() ? NO_TIME : before.getLast().at(),
          "",
          EntryJson.write(new Entry.Note(lost)));
    }

    private record Row(Written written, byte[] hash) {}

    private Optional<Row> entry(long number) throws SQLException {
      try (PreparedStatement p =
          db.prepareStatement(
              "SELECT at, board, body, hash FROM entry NOT INDEXED WHERE number = ?")) {
        p.setLong(1, number);
        try (ResultSet r = p.executeQuery()) {
          if (!r.next()) {
            absent.add(number);
            return Optional.empty();
          }
          OffsetDateTime.parse(r.getString(1));
          EntryJson.read(r.getString(3)); // what nobody understands would stop every later reading
          return Optional.of(
              new Row(
                  new Written(number, r.getString(1), r.getString(2), r.getString(3)),
                  r.getBytes(4)));
        }
      }
    }
  }
}
