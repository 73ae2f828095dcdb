package ell.core.power;

import ell.core.board.Joint;
import ell.core.board.Revision;
import ell.core.power.Ladder.Kind;
import ell.core.power.Ladder.Load;
import ell.core.power.Ladder.RailSpec;
import ell.core.power.Ladder.Source;
import ell.core.power.Ladder.Step;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Quantity;
import ell.core.quantity.Unit;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;

/// What somebody said of a power ladder, one thing at a time: how many volts a rail has, where
/// power comes in, what a part draws, what a regulator gives, and which net is no rail. Each answer
/// replaces an earlier one on the same thing, and the assumption that it answers.
///
/// @param rails by net
/// @param sources by net, in the order in which they were said
/// @param loads by part
/// @param regulators by part
/// @param notRails nets
public record LadderSaid(
    Map<String, Span> rails,
    Map<String, Span> sources,
    Map<String, Draw> loads,
    Map<String, Gives> regulators,
    Set<String> notRails) {
  /// Nothing was said.
  public static final LadderSaid NOTHING =
      new LadderSaid(Map.of(), Map.of(), Map.of(), Map.of(), Set.of());

  /// What a rail without a tolerance of its own may be off, of its volts; common practice, no
  /// source.
  private static final double TOLERANCE = 0.05;

  /// Volts with their limits.
  public record Span(double low, double volts, double high) {}

  /// What a part draws.
  ///
  /// @param rail from which, empty when it is as proposed
  /// @param amps by state
  public record Draw(String rail, Map<String, Double> amps) {
    public Draw {
      amps = Map.copyOf(amps);
    }
  }

  public LadderSaid {
    // in the order in which they were said
    rails = Collections.unmodifiableMap(new LinkedHashMap<>(rails));
    sources = Collections.unmodifiableMap(new LinkedHashMap<>(sources));
    loads = Collections.unmodifiableMap(new LinkedHashMap<>(loads));
    regulators = Collections.unmodifiableMap(new LinkedHashMap<>(regulators));
    notRails = Collections.unmodifiableSet(new TreeSet<>(notRails));
  }

  /// What a regulator gives; NaN, empty or null where it was not said.
  public record Gives(
      double volts,
      double limit,
      double dropout,
      double efficiency,
      Kind kind,
      String from,
      String to) {}

  /// What can be said, and how.
  public enum About {
    /// Volts of a rail.
    RAIL("rail", "BAT+=3.0..4.25"),
    /// Where power comes in.
    SOURCE("source", "J1.1=12V"),
    /// What a part draws.
    LOAD("load", "U3=80mA"),
    /// What a regulator gives.
    REGULATOR("regulator", "U2=3.3V,600mA,dropout=0.3"),
    /// A net that is no rail.
    NOT_A_RAIL("not-a-rail", "VREF");

    private final String word;
    private final String example;

    About(String word, String example) {
      this.word = word;
      this.example = example;
    }

    /// The fixed word.
    public String word() {
      return word;
    }

    /// How it is said.
    public String example() {
      return example;
    }

    /// The one of this word.
    public static Optional<About> of(String word) {
      for (About a : values()) {
        if (a.word.equals(word)) {
          return Optional.of(a);
        }
      }
      return Optional.empty();
    }
  }

  /// Reads answers, a line each such as `rail BAT+=3.0..4.25`; a later one replaces an earlier one.
  ///
  /// @throws IllegalArgumentException naming the line, when it cannot be understood or names what
  ///   the revision does not have
  public static LadderSaid read(List<String> lines, Revision revision) {
    Reading said = new Reading(revision);
    for (String line : lines) {
      String text = line.strip();
      int blank = text.indexOf(' ');
      Optional<About> about = About.of(blank < 0 ? text : text.substring(0, blank));
      if (about.isEmpty() || blank < 0) {
        throw new IllegalArgumentException(
            "expected such as rail BAT+=3.0..4.25, found '" + text + "'");
      }
      try {
        said.take(about.get(), text.substring(blank + 1).strip());
      } catch (IllegalArgumentException e) {
        throw new IllegalArgumentException(
            about.get().word()
                + ": "
                + e.getMessage()
                + "; expected such as "
                + about.get().example(),
            e);
      }
    }
    return new LadderSaid(said.rails, said.sources, said.loads, said.regulators, said.notRails);
  }

  /// What was said so far; a later answer replaces an earlier one on the same thing.
  private static final class Reading {
    private final Map<String, Span> rails = new LinkedHashMap<>();
    private final Map<String, Span> sources = new LinkedHashMap<>();
    private final Map<String, Draw> loads = new LinkedHashMap<>();
    private final Map<String, Gives> regulators = new LinkedHashMap<>();
    private final Set<String> notRails = new TreeSet<>();
    private final Revision revision;

    Reading(Revision revision) {
      this.revision = revision;
    }

    void take(About about, String text) {
      if (about == About.NOT_A_RAIL) {
        String net = net(text, revision);
        notRails.add(net);
        rails.remove(net);
        sources.remove(net);
        return;
      }
      int equals = text.lastIndexOf('=', text.indexOf(',') < 0 ? text.length() : text.indexOf(','));
      if (equals < 1) {
        throw new IllegalArgumentException("nothing is said of '" + text + "'");
      }
      String of = text.substring(0, equals).strip();
      String what = text.substring(equals + 1).strip();
      switch (about) {
        case RAIL -> {
          String net = net(of, revision);
          rails.put(net, span(what));
          notRails.remove(net);
        }
        case SOURCE -> {
          String net = net(of, revision);
          sources.remove(net);
          sources.put(net, span(what));
          notRails.remove(net);
        }
        case LOAD -> loads.put(part(of, revision), draw(what, revision));
        case REGULATOR -> regulators.put(part(of, revision), gives(what, revision));
        case NOT_A_RAIL -> {}
      }
    }
  }

  /// A net by its name or by one of its joints.
  private static String net(String text, Revision revision) {
    if (!revision.net(text).isEmpty()) {
      return text;
    }
    List<String> alike = revision.nets().stream().filter(n -> n.equalsIgnoreCase(text)).toList();
    if (alike.size() == 1) {
      return alike.getFirst();
    }
    int dot = text.lastIndexOf('.');
    if (dot > 0) {
      Optional<Joint> j = revision.joint(text.substring(0, dot), text.substring(dot + 1));
      if (j.isPresent() && j.get().connected()) {
        return j.get().net();
      }
    }
    throw new IllegalArgumentException(
        revision.title() + " has no net and no joint '" + text + "'");
  }

  private static String part(String text, Revision revision) {
    return revision.parts().stream()
        .map(p -> p.reference())
        .filter(r -> r.equalsIgnoreCase(text))
        .findFirst()
        .orElseThrow(
            () -> new IllegalArgumentException(revision.title() + " has no part '" + text + "'"));
  }

  /// `12V`, `3.0..4.25`, `3.0..3.7..4.2`, `5V+-2%`.
  private static Span span(String text) {
    String[] ends = text.split("\\.{2,3}|…");
    if (ends.length == 1) {
      String[] off = text.split("\\+-|\\+/-|±");
      double v = number(off[0], Unit.VOLT);
      double share = TOLERANCE;
      if (off.length == 2) {
        String t = off[1].strip();
        share =
            t.endsWith("%")
                ? EngineeringNumber.parse(t.substring(0, t.length() - 1), Unit.ONE) / 100
                : number(t, Unit.VOLT) / Math.abs(v);
      }
      double room = Math.abs(v) * share;
      return new Span(plain(v - room), v, plain(v + room));
    }
    if (ends.length > 3) {
      throw new IllegalArgumentException("too many ends in '" + text + "'");
    }
    double low = number(ends[0], Unit.VOLT);
    double high = number(ends[ends.length - 1], Unit.VOLT);
    double middle = ends.length == 3 ? number(ends[1], Unit.VOLT) : plain((low + high) / 2);
    if (!(low <= middle && middle <= high)) {
      throw new IllegalArgumentException("volts must rise in '" + text + "'");
    }
    return new Span(low, middle, high);
  }

  private static double plain(double value) {
    return new java.math.BigDecimal(value).round(new java.math.MathContext(6)).doubleValue();
  }

  private static double number(String text, Unit unit) {
    double v = EngineeringNumber.parse(text.strip(), unit);
    if (!(Math.abs(v) <= 1000)) {
      throw new IllegalArgumentException("'" + text.strip() + "' is beyond what a bench has");
    }
    return v;
  }

  /// `80mA`, `20mA,worst=80mA`, `5mA,rail=3V3`.
  private static Draw draw(String text, Revision revision) {
    Map<String, Double> amps = new HashMap<>();
    String rail = "";
    for (String one : text.split(",")) {
      int equals = one.indexOf('=');
      String key = equals < 0 ? "boot" : one.substring(0, equals).strip().toLowerCase(Locale.ROOT);
      String what = one.substring(equals + 1).strip();
      if (key.equals("rail")) {
        rail = net(what, revision);
      } else if (Ladder.STATES.contains(key)) {
        amps.put(key, notNegative(number(what, Unit.AMPERE), what));
      } else {
        throw new IllegalArgumentException(
            "'" + key + "' is no state; there are " + String.join(", ", Ladder.STATES));
      }
    }
    if (amps.isEmpty()) {
      throw new IllegalArgumentException("no current in '" + text + "'");
    }
    return new Draw(rail, Map.copyOf(amps));
  }

  private static double notNegative(double v, String text) {
    if (v < 0) {
      throw new IllegalArgumentException("'" + text + "' is below 0");
    }
    return v;
  }

  private static Gives gives(String text, Revision revision) {
    double volts = Double.NaN;
    double limit = Double.NaN;
    double dropout = Double.NaN;
    double efficiency = Double.NaN;
    Kind kind = null;
    String from = "";
    String to = "";
    for (String one : text.split(",")) {
      int equals = one.indexOf('=');
      String key = equals < 0 ? "" : one.substring(0, equals).strip().toLowerCase(Locale.ROOT);
      String what = one.substring(equals + 1).strip();
      switch (key) {
        case "" -> {
          if (what.equalsIgnoreCase("linear")) {
            kind = Kind.LINEAR;
          } else if (what.equalsIgnoreCase("switching")) {
            kind = Kind.SWITCHING;
          } else {
            Quantity q = EngineeringNumber.read(what, Unit.VOLT);
            if (q.unit() == Unit.AMPERE) {
              limit = notNegative(q.value(), what);
            } else if (q.unit() == Unit.VOLT) {
              volts = notNegative(q.value(), what);
            } else {
              throw new IllegalArgumentException("'" + what + "' is neither volts nor amperes");
            }
          }
        }
        case "dropout" -> dropout = notNegative(number(what, Unit.VOLT), what);
        case "limit" -> limit = notNegative(number(what, Unit.AMPERE), what);
        case "efficiency" -> {
          efficiency =
              what.endsWith("%")
                  ? EngineeringNumber.parse(what.substring(0, what.length() - 1), Unit.ONE) / 100
                  : EngineeringNumber.parse(what, Unit.ONE);
          if (!(efficiency > 0 && efficiency <= 1)) {
            throw new IllegalArgumentException("an efficiency lies above 0 and up to 1");
          }
        }
        case "in" -> from = net(what, revision);
        case "out" -> to = net(what, revision);
        default -> throw new IllegalArgumentException("'" + key + "' is not known here");
      }
    }
    return new Gives(volts, limit, dropout, efficiency, kind, from, to);
  }

  /// A ladder with what was said.
  ///
  /// @throws IllegalArgumentException when a regulator is between no two rails that are known
  public Ladder on(Ladder ladder, Revision revision) {
    if (equals(NOTHING)) {
      return ladder;
    }
    Map<String, RailSpec> specs = new LinkedHashMap<>();
    ladder.rails().stream()
        .filter(r -> !notRails.contains(r.net()))
        .forEach(r -> specs.put(r.net(), r));
    Map<String, Span> volts = new LinkedHashMap<>(sources);
    volts.putAll(rails);
    volts.forEach((net, s) ->
        specs.put(
            net,
            specs
                .getOrDefault(net, LadderProposal.bare(revision, net, ladder.ground(), s.volts()))
                .with(s.volts(), s.low(), s.high())));
    List<Step> steps = new ArrayList<>();
    for (Step s : ladder.steps()) {
      if (specs.containsKey(s.from())
          && specs.containsKey(s.to())
          && !sources.containsKey(s.to())
          && !regulators.containsKey(s.part())) {
        steps.add(volts.containsKey(s.to()) ? with(s, specs.get(s.to()).volts()) : s);
      }
    }
    regulators.forEach((part, g) -> {
      Step before =
          ladder.steps().stream().filter(s -> s.part().equals(part)).findFirst().orElse(null);
      Step now = step(part, g, before, specs, revision, ladder.ground());
      steps.removeIf(s -> s.to().equals(now.to()));
      steps.add(now);
      RailSpec out = specs.get(now.to());
      if (!volts.containsKey(now.to()) && (out.guessed() || out.volts() != now.volts())) {
        specs.put(
            now.to(),
            out.with(
                now.volts(),
                plain(now.volts() * (1 - TOLERANCE)),
                plain(now.volts() * (1 + TOLERANCE))));
      }
    });
    List<Source> in = new ArrayList<>();
    sources.forEach((net, s) -> {
      double limit =
          ladder.sources().stream()
              .filter(o -> o.rail().equals(net))
              .mapToDouble(Source::limit)
              .findFirst()
              .orElse(0);
      if (s.volts() >= 0) {
        in.add(new Source(net, s.volts(), s.low(), s.high(), limit));
      }
    });
    for (Source s : ladder.sources()) {
      if (specs.containsKey(s.rail())
          && !sources.containsKey(s.rail())
          && steps.stream().noneMatch(x -> x.to().equals(s.rail()))) {
        RailSpec r = specs.get(s.rail());
        if (r.volts() >= 0) {
          in.add(
              rails.containsKey(s.rail())
                  ? new Source(s.rail(), r.volts(), r.low(), r.high(), s.limit())
                  : s);
        }
      }
    }
    Ladder said =
        new Ladder(
            List.copyOf(specs.values()),
            in,
            fed(steps, in),
            loads(ladder, specs),
            ladder.ground(),
            ladder.assumptions().stream().filter(a -> !answered(a)).toList(),
            both(ladder.notRails()));
    return volts.isEmpty() ? said : said.passedOn(volts.keySet(), volts.keySet());
  }

  private List<String> both(List<String> before) {
    Set<String> all = new TreeSet<>(before);
    all.removeAll(rails.keySet());
    all.removeAll(sources.keySet());
    all.addAll(notRails);
    return List.copyOf(all);
  }

  private static Step with(Step s, double volts) {
    return new Step(
        s.part(),
        s.kind(),
        s.from(),
        s.to(),
        Math.max(0, volts),
        s.dropout(),
        s.efficiency(),
        s.quiescent(),
        s.theta(),
        s.limit(),
        s.ohms());
  }

  /// Steps that something feeds, in any order.
  private static List<Step> fed(List<Step> steps, List<Source> sources) {
    Set<String> live = new TreeSet<>();
    sources.forEach(s -> live.add(s.rail()));
    List<Step> kept = new ArrayList<>();
    boolean moved = true;
    while (moved) {
      moved = false;
      for (Step s : steps) {
        if (!kept.contains(s) && live.contains(s.from()) && live.add(s.to())) {
          kept.add(s);
          moved = true;
        }
      }
    }
    return kept;
  }

  private List<Load> loads(Ladder ladder, Map<String, RailSpec> specs) {
    List<Load> all = new ArrayList<>();
    for (Load l : ladder.loads()) {
      if (specs.containsKey(l.rail()) && !loads.containsKey(l.part())) {
        all.add(l);
      }
    }
    loads.forEach((part, d) -> {
      String rail =
          !d.rail().isEmpty()
              ? d.rail()
              : ladder.loads().stream()
                  .filter(l -> l.part().equals(part))
                  .map(Load::rail)
                  .findFirst()
                  .orElse("");
      if (!specs.containsKey(rail)) {
        throw new IllegalArgumentException(
            "load: from which rail does "
                + part
                + " draw? expected such as "
                + part
                + "=80mA,rail="
                + specs.keySet().stream().findFirst().orElse("5V"));
      }
      all.add(new Load(part, rail, d.amps()));
    });
    return all;
  }

  private static Step step(
      String part,
      Gives g,
      Step before,
      Map<String, RailSpec> specs,
      Revision revision,
      String ground) {
    Set<String> own = new TreeSet<>();
    revision.jointsOf(part).stream()
        .filter(Joint::connected)
        .map(Joint::net)
        .filter(n -> !n.equals(ground))
        .forEach(own::add);
    String to =
        !g.to().isEmpty()
            ? g.to()
            : before != null
                ? before.to()
                : own.stream()
                    .filter(specs::containsKey)
                    .filter(n ->
                        Double.isNaN(g.volts())
                            || Math.abs(specs.get(n).volts() - g.volts()) < 0.2 * g.volts())
                    .min(Comparator.comparingDouble(n -> specs.get(n).volts()))
                    .orElse("");
    String from =
        !g.from().isEmpty()
            ? g.from()
            : before != null
                ? before.from()
                : own.stream()
                    .filter(n -> specs.containsKey(n) && !n.equals(to))
                    .max(Comparator.comparingDouble(n -> specs.get(n).volts()))
                    .orElse("");
    if (to.isEmpty() || from.isEmpty() || !specs.containsKey(from) || to.equals(from)) {
      throw new IllegalArgumentException(
          "regulator: between which rails does "
              + part
              + " stand? expected such as "
              + part
              + "=3.3V,in=VIN,out=3V3");
    }
    double volts =
        !Double.isNaN(g.volts())
            ? g.volts()
            : before != null
                ? before.volts()
                : Math.max(0, specs.containsKey(to) ? specs.get(to).volts() : 0);
    specs.computeIfAbsent(to, n -> LadderProposal.bare(revision, n, ground, volts));
    Kind kind =
        g.kind() != null
            ? g.kind()
            : !Double.isNaN(g.efficiency())
                ? Kind.SWITCHING
                : before != null && before.regulates() ? before.kind() : Kind.LINEAR;
    boolean switching = kind == Kind.SWITCHING;
    return new Step(
        part,
        kind,
        from,
        to,
        volts,
        !Double.isNaN(g.dropout()) ? g.dropout() : before != null ? before.dropout() : 0.3,
        !switching
            ? 0
            : !Double.isNaN(g.efficiency())
                ? g.efficiency()
                : before != null && before.efficiency() > 0 ? before.efficiency() : 0.88,
        before != null ? before.quiescent() : switching ? 1e-3 : 60e-6,
        before != null ? before.theta() : switching ? 45 : 110,
        !Double.isNaN(g.limit()) ? g.limit() : before != null ? before.limit() : 0,
        0);
  }

  /// Whether an assumption is about something that was said.
  private boolean answered(String assumption) {
    for (Set<String> said :
        List.of(rails.keySet(), sources.keySet(), notRails, loads.keySet(), regulators.keySet())) {
      for (String s : said) {
        if (assumption.startsWith(s + " is taken")) {
          return true;
        }
      }
    }
    return false;
  }
}
