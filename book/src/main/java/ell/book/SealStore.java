package ell.book;

import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// The seals over everything that is no entry: revisions, what is kept with them, builds, the
/// shelf, parameters and keepsakes. Each time one of them is written, the hash of all its rows is
/// chained behind the last seal together with the end of the chain of entries; so a row that was
/// changed behind Ell's back shows, and a book that was cut off shows too. SHA-256 (FIPS 180-4).
/// Callers hold the transaction.
final class SealStore {
  /// What is sealed as one, with the rows that belong to it.
  private static final Map<String, List<String>> SINGLE = new LinkedHashMap<>();

  /// What is sealed by revision.
  private static final Map<String, List<String>> BY_REVISION = new LinkedHashMap<>();

  static final String BUILDS = "builds";
  static final String SHELF = "shelf";
  static final String PARAMETERS = "parameters";
  static final String KEEPSAKES = "keepsakes";
  private static final String REVISION = "revision ";
  private static final String DOCUMENTS = "documents ";

  static {
    SINGLE.put(
        BUILDS, List.of("SELECT * FROM build ORDER BY id", "SELECT * FROM board ORDER BY serial"));
    SINGLE.put(SHELF, List.of("SELECT * FROM shelf ORDER BY position"));
    SINGLE.put(PARAMETERS, List.of("SELECT * FROM parameter ORDER BY code, name"));
    SINGLE.put(KEEPSAKES, List.of("SELECT * FROM keepsake ORDER BY kind"));
    BY_REVISION.put(
        REVISION,
        List.of(
            "SELECT * FROM revision WHERE id = ?",
            "SELECT * FROM part WHERE revision = ? ORDER BY position",
            "SELECT * FROM joint WHERE revision = ? ORDER BY position",
            "SELECT * FROM corner WHERE revision = ? ORDER BY loop, position"));
    BY_REVISION.put(DOCUMENTS, List.of("SELECT * FROM document WHERE revision = ? ORDER BY kind"));
  }

  private final Connection db;
  private final String heads;

  /// @param heads a query of numbers of entries and the hash that the chain over all boards has
  ///   there
  SealStore(Connection db, String heads) {
    this.db = db;
    this.heads = heads;
  }

  /// What is sealed of a revision: itself, and what is kept with it.
  List<String> ofRevision(String design, String name) throws SQLException {
    try (PreparedStatement p =
        db.prepareStatement("SELECT id FROM revision WHERE design = ? AND name = ?")) {
      p.setString(1, design);
      p.setString(2, name);
      try (ResultSet r = p.executeQuery()) {
        return r.next() ? List.of(REVISION + r.getLong(1), DOCUMENTS + r.getLong(1)) : List.of();
      }
    }
  }

  /// Whether nothing was ever sealed: the file is new, or of an older Ell.
  boolean none() throws SQLException {
    return count("SELECT count(*) FROM seal") == 0;
  }

  private long count(String sql) throws SQLException {
    try (Statement s = db.createStatement();
        ResultSet r = s.executeQuery(sql)) {
      return r.next() ? r.getLong(1) : 0;
    }
  }

  /// Everything that has rows.
  List<String> all() throws SQLException {
    List<String> all = new ArrayList<>();
    try (Statement s = db.createStatement();
        ResultSet r = s.executeQuery("SELECT id FROM revision ORDER BY id")) {
      while (r.next()) {
        all.add(REVISION + r.getLong(1));
        all.add(DOCUMENTS + r.getLong(1));
      }
    }
    all.addAll(SINGLE.keySet());
    List<String> filled = new ArrayList<>();
    for (String what : all) {
      if (hash(what).rows > 0) {
        filled.add(what);
      }
    }
    return filled;
  }

  /// Seals something as it is now.
  ///
  /// @param end where the chain of entries ends
  void seal(String what, String at, EntryStore.End end) throws SQLException {
    long number = 1;
    byte[] before = Chain.START;
    try (Statement s = db.createStatement();
        ResultSet r =
            s.executeQuery("SELECT number, hash FROM seal ORDER BY number DESC LIMIT 1")) {
      if (r.next()) {
        number = r.getLong(1) + 1;
        before = r.getBytes(2);
      }
    }
    byte[] body = hash(what).digest;
    try (PreparedStatement p = db.prepareStatement("INSERT INTO seal VALUES (?,?,?,?,?,?,?)")) {
      p.setLong(1, number);
      p.setString(2, at);
      p.setString(3, what);
      p.setLong(4, end.number());
      p.setBytes(5, end.hash());
      p.setBytes(6, body);
      p.setBytes(7, chained(before, number, at, what, end.number(), end.hash(), body));
      if (p.executeUpdate() != 1) {
        throw new SQLException("the seal of " + what + " was not written");
      }
    }
  }

  private static byte[] chained(
      byte[] before, long number, String at, String what, long entries, byte[] head, byte[] body) {
    MessageDigest d = sha256();
    d.update(before);
    d.update(
        (number + "\n" + at + "\n" + what + "\n" + entries + "\n")
            .getBytes(StandardCharsets.UTF_8));
    d.update(head);
    return d.digest(body);
  }

