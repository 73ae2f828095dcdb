package ell.core.trace;

import ell.core.beep.Beside;
import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import ell.core.power.Fault;
import ell.core.power.FaultWords;
import ell.core.power.Ladder;
import ell.core.power.PartValue;
import ell.core.power.Polarised;
import ell.core.trace.Suspect.Factor;
import ell.core.trace.Suspect.Origin;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.Set;

/// The faults that may be on a board: from its revision, with their chances.
public final class Suspects {
  /// More are not weighed one by one; the least likely ones are left to what nobody thought of.
  public static final int MOST = 6000;

  /// A bridge of solder, and one of flux and slivers; half of it and twice as much are meant too.
  private static final double[] BRIDGE_OHMS = {0.3, 20};

  private static final double[] BRIDGE_SHARES = {0.85, 0.15};

  /// Between nets that carry the current of the board what lies between tells its own story.
  private static final double[] POWER_BRIDGE_OHMS = {0.3, 3, 10, 32};

  private static final double[] POWER_BRIDGE_SHARES = {0.84, 0.04, 0.06, 0.06};

  /// So often a pin that is drawn to a wrong rail is on one that its part has nothing to do with.
  private static final double FOREIGN = 0.3;

  private static final double[] BAD_OHMS = {3.3, 20, 150};
  private static final double[] DECADES = {10, 0.1, 1000, 0.001};
  private static final double NEAR_MM = 0.25;
  private static final double SIDE_MM = 0.6;
  private static final int OTHER_VALUES = 4;
  private static final double OTHER_CLOCK = 0.921_6; // 11.0592 MHz in place of 12
  private static final double SISTER_DESIGN = 400;
  private static final double SISTER_BOARD = 5;
  private static final double SAID_MOST = 0.99;
  private static final double ERRATUM = 0.5;
  private static final double ERRATUM_MENDED = 0.02;
  private static final double ERRATUM_PROVED = 0.05;

  private static final String KEY_PIN =
      "(?i).*(RST|RESET|BOOT|STRAP|EN\\b|ENABLE|_EN|SHDN|NRST|MODE|CE\\b|WP).*";

  private final Revision revision;
  private final Ladder ladder;
  private final BenchKnowledge knows;
  private final Set<String> rails = new LinkedHashSet<>();

  /// Nets through which the current of rails flows: they, and what lies one part behind them.
  private final Set<String> carrying = new LinkedHashSet<>();

  private final Map<String, Suspect> all = new LinkedHashMap<>();
  private int left;

  private Suspects(Revision revision, Ladder ladder, BenchKnowledge knows) {
    this.revision = revision;
    this.ladder = ladder;
    this.knows = knows;
    ladder.rails().forEach(r -> rails.add(r.net()));
    rails.add(ladder.ground());
    carrying.addAll(rails);
    revision.parts().stream()
        .filter(p -> p.fitted() && passes(p.kind()))
        .forEach(p -> {
          List<String> ends = joints(p.reference()).stream().map(Joint::net).distinct().toList();
          if (ends.size() == 2 && ends.stream().anyMatch(rails::contains)) {
            carrying.addAll(ends);
          }
        });
  }

  private static boolean passes(PartKind k) {
    return switch (k) {
      case INDUCTOR, FERRITE, DIODE, FUSE, SWITCH -> true;
      default -> false;
    };
  }

  /// Suspects, and how many were too many.
  ///
  /// @param left those that are not weighed one by one
  public record Listed(List<Suspect> suspects, int left) {
    public Listed {
      suspects = List.copyOf(suspects);
    }
  }

  /// Lists them.
  public static Listed of(Revision revision, Ladder ladder, BenchKnowledge knows) {
    return of(revision, ladder, knows, MOST);
  }

