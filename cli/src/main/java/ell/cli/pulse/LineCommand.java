package ell.cli.pulse;

import ell.book.RevisionStore;
import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.OfRevision;
import ell.cli.shell.WorkspaceCommand;
import ell.core.entry.Entry;
import ell.core.pulse.Arrives;
import ell.core.pulse.LineFit;
import ell.core.pulse.NetLine;
import ell.core.pulse.PulseFacts;
import ell.core.pulse.PulsePlan;
import ell.core.pulse.SeriesWindow;
import ell.core.pulse.Wanted;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import ell.work.Workshop;
import ell.work.space.ActException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// A net as a line: its copper followed, and what a step on it does.
@Command(
    name = "line",
    description = "a net as a line: the copper followed, its impedance, and what a step on it does")
public final class LineCommand extends WorkspaceCommand {
  @Parameters(index = "1", paramLabel = "NET", description = "the net, or a joint on it")
  String net;

  @Mixin OfRevision of;

  @Option(
      names = "--with",
      paramLabel = "WHAT=VALUE",
      description =
          "for this once: from=U1.3, driver=25ohm, series=100ohm, edge=3ns, swing=3.3V,"
              + " length=0.48m, z0=120ohm, velocity=0.61, loss=0.05, load=5pF, family=cmos3.3;"
              + " pulse WS --say keeps it")
  List<String> with = new ArrayList<>();

  @Option(
      names = "--stack",
      paramLabel = "WHAT=VALUE",
      description = "for this once: height=0.2mm er=4.3 thickness=35um, over or between planes")
  List<String> stack = new ArrayList<>();

  @Option(
      names = "--fit",
      paramLabel = "BOARD:PLACE",
      description = "fit the line to the capture that the book has of a place of a board")
  Optional<String> fit = Optional.empty();

  @Override
  public Integer call() throws Exception {
    try (Workshop w = look()) {
      RevisionStore.Id id = of.id(w, Optional.empty());
      String d = id.design();
      String r = id.name();
      List<String> once = new ArrayList<>();
      if (!stack.isEmpty()) {
        once.add("stack " + String.join(" ", stack));
      }
      if (!with.isEmpty()) {
        once.add(net + " " + String.join(" ", with));
      }
      PulsePlan plan = w.pulses().of(d, r, once);
      NetLine line = w.lines().of(plan, net);
      Optional<LineFit> fitted = fit.isPresent() ? Optional.of(fitted(w, line)) : Optional.empty();
      return print(plan, line, fitted);
    }
  }

  private LineFit fitted(Workshop w, NetLine line) throws Exception {
    int colon = fit.orElseThrow().indexOf(':');
    if (colon < 1) {
      throw new ActException("--fit is BOARD:PLACE, such as 07:U4.2, found '" + fit.get() + "'");
    }
    String board = fit.get().substring(0, colon);
    String place = fit.get().substring(colon + 1);
    Entry.Capture c =
        PulseFacts.of(w.state(board))
            .at(place)
            .orElseThrow(() -> new ActException("board " + board + " has no capture of " + place));
    double at =
        place.equals(line.from().place())
            ? 0
            : line.reached().stream()
                .filter(x -> x.joint().place().equals(place))
                .mapToDouble(NetLine.Reached::at)
                .findFirst()
                .orElseThrow(() -> new ActException(place + " is no joint of this line"));
    return w.captures()
        .open(c)
        .flatMap(s -> LineFit.of(s, at, line.driven()))
        .orElseThrow(
            () -> new ActException("the capture of " + place + " has no edge that a line fits to"));
  }

  private int print(PulsePlan plan, NetLine line, Optional<LineFit> fitted) throws ActException {
    Wanted wanted = plan.at(net);
    Wanted.Driven d = line.driven();
    List<String> told = new ArrayList<>(line.told());
    told.addAll(wanted.guesses());
    fitted.ifPresent(f -> told.addAll(f.told()));
    Optional<SeriesWindow> seen = Optional.empty();
    List<Double> at = new ArrayList<>(List.of(0.0));
    List<String> names = new ArrayList<>(List.of(line.from().place()));
    for (NetLine.Reached x : line.reached()) {
      at.add(x.at());
      names.add(x.joint().place());
    }
    Optional<Arrives.Input> in =
        wanted.thresholds().filter(t -> Double.isFinite(t.vil()) && Double.isFinite(t.vih()));
    if (in.isEmpty()) {
      told.add("no thresholds are known; say: " + line.net() + " family=cmos3.3");
    } else if (!line.step(d.series()).settles()) {
      told.add("nothing takes the wave up, or the line does not count for so slow an edge");
    } else {
      seen = Optional.of(SeriesWindow.of(line.step(d.series()), d.ohms(), at, in.get()));
    }
    boolean out =
        seen.filter(s -> s.arrives().stream().anyMatch(a -> a.verdict() == Verdict.OUT))
            .isPresent();
    if (json) {
      json(line, d, seen, names, told, out, wanted, fitted);
    } else {
      text(line, d, seen, names, told, wanted.judges());
      fitted.ifPresent(this::text);
    }
    // what rests on guesses accuses nobody
    return out && wanted.judges() ? Exit.NOT_HELD : Exit.DONE;
  }

