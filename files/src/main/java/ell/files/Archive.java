package ell.files;

import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.List;
import java.util.zip.ZipEntry;
import java.util.zip.ZipException;
import java.util.zip.ZipInputStream;

/// The files in a zip archive, such as a fabricator's order, within bounds that no order needs more
/// than.
public final class Archive {
  private static final int MOST_FILES = 1000;
  private static final long MOST_BYTES = 512L << 20;

  private Archive() {}

  /// Reads them, in their order, each under its name without folders.
  ///
  /// @throws IOException when it is broken, locked, or larger than an order can be
  public static List<Source> files(Source zip) throws IOException {
    List<Source> all = new ArrayList<>();
    long left = MOST_BYTES;
    try (InputStream in = zip.open();
        ZipInputStream z = new ZipInputStream(new BufferedInputStream(in))) {
      ZipEntry e;
      while ((e = z.getNextEntry()) != null) {
        String name = e.getName().replace('\\', '/');
        name = name.substring(name.lastIndexOf('/') + 1);
        if (e.isDirectory()
            || name.isEmpty()
            || name.startsWith(".")
            || e.getName().startsWith("__")) {
          continue;
        }
        if (all.size() >= MOST_FILES) {
          throw new IOException(zip.name() + " holds more than " + MOST_FILES + " files");
        }
        byte[] bytes = z.readNBytes((int) Math.min(left + 1, Integer.MAX_VALUE - 8));
        left -= bytes.length;
        if (left < 0) {
          throw new IOException(zip.name() + " unpacks to more than " + (MOST_BYTES >> 20) + " MB");
        }
        all.add(Source.of(name, bytes));
      }
    } catch (ZipException | IllegalArgumentException e) {
      throw new IOException(zip.name() + " cannot be unpacked: " + e.getMessage(), e);
    }
    return all;
  }
}
