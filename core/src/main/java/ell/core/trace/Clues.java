package ell.core.trace;

import ell.core.beep.ShortPlaces;
import ell.core.board.Joint;
import ell.core.board.PartKind;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.look.DefectKind;
import ell.core.power.Ladder;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// What the book says of a board, as clues: everything that was measured, seen and done since it
/// was begun. Struck entries are not among what it is made of.
///
/// @param all oldest first; of readings of the same thing with nothing done between, the last
/// @param unused what could not be used, a sentence each
/// @param knobs how the supplies stand now
public record Clues(List<Clue> all, List<String> unused, Knobs knobs) {
  /// Who calls so many joints good at once has glanced at them.
  private static final int MANY = 8;

  /// From this share of its limit on a supply is at it.
  private static final double AT_LIMIT = 0.95;

  /// So many clues back a stage before may lie.
  private static final int STAGES = 12;

  /// Two readings of the same are alike within this share, and so much besides.
  private static final double ALIKE = 0.25;

  /// A rail that had this share of its volts stood.
  private static final double STOOD = 0.5;

  /// Settings of the supplies that are worked out, the last ones; every further one takes as long
  /// as the first.
  static final int MOST_KNOBS = 3;

  public Clues {
    all = List.copyOf(all);
    unused = List.copyOf(unused);
  }

  /// Gathers them.
  public static Clues of(Board board, BoardState state) {
    Gather g = new Gather(board);
    for (Logged l : state.standing()) {
      g.take(l);
    }
    return g.done();
  }

  private static final class Gather {
    private final Board board;
    private final List<Clue> all = new ArrayList<>();
    private final Map<String, Integer> passed = new LinkedHashMap<>();
    private final Knobs usual;
    private Knobs knobs;
    private int named;
    private boolean limited;

    /// The most that the supplies may have given, amperes.
    private double most;

    /// A small current that is forced into a net of the board without power.
    private ShortPlaces.Feed feed;

    /// Where the latest of each probe is since something was done.
    private final Map<Probe, Integer> latest = new HashMap<>();

    Gather(Board board) {
      this.board = board;
      usual = Knobs.usual(board.ladder());
      knobs = Knobs.off(board.ladder());
      most = usual.limits().stream().mapToDouble(x -> x).sum();
    }

    private void pass(String what) {
      passed.merge(what, 1, Integer::sum);
    }

    /// The knobs that a reading was taken with: those of the book, else the usual ones.
    private Optional<Knobs> power() {
      return Optional.of(knobs.on() ? knobs.near(usual, limited) : usual);
    }

    private void see(Logged l, Probe p, Answer a, String words) {
      if (died(p, a)) {
        anotherBoard(p.a() + " and " + p.b() + " were joined");
      }
      Integer before = latest.get(p);
      int times = 1;
      if (before != null) {
        Clue.Seen was = (Clue.Seen) all.set(before, null); // the later one stands for both
        if (alike(was.answer(), a)) {
          times = was.times() + 1;
        } else if (p.kind() == Probe.Kind.VOLTS || p.kind() == Probe.Kind.OHMS) {
          // nothing was done between, and it is another: what is wrong comes and goes
          all.add(new Clue.Comes(l.number(), 1, 2));
        }
      }
      latest.put(p, all.size());
      all.add(new Clue.Seen(l.number(), p, a, times, words));
    }

    /// Whether a rail is shorted that had its volts before, and no supply gives what it would take
    /// to hold them: a part may have died with power on.
    private boolean died(Probe p, Answer a) {
      Optional<Ladder.RailSpec> rail =
          p.kind() == Probe.Kind.OHMS && p.b().equals(board.ladder().ground())
              ? board.ladder().rail(p.a())
              : Optional.empty();
      return rail.isPresent()
          && a instanceof Answer.Number(double ohms)
          && ohms < ShortPlaces.MOST_OHMS
          && all.stream()
              .anyMatch(c ->
                  c instanceof Clue.Seen s
                      && s.probe().kind() == Probe.Kind.VOLTS
                      && net(s.probe().a()).equals(p.a())
                      && s.answer() instanceof Answer.Number(double volts)
                      && Math.abs(volts) > STOOD * Math.abs(rail.get().volts())
                      && Math.abs(volts) > ohms * most);
    }

