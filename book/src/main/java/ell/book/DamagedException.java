package ell.book;

import java.sql.SQLException;

/// A row that is there and cannot be read.
final class DamagedException extends SQLException {
  private static final long serialVersionUID = 1;

  DamagedException(String message, Throwable cause) {
    super(message, cause);
  }
}
