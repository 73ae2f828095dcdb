package ell.core.beep;

import ell.core.board.Joint;
import ell.core.board.Revision;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/// Where two nets that must be apart most likely touch: where their metal lies near, where the book
/// has a defect or a rework, and where milliohm readings along a net point to.
///
/// Each place where the two lie beside each other is a suspect. Readings are held against it: the
/// ohms from a joint to the short grow with the way along the copper ([AlongCopper]). Where a small
/// current is forced in at one joint and volts are read along the net, they fall only as far as the
/// way to a joint is the way to the short: d is then half of what the ways from the short to the
/// joint and to the feed have more than the way between those two, which on a tree of traces is
/// exact. Common practice, no source; the weights are typical.
///
/// @param places most likely first, probabilities sum to 1 with `elsewhere`
/// @param elsewhere the chance that it is none of them
public record ShortPlaces(List<Place> places, double elsewhere) {
  private static final double BESIDE_MM = 1.3;
  private static final double NEAR_MM = 0.25;
  private static final double DEFECT = 6;
  private static final double HEATED = 3;
  private static final double ELSEWHERE = 0.1;
  private static final int MOST = 40;

  /// A place.
  ///
  /// @param a joint of the one net
  /// @param b joint of the other
  /// @param probability 0...1
  /// @param why a phrase each
  public record Place(Joint a, Joint b, double probability, List<String> why) {
    public Place {
      why = List.copyOf(why);
    }
  }

  /// A reading of the short from a joint, the other tip staying where it is on the other net.
  ///
  /// @param ohms where a current is forced in elsewhere, the volts at the joint over that current
  public record At(Joint joint, double ohms) {}

  /// A small current that is forced into one of the nets and comes out of the other.
  ///
  /// @param joint where it goes in
  /// @param amps above 0
  public record Feed(Joint joint, double amps) {}

  /// Readings of one short.
  ///
  /// @param feed empty where a meter measured ohms
  public record Readings(List<At> at, Optional<Feed> feed) {
    /// None at all.
    public static final Readings NONE = new Readings(List.of(), Optional.empty());

    public Readings {
      at = List.copyOf(at);
    }
  }

  public ShortPlaces {
    places = List.copyOf(places);
  }

  /// Readings of the short that the book has: ohms at joints of the one of the two nets that has
  /// more of them, such as `U3.8 24mohm`; or volts, such as `U3.8 2.4mV`, since a current was
  /// logged at a joint of their net, such as `J2.1 100mA`.
  public static Readings logged(Revision revision, BoardState state, String netA, String netB) {
    List<At> ofA = new ArrayList<>();
    List<At> ofB = new ArrayList<>();
    List<At> fed = new ArrayList<>();
    Feed feed = null;
    for (Logged l : state.standing()) {
      if (!(l.entry() instanceof Entry.Reading r)) {
        continue;
      }
      Joint j = joint(revision, r.place()).orElse(null);
      if (j == null || !j.net().equals(netA) && !j.net().equals(netB)) {
        continue;
      }
      if (r.unit() == Unit.OHM && r.value() < MOST_OHMS) {
        put(j.net().equals(netA) ? ofA : ofB, new At(j, r.value()));
      } else if (r.unit() == Unit.AMPERE && r.value() > 0 && r.value() <= MOST_AMPS) {
        feed = new Feed(j, r.value());
        fed.clear();
      } else if (r.unit() == Unit.VOLT
          && feed != null
          && j.net().equals(feed.joint().net())
          && Math.abs(r.value()) <= MOST_VOLTS) {
        put(fed, new At(j, r.value() / feed.amps()));
      }
    }
    List<At> ohms = ofA.size() >= ofB.size() ? ofA : ofB;
    return fed.size() > ohms.size()
        ? new Readings(fed, Optional.of(feed))
        : new Readings(ohms, Optional.empty());
  }

  private static void put(List<At> into, At one) {
    into.removeIf(x -> x.joint().place().equals(one.joint().place()));
    into.add(one);
  }

