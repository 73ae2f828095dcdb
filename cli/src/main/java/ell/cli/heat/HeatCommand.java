package ell.cli.heat;

import ell.book.Build;
import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.SheetText;
import ell.cli.shell.Which;
import ell.cli.shell.WorkspaceCommand;
import ell.core.board.Part;
import ell.core.board.Revision;
import ell.core.heat.Alloy;
import ell.core.heat.FloorLife;
import ell.core.heat.HeatBudget;
import ell.core.heat.HeatFacts;
import ell.core.heat.JointDemand;
import ell.core.heat.PlateFit;
import ell.core.heat.PlateSchedule;
import ell.core.heat.ProfileWindow;
import ell.core.rack.Plan;
import ell.work.Workshop;
import ell.work.heat.Heating;
import ell.work.look.Looking;
import ell.work.space.ActException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// How the plate is set, how hot an iron, what was heated how often, what lay open how long.
@Command(
    name = "heat",
    description =
        "set points for the plate, iron advice by pin, heat cycles, parts out of their bag")
public final class HeatCommand extends WorkspaceCommand {
  @Mixin Which which;

  @Option(names = "--board", description = "a board: how often its parts were heated")
  Optional<String> board = Optional.empty();

  @Option(names = "--part", description = "a part: its pins in the order of soldering")
  Optional<String> part = Optional.empty();

  @Option(
      names = "--set-window",
      description = "keep a window of your own for the build's alloy, JSON")
  Optional<Path> window = Optional.empty();

  @Override
  public Integer call() throws Exception {
    try (Workshop w =
        window.isPresent() ? Workshop.open(file, Clock.systemDefaultZone()) : Workshop.look(file)) {
      Build build = board.isPresent() ? w.buildOf(board.get()) : w.build(which.build);
      Plan plan = w.plan(build);
      Alloy alloy = Alloy.of(build.alloy());
      if (window.isPresent()) {
        w.heating().setWindow(alloy, Files.readString(window.get()));
      }
      ProfileWindow win = w.heating().window(alloy);
      PlateFit fit = w.heating().plate(build);
      PlateSchedule schedule = PlateSchedule.of(fit.model(), win);
      Optional<Part> p = Optional.empty();
      if (part.isPresent()) {
        p =
            Optional.of(
                plan.revision()
                    .part(part.get())
                    .orElseThrow(() -> new ActException("there is no part '" + part.get() + "'")));
      }
      Map<String, FloorLife> bags = w.heating().bags();
      ObjectNode o = shape(win, fit, schedule, alloy);
      if (board.isPresent()) {
        cycles(o, plan.revision(), HeatFacts.of(w.state(board.get())).heatCycles());
      }
      p.ifPresent(x -> pins(o, plan, x, alloy));
      bags(o, bags);
      holes(o, w.heating().holes(plan));
      if (json) {
        print(o);
      } else {
        text(fit, schedule, o);
      }
      return schedule.warnings().isEmpty() ? Exit.DONE : Exit.NOT_HELD;
    }
  }

  private static ObjectNode shape(ProfileWindow w, PlateFit fit, PlateSchedule s, Alloy alloy) {
    ObjectNode o = Json.object().put("alloy", alloy.key()).put("window", w.name());
    ObjectNode plate = o.putObject("plate").put("runs", fit.runs());
    if (fit.runs() > 0) {
      plate.put("rms", fit.rms());
    }
    plate
        .put("gain", fit.model().gain())
        .put("loss", fit.model().loss())
        .put("board", fit.model().board())
        .put("ratio", fit.model().ratio())
        .put("air", fit.model().air())
        .put("cool", fit.model().cool())
        .put("delay", fit.model().delay());
    ObjectNode x =
        o.putObject("schedule")
            .put("soakSet", s.soakSet())
            .put("soakFor", s.soakFor())
            .put("peakSet", s.peakSet())
            .put("liftAt", s.liftAt())
            .put("liftTemperature", s.liftTemperature())
            .put("pwi", s.pwi());
    Json.strings(x, "warnings", s.warnings());
    o.put("dial", JointDemand.dial(alloy, 0));
    return o;
  }

  private static void cycles(ObjectNode o, Revision r, Map<String, Integer> had) {
    ArrayNode a = o.putArray("heatCycles");
    had.entrySet().stream()
        .sorted(Map.Entry.<String, Integer>comparingByValue().reversed())
        .forEach(e ->
            r.part(e.getKey())
                .ifPresent(p ->
                    a.addObject()
                        .put("part", e.getKey())
                        .put("heatings", e.getValue())
                        .put("limit", HeatBudget.limit(r, p))));
  }

  private static void pins(ObjectNode o, Plan plan, Part p, Alloy alloy) {
    ArrayNode a = o.putArray("pins");
    List<JointDemand.Pin> pins =
        JointDemand.order(
            plan.revision(),
            p,
            Looking.planes(plan),
            alloy,
            JointDemand.Tip.BEVEL,
            JointDemand.dial(alloy, 0));
    for (JointDemand.Pin x : pins) {
      ObjectNode one =
          a.addObject()
              .put("part", p.reference())
              .put("pin", x.joint().pin())
              .put("net", x.joint().net())
              .put("class", x.demand().need().key())
              .put("loss", x.demand().loss());
      Json.number(one, "time", x.demand().seconds());
    }
  }

  private static void bags(ObjectNode o, Map<String, FloorLife> bags) {
    ArrayNode a = o.putArray("bags");
    bags.forEach((code, f) -> {
      ObjectNode one =
          a.addObject().put("code", code).put("level", f.level()).put("open", f.open());
      Json.number(one, "left", f.left());
      one.put("verdict", f.verdict().key());
    });
  }

  private static void holes(ObjectNode o, List<Heating.Holed> holes) {
    ArrayNode a = o.putArray("holes");
    for (Heating.Holed h : holes) {
      a.addObject()
          .put("part", h.joint().part())
          .put("pin", h.joint().pin())
          .put("lead", h.fit().lead())
          .put("clearance", h.fit().clearance())
          .put("says", h.fit().words())
          .put("verdict", h.fit().verdict().key());
    }
  }

  private void text(PlateFit fit, PlateSchedule s, ObjectNode o) {
    SheetText.print(fit.sheet(), out());
    out()
        .printf(
            Locale.ROOT,
            "next run: %.0f °C for %.0f s, then %.0f °C; lift off after %.0f s, at %.0f °C; window index %.0f%n",
            s.soakSet(),
            s.soakFor(),
            s.peakSet(),
            s.liftAt(),
            s.liftTemperature(),
            s.pwi());
    s.warnings().forEach(x -> out().println("mind: " + x));
    for (String list : new String[] {"heatCycles", "pins", "bags", "holes"}) {
      if (o.has(list) && !o.get(list).isEmpty()) {
        out().println(list.equals("heatCycles") ? "heatings" : list);
        o.get(list).forEach(x -> out().println("  " + x));
      }
    }
  }
}
