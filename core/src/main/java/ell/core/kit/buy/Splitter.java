package ell.core.kit.buy;

import ell.core.kit.buy.OrderSplit.Naive;
import ell.core.kit.buy.OrderSplit.Purchase;
import ell.core.kit.buy.OrderSplit.Shipment;
import ell.core.kit.buy.OrderSplit.Unmet;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.BooleanSupplier;

/// Works out an [OrderSplit]: a mixed-integer programme (whole packs, breaks, shipping paid or not)
/// taken apart where it comes apart. Once it is settled which shipments are paid, every line is on
/// its own and is covered exactly ([LineCover]); which shipments to pay is settled by branch and
/// bound: no choice can cost less than every line at its best with all that are still open, plus
/// the shipments that are decided.
public final class Splitter {
  private final LocalDate today;
  private final List<Want> wants;
  private final List<Offer> offers;
  private final BooleanSupplier stop;

  private final List<String> sellers = new ArrayList<>();
  private final Map<String, Integer> sellerIndex = new HashMap<>();
  private final List<List<Offer>> usable = new ArrayList<>();
  private final List<BitSet> sellersOf = new ArrayList<>(); // those that matter to a line
  private final List<List<Known>> known = new ArrayList<>();
  private final List<String> assumptions = new ArrayList<>();
  private int[] groupOf = new int[0]; // shipment by seller
  private double[] shippingOf = new double[0]; // by seller
  private double bestTotal = Double.POSITIVE_INFINITY;
  private BitSet best = new BitSet();
  private boolean stopped;
  private double openBound = Double.POSITIVE_INFINITY;

  /// @param wants what is short, each code once
  /// @param offers of all sellers
  /// @param stop asked often; once it says yes the best that was found is returned with its gap
  public Splitter(LocalDate today, List<Want> wants, List<Offer> offers, BooleanSupplier stop) {
    this.today = today;
    this.wants = List.copyOf(wants);
    this.offers = List.copyOf(offers);
    this.stop = stop;
  }

  /// Days on which something more could be there, soonest first: one for each time that the offers
  /// of what is wanted need.
  public List<LocalDate> days() {
    Set<String> codes = new HashSet<>();
    wants.forEach(w -> {
      codes.add(w.code());
      codes.addAll(w.alternates());
    });
    TreeSet<LocalDate> days = new TreeSet<>();
    offers.stream()
        .filter(o -> codes.contains(o.code()))
        .forEach(o -> days.add(today.plusDays(o.days())));
    return List.copyOf(days);
  }

  /// The split for a day.
  public OrderSplit by(LocalDate by) {
    List<Unmet> unmet = new ArrayList<>();
    List<Want> met = new ArrayList<>();
    List<List<Offer>> own = assign();
    for (int i = 0; i < wants.size(); i++) {
      List<Offer> inTime =
          own.get(i).stream().filter(o -> !today.plusDays(o.days()).isAfter(by)).toList();
      if (alone(wants.get(i), inTime)
          || Double.isFinite(new LineCover(wants.get(i), inTime).cost())) {
        met.add(wants.get(i));
        usable.add(inTime);
        known.add(new ArrayList<>(4));
      } else {
        unmet.add(
            new Unmet(
                wants.get(i).code(), wants.get(i).quantity(), earliest(wants.get(i), own.get(i))));
      }
    }
    shipments();
    search(met);
    return result(by, met, unmet);
  }

  /// Which offers may serve which line. An alternate that several lines could buy is left to the
  /// line whose own code it is, else to the first, so that no stock is promised twice.
  private List<List<Offer>> assign() {
    Map<String, Integer> lineOf = new HashMap<>();
    for (int i = 0; i < wants.size(); i++) {
      lineOf.put(wants.get(i).code(), i);
    }
    for (int i = 0; i < wants.size(); i++) {
      for (String a : wants.get(i).alternates()) {
        Integer before = lineOf.putIfAbsent(a, i);
        if (before != null && before != i) {
          assumptions.add(
              a
                  + " is bought for "
                  + wants.get(before).code()
                  + " only, not for "
                  + wants.get(i).code());
        }
      }
    }
    List<List<Offer>> own = new ArrayList<>();
    wants.forEach(_ -> own.add(new ArrayList<>()));
    for (Offer o : offers) {
      Integer line = lineOf.get(o.code());
      if (line != null && o.stock() > 0) {
        own.get(line).add(o);
      }
    }
    return own;
  }

