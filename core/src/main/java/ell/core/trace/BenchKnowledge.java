package ell.core.trace;

import ell.core.board.Joint;
import ell.core.board.Part;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.ToDoubleBiFunction;

/// What this bench knows before anything of a board was measured.
///
/// @param joint chance of a defect at a joint, 0...0.5, from package, pitch, method, print and what
///   was seen of the part so far
/// @param tally what went wrong with parts
/// @param thin places whose paste did not lie as it should, with how in words
/// @param bridged places whose paste joined its neighbour
/// @param badHeat why the heat of this board did not hold, empty when it did or is not known
/// @param reworked parts that were worked on, with how often
/// @param substituted parts that are others than the bill says
/// @param absent parts that are not fitted yet
/// @param sisters faults found on other boards of the revision, in words, with the board
/// @param said chances that the maker gave, by words of the fault
/// @param closed links that are closed, by part, all links
/// @param jig nets that were read in a jig, with what its own book says against the probe there,
///   empty where it says nothing
/// @param errata how this board stands to the mistakes of its revision, by the words of their fault
public record BenchKnowledge(
    ToDoubleBiFunction<Part, Joint> joint,
    Tally tally,
    Map<String, String> thin,
    Set<String> bridged,
    String badHeat,
    Map<String, Integer> reworked,
    Set<String> substituted,
    Set<String> absent,
    Map<String, String> sisters,
    Map<String, Double> said,
    Map<String, Boolean> closed,
    Map<String, String> jig,
    Map<String, Known> errata) {
  /// A mistake of the revision that is written down.
  ///
  /// @param id of the erratum
  /// @param state how the board stands to it
  public record Known(String id, State state) {
    /// Whether the board is mended.
    public enum State {
      /// It is not.
      THERE,
      /// It was, and nothing shows it yet.
      MENDED,
      /// It was, and something shows it.
      PROVED
    }
  }

  public BenchKnowledge {
    jig = Map.copyOf(jig);
    errata = Map.copyOf(errata);
    thin = Map.copyOf(thin);
    bridged = Set.copyOf(bridged);
    reworked = Map.copyOf(reworked);
    substituted = Set.copyOf(substituted);
    absent = Set.copyOf(absent);
    sisters = Map.copyOf(sisters);
    said = Map.copyOf(said);
    closed = Map.copyOf(closed);
  }

  /// Of a board about which the book says nothing.
  public static BenchKnowledge none(ToDoubleBiFunction<Part, Joint> joint) {
    return new BenchKnowledge(
        joint,
        new Tally(),
        Map.of(),
        Set.of(),
        "",
        Map.of(),
        Set.of(),
        Set.of(),
        Map.of(),
        Map.of(),
        Map.of(),
        Map.of(),
        Map.of());
  }

  /// Chances of joints where nothing is known of the method.
  public static double usual(Part p, Joint j) {
    return List.of(2e-4, 3e-4).get(j.hole() ? 1 : 0);
  }
}
