package ell.book;

import ell.core.entry.Entry;
import ell.core.entry.EntryJson;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.HashSet;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;

/// Holds a whole workspace against its chains: the file's structure, the entries, the photographs
/// and every other table.
final class Verifier {
  private final Connected to;
  private final Connection db;
  private final Map<String, String> named = new LinkedHashMap<>();
  private long photographs;

  private Verifier(Connected to) {
    this.to = to;
    this.db = to.db();
  }

  /// @throws SQLException when a server does not answer; a file that cannot be read is damaged
  static Verification verify(Connected to) throws SQLException {
    Verifier v = new Verifier(to);
    try {
      Optional<String> structure = to.structure();
      if (structure.isPresent()) {
        return bad(to.entries().count(), structure.get());
      }
      return v.everything();
    } catch (SQLException e) {
      if (!(to instanceof FileConnected)) {
        throw e;
      }
      return bad(0, damaged(e.getMessage()));
    }
  }

  static String damaged(String how) {
    return "the file is damaged: " + how + "; open a backup, or see what can be saved with: rescue";
  }

  private static Verification bad(long entries, String message) {
    return new Verification(false, entries, OptionalLong.empty(), message);
  }

  private Verification everything() throws SQLException {
    EntryStore.Walked walked = to.entries().walk(this::names);
    long count = walked.count();
    if (!walked.why().isEmpty()) {
      return new Verification(false, count, walked.firstBad(), walked.why());
    }
    Optional<String> wrong = photographs();
    if (wrong.isEmpty()) {
      wrong = to.seals().wrong();
    }
    return wrong.isPresent()
        ? bad(count, wrong.get())
        : new Verification(
            true,
            count,
            OptionalLong.empty(),
            "all "
                + count
                + " entries are as they were written, and so are the tables"
                + (photographs == 0
                    ? ""
                    : " and " + photographs + " photographs, captures and recordings"));
  }

  /// Remembers the file that an entry names.
  private void names(Written w) {
    String body = w.body();
    if (body.contains("\"photo\"") && EntryJson.read(body) instanceof Entry.Photo p) {
      named.put(p.sha256(), "photograph");
    } else if (body.contains("\"capture\"")
        && EntryJson.read(body) instanceof Entry.Capture c
        && !c.sha256().isEmpty()) {
      named.put(c.sha256(), "capture");
    } else if (body.contains("\"talk\"")
        && EntryJson.read(body) instanceof Entry.Talk t
        && !t.sha256().isEmpty()) {
      named.put(t.sha256(), "recording");
    }
  }

  private Optional<String> photographs() throws SQLException {
    Set<String> there = new HashSet<>();
    try (Statement s = db.createStatement();
        ResultSet r = s.executeQuery("SELECT sha256, name, body FROM photograph")) {
      while (r.next()) {
        String key = r.getString(1);
        String is = HexFormat.of().formatHex(SealStore.sha256().digest(r.getBytes(3)));
        if (!is.equals(key)) {
          String kind = named.getOrDefault(key, "photograph");
          return Optional.of("the " + kind + " '" + r.getString(2) + "' is not as it was kept");
        }
        there.add(key);
        photographs++;
      }
    }
    return named.entrySet().stream()
        .filter(n -> !there.contains(n.getKey()))
        .findFirst()
        .map(n -> "a " + n.getValue() + " that the book names is missing: " + n.getKey());
  }
}