    /// What was measured before says nothing of the board as it is now; how it looks still does.
    private void anotherBoard(String since) {
      for (int i = 0; i < all.size(); i++) {
        if (all.get(i) instanceof Clue.Seen s && s.probe().kind() != Probe.Kind.LOOK) {
          all.set(i, null);
          latest.remove(s.probe(), i);
          pass("readings of before " + since + "; a part may have died with power on");
        }
      }
    }

    private static boolean alike(Answer a, Answer b) {
      if (a instanceof Answer.Number(double x) && b instanceof Answer.Number(double y)) {
        return x == y || Math.abs(x - y) <= ALIKE + ALIKE * Math.max(Math.abs(x), Math.abs(y));
      }
      return a.equals(b);
    }

    void take(Logged l) {
      switch (l.entry()) {
        case Entry.Reading r -> reading(l, r);
        case Entry.Check c ->
            see(
                l,
                pair(c.a(), c.b()),
                new Answer.Number(c.ohms()),
                c.a() + " to " + c.b() + " " + ohms(c.ohms()));
        case Entry.Supply s -> supply(l, s);
        case Entry.Capture c -> capture(l, c);
        case Entry.Talk t -> talk(l, t);
        case Entry.Seen s -> {
          String how = s.places().size() > MANY ? "all" : "";
          s.places().forEach(p -> good(l, p, how));
        }
        case Entry.Defect d -> defect(l, d);
        case Entry.Symptom s -> symptom(l, s);
        case Entry.Action a when a.action().equals("checked") -> {} // who looks changes nothing
        case Entry.Action a -> {
          latest.clear();
          feed = null;
          if (!tried(a)) {
            all.add(new Clue.Worked(l.number(), a.place(), a.action()));
          }
        }
        case Entry.Photo _ -> pass("photographs: say what they show");
        case Entry.ChainLook _ -> pass("looks at chains: ask ./ell chain");
        default -> {} // says nothing of where a fault is
      }
    }

    /// Whether what was done is the change of a part of which is written that nothing came of it:
    /// it mended nothing, and what was measured before holds.
    private boolean tried(Entry.Action a) {
      return a.action().equals("replaced")
          && !all.isEmpty()
          && all.getLast() instanceof Clue.Seen s
          && s.probe().kind() == Probe.Kind.SWAP
          && s.probe().a().equals(a.place())
          && s.answer().equals(new Answer.Word(WordViews.SAME));
    }

    private void reading(Logged l, Entry.Reading r) {
      String words = r.place() + " " + EngineeringNumber.print(r.value(), r.unit(), 4);
      Answer value = new Answer.Number(r.value());
      switch (r.unit()) {
        case VOLT -> {
          if (fed(l, r)) {
            return;
          }
          if (r.place().endsWith(" ripple") || net(r.place()).isEmpty()) {
            pass("readings of ripple, or at no net");
          } else if (usual.volts().isEmpty()) {
            pass("volts of a board whose supplies nobody knows");
          } else if (!tip(r.place()).equals(board.ladder().ground())) {
            // what a jig shows may be its own doing, and is not what a tip shows
            boolean jig = r.with().startsWith(Probe.JIG);
            see(
                l,
                new Probe(Probe.Kind.VOLTS, tip(r.place()), jig ? Probe.JIG : "", power()),
                value,
                jig ? words + " in the jig" : words);
          }
        }
        case AMPERE -> {
          boolean source =
              board.ladder().sources().stream().anyMatch(s -> s.rail().equals(r.place()));
          if (source) {
            see(l, new Probe(Probe.Kind.AMPS, r.place(), "", power()), value, words);
          } else if (r.value() > 0
              && r.value() <= ShortPlaces.MOST_AMPS
              && joint(r.place()).isPresent()) {
            feed = new ShortPlaces.Feed(joint(r.place()).get(), r.value());
          } else {
            pass("currents that are not of a source");
          }
        }
        case OHM -> {
          List<Joint> ends = board.revision().jointsOf(r.place());
          if (ends.size() == 2 && ends.stream().allMatch(Joint::connected)) {
            see(l, pair(ends.get(0).place(), ends.get(1).place()), value, words);
          } else if (!net(r.place()).isEmpty()) {
            Optional<Joint> along = ends.isEmpty() ? alongAt(r) : Optional.empty();
            if (along.isPresent()) {
              ohmsAlong(l, along.get(), r.value(), words);
            } else {
              see(l, pair(r.place(), board.ladder().ground()), value, words);
            }
          } else {
            pass("ohms at no net");
          }
        }
        case CELSIUS -> {
          if (warms(r.place())) {
            String feels = r.value() > 70 ? "hot" : r.value() > 42 ? "warm" : "cool";
            see(l, touch(r.place()), new Answer.Word(feels), words);
          } else {
            pass("temperatures of parts whose heat is not known");
          }
        }
        case HERTZ -> wave(l, r.place(), r.value(), words);
        default -> pass("readings in " + r.unit().symbol());
      }
    }

