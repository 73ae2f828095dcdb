package ell.trials;

import ell.book.Book;
import ell.core.beep.BeepList;
import ell.core.board.Revision;
import ell.core.entry.Entry;
import ell.core.order.Blocks;
import ell.core.order.BuildOrder;
import ell.core.order.Method;
import ell.core.power.LadderProposal;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.time.Clock;
import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Param;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.TearDown;
import org.openjdk.jmh.annotations.Warmup;
import org.sqlite.SQLiteConfig;

/// What is timed inside one process: each piece of work and its reference.
@BenchmarkMode(Mode.SingleShotTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 6)
@Measurement(iterations = 9)
@Fork(
    value = 1,
    jvmArgsAppend = {
      "--enable-native-access=ALL-UNNAMED",
      "--sun-misc-unsafe-memory-access=allow",
      "-XX:+UseSerialGC", // as Ell itself is run
      "-Xmx4g"
    })
public class Timed {
  /// A book and a bare table with the same journal and sync.
  @State(Scope.Benchmark)
  public static class Books {
    static final int APPENDS = 200;
    private Path folder;
    private Book book;
    private Connection bare;
    private PreparedStatement insert;
    private long number;

    @Setup
    public void open() throws IOException, SQLException {
      folder = Files.createTempDirectory("bench");
      book = Book.create(folder.resolve("ws.ell"), Clock.systemUTC());
      SQLiteConfig c = new SQLiteConfig();
      c.setJournalMode(SQLiteConfig.JournalMode.WAL);
      c.setSynchronous(SQLiteConfig.SynchronousMode.FULL);
      bare = c.createConnection("jdbc:sqlite:" + folder.resolve("bare.db"));
      try (var s = bare.createStatement()) {
        s.execute(
            "CREATE TABLE entry (number INTEGER PRIMARY KEY, at TEXT, board TEXT, body TEXT, hash BLOB)");
      }
      insert = bare.prepareStatement("INSERT INTO entry VALUES (?,?,?,?,?)");
    }

    @TearDown
    public void close() throws IOException, SQLException {
      book.close();
      insert.close();
      bare.close();
    }
  }

  @Benchmark
  public void appendsToTheBook(Books b) throws IOException {
    for (int i = 0; i < Books.APPENDS; i++) {
      b.book.append(
          "07", new Entry.Note("a line of ordinary length, as one types it at the bench"));
    }
  }

  @Benchmark
  public void insertsIntoABareTable(Books b) throws SQLException {
    byte[] hash = new byte[32];
    for (int i = 0; i < Books.APPENDS; i++) {
      b.insert.setLong(1, ++b.number);
      b.insert.setString(2, "2026-11-25T09:00:00.123Z");
      b.insert.setString(3, "07");
      b.insert.setString(
          4,
          "{\"v\":1,\"kind\":\"note\",\"text\":\"a line of ordinary length, as one types it at the bench\"}");
      b.insert.setBytes(5, hash);
      b.insert.executeUpdate();
    }
  }

  /// Boards with so many placements.
  @State(Scope.Benchmark)
  public static class Placements {
    @Param({"2500", "5000", "10000"})
    public int parts;

    private Revision revision;

    @Setup
    public void make() {
      revision = Samples.revision(parts, 1);
    }
  }

  @Benchmark
  @Warmup(iterations = 2)
  @Measurement(iterations = 3)
  public Object orderPlanned(Placements s) {
    return BuildOrder.of(
        s.revision, Method.STENCIL_PLATE, Blocks.of(s.revision, LadderProposal.of(s.revision)));
  }

  /// Boards with so many joints.
  @State(Scope.Benchmark)
  public static class Joints {
    @Param({"100000", "200000"})
    public int joints;

    private Revision revision;

    @Setup
    public void make() {
      revision = Samples.joints(joints, 1);
    }
  }

  @Benchmark
  @Warmup(iterations = 1)
  @Measurement(iterations = 3)
  public Object beepListMade(Joints s) {
    return BeepList.of(s.revision, LadderProposal.of(s.revision));
  }
}
