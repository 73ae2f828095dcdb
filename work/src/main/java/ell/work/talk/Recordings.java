package ell.work.talk;

import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.talk.Strip;
import ell.work.act.Acts;
import ell.work.space.ActException;
import ell.work.space.Workspace;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.OffsetDateTime;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import java.util.zip.GZIPInputStream;
import java.util.zip.GZIPOutputStream;

/// Recordings of lines: each grows beside the workspace while its line is open. Small ones go into
/// the book when it closes, large ones stay where they are; one that was cut off is logged when
/// somebody looks next.
public final class Recordings {
  /// Recordings up to this size go into the book, packed.
  static final long MOST_KEPT = 4L << 20;

  private static final DateTimeFormatter STAMP = DateTimeFormatter.ofPattern("yyyyMMdd-HHmmss-SSS");
  private static final int MOST_BYTES = 1 << 20;

  private final Workspace space;
  private final Acts acts;

  /// Those of a workspace.
  public Recordings(Workspace space, Acts acts) {
    this.space = space;
    this.acts = acts;
  }

  /// The folder in which they grow.
  Path folder() {
    return space.book().beside(".lines");
  }

  /// Begins one.
  Recording begin(String board, String line, String script, String operation) throws IOException {
    Files.createDirectories(folder());
    OffsetDateTime now = OffsetDateTime.now(space.clock());
    String name = board.replaceAll("[^A-Za-z0-9._-]", "-") + "-" + STAMP.format(now);
    Path file = folder().resolve(name + ".talk");
    for (int i = 2; Files.exists(file); i++) {
      file = folder().resolve(name + "-" + i + ".talk");
    }
    return Recording.begin(file, new Recording.Of(board, line, script, operation, now.toString()));
  }

  /// Closes one and logs what was said.
  ///
  /// @param talk without where its recording is kept, which is put in
  Logged close(String board, Recording r, Entry.Talk talk) throws IOException, ActException {
    r.close();
    Entry.Talk kept = keep(r.file(), talk);
    Logged l = acts.log(board, List.of(kept)).orThrow().getFirst();
    if (kept.beside().isEmpty()) {
      Files.deleteIfExists(r.file());
    }
    return l;
  }

  private Entry.Talk keep(Path file, Entry.Talk t) throws IOException {
    String sha = "";
    String beside = file.getFileName().toString();
    if (Files.size(file) <= MOST_KEPT) {
      byte[] packed = packed(Files.readAllBytes(file));
      sha = sha256(packed);
      space.book().keepFile(sha, beside + ".gz", packed);
      beside = "";
    }
    return new Entry.Talk(
        t.line(),
        t.script(),
        t.operation(),
        t.seconds(),
        t.sent(),
        t.heard(),
        sha,
        beside,
        t.firmware(),
        t.restarts(),
        t.lost(),
        t.steps(),
        t.verdict(),
        t.told());
  }

  /// Logs every recording that nobody writes any more and that no entry has: the program ended
  /// while its line was open.
  ///
  /// @return what was logged
  public List<Logged> recover() throws IOException, ActException {
    List<Logged> all = new ArrayList<>();
    if (!Files.isDirectory(folder())) {
      return all;
    }
    List<Path> files = new ArrayList<>();
    try (DirectoryStream<Path> found = Files.newDirectoryStream(folder(), "*.talk")) {
      found.forEach(files::add);
    }
    for (Path f : files) {
      if (Recording.open(f)) {
        continue;
      }
      long[] counts = new long[2];
      double[] last = new double[1];
      Recording.Of of;
      try {
        of =
            Recording.read(
                f,
                p -> {
                  last[0] = p.seconds();
                  counts[0] += p.kind() == '>' ? p.bytes().length : 0;
                  counts[1] += p.kind() == '<' ? p.bytes().length : 0;
                });
        space.buildOf(of.board());
      } catch (IOException | ActException e) {
        continue; // none of ours: it stays where it is
      }
      if (known(of.board(), f)) {
        continue;
      }
      Entry.Talk t =
          new Entry.Talk(
              of.line(),
              of.script(),
              "",
              last[0],
              counts[0],
              counts[1],
              "",
              "",
              "",
              0,
              0,
              List.of(),
              Optional.empty(),
              List.of("cut off: the program ended while the line was open"));
      Entry.Talk kept = keep(f, t);
      all.add(acts.log(of.board(), List.of(kept), at(of)).orThrow().getFirst());
      if (kept.beside().isEmpty()) {
        Files.deleteIfExists(f);
      }
    }
    return all;
  }

  private OffsetDateTime at(Recording.Of of) {
    try {
      return OffsetDateTime.parse(of.at());
    } catch (DateTimeParseException e) {
      return OffsetDateTime.now(space.clock());
    }
  }

  /// Whether an entry has a recording already: it was killed between logging and tidying up.
  private boolean known(String board, Path f) throws IOException {
    String sha = Files.size(f) <= MOST_KEPT ? sha256(packed(Files.readAllBytes(f))) : "";
    for (Logged l : space.entries(board)) {
      if (l.entry() instanceof Entry.Talk t
          && (t.beside().equals(f.getFileName().toString())
              || !sha.isEmpty() && t.sha256().equals(sha))) {
        if (t.beside().isEmpty()) {
          Files.deleteIfExists(f);
        }
        return true;
      }
    }
    return false;
  }

  /// Reads the recording of an entry.
  ///
  /// @throws ActException when it is not kept, or was changed
  void read(Entry.Talk t, Recording.Takes to) throws IOException, ActException {
    if (!t.beside().isEmpty()) {
      Path f = folder().resolve(t.beside());
      if (!Files.isRegularFile(f)) {
        throw new ActException(
            "the recording " + t.beside() + " does not lie beside the workspace");
      }
      Recording.read(f, to);
      return;
    }
    byte[] body =
        space
            .book()
            .photograph(t.sha256())
            .orElseThrow(() -> new ActException("the recording is not kept"));
    if (!sha256(body).equals(t.sha256())) {
      throw new ActException("the recording was changed after it was kept");
    }
    try (InputStream in = new GZIPInputStream(new ByteArrayInputStream(body))) {
      Recording.read(in, to);
    }
  }

  /// What went over the line of an entry, up to a million bytes.
  ///
  /// @throws ActException when it is not kept, or was changed
  public List<Strip.Piece> pieces(Entry.Talk t) throws IOException, ActException {
    List<Strip.Piece> all = new ArrayList<>();
    int[] length = new int[1];
    read(
        t,
        p -> {
          if (length[0] < MOST_BYTES) {
            length[0] += p.bytes().length;
            all.add(new Strip.Piece(p.kind(), p.seconds(), p.bytes()));
          }
        });
    return all;
  }

  private static byte[] packed(byte[] body) throws IOException {
    ByteArrayOutputStream packed = new ByteArrayOutputStream();
    try (GZIPOutputStream out = new GZIPOutputStream(packed)) {
      out.write(body);
    }
    return packed.toByteArray();
  }

  private static String sha256(byte[] body) {
    try {
      return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(body));
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException(e); // every JDK has it
    }
  }
}