  private void json(
      NetLine line,
      Wanted.Driven d,
      Optional<SeriesWindow> seen,
      List<String> names,
      List<String> told,
      boolean out,
      Wanted wanted,
      Optional<LineFit> fitted) {
    ObjectNode o =
        Json.object()
            .put("net", line.net())
            .put("from", line.from().place())
            .put("followed", line.followed())
            .put("length", line.length())
            .put("width", line.width())
            .put("z0", d.z0())
            .put("velocity", d.velocity() * ell.core.pulse.LineOnBoard.LIGHT)
            .put("velocityFactor", d.velocity())
            .put("erEff", 1 / (d.velocity() * d.velocity()))
            .put("delay", line.delay())
            .put("driverResistance", d.ohms())
            .put("seriesResistance", d.series())
            .put("riseTime", d.edge())
            .put("swing", d.swing());
    ArrayNode to = o.putArray("to");
    for (NetLine.Reached x : line.reached()) {
      to.addObject()
          .put("place", x.joint().place())
          .put("at", x.at())
          .put("length", x.length())
          .put("stub", x.stub());
    }
    seen.ifPresent(s -> {
      ObjectNode b = o.putObject("bounce");
      ArrayNode places = b.putArray("places");
      for (int i = 0; i < s.arrives().size(); i++) {
        Arrives a = s.arrives().get(i);
        ObjectNode one =
            places
                .addObject()
                .put("place", names.get(i))
                .put("at", a.at())
                .put("peak", a.peak())
                .put("dip", a.dip());
        Json.number(one, "dwell", a.dwell());
        Json.number(one, "allowed", a.allowed());
        one.put("crossings", a.crossings())
            .put("settles", a.settles())
            .put("verdict", a.verdict().key());
      }
      s.range()
          .ifPresent(r ->
              b.putObject("window")
                  .put("low", r.low())
                  .put("high", r.high())
                  .put("nearest", r.nearest()));
      b.put("verdict", out ? "out" : "within").put("guessed", !wanted.judges());
    });
    fitted.ifPresent(f -> {
      ObjectNode one =
          o.putObject("fit")
              .put("ratio", f.ratio())
              .put("sourceResistance", f.source())
              .put("z0", f.z0())
              .put("delay", f.delay())
              .put("loss", f.loss())
              .put("riseTime", f.rise())
              .put("left", f.left());
      Json.number(one, "ratioU", f.ratioU());
      Json.number(one, "sourceResistanceU", f.sourceU());
      Json.number(one, "z0U", f.z0U());
      Json.number(one, "delayU", f.delayU());
      Json.number(one, "lossU", f.lossU());
    });
    Json.strings(o, "told", told);
    print(o);
  }

  private void text(LineFit f) {
    out()
        .println(
            "the capture fits: source over Z0 "
                + known(f.ratio(), f.ratioU(), Unit.ONE)
                + " (Z0 "
                + known(f.z0(), f.z0U(), Unit.OHM)
                + " if the source is as taken), one pass "
                + known(f.delay(), f.delayU(), Unit.SECOND)
                + ", left "
                + EngineeringNumber.print(f.left(), Unit.VOLT, 2));
  }

  private static String known(double v, double u, Unit unit) {
    return EngineeringNumber.print(v, unit, 4)
        + (Double.isFinite(u) ? " ± " + EngineeringNumber.print(u, unit, 2) : "");
  }

  private void text(
      NetLine line,
      Wanted.Driven d,
      Optional<SeriesWindow> seen,
      List<String> names,
      List<String> told,
      boolean judges) {
    told.forEach(t -> out().println("first: " + t));
    out()
        .println(
            line.net()
                + " from "
                + line.from().place()
                + ": "
                + EngineeringNumber.print(line.length(), Unit.METRE, 4)
                + (line.width() > 0
                    ? ", " + EngineeringNumber.print(line.width(), Unit.METRE, 3) + " wide"
                    : "")
                + ", Z0 "
                + EngineeringNumber.print(d.z0(), Unit.OHM, 3)
                + ", "
                + EngineeringNumber.print(line.delay(), Unit.SECOND, 3)
                + " one way");
    if (seen.isEmpty()) {
      return;
    }
    SeriesWindow s = seen.get();
    for (int i = 0; i < s.arrives().size(); i++) {
      Arrives a = s.arrives().get(i);
      out()
          .printf(
              "  %-10s at %.2f  peak %s  dip %s  between %s of %s  crosses %d  %s%n",
              names.get(i),
              a.at(),
              EngineeringNumber.print(a.peak(), Unit.VOLT, 3),
              EngineeringNumber.print(a.dip(), Unit.VOLT, 3),
              Double.isFinite(a.dwell())
                  ? EngineeringNumber.print(a.dwell(), Unit.SECOND, 3)
                  : "for ever",
              Double.isFinite(a.allowed())
                  ? EngineeringNumber.print(a.allowed(), Unit.SECOND, 3)
                  : "any",
              a.crossings(),
              judges ? a.verdict().words() : a.verdict().words() + ", if the guesses hold");
    }
    out()
        .println(
            s.range()
                .map(r ->
                    "series resistor: every place is within from "
                        + EngineeringNumber.print(r.low(), Unit.OHM, 3)
                        + " to "
                        + EngineeringNumber.print(r.high(), Unit.OHM, 3)
                        + ", take "
                        + EngineeringNumber.print(r.nearest(), Unit.OHM, 3))
                .orElse("series resistor: none that was tried is within everywhere"));
  }
}
