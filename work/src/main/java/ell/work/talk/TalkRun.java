package ell.work.talk;

import ell.bench.line.Line;
import ell.bench.line.LineAddress;
import ell.bench.link.BenchException;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.pulse.PulseFacts;
import ell.core.quantity.Verdict;
import ell.core.rack.Plan;
import ell.core.talk.Expecting;
import ell.core.talk.HeardDiff;
import ell.core.talk.HeardText;
import ell.core.talk.Restarts;
import ell.core.talk.Script;
import ell.core.talk.TalkFacts;
import ell.work.act.Acts;
import ell.work.act.Refusal;
import ell.work.space.ActException;
import java.io.IOException;
import java.nio.file.Files;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;

/// Runs a script over a line to a board, keeps what was said, and tells what it may mean where it
/// was not what was expected.
public final class TalkRun {
  private static final int SHORT = 200;

  /// Seconds in which a board that begins anew has said something.
  private static final double PATIENCE = 1.5;

  private final Talks talks;
  private final Recordings recordings;
  private final Acts acts;
  private final Plan plan;
  private final String board;
  private final Watcher watcher;
  private final List<Entry.Talk.Step> steps = new ArrayList<>();
  private final List<String> told = new ArrayList<>();
  private final NumberWriting number;
  private OpenLine line;
  private Hearing hearing;
  private long lost;
  private int noted;
  private boolean identified;
  private boolean unanswered;
  private String kept = "";
  private volatile boolean stopped;

  /// Is told what happens, on the thread of the run; answers what is asked.
  public interface Watcher {
    /// A step begins.
    default void begins(int number, Script.Step step) {}

    /// Something is sent.
    default void sends(String text) {}

    /// Something was heard.
    default void hears(String text) {}

    /// A step ended.
    default void ended(Entry.Talk.Step step) {}

    /// An image is so far over, 0...1.
    default void loaded(double share) {}

    /// The serial ports that there are, each with its name and description.
    default List<String> ports() {
      return LineAddress.ports();
    }

    /// Answers a question of a checklist, empty when nobody does.
    default Optional<String> answers(String key, String question) {
      return Optional.empty();
    }
  }

  /// What came of it.
  ///
  /// @param entry as it stands in the book
  /// @param knows the entry of the number that was written, if one was
  public record Done(Logged entry, Optional<Logged> knows) {
    /// The talk.
    public Entry.Talk talk() {
      return (Entry.Talk) entry.entry();
    }
  }

  /// A run for a board.
  public TalkRun(
      Talks talks, Recordings recordings, Acts acts, Plan plan, String board, Watcher watcher) {
    this.talks = talks;
    this.recordings = recordings;
    this.acts = acts;
    this.plan = plan;
    this.board = board;
    this.watcher = watcher;
    this.number = new NumberWriting(acts, plan, board);
  }

  /// Why a script would be refused, empty when it may run.
  public static Optional<Refusal> refusal(Acts acts, String board, Script script)
      throws IOException, ActException {
    return script.operation().isEmpty()
        ? Optional.empty()
        : acts.refusal(board, List.of(Entry.Talk.byHand(script.operation(), "")));
  }

  /// Ends the run after what it is at.
  public void stop() {
    stopped = true;
  }

  /// Runs a script.
  ///
  /// @param address of the line
  /// @param opens opens it
  /// @param note what is to be known before it begins, a sentence each
  /// @throws ActException when a rule of the work refuses it; nothing was sent then
  /// @throws BenchException when the line cannot be opened
  public Done run(Scripts.Opened opened, LineAddress address, Opens opens, List<String> note)
      throws IOException, ActException {
    Script script = opened.script();
    Optional<Refusal> no = refusal(acts, board, script);
    if (no.isPresent()) {
      throw new ActException(no.get().text());
    }
    told.addAll(note);
    noted = note.size();
    Map<String, String> known =
        Map.of(
            "board", board, "design", plan.revision().design(), "revision", plan.revision().name());
    Recording recording =
        recordings.begin(board, address.text(), script.name(), script.operation());
    Entry.Talk talk;
    try (OpenLine open = new OpenLine(opens::open, recording, new OpenLine.Watches() {})) {
      line = open;
      hearing = new Hearing(open, known, () -> stopped, watcher::sends, watcher::hears);
      boolean done = walk(script, opened.images());
      double asked = recording.seconds();
      if (!done && !hearing.spoke() && open.there()) {
        hearing.wait(PATIENCE); // before silence is called one
      }
      told(script, done, hearing.firstHeard() > asked && hearing.spoke());
      talk = talk(script, address, recording, done);
    } catch (BenchException e) {
      recording.close();
      Files.deleteIfExists(recording.file());
      throw e;
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      told.add("stopped");
      talk = talk(script, address, recording, false);
    }
    Logged entry = recordings.close(board, recording, talk);
    return new Done(
        entry,
        identified
            ? Optional.of(acts.log(board, List.of(number.entry())).orThrow().getFirst())
            : Optional.empty());
  }