    /// The joint of a reading of a few ohms from it to ground: one of those along a net by which
    /// the place of a short is found.
    private Optional<Joint> alongAt(Entry.Reading r) {
      return r.value() < ShortPlaces.MOST_OHMS ? joint(r.place()) : Optional.empty();
    }

    /// A joint on a net that is not ground.
    private Optional<Joint> joint(String place) {
      return board
          .revision()
          .joint(place)
          .filter(j -> j.connected() && !j.net().equals(board.ladder().ground()));
    }

    private void ohmsAlong(Logged l, Joint at, double ohms, String words) {
      Answer.Along now = along(l, new ShortPlaces.At(at, ohms), Optional.empty());
      // between the nets it is one reading, however many joints it is made at: the least
      double least =
          now.readings().at().stream().mapToDouble(ShortPlaces.At::ohms).min().orElse(ohms);
      see(l, Probe.ohms(at.net(), board.ladder().ground()), new Answer.Number(least), words);
    }

    /// Volts along a net into which a small current is forced, on a board without power.
    private boolean fed(Logged l, Entry.Reading r) {
      Optional<Joint> at = feed == null ? Optional.empty() : joint(r.place());
      if (at.filter(j -> j.net().equals(feed.joint().net())).isEmpty()
          || Math.abs(r.value()) > ShortPlaces.MOST_VOLTS) {
        return false;
      }
      along(l, new ShortPlaces.At(at.get(), r.value() / feed.amps()), Optional.of(feed));
      return true;
    }

    private Answer.Along along(Logged l, ShortPlaces.At one, Optional<ShortPlaces.Feed> by) {
      String net = one.joint().net();
      Probe p = Probe.alongRead(net, board.ladder().ground());
      Optional<Answer.Along> before =
          Optional.ofNullable(latest.get(p))
              .map(i -> (Answer.Along) ((Clue.Seen) all.get(i)).answer())
              .filter(a -> a.readings().feed().equals(by));
      Answer.Along now = AlongViews.with(before, one, by);
      see(l, p, now, "along " + net + " " + alongWords(now));
      return now;
    }

    private static String alongWords(Answer.Along a) {
      return String.join(
          ", ",
          a.readings().at().stream().map(r -> r.joint().place() + " " + ohms(r.ohms())).toList());
    }

    private void wave(Logged l, String place, double hertz, String words) {
      if (net(place).isEmpty() || board.pulse().at(place).clock() <= 0 || usual.volts().isEmpty()) {
        pass("captures where no clock is wanted");
        return;
      }
      see(
          l,
          new Probe(Probe.Kind.WAVE, place, "", power()),
          new Answer.Number(Math.max(hertz, 0)),
          words);
    }

    private void capture(Logged l, Entry.Capture c) {
      if (!usual.volts().isEmpty() && !c.measures().isEmpty()) {
        String told = String.join(" ", c.told());
        String set =
            told.contains("coupling AC")
                ? "ac"
                : told.contains("factor of the probe") ? "x10" : "fine";
        see(
            l,
            new Probe(Probe.Kind.SCOPE, "", "", power()),
            new Answer.Word(set),
            c.place()
                + (set.equals("fine")
                    ? " looks as a scope shows it"
                    : " looks as with the scope at " + set));
      }
      double hertz = c.measure("frequency").map(Entry.Capture.Measure::value).orElse(0.0);
      wave(l, c.place(), hertz, c.place() + " shows " + c.says());
    }

