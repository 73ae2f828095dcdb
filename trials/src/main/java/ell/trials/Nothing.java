package ell.trials;

/// The reference for a sum: a program that only says something.
public final class Nothing {
  private Nothing() {}

  public static void main(String[] args) {
    System.out.println("shown");
  }
}