  /// Opens a line.
  public interface Opens {
    /// Opens it, or opens it again.
    Line open() throws BenchException;
  }

  private Entry.Talk talk(Script s, LineAddress address, Recording r, boolean done) {
    Restarts restarts = Restarts.of(hearing.lines(), Optional.of(s.banner()));
    if (restarts.count() > 0) {
      told.add(
          String.format(
              Locale.ROOT,
              "it began anew %d %s%s: '%s'",
              restarts.count(),
              restarts.count() == 1 ? "time" : "times",
              restarts.regular()
                  ? String.format(
                      Locale.ROOT,
                      ", every %.3g s: a watchdog, or a supply that gives way",
                      restarts.period())
                  : "",
              restarts.banner()));
    }
    if (line.losses() > 0) {
      told.add("the line was lost " + line.losses() + (line.losses() == 1 ? " time" : " times"));
    }
    // one that begins anew again and again does not work, whatever it answered between
    boolean lives = !restarts.regular();
    return new Entry.Talk(
        address.text(),
        s.name(),
        s.operation(),
        r.seconds(),
        r.sentBytes(),
        r.heardBytes(),
        "",
        "",
        hearing.found("firmware"),
        restarts.count(),
        lost,
        steps,
        // a question that nobody answers is no fault of the board
        Optional.of(
            done && lives ? Verdict.WITHIN : lives && unanswered ? Verdict.CLOSE : Verdict.OUT),
        told);
  }

  private boolean walk(Script s, Scripts.Images beside)
      throws IOException, ActException, InterruptedException {
    int at = 0;
    int jumps = 0;
    boolean good = true;
    while (at < s.steps().size()) {
      Script.Step step = s.steps().get(at);
      if (stopped || line.failed().length() > 0) {
        told.add(stopped ? "stopped before step " + (at + 1) : line.failed());
        return false;
      }
      watcher.begins(at + 1, step);
      Entry.Talk.Step done = tried(at + 1, step, beside);
      steps.add(done);
      watcher.ended(done);
      boolean is = done.verdict() == Verdict.WITHIN;
      if (!is && !step.why().isEmpty()) {
        told.add(step.why());
      }
      String to = is ? step.then() : step.otherwise();
      if (!is && to.isEmpty() || to.equals("stop")) {
        return is && good;
      }
      // where a script has a way on, that step has not failed the whole
      int next = to.isEmpty() || to.equals("next") ? at + 1 : label(s, to);
      good &= is || !to.isEmpty() && !to.equals("next");
      if (next <= at && ++jumps > Script.MOST_JUMPS) {
        told.add("it went back " + Script.MOST_JUMPS + " times");
        return false;
      }
      at = next;
    }
    return good;
  }

  private static int label(Script s, String to) {
    for (int i = 0; i < s.steps().size(); i++) {
      if (s.steps().get(i).label().equals(to)) {
        return i;
      }
    }
    throw new IllegalStateException("no step " + to); // whoever read the script has looked
  }

  private Entry.Talk.Step tried(int number, Script.Step step, Scripts.Images beside)
      throws IOException, ActException, InterruptedException {
    Entry.Talk.Step last = null;
    for (int i = 0; i <= step.retries() && !stopped; i++) {
      last = once(number, step, beside);
      if (last.verdict() == Verdict.WITHIN) {
        return last;
      }
    }
    return last;
  }

