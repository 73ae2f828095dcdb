package ell.core.print;

import ell.core.entry.Entry;
import ell.core.entry.JarMove;
import ell.core.entry.Logged;
import ell.core.sheet.Worked;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// How long a jar of paste was warm, open and on the foil, and what that says. Folded from its
/// moves by instants, so neither restarts nor a change of daylight saving touch it.
///
/// @param state the last move, empty when it never moved
/// @param since when that was
/// @param warmed out of the cold since it last left it, closed time too
/// @param out of the cold in all
/// @param foil on the foil in all
/// @param verdict may it be used
/// @param why in sentences
public record JarClock(
    String jar,
    Optional<JarMove> state,
    Optional<Instant> since,
    Duration warmed,
    Duration out,
    Duration foil,
    Verdict verdict,
    List<String> why) {

  /// May it be used.
  public enum Verdict {
    /// Yes.
    USE("use"),
    /// It still warms.
    WAIT("wait"),
    /// Yes, but not for long.
    USE_SOON("use soon"),
    /// On one board first.
    TEST("test on one board"),
    /// No.
    DISCARD("discard");

    private final String words;

    Verdict(String words) {
      this.words = words;
    }

    /// In words.
    public String words() {
      return words;
    }

    Verdict and(Verdict other) {
      return compareTo(other) >= 0 ? this : other;
    }
  }

  public JarClock {
    why = List.copyOf(why);
  }

  /// Whether it stands open, or its paste lies on the foil.
  public boolean inUse() {
    return state.filter(s -> s == JarMove.OPEN || s == JarMove.STENCIL).isPresent();
  }

  /// Folds the moves of one jar.
  ///
  /// @param log entries of all boards by time, struck ones left out
  /// @param expiry last day on which it may be used
  public static JarClock of(
      String jar,
      List<Logged> log,
      JarRules rules,
      Optional<LocalDate> expiry,
      Instant now,
      ZoneId zone) {
    Optional<JarMove> state = Optional.empty();
    Instant since = null;
    Instant leftCold = null;
    Duration out = Duration.ZERO;
    Duration foil = Duration.ZERO;
    Instant tested = null;
    boolean early = false;
    for (Logged l : log) {
      if (!(l.entry() instanceof Entry.Jar m) || !m.jar().equals(jar)) {
        continue;
      }
      Instant at = l.at().toInstant();
      if (at.isAfter(now)) {
        break;
      }
      if (m.move() == JarMove.TESTED) {
        tested = at;
        early = false;
        continue;
      }
      if (since != null) {
        Duration d = Duration.between(since, at);
        out = warm(state) ? out.plus(d) : out;
        foil = state.filter(s -> s == JarMove.STENCIL).isPresent() ? foil.plus(d) : foil;
      }
      boolean wasCold = state.isEmpty() || state.get() == JarMove.FRIDGE;
      if (m.move() == JarMove.FRIDGE) {
        leftCold = null;
      } else if (wasCold) {
        leftCold = at;
      }
      boolean opens = m.move() == JarMove.OPEN || m.move() == JarMove.STENCIL;
      if (opens && state.isPresent() && leftCold != null) {
        early |= Duration.between(leftCold, at).compareTo(rules.warm()) < 0;
      }
      state = Optional.of(m.move());
      since = at;
    }
    if (since != null) {
      Duration d = Duration.between(since, now);
      out = warm(state) ? out.plus(d) : out;
      foil = state.filter(s -> s == JarMove.STENCIL).isPresent() ? foil.plus(d) : foil;
    }
    Duration warmed = leftCold == null ? Duration.ZERO : Duration.between(leftCold, now);
    List<String> why = new ArrayList<>();
    Verdict v =
        judge(
            state,
            rules,
            expiry,
            warmed,
            out,
            foil,
            tested,
            early,
            now.atZone(zone).toLocalDate(),
            why);
    return new JarClock(jar, state, Optional.ofNullable(since), warmed, out, foil, v, why);
  }

  private static boolean warm(Optional<JarMove> s) {
    return s.isPresent() && s.get() != JarMove.FRIDGE && s.get() != JarMove.DISCARDED;
  }

  private static Verdict judge(
      Optional<JarMove> state,
      JarRules rules,
      Optional<LocalDate> expiry,
      Duration warmed,
      Duration out,
      Duration foil,
      Instant tested,
      boolean early,
      LocalDate today,
      List<String> why) {
    if (state.filter(s -> s == JarMove.DISCARDED).isPresent()) {
      why.add("it was thrown away");
      return Verdict.DISCARD;
    }
    Verdict v = Verdict.USE;
    if (expiry.filter(e -> e.isBefore(today)).isPresent()) {
      why.add("its date passed on " + expiry.get());
      v = v.and(Verdict.DISCARD);
    } else if (expiry.filter(e -> e.isBefore(today.plusDays(15))).isPresent()) {
      why.add("its date passes on " + expiry.get());
      v = v.and(Verdict.USE_SOON);
    }
    v = v.and(limit("out of the cold in all", out, rules.out(), tested, why));
    v = v.and(limit("on the foil", foil, rules.foil(), tested, why));
    if (early) {
      why.add(
          "it was opened before it had warmed for " + words(rules.warm()) + ": water may be in it");
      v = v.and(tested == null ? Verdict.TEST : Verdict.USE_SOON);
    }
    if (state.filter(s -> s == JarMove.WARMING).isPresent() && warmed.compareTo(rules.warm()) < 0) {
      why.add("warms closed for another " + words(rules.warm().minus(warmed)));
      v = v.and(Verdict.WAIT);
    }
    if (state.isEmpty()) {
      why.add("no move of it is in the book: say jar CODE cold, warming, open or foil");
    }
    if (why.isEmpty()) {
      why.add("within every limit");
    }
    if (tested != null) {
      why.add("a test board came out well");
    }
    return v;
  }

  private static Verdict limit(
      String what, Duration used, Duration most, Instant tested, List<String> why) {
    if (most.isZero() || used.compareTo(most.multipliedBy(4).dividedBy(5)) < 0) {
      return Verdict.USE;
    }
    why.add(what + " for " + words(used) + " of " + words(most));
    if (used.compareTo(most) <= 0) {
      return Verdict.USE_SOON;
    }
    if (used.compareTo(most.multipliedBy(2)) > 0) {
      return Verdict.DISCARD;
    }
    return tested == null ? Verdict.TEST : Verdict.USE_SOON;
  }

  /// A length of time as `3 h 20 min` or `2 d 4 h`.
  public static String words(Duration d) {
    long min = Math.max(0, d.toMinutes());
    return min < 60
        ? min + " min"
        : min < 2880
            ? min / 60 + " h" + (min % 60 == 0 ? "" : " " + min % 60 + " min")
            : min / 1440 + " d" + (min % 1440 / 60 == 0 ? "" : " " + min % 1440 / 60 + " h");
  }

  /// The working.
  public Worked sheet(JarRules rules, Optional<LocalDate> expiry) {
    Worked.Builder s =
        Worked.of("print.jar", "May jar " + jar + " be used: " + verdict.words())
            .line("state", "last move in the book", state.map(JarMove::key).orElse("never moved"))
            .line("warmed", "since it left the cold", words(warmed) + " of " + words(rules.warm()))
            .line("out", "out of the cold in all", words(out) + " of " + words(rules.out()))
            .line("foil", "on the foil in all", words(foil) + " of " + words(rules.foil()));
    expiry.ifPresent(e -> s.line("date", "last day of use", e.toString()));
    why.forEach(w -> s.line("says", "", w));
    return s.source(
            rules.typical()
                ? "common practice, no source; the jar's own data sheet decides"
                : "the jar's data sheet, as it was typed in")
        .assume("past a limit: a test board first; past twice a limit, or its date: discard")
        .caution("Paste holds flux and metal, some of it lead: no food here, wash hands.")
        .done();
  }
}
