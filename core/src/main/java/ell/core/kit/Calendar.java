package ell.core.kit;

import java.time.LocalDate;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;

/// What of a shelf may be used on a day: arrived by then and not expired.
final class Calendar {
  private static final int MOST_DAYS = 60;
  private final List<ShelfLine> shelf;
  private final boolean arrived;
  private final LocalDate today;

  Calendar(List<ShelfLine> shelf, LocalDate today, boolean arrived) {
    this.shelf = shelf.stream().filter(l -> l.kind() == ShelfLine.Kind.PART).toList();
    this.today = today;
    this.arrived = arrived;
  }

  /// Quantity by code on a day.
  Map<String, Long> on(LocalDate day) {
    Map<String, Long> stock = new HashMap<>();
    for (ShelfLine l : shelf) {
      long q = (l.usable(day) ? l.quantity() : 0) + (hasCome(l, day) ? l.onOrder() : 0);
      stock.merge(l.code(), q, Long::sum);
    }
    return stock;
  }

  /// Whether what a line has on order is on the shelf on a day. What is overdue today may come on
  /// any day, or never: it does not count unless a day is looked at on which it should be there.
  boolean hasCome(ShelfLine l, LocalDate day) {
    return l.onOrder() > 0
        && l.expected().isPresent()
        && !l.expected().get().isAfter(day)
        && (arrived || l.expected().get().isAfter(today));
  }

  /// Days on which the stock changes, today first, at most sixty.
  List<LocalDate> days() {
    TreeSet<LocalDate> days = new TreeSet<>();
    days.add(today);
    for (ShelfLine l : shelf) {
      if (l.onOrder() > 0) {
        l.expected().filter(d -> d.isAfter(today)).ifPresent(days::add);
      }
      if (l.quantity() > 0) {
        l.expiry().map(d -> d.plusDays(1)).filter(d -> d.isAfter(today)).ifPresent(days::add);
      }
    }
    return days.stream().limit(MOST_DAYS).toList();
  }
}
