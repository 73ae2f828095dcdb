package ell.book;

import java.io.IOException;
import java.nio.file.FileSystemException;
import java.nio.file.Path;
import java.sql.SQLException;
import org.sqlite.SQLiteErrorCode;
import org.sqlite.SQLiteException;

/// The workspace cannot be used as asked; the message says what happened, where, and what to do.
public final class BookException extends IOException {
  BookException(String message) {
    super(message);
  }

  BookException(String message, Throwable cause) {
    super(message, cause);
  }

  /// Whether the file itself is damaged.
  public boolean damaged() {
    return getCause() instanceof DamagedException
        || getCause() instanceof SQLiteException s
            && switch (SQLiteErrorCode.getErrorCode(s.getResultCode().code & 0xff)) {
              case SQLITE_CORRUPT, SQLITE_NOTADB -> true;
              default -> false;
            };
  }

  /// Whether a server wants another password, or one at all.
  public boolean wantsPassword() {
    return !(getCause() instanceof SQLiteException)
        && getCause() instanceof SQLException s
        && ServerProblem.password(s);
  }

  /// A failure with its reason in one sentence, wherever in the chain of causes that stands.
  static BookException cannot(String what, Exception e) {
    for (Throwable t = e; t != null; t = t.getCause()) {
      if (t instanceof SQLiteException s
          && (s.getResultCode().code & 0xff) == SQLiteErrorCode.SQLITE_FULL.code) {
        return new BookException(what + ": the disk is full", e);
      }
      if (t instanceof FileSystemException f && f.getReason() != null) {
        return new BookException(what + ": " + f.getReason(), e);
      }
    }
    String said = String.valueOf(e.getMessage()).strip().lines().findFirst().orElse("");
    return new BookException(what + ": " + said, e);
  }

  /// Turns what SQLite says into a sentence.
  static BookException of(Path file, SQLException e) {
    SQLiteErrorCode code =
        e instanceof SQLiteException s ? s.getResultCode() : SQLiteErrorCode.UNKNOWN_ERROR;
    String name = file.toString();
    int primary = code.code & 0xff;
    String said =
        primary == SQLiteErrorCode.SQLITE_FULL.code
            ? "the disk is full: nothing was written to " + name + "; make room and try again"
            : primary == SQLiteErrorCode.SQLITE_CORRUPT.code
                ? name + " is damaged: open a backup, or see what can be saved with: rescue"
                : primary == SQLiteErrorCode.SQLITE_NOTADB.code
                    ? name + " is not a workspace"
                    : primary == SQLiteErrorCode.SQLITE_READONLY.code
                        ? name + " is read-only: nothing was written"
                        : primary == SQLiteErrorCode.SQLITE_BUSY.code
                            ? name + " is in use by another program"
                            : primary == SQLiteErrorCode.SQLITE_IOERR.code
                                ? "the disk is full or does not answer: nothing was written to "
                                    + name
                                : name + ": " + e.getMessage();
    return new BookException(said, e);
  }
}