  private Entry.Talk.Step once(int number, Script.Step step, Scripts.Images beside)
      throws IOException, ActException, InterruptedException {
    long began = System.nanoTime();
    String sent = "";
    String got;
    boolean good = true;
    String expected = step.expect().orElse("");
    try {
      switch (step.act()) {
        case Script.Act.Send send -> {
          sent = hearing.filled(send.bytes());
          Hearing.Outcome o = hearing.say(send.bytes(), step.expect(), step.within());
          got = o.got();
          good = o.good();
        }
        case Script.Act.Pause p -> {
          hearing.wait(p.seconds());
          got = String.format(Locale.ROOT, "waited %.3g s", p.seconds());
        }
        case Script.Act.Appears a -> {
          Optional<String> port = appears(a, step.within());
          expected = a.pattern();
          got = port.orElse("no such port came");
          good = port.isPresent();
        }
        case Script.Act.Ask a -> {
          Optional<String> answer = answer(a);
          unanswered |= answer.isEmpty();
          got = answer.orElse("nobody answered: answer it with --answer " + key(a) + "=yes");
          sent = a.question();
          good =
              answer.isPresent()
                  && !answer.get().strip().toLowerCase(Locale.ROOT).matches("no|n|false|0")
                  && (step.expect().isEmpty()
                      || new Expecting(step.expect().get()).hear(answer.get()).isPresent());
        }
        case Script.Act.Load l -> {
          LoadRun.Result r = load(l, step.within(), beside);
          sent = l.file();
          got = r.says();
          good = r.done();
          lost += r.again();
          if (good && step.expect().isPresent()) {
            Hearing.Outcome o = hearing.say("", step.expect(), step.within());
            got += "; " + o.got();
            good = o.good();
          }
        }
        case Script.Act.Settings t -> {
          KeptSettings k = KeptSettings.of(t, hearing, step.within());
          sent = t.values().size() + " settings";
          expected = "all of them kept";
          got = k.words();
          good = k.all();
        }
        case Script.Act.Write w -> {
          Hearing.Outcome o = this.number.write(w, hearing, step.within());
          identified |= o.good();
          sent = hearing.filled(w.write());
          expected = board;
          got = o.got();
          good = o.good();
        }
      }
    } catch (BenchException e) {
      got = e.getMessage();
      good = false;
    } catch (IllegalStateException e) {
      got = e.getMessage(); // a pattern that never ends
      good = false;
    }
    return new Entry.Talk.Step(
        number,
        shorten(sent),
        expected,
        shorten(got),
        (System.nanoTime() - began) * 1e-9,
        good ? Verdict.WITHIN : Verdict.OUT);
  }

  /// Waits for a serial port whose name or description fits.
  private Optional<String> appears(Script.Act.Appears a, double within)
      throws InterruptedException {
    Pattern p = Pattern.compile(a.pattern());
    double end = System.nanoTime() * 1e-9 + within;
    do {
      for (String port : watcher.ports()) {
        if (p.matcher(port).find()) {
          return Optional.of(port);
        }
      }
      Thread.sleep(100);
    } while (!stopped && System.nanoTime() * 1e-9 < end);
    return Optional.empty();
  }

  private static String key(Script.Act.Ask a) {
    return a.key().isEmpty() ? "KEY" : a.key();
  }

  private Optional<String> answer(Script.Act.Ask a) throws IOException {
    Map<String, String> kept = talks.answers(plan.revision().design(), plan.revision().name());
    if (!a.key().isEmpty() && kept.containsKey(a.key())) {
      return Optional.of(kept.get(a.key()));
    }
    return watcher.answers(a.key(), a.question());
  }

  private LoadRun.Result load(Script.Act.Load l, double within, Scripts.Images beside)
      throws IOException, ActException, InterruptedException {
    byte[] image = beside.image(hearing.filled(l.file()));
    hearing.drain();
    LoadRun.Result r =
        new LoadRun(line, within, watcher::loaded, () -> stopped, hearing::stray).load(image);
    hearing.loaded(r.done(), r.rest());
    return r;
  }

  private static String shorten(String s) {
    String t = s.strip();
    return t.length() > SHORT ? t.substring(0, SHORT) + "..." : t;
  }

  /// What it may mean, and what is not as on a healthy board.
  ///
  /// @param late whether it began to speak only after the last step
  private void told(Script script, boolean done, boolean late) throws IOException, ActException {
    String all = HeardText.of(hearing.heard());
    Optional<String> healthy =
        talks.healthy(plan.revision().design(), plan.revision().name(), script.name());
    // a board without power accuses nothing
    if (!done && late) {
      told.add("it began to speak only after it was asked: listen first, or try again");
    } else if (!done && !stopped && noted == 0) {
      told.addAll(
          TalkMeaning.of(
              plan,
              TalkFacts.of(acts.state(board)),
              PulseFacts.of(acts.state(board)),
              hearing.spoke(),
              hearing.heard(),
              steps,
              healthy));
    }
    if (healthy.isPresent() && hearing.heard().length > 0) {
      HeardDiff d = HeardDiff.of(healthy.get(), all);
      d.lines().stream()
          .filter(l -> l.how() != HeardDiff.How.SAME)
          .limit(6)
          .forEach(l ->
              told.add(
                  (l.how() == HeardDiff.How.MISSING
                          ? "a healthy board says: "
                          : "a healthy board does not say: ")
                      + l.text()));
    }
    if (done && hearing.spoke()) {
      kept = all;
    }
  }

  /// What was heard, as text; empty when it did not go through.
  public String healthyText() {
    return kept;
  }
}
