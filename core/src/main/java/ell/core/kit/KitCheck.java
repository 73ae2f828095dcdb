package ell.core.kit;

import ell.core.board.Block;
import ell.core.board.Part;
import ell.core.board.Revision;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.core.sheet.Worked;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/// Can I start: what a build needs, what the shelf has, how many boards that makes, and how far
/// they get.
///
/// @param boards of the build
/// @param lines by code, in the order of the bill
/// @param boardsNow the most boards that the shelf supports with attrition and alternates counted
/// @param limiting code of the line that limits, empty when nothing does
/// @param gates how far the build gets
/// @param verdict start, start up to a gate, or wait
/// @param gate the last gate that can be reached, for [Verdict#START_UP_TO]
/// @param date when the missing parts are there, for a wait whose date is known
/// @param reasons one sentence each
public record KitCheck(
    int boards,
    List<Line> lines,
    long boardsNow,
    Optional<String> limiting,
    List<GateReach> gates,
    Verdict verdict,
    Optional<String> gate,
    Optional<LocalDate> date,
    List<String> reasons) {

  /// Whether to start.
  public enum Verdict {
    /// Everything is there.
    START("start"),
    /// Enough is there to reach a gate.
    START_UP_TO("startUpTo"),
    /// Do not open the paste.
    WAIT("wait");

    private final String key;

    Verdict(String key) {
      this.key = key;
    }

    /// The verdict as a key in files.
    public String key() {
      return key;
    }
  }

  /// One code of the kit.
  ///
  /// @param code house code, or value and package
  /// @param references parts of one board
  /// @param label value and package in words
  /// @param rule attrition
  /// @param need for the whole build, attrition included
  /// @param onHand of the code itself
  /// @param fromAlternates of its alternates, as far as no other line needs them
  /// @param onOrder under way
  /// @param shortBy missing now
  /// @param expected when what is under way arrives
  /// @param bin where it lies
  public record Line(
      String code,
      List<String> references,
      String label,
      Attrition rule,
      long need,
      long onHand,
      long fromAlternates,
      long onOrder,
      long shortBy,
      Optional<LocalDate> expected,
      String bin) {
    /// Parts on one board.
    public int perBoard() {
      return references.size();
    }

    /// The need as a worked sheet.
    public Worked sheet(int boards) {
      long quantity = (long) boards * perBoard();
      return Worked.of("kit.need", "Need of " + code)
          .input("boards", (double) boards)
          .input("perBoard", (double) perBoard())
          .line("quantity", boards + " boards · " + perBoard() + " a board", quantity, Unit.ONE)
          .line(
              "attrition",
              "max("
                  + EngineeringNumber.print(rule.rate(), Unit.ONE)
                  + " · quantity rounded up, "
                  + rule.minimum()
                  + ")",
              rule.extra(quantity),
              Unit.ONE)
          .line("need", "quantity + attrition", need, Unit.ONE)
          .line(
              "on hand",
              "from the shelf"
                  + (fromAlternates > 0 ? ", " + fromAlternates + " of alternates" : ""),
              onHand + fromAlternates,
              Unit.ONE)
          .line("short", "need − on hand", shortBy, Unit.ONE)
          .result("need", (double) need)
          .result("short", (double) shortBy)
          .source("common practice, no source: attrition by size class, key parts none")
          .done();
    }
  }

  /// Whether a gate can be reached by every board of the build.
  ///
  /// @param blockedBy codes that are missing before it
  public record GateReach(String gate, boolean reachable, List<String> blockedBy) {}

  public KitCheck {
    lines = List.copyOf(lines);
    gates = List.copyOf(gates);
    reasons = List.copyOf(reasons);
  }

  /// Checks a kit.
  ///
  /// @param reflowed references that go through the oven or onto the plate; when one of them is
  ///   short the paste stays closed
  /// @param blocks in build order, each with its gate
  public static KitCheck of(
      Revision revision,
      int boards,
      List<ShelfLine> shelf,
      List<Block> blocks,
      Set<String> reflowed) {
    Map<String, List<Part>> byCode = new LinkedHashMap<>();
    for (Part p : revision.parts()) {
      if (p.fitted()) {
        byCode.computeIfAbsent(p.code(), _ -> new ArrayList<>()).add(p);
      }
    }
    Map<String, ShelfLine> stock = new HashMap<>();
    shelf.forEach(s -> stock.merge(s.code(), s, KitCheck::pool));
    Map<String, Attrition> rules = new HashMap<>();
    byCode.forEach((code, parts) -> rules.put(code, rule(revision, parts)));

    Map<String, Long> missing = shortages(byCode, rules, stock, boards);
    List<Line> lines = new ArrayList<>();
    byCode.forEach((code, parts) -> {
      long need = need(rules.get(code), parts, boards);
      ShelfLine s = stock.get(code);
      long own = s == null ? 0 : s.quantity();
      long from = Math.max(0, need - own - missing.get(code));
      lines.add(
          new Line(
              code,
              parts.stream().map(Part::reference).toList(),
              parts.getFirst().label(),
              rules.get(code),
              need,
              own,
              from,
              s == null ? 0 : s.onOrder(),
              missing.get(code),
              s == null ? Optional.empty() : s.expected(),
              s == null ? "" : s.bin()));
    });
    long now = boardsNow(byCode, rules, stock);
    Optional<String> limiting =
        byCode.isEmpty()
            ? Optional.empty()
            : shortages(byCode, rules, stock, now + 1).entrySet().stream()
                .filter(e -> e.getValue() > 0)
                .max(Comparator.comparingLong(Map.Entry::getValue))
                .map(Map.Entry::getKey);
    return judge(boards, lines, now, limiting, blocks, reflowed);
  }

  private static ShelfLine pool(ShelfLine a, ShelfLine b) {
    Optional<LocalDate> when =
        a.expected().isEmpty()
            ? b.expected()
            : b.expected().isEmpty() || a.expected().get().isAfter(b.expected().get())
                ? a.expected()
                : b.expected();
    return new ShelfLine(
        a.line(),
        a.code(),
        a.quantity() + b.quantity(),
        a.bin().isEmpty() ? b.bin() : a.bin(),
        a.onOrder() + b.onOrder(),
        when,
        a.expiry());
  }

  private static Attrition rule(Revision revision, List<Part> parts) {
    Part p = parts.getFirst();
    return Attrition.typical(revision.shape(p).chipCode(), parts.stream().anyMatch(Part::key));
  }

  private static long need(Attrition rule, List<Part> parts, long boards) {
    long quantity = boards * parts.size();
    return quantity + rule.extra(quantity);
  }

  /// What is missing of each code for a number of boards: first each line takes its own stock, then
  /// the lines that are short share what their alternates have left.
  private static Map<String, Long> shortages(
      Map<String, List<Part>> byCode,
      Map<String, Attrition> rules,
      Map<String, ShelfLine> stock,
      long boards) {
    Map<String, Long> left = new HashMap<>();
    stock.forEach((code, s) -> left.put(code, s.quantity()));
    Map<String, Long> missing = new LinkedHashMap<>();
    byCode.forEach((code, parts) -> {
      long need = need(rules.get(code), parts, boards);
      long taken = Math.min(need, left.getOrDefault(code, 0L));
      left.merge(code, -taken, Long::sum);
      missing.put(code, need - taken);
    });
    byCode.forEach((code, parts) -> {
      Set<String> alternates = new HashSet<>();
      parts.forEach(p -> alternates.addAll(p.alternates()));
      for (String other : alternates.stream().sorted().toList()) {
        long taken = Math.min(missing.get(code), Math.max(0, left.getOrDefault(other, 0L)));
        left.merge(other, -taken, Long::sum);
        missing.merge(code, -taken, Long::sum);
      }
    });
    return missing;
  }

  private static long boardsNow(
      Map<String, List<Part>> byCode, Map<String, Attrition> rules, Map<String, ShelfLine> stock) {
    if (byCode.isEmpty()) {
      return 0;
    }
    long low = 0;
    long high = 1;
    while (high < 1_000_000 && enough(byCode, rules, stock, high)) {
      low = high;
      high *= 2;
    }
    while (high - low > 1) {
      long mid = (low + high) / 2;
      if (enough(byCode, rules, stock, mid)) {
        low = mid;
      } else {
        high = mid;
      }
    }
    return low;
  }

  private static boolean enough(
      Map<String, List<Part>> byCode,
      Map<String, Attrition> rules,
      Map<String, ShelfLine> stock,
      long boards) {
    return shortages(byCode, rules, stock, boards).values().stream().allMatch(m -> m == 0);
  }

  private static KitCheck judge(
      int boards,
      List<Line> lines,
      long now,
      Optional<String> limiting,
      List<Block> blocks,
      Set<String> reflowed) {
    List<Line> shorts = lines.stream().filter(l -> l.shortBy() > 0).toList();
    List<GateReach> gates = new ArrayList<>();
    Set<String> needed = new HashSet<>();
    for (Block b : blocks) {
      needed.addAll(b.parts());
      List<String> blockedBy =
          shorts.stream()
              .filter(l ->
                  l.references().stream().anyMatch(r -> needed.contains(r) || reflowed.contains(r)))
              .map(Line::code)
              .toList();
      gates.add(new GateReach(b.gate(), blockedBy.isEmpty(), blockedBy));
    }
    List<String> reasons = new ArrayList<>();
    for (Line l : shorts) {
      reasons.add(
          l.code()
              + " ("
              + String.join(" ", l.references())
              + ") is short by "
              + l.shortBy()
              + ": need "
              + l.need()
              + ", have "
              + (l.onHand() + l.fromAlternates())
              + (l.onOrder() > 0
                  ? ", " + l.onOrder() + " on order" + l.expected().map(d -> " for " + d).orElse("")
                  : ", none on order"));
    }
    if (shorts.isEmpty()) {
      reasons.add("everything for " + boards + " boards is on the shelf");
      return new KitCheck(
          boards,
          lines,
          now,
          limiting,
          gates,
          Verdict.START,
          Optional.empty(),
          Optional.empty(),
          reasons);
    }
    Optional<LocalDate> date = allThere(shorts);
    List<Line> paste =
        shorts.stream().filter(l -> l.references().stream().anyMatch(reflowed::contains)).toList();
    Optional<String> reach =
        gates.stream().filter(GateReach::reachable).map(GateReach::gate).reduce((_, b) -> b);
    if (paste.isEmpty() && reach.isPresent()) {
      reasons.add(
          "gate "
              + reach.get()
              + " can be reached with what is there; what is short is fitted later");
      return new KitCheck(
          boards, lines, now, limiting, gates, Verdict.START_UP_TO, reach, date, reasons);
    }
    reasons.add(
        paste.isEmpty()
            ? "no gate can be reached with what is there"
            : "do not open the paste until the reflowed parts are all there: "
                + String.join(", ", paste.stream().map(Line::code).toList()));
    if (now > 0 && now < boards) {
      reasons.add("the shelf supports " + now + " of " + boards + " boards now");
    }
    return new KitCheck(
        boards, lines, now, limiting, gates, Verdict.WAIT, Optional.empty(), date, reasons);
  }

  /// When the last missing part arrives, if what is on order covers every shortage and has a date.
  private static Optional<LocalDate> allThere(List<Line> shorts) {
    if (shorts.stream().anyMatch(l -> l.onOrder() < l.shortBy() || l.expected().isEmpty())) {
      return Optional.empty();
    }
    return shorts.stream().map(l -> l.expected().get()).max(Comparator.naturalOrder());
  }
}
