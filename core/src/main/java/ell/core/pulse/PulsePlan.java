package ell.core.pulse;

import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import ell.core.power.Ladder;
import ell.core.power.Ladder.RailSpec;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Quantity;
import ell.core.quantity.Unit;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// What should be seen on a revision's lines: places that somebody spoke of, crystals that its bill
/// has, and signatures that were saved. Guesses are marked, and judge nothing.
public final class PulsePlan {
  private final Revision revision;
  private final Ladder ladder;
  private final List<LogicFamily> families;
  private final Map<String, Wanted> places;
  private final List<Signature> signatures;
  private final Stack stack;

  private PulsePlan(
      Revision revision,
      Ladder ladder,
      List<LogicFamily> families,
      Map<String, Wanted> places,
      List<Signature> signatures,
      Stack stack) {
    this.revision = revision;
    this.ladder = ladder;
    this.families = families;
    this.places = Collections.unmodifiableMap(places);
    this.signatures = List.copyOf(signatures);
    this.stack = stack;
  }

  /// Makes one of what was said, a line each.
  ///
  /// @param own families of the maker's, asked before those that ship
  /// @throws IllegalArgumentException when a line cannot be understood, or names what the revision
  ///   does not have
  public static PulsePlan of(
      Revision revision, Ladder ladder, List<LogicFamily> own, List<String> lines) {
    List<LogicFamily> families = new ArrayList<>(own);
    families.addAll(LogicFamily.SHIPPED);
    PulsePlan bare =
        new PulsePlan(revision, ladder, families, new LinkedHashMap<>(), List.of(), Stack.USUAL);
    PulseSaid.Gathered all = new PulseSaid.Gathered();
    for (String l : lines) {
      if (!l.isBlank()) {
        PulseSaid.take(l, all, revision, families, bare::untold);
      }
    }
    Map<String, Wanted> places = new LinkedHashMap<>();
    List<Wanted> guessed = new ArrayList<>(bare.crystals());
    guessed.addAll(bare.buses());
    guessed.forEach(w -> {
      if (!all.nothing.contains(w.place()) && !all.places.containsKey(w.place())) {
        places.put(w.place(), w);
      }
    });
    places.putAll(all.places);
    all.signatures
        .values()
        .forEach(
            s -> places.computeIfAbsent(s.place(), p -> bare.guess(p, PulseSaid.net(p, revision))));
    return new PulsePlan(
        revision, ladder, families, places, new ArrayList<>(all.signatures.values()), all.stack);
  }

  /// What should be at a place; of a joint of which nothing is said, what is said of its net.
  ///
  /// @throws IllegalArgumentException when the revision has no such place
  public Wanted at(String place) {
    Wanted w = places.get(place);
    if (w != null) {
      return w;
    }
    String net = PulseSaid.net(place, revision);
    Wanted of = places.get(net);
    return of == null
        ? guess(place, net)
        : new Wanted(
            place,
            net,
            of.family(),
            of.guessed(),
            of.input(),
            of.clock(),
            of.within(),
            of.clockGuessed(),
            of.limits(),
            of.line(),
            of.why());
  }

  /// The same with what drives a place known better.
  public PulsePlan driven(Map<String, Wanted.Driven> lines) {
    Map<String, Wanted> all = new LinkedHashMap<>(places);
    all.replaceAll((p, w) -> lines.containsKey(p) ? w.driven(lines.get(p)) : w);
    return new PulsePlan(revision, ladder, families, all, signatures, stack);
  }

  /// Places that something is known of, guesses last.
  public List<Wanted> places() {
    List<Wanted> all = new ArrayList<>(places.values());
    all.sort(java.util.Comparator.comparing(Wanted::onlyGuessed));
    return all;
  }

  /// Signatures of a place, or of its net.
  public List<Signature> signatures(String place) {
    String net = at(place).net();
    return signatures.stream()
        .filter(s -> s.place().equals(place) || s.place().equals(net))
        .toList();
  }

  /// All signatures.
  public List<Signature> signatures() {
    return signatures;
  }

  /// Families that can be named.
  public List<LogicFamily> families() {
    return families;
  }

  /// A driver of which nothing is said, at the volts that are taken for a place.
  Wanted.Driven usual(Wanted w) {
    Wanted.Driven u = Wanted.Driven.USUAL;
    double swing = w.family().map(LogicFamily::supply).orElse(u.swing());
    return new Wanted.Driven("", u.ohms(), u.series(), u.edge(), swing, 0, 0, 0, 0, 0, Map.of());
  }

  /// Whether a net is a rail or the return net: no signal runs on it.
  boolean rests(String net) {
    return net.equals(ladder.ground()) || ladder.rail(net).isPresent();
  }

