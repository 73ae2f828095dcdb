package ell.work.talk;

import java.io.IOException;
import java.lang.foreign.Arena;
import java.lang.foreign.FunctionDescriptor;
import java.lang.foreign.Linker;
import java.lang.foreign.MemorySegment;
import java.lang.foreign.SymbolLookup;
import java.lang.foreign.ValueLayout;
import java.lang.invoke.MethodHandle;
import java.util.Optional;

/// A pair of ports of which one end is in the test: the other has a name like any serial port. By
/// the system's own pseudo terminals (POSIX.1: posix_openpt, grantpt, unlockpt, ptsname).
final class Pty implements AutoCloseable {
  private static final int READ_WRITE = 2;
  private static final int NO_CONTROL = 0x100;

  private final int fd;
  private final String name;

  private Pty(int fd, String name) {
    this.fd = fd;
    this.name = name;
  }

  /// Opens a pair, empty where the system has none.
  static Optional<Pty> open() {
    if (!System.getProperty("os.name").equals("Linux")) {
      return Optional.empty();
    }
    try {
      int fd = (int) call("posix_openpt", ValueLayout.JAVA_INT).invoke(READ_WRITE | NO_CONTROL);
      if (fd < 0
          || (int) call("grantpt", ValueLayout.JAVA_INT).invoke(fd) != 0
          || (int) call("unlockpt", ValueLayout.JAVA_INT).invoke(fd) != 0) {
        return Optional.empty();
      }
      MethodHandle name =
          handle("ptsname", FunctionDescriptor.of(ValueLayout.ADDRESS, ValueLayout.JAVA_INT));
      MemorySegment at = (MemorySegment) name.invoke(fd);
      return Optional.of(new Pty(fd, at.reinterpret(64).getString(0)));
    } catch (Throwable e) {
      return Optional.empty();
    }
  }

  private static MethodHandle call(String name, ValueLayout argument) {
    return handle(name, FunctionDescriptor.of(ValueLayout.JAVA_INT, argument));
  }

  private static MethodHandle handle(String name, FunctionDescriptor as) {
    Linker linker = Linker.nativeLinker();
    SymbolLookup lookup = linker.defaultLookup();
    return linker.downcallHandle(lookup.find(name).orElseThrow(), as);
  }

  /// The name of the other end.
  String name() {
    return name;
  }

  private static final FunctionDescriptor TRANSFER =
      FunctionDescriptor.of(
          ValueLayout.JAVA_LONG, ValueLayout.JAVA_INT, ValueLayout.ADDRESS, ValueLayout.JAVA_LONG);

  /// Waits for bytes from the other end.
  ///
  /// @return fewer than 0 when it is closed
  int read(byte[] into) throws IOException {
    try (Arena a = Arena.ofConfined()) {
      MemorySegment m = a.allocate(into.length);
      long n = (long) handle("read", TRANSFER).invoke(fd, m, (long) into.length);
      if (n > 0) {
        MemorySegment.copy(m, ValueLayout.JAVA_BYTE, 0, into, 0, (int) n);
      }
      return (int) n;
    } catch (Throwable e) {
      throw new IOException(e);
    }
  }

  /// Sends bytes to the other end.
  void write(byte[] bytes, int n) throws IOException {
    try (Arena a = Arena.ofConfined()) {
      MemorySegment m = a.allocate(Math.max(1, n));
      MemorySegment.copy(bytes, 0, m, ValueLayout.JAVA_BYTE, 0, n);
      for (long at = 0; at < n; ) {
        long some = (long) handle("write", TRANSFER).invoke(fd, m.asSlice(at), n - at);
        if (some <= 0) {
          throw new IOException("the other end takes nothing");
        }
        at += some;
      }
    } catch (IOException e) {
      throw e;
    } catch (Throwable e) {
      throw new IOException(e);
    }
  }

  @Override
  public void close() {
    try {
      int closed = (int) call("close", ValueLayout.JAVA_INT).invoke(fd);
      if (closed != 0) {
        throw new IllegalStateException("a pair of ports could not be closed");
      }
    } catch (Throwable e) {
      throw new IllegalStateException(e);
    }
  }
}
