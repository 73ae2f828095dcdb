package ell.desk.trace;

import ell.core.trace.Outcomes;
import ell.desk.key.Command;
import java.util.ArrayList;
import java.util.List;
import java.util.function.BooleanSupplier;

/// What can be done by key while a fault is searched for.
final class TraceKeys {
  private static final int MOST = 7;

  private TraceKeys() {}

  static List<Command> of(TraceModel m, BooleanSupplier here) {
    List<Command> all = new ArrayList<>();
    all.add(
        Command.of("found", "Trace", "that is it: log the finding", "E", m::find)
            .inLine()
            .when(() -> here.getAsBoolean() && m.canFind()));
    for (int i = 1; i <= MOST; i++) {
      int which = i;
      all.add(
          Command.of("answer-" + i, "Trace", "", "" + i, () -> m.answer(which))
              .saying(() -> word(m, which))
              .inLine()
              .when(() -> here.getAsBoolean() && !word(m, which).isEmpty()));
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
