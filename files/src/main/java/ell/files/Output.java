package ell.files;

import java.io.IOException;
import java.io.InputStream;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.AtomicMoveNotSupportedException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.util.List;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;

/// Writes a file whole or not at all, and never over what somebody may miss: beside its place, to
/// the disk, then renamed. What is there already is replaced only when Ell made it or the maker
/// says so; a workspace, what belongs to one, and what the same command reads never is.
public final class Output {
  /// What Ell writes near the beginning of a file in words, so that it knows its own again.
  public static final String MARK = "made by ell";

  /// What Ell names itself in a PDF.
  public static final String PRODUCER = "Ell";

  private static final byte[] STORE = "SQLite format 3\0".getBytes(StandardCharsets.US_ASCII);
  private static final int HEAD = 400;

  /// What may be replaced.
  ///
  /// @param any whether the maker said that whatever file is there may go
  /// @param inputs files that the same command reads
  public record Over(boolean any, List<Path> inputs) {
    /// Only what Ell made itself.
    public static final Over OURS = new Over(false, List.of());

    /// Whatever file is there: the maker was asked.
    public static final Over ANY = new Over(true, List.of());

    public Over {
      inputs = List.copyOf(inputs);
    }
  }

  private Output() {}

  /// Writes a file.
  ///
  /// @throws IOException when what is there must stay, naming it and what to do; or when it cannot
  ///   be written; what was there is untouched then
  public static void write(Path to, byte[] body, Over over) throws IOException {
    allow(to, over);
    Path folder = to.toAbsolutePath().getParent();
    Path part;
    try {
      part = Files.createTempFile(folder, ".ell-", ".part");
    } catch (IOException e) {
      throw new IOException(to + " cannot be written: " + words(e), e);
    }
    try {
      try (FileChannel c = FileChannel.open(part, StandardOpenOption.WRITE)) {
        java.nio.ByteBuffer b = java.nio.ByteBuffer.wrap(body);
        while (b.hasRemaining()) {
          c.write(b);
        }
        c.force(true);
      }
      readable(part);
      move(part, to);
      sync(folder);
    } catch (IOException e) {
      throw new IOException(to + " cannot be written: " + words(e), e);
    } finally {
      Files.deleteIfExists(part);
    }
  }

  /// Writes text.
  ///
  /// @throws IOException as [#write(Path, byte[], Over)]
  public static void write(Path to, String text, Over over) throws IOException {
    write(to, text.getBytes(StandardCharsets.UTF_8), over);
  }

  /// A temporary file is for its owner alone; what replaces it is not.
  private static void readable(Path part) {
    try {
      Files.setPosixFilePermissions(
          part, java.nio.file.attribute.PosixFilePermissions.fromString("rw-r--r--"));
    } catch (IOException | UnsupportedOperationException e) {
      // the rights of this place are what they are
    }
  }

  private static void move(Path part, Path to) throws IOException {
    try {
      Files.move(part, to, StandardCopyOption.ATOMIC_MOVE);
    } catch (AtomicMoveNotSupportedException e) {
      Files.move(part, to, StandardCopyOption.REPLACE_EXISTING);
    }
  }

  /// Makes a rename last; where a folder cannot be opened, the system does it in its own time.
  public static void sync(Path folder) {
    try (FileChannel c = FileChannel.open(folder, StandardOpenOption.READ)) {
      c.force(true);
    } catch (IOException e) {
      // not every system can
    }
  }

  private static String words(IOException e) {
    return switch (e) {
      case java.nio.file.NoSuchFileException n -> "there is no folder " + n.getFile();
      case java.nio.file.AccessDeniedException _ -> "no right to write there";
      case java.nio.file.FileSystemException f when f.getReason() != null -> f.getReason();
      default -> e.getMessage();
    };
  }

  /// Whether a file may be written there.
  ///
  /// @throws IOException when not, naming what is in the way and what to do
  public static void allow(Path to, Over over) throws IOException {
    for (Path in : over.inputs()) {
      if (same(in, to)) {
        throw new IOException(to + " is read by this command; choose another name");
      }
    }
    if (!Files.exists(to, LinkOption.NOFOLLOW_LINKS)) {
      besideStore(to);
      return;
    }
    if (Files.isDirectory(to)) {
      throw new IOException(to + " is a folder; name a file");
    }
    if (!Files.isRegularFile(to)) {
      throw new IOException(to + " is no plain file; choose another name");
    }
    byte[] head = head(to);
    if (begins(head, STORE)) {
      throw new IOException(to + " is a workspace or another database; choose another name");
    }
    besideStore(to);
    if (!over.any() && head.length > 0 && !ours(to, head)) {
      throw new IOException(
          to + " is there and was not made by Ell; choose another name, or say --force");
    }
  }

  private static boolean same(Path a, Path b) throws IOException {
    return a.toAbsolutePath().normalize().equals(b.toAbsolutePath().normalize())
        || Files.exists(a) && Files.exists(b) && Files.isSameFile(a, b);
  }

  /// The files that a workspace keeps at its side.
  private static void besideStore(Path to) throws IOException {
    String name = to.getFileName().toString();
    for (String end : List.of("-wal", "-shm", "-lock", "-journal")) {
      if (name.endsWith(end)) {
        Path store = to.resolveSibling(name.substring(0, name.length() - end.length()));
        if (Files.isRegularFile(store) && begins(head(store), STORE)) {
          throw new IOException(
              to + " belongs to the workspace " + store + "; choose another name");
        }
      }
    }
  }

  private static byte[] head(Path file) throws IOException {
    try (InputStream in = Files.newInputStream(file)) {
      return in.readNBytes(HEAD);
    }
  }

  private static boolean begins(byte[] head, byte[] with) {
    return head.length >= with.length
        && java.util.Arrays.equals(head, 0, with.length, with, 0, with.length);
  }

  private static boolean ours(Path file, byte[] head) {
    String text = new String(head, StandardCharsets.ISO_8859_1);
    if (!text.startsWith("%PDF")) {
      return text.contains(MARK);
    }
    try (PDDocument d = Loader.loadPDF(file.toFile())) {
      return PRODUCER.equals(d.getDocumentInformation().getProducer());
    } catch (IOException | RuntimeException e) {
      return false; // whatever it is, it is not known to be ours
    }
  }
}