  private Optional<LocalDate> earliest(Want want, List<Offer> own) {
    return own.stream()
        .map(Offer::days)
        .distinct()
        .sorted()
        .filter(d ->
            Double.isFinite(
                new LineCover(want, own.stream().filter(o -> o.days() <= d).toList()).cost()))
        .map(today::plusDays)
        .findFirst();
  }

  /// Sellers that ship together, over any number of links, are one shipment, which costs as much as
  /// the dearest of those that are in it.
  private void shipments() {
    Map<String, Double> cost = new LinkedHashMap<>();
    offers.forEach(o -> cost.merge(o.seller(), o.shipping(), Math::max));
    sellers.addAll(cost.keySet());
    Map<String, String> root = new HashMap<>();
    sellers.forEach(s -> root.put(s, s));
    for (Offer o : offers) {
      o.shipsWith()
          .filter(root::containsKey)
          .ifPresent(w -> root.put(find(root, o.seller()), find(root, w)));
    }
    groupOf = new int[sellers.size()];
    shippingOf = new double[sellers.size()];
    Map<String, Integer> group = new HashMap<>();
    for (int s = 0; s < sellers.size(); s++) {
      sellerIndex.put(sellers.get(s), s);
      groupOf[s] = group.computeIfAbsent(find(root, sellers.get(s)), _ -> group.size());
      shippingOf[s] = cost.get(sellers.get(s));
    }
    for (List<Offer> line : usable) {
      BitSet own = new BitSet();
      line.forEach(o -> own.set(sellerIndex.get(o.seller())));
      sellersOf.add(own);
    }
  }

  private static String find(Map<String, String> root, String s) {
    String at = s;
    while (!root.get(at).equals(at)) {
      at = root.get(at);
    }
    return at;
  }

  /// A line that was covered from some open sellers.
  ///
  /// @param used those of them that it buys from
  private record Known(BitSet open, BitSet used, double cost) {
    /// Whether it holds for other open sellers too: fewer than before, but all that it buys from.
    boolean holds(BitSet others) {
      return within(used, others) && within(others, open);
    }

    private static boolean within(BitSet small, BitSet large) {
      BitSet rest = (BitSet) small.clone();
      rest.andNot(large);
      return rest.isEmpty();
    }
  }

  private double lineCost(int line, List<Want> met, BitSet open) {
    return covered(line, met, open).cost();
  }

  private Known covered(int line, List<Want> met, BitSet open) {
    BitSet mine = (BitSet) open.clone();
    mine.and(sellersOf.get(line));
    List<Known> before = known.get(line);
    for (int k = before.size() - 1; k >= 0; k--) {
      if (before.get(k).holds(mine)) {
        return before.get(k);
      }
    }
    LineCover cover = new LineCover(met.get(line), in(line, mine));
    BitSet used = new BitSet();
    List<LineCover.Take> takes = cover.takes();
    takes.forEach(t -> used.set(sellerIndex.get(t.offer().seller())));
    double cost =
        takes.isEmpty()
            ? Double.POSITIVE_INFINITY
            : takes.stream().mapToDouble(LineCover.Take::cost).sum();
    before.add(new Known(mine, takes.isEmpty() ? mine : used, cost));
    return before.getLast();
  }

  private List<Offer> in(int line, BitSet open) {
    return usable.get(line).stream().filter(o -> open.get(sellerIndex.get(o.seller()))).toList();
  }

  /// Goods for a set of open sellers; not a number when it was stopped meanwhile.
  private double goods(List<Want> met, BitSet open) {
    double sum = 0;
    for (int i = 0; i < met.size() && Double.isFinite(sum); i++) {
      if (i % 32 == 31 && Double.isFinite(bestTotal) && halted()) {
        return Double.NaN;
      }
      sum += lineCost(i, met, open);
    }
    return sum;
  }

