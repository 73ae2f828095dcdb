package ell.work.page;

import ell.book.BookException;
import ell.book.Place;
import ell.work.Workshop;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;

/// A workspace as it is now, opened to be looked at only; opened anew when somebody wrote.
final class Looked implements AutoCloseable {
  private final Place place;
  private Workshop open;
  private String as = "";

  /// Opens it, so that what is wrong with it is told before anything listens.
  Looked(Place place) throws BookException {
    this.place = place;
    now();
  }

  /// What changes when somebody writes.
  synchronized String stamp() throws BookException {
    if (!(place instanceof Place.OfFile f)) {
      return Long.toString(open == null ? -1 : open.book().last());
    }
    Path file = f.path();
    return at(file) + " " + at(file.resolveSibling(file.getFileName() + "-wal"));
  }

  private static String at(Path p) {
    try {
      BasicFileAttributes a = Files.readAttributes(p, BasicFileAttributes.class);
      return a.size() + "@" + a.lastModifiedTime().toMillis();
    } catch (IOException e) {
      return "none";
    }
  }

  /// The workspace as it stands.
  synchronized Workshop now() throws BookException {
    String stamp = stamp();
    if (open == null || !stamp.equals(as)) {
      Workshop fresh = Workshop.look(place);
      close();
      open = fresh;
      as = stamp();
    }
    return open;
  }

  @Override
  public synchronized void close() throws BookException {
    if (open != null) {
      open.close();
      open = null;
    }
  }
}
