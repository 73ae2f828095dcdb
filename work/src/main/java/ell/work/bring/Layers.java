package ell.work.bring;

import ell.core.artwork.Artwork;
import ell.core.artwork.Drilling;
import ell.core.artwork.EdgeLoops;
import ell.core.board.Joint;
import ell.core.board.Outline;
import ell.core.board.Revision;
import ell.core.board.Side;
import ell.core.print.PasteLayer;
import ell.files.Account;
import ell.files.Problem;
import ell.files.Read;
import ell.files.Source;
import ell.files.TextFile;
import ell.files.csv.OutlineReader;
import ell.files.drill.DrillReader;
import ell.files.gerber.GerberReader;
import ell.work.space.ActException;
import java.io.IOException;
import java.io.InputStream;
import java.io.Reader;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.NoSuchFileException;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// Layers of a revision: read, held against what is there, and kept as they were sent.
public final class Layers {
  private static final double CELL_MM = 0.25;
  private static final double OTHER_MM = 0.11;

  private final List<Problem> errors = new ArrayList<>();
  private final Accounts accounts = new Accounts();

  private Layers() {}

  /// What came of reading layers.
  ///
  /// @param texts to be kept, by [LayerKind#key()]; empty when there are errors
  /// @param outline when one was read
  public record Outcome(
      Map<String, String> texts,
      Optional<Outline> outline,
      List<Problem> errors,
      List<FileAccount> files) {
    /// Things to mind.
    public List<Problem> warnings() {
      return files.stream().flatMap(f -> f.account().warnings().stream()).toList();
    }
  }

  /// Reads layers and holds them against a revision.
  public static Outcome read(Map<LayerKind, Source> files, Revision revision) {
    Layers l = new Layers();
    Map<String, String> texts = new java.util.LinkedHashMap<>();
    Optional<Outline> outline = Optional.empty();
    Map<LayerKind, Source> inOrder = new EnumMap<>(LayerKind.class);
    inOrder.putAll(files);
    for (Map.Entry<LayerKind, Source> e : inOrder.entrySet()) {
      Source s = e.getValue();
      try {
        switch (e.getKey()) {
          case PASTE_FIRST -> l.paste(s, e.getKey(), revision, Side.FIRST);
          case PASTE_SECOND -> l.paste(s, e.getKey(), revision, Side.SECOND);
          case LEGEND -> l.value(s, e.getKey(), GerberReader.read(s));
          case DRILL ->
              l.value(s, e.getKey(), DrillReader.read(s)).ifPresent(d -> l.drilled(d, revision, s));
          case OUTLINE -> outline = l.value(s, e.getKey(), outline(s));
        }
        texts.put(e.getKey().key(), text(s));
      } catch (IllegalArgumentException x) {
        l.errors.add(new Problem(s.name(), 0, 0, x.getMessage()));
      } catch (RuntimeException x) {
        // geometry that cannot be worked out: what could not be judged never replaces what was
        l.errors.add(
            new Problem(s.name(), 0, 0, "its shapes cannot be worked out: " + x.getMessage()));
      } catch (NoSuchFileException x) {
        l.errors.add(new Problem(s.name(), 0, 0, "there is no such file: " + x.getMessage()));
      } catch (IOException x) {
        l.errors.add(new Problem(s.name(), 0, 0, "cannot be read: " + x.getMessage()));
      }
    }
    return new Outcome(
        l.errors.isEmpty() ? texts : Map.of(), outline, List.copyOf(l.errors), l.accounts.list());
  }

  private <T> Optional<T> value(Source s, LayerKind kind, Read<T> read) {
    return switch (read) {
      case Read.Whole<T>(T value, Account account) -> {
        accounts.take(s.name(), kind.words(), account);
        yield Optional.of(value);
      }
      case Read.Flawed<T>(List<Problem> problems) -> {
        errors.addAll(problems);
        yield Optional.empty();
      }
    };
  }

  private void paste(Source s, LayerKind kind, Revision revision, Side side) throws IOException {
    Optional<Artwork> art = value(s, kind, GerberReader.read(s));
    if (art.isEmpty()) {
      return;
    }
    PasteLayer layer = PasteLayer.of(art.get(), revision, side);
    if (layer.openings().isEmpty()) {
      accounts.mind(s.name(), 0, 0, "no openings in it");
      return;
    }
    accounts.found(s.name(), layer.openings().size() + " openings");
    long strangers = layer.strangers();
    if (strangers > 0) {
      accounts.mind(
          s.name(),
          0,
          0,
          strangers
              + " of "
              + layer.openings().size()
              + " openings lie on no joint of the netlist"
              + (2 * strangers > layer.openings().size()
                  ? ": another side, unit or origin than the netlist's?"
                  : ""));
    }
    if (!layer.without().isEmpty()) {
      accounts.mind(
          s.name(),
          0,
          0,
          layer.without().size()
              + " surface joints of fitted parts on the "
              + side.key()
              + " side get no paste: "
              + String.join(" ", layer.without().stream().limit(12).toList())
              + (layer.without().size() > 12 ? " ..." : ""));
    }
  }

