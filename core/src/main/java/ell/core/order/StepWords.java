package ell.core.order;

import ell.core.board.Folded;
import ell.core.board.Part;
import ell.core.board.Revision;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/// A step in words: what is done, with what, from which bin, and which way round.
public final class StepWords {
  private StepWords() {}

  /// The step's parts or act, as its title.
  public static String what(Step s) {
    return s.gate()
        .map(g -> "Gate · " + g)
        .orElseGet(() ->
            s.parts().isEmpty()
                ? s.action().words().substring(0, 1).toUpperCase(Locale.ROOT)
                    + s.action().words().substring(1)
                    + ", "
                    + s.side().key()
                    + " side"
                : Folded.references(s.parts()));
  }

  /// How, value, package, bin and polarity.
  ///
  /// @param bins where parts lie, by code
  public static String detail(Step s, Revision revision, Map<String, String> bins) {
    if (s.gate().isPresent()) {
      return s.reasons().getFirst();
    }
    if (s.parts().isEmpty()) {
      return "";
    }
    Part p = revision.part(s.parts().getFirst()).orElseThrow();
    String bin = bins.containsKey(p.code()) ? " · bin " + bins.get(p.code()) : "";
    String polarity =
        switch (revision.shape(p).mark()) {
          case BAR -> " · the bar is the cathode";
          case STRIPE -> " · the stripe is minus";
          case DOT -> " · pin 1 at the dot";
          case NOTCH -> " · pin 1 at the notch";
          case FLAT -> " · mind the flat side";
          case NONE ->
              switch (p.kind()) {
                case RESISTOR, FERRITE, FUSE, CRYSTAL, INDUCTOR -> " · no polarity";
                default -> "";
              };
        };
    return s.action().words() + " · " + p.label() + bin + polarity;
  }

  /// Rules that a wish breaks at a step, those between the same two parts in one line.
  public static List<String> broken(Step s, BuildOrder order) {
    Map<String, String> reasons = new LinkedHashMap<>();
    for (Loop l : order.loops()) {
      Arrow gone = l.dropped();
      if (l.byWish() && (s.parts().contains(gone.before()) || s.parts().contains(gone.after()))) {
        reasons.merge(
            gone.before() + " should come before " + gone.after(),
            gone.reason(),
            (a, b) -> a + ", " + b);
      }
    }
    return reasons.entrySet().stream()
        .map(e -> "breaks a rule: " + e.getKey() + " (" + e.getValue() + ")")
        .toList();
  }
}
