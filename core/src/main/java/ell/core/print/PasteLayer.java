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
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.util.AffineTransformation;
import org.locationtech.jts.index.hprtree.HPRtree;

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
    List<Island> islands = Islands.of(art);
    Set<Joint> pasted = Collections.newSetFromMap(new IdentityHashMap<>(islands.size()));
    for (Island i : islands) {
      Opening o = finder.opening(i);
      o.joint().ifPresent(pasted::add);
      all.add(o);
    }
    return new PasteLayer(side, all, without(finder.surface, pasted, revision));
  }

  /// Joints of fitted parts that get no paste, by none of their pin's pads.
  private static List<String> without(List<Joint> surface, Set<Joint> pasted, Revision revision) {
    List<String> without = new ArrayList<>();
    String part = null;
    boolean wanted = false;
    for (Joint j : surface) {
      if (pasted.contains(j)) {
        continue;
      }
      if (!j.part().equals(part)) { // joints of one part stand together
        part = j.part();
        wanted = revision.part(part).filter(p -> p.fitted() && !p.kind().bare()).isPresent();
      }
      if (wanted
          && revision.jointsOf(part).stream()
              .noneMatch(o -> o.pin().equals(j.pin()) && pasted.contains(o))) {
        without.add(j.place());
      }
    }
    return without;
  }

  /// How many openings belong to no joint of the netlist.
  public long strangers() {
    return openings.stream().filter(o -> o.joint().isEmpty()).count();
  }

  private static final class Finder {
    private final Revision revision;
    private final List<Joint> surface = new ArrayList<>();
    private final HPRtree pads = new HPRtree();
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
        Pad p = new Pad(j, pads.size());
        pads.insert(p.box, p);
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
      Joint best = null;
      double least = Double.POSITIVE_INFINITY;
      for (Joint j : revision.jointsOf(part)) {
        if (j.pin().equals(pin) || j.pin().equalsIgnoreCase(pin)) {
          double far = Math.hypot(j.xMm() - m[0], j.yMm() - m[1]);
          if (best == null || far < least) {
            best = j;
            least = far;
          }
        }
      }
      return Optional.ofNullable(best);
    }

    private Optional<Joint> nearest(Island i, String part) {
      if (!any) {
        return Optional.empty();
      }
      Envelope box = i.template().shape().getEnvelopeInternal(); // a copy
      box.translate(i.x(), i.y());
      Envelope wide = new Envelope(box);
      wide.expandBy(NEAR_MM);
      List<Pad> near = new ArrayList<>();
      pads.query(
          wide,
          o -> {
            Pad p = (Pad) o;
            if (part.isEmpty() || p.joint.part().equals(part)) {
              near.add(p);
            }
          });
      if (near.isEmpty()) {
        return Optional.empty();
      }
      near.sort(Comparator.comparingInt(p -> p.order)); // of what is equally near, the first
      double[] m = i.middle();
      Joint close = null;
      double least = Double.POSITIVE_INFINITY;
      for (Pad p : near) {
        double d = Math.hypot(p.joint.xMm() - m[0], p.joint.yMm() - m[1]);
        if (d < least) {
          least = d;
          close = p.joint;
        }
      }
      if (near.size() == 1 && least <= NEAR_MM) {
        return Optional.of(close);
      }
      // upright rectangles overlap as their boxes do; anything else is worked out
      boolean upright = box.getArea() - i.template().area() < 1e-9;
      Geometry shape = null;
      Joint best = null;
      double most = 0;
      for (Pad p : near) {
        if (!sized(p.joint) || !p.box.intersects(box)) {
          continue;
        }
        double over;
        if (upright && p.upright) {
          over = p.box.intersection(box).getArea();
        } else {
          shape = shape == null ? placed(i) : shape;
          over = pad(p.joint).intersection(shape).getArea();
        }
        if (over > most) {
          most = over;
          best = p.joint;
        }
      }
      if (best != null) {
        return Optional.of(best);
      }
      if (least <= NEAR_MM) {
        return Optional.of(close);
      }
      boolean holds =
          placed(i)
              .covers(
                  Template.MAKE.createPoint(
                      new org.locationtech.jts.geom.Coordinate(close.xMm(), close.yMm())));
      return holds ? Optional.of(close) : Optional.empty();
    }

    private static Geometry placed(Island i) {
      return AffineTransformation.translationInstance(i.x(), i.y()).transform(i.template().shape());
    }

    /// A pad with the room that it takes.
    private static final class Pad {
      private final Joint joint;
      private final int order;
      private final Envelope box;
      private final boolean upright;

      Pad(Joint j, int order) {
        joint = j;
        this.order = order;
        double w = Math.max(Math.max(j.widthMm(), j.drillMm()), 0.01);
        double h = j.heightMm() > 0 ? j.heightMm() : w;
        double turn = Math.abs(j.rotationDeg() % 180);
        upright = turn < 1e-9 || Math.abs(turn - 90) < 1e-9;
        boolean turned = turn > 45 && turn < 135;
        double hx = (turned ? h : w) / 2;
        double hy = (turned ? w : h) / 2;
        box =
            upright
                ? new Envelope(j.xMm() - hx, j.xMm() + hx, j.yMm() - hy, j.yMm() + hy)
                : pad(j).getEnvelopeInternal();
      }
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
