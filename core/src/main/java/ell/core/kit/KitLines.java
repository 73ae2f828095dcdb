package ell.core.kit;

import ell.core.board.Part;
import ell.core.board.Revision;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Predicate;

/// The codes of a bill, or of the parts of it that a gate needs: how many each number of boards
/// takes, and what of it is missing from a stock.
final class KitLines {
  private final List<String> codes = new ArrayList<>();
  private final List<List<Part>> parts = new ArrayList<>();
  private final List<Attrition> rules = new ArrayList<>();
  private final List<String> stockCodes = new ArrayList<>();
  private final int[][] stockOf;
  private final long[] placed;
  private final long[] lost;
  private final long[] spares;

  /// @param wanted which of the fitted parts count
  /// @param placedOn by reference, on how many boards of the build it sits already
  /// @param lostOf by code, how many the build lost already
  KitLines(
      Revision revision,
      AttritionRules attrition,
      Predicate<Part> wanted,
      Map<String, Long> placedOn,
      Map<String, Long> lostOf) {
    Map<String, List<Part>> byCode = new LinkedHashMap<>();
    for (Part p : revision.parts()) {
      if (p.fitted() && wanted.test(p)) {
        byCode.computeIfAbsent(p.code(), _ -> new ArrayList<>(2)).add(p);
      }
    }
    Map<String, Integer> stockIndex = new HashMap<>();
    stockOf = new int[byCode.size()][];
    placed = new long[byCode.size()];
    lost = new long[byCode.size()];
    spares = new long[byCode.size()];
    byCode.forEach((code, own) -> {
      int i = codes.size();
      codes.add(code);
      parts.add(own);
      rules.add(attrition.of(revision, own));
      Set<String> usable = new LinkedHashSet<>();
      usable.add(code);
      own.forEach(p -> usable.addAll(p.alternates()));
      stockOf[i] =
          usable.stream()
              .mapToInt(c ->
                  stockIndex.computeIfAbsent(
                      c,
                      _ -> {
                        stockCodes.add(c);
                        return stockCodes.size() - 1;
                      }))
              .toArray();
      placed[i] = own.stream().mapToLong(p -> placedOn.getOrDefault(p.reference(), 0L)).sum();
      lost[i] = lostOf.getOrDefault(code, 0L);
      spares[i] = own.stream().mapToLong(Part::spares).max().orElse(0);
    });
  }

  int size() {
    return codes.size();
  }

  String code(int i) {
    return codes.get(i);
  }

  List<Part> parts(int i) {
    return parts.get(i);
  }

  Attrition rule(int i) {
    return rules.get(i);
  }

  long placed(int i) {
    return placed[i];
  }

  /// What a line takes for so many boards from the first on, losses and spares counted.
  long need(int i, long boards) {
    long quantity = boards * parts.get(i).size();
    return quantity == 0 ? 0 : quantity + rules.get(i).extra(quantity) + spares[i];
  }

  /// What of it must still come from the shelf. Losses that happened already are not expected
  /// twice.
  long toGo(int i, long boards) {
    long quantity = boards * parts.get(i).size();
    long open = quantity - placed[i];
    return open <= 0 ? 0 : open + Math.max(0, rules.get(i).extra(quantity) - lost[i]) + spares[i];
  }

  /// Stock shared out for a number of boards.
  Pool pool(Map<String, Long> stock, long boards) {
    long[] need = new long[size()];
    for (int i = 0; i < need.length; i++) {
      need[i] = toGo(i, boards);
    }
    long[] have = new long[stockCodes.size()];
    for (int s = 0; s < have.length; s++) {
      have[s] = Math.max(0, stock.getOrDefault(stockCodes.get(s), 0L));
    }
    return new Pool(stockOf, have, need);
  }

  /// Indexes of lines that are short for a number of boards.
  List<Integer> shortAt(Map<String, Long> stock, long boards) {
    long[] missing = pool(stock, boards).missing();
    List<Integer> found = new ArrayList<>();
    for (int i = 0; i < missing.length; i++) {
      if (missing[i] > 0) {
        found.add(i);
      }
    }
    return found;
  }

  /// The line that is shortest, by how many boards' worth it lacks.
  int worst(Map<String, Long> stock, long boards) {
    long[] missing = pool(stock, boards).missing();
    int worst = -1;
    double most = 0;
    for (int i = 0; i < missing.length; i++) {
      double boardsWorth = (double) missing[i] / parts.get(i).size();
      if (missing[i] > 0 && boardsWorth > most) {
        most = boardsWorth;
        worst = i;
      }
    }
    return worst;
  }

  /// The most boards, up to `limit`, for which nothing is missing.
  long most(Map<String, Long> stock, long limit) {
    if (size() == 0) {
      return 0;
    }
    long low = 0;
    long high = 1;
    while (high < limit && enough(stock, high)) {
      low = high;
      high *= 2;
    }
    high = Math.min(high, limit + 1);
    while (high - low > 1) {
      long mid = (low + high) / 2;
      if (enough(stock, mid)) {
        low = mid;
      } else {
        high = mid;
      }
    }
    return low;
  }

  private boolean enough(Map<String, Long> stock, long boards) {
    return Arrays.stream(pool(stock, boards).missing()).allMatch(m -> m == 0);
  }
}
