package ell.book;

import java.io.IOException;
import java.sql.SQLException;
import java.time.Clock;
import java.time.OffsetDateTime;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Optional;

/// Reads and writes of a workspace, one at a time: each write a transaction of its own, or part of
/// a larger one, what it changed sealed, the end of the chain where it was when it did not hold.
final class Writes {
  private final boolean readOnly;
  private final Clock clock;
  private final Connected to;
  private boolean joined;

  Writes(boolean readOnly, Clock clock, Connected to) {
    this.readOnly = readOnly;
    this.clock = clock;
    this.to = to;
  }

  /// Work that touches the tables.
  interface Sql<T> {
    T run() throws SQLException, BookException;
  }

  synchronized <T> T reading(Sql<T> work) throws BookException {
    try {
      if (joined) {
        return work.run();
      }
      to.ready();
      return to.work(work);
    } catch (SQLException e) {
      throw to.problem(e);
    }
  }

  synchronized <T> T writing(Sql<T> work) throws BookException {
    writable();
    return reading(joined ? work : () -> to.together(work));
  }

  /// Makes everything that is written within one transaction: when anything is thrown, nothing of
  /// it was done. Nobody else writes meanwhile.
  synchronized <E extends Exception> void together(Class<E> kind, Book.Together<E> work)
      throws IOException, E {
    EntryStore.End before = reading(() -> to.entries().remembered());
    try {
      writing(() -> {
        joined = true;
        try {
          work.run();
          return null;
        } catch (Exception e) {
          throw new Carried(e);
        } finally {
          joined = false;
        }
      });
    } catch (Carried c) {
      to.entries().back(before);
      switch (c.getCause()) {
        case IOException e -> throw e;
        case RuntimeException e -> throw e;
        case Exception e when kind.isInstance(e) -> throw kind.cast(e);
        default -> throw c;
      }
    } catch (BookException e) {
      to.entries().back(before);
      throw e;
    }
  }

  /// Carries what was thrown within a transaction out of it.
  private static final class Carried extends RuntimeException {
    private static final long serialVersionUID = 1;

    Carried(Exception cause) {
      super(cause);
    }
  }

  /// What a change of the tables touched, by what is sealed as one.
  interface Touched {
    List<String> of() throws SQLException;
  }

  /// Changes tables that are no entries, and seals what was touched, in one transaction.
  <T> T sealing(Sql<T> work, Touched touched) throws BookException {
    return writing(() -> {
      Optional<String> wait = to.tablesWait();
      if (wait.isPresent()) {
        throw new BookException(wait.get());
      }
      to.hold();
      T result = work.run();
      for (String what : touched.of()) {
        to.seals()
            .seal(
                what,
                OffsetDateTime.now(clock).truncatedTo(ChronoUnit.MILLIS).toString(),
                to.entries().end());
      }
      return result;
    });
  }

  <T> T sealing(Sql<T> work, String what) throws BookException {
    return sealing(work, () -> List.of(what));
  }

  /// A file of an older Ell has no seals: it is sealed as it is found.
  void sealWhatIsFound() throws BookException {
    if (reading(() -> to.seals().none() && !to.seals().all().isEmpty())) {
      sealing(() -> null, () -> to.seals().all());
    }
  }

  /// One statement, which is a transaction of its own.
  synchronized <T> T alone(Sql<T> statement) throws BookException {
    writable();
    if (joined) {
      return reading(statement);
    }
    return reading(() -> {
      try {
        return statement.run();
      } catch (SQLException | BookException | RuntimeException e) {
        to.drop(e);
        throw e;
      }
    });
  }

  private void writable() throws BookException {
    if (readOnly) {
      throw new BookException(to.name() + " was opened to be looked at only");
    }
  }

  interface Chained<T> {
    T run() throws BookException;
  }

  /// Work that lengthens the chain; when it does not hold, the end is where it was.
  synchronized <T> T chained(Chained<T> work) throws BookException {
    EntryStore.End before = reading(() -> to.entries().remembered());
    try {
      return work.run();
    } catch (BookException | RuntimeException e) {
      to.entries().back(before);
      throw e;
    }
  }
}
