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
import ell.files.Looks;
import ell.files.Problem;
import ell.files.Read;
import ell.files.Source;
import ell.files.TextFile;
import ell.files.csv.OutlineReader;
import ell.files.drill.DrillReader;
import ell.files.gerber.GerberReader;
import ell.work.space.ActException;
import java.io.IOException;
import java.io.Reader;
import java.io.StringWriter;
import java.nio.file.NoSuchFileException;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/// Layers of a revision: read, held against what is there, and kept as they were sent.
public final class Layers {
  private static final double CELL_MM = 0.25;
  private static final double OTHER_MM = 0.11;

  private final List<Problem> errors = new ArrayList<>();
  private final Accounts accounts = new Accounts();
  private final Map<String, String> texts = new LinkedHashMap<>();
  private final Map<Source, Drilling> drills = new LinkedHashMap<>();
  private Optional<Outline> outline = Optional.empty();

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
  ///
  /// @param files one of a kind; holes may come in several files
  public static Outcome read(Map<LayerKind, List<Source>> files, Revision revision) {
    Layers l = new Layers();
    Map<LayerKind, List<Source>> inOrder = new EnumMap<>(LayerKind.class);
    inOrder.putAll(files);
    inOrder.forEach((kind, sources) -> {
      if (kind != LayerKind.DRILL && sources.size() > 1) {
        l.errors.add(
            new Problem(
                sources.get(1).name(),
                0,
                0,
                "a second file of the "
                    + kind.words()
                    + " beside "
                    + sources.getFirst().name()
                    + "; expected one"));
        return;
      }
      for (int i = 0; i < sources.size(); i++) {
        l.one(kind, sources.get(i), i, revision);
      }
    });
    if (!l.drills.isEmpty() && l.errors.isEmpty()) {
      l.drilled(l.drills, revision);
    }
    return new Outcome(
        l.errors.isEmpty() ? l.texts : Map.of(),
        l.outline,
        List.copyOf(l.errors),
        l.accounts.list());
  }

  private void one(LayerKind kind, Source s, int index, Revision revision) {
    try {
      switch (kind) {
        case PASTE_FIRST -> paste(s, kind, revision, Side.FIRST);
        case PASTE_SECOND -> paste(s, kind, revision, Side.SECOND);
        case LEGEND -> value(s, kind, GerberReader.read(s)).ifPresent(a -> used(a, kind, s));
        case COPPER_FIRST, COPPER_SECOND ->
            value(s, kind, GerberReader.read(s))
                .ifPresent(a -> {
                  used(a, kind, s);
                  accounts.found(s.name(), a.figures().size() + " figures of copper");
                });
        case DRILL -> value(s, kind, DrillReader.read(s)).ifPresent(d -> drills.put(s, d));
        case OUTLINE -> outline = value(s, kind, outline(s));
      }
      texts.put(kind.key() + (index == 0 ? "" : "-" + (index + 1)), text(s));
    } catch (IllegalArgumentException x) {
      errors.add(new Problem(s.name(), 0, 0, x.getMessage()));
    } catch (RuntimeException x) {
      // geometry that cannot be worked out: what could not be judged never replaces what was
      errors.add(new Problem(s.name(), 0, 0, "its shapes cannot be worked out: " + x.getMessage()));
    } catch (NoSuchFileException x) {
      errors.add(new Problem(s.name(), 0, 0, "there is no such file: " + x.getMessage()));
    } catch (IOException x) {
      errors.add(new Problem(s.name(), 0, 0, "cannot be read: " + x.getMessage()));
    }
  }

