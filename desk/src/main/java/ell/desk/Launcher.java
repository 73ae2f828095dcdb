package ell.desk;

/// Starts the application; not itself an application, so that the toolkit need not be on a module
/// path.
public final class Launcher {
  private Launcher() {}

  public static void main(String[] args) {}
}
