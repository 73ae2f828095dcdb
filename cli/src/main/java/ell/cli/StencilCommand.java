package ell.cli;

import ell.book.Build;
import ell.core.board.Revision;
import ell.core.board.Side;
import ell.core.heat.Alloy;
import ell.core.print.Paste;
import ell.core.print.PasteLayer;
import ell.core.print.StencilCheck;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.work.ActException;
import ell.work.Workspace;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// Will the paste release, and how much of it.
@Command(
    name = "stencil",
    description = "will the paste release from each opening, how much, and which foil suits all")
final class StencilCommand extends Act {
  @Mixin Which which;

  @Option(names = "--foil", description = "thickness such as 0.12mm, which is taken when not said")
  String foil = "0.12mm";

  @Option(names = "--side", description = "first, second or both; both when not said")
  String side = "both";

  @Option(names = "--alloy", description = "of the paste; the build's when not said")
  Optional<String> alloy = Optional.empty();

  @Option(names = "--metal", description = "mass fraction of metal, 0.885 when not said")
  double metal = Paste.METAL;

  @Override
  public Integer call() throws Exception {
    double thick;
    Paste paste;
    List<Side> sides =
        switch (side) {
          case "first" -> List.of(Side.FIRST);
          case "second" -> List.of(Side.SECOND);
          case "both" -> List.of(Side.FIRST, Side.SECOND);
          default ->
              throw new ActException("--side is first, second or both, found '" + side + "'");
        };
    try (Workspace w = Workspace.look(file)) {
      Revision r = which.plan(w).revision();
      Optional<Build> build = which.build(w);
      try {
        thick = EngineeringNumber.parse(foil, Unit.METRE);
        paste =
            new Paste(
                Alloy.of(alloy.or(() -> build.map(Build::alloy)).orElse("sac305")),
                metal,
                Paste.FLUX);
      } catch (IllegalArgumentException e) {
        throw new ActException(e.getMessage(), e);
      }
      List<StencilCheck> checks = new ArrayList<>();
      for (Side s : sides) {
        Optional<PasteLayer> layer = w.printing().layer(r, s);
        if (layer.isPresent()) {
          try {
            checks.add(StencilCheck.of(layer.get(), r, thick, paste));
          } catch (IllegalArgumentException e) {
            throw new ActException("--foil: " + e.getMessage(), e);
          }
        }
      }
      if (checks.isEmpty()) {
        throw new ActException(
            r.title()
                + " has no paste layer"
                + (sides.size() == 1 ? " of the " + side + " side" : "")
                + "; add one with: import WS --design D --revision R --paste F");
      }
      int boards = build.map(b -> b.boards().size()).orElse(1);
      if (json) {
        print(shape(checks, boards));
      } else {
        checks.forEach(c -> text(c, boards));
      }
      return checks.stream().allMatch(c -> c.bad() == 0) ? Main.DONE : Main.NOT_HELD;
    }
  }

  private static ObjectNode shape(List<StencilCheck> checks, int boards) {
    ObjectNode o = Shapes.object();
    ArrayNode openings = o.putArray("openings");
    double grams = 0;
    double thickest = Double.POSITIVE_INFINITY;
    for (StencilCheck c : checks) {
      for (StencilCheck.Line l : c.lines()) {
        one(openings.addObject(), c, l);
      }
      grams += c.grams(boards);
      thickest = Math.min(thickest, c.thickest().orElse(0));
    }
    if (thickest > 0 && Double.isFinite(thickest)) {
      o.put("thickest", thickest);
    } else {
      o.putNull("thickest");
    }
    o.put("foil", checks.getFirst().foil())
        .put("bad", checks.stream().mapToLong(StencilCheck::bad).sum())
        .put("boards", boards)
        .put("paste", grams)
        .put("verdict", checks.stream().allMatch(c -> c.bad() == 0) ? "within" : "out");
    Shapes.strings(
        o, "without", checks.stream().flatMap(c -> c.layer().without().stream()).toList());
    return o;
  }

  private static void one(ObjectNode o, StencilCheck c, StencilCheck.Line l) {
    if (!l.opening().part().isEmpty()) {
      o.put("part", l.opening().part());
    }
    if (!l.opening().pin().isEmpty()) {
      o.put("pin", l.opening().pin());
    }
    double[] at = l.opening().island().middle();
    o.put("side", c.layer().side().key())
        .put("x", at[0] * 1e-3)
        .put("y", at[1] * 1e-3)
        .put("area", l.opening().aperture().area())
        .put("perimeter", l.opening().aperture().perimeter())
        .put("areaRatio", l.areaRatio())
        .put("aspectRatio", l.aspectRatio())
        .put("transfer", l.transfer())
        .put("volume", l.volume())
        .put("solderVolume", l.solder());
    l.need()
        .ifPresent(n ->
            o.putObject("need")
                .put("least", n.least())
                .put("full", n.full())
                .put("joint", n.kind()));
    o.put("verdict", l.verdict().key());
    if (!l.advice().isEmpty()) {
      o.put("advice", l.advice());
    }
  }

  private void text(StencilCheck c, int boards) {
    out()
        .printf(
            "%s side, foil %s: %d openings, %d do not release; thickest foil that suits all: %s%n",
            c.layer().side().key(),
            EngineeringNumber.print(c.foil(), Unit.METRE),
            c.lines().size(),
            c.bad(),
            c.thickest().isPresent()
                ? EngineeringNumber.print(c.thickest().getAsDouble(), Unit.METRE)
                : "none of the usual ones");
    for (StencilCheck.Line l : c.worstByPart().stream().limit(12).toList()) {
      out()
          .printf(
              "  %-10s area ratio %s, aspect ratio %s, paste %s mm³  %s%n",
              l.opening().name(),
              EngineeringNumber.print(l.areaRatio(), Unit.ONE, 3),
              EngineeringNumber.print(l.aspectRatio(), Unit.ONE, 3),
              EngineeringNumber.print(l.volume() * 1e9, Unit.ONE, 3),
              l.verdict().words());
      if (!l.advice().isEmpty()) {
        out().println("             " + l.advice());
      }
    }
    if (!c.layer().without().isEmpty()) {
      out().println("  no paste at: " + String.join(" ", c.layer().without()));
    }
    out()
        .printf(
            "  paste for %d boards: %s g, of which %s mm³ stay on each%n",
            boards,
            EngineeringNumber.print(c.grams(boards) * 1000, Unit.ONE, 3),
            EngineeringNumber.print(c.volume() * 1e9, Unit.ONE, 3));
  }
}
