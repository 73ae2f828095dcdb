package ell.book;

import ell.core.entry.Entry;
import ell.core.entry.EntryJson;
import ell.core.entry.Logged;
import ell.core.kit.ShelfLine;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.sql.Types;
import java.time.Clock;
import java.time.OffsetDateTime;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import org.flywaydb.core.Flyway;
import org.sqlite.SQLiteConfig;


/// A workspace: one `.ell` file. Every write is one transaction that is synced to the disk before
/// the call returns. One writer at a time; readers may come along. Safe for several threads.
public final class Book implements AutoCloseable {
  /// Version of the tables that this program writes.
  public static final int VERSION = 3;

  private static final int APPLICATION_ID = 1164733473;
  private static final byte[] MAGIC = "SQLite format 3\0".getBytes(StandardCharsets.US_ASCII);

  private final Path file;
  private final Connection db;
  private final WriterLock lock;
  private final Clock clock;
  private final RevisionStore revisions;
  private final ShelfStore shelf;
  private final Chain chain = new Chain();
  private PreparedStatement insert;
  private long lastNumber;
  private byte[] lastHash = Chain.START;

  private Book(Path file, Connection db, WriterLock lock, Clock clock) throws SQLException {
    this.file = file;
    this.db = db;
    this.lock = lock;
    this.clock = clock;
    this.revisions = new RevisionStore(db);
    this.shelf = new ShelfStore(db);
    try (Statement s = db.createStatement();
        ResultSet r =
            s.executeQuery("SELECT number, hash FROM entry ORDER BY number DESC LIMIT 1")) {
      if (r.next()) {
        lastNumber = r.getLong(1);
        lastHash = r.getBytes(2);
      }
    }
  }

  /// Makes a new workspace and opens it for writing. It appears whole or not at all.
  ///
  /// @throws BookException when something with that name is there, or the place cannot be written
  public static Book create(Path file, Clock clock) throws BookException {
    if (Files.exists(file)) {
      throw new BookException(file + " is already there; choose another name");
    }
    Path folder = file.toAbsolutePath().getParent();
    if (folder == null || !Files.isDirectory(folder)) {
      throw new BookException("there is no folder " + folder + " to put the workspace in");
    }
    Path part = file.resolveSibling(file.getFileName() + ".new");
    try {
      Files.deleteIfExists(part);
      migrate(part);
      try (Connection c = connect(part, false)) {
        checkpoint(c);
      }
      Files.move(part, file, StandardCopyOption.ATOMIC_MOVE);
    } catch (SQLException e) {
      throw BookException.of(file, e);
    } catch (IOException | RuntimeException e) {
      throw new BookException(file + " cannot be made: " + e.getMessage(), e);
    } finally {
      deleteQuietly(part);
    }
    return open(file, clock);
  }

  private static void deleteQuietly(Path part) {
    for (String end : new String[] {"", "-wal", "-shm"}) {
      try {
        Files.deleteIfExists(part.resolveSibling(part.getFileName() + end));
      } catch (IOException e) {
        // a leftover of a workspace that was never made harms nobody
      }
    }
  }

  /// Opens a workspace for writing, bringing its tables up to date if they are of an older version.
  ///
  /// @throws BookException when it is no workspace, newer, read-only, damaged or held by another
  ///   writer
  public static Book open(Path file, Clock clock) throws BookException {
    inspect(file);
    if (!Files.isWritable(file) || !Files.isWritable(file.toAbsolutePath().getParent())) {
      throw new BookException(file + " is read-only: make it writable, or only look at it");
    }
    WriterLock lock = WriterLock.take(file);
    Connection db = null;
    try {
      db = connect(file, false);
      if (version(file, db) < VERSION) {
        db.close();
        migrate(file);
        db = connect(file, false);
      }
      return new Book(file, db, lock, clock);
    } catch (SQLException e) {
      closeQuietly(db, lock);
      throw BookException.of(file, e);
    } catch (BookException | RuntimeException e) {
      closeQuietly(db, lock);
      throw e instanceof BookException b
          ? b
          : new BookException(file + " cannot be brought up to date: " + e.getMessage(), e);
    }
  }

