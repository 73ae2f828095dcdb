package ell.core.kit;

import ell.core.board.Outline;
import ell.core.board.Part;
import ell.core.board.Revision;
import ell.core.quantity.Verdict;
import ell.core.sheet.Worked;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// What a finished board weighs, against a limit where the product has one. Kilogram.
///
/// @param parts sum of the parts whose mass is known
/// @param board of the bare board, 0 when no outline is known
/// @param unknown references of fitted parts whose mass is known from nowhere
/// @param typical how many masses are typical ones of the package
/// @param verdict against the limit; masses that are not known leave it too close to call, unless
///   it is broken already
public record MassBudget(
    double parts,
    double board,
    List<String> unknown,
    int typical,
    Optional<Double> limit,
    Optional<Verdict> verdict) {
  /// Glass and resin, 1.85 g/cm³, and a board of 1.6 mm: typical, no source.
  private static final double BOARD_KG_PER_MM2 = 1.85e-6 * 1.6;

  /// How far a sum with typical masses in it may be off, as a fraction of those; typical.
  private static final double TYPICAL_SPREAD = 0.3;

  public MassBudget {
    unknown = List.copyOf(unknown);
  }

  /// What is known of the whole.
  public double total() {
    return parts + board;
  }

  /// Weighs a revision.
  ///
  /// @param limitKg empty when the product has none
  public static MassBudget of(Revision revision, Optional<Double> limitKg) {
    double sum = 0;
    double guessed = 0;
    int typical = 0;
    List<String> unknown = new ArrayList<>();
    for (Part p : revision.parts()) {
      if (!p.fitted()) {
        continue;
      }
      double known = p.massGrams();
      double shape = revision.shape(p).massGrams();
      if (!Double.isNaN(known)) {
        sum += known / 1000;
      } else if (!Double.isNaN(shape)) {
        sum += shape / 1000;
        guessed += shape / 1000;
        typical++;
      } else {
        unknown.add(p.reference());
      }
    }
    double board = area(revision.outline()) * BOARD_KG_PER_MM2;
    double least = sum + board - TYPICAL_SPREAD * (guessed + board);
    double most = sum + board + TYPICAL_SPREAD * (guessed + board);
    Optional<Verdict> verdict =
        limitKg.map(l ->
            least > l
                ? Verdict.OUT
                : unknown.isEmpty() && board > 0 && most <= l ? Verdict.WITHIN : Verdict.CLOSE);
    return new MassBudget(sum, board, unknown, typical, limitKg, verdict);
  }

  /// Area of the outline without its cut-outs, mm².
  static double area(Outline outline) {
    double area = 0;
    for (int i = 0; i < outline.loops().size(); i++) {
      List<Outline.Point> loop = outline.loops().get(i);
      double twice = 0;
      for (int k = 0; k < loop.size(); k++) {
        Outline.Point a = loop.get(k);
        Outline.Point b = loop.get((k + 1) % loop.size());
        twice += a.xMm() * b.yMm() - b.xMm() * a.yMm();
      }
      area += (i == 0 ? 1 : -1) * Math.abs(twice) / 2;
    }
    return Math.max(0, area);
  }

  /// The sum as a worked sheet.
  public Worked sheet() {
    Worked.Builder s =
        Worked.of("kit.mass", "What a finished board weighs")
            .line("parts", "sum of the parts that are fitted", parts * 1000, "g")
            .line("board", "area · 1.6 mm · 1.85 g/cm³", board * 1000, "g")
            .line("total", "parts + board", total() * 1000, "g")
            .result("total", total());
    limit.ifPresent(l -> s.line("limit", "of the product", l * 1000, "g"));
    verdict.ifPresent(s::verdict);
    if (typical > 0) {
      s.assume(typical + " masses are typical ones of their package, ± 30 %");
    }
    if (!unknown.isEmpty()) {
      s.assume("not counted, for no mass is known: " + String.join(" ", unknown));
    }
    return s.source("masses from the bill, else from the package sheet; solder is not counted")
        .done();
  }
}
