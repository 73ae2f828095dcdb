package ell.book;

import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.kit.ShelfLine;
import java.io.IOException;
import java.nio.file.Path;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.sql.Statement;
import java.sql.Types;
import java.time.Clock;
import java.time.OffsetDateTime;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.UUID;

/// A workspace: one `.ell` file, or a database on a server that several benches share. Every write
/// is one transaction that is on disk before the call returns. A file has one writer at a time, and
/// readers may come along; on a server everybody writes. Safe for several threads.
public final class Book implements AutoCloseable {
  /// Version of the tables that this program writes.
  public static final int VERSION = Schema.VERSION;

  private final Place place;
  private final boolean readOnly;
  private final Clock clock;
  private final Connected to;
  private final Writes writes;
  private final Optional<Shared> shared;

  private Book(Place place, Connected to, boolean readOnly, Clock clock) {
    this.place = place;
    this.readOnly = readOnly;
    this.clock = clock;
    this.to = to;
    this.writes = new Writes(readOnly, clock, to);
    this.shared =
        to instanceof ServerConnected s ? Optional.of(new Shared(s, writes)) : Optional.empty();
  }

  /// Makes a new workspace and opens it for writing. It appears whole or not at all.
  ///
  /// @throws BookException when there is one already, or the place cannot be written
  public static Book create(Place place, Clock clock) throws BookException {
    return switch (place) {
      case Place.OfFile f -> create(f.path(), clock);
      case Place.OnServer s -> {
        ServerSchema.create(s);
        yield open(s, clock);
      }
    };
  }

  /// Opens a workspace for writing, bringing its tables up to date if they are of an older version.
  ///
  /// @throws BookException when it is none, newer, read-only, damaged, held by another writer, or
  ///   does not answer
  public static Book open(Place place, Clock clock) throws BookException {
    return switch (place) {
      case Place.OfFile f -> open(f.path(), clock);
      case Place.OnServer s -> new Book(s, ServerConnected.open(s, false), false, clock);
    };
  }

  /// Opens a workspace to look at it only; others may be at work in it.
  public static Book openReadOnly(Place place) throws BookException {
    return switch (place) {
      case Place.OfFile f -> openReadOnly(f.path());
      case Place.OnServer s ->
          new Book(s, ServerConnected.open(s, true), true, Clock.systemDefaultZone());
    };
  }

  /// Makes a new workspace file and opens it for writing. It appears whole or not at all.
  ///
  /// @throws BookException when something with that name is there, or the place cannot be written
  public static Book create(Path file, Clock clock) throws BookException {
    BookFile.create(file);
    return open(file, clock);
  }

  /// Opens a workspace file for writing, bringing its tables up to date if they are of an older
  /// version.
  ///
  /// @throws BookException when it is no workspace, newer, read-only, damaged or held by another
  ///   writer
  public static Book open(Path named, Clock clock) throws BookException {
    FileConnected to = FileConnected.open(named);
    Book book = new Book(new Place.OfFile(to.file()), to, false, clock);
    try {
      book.writes.sealWhatIsFound();
      return book;
    } catch (BookException | RuntimeException e) {
      try {
        book.close();
      } catch (BookException more) {
        e.addSuppressed(more); // the first problem is the one to tell
      }
      throw e;
    }
  }

  /// Opens a workspace file to look at it only; a writer may be at work in it.
  public static Book openReadOnly(Path named) throws BookException {
    FileConnected to = FileConnected.look(named);
    return new Book(new Place.OfFile(to.file()), to, true, Clock.systemDefaultZone());
  }

  /// Puts a backup in the place of a workspace, or where none is yet. What was there is kept beside
  /// it under another name, its side files too.
  ///
  /// @return where what was there is now, empty when nothing was
  /// @throws BookException when the backup does not hold, the place is in use, or it cannot be
  ///   written; nothing is changed then
  public static Optional<Path> putBack(Path backup, Path place) throws BookException {
    try (Book b = openReadOnly(backup)) {
      Verification v = b.verify();
      if (!v.ok()) {
        throw new BookException(backup + " does not hold: " + v.message());
      }
    }
    return SideFiles.putBack(backup, place);
  }

  /// Where it is.
  public Place place() {
    return place;
  }