  /// Opens a workspace to look at it only; a writer may be at work in it.
  public static Book openReadOnly(Path file) throws BookException {
    inspect(file);
    Connection db = null;
    try {
      db = connect(file, true);
      if (version(file, db) < VERSION) {
        throw new BookException(file + " is of an older version; open it for writing once");
      }
      return new Book(file, db, null, Clock.systemDefaultZone());
    } catch (SQLException e) {
      closeQuietly(db, null);
      throw BookException.of(file, e);
    } catch (BookException e) {
      closeQuietly(db, null);
      throw e;
    }
  }

  private static void closeQuietly(Connection db, WriterLock lock) {
    try {
      if (db != null) {
        db.close();
      }
      if (lock != null) {
        lock.close();
      }
    } catch (SQLException | IOException e) {
      // the first problem is the one to tell
    }
  }

  private static void inspect(Path file) throws BookException {
    if (!Files.exists(file)) {
      throw new BookException("there is no workspace " + file + "; make one with: new " + file);
    }
    if (Files.isDirectory(file)) {
      throw new BookException(file + " is a folder, not a workspace");
    }
    try (InputStream in = Files.newInputStream(file)) {
      byte[] head = in.readNBytes(MAGIC.length);
      if (!Arrays.equals(head, MAGIC)) {
        throw new BookException(file + " is not a workspace");
      }
    } catch (BookException e) {
      throw e;
    } catch (IOException e) {
      throw new BookException(file + " cannot be read: " + e.getMessage(), e);
    }
  }

  private static int version(Path file, Connection db) throws SQLException, BookException {
    if (pragma(db, "application_id") != APPLICATION_ID) {
      throw new BookException(file + " is a database, but not a workspace");
    }
    int version = pragma(db, "user_version");
    if (version > VERSION) {
      throw new BookException(
          file
              + " was written by a newer Ell (version "
              + version
              + ", this one knows "
              + VERSION
              + "); use that one");
    }
    return version;
  }

  private static int pragma(Connection db, String name) throws SQLException {
    try (Statement s = db.createStatement();
        ResultSet r = s.executeQuery("PRAGMA " + name)) {
      return r.next() ? r.getInt(1) : 0;
    }
  }

  private static Connection connect(Path file, boolean readOnly) throws SQLException {
    SQLiteConfig c = new SQLiteConfig();
    c.setReadOnly(readOnly);
    c.enforceForeignKeys(true);
    c.setBusyTimeout(5000);
    if (!readOnly) {
      c.setJournalMode(SQLiteConfig.JournalMode.WAL);
      c.setSynchronous(SQLiteConfig.SynchronousMode.FULL);
    }
    boolean alone = readOnly && !Files.isWritable(file.toAbsolutePath().getParent());
    String url =
        "jdbc:sqlite:file:"
            + file.toAbsolutePath().toUri().getRawPath()
            + (alone ? "?immutable=1" : "");
    return c.createConnection(url);
  }

  private static void migrate(Path file) {
    Flyway.configure(Book.class.getClassLoader())
        .dataSource("jdbc:sqlite:" + file.toAbsolutePath(), null, null)
        .locations("classpath:ell/book/migration")
        .load()
        .migrate();
  }

  private static void checkpoint(Connection c) throws SQLException {
    try (Statement s = c.createStatement()) {
      s.execute("PRAGMA wal_checkpoint(TRUNCATE)");
    }
  }

  /// The file.
  public Path file() {
    return file;
  }

  /// Whether it was opened only to be looked at.
  public boolean readOnly() {
    return lock == null;
  }

  /// Work that touches the tables.
  interface Sql<T> {
    T run() throws SQLException;
  }

  private synchronized <T> T reading(Sql<T> work) throws BookException {
    try {
      return work.run();
    } catch (SQLException e) {
      throw BookException.of(file, e);
    }
  }

  private synchronized <T> T writing(Sql<T> work) throws BookException {
    if (lock == null) {
      throw new BookException(file + " was opened to be looked at only");
    }
    try {
      db.setAutoCommit(false);
      try {
        T result = work.run();
        db.commit();
        return result;
      } catch (SQLException | RuntimeException e) {
        db.rollback();
        throw e;
      } finally {
        db.setAutoCommit(true);
      }
    } catch (SQLException e) {
      throw BookException.of(file, e);
    }
  }

  private <T> T alone(Sql<T> statement) throws BookException {
    if (lock == null) {
      throw new BookException(file + " was opened to be looked at only");
    }
    return reading(statement);
  }

  /// The revisions, as read and written by this workspace.
  public List<RevisionStore.Id> revisions() throws BookException {
    return reading(revisions::list);
  }

