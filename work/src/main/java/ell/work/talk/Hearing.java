package ell.work.talk;

import ell.bench.link.BenchException;
import ell.core.talk.Expecting;
import ell.core.talk.HeardLines;
import ell.core.talk.HeardText;
import ell.core.talk.Restarts;
import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import java.util.regex.Pattern;

/// Speaks over an open line and listens for what is expected: keeps what was heard as lines with
/// their times, and what patterns found by name. Not for many threads.
final class Hearing {
  /// What is got where nothing came.
  static final String NOTHING = "nothing was heard";

  private static final int SHORT = 200;
  private static final int MOST_BYTES = 1 << 16;
  private static final int LONGEST = 1 << 14;

  private final OpenLine line;
  private final BooleanSupplier stopped;
  private final Consumer<String> sends;
  private final Consumer<String> hears;
  private final Map<String, String> found = new LinkedHashMap<>();
  private final HeardLines lines = new HeardLines();
  private final ByteArrayOutputStream heard = new ByteArrayOutputStream();
  private HeardText text = new HeardText();
  private String carried = "";
  private boolean spoke;
  private double firstHeard = Double.POSITIVE_INFINITY;

  /// @param known what is put into templates from the beginning
  /// @param sends is told what is sent
  /// @param hears is told what is heard
  Hearing(
      OpenLine line,
      Map<String, String> known,
      BooleanSupplier stopped,
      Consumer<String> sends,
      Consumer<String> hears) {
    this.line = line;
    this.stopped = stopped;
    this.sends = sends;
    this.hears = hears;
    found.putAll(known);
  }

  /// What came of a question.
  ///
  /// @param got what matched, or what came instead
  record Outcome(boolean good, String got) {}

  /// Sends something, if there is something, and waits for a pattern, if there is one.
  ///
  /// @param sent a template
  /// @param pattern a template
  /// @throws BenchException when the line is lost
  Outcome say(String sent, Optional<String> pattern, double within)
      throws BenchException, InterruptedException {
    if (!sent.isEmpty()) {
      // what was heard before the question is no answer to it
      drain();
      String whole = filled(sent);
      sends.accept(whole);
      line.send(bytes(whole));
    }
    if (pattern.isEmpty()) {
      return new Outcome(true, "");
    }
    Expecting e = new Expecting(filledPattern(pattern.get()));
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
        false, all.isEmpty() ? NOTHING : all.substring(Math.max(0, all.length() - SHORT)));
  }

  /// Takes what came and was not looked at, so that nothing of it is lost for the strip.
  void drain() throws InterruptedException {
    for (Optional<OpenLine.Heard> h = line.next(0); h.isPresent(); h = line.next(0)) {
      take(h.get());
    }
    carried = "";
  }

  /// Listens and waits for nothing.
  void wait(double seconds) throws BenchException, InterruptedException {
    hear(seconds, null);
  }

  /// Listens until something that is expected is heard, or the time is over.
  private Optional<Expecting.Found> hear(double seconds, Expecting e)
      throws BenchException, InterruptedException {
    double end = System.nanoTime() * 1e-9 + seconds;
    while (!stopped.getAsBoolean()) {
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
        carried = carried.substring(Math.max(0, carried.length() - LONGEST));
      }
    }
    return Optional.empty();
  }

  private String take(OpenLine.Heard h) {
    if (!spoke && h.bytes().length > 0) {
      spoke = true;
      firstHeard = h.seconds();
    }
    if (heard.size() < MOST_BYTES) {
      heard.write(h.bytes(), 0, h.bytes().length);
    }
    String more = text.take(h.bytes(), 0, h.bytes().length);
    hears.accept(more);
    lines.add(h.seconds(), more);
    return more;
  }

  /// What came among a loader's frames and was none.
  void stray(byte[] bytes) {
    take(new OpenLine.Heard(line.seconds(), bytes));
  }

  /// A loader has spoken, which was no text.
  ///
  /// @param done whether another program speaks from here on
  /// @param rest what came behind its last answer
  void loaded(boolean done, byte[] rest) {
    if (done) {
      firstHeard = Math.min(firstHeard, line.seconds());
      spoke = true;
      heard.reset();
    }
    text = new HeardText();
    carried = take(new OpenLine.Heard(line.seconds(), rest));
  }

  /// The lines that were heard, the last one as far as it came.
  List<Restarts.Timed> lines() {
    return lines.all(line.seconds());
  }

  /// The first of what was heard, since a program was loaded if one was.
  byte[] heard() {
    return heard.toByteArray();
  }

  /// Whether anything came.
  boolean spoke() {
    return spoke;
  }

  /// Seconds since the line was opened at which the first came; infinite when nothing did.
  double firstHeard() {
    return firstHeard;
  }

  /// What a pattern found under a name, nothing when none did.
  String found(String name) {
    return found.getOrDefault(name, "");
  }

  /// A template with what is known put in.
  String filled(String template) {
    String s = template;
    for (Map.Entry<String, String> e : found.entrySet()) {
      s = s.replace("{" + e.getKey() + "}", e.getValue());
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
}
