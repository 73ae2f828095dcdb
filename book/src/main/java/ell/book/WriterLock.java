package ell.book;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;

/// Keeps a second writer out. A file beside the workspace is locked, not the workspace itself:
/// closing another handle on that would let go of the store's own locks. The system drops the lock
/// when the program dies, however it dies.
final class WriterLock implements AutoCloseable {
  private final FileChannel channel;
  private final FileLock lock;

  private WriterLock(FileChannel channel, FileLock lock) {
    this.channel = channel;
    this.lock = lock;
  }

  static WriterLock take(Path workspace) throws BookException {
    Path file = workspace.resolveSibling(workspace.getFileName() + "-lock");
    try {
      FileChannel channel =
          FileChannel.open(file, StandardOpenOption.CREATE, StandardOpenOption.WRITE);
      try {
        FileLock lock = channel.tryLock();
        if (lock != null) {
          return new WriterLock(channel, lock);
        }
      } catch (OverlappingFileLockException e) {
        // held by this very program; the answer is the same
      }
      channel.close();
      throw new BookException(
          workspace + " is open for writing elsewhere; close that window first, or read only");
    } catch (BookException e) {
      throw e;
    } catch (IOException e) {
      throw new BookException(workspace + " cannot be locked for writing: " + e.getMessage(), e);
    }
  }

  @Override
  public void close() throws IOException {
    lock.release();
    channel.close();
  }
}