  /// A revision.
  public Optional<ell.core.board.Revision> revision(String design, String name)
      throws BookException {
    return reading(() -> revisions.load(design, name));
  }

  /// Stores a revision whole, in one transaction.
  ///
  /// @throws BookException when this design has a revision of that name already
  public void importRevision(ell.core.board.Revision revision) throws BookException {
    if (revision(revision.design(), revision.name()).isPresent()) {
      throw new BookException(
          revision.title() + " is already in " + file + "; a revision is imported once");
    }
    writing(() -> {
      revisions.store(revision, now().toString());
      return null;
    });
  }

  /// Stores a revision, its documents and, if given, the shelf with it, in one transaction.
  ///
  /// @param documents text by kind
  public void importAll(
      ell.core.board.Revision revision,
      Optional<List<ShelfLine>> shelf,
      Map<String, String> documents)
      throws BookException {
    if (revision(revision.design(), revision.name()).isPresent()) {
      throw new BookException(
          revision.title() + " is already in " + file + "; a revision is imported once");
    }
    writing(() -> {
      revisions.store(revision, now().toString());
      if (shelf.isPresent()) {
        this.shelf.store(shelf.get(), lastNumber);
      }
      for (Map.Entry<String, String> d : documents.entrySet()) {
        revisions.document(revision.design(), revision.name(), d.getKey(), d.getValue());
      }
      return null;
    });
  }

  /// A document that the maker keeps with a revision, such as the power ladder, as JSON.
  public Optional<String> document(String design, String name, String kind) throws BookException {
    return reading(() -> revisions.document(design, name, kind));
  }

  /// Keeps a document with a revision, in place of the one before.
  public void putDocument(String design, String name, String kind, String body)
      throws BookException {
    writing(() -> {
      revisions.document(design, name, kind, body);
      return null;
    });
  }

  /// Keeps several documents with a revision, all or none.
  ///
  /// @param documents text by kind
  public void putDocuments(String design, String name, Map<String, String> documents)
      throws BookException {
    writing(() -> {
      for (Map.Entry<String, String> d : documents.entrySet()) {
        revisions.document(design, name, d.getKey(), d.getValue());
      }
      return null;
    });
  }

  /// Makes a build. Serials are the prefix and a number of at least two digits, counted from 1 or
  /// from where boards with this prefix end.
  public Build makeBuild(
      String design,
      String name,
      int boards,
      String method,
      String alloy,
      String prefix,
      String variant)
      throws BookException {
    List<String> taken = new ArrayList<>();
    for (Build b : builds()) {
      taken.addAll(b.boards());
    }
    int from = 1;
    while (taken.contains(serial(prefix, from))) {
      from++;
    }
    int first = from;
    long id =
        writing(() ->
            revisions.build(
                design,
                name,
                method,
                alloy,
                variant,
                now().toString(),
                serials(prefix, first, boards)));
    return builds().stream().filter(b -> b.id() == id).findFirst().orElseThrow();
  }

  private static String serial(String prefix, int n) {
    return prefix + String.format("%02d", n);
  }

  private static List<String> serials(String prefix, int first, int count) {
    List<String> s = new ArrayList<>();
    for (int i = 0; i < count; i++) {
      s.add(serial(prefix, first + i));
    }
    return s;
  }

  /// The builds, oldest first.
  public List<Build> builds() throws BookException {
    return reading(revisions::builds);
  }

  /// The build that a board belongs to.
  public Optional<Build> buildOf(String board) throws BookException {
    return builds().stream().filter(b -> b.boards().contains(board)).findFirst();
  }

  /// Puts a shelf in place of the one before, in one transaction.
  public void replaceShelf(List<ShelfLine> lines) throws BookException {
    writing(() -> {
      shelf.store(lines, lastNumber);
      return null;
    });
  }

  /// What lies on the shelf, as it was last counted or imported.
  public List<ShelfLine> shelf() throws BookException {
    return reading(shelf::lines);
  }

  /// What is known of a part, by name of the parameter; empty when nothing is.
  public Map<String, String> parameters(String code) throws BookException {
    return reading(() -> shelf.parameters(code));
  }

  /// Codes of which parameters are known.
  public List<String> codesWithParameters() throws BookException {
    return reading(shelf::codesWithParameters);
  }

