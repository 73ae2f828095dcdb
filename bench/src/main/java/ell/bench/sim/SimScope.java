package ell.bench.sim;

import ell.bench.sim.ScpiStatus.Refused;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Locale;
import java.util.Random;
import java.util.function.DoubleUnaryOperator;

/// A scope whose probes the hands hold: two channels with coupling, range, probe factor, bandwidth
/// and noise, one memory, a trigger on an edge. What it sampled is handed over as a block. Source
/// of the commands: SCPI-99 volume 2, INPut, SENSe, TRIGger and TRACe; IEEE 488.2, 8.7.9 definite
/// length block.
final class SimScope extends SimInstrument {
  static final int CHANNELS = 2;

  private static final double BANDWIDTH = 200e6;
  private static final double MOST_RATE = 2e9;
  private static final int MOST_POINTS = 1_000_000;
  private static final int CODES = 4096;
  private static final int FINEST = 8;
  private static final double BEFORE = 0.1;
  private static final double NOISE = 0.002;

  private static final ScpiData.Range VOLTS = new ScpiData.Range("V", 0.01, 400, 8);
  private static final ScpiData.Range OFFSET = new ScpiData.Range("V", -200, 200, 0);
  private static final ScpiData.Range FACTOR = new ScpiData.Range("", 1, 1000, 10);
  private static final ScpiData.Range SPAN = new ScpiData.Range("S", 1e-8, 100, 1e-3);
  private static final ScpiData.Range POINTS = new ScpiData.Range("", 10, MOST_POINTS, 10_000);

  private final SimTable table;
  private final Random random;
  private final Channel[] channels = new Channel[CHANNELS + 1];
  private double span;
  private double points;
  private double level;
  private boolean edge;
  private double step;
  private double start;

  private static final class Channel {
    private boolean ac;
    private double range;
    private double offset;
    private double factor;
    private short[] codes = {};
    private double scale;
    private double zero;
  }

  SimScope(SimTable table, long seed, int port) throws IOException {
    super("scope", port);
    this.table = table;
    this.random = new Random(seed ^ 0x5c09e);
    preset();
    server
        .outputs(CHANNELS)
        .onOutputs("INPut:COUPling", 1, 1, (c, a) -> coupling(channels[c], a.getFirst()))
        .onOutputs("INPut:COUPling?", 0, 0, (c, _) -> channels[c].ac ? "AC" : "DC")
        .onOutputs(
            "[SENSe:]VOLTage:RANGe",
            1,
            1,
            (c, a) -> {
              channels[c].range = VOLTS.set(a.getFirst());
              return null;
            })
        .onOutputs(
            "[SENSe:]VOLTage:RANGe?", 0, 1, (c, a) -> number(VOLTS.ask(a, channels[c].range)))
        .onOutputs(
            "[SENSe:]VOLTage:RANGe:OFFSet",
            1,
            1,
            (c, a) -> {
              channels[c].offset = OFFSET.set(a.getFirst());
              return null;
            })
        .onOutputs(
            "[SENSe:]VOLTage:RANGe:OFFSet?",
            0,
            1,
            (c, a) -> number(OFFSET.ask(a, channels[c].offset)))
        .onOutputs(
            "INPut:ATTenuation",
            1,
            1,
            (c, a) -> {
              channels[c].factor = FACTOR.set(a.getFirst());
              return null;
            })
        .onOutputs("INPut:ATTenuation?", 0, 1, (c, a) -> number(FACTOR.ask(a, channels[c].factor)))
        .on("[SENSe:]BANDwidth?", 0, 0, _ -> number(BANDWIDTH))
        .on(
            "[SENSe:]SWEep:TIME",
            1,
            1,
            a -> {
              span = SPAN.set(a.getFirst());
              return null;
            })
        .on("[SENSe:]SWEep:TIME?", 0, 1, a -> number(SPAN.ask(a, span)))
        .on(
            "[SENSe:]SWEep:POINts",
            1,
            1,
            a -> {
              points = Math.rint(POINTS.set(a.getFirst()));
              return null;
            })
        .on("[SENSe:]SWEep:POINts?", 0, 1, a -> number(POINTS.ask(a, points)))
        .on(
            "TRIGger:LEVel",
            1,
            1,
            a -> {
              level = OFFSET.set(a.getFirst());
              return null;
            })
        .on("TRIGger:LEVel?", 0, 0, _ -> number(level))
        .on("TRIGger:SOURce", 1, 1, a -> source(a.getFirst()))
        .on("TRIGger:SOURce?", 0, 0, _ -> edge ? "INT" : "IMM")
        .on(
            "INITiate[:IMMediate]",
            0,
            0,
            _ -> {
              sample();
              return null;
            })
        .onOutputs("TRACe:PREamble?", 0, 0, (c, _) -> preamble(channels[c]))
        .onOutputs("TRACe[:DATA]?", 0, 0, (c, _) -> block(channels[c]))
        .onReset(this::preset);
  }