  /// What its conductors lie on.
  public Stack stack() {
    return stack;
  }

  /// The revision.
  public Revision revision() {
    return revision;
  }

  /// What is taken of a place before anybody spoke of it.
  private Wanted untold(String place, String net) {
    List<Wanted> known = new ArrayList<>(crystals());
    known.addAll(buses());
    return known.stream()
        .filter(w -> w.place().equals(place))
        .findFirst()
        .orElseGet(() -> guess(place, net));
  }

  /// What is taken of a place of which nobody spoke: the family of the rail that feeds its parts.
  private Wanted guess(String place, String net) {
    boolean rests = rests(net);
    Optional<LogicFamily> f =
        rests ? Optional.empty() : supply(net).flatMap(v -> LogicFamily.at(v, families));
    return new Wanted(
        place,
        net,
        f,
        f.isPresent(),
        Optional.empty(),
        0,
        0,
        false,
        Map.of(),
        Optional.empty(),
        "");
  }

  /// Volts of the rail that most parts of a net hang on.
  private Optional<Double> supply(String net) {
    Map<Double, Integer> votes = new java.util.TreeMap<>();
    for (Joint j : revision.net(net)) {
      if (PartKind.of(j.part()) != PartKind.CHIP) {
        continue;
      }
      revision.jointsOf(j.part()).stream()
          .map(Joint::net)
          .distinct()
          .flatMap(n -> ladder.rail(n).stream())
          .filter(r -> r.volts() > 0)
          .forEach(r -> votes.merge(r.volts(), 1, Integer::sum));
    }
    Optional<Double> best =
        votes.entrySet().stream().max(Map.Entry.comparingByValue()).map(Map.Entry::getKey);
    return best.isPresent() ? best : lowest();
  }

  private Optional<Double> lowest() {
    return ladder.supplied().stream().map(RailSpec::volts).filter(v -> v > 1).min(Double::compare);
  }

  /// Lines of two-wire buses that have a pull-up.
  private List<Wanted> buses() {
    List<Wanted> all = new ArrayList<>();
    for (String net : revision.nets()) {
      Optional<FilledSheets.PullUp> p =
          FilledSheets.twoWire(net) ? FilledSheets.pullUp(revision, ladder, net) : Optional.empty();
      if (p.isEmpty()) {
        continue;
      }
      Optional<LogicFamily> f =
          families.stream()
              .filter(x ->
                  x.name().startsWith("twowire")
                      && Math.abs(x.supply() - p.get().volts()) < 0.12 * x.supply())
              .findFirst();
      all.add(
          new Wanted(
              net,
              net,
              f,
              f.isPresent(),
              Optional.empty(),
              0,
              0,
              false,
              Map.of(),
              Optional.empty(),
              ""));
    }
    return all;
  }

  /// Both ends of each crystal.
  private List<Wanted> crystals() {
    List<Wanted> all = new ArrayList<>();
    for (Part p : revision.parts()) {
      Optional<Double> f = hertz(p);
      if (f.isEmpty() || !p.fitted()) {
        continue;
      }
      for (Joint j : revision.jointsOf(p.reference())) {
        boolean own =
            j.connected() && !j.net().equals(ladder.ground()) && ladder.rail(j.net()).isEmpty();
        if (own && all.stream().noneMatch(w -> w.place().equals(j.net()))) {
          Wanted g = guess(j.net(), j.net());
          all.add(
              new Wanted(
                  g.place(),
                  g.net(),
                  Optional.empty(),
                  false,
                  g.input(),
                  f.get(),
                  0,
                  true,
                  g.limits(),
                  g.line(),
                  EngineeringNumber.print(f.get(), Unit.HERTZ, 6)
                      + " is taken from the value of "
                      + p.reference()));
        }
      }
    }
    return all;
  }

  /// The frequency in the value of a crystal or an oscillator.
  public static Optional<Double> hertz(Part p) {
    if (PartKind.of(p) != PartKind.CRYSTAL) {
      return Optional.empty();
    }
    for (String word :
        (p.value() + " " + p.code())
            .replaceAll("(?<=\\d)\\s+(?=[kKM]?[hH][zZ])", "")
            .split("[\\s,/]+")) {
      if (word.isEmpty() || !Character.isDigit(word.charAt(0))) {
        continue;
      }
      try {
        Quantity q = EngineeringNumber.read(word, Unit.HERTZ);
        if (q.unit() == Unit.HERTZ && q.value() > 1e3 && q.value() < 1e9) {
          return Optional.of(q.value());
        }
      } catch (NumberFormatException e) {
        // another word of the value
      }
    }
    return Optional.empty();
  }
}
