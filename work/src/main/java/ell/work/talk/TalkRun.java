package ell.work.talk;

import ell.bench.line.Line;
import ell.bench.line.LineAddress;
import ell.bench.link.BenchException;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.prove.Counts;
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
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.BooleanSupplier;
import java.util.regex.Pattern;

/// Runs a script over a line to a board, keeps what was said, and tells what it may mean where it
/// was not what was expected.
public final class TalkRun {
  private static final int SHORT = 200;
  private static final double CONFIDENCE = 0.95;

  private final Talks talks;
  private final Recordings recordings;
  private final Acts acts;
  private final Plan plan;
  private final String board;
  private final Watcher watcher;
  private final Map<String, String> found = new LinkedHashMap<>();
  private final List<Entry.Talk.Step> steps = new ArrayList<>();
  private final List<String> told = new ArrayList<>();
  private final List<Restarts.Timed> lines = new ArrayList<>();
  private final ByteArrayOutputStream heard = new ByteArrayOutputStream();
  private HeardText text = new HeardText();
  private final StringBuilder partial = new StringBuilder();
  private String carried = "";
  private OpenLine line;
  private long lost;
  private int noted;
  private boolean spoke;
  private boolean identified;
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
  }

  /// Why a script would be refused, empty when it may run.
  public static Optional<Refusal> refusal(Acts acts, String board, Script script)
      throws IOException, ActException {
    return script.operation().isEmpty()
        ? Optional.empty()
        : acts.refusal(board, List.of(empty(script, "")));
  }

  private static Entry.Talk empty(Script s, String line) {
    return new Entry.Talk(
        line, s.name(), s.operation(), 0, 0, 0, "", "", "", 0, 0, List.of(), Optional.empty(),
        List.of());
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
  public Done run(
      Scripts.Opened opened, LineAddress address, Opens opens, List<String> note)
      throws IOException, ActException {
    Script script = opened.script();
    Optional<Refusal> no = refusal(acts, board, script);
    if (no.isPresent()) {
      throw new ActException(no.get().text());
    }
    told.addAll(note);
    noted = note.size();
    found.put("board", board);
    found.put("design", plan.revision().design());
    found.put("revision", plan.revision().name());
    Recording recording = recordings.begin(board, address.text(), script.name(), script.operation());
    Entry.Talk talk;
    try (OpenLine open = new OpenLine(opens::open, recording, new OpenLine.Watches() {})) {
      line = open;
      boolean done = walk(script, opened.images());
      told(script, done);
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
    return new Done(entry, identified ? Optional.of(knows()) : Optional.empty());
  }

  /// Opens a line.
  public interface Opens {
    /// Opens it, or opens it again.
    Line open() throws BenchException;
  }

  private Entry.Talk talk(Script s, LineAddress address, Recording r, boolean done) {
    if (partial.length() > 0) {
      lines.add(new Restarts.Timed(r.seconds(), partial.toString()));
    }
    Restarts restarts = Restarts.of(lines, Optional.of(s.banner()));
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
        found.getOrDefault("firmware", ""),
        restarts.count(),
        lost,
        steps,
        Optional.of(done && lives ? Verdict.WITHIN : Verdict.OUT),
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
          sent = filled(send.bytes());
          Outcome o = said(sent, step.expect().map(this::filledPattern), step.within());
          got = o.got();
          good = o.good();
        }
        case Script.Act.Pause p -> {
          hear(p.seconds(), null);
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
            Outcome o = said("", step.expect().map(this::filledPattern), step.within());
            got += "; " + o.got();
            good = o.good();
          }
        }
        case Script.Act.Settings t -> {
          Kept k = settings(t, step.within());
          sent = t.values().size() + " settings";
          expected = "all of them kept";
          got = k.words();
          good = k.kept() == k.sent();
        }
        case Script.Act.Write w -> {
          Outcome o = identity(w, step.within());
          sent = filled(w.write());
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

  /// What came of a question.
  private record Outcome(boolean good, String got) {}

  private Outcome said(String sent, Optional<String> pattern, double within)
      throws BenchException, InterruptedException {
    if (!sent.isEmpty()) {
      // what was heard before the question is no answer to it
      drain();
      carried = "";
      watcher.sends(sent);
      line.send(bytes(sent));
    }
    if (pattern.isEmpty()) {
      return new Outcome(true, "");
    }
    Expecting e = new Expecting(pattern.get());
    Optional<Expecting.Found> f = e.hear(carried);
    carried = "";
    if (f.isEmpty()) {
      f = hear(within, e);
    }
    if (f.isPresent()) {
      found.putAll(f.get().named());
      carried = f.get().rest();
      return new Outcome(true, f.get().text());
    }
    String all = e.heard().strip();
    return new Outcome(
        false, all.isEmpty() ? "nothing was heard" : all.substring(Math.max(0, all.length() - SHORT)));
  }

  /// Takes what came and was not looked at, so that nothing of it is lost for the strip.
  private void drain() throws InterruptedException {
    for (Optional<OpenLine.Heard> h = line.next(0); h.isPresent(); h = line.next(0)) {
      take(h.get());
    }
  }

  /// Listens until something that is expected is heard, or the time is over.
  private Optional<Expecting.Found> hear(double seconds, Expecting e)
      throws BenchException, InterruptedException {
    double end = System.nanoTime() * 1e-9 + seconds;
    while (!stopped) {
      double left = end - System.nanoTime() * 1e-9;
      if (left <= 0) {
        return Optional.empty();
      }
      Optional<OpenLine.Heard> h = line.next(Math.min(left, 0.1));
      if (h.isEmpty()) {
        if (!line.there() && e != null) {
          throw new BenchException("the line was lost");
        }
        continue;
      }
      String more = take(h.get());
      if (e != null) {
        Optional<Expecting.Found> f = e.hear(more);
        if (f.isPresent()) {
          return f;
        }
      } else {
        carried += more;
        carried = carried.substring(Math.max(0, carried.length() - (1 << 14)));
      }
    }
    return Optional.empty();
  }

  private String take(OpenLine.Heard h) {
    spoke |= h.bytes().length > 0;
    if (heard.size() < 1 << 16) {
      heard.write(h.bytes(), 0, h.bytes().length);
    }
    String more = text.take(h.bytes(), 0, h.bytes().length);
    watcher.hears(more);
    partial.append(more);
    int end;
    while ((end = partial.indexOf("\n")) >= 0) {
      if (lines.size() < 100_000) {
        lines.add(new Restarts.Timed(h.seconds(), partial.substring(0, end)));
      }
      partial.delete(0, end + 1);
    }
    if (partial.length() > 1 << 14) {
      partial.setLength(0); // a line without an end
    }
    return more;
  }

  private LoadRun.Result load(Script.Act.Load l, double within, Scripts.Images beside)
      throws IOException, ActException, InterruptedException {
    byte[] image = beside.image(filled(l.file()));
    drain();
    carried = "";
    BooleanSupplier ends = () -> stopped;
    LoadRun.Result r =
        new LoadRun(
                line,
                within,
                watcher::loaded,
                ends,
                b -> take(new OpenLine.Heard(line.seconds(), b)))
            .load(image);
    if (r.done()) {
      spoke = true;
      heard.reset(); // from here on another program speaks
    }
    text = new HeardText(); // what the loader said is no text
    carried = take(new OpenLine.Heard(line.seconds(), r.rest()));
    return r;
  }

  /// How many settings were sent and how many kept.
  private record Kept(int sent, int kept, List<String> gone) {
    String words() {
      if (kept == sent) {
        return "all " + sent + " kept";
      }
      Counts.Interval i = Counts.exact(sent - kept, sent, CONFIDENCE);
      return String.format(
          Locale.ROOT,
          "%d were sent, %d were kept (not %s): a write is lost with a chance of %.0f...%.0f %%; once"
              + " mended, %d clean writes in a row say with 95 %% that it is gone",
          sent,
          kept,
          String.join(", ", gone),
          100 * i.low(),
          100 * i.high(),
          Counts.cleanTrials((sent - kept) / (double) sent, CONFIDENCE));
    }
  }

  private Kept settings(Script.Act.Settings t, double within)
      throws BenchException, InterruptedException {
    for (Map.Entry<String, String> e : t.values().entrySet()) {
      said(filled(named(t.set(), e)), Optional.of("[^\\r\\n]+[\\r\\n]"), within);
    }
    List<String> gone = new ArrayList<>();
    for (Map.Entry<String, String> e : t.values().entrySet()) {
      String value = Pattern.quote(filled(e.getValue()));
      Outcome o =
          said(
              filled(named(t.get(), e)),
              Optional.of("(?<![A-Za-z0-9.])" + value + "\\s*?[\\r\\n]"),
              within);
      if (!o.good()) {
        gone.add(e.getKey());
      }
    }
    return new Kept(t.values().size(), t.values().size() - gone.size(), gone);
  }

  private static String named(String template, Map.Entry<String, String> e) {
    return template.replace("{name}", e.getKey()).replace("{value}", e.getValue());
  }

  private Outcome identity(Script.Act.Write w, double within)
      throws IOException, ActException, InterruptedException {
    Optional<Refusal> no = acts.refusal(board, List.of(knowing()));
    if (no.isPresent()) {
      return new Outcome(false, no.get().text());
    }
    Outcome before = said(filled(w.read()), Optional.of("[^\\r\\n]+[\\r\\n]"), within);
    Optional<String> other = otherNumber(before.got());
    if (other.isPresent()) {
      return new Outcome(
          false, "its memory holds the number of board " + other.get() + ": which board is this?");
    }
    said(filled(w.write()), Optional.of("[^\\r\\n]+[\\r\\n]"), within);
    String serial = "(?<![A-Za-z0-9])" + Pattern.quote(board) + "(?![A-Za-z0-9])";
    Outcome o = said(filled(w.read()), Optional.of(serial + "[^\\r\\n]*[\\r\\n]"), within);
    if (!o.good()) {
      boolean locks = plan.talk().memory().filter(m -> !m.protect().isEmpty()).isPresent();
      return new Outcome(
          false,
          "it reads back '"
              + o.got()
              + "': the number was not kept"
              + (locks ? "; is " + plan.talk().memory().get().protect() + " still protecting it?" : ""));
    }
    identified = true;
    return new Outcome(true, o.got().strip());
  }

  /// Another board whose number stands in what a memory says.
  private Optional<String> otherNumber(String says) throws IOException {
    for (String w : says.strip().split("[\\s,;:=]+")) {
      for (String b : acts.boards()) {
        if (!b.equals(board) && b.equals(w)) {
          return Optional.of(b);
        }
      }
    }
    return Optional.empty();
  }

  private Entry.Knows knowing() {
    return new Entry.Knows(
        plan.talk().memory().map(ell.core.talk.Memory::part).orElse("memory"),
        board,
        plan.revision().name());
  }

  private Logged knows() throws IOException, ActException {
    return acts.log(board, List.of(knowing())).orThrow().getFirst();
  }

  private String filled(String template) {
    String s = template;
    for (Map.Entry<String, String> e : found.entrySet()) {
      s = s.replace("{" + e.getKey() + "}", e.getValue());
    }
    if (s.contains("{identity}")) {
      byte[] id = new ell.core.talk.Identity(board, plan.revision().name()).bytes();
      s = s.replace("{identity}", java.util.HexFormat.of().formatHex(id));
    }
    return s;
  }

  private String filledPattern(String pattern) {
    String s = pattern;
    for (Map.Entry<String, String> e : found.entrySet()) {
      s = s.replace("{" + e.getKey() + "}", Pattern.quote(e.getValue()));
    }
    return s.replaceAll("\\{([a-zA-Z]+)}", "\\\\{$1\\\\}"); // nothing is known of it: as it stands
  }

  /// Text as it goes over the line: bytes as they are up to 0xff, everything else as UTF-8.
  private static byte[] bytes(String s) {
    return s.chars().allMatch(c -> c < 0x100)
        ? s.getBytes(StandardCharsets.ISO_8859_1)
        : s.getBytes(StandardCharsets.UTF_8);
  }

  private static String shorten(String s) {
    String t = s.strip();
    return t.length() > SHORT ? t.substring(0, SHORT) + "..." : t;
  }

  /// What it may mean, and what is not as on a healthy board.
  private void told(Script script, boolean done) throws IOException, ActException {
    String all = HeardText.of(heard.toByteArray());
    Optional<String> healthy =
        talks.healthy(plan.revision().design(), plan.revision().name(), script.name());
    // a board without power accuses nothing
    if (!done && !stopped && noted == 0) {
      told.addAll(
          TalkMeaning.of(
              plan,
              TalkFacts.of(acts.state(board)),
              PulseFacts.of(acts.state(board)),
              spoke,
              heard.toByteArray(),
              steps,
              healthy));
    }
    if (healthy.isPresent() && heard.size() > 0) {
      HeardDiff d = HeardDiff.of(healthy.get(), all);
      d.lines().stream()
          .filter(l -> l.how() != HeardDiff.How.SAME)
          .limit(6)
          .forEach(l -> told.add((l.how() == HeardDiff.How.MISSING ? "a healthy board says: " : "a healthy board does not say: ") + l.text()));
    }
    if (done && spoke) {
      kept = all;
    }
  }

  /// What was heard, as text; empty when it did not go through.
  public String healthyText() {
    return kept;
  }
}