  /// Keeps what is known of parts, in place of what was known of the same codes.
  public void putParameters(Map<String, Map<String, String>> byCode) throws BookException {
    writing(() -> {
      shelf.storeParameters(byCode);
      return null;
    });
  }

  /// Something kept with the workspace, such as the sellers' offers.
  public Optional<String> keepsake(String kind) throws BookException {
    return reading(() -> shelf.keepsake(kind));
  }

  /// Keeps something with the workspace, in place of the one before.
  public void putKeepsake(String kind, String body) throws BookException {
    writing(() -> {
      shelf.storeKeepsake(kind, body);
      return null;
    });
  }

  private OffsetDateTime now() {
    return OffsetDateTime.now(clock).truncatedTo(ChronoUnit.MILLIS);
  }

  /// Appends one entry; it is on disk when this returns.
  ///
  /// @param board serial, empty for the whole build
  public Logged append(String board, Entry entry) throws BookException {
    return appendAll(board, List.of(entry), now()).getFirst();
  }

  /// Appends several entries of one board in one transaction, now: all or none.
  public List<Logged> appendAll(String board, List<Entry> entries) throws BookException {
    return appendAll(board, entries, now());
  }

  /// Appends several entries of one board in one transaction: all or none.
  public synchronized List<Logged> appendAll(String board, List<Entry> entries, OffsetDateTime at)
      throws BookException {
    long numberBefore = lastNumber;
    byte[] hashBefore = lastHash;
    try {
      if (entries.size() == 1) {
        // one statement is a transaction of its own
        return alone(() -> List.of(insert(board, entries.getFirst(), at)));
      }
      return writing(() -> {
        List<Logged> logged = new ArrayList<>(entries.size());
        for (Entry e : entries) {
          logged.add(insert(board, e, at));
        }
        return logged;
      });
    } catch (BookException | RuntimeException e) {
      lastNumber = numberBefore;
      lastHash = hashBefore;
      throw e;
    }
  }

  /// Keeps a photograph and the entry that names it, in one transaction.
  ///
  /// @param body its bytes
  public synchronized Logged keepPhotograph(String board, Entry.Photo entry, byte[] body)
      throws BookException {
    long numberBefore = lastNumber;
    byte[] hashBefore = lastHash;
    try {
      return writing(() -> {
        try (java.sql.PreparedStatement p =
            db.prepareStatement("INSERT OR IGNORE INTO photograph VALUES (?,?,?)")) {
          p.setString(1, entry.sha256());
          p.setString(2, entry.name());
          p.setBytes(3, body);
          p.executeUpdate();
        }
        return insert(board, entry, now());
      });
    } catch (BookException | RuntimeException e) {
      lastNumber = numberBefore;
      lastHash = hashBefore;
      throw e;
    }
  }

  /// The bytes of a photograph.
  public Optional<byte[]> photograph(String sha256) throws BookException {
    return reading(() -> {
      try (java.sql.PreparedStatement p =
          db.prepareStatement("SELECT body FROM photograph WHERE sha256 = ?")) {
        p.setString(1, sha256);
        try (java.sql.ResultSet r = p.executeQuery()) {
          return r.next() ? Optional.of(r.getBytes(1)) : Optional.<byte[]>empty();
        }
      }
    });
  }

  private Logged insert(String board, Entry entry, OffsetDateTime at) throws SQLException {
    if (insert == null) {
      insert = db.prepareStatement("INSERT INTO entry VALUES (?,?,?,?,?)");
    }
    long number = lastNumber + 1;
    String body = EntryJson.write(entry);
    byte[] hash = chain.next(lastHash, number, at.toString(), board, body);
    insert.setLong(1, number);
    insert.setString(2, at.toString());
    insert.setString(3, board);
    insert.setString(4, body);
    insert.setBytes(5, hash);
    insert.executeUpdate();
    lastNumber = number;
    lastHash = hash;
    return new Logged(number, at, board, entry);
  }

  /// The entries of a board, oldest first.
  public List<Logged> entries(String board) throws BookException {
    return reading(() -> {
      List<Logged> found = new ArrayList<>();
      try (PreparedStatement p =
          db.prepareStatement(
              "SELECT number, at, board, body FROM entry WHERE board = ? ORDER BY number")) {
        p.setString(1, board);
        try (ResultSet r = p.executeQuery()) {
          while (r.next()) {
            found.add(logged(r));
          }
        }
      }
      return found;
    });
  }

