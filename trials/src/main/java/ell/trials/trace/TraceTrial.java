package ell.trials.trace;

import ell.core.board.Joint;
import ell.core.board.Revision;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.power.FaultWords;
import ell.core.power.Ladder;
import ell.core.practice.HiddenBoard;
import ell.core.practice.SameFault;
import ell.core.practice.Symptom;
import ell.core.trace.BenchKnowledge;
import ell.core.trace.Board;
import ell.core.trace.Choice;
import ell.core.trace.Clues;
import ell.core.trace.Knobs;
import ell.core.trace.Probe;
import ell.core.trace.Suspects;
import ell.core.trace.Traced;
import ell.core.trace.Tracer;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/// Faults put into a board, and traced until they are found: how many measurements and minutes it
/// takes, and how often the finding is wrong.
public final class TraceTrial {
  private static final int MOST = 40;

  private static final int TRIES = 10;

  /// Of the best by worth, one gives the most bits, as good as always.
  private static final int FEW = 30;

  /// How the next measurement is chosen.
  public enum Way {
    /// As Ell proposes it: what tells most a minute.
    PROPOSED,
    /// What tells most, however long it takes.
    FEWEST,
    /// Always in the order of a bring-up list.
    LIST,
    /// The nearest to where something was seen first.
    NEAREST
  }

  /// What came of one fault.
  ///
  /// @param kind of the trouble
  /// @param fault in words
  /// @param found in words, empty when nothing was
  /// @param chance that was given for it
  /// @param right whether it is the fault, or one of two
  /// @param measurements after the symptom
  /// @param minutes likewise
  /// @param begin what was not known after the symptom, bit
  /// @param best what the most telling ones gave together, bit
  public record Run(
      Trouble.Kind kind,
      String fault,
      String found,
      double chance,
      boolean right,
      int measurements,
      double minutes,
      double begin,
      double best) {}

  private final Revision revision;
  private final Ladder ladder;
  private final Tracer tracer;
  private final Knobs usual;
  private final List<Probe> list = new ArrayList<>();

  /// A trial on a revision.
  ///
  /// @param knows what the bench has counted before
  public TraceTrial(Board board, BenchKnowledge knows) {
    revision = board.revision();
    ladder = board.ladder();
    Suspects.Listed listed = Suspects.of(revision, ladder, knows);
    tracer = new Tracer(board, listed);
    usual = Knobs.usual(ladder);
  }

  /// The tracer.
  public Tracer tracer() {
    return tracer;
  }

  private Logged logged(List<Logged> log, Entry e) {
    return new Logged(
        log.size() + 1, OffsetDateTime.of(2026, 1, 1, 0, 0, 0, 0, ZoneOffset.UTC), "x", e);
  }

  /// Traces what is wrong.
  ///
  /// @return empty when nothing of it shows
  public Optional<Run> run(Trouble trouble, long seed, Way way) {
    Optional<Entry> symptom =
        Symptom.of(
            new HiddenBoard(revision, ladder, trouble.steady(), seed),
            new HiddenBoard(revision, ladder, List.of(), seed + 1));
    if (symptom.isEmpty()) {
      return Optional.empty();
    }
    HiddenBoard hidden = new HiddenBoard(revision, ladder, trouble.faults(), seed);
    List<Logged> log = new ArrayList<>();
    log.add(logged(log, symptom.get()));
    if (trouble.kind() == Trouble.Kind.SOMETIMES) {
      log.add(logged(log, comes(hidden)));
    }
    double minutes = 0;
    int n = 0;
    double best = 0;
    double begin = -1;
    boolean powered = false;
    Traced t = null;
    Set<Probe> mute = new HashSet<>();
    while (n < MOST) {
      t = traced(Clues.of(tracer.board(), BoardState.of("x", log)), way, symptom.get());
      if (begin < 0) {
        begin = t.entropy();
      }
      List<Choice> next = t.next().stream().filter(x -> !mute.contains(x.probe())).toList();
      if (t.finding().isPresent() || next.isEmpty() || t.told().contains(Tracer.HARDLY)) {
        break;
      }
      Choice c = way == Way.FEWEST ? most(next) : next.getFirst();
      List<Entry> e = hidden.made(c.probe());
      if (e.isEmpty()) {
        mute.add(c.probe()); // the simulated board does not come to rest under it
        continue;
      }
      best += most(next).information();
      n++;
      minutes += tracer.board().minutes(c.probe());
      if (c.power() != powered && c.probe().kind() != Probe.Kind.LOOK) {
        minutes += c.power() ? 0.7 : 0.6;
        powered = c.power();
        if (powered) {
          log.add(logged(log, on()));
        } else {
          log.add(logged(log, Entry.Supply.off("")));
        }
      }
      e.forEach(one -> log.add(logged(log, one)));
    }
    return Optional.of(
        new Run(
            trouble.kind(),
            String.join(" + ", trouble.faults().stream().map(FaultWords::words).toList()),
            t.finding().map(f -> f.suspect().words()).orElse(""),
            t.finding().map(f -> f.chance()).orElse(0.0),
            right(t, trouble),
            n,
            minutes,
            begin,
            best));
  }

