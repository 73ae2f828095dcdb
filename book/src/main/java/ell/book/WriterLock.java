package ell.book;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;

/// Keeps a second writer out. A file beside the workspace is locked, not the workspace itself:
/// closing another handle on that would let go of the store's own locks. The system drops the lock
/// when the program dies, however it dies.
final class WriterLock implements AutoCloseable {
  private final FileChannel channel;
  private final FileLock lock;

  /// Those of this program. Opening and closing such a file a second time would let go of the lock:
  /// on many systems it belongs to the process, not to the one who took it.
  private static final Set<Path> OWN = ConcurrentHashMap.newKeySet();

  private final Path file;

  private WriterLock(Path file, FileChannel channel, FileLock lock) {
    this.file = file;
    this.channel = channel;
    this.lock = lock;
  }

  private static Path beside(Path workspace) throws IOException {
    Path name = workspace.resolveSibling(workspace.getFileName() + "-lock").toAbsolutePath();
    return name.getParent().toRealPath().resolve(name.getFileName());
  }

  /// Takes the lock.
  ///
  /// @throws BookException when somebody has it
  static WriterLock take(Path workspace) throws BookException {
    try {
      return tried(workspace)
          .orElseThrow(() ->
              new BookException(
                  workspace
                      + " is open for writing elsewhere; close that window first, or read only"));
    } catch (BookException e) {
      throw e;
    } catch (IOException e) {
      throw new BookException(workspace + " cannot be locked for writing: " + e.getMessage(), e);
    }
  }

  private static Optional<WriterLock> tried(Path workspace) throws IOException {
    Path file = beside(workspace);
    if (!OWN.add(file)) {
      return Optional.empty();
    }
    FileChannel channel = null;
    try {
      channel = FileChannel.open(file, StandardOpenOption.CREATE, StandardOpenOption.WRITE);
      FileLock lock = channel.tryLock();
      if (lock != null) {
        return Optional.of(new WriterLock(file, channel, lock));
      }
    } catch (IOException | RuntimeException e) {
      OWN.remove(file);
      if (channel != null) {
        channel.close();
      }
      throw e;
    }
    OWN.remove(file);
    channel.close();
    return Optional.empty();
  }

  /// Whether somebody is writing now, in this program or another.
  static boolean held(Path workspace) {
    try {
      if (!Files.isWritable(beside(workspace))) {
        return false; // nobody ever wrote here, or nobody of us may
      }
      Optional<WriterLock> mine = tried(workspace);
      if (mine.isPresent()) {
        mine.get().close();
      }
      return mine.isEmpty();
    } catch (IOException e) {
      return true;
    }
  }

  @Override
  public void close() throws IOException {
    try {
      lock.release();
      channel.close();
    } finally {
      OWN.remove(file);
    }
  }
}
