package ell.book;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Collections;

/// Carries rows of one store into the table of the same name and columns of another, as they are.
final class Rows {
  private static final int BATCH = 2000;

  private Rows() {}

  /// Carries what a query finds. Rows come as they are read; the source is read as within one
  /// transaction.
  ///
  /// @return how many
  static long carry(Connection from, String query, Connection to, String table)
      throws SQLException {
    try (Statement s = from.createStatement()) {
      s.setFetchSize(table.equals("photograph") ? 1 : BATCH);
      try (ResultSet r = s.executeQuery(query)) {
        int columns = r.getMetaData().getColumnCount();
        StringBuilder names = new StringBuilder();
        for (int c = 1; c <= columns; c++) {
          names.append(c == 1 ? "" : ", ").append(r.getMetaData().getColumnName(c));
        }
        String sql =
            "INSERT INTO "
                + table
                + " ("
                + names
                + ") VALUES ("
                + String.join(", ", Collections.nCopies(columns, "?"))
                + ")";
        int batch = table.equals("photograph") ? 1 : BATCH; // those can be large
        long count = 0;
        try (PreparedStatement p = to.prepareStatement(sql)) {
          while (r.next()) {
            for (int c = 1; c <= columns; c++) {
              p.setObject(c, r.getObject(c));
            }
            p.addBatch();
            if (++count % batch == 0) {
              p.executeBatch();
            }
          }
          p.executeBatch();
        }
        return count;
      }
    }
  }
}