  private boolean right(Traced t, Trouble trouble) {
    SameFault same = new SameFault(revision);
    return t.finding().isPresent()
        && trouble.faults().stream()
            .anyMatch(f -> same.same(t.finding().get().suspect().fault(), f));
  }

  private static Choice most(List<Choice> next) {
    return next.stream().max(Comparator.comparingDouble(Choice::information)).orElseThrow();
  }

  private Traced traced(Clues clues, Way way, Entry symptom) {
    return switch (way) {
      case PROPOSED, FEWEST -> tracer.trace(clues, Map.of(), Map.of(), FEW);
      case LIST -> tracer.trace(clues, Comparator.comparingInt(this::rank), FEW);
      case NEAREST -> {
        Joint from = at(symptom);
        yield tracer.trace(clues, Comparator.comparingDouble((Probe p) -> distance(from, p)), FEW);
      }
    };
  }

  /// At how many of ten tries it was there.
  private static Entry comes(HiddenBoard hidden) {
    int times = 0;
    for (int i = 0; i < TRIES; i++) {
      times += hidden.tried() ? 1 : 0;
    }
    return new Entry.Symptom("", "comes", "bad", times, TRIES);
  }

  private Entry on() {
    double v = usual.volts().stream().mapToDouble(x -> x).max().orElse(0);
    double a = usual.limits().stream().mapToDouble(x -> x).max().orElse(1);
    return new Entry.Supply(
        true, v, a, Optional.empty(), Optional.empty(), Optional.empty(), "for a measurement");
  }

  /// The order of a bring-up list: rails against ground, rails, current, every joint's volts,
  /// lamps, then looks and ohms.
  private int rank(Probe p) {
    boolean rail = ladder.rail(p.a()).isPresent();
    int kind =
        switch (p.kind()) {
          case OHMS -> rail ? 0 : 6;
          case VOLTS -> rail ? 1 : 4;
          case AMPS -> 2;
          case LIT -> 3;
          case LOOK -> 5;
          case TOUCH -> 7;
          case SWAP -> 9;
          default -> 8;
        };
    int place = Math.max(0, revision.nets().indexOf(p.a()));
    for (int i = 0; i < revision.joints().size(); i++) {
      if (revision.joints().get(i).place().equals(p.a())
          || revision.joints().get(i).part().equals(p.a())) {
        place = i;
        break;
      }
    }
    return 100_000 * kind + place;
  }

  private Joint at(Entry e) {
    String place =
        switch (e) {
          case Entry.Reading r -> r.place();
          case Entry.Check c -> c.a();
          case Entry.Symptom s -> s.place();
          default -> "";
        };
    return joint(place).orElse(revision.joints().getFirst());
  }

  private Optional<Joint> joint(String place) {
    if (!revision.net(place).isEmpty()) {
      return Optional.of(revision.net(place).getFirst());
    }
    return revision.joints().stream()
        .filter(j -> j.place().equals(place) || j.part().equals(place))
        .findFirst();
  }

  private double distance(Joint from, Probe p) {
    return joint(p.places().getFirst()).map(j -> j.distanceMm(from)).orElse(1e3)
        + (p.kind() == Probe.Kind.SWAP ? 1e4 : 0);
  }
}
