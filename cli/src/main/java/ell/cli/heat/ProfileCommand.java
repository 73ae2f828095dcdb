package ell.cli.heat;

import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.JsonText;
import ell.cli.shell.Replacing;
import ell.core.heat.ProfileCheck;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import ell.files.pdf.ProfilePdf;
import ell.work.heat.Profiles;
import ell.work.space.ActException;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// Does a logged profile keep to a window.
@Command(
    name = "profile",
    description = "hold a temperature log against a window: every statistic of every channel")
public final class ProfileCommand implements Callable<Integer> {
  @Parameters(index = "0", paramLabel = "FILE", description = "the log, CSV")
  Path log;

  @Parameters(
      index = "1..*",
      arity = "0..*",
      paramLabel = "OTHERS",
      description = "other logs to compare it with")
  List<Path> others = new ArrayList<>();

  @Option(names = "--pdf", description = "draw the runs over each other, with their statistics")
  Optional<Path> pdf = Optional.empty();

  @Option(
      names = "--window",
      description = "sac305, snpb or snbi, or a JSON file of your own; sac305 when not said")
  String window = "sac305";

  @Option(
      names = "--accuracy",
      description = "of the thermocouples, such as 2.2; not counted when not said")
  String accuracy = "0";

  @Option(names = "--unit", description = "C, F or K, of columns that do not say theirs")
  String unit = "";

  @Option(names = "--time-unit", description = "s, ms or min, of times that do not say theirs")
  String timeUnit = "";

  @Option(names = "--write-window", description = "print the window as JSON, to be edited")
  boolean write;

  @Option(names = "--json", description = "one JSON object on standard output")
  boolean json;

  @Mixin Replacing replacing;

  @Spec CommandSpec spec;

  /// What is to be said of each file, in their order.
  private final List<List<String>> mind = new ArrayList<>();

  @Override
  public Integer call() throws Exception {
    PrintWriter out = spec.commandLine().getOut();
    if (write) {
      out.print(Profiles.window(window).write());
      return Exit.DONE;
    }
    double u;
    try {
      u = EngineeringNumber.parse(accuracy.replaceAll("(?i)\\s*(°?c|k)$", ""), Unit.ONE);
    } catch (NumberFormatException e) {
      throw new ActException("--accuracy: " + e.getMessage(), e);
    }
    List<ProfilePdf.Run> runs = new ArrayList<>();
    runs.add(run(log, u));
    for (Path p : others) {
      runs.add(run(p, u));
    }
    if (pdf.isPresent()) {
      List<Path> inputs = new ArrayList<>(others);
      inputs.add(log);
      if (Files.exists(Path.of(window))) {
        inputs.add(Path.of(window));
      }
      ProfilePdf.write(
          runs, Profiles.window(window), pdf.get(), replacing.over(inputs.toArray(Path[]::new)));
    }
    if (json) {
      ObjectNode o = shape(runs.getFirst().check());
      Json.strings(o, "warnings", mind.getFirst());
      if (runs.size() > 1) {
        ArrayNode all = o.putArray("others");
        for (ProfilePdf.Run r : runs.subList(1, runs.size())) {
          ObjectNode one = shape(r.check()).put("file", r.title());
          Json.strings(one, "warnings", mind.get(all.size() + 1));
          all.add(one);
        }
      }
      out.println(JsonText.of(o));
    } else {
      for (int i = 0; i < runs.size(); i++) {
        out.println(runs.get(i).title());
        mind.get(i).forEach(m -> out.println("  mind: " + m));
        text(runs.get(i).check(), out);
      }
    }
    return runs.stream().allMatch(r -> r.check().verdict() == Verdict.WITHIN)
        ? Exit.DONE
        : Exit.NOT_HELD;
  }

  private ProfilePdf.Run run(Path file, double accuracy) throws Exception {
    Profiles.Logged read = Profiles.read(file, unit.toUpperCase(Locale.ROOT), timeUnit);
    mind.add(read.words());
    return new ProfilePdf.Run(
        file.getFileName().toString(),
        read.log(),
        Profiles.check(read.log(), Profiles.window(window), accuracy));
  }

  static ObjectNode shape(ProfileCheck c) {
    ObjectNode o = Json.object();
    ArrayNode channels = o.putArray("channels");
    for (ProfileCheck.Channel ch : c.channels()) {
      ObjectNode one = channels.addObject().put("name", ch.name());
      ArrayNode statistics = one.putArray("statistics");
      for (ProfileCheck.Line l : ch.lines()) {
        ObjectNode s = statistics.addObject().put("name", l.statistic().key());
        if (Double.isNaN(l.value())) {
          s.putNull("value");
        } else {
          s.put("value", l.value());
        }
        s.put("unit", l.statistic().unit());
        l.limits()
            .ifPresent(x -> {
              Json.number(s, "low", x.low());
              Json.number(s, "high", x.high());
            });
        if (l.uncertainty() > 0) {
          s.put("uncertainty", l.uncertainty());
        }
        s.put("verdict", l.verdict().key());
      }
      pwi(one, ch.pwi());
      Json.strings(one, "remarks", ch.remarks());
    }
    pwi(o, c.pwi());
    return o.put("verdict", c.verdict().key())
        .put("window", c.window().name())
        .put("spread", c.spread());
  }

  private static void pwi(ObjectNode o, double pwi) {
    if (Double.isNaN(pwi)) {
      o.putNull("pwi");
    } else {
      o.put("pwi", pwi);
    }
  }

  private static void text(ProfileCheck c, PrintWriter out) {
    out.println(
        "window " + c.window().name() + " (" + c.window().title() + "): " + c.verdict().words());
    for (ProfileCheck.Channel ch : c.channels()) {
      out.printf(Locale.ROOT, "%s, window index %.0f%n", ch.name(), ch.pwi());
      for (ProfileCheck.Line l : ch.lines()) {
        String unit = l.statistic().unit();
        out.printf(
            Locale.ROOT,
            "  %-16s %10s  %-18s %s%n",
            l.statistic().words(),
            Double.isNaN(l.value())
                ? "not reached"
                : String.format(Locale.ROOT, "%.4g %s", l.value(), unit),
            l.limits().map(x -> ProfileCheck.text(x, unit)).orElse("no limit"),
            l.verdict().words());
      }
      ch.remarks().forEach(r -> out.println("  mind: " + r));
    }
    if (c.channels().size() > 1) {
      out.printf(Locale.ROOT, "spread between channels: %.1f °C%n", c.spread());
    }
    out.println("source: " + c.window().source());
    out.println(
        "take care: the paste's and the parts' data sheets decide; this window is a start.");
  }
}
