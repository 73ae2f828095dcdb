package ell.core.beep;

import ell.core.board.Revision;
import ell.core.power.Ladder;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// The checks to make with a beeper before any power, in an order that looks first where it could
/// burn: rails to ground, rail to rail, rails to what lies beside them, then continuity of the
/// rails and of the signals, then signals that lie side by side.
///
/// A net of n joints gets n − 1 continuity checks so that every joint is an end at least once. On
/// rails one tip stays at a test point or connector; on signals the tips walk from neighbour to
/// neighbour. Time grows as n log n with the number of joints.
///
/// @param checks in order
/// @param coverage what the list would catch
public record BeepList(List<BeepCheck> checks, Coverage coverage) {
  /// Ohms up to which a beeper beeps; typical, no source.
  public static final double BEEPS = 40;

  /// Ohms of a good connection with the leads of the meter; typical, no source.
  public static final double CONNECTED = 2;

  /// What a list would catch.
  ///
  /// @param opens joints whose open would show
  /// @param opensTotal joints on nets of two or more
  /// @param bridges pairs of nets whose bridge would show
  /// @param bridgesTotal pairs of rails, and pairs of nets with neighbouring metal
  /// @param hidden joints on nets of two or more that no tip reaches
  /// @param alone joints that are alone on their net: nothing to hold them against
  public record Coverage(
      long opens, long opensTotal, long bridges, long bridgesTotal, long hidden, long alone) {
    /// What it catches and what it cannot, a sentence each.
    public List<String> words() {
      List<String> all = new ArrayList<>();
      all.add(
          "catches the open of "
              + opens
              + " of "
              + opensTotal
              + " joints, and "
              + bridges
              + " of "
              + bridgesTotal
              + " likely bridges");
      if (hidden > 0) {
        all.add(hidden + (hidden == 1 ? " joint" : " joints") + " no tip reaches: look, or X-ray");
      }
      if (alone > 0) {
        all.add(
            alone
                + (alone == 1 ? " joint is" : " joints are")
                + " alone on a net: no check can tell");
      }
      all.add(
          "no beeper tells a joint that holds only while a tip presses on it, nor bridges between"
              + " nets that do not lie side by side");
      return all;
    }
  }

  public BeepList {
    checks = List.copyOf(checks);
  }

  /// The checks that power waits for.
  public List<BeepCheck> guarding() {
    return checks.stream().filter(BeepCheck::guards).toList();
  }

  /// Makes the list of a revision.
  public static BeepList of(Revision revision, Ladder ladder) {
    return new BeepMaker(revision, ladder).make();
  }

  /// A check that is not in the list: between any two nets, or two joints of one net.
  ///
  /// @param a a net or a joint
  /// @param b another net or joint
  /// @return empty when one of them is on no net, or both are the same
  public static Optional<BeepCheck> between(Revision revision, Ladder ladder, String a, String b) {
    return new BeepMaker(revision, ladder).between(a, b);
  }

  /// A pair of nets in one spelling.
  static String pair(String a, String b) {
    return a.compareTo(b) < 0 ? a + "\n" + b : b + "\n" + a;
  }
}