  /// Each shipment costs as much as the dearest seller in it.
  private double shipping(BitSet open) {
    double[] dearest = new double[sellers.size()];
    double sum = 0;
    for (int s = open.nextSetBit(0); s >= 0; s = open.nextSetBit(s + 1)) {
      double more = shippingOf[s] - dearest[groupOf[s]];
      if (more > 0) {
        sum += more;
        dearest[groupOf[s]] = shippingOf[s];
      }
    }
    return sum;
  }

  private void search(List<Want> met) {
    if (met.isEmpty()) {
      bestTotal = 0;
      openBound = 0;
      return;
    }
    BitSet all = new BitSet();
    sellersOf.forEach(all::or);
    double goodsAtLeast = goods(met, all);
    BitSet needed = new BitSet();
    // a shipment without which a line cannot be had is paid in any case
    for (int i = 0; i < met.size(); i++) {
      for (int g = sellersOf.get(i).nextSetBit(0); g >= 0; g = sellersOf.get(i).nextSetBit(g + 1)) {
        BitSet without = (BitSet) all.clone();
        without.clear(g);
        if (!needed.get(g)
            && !alone(met.get(i), in(i, without))
            && !Double.isFinite(lineCost(i, met, without))) {
          needed.set(g);
        }
      }
    }
    improve(met, all, needed);
    BitSet open = (BitSet) all.clone();
    open.andNot(needed);
    openBound = branch(met, (BitSet) needed.clone(), open, goodsAtLeast);
  }

  /// Whether one of some offers covers a line by itself.
  private static boolean alone(Want want, List<Offer> some) {
    for (Offer o : some) {
      long least = Math.max(Math.max(want.quantity(), o.least()), o.breaks().getFirst().from());
      if (o.stock() >= (least + o.pack() - 1) / o.pack() * o.pack()) {
        return true;
      }
    }
    return false;
  }

  /// A good start: shut one shipment after the other while that saves.
  private void improve(List<Want> met, BitSet all, BitSet needed) {
    BitSet now = (BitSet) all.clone();
    offer(met, now);
    boolean better = true;
    while (better && !halted()) {
      better = false;
      double least = paid(met, now);
      BitSet next = now;
      for (int g = all.nextSetBit(0); g >= 0 && !halted(); g = all.nextSetBit(g + 1)) {
        if (needed.get(g)) {
          continue;
        }
        BitSet flipped = (BitSet) now.clone();
        flipped.flip(g);
        double cost = paid(met, flipped);
        if (cost < least - 1e-9) {
          least = cost;
          next = flipped;
          better = true;
        }
      }
      now = next;
      offer(met, now);
    }
  }

  private double paid(List<Want> met, BitSet open) {
    return goods(met, open) + shipping(open);
  }

  private void offer(List<Want> met, BitSet open) {
    double total = paid(met, open);
    if (total < bestTotal - 1e-9) {
      bestTotal = total;
      best = (BitSet) open.clone();
    }
  }

  private boolean halted() {
    stopped |= stop.getAsBoolean();
    return stopped;
  }

  /// Decides one seller after the other; returns the least bound of what was left undone.
  ///
  /// @param least what the goods cost at least, from what is above in the tree
  private double branch(List<Want> met, BitSet in, BitSet undecided, double least) {
    // whoever ships for nothing more is in
    double paid = shipping(in);
    for (int s = undecided.nextSetBit(0); s >= 0; s = undecided.nextSetBit(s + 1)) {
      in.set(s);
      if (shipping(in) > paid) {
        in.clear(s);
      } else {
        undecided.clear(s);
      }
    }
    BitSet open = (BitSet) in.clone();
    open.or(undecided);
    double bound = goods(met, open) + paid;
    if (Double.isNaN(bound)) {
      return least + paid;
    }
    if (bound >= bestTotal - 1e-9) {
      return bestTotal;
    }
    if (halted()) {
      return bound;
    }
    if (undecided.isEmpty()) {
      offer(met, in);
      return bestTotal;
    }
    // the dearest shipment first: shutting it says most
    int g =
        undecided.stream()
            .boxed()
            .max(Comparator.comparingDouble(x -> shippingOf[x]))
            .orElseThrow();
    BitSet rest = (BitSet) undecided.clone();
    rest.clear(g);
    BitSet with = (BitSet) in.clone();
    with.set(g);
    double below = bound - paid;
    double without = branch(met, (BitSet) in.clone(), (BitSet) rest.clone(), below);
    return Math.min(without, branch(met, with, rest, below));
  }

