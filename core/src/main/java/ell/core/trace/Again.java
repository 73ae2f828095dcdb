package ell.core.trace;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// Measuring again what was strange: a tip slips, a range is misread, and that seldom happens
/// twice. Who cannot believe a reading takes it once more before anything else.
final class Again {
  /// A slip shows the same once more so often.
  private static final double TWICE = 0.02;

  private static final List<String> WORDS = List.of("the same again", "something else");

  private final Views views;
  private final Map<Probe, Clue.Seen> once = new LinkedHashMap<>();

  /// @param clues what the book says: what was read once since something was done to the board may
  ///   be read again
  Again(Clues clues, Views views) {
    this.views = views;
    for (Clue c : clues.all()) {
      if (c instanceof Clue.Worked) {
        once.clear();
      } else if (c instanceof Clue.Seen s && s.answer() instanceof Answer.Number) {
        once.remove(s.probe());
        if (s.times() == 1) {
          once.put(s.probe(), s);
        }
      }
    }
  }

  /// What was read once.
  List<Probe> probes() {
    return new ArrayList<>(once.keySet());
  }

  /// The outlook of reading it again: the same where a case explains it, something else where only
  /// a slip does. Empty where no case takes it for one.
  Optional<Outlook> of(Probe p) {
    Clue.Seen s = once.get(p);
    if (s == null || !(views.of(p) instanceof Numbers n)) {
      return Optional.empty();
    }
    double[] others = row(n.slipped(s.answer(), 0));
    Map<Integer, double[]> own = new HashMap<>();
    for (int w : n.who()) {
      own.put(w, row(n.slipped(s.answer(), w)));
    }
    boolean doubted = others[1] > 0.5 || own.values().stream().anyMatch(r -> r[1] > 0.5);
    return doubted ? Optional.of(new Words(WORDS, others, own)) : Optional.empty();
  }

  private static double[] row(double slipped) {
    double otherwise = slipped * (1 - TWICE);
    return new double[] {1 - otherwise, otherwise};
  }
}
