package ell.cli.pulse;

import ell.cli.shell.Exit;
import ell.cli.shell.Given;
import ell.cli.shell.Json;
import ell.cli.shell.JsonText;
import ell.core.pulse.Arrives;
import ell.core.pulse.Counted;
import ell.core.pulse.LogicFamily;
import ell.core.pulse.Pulses;
import ell.core.pulse.Suspicion;
import ell.core.pulse.Wave;
import ell.core.pulse.bus.Decoded;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.core.series.Log;
import ell.core.series.Series;
import ell.work.pulse.Captures;
import ell.work.space.ActException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
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

/// What a captured waveform measures.
@Command(
    name = "wave",
    description = "a capture measured: levels, edges, clock, and what the instrument may have done")
public final class WaveCommand implements Callable<Integer> {
  @Parameters(index = "0", paramLabel = "FILE", description = "the capture, CSV or VCD")
  Path file;

  @Option(names = "--vil", description = "the most that is low at an input, with --vih")
  Optional<String> vil = Optional.empty();

  @Option(names = "--vih", description = "the least that is high at an input, with --vil")
  Optional<String> vih = Optional.empty();

  @Option(
      names = "--slowest",
      description = "the slowest edge that the input allows, such as 10ns/V")
  Optional<String> slowest = Optional.empty();

  @Option(names = "--bandwidth", description = "of the instrument, such as 100MHz")
  Optional<String> bandwidth = Optional.empty();

  @Option(
      names = "--family",
      description = "logic family of the input, such as cmos3.3, in place of --vil and --vih")
  Optional<String> family = Optional.empty();

  @Option(names = "--edges", description = "with --json, each edge of each channel")
  boolean edges;

  @Mixin DecodeOptions decode;

  @Option(names = "--json", description = "one JSON object on standard output")
  boolean json;

  @Spec CommandSpec spec;

  private record Measured(Wave wave, Optional<Counted> counted, Pulses pulses) {}

  @Override
  public Integer call() throws Exception {
    family();
    if (vil.isPresent() != vih.isPresent() || slowest.isPresent() && vil.isEmpty()) {
      throw new ActException("--vil and --vih go together, and --slowest with them");
    }
    Log log = Captures.read(file, spec.commandLine().getErr()::println);
    double band = Given.value(bandwidth, Unit.HERTZ).orElse(0.0);
    List<Measured> all = new ArrayList<>();
    List<String> suspicions = new ArrayList<>();
    for (Series s : log.series()) {
      Wave w = Wave.of(s);
      Optional<Counted> c = Optional.empty();
      if (vil.isPresent()) {
        try {
          c =
              Optional.of(
                  Counted.of(
                      s,
                      Given.value(vil, Unit.VOLT).orElseThrow(),
                      Given.value(vih, Unit.VOLT).orElseThrow()));
        } catch (IllegalArgumentException e) {
          throw new ActException(e.getMessage(), e);
        }
      }
      all.add(new Measured(w, c, Pulses.of(s, w, input())));
      suspicions.addAll(Suspicion.of(s, w, band));
    }
    Optional<Decoded> decoded = decode.decode(log, vil, vih);
    Series first = log.series().getFirst();
    double rate = rate(first);
    if (json) {
      spec.commandLine()
          .getOut()
          .println(JsonText.of(object(all, suspicions, rate, first.size(), decoded)));
    } else {
      say(all, suspicions, rate, first.size());
      decoded.ifPresent(this::said);
    }
    return Exit.DONE;
  }

  /// Samples a second; NaN where they are not evenly apart, as those of a logic capture.
  private static double rate(Series s) {
    double step = s.duration() / (s.size() - 1);
    for (int i = 1; i < s.size(); i++) {
      if (Math.abs(s.second(i) - s.second(i - 1) - step) > 0.01 * step) {
        return Double.NaN;
      }
    }
    return 1 / step;
  }

  private Optional<Arrives.Input> input() throws ActException {
    return vil.isEmpty() || vih.isEmpty()
        ? Optional.empty()
        : Optional.of(
            new Arrives.Input(
                Given.value(vil, Unit.VOLT).orElseThrow(),
                Given.value(vih, Unit.VOLT).orElseThrow(),
                Double.POSITIVE_INFINITY,
                Double.POSITIVE_INFINITY));
  }

  /// A family stands for its thresholds.
  private void family() throws ActException {
    if (family.isEmpty()) {
      return;
    }
    LogicFamily f =
        LogicFamily.named(family.get(), LogicFamily.SHIPPED)
            .orElseThrow(() ->
                new ActException(
                    "there is no family '"
                        + family.get()
                        + "'; there are "
                        + String.join(
                            ", ", LogicFamily.SHIPPED.stream().map(LogicFamily::name).toList())));
    vil = vil.isPresent() ? vil : Optional.of(f.vil() + "V");
    vih = vih.isPresent() ? vih : Optional.of(f.vih() + "V");
    if (slowest.isEmpty() && Double.isFinite(f.slowest())) {
      slowest = Optional.of(f.slowest() * 1e9 + "ns/V");
    }
  }