  private void preset() {
    for (int c = 1; c <= CHANNELS; c++) {
      channels[c] = new Channel();
      channels[c].range = VOLTS.preset();
      channels[c].offset = OFFSET.preset();
      channels[c].factor = FACTOR.preset();
    }
    span = SPAN.preset();
    points = POINTS.preset();
    level = 1;
    edge = true;
  }

  private static String coupling(Channel c, String word) {
    switch (word.toUpperCase(Locale.ROOT)) {
      case "AC" -> c.ac = true;
      case "DC" -> c.ac = false;
      default -> throw new Refused(-224, "Illegal parameter value");
    }
    return null;
  }

  private String source(String word) {
    switch (word.toUpperCase(Locale.ROOT)) {
      case "INT", "INTERNAL" -> edge = true;
      case "IMM", "IMMEDIATE" -> edge = false;
      default -> throw new Refused(-224, "Illegal parameter value");
    }
    return null;
  }

  /// Fills the memory of both channels.
  private void sample() {
    int n = (int) points;
    step = Math.max(span / n, 1 / MOST_RATE);
    start = -BEFORE * n * step;
    DoubleUnaryOperator[] seen = new DoubleUnaryOperator[CHANNELS + 1];
    for (int c = 1; c <= CHANNELS; c++) {
      seen[c] = table.probed(c);
    }
    double origin = triggered(seen[1]);
    for (int c = 1; c <= CHANNELS; c++) {
      digitise(channels[c], filtered(seen[c], origin + start, n), n);
    }
  }

  /// When the first rising edge passes the level, or whenever, where none does.
  private double triggered(DoubleUnaryOperator v) {
    double begin = random.nextDouble() * span;
    if (!edge) {
      return begin;
    }
    double before = v.applyAsDouble(begin);
    for (int i = 1; i <= 4 * (int) points; i++) {
      double t = begin + i * step;
      double now = v.applyAsDouble(t);
      if (before < level && now >= level) {
        return t - step * (now - level) / (now - before);
      }
      before = now;
    }
    return begin;
  }

  /// A single pole takes away what is faster than the bandwidth.
  private double[] filtered(DoubleUnaryOperator v, double from, int n) {
    double tau = 1 / (2 * Math.PI * BANDWIDTH);
    double[] all = new double[n];
    if (step > FINEST * tau) {
      Arrays.setAll(all, i -> v.applyAsDouble(from + i * step));
      return all;
    }
    int fine = Math.clamp((int) Math.ceil(4 * step / tau), 1, 4 * FINEST);
    double dt = step / fine;
    double keep = Math.exp(-dt / tau);
    double y = v.applyAsDouble(from - FINEST * tau);
    for (double t = from - FINEST * tau; t < from; t += dt) {
      y = v.applyAsDouble(t) + (y - v.applyAsDouble(t)) * keep;
    }
    for (int i = 0; i < n; i++) {
      for (int k = 0; k < fine; k++) {
        double now = v.applyAsDouble(from + (i + (k + 1.0) / fine - 1) * step);
        y = now + (y - now) * keep;
      }
      all[i] = y;
    }
    return all;
  }

  private void digitise(Channel c, double[] volts, int n) {
    double mean = c.ac || table.scopeCoupledAc() ? Arrays.stream(volts).average().orElse(0) : 0;
    // the probe divides by ten; a switch on it that nobody noticed makes it one
    double share = table.scopeOffFactor() ? 0.1 : 1;
    c.scale = c.range / CODES;
    c.zero = c.offset;
    c.codes = new short[n];
    double noise = NOISE * c.range;
    for (int i = 0; i < n; i++) {
      double shown = (volts[i] - mean) * share + random.nextGaussian() * noise / 3;
      double code = Math.rint((shown - c.zero) / c.scale);
      c.codes[i] = (short) Math.clamp(code, -CODES / 2.0, CODES / 2.0 - 1);
    }
  }

  /// How many there are, seconds from one to the next, when the first was, volts of a code, volts
  /// of code 0.
  private String preamble(Channel c) {
    return c.codes.length
        + ","
        + exact(step)
        + ","
        + exact(start)
        + ","
        + exact(c.scale)
        + ","
        + exact(c.zero);
  }

  private static String exact(double d) {
    return String.format(Locale.ROOT, "%.9E", d);
  }

  private String block(Channel c) {
    if (c.codes.length == 0) {
      throw new Refused(-230, "Data corrupt or stale: nothing was sampled");
    }
    byte[] body = new byte[2 * c.codes.length];
    for (int i = 0; i < c.codes.length; i++) {
      body[2 * i] = (byte) (c.codes[i] >> 8);
      body[2 * i + 1] = (byte) c.codes[i];
    }
    String count = String.valueOf(body.length);
    return "#" + count.length() + count + new String(body, StandardCharsets.ISO_8859_1);
  }
}
