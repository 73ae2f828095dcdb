package ell.bench.link;

import java.util.List;

/// Carries lines to an instrument and back. Every call ends within the link's time-out.
public interface ScpiLink extends AutoCloseable {
  /// Sends a command that has no answer.
  void send(String command) throws BenchException;

  /// Sends a query and waits for its one line. What was left over from before is thrown away first.
  /// After a time-out the link stays open: a command can still be sent.
  String ask(String query) throws BenchException;

  /// Asks without throwing away what may have come unasked: that is what this returns then. For a
  /// question whose answer shows whether the one before it was answered once.
  String askNext(String query) throws BenchException;

  /// Sends a query whose answer is a block of bytes.
  ///
  /// @throws BenchException when the answer is none, or this link cannot carry one
  default byte[] askBlock(String query) throws BenchException {
    throw new BenchException(where() + " cannot carry a block of bytes");
  }

  /// Throws away everything that still comes in, until it has been quiet for a moment; for when
  /// answers and questions are out of step.
  void resync() throws BenchException;

  /// Waits no longer than this for each answer from now on.
  ///
  /// @param millis above 0
  void patience(int millis) throws BenchException;

  /// What a line ends with from now on, both ways: LF at first.
  ///
  /// @param end LF, CRLF or CR
  default void lineEnd(String end) throws BenchException {}

  /// What switches off all that may be switched on over this link: commands, and queries that
  /// answer 0 when it is done. Whoever watches over the link keeps them.
  ///
  /// @param lines in their order
  default void safe(List<String> lines) throws BenchException {}

  /// Where the instrument is, for messages.
  String where();

  @Override
  void close();
}