    private void talk(Logged l, Entry.Talk t) {
      boolean fine = t.verdict().filter(v -> v == Verdict.WITHIN).isPresent();
      if (t.line().isEmpty() || board.talk().port().isEmpty() || usual.volts().isEmpty()) {
        return;
      }
      if (fine || t.heard() == 0 && t.verdict().isPresent()) {
        see(
            l,
            new Probe(Probe.Kind.TALK, "", "", power()),
            new Answer.Word(fine ? "fine" : "silent"),
            fine ? "it speaks as it should" : "nothing was heard");
      } else {
        pass("what was heard and is not as expected: say how, such as talks garbage");
      }
    }

    /// The supply's own display. One that has several outputs does not say which it was.
    private void supply(Logged l, Entry.Supply s) {
      if (usual.volts().isEmpty()) {
        return;
      }
      if (s.volts() > 0 && (s.on() || s.amps().isPresent())) {
        feed = null;
        most = Math.max(most, s.limit());
        displayed(l, s);
      }
      if (!s.on()) {
        // what it showed at last is of the board that was on
        knobs = Knobs.off(board.ladder());
        limited = false;
      }
    }

    private void displayed(Logged l, Entry.Supply s) {
      int source = source(s);
      Knobs now = knobs.with(source, s.volts(), Math.max(s.limit(), 1e-3));
      knobs = now;
      if (s.amps().isPresent()) {
        limited = s.amps().get() > AT_LIMIT * s.limit();
        stage(source);
        String rail = board.ladder().sources().get(source).rail();
        see(
            l,
            new Probe(Probe.Kind.AMPS, rail, "", Optional.of(now.near(usual, limited))),
            new Answer.Number(s.amps().get()),
            "supply "
                + EngineeringNumber.print(s.volts(), Unit.VOLT, 3)
                + " gives "
                + EngineeringNumber.print(s.amps().get(), Unit.AMPERE, 3));
      }
    }

    /// A stage on the way up says nothing once the next one was reached.
    private void stage(int source) {
      String rail = board.ladder().sources().get(source).rail();
      for (int i = all.size() - 1; i >= 0 && i >= all.size() - STAGES; i--) {
        if (all.get(i) instanceof Clue.Seen c
            && c.probe().kind() == Probe.Kind.AMPS
            && c.probe().a().equals(rail)
            && c.probe().knobs().filter(k -> !k.equals(usual)).isPresent()
            && latest.remove(c.probe(), i)) {
          all.set(i, null);
        }
      }
    }

    /// Which source an entry of the supply is about: the one that it names, else the one that the
    /// last one was about.
    private int source(Entry.Supply s) {
      List<String> words = List.of(s.why().split("[\\s,]+"));
      for (int i = 0; i < usual.volts().size(); i++) {
        if (words.contains(board.ladder().sources().get(i).rail())) {
          named = i;
        }
      }
      return named;
    }

    private void good(Logged l, String place, String how) {
      see(l, look(place, how), WordViews.GOOD, place + " looks good");
    }

    private void defect(Logged l, Entry.Defect d) {
      Optional<DefectKind> k = DefectKind.of(d.defect());
      String words = d.place() + " " + d.defect();
      String shows =
          k.map(x ->
                  switch (x) {
                    case OPEN, STARVED, COLD, BALL, LIFTED, CRACKED, STANDING, SHIFTED -> "open";
                    case BRIDGE, EXCESS, BEADS -> "bridge";
                    case TURNED -> "turned";
                    case WRONG -> "wrong";
                    case MISSING -> "missing";
                    default -> "";
                  })
              .orElse("");
      if (k.filter(x -> x == DefectKind.HOT).isPresent() && warms(d.place())) {
        see(l, touch(d.place()), new Answer.Word("hot"), words);
      } else if (k.filter(x -> x == DefectKind.SHORT).isPresent() && !net(d.place()).isEmpty()) {
        see(l, pair(d.place(), board.ladder().ground()), new Answer.Number(0.5), words);
      } else if (!shows.isEmpty() && place(d.place())) {
        see(l, look(d.place()), new Answer.Word(shows), words);
      } else {
        pass("defects that say nothing of where: " + d.defect());
      }
    }