  /// Lists so many of them, the likeliest.
  public static Listed of(Revision revision, Ladder ladder, BenchKnowledge knows, int most) {
    Suspects s = new Suspects(revision, ladder, knows);
    for (Part p : revision.parts()) {
      if (p.fitted() && !knows.absent().contains(p.reference())) {
        s.part(p);
      }
    }
    s.bridges();
    s.links();
    s.instruments();
    s.errata();
    List<Suspect> found = new ArrayList<>(s.all.values());
    if (found.size() > most) {
      s.left = found.size() - most;
      Set<Suspect> kept =
          new LinkedHashSet<>(
              found.stream()
                  .sorted(Comparator.comparingDouble(Suspect::prior).reversed())
                  .limit(most)
                  .toList());
      found.removeIf(x -> !kept.contains(x));
    }
    return new Listed(List.copyOf(found), s.left);
  }

  private void add(
      Fault f, Origin origin, List<String> places, List<String> nets, List<Factor> factors) {
    double p = 1;
    for (Factor x : factors) {
      p *= x.times();
    }
    Suspect s = Suspect.of(f, origin, places, nets, Math.clamp(p, 1e-9, 0.5), List.copyOf(factors));
    String sister = knows.sisters().get(s.words());
    if (sister != null) {
      double times = origin == Origin.DESIGN ? SISTER_DESIGN : SISTER_BOARD;
      s = with(s, new Factor("found on board " + sister, times));
    }
    BenchKnowledge.Known known = knows.errata().get(s.words());
    if (known != null) {
      s = known(s, known);
    }
    Double said = knows.said().get(s.words());
    if (said != null) {
      s =
          s.withPrior(
              Math.clamp(said, 1e-9, SAID_MOST), List.of(new Factor("as you said it", said)));
    }
    all.putIfAbsent(s.words(), s);
  }

  /// A mistake that is written down is there on every board of the revision until it is mended;
  /// still it is what was measured that decides.
  private static Suspect known(Suspect s, BenchKnowledge.Known k) {
    return switch (k.state()) {
      case THERE ->
          s.withPrior(
              ERRATUM,
              List.of(
                  new Factor(k.id() + " of this revision, and the board is not mended", ERRATUM)));
      case MENDED ->
          s.withPrior(
              ERRATUM_MENDED,
              List.of(
                  new Factor(k.id() + " was mended here, nothing shows it yet", ERRATUM_MENDED)));
      case PROVED -> with(s, new Factor(k.id() + " was mended here and proved", ERRATUM_PROVED));
    };
  }

  /// Faults of errata that the drawing alone would not make anybody think of.
  private void errata() {
    for (String words : knows.errata().keySet().stream().sorted().toList()) {
      Fault f = FaultWords.parse(words);
      boolean board =
          switch (f) {
            case Fault.Setting _, Fault.Firmware _, Fault.Sometimes _, Fault.Link _ -> false;
            case Fault.Tied t ->
                revision.joint(t.part(), t.pin()).filter(j -> !j.net().equals(t.net())).isPresent();
            default -> true;
          };
      if (!board || all.containsKey(words) || FaultWords.unfit(f, revision).isPresent()) {
        continue;
      }
      List<String> places =
          switch (f) {
            case Fault.Open x -> List.of(x.part() + "." + x.pin(), x.part());
            case Fault.Resistive x -> List.of(x.part() + "." + x.pin(), x.part());
            case Fault.Tied x -> List.of(x.part() + "." + x.pin(), x.part());
            case Fault.Loose x -> List.of(x.part() + "." + x.pin(), x.part());
            case Fault.Bridge x -> List.of(x.a(), x.b());
            case Fault.Dead x -> List.of(x.part());
            case Fault.WrongValue x -> List.of(x.part());
            case Fault.Turned x -> List.of(x.part());
            case Fault.Short x -> List.of(x.part());
            case Fault.Missing x -> List.of(x.part());
            default -> List.of();
          };
      List<String> nets =
          places.stream()
              .flatMap(p ->
                  revision.net(p).isEmpty()
                      ? revision.joints().stream()
                          .filter(j -> j.place().equals(p) && j.connected())
                          .map(Joint::net)
                      : java.util.stream.Stream.of(p))
              .distinct()
              .toList();
      add(f, Origin.DESIGN, places, nets, rate(Rate.TIED, "design"));
    }
  }

