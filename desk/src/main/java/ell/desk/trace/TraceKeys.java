package ell.desk.trace;

import ell.core.trace.Outcomes;
import ell.desk.key.Command;
import java.util.ArrayList;
import java.util.List;
import java.util.function.BooleanSupplier;

/// What can be done by key while a fault is searched for.
final class TraceKeys {
  private static final int MOST = 7;

  /// So many find room in the line of keys; the margin names all of them.
  private static final int IN_LINE = 4;

  private TraceKeys() {}

  static List<Command> of(TraceModel m, BooleanSupplier here) {
    List<Command> all = new ArrayList<>();
    all.add(
        Command.of("found", "Trace", "that is it: log the finding", "E", m::find)
            .inLine()
            .when(() -> here.getAsBoolean() && m.canFind()));
    for (int i = 1; i <= MOST; i++) {
      int which = i;
      Command answer =
          Command.of("answer-" + i, "Trace", "", "" + i, () -> m.answer(which))
              .saying(() -> word(m, which))
              .when(() -> here.getAsBoolean() && !word(m, which).isEmpty());
      all.add(i <= IN_LINE ? answer.inLine() : answer);
    }
    return all;
  }

  private static String word(TraceModel m, int which) {
    TraceModel.Shown s = m.shownProperty().get();
    if (s == null || s.choice().isEmpty()) {
      return "";
    }
    List<String> words = Outcomes.words(s.choice().get());
    return which <= words.size() ? words.get(which - 1) : "";
  }
}
