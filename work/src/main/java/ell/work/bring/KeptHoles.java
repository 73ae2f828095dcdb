package ell.work.bring;

import ell.book.Book;
import ell.core.artwork.Drilling;
import ell.core.board.Joint;
import ell.core.board.Revision;
import ell.files.Read;
import ell.files.Source;
import ell.files.drill.DrillReader;
import ell.work.space.ActException;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// Holes that are kept with a revision: those of its drill files, and those that only join layers.
public final class KeptHoles {
  /// The document that keeps holes which only join layers.
  static final String VIAS = "vias";

  private KeptHoles() {}

  /// The holes of all drill files, empty when there are none.
  public static Optional<Drilling> of(Book book, Revision r) throws IOException, ActException {
    List<Drilling.Hole> all = new ArrayList<>();
    String key = LayerKind.DRILL.key();
    for (int i = 1; ; i++) {
      Optional<String> text = book.document(r.design(), r.name(), i == 1 ? key : key + "-" + i);
      if (text.isEmpty()) {
        break;
      }
      if (text.get().isBlank()) {
        continue;
      }
      switch (DrillReader.read(Source.of("drill", text.get()))) {
        case Read.Whole<Drilling> d -> all.addAll(d.value().holes());
        case Read.Flawed<Drilling> f ->
            throw new ActException("the drill file cannot be read: " + f.problems().getFirst());
      }
    }
    return all.isEmpty() ? Optional.empty() : Optional.of(new Drilling(all));
  }

  /// Holes that only join layers, as joints without a part; empty when nothing is kept of them, as
  /// with revisions of before they were.
  public static Optional<List<Joint>> vias(Book book, Revision r) throws IOException, ActException {
    Optional<String> text = book.document(r.design(), r.name(), VIAS);
    if (text.isEmpty()) {
      return Optional.empty();
    }
    List<Joint> vias = new ArrayList<>();
    for (String line : text.get().lines().filter(l -> !l.isBlank()).toList()) {
      String[] c = line.split("\t", -1);
      try {
        vias.add(
            new Joint(
                "",
                "",
                c[0],
                Double.parseDouble(c[1]),
                Double.parseDouble(c[2]),
                Joint.Reach.valueOf(c[3]),
                true,
                Double.parseDouble(c[4]),
                true,
                Double.parseDouble(c[5]),
                Double.parseDouble(c[6]),
                Double.parseDouble(c[7]),
                false,
                Integer.parseInt(c[8])));
      } catch (IllegalArgumentException | ArrayIndexOutOfBoundsException e) {
        throw new ActException("a kept via cannot be read: " + line.strip(), e);
      }
    }
    return Optional.of(vias);
  }

  /// How vias are kept: a line each, cells apart by tabs.
  static String text(List<Joint> vias) {
    StringBuilder out = new StringBuilder();
    for (Joint v : vias) {
      out.append(v.net())
          .append('\t')
          .append(v.xMm())
          .append('\t')
          .append(v.yMm())
          .append('\t')
          .append(v.reach())
          .append('\t')
          .append(v.drillMm())
          .append('\t')
          .append(v.widthMm())
          .append('\t')
          .append(v.heightMm())
          .append('\t')
          .append(v.rotationDeg())
          .append('\t')
          .append(v.mask())
          .append('\n');
    }
    return out.toString();
  }
}
