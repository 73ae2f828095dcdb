package ell.book;

import java.io.IOException;
import java.sql.SQLException;
import java.sql.SQLTransientConnectionException;
import java.time.OffsetDateTime;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.Set;

/// What a server says, in sentences.
final class ServerProblem {
  /// Another bench has the board in hand.
  static final String HELD = "EL001";

  /// Another bench has written on the board since this one looked.
  static final String STALE = "EL002";

  private static final Set<String> ENDING = Set.of("57P01", "57P02", "57P03", "57P04", "57P05");
  private static final DateTimeFormatter CLOCK = DateTimeFormatter.ofPattern("HH:mm");

  private ServerProblem() {}

  /// Whether the server does not answer, or the connection to it broke.
  static boolean lost(SQLException e) {
    for (Throwable t = e; t != null; t = t.getCause()) {
      if (t instanceof SQLException s
          && s.getSQLState() != null
          && (s.getSQLState().startsWith("08") && !refused(e)
              || ENDING.contains(s.getSQLState()))) {
        return true;
      }
      if (t instanceof IOException || t instanceof SQLTransientConnectionException) {
        return !refused(e);
      }
    }
    return false;
  }

  /// Whether it answers and does not let this person in: a pool that waited says so only deep down.
  static boolean refused(SQLException e) {
    return password(e) || state(e).equals("3D000") || state(e).equals("42501");
  }

  /// Whether it wants another password, or one at all.
  static boolean password(SQLException e) {
    return state(e).startsWith("28") || state(e).equals("08004");
  }

  /// The deepest state that is known.
  static String state(SQLException e) {
    String found = "";
    for (Throwable t = e; t != null; t = t.getCause()) {
      if (t instanceof SQLException s && s.getSQLState() != null) {
        found = s.getSQLState();
      }
    }
    return found;
  }

  static BookException of(Place.OnServer server, SQLException e) {
    String state = state(e);
    String said = deepest(e);
    return switch (state) {
      case HELD -> held(e);
      case STALE ->
          new BookException(
              "another bench has written on board "
                  + said
                  + " meanwhile: look at it again before you go on; nothing was written",
              e);
      case "28P01", "28000", "08004" ->
          new BookException(
              server
                  + " does not let "
                  + ServerDoor.user(server)
                  + " in: "
                  + said
                  + "; a password comes from ELL_PASSWORD, from the password file of the"
                  + " database's own clients, or is typed",
              e);
      case "3D000" ->
          new BookException(
              "there is no workspace " + server + "; make one with: new " + server, e);
      case "42P01", "3F000", "42883" ->
          new BookException(
              server
                  + " is a database, but not a workspace of this Ell, or one that "
                  + ServerDoor.user(server)
                  + " may not come to",
              e);
      case "42501" ->
          new BookException(
              ServerDoor.user(server)
                  + " may not do that here: readers look, helpers log, makers change revisions,"
                  + " builds and the shelf; nothing was written",
              e);
      case "23505" ->
          new BookException(
              "somebody else has just written the same to "
                  + server
                  + ": look at it again; nothing was written",
              e);
      case "40P01", "55P03" ->
          new BookException(
              "two benches waited for each other at " + server + ": nothing was written, try again",
              e);
      case "53100" ->
          new BookException("the disk of " + server + " is full: nothing was written", e);
      case "53300" ->
          new BookException(server + " has no room for another bench: too many are connected", e);
      default ->
          lost(e)
              ? new BookException(server + " does not answer: " + said, e)
              : new BookException(server + ": " + said, e);
    };
  }

  private static BookException held(SQLException e) {
    return new BookException(
        heldBy(e) + ": nothing was written. Ask there, or take it over with words", e);
  }

  /// Who has the board in hand that somebody wanted to write on.
  static String heldBy(SQLException e) {
    String[] f = deepest(e).split("\n");
    return f.length < 4
        ? "the board is in hand at another bench"
        : "board " + f[0] + " is in hand at bench " + f[1] + " (" + f[2] + ") until " + clock(f[3]);
  }

  /// What the server said, as it said it.
  static String said(SQLException e) {
    return "the server said: " + deepest(e);
  }

  /// The board that a refused append speaks of.
  static String board(SQLException e) {
    return deepest(e).split("\n")[0];
  }

  /// A time of the server as the bench's clock shows it.
  static String clock(String of) {
    try {
      OffsetDateTime t =
          OffsetDateTime.parse(of.replace(' ', 'T').replaceFirst("([+-]\\d\\d)$", "$1:00"));
      return t.atZoneSameInstant(ZoneId.systemDefault()).format(CLOCK);
    } catch (java.time.DateTimeException e) {
      return of;
    }
  }

  private static String deepest(SQLException e) {
    Throwable found = e;
    for (Throwable t = e; t != null; t = t.getCause()) {
      if (t instanceof org.postgresql.util.PSQLException p && p.getServerErrorMessage() != null) {
        return String.valueOf(p.getServerErrorMessage().getMessage());
      }
      found = t;
    }
    return String.valueOf(found.getMessage()).strip().lines().findFirst().orElse("");
  }
}