  private static Suspect with(Suspect s, Factor f) {
    List<Factor> more = new ArrayList<>(s.factors());
    more.add(f);
    return s.withPrior(Math.clamp(s.prior() * f.times(), 1e-9, 0.9), more);
  }

  private List<Factor> rate(Rate r) {
    return rate(r, r.name().toLowerCase(Locale.ROOT));
  }

  private List<Factor> rate(Rate r, String counted) {
    double guess = r.first();
    long[] c = knows.tally().of(counted);
    List<Factor> f = new ArrayList<>();
    f.add(new Factor(r.words() + ", a first guess", guess));
    if (c[1] > 0 || c[0] > 0) {
      double now = knows.tally().rate(counted, guess);
      f.add(
          new Factor(
              "this bench has seen " + c[0] + " of " + c[1] + " (guess weighs 2000)", now / guess));
    }
    return f;
  }

  private void part(Part p) {
    String ref = p.reference();
    PartKind k = p.kind();
    List<Joint> joints = joints(ref);
    if (joints.isEmpty() || k.bare()) {
      return;
    }
    List<String> nets = joints.stream().map(Joint::net).distinct().toList();
    for (Joint j : joints) {
      joint(p, k, j);
    }
    List<Factor> worked = worked(ref);
    boolean active = active(k);
    add(new Fault.Missing(ref), Origin.BOARD, List.of(ref), nets, rate(Rate.MISSING));
    if (k != PartKind.CONNECTOR && k != PartKind.CELL) {
      Rate dead = active ? Rate.DEAD : Rate.DEAD_SIMPLE;
      add(
          new Fault.Dead(ref),
          Origin.BOARD,
          List.of(ref),
          nets,
          join(rate(dead, active ? "dead" : "dead simple"), worked));
    }
    if (nets.size() >= 2) {
      Rate s = shorts(k) ? Rate.SHORT : Rate.SHORT_SELDOM;
      add(
          new Fault.Short(ref),
          Origin.BOARD,
          List.of(ref),
          nets.subList(0, 2),
          join(rate(s, "short"), worked));
    }
    if (turns(p, k)) {
      add(new Fault.Turned(ref), Origin.BOARD, List.of(ref), nets, rate(Rate.TURNED));
    }
    if (k == PartKind.RESISTOR) {
      values(p, nets);
    }
    if (k == PartKind.CRYSTAL) {
      PartValue.hertz(p)
          .ifPresent(f ->
              add(
                  new Fault.WrongValue(ref, f * OTHER_CLOCK),
                  Origin.BOARD,
                  List.of(ref),
                  nets,
                  join(rate(Rate.WRONG), substituted(ref))));
    }
  }

  private static boolean active(PartKind k) {
    return switch (k) {
      case CHIP, MODULE, TRANSISTOR, LED, CRYSTAL, FUSE, SWITCH, DIODE -> true;
      default -> false;
    };
  }

  private static boolean shorts(PartKind k) {
    return switch (k) {
      case CAPACITOR, DIODE, LED, CRYSTAL, CHIP, TRANSISTOR, MODULE -> true;
      default -> false;
    };
  }

  private static boolean turns(Part p, PartKind k) {
    return switch (k) {
      case DIODE, LED, CHIP -> true;
      case CAPACITOR -> Polarised.of(p);
      default -> false;
    };
  }

  /// Its joints that lead somewhere, each pin once.
  private List<Joint> joints(String part) {
    Map<String, Joint> pins = new LinkedHashMap<>();
    revision.jointsOf(part).stream()
        .filter(Joint::connected)
        .forEach(j -> pins.putIfAbsent(j.pin(), j));
    return List.copyOf(pins.values());
  }

