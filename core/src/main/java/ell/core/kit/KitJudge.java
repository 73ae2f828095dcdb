package ell.core.kit;

import ell.core.board.GateNeed;
import ell.core.board.Part;
import ell.core.kit.KitCheck.GateReach;
import ell.core.kit.KitCheck.Limit;
import ell.core.kit.KitCheck.Stair;
import ell.core.kit.KitCheck.Supply;
import ell.core.kit.KitCheck.Verdict;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/// Works out a [KitCheck]. Used once.
final class KitJudge {
  private static final long MOST_BOARDS = 1_000_000;

  private final KitQuestion q;
  private final Calendar calendar;
  private final KitLines all;
  private final Map<String, Long> stock;
  private final List<KitLine> lines = new ArrayList<>();
  private final List<String> reasons = new ArrayList<>();

  KitJudge(KitQuestion q) {
    this.q = q;
    this.calendar = new Calendar(q.shelf(), q.on(), q.arrived());
    this.all = new KitLines(q.revision(), q.attrition(), _ -> true, q.placed(), q.lost());
    this.stock = calendar.on(q.on());
  }

  KitCheck judge() {
    lines();
    long now = all.most(stock, MOST_BOARDS);
    Optional<String> limiting = limiting(stock, now);
    List<Stair> stairs = stairs(now, limiting);
    List<GateReach> gates = gates();
    List<Supply> supplies = Supplies.of(q);
    Optional<LocalDate> whole =
        lines.stream().allMatch(l -> l.shortBy() == 0)
            ? Optional.of(q.on())
            : stairs.stream().filter(s -> s.boards() >= q.boards()).map(Stair::from).findFirst();
    List<KitLine> shorts = lines.stream().filter(l -> l.shortBy() > 0).toList();
    if (q.shelf().isEmpty() && !lines.isEmpty()) {
      reasons.add("no shelf is kept yet: take one in to know what is there");
    }
    shorts.forEach(this::say);
    supplies.stream().filter(s -> !s.enough()).forEach(s -> reasons.add(s.words()));
    lines.stream().filter(l -> l.expired() > 0).forEach(this::expired);
    q.overdrawn()
        .forEach((code, n) ->
            reasons.add(
                "the book took "
                    + n
                    + " more "
                    + code
                    + " than the shelf had: count it again (count "
                    + code
                    + " and the number)"));
    Verdict verdict;
    Optional<String> gate = Optional.empty();
    boolean supplied = supplies.stream().allMatch(Supply::enough);
    if (shorts.isEmpty() && supplied) {
      verdict = Verdict.START;
      reasons.add("everything for " + q.boards() + " boards is on the shelf");
    } else {
      gate =
          supplied
              ? gates.stream()
                  .takeWhile(GateReach::reachable)
                  .map(GateReach::gate)
                  .reduce((_, b) -> b)
              : Optional.empty();
      verdict = gate.isPresent() ? Verdict.START_UP_TO : Verdict.WAIT;
      chain(gates, gate, shorts, now);
    }
    return new KitCheck(
        q.boards(),
        q.on(),
        lines,
        now,
        limiting,
        next(limiting),
        stairs,
        gates,
        supplies,
        verdict,
        gate,
        verdict == Verdict.START ? Optional.empty() : whole,
        // who keeps no shelf is not kept from work by an empty one
        q.shelf().isEmpty() ? List.of() : pasteShort(shorts),
        q.setAside(),
        reasons);
  }

  private void lines() {
    Pool pool = all.pool(stock, q.boards());
    Map<String, List<ShelfLine>> shelf = new HashMap<>();
    q.shelf().stream()
        .filter(l -> l.kind() == ShelfLine.Kind.PART)
        .forEach(l -> shelf.computeIfAbsent(l.code(), _ -> new ArrayList<>(1)).add(l));
    for (int i = 0; i < all.size(); i++) {
      String code = all.code(i);
      List<ShelfLine> own = shelf.getOrDefault(code, List.of());
      List<ShelfLine> coming =
          own.stream().filter(l -> l.onOrder() > 0 && !calendar.hasCome(l, q.on())).toList();
      boolean dated = coming.stream().allMatch(l -> l.expected().isPresent());
      long onHand = stock.getOrDefault(code, 0L);
      lines.add(
          new KitLine(
              code,
              all.parts(i).stream().map(Part::reference).toList(),
              all.parts(i).getFirst().label(),
              all.rule(i),
              all.need(i, q.boards()),
              all.parts(i).stream().mapToLong(Part::spares).max().orElse(0),
              all.placed(i),
              q.lost().getOrDefault(code, 0L),
              all.toGo(i, q.boards()),
              onHand,
              pool.fromAlternates(i),
              coming.stream().mapToLong(ShelfLine::onOrder).sum(),
              pool.missing()[i],
              dated
                  ? coming.stream().map(l -> l.expected().get()).max(Comparator.naturalOrder())
                  : Optional.empty(),
              own.stream().filter(l -> !l.usable(q.on())).mapToLong(ShelfLine::quantity).sum(),
              own.stream()
                  .map(ShelfLine::bin)
                  .filter(b -> !b.isEmpty())
                  .distinct()
                  .reduce((a, b) -> a + " " + b)
                  .orElse(""),
              reach(i, onHand + pool.fromAlternates(i))));
    }
  }