  /// A file or folder of this bench that belongs to the workspace and lies beside it, or where this
  /// bench keeps what is its own when the workspace is on a server.
  ///
  /// @param end such as `.captures`
  public Path beside(String end) {
    return switch (place) {
      case Place.OfFile f -> f.path().resolveSibling(f.path().getFileName() + end);
      case Place.OnServer s -> BenchFolder.of(s).resolve("workspace" + end);
    };
  }

  /// Whether it was opened only to be looked at.
  public boolean readOnly() {
    return readOnly;
  }

  /// Several writes as one.
  ///
  /// @param <E> what they may throw besides
  public interface Together<E extends Exception> {
    /// Writes.
    void run() throws IOException, E;
  }

  /// Makes everything that is written within one transaction: when anything is thrown, nothing of
  /// it was done. Nobody else writes meanwhile.
  public <E extends Exception> void together(Class<E> kind, Together<E> work)
      throws IOException, E {
    writes.together(kind, work);
  }

  /// The revisions, as read and written by this workspace.
  public List<RevisionStore.Id> revisions() throws BookException {
    return writes.reading(() -> to.revisions().list());
  }

  /// A revision.
  public Optional<ell.core.board.Revision> revision(String design, String name)
      throws BookException {
    return writes.reading(() -> to.revisions().load(design, name));
  }

