package ell.core.order;

import ell.core.board.Part;
import ell.core.board.Revision;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.function.ToDoubleFunction;

/// A step of many equal parts in rows, as the hand walks them: to and fro, each short enough to
/// keep in mind and to count.
public final class Rows {
  /// A step of so many places is walked as one.
  public static final int AT_ONCE = 20;

  /// No row is longer.
  private static final int LONGEST = 24;

  /// Parts without any rows are walked by so many.
  private static final int HANDFUL = 12;

  private Rows() {}

  /// The rows of a step in the order of the work; one row when there are few parts.
  public static List<List<String>> of(Step step, Revision revision) {
    if (step.parts().size() <= AT_ONCE) {
      return List.of(step.parts());
    }
    List<Part> parts =
        step.parts().stream()
            .map(r -> revision.part(r).orElseThrow())
            .filter(p -> p.place().isPresent())
            .toList();
    if (parts.size() < step.parts().size()) {
      return chunks(step.parts(), HANDFUL);
    }
    boolean mirrored = step.side() == ell.core.board.Side.SECOND;
    ToDoubleFunction<Part> x = p -> (mirrored ? -1 : 1) * p.place().get().xMm();
    ToDoubleFunction<Part> y = p -> -p.place().get().yMm();
    double tolerance = revision.shape(parts.getFirst()).widthMm();
    List<List<Part>> across = bands(parts, y, x, tolerance);
    List<List<Part>> down = bands(parts, x, y, tolerance);
    List<List<Part>> best = down.size() < across.size() ? down : across;
    if (parts.size() < 3 * best.size()) {
      return chunks(step.parts(), HANDFUL);
    }
    List<List<String>> rows = new ArrayList<>();
    for (List<Part> band : best) {
      rows.addAll(chunks(band.stream().map(Part::reference).toList(), LONGEST));
    }
    return List.copyOf(rows);
  }

  /// Parts that lie on one line, each line walked against the one before it.
  private static List<List<Part>> bands(
      List<Part> parts, ToDoubleFunction<Part> of, ToDoubleFunction<Part> along, double tolerance) {
    List<Part> sorted = parts.stream().sorted(Comparator.comparingDouble(of)).toList();
    List<List<Part>> bands = new ArrayList<>();
    double start = Double.NaN;
    for (Part p : sorted) {
      if (!(of.applyAsDouble(p) - start <= tolerance)) {
        start = of.applyAsDouble(p);
        bands.add(new ArrayList<>());
      }
      bands.getLast().add(p);
    }
    for (int i = 0; i < bands.size(); i++) {
      Comparator<Part> way = Comparator.comparingDouble(along);
      bands.get(i).sort(i % 2 == 0 ? way : way.reversed());
    }
    return bands;
  }

  /// Pieces of about the same length, none longer than `most`.
  private static List<List<String>> chunks(List<String> all, int most) {
    int pieces = Math.ceilDiv(all.size(), most);
    List<List<String>> found = new ArrayList<>();
    for (int i = 0; i < pieces; i++) {
      found.add(List.copyOf(all.subList(all.size() * i / pieces, all.size() * (i + 1) / pieces)));
    }
    return List.copyOf(found);
  }
}
