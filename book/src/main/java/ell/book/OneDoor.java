package ell.book;

import java.io.PrintWriter;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.SQLFeatureNotSupportedException;
import java.util.logging.Logger;
import javax.sql.DataSource;

/// Connections to the database of a workspace for who brings its tables up to date.
final class OneDoor implements DataSource {
  private final Place.OnServer server;

  OneDoor(Place.OnServer server) {
    this.server = server;
  }

  @Override
  public Connection getConnection() throws SQLException {
    try {
      return ServerDoor.single(server, server.database());
    } catch (BookException e) {
      throw new SQLException(e.getMessage(), e);
    }
  }

  @Override
  public Connection getConnection(String user, String password) throws SQLException {
    return getConnection();
  }

  @Override
  public PrintWriter getLogWriter() {
    return null;
  }

  @Override
  public void setLogWriter(PrintWriter out) {
    // it says nothing
  }

  @Override
  public void setLoginTimeout(int seconds) {
    // the door has its own
  }

  @Override
  public int getLoginTimeout() {
    return 0;
  }

  @Override
  public Logger getParentLogger() throws SQLFeatureNotSupportedException {
    throw new SQLFeatureNotSupportedException();
  }

  @Override
  public <T> T unwrap(Class<T> type) throws SQLException {
    throw new SQLException("this is no " + type);
  }

  @Override
  public boolean isWrapperFor(Class<?> type) {
    return false;
  }
}
