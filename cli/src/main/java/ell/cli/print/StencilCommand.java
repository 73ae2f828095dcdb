package ell.cli.print;

import ell.book.Build;
import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.Replacing;
import ell.cli.shell.Which;
import ell.cli.shell.WorkspaceCommand;
import ell.core.board.Revision;
import ell.core.board.Side;
import ell.core.heat.Alloy;
import ell.core.print.Paste;
import ell.core.print.PasteLayer;
import ell.core.print.SheetFit;
import ell.core.print.StencilCheck;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.files.gerber.StencilWriter;
import ell.work.Workshop;
import ell.work.space.ActException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
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
public final class StencilCommand extends WorkspaceCommand {
  @Mixin Which which;

  @Option(names = "--foil", description = "thickness such as 0.12mm, which is taken when not said")
  String foil = "0.12mm";

  @Option(names = "--side", description = "first, second or both; both when not said")
  String side = "both";

  @Option(names = "--alloy", description = "of the paste; the build's when not said")
  Optional<String> alloy = Optional.empty();

  @Option(names = "--metal", description = "mass fraction of metal, 0.885 when not said")
  double metal = Paste.METAL;

  @Option(
      names = "--sheet",
      description = "size of a sheet such as 300x400mm: how many boards it serves")
  Optional<String> sheet = Optional.empty();

  @Option(names = "--hand", description = "room for hands around each board, 20mm when not said")
  String hand = "20mm";

  @Option(names = "--margin", description = "to the edge of the sheet, 10mm when not said")
  String margin = "10mm";

  @Option(names = "--gap", description = "between fields, where it is cut, 4mm when not said")
  String gap = "4mm";

  @Option(names = "--price", description = "of a sheet; with --single, of one stencil a board")
  Optional<Double> price = Optional.empty();

  @Option(names = "--single", description = "price of a separate stencil")
  Optional<Double> single = Optional.empty();

  @Option(names = "--out", description = "with --sheet: write it as .svg, .dxf or .gbr")
  Optional<Path> out = Optional.empty();

  @Mixin Replacing replacing;

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
    try (Workshop w = look()) {
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
      Optional<SheetFit> fit = sheet.isPresent() ? Optional.of(fit(r, checks)) : Optional.empty();
      if (json) {
        ObjectNode o = shape(checks, boards);
        fit.ifPresent(f -> sheet(o.putObject("sheet"), f));
        print(o);
      } else {
        checks.forEach(c -> text(c, boards));
        fit.ifPresent(
            f -> out().println("  " + f.boards() + " boards on a sheet of " + sheet.get()));
      }
      return checks.stream().allMatch(c -> c.bad() == 0) ? Exit.DONE : Exit.NOT_HELD;
    }
  }

  /// Fields on a sheet; both sides of a board lie side by side as two fields.
  private SheetFit fit(Revision r, List<StencilCheck> checks) throws Exception {
    String[] size = sheet.get().toLowerCase(Locale.ROOT).split("[x×]");
    if (size.length != 2) {
      throw new ActException("--sheet is a size such as 300x400mm, found '" + sheet.get() + "'");
    }
    try {
      String unit = size[1].replaceAll("[0-9. ]", "");
      String first = size[0].matches(".*[a-z].*") ? size[0] : size[0] + unit;
      double around = EngineeringNumber.parse(hand, Unit.METRE);
      double[] box = r.boxMm();
      SheetFit f =
          SheetFit.of(
              EngineeringNumber.parse(first, Unit.METRE),
              EngineeringNumber.parse(size[1], Unit.METRE),
              (box[2] - box[0]) * 1e-3 + 2 * around,
              (box[3] - box[1]) * 1e-3 + 2 * around,
              EngineeringNumber.parse(margin, Unit.METRE),
              EngineeringNumber.parse(gap, Unit.METRE));
      if (out.isPresent()) {
        if (checks.size() > 1) {
          throw new ActException("--out writes one side: say --side first or --side second");
        }
        StencilWriter.write(
            checks.getFirst().layer(), f, box, around * 1e3, out.get(), replacing.over(file));
      }
      return f;
    } catch (IllegalArgumentException e) {
      throw new ActException(e.getMessage(), e);
    }
  }

  private void sheet(ObjectNode o, SheetFit f) {
    o.put("boards", f.boards())
        .put("turned", f.fields().stream().filter(SheetFit.Field::turned).count())
        .put("left", f.left());
    if (price.isPresent() && f.boards() > 0) {
      o.put("perBoard", price.get() / f.boards());
      single.ifPresent(s -> o.put("saved", f.boards() * s - price.get()));
    }
    ArrayNode fields = o.putArray("fields");
    for (SheetFit.Field x : f.fields()) {
      fields
          .addObject()
          .put("x", x.x())
          .put("y", x.y())
          .put("width", x.width())
          .put("height", x.height())
          .put("turned", x.turned());
    }
  }

  private static ObjectNode shape(List<StencilCheck> checks, int boards) {
    ObjectNode o = Json.object();
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
    Json.strings(o, "without", checks.stream().flatMap(c -> c.layer().without().stream()).toList());
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
