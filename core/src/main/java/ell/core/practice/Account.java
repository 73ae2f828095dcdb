package ell.core.practice;

import ell.core.board.Part;
import ell.core.board.Revision;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.power.Fault;
import ell.core.power.FaultWords;
import ell.core.trace.Traced;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/// How a search went: what each measurement told, what it cost, what was risky, and which habits
/// cost minutes.
///
/// @param over whether the fault was named or given up
/// @param found in words, empty when it was given up or is still looked for
/// @param right whether it is the fault
/// @param minutes of all measurements and repairs, typical
/// @param parts that were put in anew, by reference
/// @param cost of them, NaN where the price of one is not known
/// @param looks what was measured, in order
/// @param risks a sentence each
/// @param habits what cost minutes and told nothing, a sentence each
public record Account(
    boolean over,
    String found,
    boolean right,
    double minutes,
    List<String> parts,
    double cost,
    List<Look> looks,
    List<String> risks,
    List<String> habits) {
  /// Below so many bits a measurement told nothing.
  private static final double NOTHING = 0.05;

  /// To take a part off and put another on; typical, no source.
  private static final double REPLACE_MINUTES = 14;

  private static final double REFLOW_MINUTES = 1.5;

  /// So many measurements, in words.
  public static String measurements(int n) {
    return n + (n == 1 ? " measurement" : " measurements");
  }

  public Account {
    parts = List.copyOf(parts);
    looks = List.copyOf(looks);
    risks = List.copyOf(risks);
    habits = List.copyOf(habits);
  }

  /// One thing that was measured or looked at.
  ///
  /// @param bits that were known more after it; below 0 where it made the question wider
  /// @param left bits that were not known after it
  public record Look(long entry, String words, double minutes, double bits, double left) {}

  /// Settles it.
  ///
  /// @param log of the board since it was handed over
  /// @param traced what the tracer makes of the board's whole book
  /// @param faults that are hidden in it
  public static Account of(
      Revision revision, List<Logged> log, Traced traced, List<Fault> faults, boolean givenUp) {
    List<Logged> standing = BoardState.of("", log).standing();
    List<Look> looks = looks(standing, traced);
    Optional<String> found =
        standing.reversed().stream()
            .map(Logged::entry)
            .filter(Entry.Found.class::isInstance)
            .map(e -> ((Entry.Found) e).fault())
            .findFirst();
    boolean right =
        found
            .map(f ->
                parsed(f)
                    .map(p -> faults.stream().anyMatch(x -> new SameFault(revision).same(p, x)))
                    .orElse(false))
            .orElse(false);
    List<String> parts = new ArrayList<>();
    double repair = 0;
    for (Logged l : standing) {
      if (l.entry() instanceof Entry.Action a) {
        boolean anew = a.action().equals("replaced") || a.action().equals("fitted");
        if (anew) {
          parts.add(a.place().split("\\.")[0]);
        }
        repair += anew ? REPLACE_MINUTES : REFLOW_MINUTES;
      }
    }
    double cost =
        parts.stream()
            .mapToDouble(p -> revision.part(p).map(Part::unitCost).orElse(Double.NaN))
            .sum();
    return new Account(
        givenUp || found.isPresent(),
        found.orElse(""),
        right,
        looks.stream().mapToDouble(Look::minutes).sum() + repair,
        parts,
        cost,
        looks,
        risks(standing),
        habits(standing, looks));
  }

  private static Optional<Fault> parsed(String words) {
    try {
      return Optional.of(FaultWords.parse(words));
    } catch (IllegalArgumentException e) {
      return Optional.empty();
    }
  }

  private static List<Look> looks(List<Logged> standing, Traced traced) {
    List<Long> own = standing.stream().map(Logged::number).toList();
    List<Look> all = new ArrayList<>();
    double before = Double.NaN;
    for (Traced.Stair s : traced.stairs()) {
      if (own.contains(s.entry()) && !Double.isNaN(before)) {
        all.add(new Look(s.entry(), s.words(), s.minutes(), before - s.entropy(), s.entropy()));
      }
      before = s.entropy();
    }
    return all;
  }

  private static List<String> risks(List<Logged> standing) {
    List<String> all = new ArrayList<>();
    boolean beeped = false;
    for (Logged l : standing) {
      switch (l.entry()) {
        case Entry.Check _ -> beeped = true;
        case Entry.Override o ->
            all.add(
                "entry "
                    + l.number()
                    + ": the rule '"
                    + o.rule()
                    + "' was set aside ("
                    + o.why()
                    + "); on a real board that is when things burn");
        case Entry.Supply s -> {
          if (s.on() && !beeped) {
            all.add(
                "entry "
                    + l.number()
                    + ": power before anything was beeped: a short would have been found by the"
                    + " supply");
            beeped = true; // said once
          }
        }
        default -> {}
      }
    }
    return all;
  }

  private static List<String> habits(List<Logged> standing, List<Look> looks) {
    List<String> all = new ArrayList<>();
    List<Look> idle = looks.stream().filter(k -> Math.abs(k.bits) < NOTHING).toList();
    if (!idle.isEmpty()) {
      all.add(
          String.format(
              Locale.ROOT,
              "%d of %d measurements told nothing that was not known: %.1f minutes",
              idle.size(),
              looks.size(),
              idle.stream().mapToDouble(Look::minutes).sum()));
    }
    Map<String, Integer> times = new LinkedHashMap<>();
    for (Logged l : standing) {
      switch (l.entry()) {
        case Entry.Reading r -> times.merge(r.place() + " " + r.unit().symbol(), 1, Integer::sum);
        case Entry.Check c -> times.merge(c.a() + " to " + c.b(), 1, Integer::sum);
        default -> {}
      }
    }
    times.forEach((what, n) -> {
      if (n > 2) {
        all.add(what + " was measured " + n + " times");
      }
    });
    boolean measured = false;
    for (Logged l : standing) {
      if (l.entry() instanceof Entry.Reading || l.entry() instanceof Entry.Check) {
        measured = true;
      }
      if (l.entry() instanceof Entry.Action a && a.action().equals("replaced") && !measured) {
        all.add(a.place() + " was replaced before anything was measured");
      }
    }
    return all;
  }
}