    private void symptom(Logged l, Entry.Symptom s) {
      String words = ell.core.entry.EntryWords.of(s);
      Answer a = new Answer.Word(s.shows());
      switch (s.what()) {
        case "lamp" -> {
          boolean lamp =
              board.revision().part(s.place()).filter(p -> p.kind() == PartKind.LED).isPresent();
          if (lamp && !usual.volts().isEmpty()) {
            see(l, new Probe(Probe.Kind.LIT, s.place(), "", power()), a, words);
          } else {
            pass("lamps that are none, or have no supply");
          }
        }
        case "touch" -> {
          if (warms(s.place())) {
            see(l, touch(s.place()), a, words);
          } else {
            pass("how parts feel whose heat is not known");
          }
        }
        case "pressed", "warmed", "cooled", "shaken" ->
            see(l, new Probe(Probe.Kind.PRESS, s.place(), "", power()), a, words);
        case "swapped" -> {
          see(l, new Probe(Probe.Kind.SWAP, s.place(), "", Optional.empty()), a, words);
        }
        case "comes" -> all.add(new Clue.Comes(l.number(), s.times(), s.of()));
        case "talks" -> {
          if (board.talk().port().isPresent() && !usual.volts().isEmpty()) {
            see(l, new Probe(Probe.Kind.TALK, "", "", power()), a, words);
          } else {
            pass("what is heard of a board whose line is not known: say it, talk --say port ...");
          }
        }
        default -> pass("symptoms of another kind: " + s.what());
      }
    }

    private Probe touch(String part) {
      return new Probe(Probe.Kind.TOUCH, part, "", power());
    }

    private static Probe look(String place) {
      return look(place, "");
    }

    /// @param how empty for a look at it alone, `all` for one at many places at once
    private static Probe look(String place, String how) {
      return Probe.look(place, how);
    }

    private boolean warms(String part) {
      return board.revision().part(part).filter(p -> Probe.touchable(p.kind())).isPresent()
          && !usual.volts().isEmpty();
    }

    private boolean place(String place) {
      return board.revision().part(place).isPresent() || !net(place).isEmpty();
    }

    private Probe pair(String a, String b) {
      return Probe.ohms(tip(a), tip(b));
    }

    /// A tip on bare copper, or on a part whose joint is alone there, is on the net.
    private String tip(String place) {
      boolean joint = board.revision().net(place).isEmpty() && place.contains(".");
      String net = net(place);
      return joint && !PartKind.of(BoardState.part(place)).bare() || net.isEmpty() ? place : net;
    }

    private String net(String place) {
      return board.revision().netAt(place).orElse("");
    }

    private static String ohms(double r) {
      return Double.isInfinite(r) ? "open" : EngineeringNumber.print(r, Unit.OHM, 3);
    }

    Clues done() {
      all.removeIf(java.util.Objects::isNull);
      List<Knobs> settings = new ArrayList<>(List.of(usual));
      for (Clue c : all.reversed()) {
        if (c instanceof Clue.Seen s
            && s.probe().knobs().isPresent()
            && !settings.contains(s.probe().knobs().get())) {
          settings.add(s.probe().knobs().get());
        }
      }
      if (settings.size() > MOST_KNOBS) {
        List<Knobs> kept = settings.subList(0, MOST_KNOBS);
        int before = all.size();
        all.removeIf(c ->
            c instanceof Clue.Seen s
                && s.probe().knobs().isPresent()
                && !kept.contains(s.probe().knobs().get()));
        passed.merge(
            "readings at settings of the supply before the last " + MOST_KNOBS,
            before - all.size(),
            Integer::sum);
      }
      List<String> unused = new ArrayList<>();
      passed.forEach((what, n) -> unused.add(n + " not used: " + what));
      return new Clues(all, unused, knobs.on() ? knobs.near(usual, limited) : knobs);
    }
  }
}
