package ell.core.power;

import ell.core.board.Joint;
import ell.core.board.Revision;
import ell.core.power.Ladder.Kind;
import ell.core.power.Ladder.Load;
import ell.core.power.Ladder.RailSpec;
import ell.core.power.Ladder.Source;
import ell.core.power.Ladder.Step;
import ell.core.power.LadderSaid.Draw;
import ell.core.power.LadderSaid.Gives;
import ell.core.power.LadderSaid.Span;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;

/// Puts what somebody said of a power ladder into it. Used once.
final class LadderAnswers {
  private final Map<String, Span> rails;
  private final Map<String, Span> sources;
  private final Map<String, Draw> loads;
  private final Map<String, Gives> regulators;
  private final Set<String> notRails;
  private final Map<String, PartSaid> parts;

  LadderAnswers(LadderSaid said) {
    rails = said.rails();
    sources = said.sources();
    loads = said.loads();
    regulators = said.regulators();
    notRails = said.notRails();
    parts = said.parts();
  }

  private Map<String, PartSaid> said(Map<String, PartSaid> before) {
    Map<String, PartSaid> all = new LinkedHashMap<>(before);
    all.putAll(parts);
    return all;
  }

  /// The ladder with it.
  Ladder on(Ladder ladder, Revision revision) {
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
                LadderWords.plain(now.volts() * (1 - LadderSaid.TOLERANCE)),
                LadderWords.plain(now.volts() * (1 + LadderSaid.TOLERANCE))));
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
        in.add(new Source(net, s.volts(), s.low(), s.high(), limit, s.channel()));
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
                  ? new Source(s.rail(), r.volts(), r.low(), r.high(), s.limit(), s.channel())
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
            both(ladder.notRails()),
            said(ladder.parts()));
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
  static List<Step> fed(List<Step> steps, List<Source> sources) {
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
      String stands =
          ladder.loads().stream()
              .filter(l -> l.part().equals(part))
              .map(Load::stands)
              .findFirst()
              .orElse("");
      all.add(new Load(part, rail, d.amps(), false, stands));
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
    return loads.keySet().stream().anyMatch(s -> assumption.endsWith(DrivenLamps.answer(s)));
  }
}