  private static Optional<Joint> joint(Revision revision, String place) {
    List<Joint> ofPart = revision.jointsOf(place);
    return ofPart.size() == 1 ? Optional.of(ofPart.getFirst()) : revision.joint(place);
  }

  /// A reading above this is not one of a short.
  public static final double MOST_OHMS = 20;

  /// What is forced in is no more than that: no junction conducts, and no trace gets warm.
  public static final double MOST_VOLTS = 0.5;

  /// Likewise.
  public static final double MOST_AMPS = 1;

  /// Ranks the places.
  ///
  /// @param state the board's own, empty for a board of which nothing is known
  /// @param readings of joints of one of the two nets; two or fewer say nothing of the place
  public static ShortPlaces of(
      Revision revision, String netA, String netB, Optional<BoardState> state, Readings readings) {
    List<Neighbours.Side> sides = sides(revision, netA, netB);
    Set<String> defects = new HashSet<>();
    Set<String> heated = new HashSet<>();
    state.ifPresent(s -> history(s, defects, heated));
    List<Place> raw = new ArrayList<>();
    double sum = 0;
    double[] fits = fits(sides, readings);
    for (int i = 0; i < sides.size(); i++) {
      Neighbours.Side s = sides.get(i);
      List<String> why = new ArrayList<>();
      why.add(EngineeringNumber.print(s.gapMm() * 1e-3, Unit.METRE, 2) + " apart");
      double w = Math.exp(-s.gapMm() / NEAR_MM) + 0.02;
      if (touched(defects, s)) {
        w *= DEFECT;
        why.add("a defect in the book");
      }
      if (touched(heated, s)) {
        w *= HEATED;
        why.add("reworked");
      }
      if (fits.length > 0) {
        w *= fits[i];
        if (fits[i] > 0.5) {
          why.add("the readings point here");
        }
      }
      sum += w;
      raw.add(new Place(s.a(), s.b(), w, why));
    }
    double all = sum;
    double elsewhere = sides.isEmpty() || !(all > 0) ? 1 : ELSEWHERE;
    List<Place> places =
        raw.stream()
            .filter(_ -> all > 0)
            .map(p -> new Place(p.a(), p.b(), (1 - elsewhere) * p.probability() / all, p.why()))
            .sorted(
                Comparator.comparingDouble((Place p) -> -p.probability())
                    .thenComparing(p -> p.a().place()))
            .limit(MOST)
            .toList();
    return new ShortPlaces(places, 1 - places.stream().mapToDouble(Place::probability).sum());
  }

  private static boolean touched(Set<String> places, Neighbours.Side s) {
    return places.contains(s.a().place())
        || places.contains(s.b().place())
        || places.contains(s.a().part())
        || places.contains(s.b().part());
  }

  private static void history(BoardState s, Set<String> defects, Set<String> heated) {
    s.findings().forEach(f -> defects.add(f.place()));
    for (Logged l : s.standing()) {
      if (l.entry() instanceof Entry.Action a && a.heat()) {
        heated.add(a.place());
      }
    }
  }

  /// Every two joints of the nets that lie beside each other.
  private static List<Neighbours.Side> sides(Revision revision, String netA, String netB) {
    return Neighbours.every(revision.net(netA), revision.net(netB), BESIDE_MM).stream()
        .sorted(Comparator.comparing((Neighbours.Side s) -> s.a().place() + " " + s.b().place()))
        .toList();
  }

  /// How well the readings agree with each place, the best 1; empty where they say nothing.
  private static double[] fits(List<Neighbours.Side> sides, Readings all) {
    return all.at().size() < 3 || sides.isEmpty()
        ? new double[0]
        : AlongCopper.fits(
            sides.stream()
                .map(s ->
                    new AlongCopper.Spot(
                        (s.a().xMm() + s.b().xMm()) / 2, (s.a().yMm() + s.b().yMm()) / 2))
                .toList(),
            all);
  }
}