  /// What a layer says that it is, held against what it is used as.
  private void used(Artwork art, LayerKind kind, Source s) {
    String says = art.function().toLowerCase(Locale.ROOT);
    if (says.isEmpty()) {
      return;
    }
    String wanted =
        switch (kind) {
          case LEGEND -> "legend";
          case COPPER_FIRST, COPPER_SECOND -> "copper";
          default -> "paste";
        };
    boolean second = kind == LayerKind.PASTE_SECOND || kind == LayerKind.COPPER_SECOND;
    if (!says.startsWith(wanted)) {
      throw new IllegalArgumentException(
          "it says of itself that it is " + art.function() + "; expected the " + kind.words());
    }
    if (says.matches(".*\\b(?:top|bot)\\b.*") && says.contains("bot") != second) {
      accounts.mind(
          s.name(),
          0,
          0,
          "it says of itself that it belongs to the "
              + (second ? "first" : "second")
              + " side ("
              + art.function()
              + "), and is used as the "
              + kind.words());
    }
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
    used(art.get(), kind, s);
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

  /// The holes of all files held against those of the netlist: another scale altogether, else leads
  /// without a hole and holes of another size.
  private void drilled(Map<Source, Drilling> files, Revision revision) {
    List<Drilling.Hole> all = new ArrayList<>();
    boolean strange = false;
    for (Map.Entry<Source, Drilling> e : files.entrySet()) {
      List<Drilling.Hole> own = e.getValue().holes();
      if (own.isEmpty()) {
        continue; // the reader has said so
      }
      long slots = own.stream().filter(Drilling.Hole::slot).count();
      long plated = own.stream().filter(h -> h.plated().orElse(false)).count();
      long not = own.stream().filter(h -> !h.plated().orElse(true)).count();
      accounts.found(
          e.getKey().name(),
          own.size()
              + " holes"
              + (slots > 0 ? ", " + slots + " of them slots or cuts" : "")
              + (plated > 0 ? ", " + plated + " plated" : "")
              + (not > 0 ? ", " + not + " not plated" : ""));
      strange |= scale(e.getValue(), revision, e.getKey());
      all.addAll(own);
    }
    if (strange || all.isEmpty()) {
      return;
    }
    Source s = files.keySet().iterator().next();
    Map<Long, List<Drilling.Hole>> near = new HashMap<>();
    for (Drilling.Hole h : all) {
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
                    Locale.ROOT,
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
    double board =
        Math.max(
            span(revision.joints().stream().mapToDouble(Joint::xMm).toArray()),
            span(revision.joints().stream().mapToDouble(Joint::yMm).toArray()));
    double drilled =
        Math.max(
            span(d.holes().stream().mapToDouble(Drilling.Hole::x).toArray()),
            span(d.holes().stream().mapToDouble(Drilling.Hole::y).toArray()));
    if (d.holes().size() > 1 && board > 0 && drilled > 0) {
      double ratio = drilled / board;
      if (ratio > 4 || d.holes().size() > 3 && ratio < 0.12) {
        accounts.mind(
            s.name(),
            0,
            0,
            String.format(
                Locale.ROOT,
                "the holes span %.4g mm, the joints %.4g mm (%.3g times): another unit or number"
                    + " format?",
                drilled,
                board,
                ratio));
        return true;
      }
    }
    return false;
  }

  private static double span(double[] v) {
    double lo = Double.POSITIVE_INFINITY;
    double hi = Double.NEGATIVE_INFINITY;
    for (double x : v) {
      lo = Math.min(lo, x);
      hi = Math.max(hi, x);
    }
    return v.length == 0 ? 0 : hi - lo;
  }

  /// An edge from a layer or from a table of corners.
  public static Read<Outline> outline(Source s) throws IOException {
    if (!isGerber(s)) {
      return OutlineReader.read(s);
    }
    return switch (GerberReader.read(s)) {
      case Read.Flawed<Artwork>(var problems) -> new Read.Flawed<>(problems);
      case Read.Whole<Artwork>(Artwork art, Account account) -> edge(s, art, account);
    };
  }

  private static Read<Outline> edge(Source s, Artwork art, Account account) {
    EdgeLoops.Edge edge = EdgeLoops.of(art);
    if (edge.outline().isEmpty()) {
      String why =
          edge.openMm().isEmpty()
              ? "; expected lines whose ends meet"
              : String.format(
                  Locale.ROOT,
                  ": the longest run of lines begins at %.3f, %.3f mm and ends at %.3f, %.3f mm, %.3g mm"
                      + " apart; expected ends that meet within %.2g mm",
                  edge.openMm().get(0),
                  edge.openMm().get(1),
                  edge.openMm().get(2),
                  edge.openMm().get(3),
                  edge.apartMm(),
                  EdgeLoops.CLOSED_MM);
      return new Read.Flawed<>(List.of(new Problem(s.name(), 0, 0, "no closed edge in it" + why)));
    }
    List<String> found = new ArrayList<>();
    int inside = edge.outline().get().loops().size() - 1;
    if (inside > 0) {
      found.add(inside + (inside == 1 ? " loop" : " loops") + " within or beside the edge");
    }
    List<Problem> mind = new ArrayList<>();
    if (edge.gaps() > 0) {
      mind.add(
          new Problem(
              s.name(),
              0,
              0,
              String.format(
                  Locale.ROOT,
                  "%d gaps between lines of the edge were closed, the widest of %.3g mm",
                  edge.gaps(),
                  edge.widestMm())));
    }
    if (edge.twice() > 0) {
      mind.add(new Problem(s.name(), 0, 0, edge.twice() + " loops are drawn twice: taken once"));
    }
    if (edge.open() > 0) {
      mind.add(
          new Problem(
              s.name(),
              0,
              0,
              edge.open() + " runs of lines do not close, and are no part of the edge"));
    }
    return new Read.Whole<>(
        edge.outline().get(), account.and(new Account(found, List.of(), mind, List.of())));
  }

  /// Whether a file is a layer.
  static boolean isGerber(Source s) throws IOException {
    return Looks.of(s) == Looks.GERBER;
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