  private void joint(Part p, PartKind k, Joint j) {
    List<String> at = List.of(j.place(), j.part());
    List<String> nets = List.of(j.net());
    List<Factor> base = new ArrayList<>();
    base.add(
        new Factor(
            "a defect at a joint, by package, pitch, method, print and this bench's looks",
            knows.joint().applyAsDouble(p, j)));
    String thin = knows.thin().get(j.place());
    if (thin != null) {
      base.add(new Factor("its paste was " + thin, 1)); // is in the chance of a defect already
    }
    if (!knows.badHeat().isEmpty()) {
      base.add(new Factor(knows.badHeat(), 2.5));
    }
    base.addAll(worked(j.part()));
    add(
        new Fault.Open(j.part(), j.pin()),
        Origin.BOARD,
        at,
        nets,
        join(base, List.of(new Factor("of which so many do not lead", Rate.OPEN.first()))));
    if (carrying.contains(j.net()) || k == PartKind.CONNECTOR || k == PartKind.SWITCH) {
      for (double ohms : BAD_OHMS) {
        add(
            new Fault.Resistive(j.part(), j.pin(), ohms),
            Origin.BOARD,
            at,
            nets,
            join(base, List.of(new Factor("of which so many lead badly", Rate.RESISTIVE.first()))));
      }
    }
    if (active(k) && k != PartKind.LED && k != PartKind.DIODE && k != PartKind.FUSE) {
      design(j, at, nets);
    }
  }

  private void design(Joint j, List<String> at, List<String> nets) {
    boolean key = rails.contains(j.net()) || j.net().matches(KEY_PIN);
    add(
        new Fault.Loose(j.part(), j.pin()),
        Origin.DESIGN,
        at,
        nets,
        rate(key ? Rate.KEY_PIN : Rate.LOOSE, "design"));
    if (!j.net().equals(ladder.ground())) {
      tied(j, at, ladder.ground(), key);
    }
    List<String> own = own(j.part());
    for (String rail : own) {
      if (!rail.equals(j.net())) {
        tied(j, at, rail, key);
      }
    }
    if (key) {
      foreign(j, at, own);
    }
  }

  private void tied(Joint j, List<String> at, String to, boolean key) {
    tied(j, at, to, rate(key ? Rate.KEY_PIN : Rate.TIED, "design"));
  }

  private void tied(Joint j, List<String> at, String to, List<Factor> factors) {
    add(new Fault.Tied(j.part(), j.pin(), to), Origin.DESIGN, at, List.of(j.net(), to), factors);
  }

  /// A pin that everything hangs on, drawn to a rail that its part has nothing to do with.
  private void foreign(Joint j, List<String> at, List<String> own) {
    List<String> others =
        rails.stream()
            .filter(r -> !r.equals(ladder.ground()) && !r.equals(j.net()) && !own.contains(r))
            .toList();
    for (String rail : others) {
      Factor one = new Factor("one of the rails that its part is not on", FOREIGN / others.size());
      tied(j, at, rail, join(rate(Rate.KEY_PIN, "design"), List.of(one)));
    }
  }

  /// Rails that a part hangs on, two at most.
  private List<String> own(String part) {
    return revision.jointsOf(part).stream()
        .map(Joint::net)
        .filter(n -> rails.contains(n) && !n.equals(ladder.ground()))
        .distinct()
        .limit(2)
        .toList();
  }

  private void values(Part p, List<String> nets) {
    OptionalDouble own = PartValue.ohms(p);
    if (own.isEmpty()) {
      return;
    }
    double ohms = own.getAsDouble();
    Map<Double, Integer> others = new LinkedHashMap<>();
    for (Part o : revision.parts()) {
      if (o.kind() == PartKind.RESISTOR && o.packageName().equals(p.packageName())) {
        PartValue.ohms(o)
            .ifPresent(v -> {
              if (Math.abs(v - ohms) > 0.02 * ohms) {
                others.merge(v, 1, Integer::sum);
              }
            });
      }
    }
    List<Double> likely =
        others.entrySet().stream()
            .sorted(Map.Entry.<Double, Integer>comparingByValue().reversed())
            .limit(OTHER_VALUES)
            .map(Map.Entry::getKey)
            .toList();
    List<Factor> base = join(rate(Rate.WRONG), substituted(p.reference()));
    for (double v : likely) {
      add(
          new Fault.WrongValue(p.reference(), v),
          Origin.BOARD,
          List.of(p.reference()),
          nets,
          join(base, List.of(new Factor("another value of this bill", 0.6 / likely.size()))));
    }
    for (double times : DECADES) {
      if (ohms > 0) {
        add(
            new Fault.WrongValue(p.reference(), ohms * times),
            Origin.BOARD,
            List.of(p.reference()),
            nets,
            join(
                base,
                List.of(
                    new Factor(
                        times == 10 || times == 0.1 ? "a decade off" : "its prefix misread",
                        times == 10 || times == 0.1 ? 0.12 : 0.04))));
      }
    }
  }