  /// The most boards that a quantity of one line makes, up to four times the build.
  private long reach(int i, long have) {
    long low = 0;
    long high = 4L * q.boards();
    while (low < high) {
      long mid = (low + high + 1) / 2;
      if (all.toGo(i, mid) <= have) {
        low = mid;
      } else {
        high = mid - 1;
      }
    }
    return low;
  }

  private Optional<String> limiting(Map<String, Long> at, long boards) {
    if (all.size() == 0 || boards >= MOST_BOARDS) {
      return Optional.empty();
    }
    int worst = all.worst(at, boards + 1);
    return worst < 0 ? Optional.empty() : Optional.of(all.code(worst));
  }

  /// What limits when the first has all that it could want.
  private Optional<Limit> next(Optional<String> first) {
    if (first.isEmpty()) {
      return Optional.empty();
    }
    Map<String, Long> more = new HashMap<>(stock);
    more.put(first.get(), Long.MAX_VALUE / 4);
    long boards = all.most(more, MOST_BOARDS);
    return limiting(more, boards).map(code -> new Limit(code, boards));
  }

  private List<Stair> stairs(long now, Optional<String> limiting) {
    List<Stair> stairs = new ArrayList<>();
    stairs.add(new Stair(q.on(), now, limiting));
    List<LocalDate> days = calendar.days();
    for (LocalDate day : days.subList(1, days.size())) {
      Map<String, Long> then = calendar.on(day);
      long boards = all.most(then, MOST_BOARDS);
      if (boards != stairs.getLast().boards()) {
        stairs.add(new Stair(day, boards, limiting(then, boards)));
      }
    }
    return stairs;
  }

  private List<GateReach> gates() {
    List<GateReach> found = new ArrayList<>();
    for (GateNeed g : q.gates()) {
      Set<String> needed = new HashSet<>(g.parts());
      if (q.setAside().isEmpty()) {
        needed.addAll(q.reflowed());
      }
      KitLines own =
          new KitLines(
              q.revision(),
              q.attrition(),
              p -> needed.contains(p.reference()),
              q.placed(),
              q.lost());
      List<String> blockedBy = own.shortAt(stock, q.boards()).stream().map(own::code).toList();
      long boards = own.size() == 0 ? q.boards() : own.most(stock, MOST_BOARDS);
      found.add(new GateReach(g.gate(), blockedBy.isEmpty(), blockedBy, boards));
    }
    return found;
  }

  private void say(KitLine l) {
    reasons.add(
        l.code()
            + " ("
            + String.join(" ", l.references())
            + ") is short by "
            + l.shortBy()
            + ": need "
            + l.need()
            + (l.placed() > 0 ? " of which " + l.placed() + " are placed" : "")
            + ", have "
            + (l.onHand() + l.fromAlternates())
            + (l.onOrder() > 0
                ? ", " + l.onOrder() + " on order" + l.expected().map(this::due).orElse("")
                : ", none on order"));
  }

  private String due(LocalDate d) {
    return (d.isAfter(q.on()) ? " for " : " and overdue since ") + d;
  }

  private void expired(KitLine l) {
    reasons.add(l.expired() + " of " + l.code() + " may not be used any more: expired");
  }

  /// Why not everything, and why this far.
  private void chain(
      List<GateReach> gates, Optional<String> reached, List<KitLine> shorts, long now) {
    List<String> paste = pasteShort(shorts);
    if (!paste.isEmpty()) {
      reasons.add(
          q.setAside()
              .map(why ->
                  "the paste is opened though " + String.join(", ", paste) + " are short: " + why)
              .orElse(
                  "do not open the paste until the reflowed parts are all there: "
                      + String.join(", ", paste)));
    }
    reached.ifPresentOrElse(
        g ->
            reasons.add(
                "gate " + g + " can be reached with what is there; what is short is fitted later"),
        () -> {
          if (paste.isEmpty()) {
            reasons.add("no gate can be reached with what is there");
          }
        });
    gates.stream()
        .filter(g -> !g.reachable())
        .findFirst()
        .ifPresent(g ->
            reasons.add(
                "gate "
                    + g.gate()
                    + " waits for "
                    + String.join(", ", g.blockedBy())
                    + (g.boards() > 0
                        ? "; " + boards(Math.min(g.boards(), q.boards())) + " can reach it now"
                        : "")));
    if (now > 0 && now < q.boards()) {
      reasons.add("the shelf supports " + now + " of " + boards(q.boards()) + " now");
    }
  }

  private List<String> pasteShort(List<KitLine> shorts) {
    return shorts.stream()
        .filter(l -> l.references().stream().anyMatch(q.reflowed()::contains))
        .map(KitLine::code)
        .toList();
  }

  private static String boards(long n) {
    return n == 1 ? "1 board" : n + " boards";
  }
}
