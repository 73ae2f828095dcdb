package ell.core.print;

import ell.core.artwork.Artwork;
import ell.core.artwork.Island;
import ell.core.artwork.Islands;
import ell.core.artwork.Tag;
import ell.core.artwork.Template;
import ell.core.board.Joint;
import ell.core.board.Revision;
import ell.core.board.Side;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.util.AffineTransformation;
import org.locationtech.jts.index.strtree.STRtree;

/// The paste layer of one side: every opening and the joint that it pastes; joints that get none.
///
/// An opening belongs to the part and pin that the layer names; else to the joint whose pad it
/// covers most; else to the nearest joint within [#NEAR_MM].
///
/// @param openings in the order of the layer
/// @param without places of surface joints of fitted parts on this side that no opening pastes
public record PasteLayer(Side side, List<Opening> openings, List<String> without) {
  /// An opening whose middle is no further from a joint may belong to it, millimetre.
  public static final double NEAR_MM = 0.5;

  public PasteLayer {
    openings = List.copyOf(openings);
    without = List.copyOf(without);
  }

  /// Works out what belongs to what.
  public static PasteLayer of(Artwork art, Revision revision, Side side) {
    Finder finder = new Finder(revision, side);
    List<Opening> all = new ArrayList<>();
    Set<Joint> pasted = new HashSet<>();
    for (Island i : Islands.of(art)) {
      Opening o = finder.opening(i);
      o.joint().ifPresent(pasted::add);
      all.add(o);
    }
    Set<String> pins = new HashSet<>();
    all.forEach(o -> pins.add(o.part() + "." + o.pin()));
    List<String> without = new ArrayList<>();
    for (Joint j : finder.surface) {
      boolean wants =
          revision.part(j.part()).filter(p -> p.fitted() && !p.kind().bare()).isPresent();
      if (wants && !pasted.contains(j) && !pins.contains(j.place())) {
        without.add(j.place());
      }
    }
    return new PasteLayer(side, all, without);
  }

  /// How many openings belong to no joint of the netlist.
  public long strangers() {
    return openings.stream().filter(o -> o.joint().isEmpty()).count();
  }

  private static final class Finder {
    private final Revision revision;
    private final List<Joint> surface = new ArrayList<>();
    private final STRtree pads = new STRtree();
    private final Map<String, String> references = new HashMap<>();
    private final boolean any;

    Finder(Revision revision, Side side) {
      this.revision = revision;
      Joint.Reach own = side == Side.FIRST ? Joint.Reach.FIRST : Joint.Reach.SECOND;
      boolean found = false;
      for (Joint j : revision.joints()) {
        boolean here = j.hole() || j.reach() == own || j.reach() == Joint.Reach.BOTH;
        if (!here) {
          continue;
        }
        Envelope e = pad(j).getEnvelopeInternal();
        e.expandBy(NEAR_MM);
        pads.insert(e, j);
        found = true;
        if (!j.hole()) {
          surface.add(j);
        }
      }
      any = found;
      revision.withJoints().forEach(r -> references.put(r.toUpperCase(Locale.ROOT), r));
      revision
          .parts()
          .forEach(p -> references.put(p.reference().toUpperCase(Locale.ROOT), p.reference()));
    }

    Opening opening(Island i) {
      Tag t = i.tag();
      if (!t.part().isEmpty()) {
        String part = references.getOrDefault(t.part().toUpperCase(Locale.ROOT), t.part());
        if (!t.pin().isEmpty()) {
          return new Opening(i, part, t.pin(), at(i, part, t.pin()), true);
        }
        Optional<Joint> j = nearest(i, part);
        return new Opening(i, part, j.map(Joint::pin).orElse(""), j, true);
      }
      Optional<Joint> j = nearest(i, "");
      return new Opening(i, j.map(Joint::part).orElse(""), j.map(Joint::pin).orElse(""), j, false);
    }

    /// A pin may have several pads: the nearest is meant.
    private Optional<Joint> at(Island i, String part, String pin) {
      double[] m = i.middle();
      return revision.jointsOf(part).stream()
          .filter(j -> j.pin().equalsIgnoreCase(pin))
          .min(
              java.util.Comparator.comparingDouble(
                  j -> Math.hypot(j.xMm() - m[0], j.yMm() - m[1])));
    }

    private Optional<Joint> nearest(Island i, String part) {
      if (!any) {
        return Optional.empty();
      }
      Envelope box = new Envelope(i.template().shape().getEnvelopeInternal());
      box.translate(i.x(), i.y());
      List<Joint> near = new ArrayList<>();
      for (Object o : pads.query(box)) {
        Joint j = (Joint) o;
        if (part.isEmpty() || j.part().equals(part)) {
          near.add(j);
        }
      }
      if (near.isEmpty()) {
        return Optional.empty();
      }
      Geometry shape =
          AffineTransformation.translationInstance(i.x(), i.y()).transform(i.template().shape());
      Joint best = null;
      double most = 0;
      Joint close = null;
      double least = Double.POSITIVE_INFINITY;
      double[] m = i.middle();
      for (Joint j : near) {
        double over = sized(j) ? pad(j).intersection(shape).getArea() : 0;
        if (over > most) {
          most = over;
          best = j;
        }
        double d = Math.hypot(j.xMm() - m[0], j.yMm() - m[1]);
        if (d < least) {
          least = d;
          close = j;
        }
      }
      if (best != null) {
        return Optional.of(best);
      }
      boolean holds =
          close != null
              && shape.covers(
                  Template.MAKE.createPoint(
                      new org.locationtech.jts.geom.Coordinate(close.xMm(), close.yMm())));
      return least <= NEAR_MM || holds ? Optional.ofNullable(close) : Optional.empty();
    }

    private static boolean sized(Joint j) {
      return j.widthMm() > 0 || j.drillMm() > 0;
    }

    /// The pad as a rectangle, turned as the netlist says; a point-like one when its size is not
    /// known.
    private static Geometry pad(Joint j) {
      double w = Math.max(Math.max(j.widthMm(), j.drillMm()), 0.01);
      double h = j.heightMm() > 0 ? j.heightMm() : w;
      AffineTransformation m =
          AffineTransformation.rotationInstance(Math.toRadians(j.rotationDeg()));
      m.translate(j.xMm(), j.yMm());
      return m.transform(Template.rectangle(w, h).shape());
    }
  }
}