  private OrderSplit result(LocalDate by, List<Want> met, List<Unmet> unmet) {
    List<Purchase> purchases = purchases(met, best);
    List<Shipment> ships = shipments(purchases);
    double total = total(purchases, ships);
    boolean exact = true;
    for (int i = 0; i < met.size(); i++) {
      exact &= new LineCover(met.get(i), usable.get(i)).exact();
    }
    double bound = Math.min(openBound, total);
    boolean proven = exact && (!stopped || total <= bound + 1e-9);
    if (unmet.size() < wants.size()) {
      assumptions.add("a price break holds for the whole quantity of its offer");
      assumptions.add("days are calendar days from today, " + today);
    }
    return new OrderSplit(
        by,
        purchases,
        ships,
        unmet,
        total,
        proven ? total : bound,
        proven,
        oneSeller(met),
        cheapestEach(met),
        assumptions);
  }

  private List<Purchase> purchases(List<Want> met, BitSet open) {
    List<Purchase> found = new ArrayList<>();
    for (int i = 0; i < met.size(); i++) {
      String code = met.get(i).code();
      // from the sellers alone that the cheapest cover buys from: it is the same, and found sooner
      new LineCover(met.get(i), in(i, covered(i, met, open).used()))
          .takes()
          .forEach(t ->
              found.add(
                  new Purchase(code, t.offer(), t.quantity(), today.plusDays(t.offer().days()))));
    }
    return found;
  }

  private List<Shipment> shipments(List<Purchase> purchases) {
    Map<Integer, TreeSet<String>> used = new LinkedHashMap<>();
    purchases.forEach(p ->
        used.computeIfAbsent(groupOf[sellerIndex.get(p.offer().seller())], _ -> new TreeSet<>())
            .add(p.offer().seller()));
    return used.values().stream()
        .map(s ->
            new Shipment(
                List.copyOf(s),
                s.stream().mapToDouble(x -> shippingOf[sellerIndex.get(x)]).max().orElse(0)))
        .toList();
  }

  private static double total(List<Purchase> purchases, List<Shipment> ships) {
    return purchases.stream().mapToDouble(Purchase::price).sum()
        + ships.stream().mapToDouble(Shipment::cost).sum();
  }

  private Optional<Naive> oneSeller(List<Want> met) {
    Optional<Naive> least = Optional.empty();
    for (String seller : met.isEmpty() ? List.<String>of() : sellers) {
      double sum = shippingOf[sellerIndex.get(seller)];
      for (int i = 0; i < met.size() && Double.isFinite(sum); i++) {
        sum +=
            new LineCover(
                    met.get(i),
                    usable.get(i).stream().filter(o -> o.seller().equals(seller)).toList())
                .cost();
      }
      if (Double.isFinite(sum) && (least.isEmpty() || sum < least.get().total())) {
        least = Optional.of(new Naive("everything from " + seller, sum));
      }
    }
    return least;
  }

  private Optional<Naive> cheapestEach(List<Want> met) {
    if (met.isEmpty()) {
      return Optional.empty();
    }
    BitSet all = new BitSet();
    all.set(0, sellers.size());
    List<Purchase> each = purchases(met, all);
    List<Shipment> ships = shipments(each);
    return Optional.of(
        new Naive(
            "each line where it is cheapest, "
                + ships.size()
                + (ships.size() == 1 ? " shipment" : " shipments"),
            total(each, ships)));
  }
}
