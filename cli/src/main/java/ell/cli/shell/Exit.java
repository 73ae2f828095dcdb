package ell.cli.shell;

/// What a command tells the shell when it ends.
public final class Exit {
  /// Done, and every check that was asked for holds.
  public static final int DONE = 0;

  /// Done, but a check did not hold.
  public static final int NOT_HELD = 1;

  /// Bad input; nothing was changed.
  public static final int BAD_INPUT = 2;

  /// A mistake of the program.
  public static final int BROKEN = 3;

  private Exit() {}
}
