package ell.cli.heat;

import ell.bench.instrument.Plate;
import ell.book.Build;
import ell.cli.bench.BenchOptions;
import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.SheetText;
import ell.cli.shell.Which;
import ell.cli.shell.WorkspaceCommand;
import ell.core.board.Part;
import ell.core.board.Revision;
import ell.core.entry.Entry;
import ell.core.entry.EntryWords;
import ell.core.heat.Alloy;
import ell.core.heat.FloorLife;
import ell.core.heat.HeatBudget;
import ell.core.heat.HeatFacts;
import ell.core.heat.JointDemand;
import ell.core.heat.PlateFit;
import ell.core.heat.PlateSchedule;
import ell.core.heat.ProfileWindow;
import ell.core.quantity.Verdict;
import ell.core.rack.Plan;
import ell.work.Workshop;
import ell.work.heat.Heating;
import ell.work.heat.PlateAct;
import ell.work.heat.PlateDrive;
import ell.work.look.Looking;
import ell.work.space.ActException;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
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
  @Mixin BenchOptions bench;

  @Option(
      names = "--go",
      description =
          "run the plate for --board through its schedule, log the profile and the reflow step; press"
              + " Enter when the board is lifted off")
  boolean go;

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
    if (go) {
      return run();
    }
    try (Workshop w = window.isPresent() ? open() : look()) {
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

  /// Runs the plate. The simulated one has hands of its own that lift when they are told to; at a
  /// real one the maker lifts the board and says so with Enter.
  private int run() throws Exception {
    String serial = board.orElseThrow(() -> new ActException("which board? say --board B"));
    try (Workshop w = open();
        BenchOptions.Opened b = bench.open(w, Plate.KIND)) {
      Build build = w.buildOf(serial);
      Plan plan = w.plan(build);
      PlateFit fit = w.heating().plate(build);
      PlateAct act =
          PlateAct.prepare(
              w.acts(),
              w.heating(),
              build,
              plan,
              w.state(serial),
              PlateSchedule.of(fit.model(), w.heating().window(Alloy.of(build.alloy()))));
      if (!json) {
        out().println("take care: the plate stays hot after it is off; fumes: extraction on");
        out().println("board " + serial + ", " + act.what() + "; Enter when it is lifted off");
        out().flush();
      }
      Thread safety = new Thread(act::stop);
      Runtime.getRuntime().addShutdownHook(safety);
      PlateAct.Ended end;
      try (Plate plate = b.bench().need(Plate.KIND)) {
        Thread enter = bench.simulated() ? null : Thread.ofVirtual().start(() -> lifted(act));
        end = act.run(plate, 1, l -> look(act, l), HeatCommand::pause);
        if (enter != null) {
          enter.interrupt();
        }
      } finally {
        Runtime.getRuntime().removeShutdownHook(safety);
      }
      ended(serial, end);
      boolean within =
          end.entries().stream()
              .noneMatch(l ->
                  l.entry() instanceof Entry.HeatRun r
                      && r.verdict().filter(v -> v != Verdict.WITHIN).isPresent());
      return end.whole() && within ? Exit.DONE : Exit.NOT_HELD;
    }
  }

  private static void lifted(PlateAct act) {
    try {
      if (System.in.read() >= 0) {
        act.lifted();
      }
    } catch (IOException e) {
      // nobody is there to press a key: the heater goes off by itself after a minute
    }
  }

  private void look(PlateAct act, PlateDrive.Look l) {
    if (l.next().equals("lift off now") && bench.simulated()) {
      act.lifted();
    }
    if (!json) {
      double[] now = l.samples().getLast();
      out()
          .printf(
              Locale.ROOT,
              "%5.0f s  set %3.0f  plate %3.0f  board %3.0f °C  %s%s%n",
              now[0],
              now[1],
              now[2],
              now[3],
              l.next(),
              Double.isNaN(l.in()) || l.in() == 0
                  ? ""
                  : String.format(Locale.ROOT, " in %.0f s", l.in()));
      out().flush();
    }
  }

  private static void pause() {
    try {
      Thread.sleep(10);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }

  private void ended(String serial, PlateAct.Ended end) {
    if (json) {
      ObjectNode o =
          Json.object().put("board", serial).put("whole", end.whole()).put("ended", end.why());
      ArrayNode entries = o.putArray("entries");
      end.entries().forEach(l -> entries.add(Json.entry(l)));
      print(o);
      return;
    }
    end.entries()
        .forEach(l -> out().println("entry " + l.number() + " · " + EntryWords.of(l.entry())));
    out().println(end.whole() ? "plate off" : "plate off: " + end.why());
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
