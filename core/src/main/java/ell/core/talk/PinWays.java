package ell.core.talk;

import ell.core.talk.PinMap.Strapped;
import ell.core.talk.PinMap.Way;
import ell.core.talk.PinTable.Need;
import ell.core.talk.PinTable.Offer;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;

/// Ways out where not every signal finds a pin, or a strap would be pulled the wrong way. Costs are
/// for comparing only: a changed line of code 1, a part on the board 5, a signal given up 8,
/// another module 20 (invented weights; the order is what matters).
final class PinWays {
  private static final double LINE = 1;
  private static final double PART = 5;
  private static final double GIVEN_UP = 8;
  private static final double MODULE = 20;

  private PinWays() {}

  static List<Way> of(
      List<Need> unmet, List<Need> needs, List<Offer> offers, int[] at, List<Strapped> straps) {
    List<Way> all = new ArrayList<>();
    for (Need n : unmet) {
      one(n, needs, offers, at, all);
    }
    for (Strapped s : straps) {
      if (s.wrong()) {
        all.add(
            new Way(
                PART,
                "a stronger pull to "
                    + s.level()
                    + " on "
                    + s.pin()
                    + ", or a buffer between it and "
                    + s.signal()));
      }
    }
    all.sort(Comparator.comparingDouble(Way::cost));
    return all;
  }

  private static void one(Need n, List<Need> needs, List<Offer> offers, int[] at, List<Way> all) {
    Set<String> words = n.needs();
    if (words.contains("analog-in") && free(offers, at, Set.of("analog-in")) == 0) {
      all.add(
          new Way(
              PART + 2 * LINE,
              "an analog switch in front of one analog-in, chosen by pins that are free, for "
                  + n.signal()));
    }
    if (words.stream().allMatch(w -> w.equals("in") || w.equals("out") || w.equals("interrupt"))) {
      boolean bus = offers.stream().anyMatch(o -> o.offers().contains("i2c-sda"));
      all.add(
          new Way(
              PART + 2 * LINE,
              n.signal()
                  + " through an expander on "
                  + (bus ? "the two-wire bus" : "a serial bus, or a shift register")));
    }
    if (words.contains("pwm")) {
      Set<String> without = new TreeSet<>(words);
      without.remove("pwm");
      if (free(offers, at, without) > 0) {
        all.add(new Way(3 * LINE, n.signal() + " switched in software on a pin without pwm"));
      }
    }
    if (words.contains("uart-tx") || words.contains("uart-rx")) {
      if (free(offers, at, Set.of(words.contains("uart-tx") ? "out" : "in")) > 0) {
        all.add(new Way(3 * LINE, n.signal() + " as a serial line in software on a free pin"));
      }
    }
    if (words.contains("5v")) {
      all.add(new Way(PART, n.signal() + " through a divider or a level shifter"));
    }
    // what else would have to go: each signal whose pin it could take
    for (int i = 0; i < at.length; i++) {
      if (at[i] >= 0 && offers.get(at[i]).meets(n)) {
        all.add(new Way(GIVEN_UP, "give up " + needs.get(i).signal() + " for " + n.signal()));
        break;
      }
    }
    all.add(new Way(GIVEN_UP + 1, "give up " + n.signal()));
    all.add(
        new Way(
            MODULE, "a module with one more pin that offers " + String.join(" and ", n.needs())));
  }

  private static long free(List<Offer> offers, int[] at, Set<String> words) {
    Set<Integer> taken = new java.util.HashSet<>();
    for (int j : at) {
      taken.add(j);
    }
    long n = 0;
    for (int j = 0; j < offers.size(); j++) {
      n += !taken.contains(j) && offers.get(j).offers().containsAll(words) ? 1 : 0;
    }
    return n;
  }
}