  /// Holes held against those of the netlist: another scale altogether, else leads without a hole
  /// and holes of another size.
  private void drilled(Drilling d, Revision revision, Source s) {
    accounts.found(s.name(), d.holes().size() + " holes");
    if (scale(d, revision, s)) {
      return;
    }
    Map<Long, List<Drilling.Hole>> near = new HashMap<>();
    for (Drilling.Hole h : d.holes()) {
      near.computeIfAbsent(cell(h.x(), h.y(), 0, 0), _ -> new ArrayList<>()).add(h);
    }
    List<String> without = new ArrayList<>();
    List<String> other = new ArrayList<>();
    for (Joint j : revision.joints()) {
      if (!j.hole() || j.drillMm() <= 0) {
        continue;
      }
      Optional<Drilling.Hole> hole = at(near, j);
      if (hole.isEmpty()) {
        without.add(j.place());
      } else if (!hole.get().slot() && Math.abs(hole.get().diameter() - j.drillMm()) > OTHER_MM) {
        other.add(
            j.place()
                + String.format(
                    java.util.Locale.ROOT,
                    " (%.2f mm, netlist %.2f mm)",
                    hole.get().diameter(),
                    j.drillMm()));
      }
    }
    mind(s, without, "leads of the netlist find no hole");
    mind(s, other, "holes are of another size than in the netlist");
  }

  private static Optional<Drilling.Hole> at(Map<Long, List<Drilling.Hole>> near, Joint j) {
    for (int dx = -1; dx <= 1; dx++) {
      for (int dy = -1; dy <= 1; dy++) {
        for (Drilling.Hole h : near.getOrDefault(cell(j.xMm(), j.yMm(), dx, dy), List.of())) {
          if (Math.hypot(h.x() - j.xMm(), h.y() - j.yMm()) < CELL_MM
              || h.slot() && Math.hypot(h.toX() - j.xMm(), h.toY() - j.yMm()) < CELL_MM) {
            return Optional.of(h);
          }
        }
      }
    }
    return Optional.empty();
  }

  private static long cell(double x, double y, int dx, int dy) {
    return ((long) Math.floor(x / CELL_MM) + dx) * 1_000_003L + (long) Math.floor(y / CELL_MM) + dy;
  }

  private void mind(Source s, List<String> places, String what) {
    if (!places.isEmpty()) {
      accounts.mind(
          s.name(),
          0,
          0,
          places.size()
              + " "
              + what
              + ": "
              + String.join(" ", places.stream().limit(8).toList())
              + (places.size() > 8 ? " ..." : ""));
    }
  }

  /// Holes that take ten times the room of the joints were written in another unit or format.
  private boolean scale(Drilling d, Revision revision, Source s) {
    double[] joints = span(revision.joints().stream().mapToDouble(Joint::xMm).toArray());
    double[] holes = span(d.holes().stream().mapToDouble(Drilling.Hole::x).toArray());
    double jy = span(revision.joints().stream().mapToDouble(Joint::yMm).toArray())[0];
    double hy = span(d.holes().stream().mapToDouble(Drilling.Hole::y).toArray())[0];
    double board = Math.max(joints[0], jy);
    double drilled = Math.max(holes[0], hy);
    if (d.holes().size() > 1 && board > 0 && drilled > 0) {
      double ratio = drilled / board;
      if (ratio > 4 || ratio < 0.1) {
        accounts.mind(
            s.name(),
            0,
            0,
            String.format(
                java.util.Locale.ROOT,
                "the holes span %.4g mm, the joints %.4g mm: another unit or number format?",
                drilled,
                board));
        return true;
      }
    }
    return false;
  }

  private static double[] span(double[] v) {
    double lo = Double.POSITIVE_INFINITY;
    double hi = Double.NEGATIVE_INFINITY;
    for (double x : v) {
      lo = Math.min(lo, x);
      hi = Math.max(hi, x);
    }
    return new double[] {v.length == 0 ? 0 : hi - lo};
  }

  /// An edge from a layer or from a table of corners.
  public static Read<Outline> outline(Source s) throws IOException {
    if (!isGerber(s)) {
      return OutlineReader.read(s);
    }
    return switch (GerberReader.read(s)) {
      case Read.Flawed<Artwork>(var problems) -> new Read.Flawed<>(problems);
      case Read.Whole<Artwork>(Artwork art, var account) ->
          EdgeLoops.of(art)
              .<Read<Outline>>map(o -> new Read.Whole<>(o, account))
              .orElseGet(() ->
                  new Read.Flawed<>(
                      List.of(
                          new Problem(
                              s.name(),
                              0,
                              0,
                              "no closed edge in it; expected lines whose ends meet within 0.02 mm"))));
    };
  }

  /// Whether a file is a layer.
  static boolean isGerber(Source s) throws IOException {
    try (InputStream in = s.open()) {
      return GerberReader.looksRight(new String(in.readNBytes(8000), StandardCharsets.ISO_8859_1));
    }
  }

  private static String text(Source s) throws IOException {
    try (Reader in = TextFile.open(s, TextFile.encoding(s))) {
      StringWriter w = new StringWriter();
      in.transferTo(w);
      return w.toString();
    }
  }

  /// A layer that is kept with a revision.
  public static Optional<Artwork> kept(Optional<String> text, String name)
      throws IOException, ActException {
    if (text.isEmpty()) {
      return Optional.empty();
    }
    return switch (GerberReader.read(Source.of(name, text.get()))) {
      case Read.Whole<Artwork>(Artwork a, var _) -> Optional.of(a);
      case Read.Flawed<Artwork>(var p) ->
          throw new ActException("the kept layer cannot be read: " + p.getFirst());
    };
  }
}
