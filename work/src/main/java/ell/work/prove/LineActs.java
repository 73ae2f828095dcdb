package ell.work.prove;

import ell.core.entry.Entry;
import ell.core.prove.PlanKnown;
import ell.core.prove.TestAct;
import ell.core.quantity.Verdict;
import ell.core.rack.Plan;
import ell.work.act.Refusal;
import ell.work.space.ActException;
import ell.work.talk.Scripts;
import ell.work.talk.Spoken;
import ell.work.talk.TalkRun;
import java.io.IOException;
import java.util.List;
import java.util.Optional;
import java.util.function.BooleanSupplier;

/// Steps of a test plan over the line to the board: scripts, single lines, patterns. The line stays
/// open between single lines.
final class LineActs {
  private static final int TICK_MILLIS = 40;

  private final ProveRooms rooms;
  private final Plan plan;
  private final PlanKnown known;
  private final String board;
  private final ProveBench bench;
  private final ProveRun.Watcher watcher;
  private final PersonActs person;
  private final BooleanSupplier over;
  private Optional<Spoken> spoken = Optional.empty();

  /// @param over whether the run was stopped, or the board lost its power
  LineActs(
      ProveRooms rooms,
      Plan plan,
      PlanKnown known,
      String board,
      ProveBench bench,
      ProveRun.Watcher watcher,
      PersonActs person,
      BooleanSupplier over) {
    this.rooms = rooms;
    this.plan = plan;
    this.known = known;
    this.board = board;
    this.bench = bench;
    this.watcher = watcher;
    this.person = person;
    this.over = over;
  }

  /// Runs a script.
  Shown talk(TestAct.Talk t) throws IOException, ActException {
    Scripts.Opened o =
        rooms.scripts().kept(known.revision().design(), known.revision().name(), t.script());
    Optional<Refusal> no = TalkRun.refusal(rooms.acts(), board, o.script());
    if (no.isPresent()) {
      return Shown.leftOut("refused: " + no.get().why() + "; " + no.get().how());
    }
    close();
    bench.rate(o.script().baud());
    String[] unanswered = {""};
    TalkRun run =
        new TalkRun(
            rooms.talks(),
            rooms.recordings(),
            rooms.acts(),
            plan,
            board,
            new TalkRun.Watcher() {
              @Override
              public Optional<String> answers(String key, String question) {
                String name = key.isEmpty() ? t.script() : key;
                Optional<String> said = watcher.asks(name, question, "yes");
                unanswered[0] = said.isPresent() ? unanswered[0] : name;
                return said;
              }
            });
    Thread ends = Thread.ofVirtual().start(() -> ending(run));
    TalkRun.Done d;
    try {
      d = run.run(o, bench.address().orElseThrow(), bench.opens(), List.of());
    } finally {
      ends.interrupt();
    }
    watcher.logged(d.entry());
    d.knows().ifPresent(watcher::logged);
    Entry.Talk is = d.talk();
    boolean good = is.verdict().filter(v -> v == Verdict.WITHIN).isPresent();
    if (!good && over.getAsBoolean()) {
      return Shown.leftOut("it was stopped in the middle");
    }
    if (!good && !unanswered[0].isEmpty()) {
      return person.unanswered(unanswered[0]);
    }
    String words =
        good
            ? is.firmware().isEmpty() ? "done" : "firmware " + is.firmware()
            : is.told().isEmpty() ? "not done" : is.told().getFirst();
    return Shown.seen("line " + t.script(), good ? Verdict.WITHIN : Verdict.OUT, words);
  }

  private void ending(TalkRun run) {
    try {
      while (!over.getAsBoolean()) {
        Thread.sleep(TICK_MILLIS);
      }
      run.stop();
    } catch (InterruptedException e) {
      // it has ended by itself
    }
  }

  private Spoken line() throws IOException, ActException {
    if (spoken.isEmpty()) {
      bench.rate(0);
      spoken =
          Optional.of(
              new Spoken(
                  rooms.recordings(),
                  plan,
                  board,
                  bench.address().orElseThrow().text(),
                  bench.opens(),
                  "",
                  over));
    }
    return spoken.get();
  }

  /// Says a line and holds what comes against a pattern.
  Shown say(TestAct.Say s) throws IOException, ActException {
    String text =
        s.text().isEmpty() || s.text().matches("(?s).*[\\r\\n]") ? s.text() : s.text() + "\r";
    Spoken.Answer a = line().say(text, Optional.of(s.expect()), s.within());
    return Shown.seen("", a.good() ? Verdict.WITHIN : Verdict.OUT, a.got());
  }

  /// Says a pattern; whatever comes is an answer.
  void vector(String text) throws IOException, ActException {
    line().say(text + "\r", Optional.of("."), 1);
  }

  /// Closes the line, if one is open, and logs what was said.
  void close() throws IOException, ActException {
    if (spoken.isPresent()) {
      Spoken s = spoken.get();
      spoken = Optional.empty();
      watcher.logged(s.close());
    }
  }
}