  /// Stores a revision whole, in one transaction.
  ///
  /// @throws BookException when this design has a revision of that name already
  public void importRevision(ell.core.board.Revision revision) throws BookException {
    if (revision(revision.design(), revision.name()).isPresent()) {
      throw new BookException(
          revision.title() + " is already in " + place + "; a revision is imported once");
    }
    writes.sealing(
        () -> {
          to.revisions().store(revision, now().toString());
          return null;
        },
        () -> to.seals().ofRevision(revision.design(), revision.name()));
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
          revision.title() + " is already in " + place + "; a revision is imported once");
    }
    imported(revision, shelf, documents, false);
  }

  /// Stores a revision that is there already once more, from corrected files: its parts, joints and
  /// outline are replaced, the given documents too, all others stay. In one transaction.
  ///
  /// @throws BookException when there is no such revision
  public void importAgain(
      ell.core.board.Revision revision,
      Optional<List<ShelfLine>> shelf,
      Map<String, String> documents)
      throws BookException {
    if (revision(revision.design(), revision.name()).isEmpty()) {
      throw new BookException(revision.title() + " is not in " + place);
    }
    imported(revision, shelf, documents, true);
  }

  /// @param again whether the revision is there and is replaced
  private void imported(
      ell.core.board.Revision revision,
      Optional<List<ShelfLine>> shelf,
      Map<String, String> documents,
      boolean again)
      throws BookException {
    writes.sealing(
        () -> {
          if (again) {
            to.revisions().replace(revision, now().toString());
          } else {
            to.revisions().store(revision, now().toString());
          }
          if (shelf.isPresent()) {
            to.shelf().store(shelf.get(), to.entries().end().number());
          }
          for (Map.Entry<String, String> d : documents.entrySet()) {
            to.revisions().document(revision.design(), revision.name(), d.getKey(), d.getValue());
          }
          return null;
        },
        () -> {
          List<String> touched =
              new ArrayList<>(to.seals().ofRevision(revision.design(), revision.name()));
          if (shelf.isPresent()) {
            touched.add(SealStore.SHELF);
          }
          return touched;
        });
  }

  /// A document that the maker keeps with a revision, such as the power ladder, as JSON.
  public Optional<String> document(String design, String name, String kind) throws BookException {
    return writes.reading(() -> to.revisions().document(design, name, kind));
  }

  /// Keeps a document with a revision, in place of the one before.
  public void putDocument(String design, String name, String kind, String body)
      throws BookException {
    writes.sealing(
        () -> {
          to.revisions().document(design, name, kind, body);
          return null;
        },
        () -> to.seals().ofRevision(design, name));
  }

  /// Keeps several documents with a revision, all or none.
  ///
  /// @param documents text by kind
  public void putDocuments(String design, String name, Map<String, String> documents)
      throws BookException {
    writes.sealing(
        () -> {
          for (Map.Entry<String, String> d : documents.entrySet()) {
            to.revisions().document(design, name, d.getKey(), d.getValue());
          }
          return null;
        },
        () -> to.seals().ofRevision(design, name));
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
    long id =
        writes.sealing(
            () -> {
              List<String> own = Serials.next(prefix, boards, to.revisions().builds());
              return to.revisions()
                  .build(design, name, method, alloy, variant, now().toString(), own);
            },
            SealStore.BUILDS);
    return builds().stream().filter(b -> b.id() == id).findFirst().orElseThrow();
  }

  /// The builds, oldest first.
  public List<Build> builds() throws BookException {
    return writes.reading(() -> to.revisions().builds());
  }

  /// The build that a board belongs to.
  public Optional<Build> buildOf(String board) throws BookException {
    return builds().stream().filter(b -> b.boards().contains(board)).findFirst();
  }

  /// Puts a shelf in place of the one before, in one transaction.
  public void replaceShelf(List<ShelfLine> lines) throws BookException {
    writes.sealing(
        () -> {
          to.shelf().store(lines, to.entries().end().number());
          return null;
        },
        SealStore.SHELF);
  }

  /// What lies on the shelf, as it was last counted or imported.
  public List<ShelfLine> shelf() throws BookException {
    return writes.reading(() -> to.shelf().lines());
  }

  /// What is known of a part, by name of the parameter; empty when nothing is.
  public Map<String, String> parameters(String code) throws BookException {
    return writes.reading(() -> to.shelf().parameters(code));
  }

  /// Codes of which parameters are known.
  public List<String> codesWithParameters() throws BookException {
    return writes.reading(() -> to.shelf().codesWithParameters());
  }

  /// Keeps what is known of parts, in place of what was known of the same codes.
  public void putParameters(Map<String, Map<String, String>> byCode) throws BookException {
    writes.sealing(
        () -> {
          to.shelf().storeParameters(byCode);
          return null;
        },
        SealStore.PARAMETERS);
  }

  /// Something kept with the workspace, such as the sellers' offers.
  public Optional<String> keepsake(String kind) throws BookException {
    return writes.reading(() -> to.shelf().keepsake(kind));
  }

  /// Keeps something with the workspace, in place of the one before.
  public void putKeepsake(String kind, String body) throws BookException {
    writes.sealing(
        () -> {
          to.shelf().storeKeepsake(kind, body);
          return null;
        },
        SealStore.KEEPSAKES);
  }

  private OffsetDateTime now() {
    return OffsetDateTime.now(clock).truncatedTo(ChronoUnit.MILLIS);
  }

  /// Documents that are kept with a revision, text by kind, sorted by kind.
  public Map<String, String> documents(String design, String name) throws BookException {
    return writes.reading(() -> to.revisions().documents(design, name));
  }

  /// Everything kept with the workspace, text by kind, sorted by kind.
  public Map<String, String> keepsakes() throws BookException {
    return writes.reading(() -> to.shelf().keepsakes());
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
  public List<Logged> appendAll(String board, List<Entry> several, OffsetDateTime at)
      throws BookException {
    SequencedMap<String, List<Entry>> one = new LinkedHashMap<>();
    one.put(board, several);
    return appendAll(one, at);
  }

  /// Appends entries of several boards in one transaction: all or none.
  ///
  /// @param several by board, in the order in which they are written
  public List<Logged> appendAll(SequencedMap<String, List<Entry>> several, OffsetDateTime at)
      throws BookException {
    int entries = several.values().stream().mapToInt(List::size).sum();
    List<UUID> tokens = to.tokens(entries);
    Writes.Sql<List<Logged>> work = () -> to.entries().append(several, at, tokens);
    List<Logged> logged =
        writes.chained(
            () -> to.entries().atOnce(entries) ? writes.alone(work) : writes.writing(work));
    shared.ifPresent(s -> s.wrote(several.keySet()));
    return logged;
  }

  /// Keeps a photograph and the entry that names it, in one transaction.
  ///
  /// @param body its bytes
  public Logged keepPhotograph(String board, Entry.Photo entry, byte[] body) throws BookException {
    return writes.chained(() ->
        writes.writing(() -> {
          to.entries().photograph(entry.sha256(), entry.name(), body);
          SequencedMap<String, List<Entry>> one = new LinkedHashMap<>();
          one.put(board, List.of(entry));
          return to.entries().append(one, now(), to.tokens(1)).getFirst();
        }));
  }

  /// Keeps the bytes of a file beside the book, before an entry names them; those that are kept
  /// already stay as they are.
  ///
  /// @param sha256 of the bytes
  public void keepFile(String sha256, String name, byte[] body) throws BookException {
    writes.writing(() -> {
      to.entries().photograph(sha256, name, body);
      return sha256;
    });
  }

  /// The bytes of a photograph, or of another file that is kept.
  public Optional<byte[]> photograph(String sha256) throws BookException {
    return writes.reading(() -> to.entries().photograph(sha256));
  }

  /// Names of the photographs by the hash of their bytes.
  public Map<String, String> photographs() throws BookException {
    return writes.reading(() -> to.entries().photographs());
  }

  /// The entries of a board, oldest first.
  public List<Logged> entries(String board) throws BookException {
    return writes.reading(() -> to.entries().entries(board));
  }

  /// Boards in whose book something stands about errata, struck or not.
  public List<String> boardsWithErrata() throws BookException {
    return writes.reading(() -> to.entries().boardsWithErrata());
  }

  /// Number of the last entry of a board, 0 when there is none.
  public long lastNumber(String board) throws BookException {
    return writes.reading(() -> to.entries().lastNumber(board));
  }

  /// One entry by its number.
  public Optional<Logged> entry(long number) throws BookException {
    return writes.reading(() -> to.entries().entry(number));
  }

  /// Every entry letter for letter, in the order of their numbers.
  public List<Written> written() throws BookException {
    return writes.reading(() -> to.entries().written());
  }

  /// How many entries the book holds.
  public long size() throws BookException {
    return writes.reading(() -> to.entries().count());
  }

  /// Number of the last entry of all boards, 0 when there is none. Numbers rise; on a server, and
  /// in a file that came from one, some may be left out.
  public long last() throws BookException {
    return writes.reading(() -> to.entries().last());
  }

  /// The hash that the chain over all boards ends in, as hexadecimal; a copy with the same one
  /// holds the same book.
  public String seal() throws BookException {
    return head().hash();
  }

  /// Where the book ends now, to be kept elsewhere.
  public Head head() throws BookException {
    EntryStore.End end = writes.reading(() -> to.entries().end());
    return new Head(end.number(), HexFormat.of().formatHex(end.hash()));
  }

  /// Checks the file's own structure, walks the whole chain of entries, holds every photograph
  /// against its hash, and every other table against its seal. What is damaged is said, not thrown.
  public Verification verify() throws BookException {
    return writes.reading(() -> Verifier.verify(to));
  }

  /// The hash of an entry as hexadecimal, empty when the book holds none of that number.
  public Optional<String> hashOf(long number) throws BookException {
    return writes.reading(() -> to.entries().hashOf(number));
  }

  /// Copies the workspace to a new file while it stays open. The copy appears whole or not at all.
  ///
  /// @throws BookException when something with that name is there, or it cannot be written
  public void backup(Path to) throws BookException {
    switch (place) {
      case Place.OfFile f -> BookFile.backup(f.path(), to);
      case Place.OnServer s -> Moving.toFile(s, to);
    }
  }

  /// Puts everything that another workspace held into this empty one, in one transaction: all or
  /// nothing.
  ///
  /// @throws BookException when this workspace is not empty, or the chain does not come out as it
  ///   was
  public void restore(Contents all) throws BookException {
    if (!revisions().isEmpty() || size() > 0) {
      throw new BookException(place + " is not empty: an export is brought into a new workspace");
    }
    if (!Chain.seal(all.entries()).equals(all.seal())) {
      throw new BookException(
          "the export was changed after it was written: its entries do not end in the seal "
              + all.seal());
    }
    writes.chained(() ->
        writes.sealing(
            () -> {
              to.put(all, now().toString());
              return null;
            },
            () -> to.seals().all()));
  }

  /// What several benches share of it, empty for a file.
  public Optional<Shared> shared() {
    return shared;
  }

  /// Lets a test fill the disk: no more pages than there are now.
  void noMorePages() throws SQLException {
    try (Statement s = to.db().createStatement()) {
      s.execute("PRAGMA max_page_count = " + Schema.pragma(to.db(), "page_count"));
    }
  }

  @Override
  public void close() throws BookException {
    shared.ifPresent(Shared::close);
    synchronized (writes) {
      letGo();
    }
  }

  private void letGo() throws BookException {
    try {
      to.close();
    } catch (SQLException e) {
      throw to.problem(e);
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