  /// Checks every seal and everything that is sealed.
  ///
  /// @return what is not as it was sealed, empty when all is
  Optional<String> wrong() throws SQLException {
    Map<String, byte[]> last = new LinkedHashMap<>();
    byte[] before = Chain.START;
    long count = 0;
    try (Statement s = db.createStatement();
        ResultSet r =
            s.executeQuery(
                "WITH e (number, hash) AS ("
                    + heads
                    + ") SELECT s.number, s.at, s.what, s.entries, s.head, s.body, s.hash, e.hash"
                    + " FROM seal s LEFT JOIN e ON e.number = s.entries ORDER BY s.number")) {
      while (r.next()) {
        count++;
        byte[] head = r.getBytes(5);
        byte[] hash = r.getBytes(7);
        byte[] right =
            chained(
                before,
                r.getLong(1),
                r.getString(2),
                r.getString(3),
                r.getLong(4),
                head,
                r.getBytes(6));
        if (r.getLong(1) != count || !Arrays.equals(hash, right)) {
          return Optional.of("seal " + count + " is not as it was written");
        }
        byte[] entry = r.getLong(4) == 0 ? Chain.START : r.getBytes(8);
        if (entry == null || !Arrays.equals(head, entry)) {
          return Optional.of(
              "the book was cut or changed: it held "
                  + r.getLong(4)
                  + " entries when "
                  + r.getString(3)
                  + " was sealed");
        }
        last.put(r.getString(3), r.getBytes(6));
        before = hash;
      }
    }
    for (Map.Entry<String, byte[]> e : last.entrySet()) {
      if (!Arrays.equals(hash(e.getKey()).digest, e.getValue())) {
        return Optional.of(words(e.getKey()) + " not as last written");
      }
    }
    for (String what : all()) {
      if (!last.containsKey(what)) {
        return Optional.of(words(what) + " not written by Ell");
      }
    }
    return Optional.empty();
  }

  private String words(String what) throws SQLException {
    for (String kind : BY_REVISION.keySet()) {
      if (what.startsWith(kind)) {
        String title = what;
        try (PreparedStatement p =
            db.prepareStatement("SELECT design, name FROM revision WHERE id = ?")) {
          p.setLong(1, Long.parseLong(what.substring(kind.length())));
          try (ResultSet r = p.executeQuery()) {
            if (r.next()) {
              title = r.getString(1) + " rev " + r.getString(2);
            }
          }
        }
        return kind.equals(REVISION)
            ? "the parts and joints of " + title + " are"
            : "what is kept with " + title + " is";
      }
    }
    return "the table of " + what + " is";
  }

  /// The queries that find what is sealed as one, with `?` for the number of a revision.
  ///
  /// @throws SQLException when this Ell knows of no such thing
  static List<String> queries(String what) throws SQLException {
    List<String> queries = SINGLE.get(what);
    for (Map.Entry<String, List<String>> e : BY_REVISION.entrySet()) {
      if (what.startsWith(e.getKey())) {
        queries = e.getValue();
      }
    }
    if (queries == null) {
      throw new SQLException("a seal of '" + what + "', which this Ell does not know");
    }
    return queries;
  }

  /// Number of the revision that something sealed is of, empty when it is of none.
  static String idOf(String what) {
    return BY_REVISION.keySet().stream()
        .filter(what::startsWith)
        .map(k -> what.substring(k.length()))
        .findFirst()
        .orElse("");
  }

  private record Hashed(byte[] digest, long rows) {}

  /// The hash of everything that is sealed as one.
  byte[] digest(String what) throws SQLException {
    return hash(what).digest;
  }

  private Hashed hash(String what) throws SQLException {
    List<String> queries = queries(what);
    String id = idOf(what);
    MessageDigest d = sha256();
    long rows = 0;
    for (String sql : queries) {
      d.update(sql.getBytes(StandardCharsets.UTF_8));
      try (PreparedStatement p = db.prepareStatement(sql)) {
        if (!id.isEmpty()) {
          p.setLong(1, Long.parseLong(id));
        }
        try (ResultSet r = p.executeQuery()) {
          int columns = r.getMetaData().getColumnCount();
          while (r.next()) {
            rows++;
            for (int c = 1; c <= columns; c++) {
              value(d, r.getObject(c));
            }
          }
        }
      }
    }
    return new Hashed(d.digest(), rows);
  }

  /// A value with its kind and length, so that no two rows look alike.
  private static void value(MessageDigest d, Object o) {
    switch (o) {
      case null -> d.update((byte) 'n');
      case Double r -> number(d, 'r', Double.doubleToLongBits(r));
      case Number i -> number(d, 'i', i.longValue());
      case byte[] b -> {
        number(d, 'b', b.length);
        d.update(b);
      }
      default -> {
        byte[] text = o.toString().getBytes(StandardCharsets.UTF_8);
        number(d, 't', text.length);
        d.update(text);
      }
    }
  }

  private static void number(MessageDigest d, char kind, long v) {
    d.update((byte) kind);
    d.update(ByteBuffer.allocate(Long.BYTES).putLong(v).array());
  }

  static MessageDigest sha256() {
    try {
      return MessageDigest.getInstance("SHA-256");
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException("every Java has SHA-256", e);
    }
  }
}
