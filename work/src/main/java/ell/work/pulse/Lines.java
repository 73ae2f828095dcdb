package ell.work.pulse;

import ell.core.artwork.Artwork;
import ell.core.artwork.Drilling;
import ell.core.board.Revision;
import ell.core.board.Side;
import ell.core.pulse.NetLine;
import ell.core.pulse.PulsePlan;
import ell.core.pulse.Wanted;
import ell.work.bring.KeptHoles;
import ell.work.bring.LayerKind;
import ell.work.bring.Layers;
import ell.work.space.ActException;
import ell.work.space.Workspace;
import ell.work.space.Workspace.Change;
import java.io.IOException;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;

/// Nets as lines: their copper followed where the layers of a revision are kept.
public final class Lines implements Workspace.Listener {
  private final Workspace w;
  private final Map<String, Copper> known = new ConcurrentHashMap<>();

  private record Copper(Map<Side, Artwork> layers, Optional<Drilling> holes) {}

  /// The lines of a workspace.
  public Lines(Workspace w) {
    this.w = w;
    w.listen(this);
  }

  @Override
  public void changed(Change change) {
    if (change instanceof Change.Revision || change instanceof Change.Everything) {
      known.clear();
    }
  }

  /// A net, or the net of a joint, as a line.
  ///
  /// @throws ActException when the revision has no such net, or it is no line
  public NetLine of(PulsePlan plan, String place) throws IOException, ActException {
    Copper c = copper(plan.revision());
    try {
      return NetLine.of(plan, place, c.layers(), c.holes());
    } catch (IllegalArgumentException e) {
      throw new ActException(e.getMessage(), e);
    }
  }

  /// A plan in which every clock that somebody spoke of runs over the line that its net is.
  public PulsePlan over(PulsePlan plan) throws IOException, ActException {
    Map<String, Wanted.Driven> all = new LinkedHashMap<>();
    for (Wanted x : plan.places()) {
      if (x.clock() > 0 && x.line().isPresent()) {
        all.put(x.place(), of(plan, x.place()).driven());
      }
    }
    return all.isEmpty() ? plan : plan.driven(all);
  }

  private Copper copper(Revision r) throws IOException, ActException {
    String key = r.design() + "\n" + r.name();
    Copper c = known.get(key);
    if (c == null) {
      Map<Side, Artwork> layers = new EnumMap<>(Side.class);
      layer(r, LayerKind.COPPER_FIRST).ifPresent(a -> layers.put(Side.FIRST, a));
      layer(r, LayerKind.COPPER_SECOND).ifPresent(a -> layers.put(Side.SECOND, a));
      c = new Copper(layers, layers.size() > 1 ? KeptHoles.of(w.book(), r) : Optional.empty());
      known.put(key, c);
    }
    return c;
  }

  private Optional<Artwork> layer(Revision r, LayerKind kind) throws IOException, ActException {
    return Layers.kept(w.book().document(r.design(), r.name(), kind.key()), kind.words());
  }
}
