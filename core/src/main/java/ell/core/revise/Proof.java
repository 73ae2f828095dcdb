package ell.core.revise;

import ell.core.beep.BeepCheck;
import ell.core.entry.Entry;
import ell.core.quantity.Verdict;
import java.util.Locale;
import java.util.Optional;

/// What shows that a board is mended, written as `joined U6.7 GND`, `apart U6.7 3V3`, `rail 3V3`,
/// `test NAME` or `run`.
public sealed interface Proof {
  /// Two places beep together.
  record Joined(String a, String b) implements Proof {}

  /// Two places do not.
  record Apart(String a, String b) implements Proof {}

  /// A rail reads within.
  record Rail(String net) implements Proof {}

  /// A step of the test plan is within.
  record Test(String name) implements Proof {}

  /// The board passes its whole test plan.
  record Run() implements Proof {}

  /// Reads what shows it.
  ///
  /// @throws IllegalArgumentException saying what was expected
  static Proof parse(String text) {
    String[] w = text.strip().split("\\s+");
    String rest = text.strip().substring(w[0].length()).strip();
    String kind = w[0].toLowerCase(Locale.ROOT);
    boolean two = w.length == 3 && !w[1].equals(w[2]);
    if (kind.equals("joined") && two) {
      return new Joined(w[1], w[2]);
    }
    if (kind.equals("apart") && two) {
      return new Apart(w[1], w[2]);
    }
    if (kind.equals("rail") && w.length == 2) {
      return new Rail(w[1]);
    }
    if (kind.equals("test") && !rest.isEmpty()) {
      return new Test(rest.replaceAll("^\"|\"$", ""));
    }
    if (kind.equals("run") && w.length == 1) {
      return new Run();
    }
    throw new IllegalArgumentException(
        "'"
            + text.strip()
            + "' shows nothing; expected joined U6.7 GND, apart U6.7 3V3, rail 3V3, test NAME or"
            + " run");
  }

  /// As it is written.
  default String text() {
    return switch (this) {
      case Joined j -> "joined " + j.a() + " " + j.b();
      case Apart a -> "apart " + a.a() + " " + a.b();
      case Rail r -> "rail " + r.net();
      case Test t -> "test " + t.name();
      case Run _ -> "run";
    };
  }

  /// What an entry says of it, empty when it is about something else.
  default Optional<Verdict> seen(Entry e) {
    return switch (this) {
      case Joined j when e instanceof Entry.Check c && c.kind().equals("continuity") ->
          at(c, j.a(), j.b());
      case Apart a when e instanceof Entry.Check c && c.kind().equals("isolation") ->
          at(c, a.a(), a.b());
      case Rail r when e instanceof Entry.Reading x && x.place().equals(r.net()) -> x.verdict();
      case Test t when e instanceof Entry.ProofStep p && p.name().equals(t.name()) -> p.verdict();
      case Run _ when e instanceof Entry.ProofEnded p -> Optional.of(p.verdict());
      default -> Optional.empty();
    };
  }

  private static Optional<Verdict> at(Entry.Check c, String a, String b) {
    boolean straight = is(c.a(), c.netA(), a) && is(c.b(), c.netB(), b);
    boolean turned = is(c.a(), c.netA(), b) && is(c.b(), c.netB(), a);
    return straight || turned ? Optional.of(c.verdict()) : Optional.empty();
  }

  private static boolean is(String place, String net, String wanted) {
    return place.equals(wanted) || net.equals(wanted);
  }

  /// Whether it is a check of the beep list.
  default boolean beeps() {
    return this instanceof Joined || this instanceof Apart;
  }

  /// The kind of that check.
  ///
  /// @throws IllegalStateException when it is none
  default BeepCheck.Kind kind() {
    return switch (this) {
      case Joined _ -> BeepCheck.Kind.CONTINUITY;
      case Apart _ -> BeepCheck.Kind.ISOLATION;
      default -> throw new IllegalStateException(text() + " is no check");
    };
  }
}