  /// Number of the last entry of a board, 0 when there is none.
  public long lastNumber(String board) throws BookException {
    return reading(() -> {
      try (PreparedStatement p =
          db.prepareStatement("SELECT max(number) FROM entry WHERE board = ?")) {
        p.setString(1, board);
        try (ResultSet r = p.executeQuery()) {
          return r.next() ? r.getLong(1) : 0;
        }
      }
    });
  }

  /// One entry by its number.
  public Optional<Logged> entry(long number) throws BookException {
    return reading(() -> {
      try (PreparedStatement p =
          db.prepareStatement("SELECT number, at, board, body FROM entry WHERE number = ?")) {
        p.setLong(1, number);
        try (ResultSet r = p.executeQuery()) {
          return r.next() ? Optional.of(logged(r)) : Optional.empty();
        }
      }
    });
  }

  private static Logged logged(ResultSet r) throws SQLException {
    return new Logged(
        r.getLong(1),
        OffsetDateTime.parse(r.getString(2)),
        r.getString(3),
        EntryJson.read(r.getString(4)));
  }

  /// How many entries the book holds.
  public long size() {
    return lastNumber;
  }

  /// The hash of the last entry, as hexadecimal; a copy with the same one holds the same book.
  public String seal() {
    return java.util.HexFormat.of().formatHex(lastHash);
  }

  /// Walks the whole chain and checks the file's own structure.
  public Verification verify() throws BookException {
    return reading(() -> {
      try (Statement s = db.createStatement();
          ResultSet r = s.executeQuery("PRAGMA integrity_check(1)")) {
        String said = r.next() ? r.getString(1) : "no answer";
        if (!said.equals("ok")) {
          return new Verification(
              false, lastNumber, OptionalLong.empty(), "the file is damaged: " + said);
        }
      }
      return walk();
    });
  }

  private Verification walk() throws SQLException {
    byte[] before = Chain.START;
    long count = 0;
    try (Statement s = db.createStatement();
        ResultSet r =
            s.executeQuery("SELECT number, at, board, body, hash FROM entry ORDER BY number")) {
      while (r.next()) {
        long number = r.getLong(1);
        byte[] hash = r.getBytes(5);
        byte[] right = chain.next(before, number, r.getString(2), r.getString(3), r.getString(4));
        if (number != count + 1 || !Arrays.equals(hash, right)) {
          long bad = number != count + 1 ? count + 1 : number;
          return new Verification(
              false,
              count,
              OptionalLong.of(bad),
              "entry " + bad + " is not as it was written, or one before it is missing");
        }
        before = hash;
        count++;
      }
    }
    return new Verification(
        true, count, OptionalLong.empty(), "all " + count + " entries are as they were written");
  }

  /// Copies the workspace to a new file while it stays open. The copy appears whole or not at all.
  public void backup(Path to) throws BookException {
    if (Files.exists(to)) {
      throw new BookException(to + " is already there; choose another name");
    }
    Path part = to.resolveSibling(to.getFileName() + ".new");
    try {
      // over a connection of its own: appends go on meanwhile, and the copy holds one moment
      try (Connection reader = connect(file, true);
          PreparedStatement p = reader.prepareStatement("VACUUM INTO ?")) {
        p.setString(1, part.toAbsolutePath().toString());
        p.execute();
      }
      Files.move(part, to, StandardCopyOption.ATOMIC_MOVE);
    } catch (SQLException e) {
      throw BookException.of(to, e);
    } catch (IOException e) {
      throw new BookException("the backup " + to + " cannot be written: " + e.getMessage(), e);
    } finally {
      deleteQuietly(part);
    }
  }

  /// Lets a test fill the disk: no more pages than there are now.
  synchronized void noMorePages() throws SQLException {
    try (Statement s = db.createStatement()) {
      s.execute("PRAGMA max_page_count = " + pragma(db, "page_count"));
    }
  }

  @Override
  public synchronized void close() throws BookException {
    try {
      if (insert != null) {
        insert.close();
      }
      db.close();
      if (lock != null) {
        lock.close();
      }
    } catch (SQLException e) {
      throw BookException.of(file, e);
    } catch (IOException e) {
      throw new BookException(file + " could not be let go of: " + e.getMessage(), e);
    }
  }

  static void nullable(PreparedStatement p, int at, double value) throws SQLException {
    if (Double.isNaN(value)) {
      p.setNull(at, Types.REAL);
    } else {
      p.setDouble(at, value);
    }
  }
}