  private void bridges() {
    for (Beside b : Beside.all(revision, MOST / 3)) {
      Rate r =
          b.gapMm() < NEAR_MM
              ? Rate.BRIDGE_NEAR
              : b.gapMm() < SIDE_MM ? Rate.BRIDGE : Rate.BRIDGE_WIDE;
      List<Factor> f = new ArrayList<>(rate(r, "bridge"));
      if (knows.bridged().contains(b.a().place()) || knows.bridged().contains(b.b().place())) {
        f.add(new Factor("the paste was joined there", 25));
      }
      f.addAll(worked(b.a().part()));
      boolean power = carrying.contains(b.a().net()) && carrying.contains(b.b().net());
      double[] ohms = power ? POWER_BRIDGE_OHMS : BRIDGE_OHMS;
      double[] shares = power ? POWER_BRIDGE_SHARES : BRIDGE_SHARES;
      for (int i = 0; i < ohms.length; i++) {
        add(
            new Fault.Bridge(b.a().place(), b.b().place(), ohms[i]),
            Origin.BOARD,
            List.of(b.a().place(), b.b().place(), b.a().part(), b.b().part()),
            List.of(b.a().net(), b.b().net()),
            join(f, List.of(new Factor("of which so many lead like this", shares[i]))));
      }
    }
  }

  private void links() {
    knows
        .closed()
        .forEach((part, closed) ->
            add(
                new Fault.Link(part, closed),
                Origin.LINK,
                List.of(part),
                revision.jointsOf(part).stream().map(Joint::net).distinct().toList(),
                rate(Rate.LINK)));
  }

  private void instruments() {
    add(
        new Fault.Setting("meter", "current-jack"),
        Origin.INSTRUMENT,
        List.of(),
        List.of(),
        rate(Rate.JACK));
    for (String s : List.of("ac", "x10")) {
      add(new Fault.Setting("scope", s), Origin.INSTRUMENT, List.of(), List.of(), rate(Rate.SCOPE));
    }
    knows
        .jig()
        .forEach((net, why) ->
            add(
                new Fault.Setting("jig", net),
                Origin.INSTRUMENT,
                List.of(),
                List.of(),
                why.isEmpty()
                    ? rate(Rate.JIG)
                    : List.of(rate(Rate.JIG).getFirst(), new Factor(why, 60))));
    boolean loads =
        revision.parts().stream()
            .anyMatch(
                p -> p.fitted() && (p.kind() == PartKind.CHIP || p.kind() == PartKind.MODULE));
    if (loads) {
      add(
          new Fault.Firmware("for another board, or other pins"),
          Origin.OUTSIDE,
          List.of(),
          List.of(),
          rate(Rate.FIRMWARE));
    }
    add(
        new Fault.Setting("cable", "broken"),
        Origin.OUTSIDE,
        List.of(),
        List.of(),
        rate(Rate.CABLE));
  }

  private List<Factor> worked(String part) {
    Integer n = knows.reworked().get(part);
    return n == null
        ? List.of()
        : List.of(new Factor(n == 1 ? "it was worked on" : "it was worked on " + n + " times", 3));
  }

  private List<Factor> substituted(String part) {
    return knows.substituted().contains(part)
        ? List.of(new Factor("it is another than the bill says", 20))
        : List.of();
  }

  private static List<Factor> join(List<Factor> a, List<Factor> b) {
    List<Factor> both = new ArrayList<>(a);
    both.addAll(b);
    return both;
  }
}