  private void said(Decoded d) {
    PrintWriter out = spec.commandLine().getOut();
    d.told().forEach(t -> out.println("first: " + t));
    for (Decoded.Item i : d.items()) {
      out.printf(
          "  %12s  %-4s %s%n",
          EngineeringNumber.print(i.at(), Unit.SECOND, 5), i.channel(), i.words());
    }
    out.println(
        d.items().size()
            + " things said, "
            + (d.problems() == 0 ? "nothing wrong" : d.problems() + " with something wrong"));
  }

  private ObjectNode object(
      List<Measured> all,
      List<String> suspicions,
      double rate,
      int samples,
      Optional<Decoded> decoded)
      throws ActException {
    ObjectNode o = Json.object();
    WaveJson.put(o, "rate", rate);
    o.put("samples", samples);
    ArrayNode channels = o.putArray("channels");
    for (Measured m : all) {
      WaveJson.channel(channels.addObject(), m.wave(), m.counted(), m.pulses(), allowed(), edges);
    }
    Json.strings(o, "suspicions", suspicions);
    decoded.ifPresent(d -> {
      ArrayNode said = o.putArray("decoded");
      for (Decoded.Item i : d.items()) {
        ObjectNode one =
            said.addObject()
                .put("at", i.at())
                .put("until", i.until())
                .put("kind", i.kind())
                .put("text", i.words());
        if (!i.channel().isEmpty()) {
          one.put("channel", i.channel());
        }
        i.value().ifPresent(v -> one.put("value", v));
        if (!i.problem().isEmpty()) {
          one.put("problem", i.problem());
        }
      }
      o.put("problems", d.problems());
      Json.strings(o, "told", d.told());
    });
    return o;
  }

  private Optional<Double> allowed() throws ActException {
    Optional<Double> slow = Given.value(slowest, Unit.SECOND_PER_VOLT);
    return slow.isEmpty()
        ? Optional.empty()
        : Optional.of(
            slow.get()
                * (Given.value(vih, Unit.VOLT).orElseThrow()
                    - Given.value(vil, Unit.VOLT).orElseThrow()));
  }

  private void say(List<Measured> all, List<String> suspicions, double rate, int samples)
      throws ActException {
    PrintWriter out = spec.commandLine().getOut();
    out.println(
        samples
            + " samples"
            + (Double.isFinite(rate)
                ? ", " + EngineeringNumber.print(rate, Unit.HERTZ, 4) + " of them a second"
                : ""));
    suspicions.forEach(s -> out.println("first: " + s));
    for (Measured m : all) {
      Wave w = m.wave();
      out.println(w.name());
      line(out, "low", w.low(), Double.NaN, Unit.VOLT);
      line(out, "high", w.high(), Double.NaN, Unit.VOLT);
      if (w.edges() > 0) {
        line(out, "over", w.overshoot() * w.amplitude(), Double.NaN, Unit.VOLT);
        line(out, "under", w.undershoot() * w.amplitude(), Double.NaN, Unit.VOLT);
        line(out, "rise", w.rise(), w.riseU(), Unit.SECOND);
        line(out, "fall", w.fall(), w.fallU(), Unit.SECOND);
        line(out, "period", w.period(), w.periodU(), Unit.SECOND);
        line(out, "frequency", w.frequency(), Double.NaN, Unit.HERTZ);
        line(out, "duty", w.duty(), Double.NaN, Unit.ONE);
        line(out, "jitter", w.jitter(), Double.NaN, Unit.SECOND);
        out.println("  edges      " + w.rising() + " rising, " + w.falling() + " falling");
        line(out, "wide high", m.pulses().widthHigh(), Double.NaN, Unit.SECOND);
        line(out, "wide low", m.pulses().widthLow(), Double.NaN, Unit.SECOND);
        line(out, "rests in", m.pulses().settling(), Double.NaN, Unit.SECOND);
        if (m.pulses().runts() + m.pulses().glitches() > 0) {
          out.println(
              "  odd        "
                  + m.pulses().runts()
                  + " runts, "
                  + m.pulses().glitches()
                  + " glitches");
        }
      }
      if (m.counted().isPresent()) {
        Counted k = m.counted().get();
        out.println(
            "  counted    "
                + k.crossings()
                + (k.doubles() > 0 ? ", of them " + k.doubles() + " twice" : ", none twice"));
        line(out, "between", k.dwell(), Double.NaN, Unit.SECOND);
        Optional<Double> allowed = allowed();
        if (allowed.isPresent()) {
          line(out, "allowed", allowed.get(), Double.NaN, Unit.SECOND);
        }
      }
    }
  }

  private static void line(PrintWriter out, String what, double v, double u, Unit unit) {
    if (Double.isFinite(v)) {
      out.printf(
          "  %-10s %s%s%n",
          what,
          EngineeringNumber.print(v, unit, 4),
          Double.isFinite(u) ? " ± " + EngineeringNumber.print(u, unit, 2) : "");
    }
  }
}
