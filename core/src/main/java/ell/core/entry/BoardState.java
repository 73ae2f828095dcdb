package ell.core.entry;

import ell.core.beep.BeepCheck;
import ell.core.quantity.Verdict;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;


/// What the book says about one board: folded from its entries, never stored. Struck entries count
/// for nothing; a strike can be struck itself, which brings the entry back.
///
/// @param board serial
/// @param entries how many the book has for it, struck ones and strikes included
/// @param struck numbers of entries that are taken back
/// @param placed parts in the order in which they were placed
/// @param stepsDone numbers of the steps that are done, kept for entries that say no side
/// @param actsDone steps that place nothing, as `action side`
/// @param fitted code by reference, of parts that are another than the bill says
/// @param lost how many parts were dropped or broken, by reference
/// @param gates latest answer by gate
/// @param readings latest reading by place, in the order of first mention
/// @param checks latest check by [BeepCheck#key()]
/// @param findings open findings, oldest first
/// @param heatCycles by part
/// @param overrides rules that were set aside, with the reason
/// @param supply latest supply entry
/// @param paste how the paste lies, by place, since the last print; places that are good are left
///   out
/// @param printed sides that carry a print
/// @param seen places that were looked at and are good: `part.pin`, or a part for all of its joints
/// @param photos by place
/// @param runs profiles that were run, oldest first
/// @param who is at the bench, empty when nobody said so
/// @param rework how many actions were logged
/// @param last latest entry that stands
public record BoardState(
    String board,
    int entries,
    Set<Long> struck,
    List<String> placed,
    Set<Integer> stepsDone,
    Set<String> actsDone,
    Map<String, String> fitted,
    Map<String, Integer> lost,
    Map<String, Boolean> gates,
    Map<String, Logged> readings,
    Map<String, Logged> checks,
    List<Finding> findings,
    Map<String, Integer> heatCycles,
    Map<String, String> overrides,
    Optional<Entry.Supply> supply,
    Map<String, PasteLook> paste,
    Set<String> printed,
    Set<String> seen,
    Map<String, List<Entry.Photo>> photos,
    List<Logged> runs,
    String who,
    int rework,
    Optional<Logged> last) {

  /// Something that is wrong and not mended yet.
  public record Finding(long number, String place, String what) {}

  /// Folds the entries of one board.
  ///
  /// @param entries in order of their numbers
  public static BoardState of(String board, List<Logged> entries) {
    Fold f = new Fold();
    f.struck.addAll(struck(entries));
    for (Logged l : entries) {
      if (!f.struck.contains(l.number())) {
        f.take(l);
      }
    }
    return new BoardState(
        board,
        entries.size(),
        f.struck,
        f.placed,
        f.stepsDone,
        f.actsDone,
        f.fitted,
        f.lost,
        f.gates,
        f.readings,
        f.checks,
        f.findings,
        f.heatCycles,
        f.overrides,
        f.supply,
        f.paste,
        f.printed,
        f.seen,
        f.photos,
        f.runs,
        f.who,
        f.rework,
        f.last);
  }

  /// Numbers of the entries that are taken back: read from the end, a strike counts unless it is
  /// struck.
  public static Set<Long> struck(List<Logged> entries) {
    Set<Long> struck = new HashSet<>();
    for (Logged l : entries.reversed()) {
      if (l.entry() instanceof Entry.Strike s && !struck.contains(l.number())) {
        struck.add(s.target());
      }
    }
    return struck;
  }

  /// The reference in a place: `U4` of `U4.7`.
  public static String part(String place) {
    int dot = place.indexOf('.');
    return dot < 0 ? place : place.substring(0, dot);
  }

  /// The verdict of the latest check with this key.
  public Optional<Verdict> check(String key) {
    return Optional.ofNullable(checks.get(key)).map(l -> ((Entry.Check) l.entry()).verdict());
  }

  /// Whether a joint was looked at and is good.
  public boolean sawGood(String place) {
    return seen.contains(place) || seen.contains(part(place));
  }

  /// The latest reading at a place.
  public Optional<Entry.Reading> reading(String place) {
    return Optional.ofNullable(readings.get(place)).map(l -> (Entry.Reading) l.entry());
  }

  private static final class Fold {
    final Set<Long> struck = new HashSet<>();
    final List<String> placed = new ArrayList<>();
    final Set<Integer> stepsDone = new HashSet<>();
    final Set<String> actsDone = new HashSet<>();
    final Map<String, String> fitted = new LinkedHashMap<>();
    final Map<String, Integer> lost = new LinkedHashMap<>();
    final Map<String, Boolean> gates = new LinkedHashMap<>();
    final Map<String, Logged> readings = new LinkedHashMap<>();
    final Map<String, Logged> checks = new HashMap<>();
    final List<Finding> findings = new ArrayList<>();
    final Map<String, Integer> heatCycles = new LinkedHashMap<>();
    final Map<String, String> overrides = new LinkedHashMap<>();
    Optional<Entry.Supply> supply = Optional.empty();
    final Map<String, PasteLook> paste = new LinkedHashMap<>();
    final Set<String> printed = new HashSet<>();
    final Set<String> seen = new HashSet<>();
    final Map<String, List<Entry.Photo>> photos = new LinkedHashMap<>();
    final List<Logged> runs = new ArrayList<>();
    String who = "";
    int rework;
    Optional<Logged> last = Optional.empty();

    private final Set<String> placedSet = new HashSet<>();
    private final Set<String> inPaste = new HashSet<>();

    void take(Logged l) {
      switch (l.entry()) {
        case Entry.StepDone s -> step(s);
        case Entry.Gate g -> {
          gates.put(g.gate(), g.held());
          if (g.held()) {
            findings.removeIf(x -> x.place().equals(g.gate()));
          } else {
            findings.add(
                new Finding(
                    l.number(),
                    g.gate(),
                    "gate does not hold" + (g.why().isEmpty() ? "" : ": " + g.why())));
          }
        }
        case Entry.Reading r -> {
          readings.put(r.place(), l);
          r.verdict().ifPresent(v -> judged(l.number(), r.place(), "reads " + v.words(), v));
        }
        case Entry.Check c -> {
          checks.put(BeepCheck.key(c.kind(), c.a(), c.b()), l);
          judged(
              l.number(),
              c.netA() + " to " + c.netB(),
              c.kind() + " " + c.verdict().words(),
              c.verdict());
        }
        case Entry.Defect d -> {
          findings.add(new Finding(l.number(), d.place(), d.defect()));
          seen.remove(d.place());
          seen.remove(part(d.place()));
        }
        case Entry.Action a -> {
          rework++;
          findings.removeIf(x -> x.place().equals(a.place()) || part(x.place()).equals(a.place()));
          if (a.heat()) {
            heatCycles.merge(part(a.place()), 1, Integer::sum);
            // what was molten again is looked at again
            seen.removeIf(x -> x.equals(a.place()) || part(x).equals(a.place()));
            seen.remove(part(a.place()));
          }
        }
        case Entry.Supply s -> {
          supply = Optional.of(s);
          s.verdict().ifPresent(v -> judged(l.number(), "supply", s.why(), v));
        }
        case Entry.Override o -> overrides.put(o.rule(), o.why());
        case Entry.Fitted x -> fitted.put(x.place(), x.code());
        case Entry.Lost x -> lost.merge(x.place(), x.count(), Integer::sum);
        case Entry.Printed p -> {
          printed.add(p.side());
          paste.clear();
        }
        case Entry.PasteSeen p -> {
          if (p.look() == PasteLook.GOOD) {
            paste.remove(p.place());
          } else {
            paste.put(p.place(), p.look());
          }
        }
        case Entry.HeatRun _ -> runs.add(l);
        case Entry.Seen s -> seen.addAll(s.places());
        case Entry.Photo p -> photos.computeIfAbsent(p.place(), _ -> new ArrayList<>()).add(p);
        case Entry.Hands h -> who = h.who();
        case Entry.Note _, Entry.Strike _, Entry.Stock _, Entry.Jar _, Entry.Bag _ -> {}
      }
      last = Optional.of(l);
    }

    /// Soldering heats each part of its step once; a reflow heats every part that lies on the
    /// board.
    private void step(Entry.StepDone s) {
      if (s.side().isEmpty()) {
        stepsDone.add(s.number());
      } else if (s.parts().isEmpty()) {
        actsDone.add(s.action() + " " + s.side());
      }
      for (String p : s.parts()) {
        if (placedSet.add(p)) {
          placed.add(p);
        }
        if (s.action().equals("place")) {
          inPaste.add(p);
        } else if (!s.action().equals("plug in")) {
          heatCycles.merge(p, 1, Integer::sum);
        }
      }
      if (s.action().equals("reflow")) {
        inPaste.forEach(p -> heatCycles.merge(p, 1, Integer::sum));
      }
    }

    private void judged(long number, String place, String what, Verdict v) {
      findings.removeIf(x -> x.place().equals(place));
      if (v == Verdict.OUT) {
        findings.add(new Finding(number, place, what));
      }
    }
  }
}
