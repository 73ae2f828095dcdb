package ell.bench.instrument;

import ell.bench.dialect.Dialect;
import ell.bench.link.BenchException;
import ell.bench.link.ScpiLink;
import ell.core.series.Series;

/// A scope: told what to sample, it hands over its memory as a block of 16 bit codes and a preamble
/// that says what they mean.
public final class Scope extends Instrument {
  /// Its kind.
  public static final Kind<Scope> KIND = new Kind<>("scope", Scope::new);

  private static final int PARTS = 5;

  /// A scope behind a link, as [Dialect#generic] says; nothing is sent yet.
  public Scope(ScpiLink link) {
    this(link, Dialect.generic("scope"));
  }

  /// A scope with a dialect of its own.
  public Scope(ScpiLink link, Dialect says) {
    super(link, "scope", says);
  }

  /// How a capture is taken.
  ///
  /// @param channel counted from 1
  /// @param range volts from the least to the greatest that can be seen
  /// @param offset volts in the middle of them
  /// @param span seconds
  /// @param points how many samples
  /// @param level volts at which a rising edge begins it
  /// @param ac whether the mean is taken away
  public record Taking(
      int channel,
      double range,
      double offset,
      double span,
      int points,
      double level,
      boolean ac) {}

  /// Clears the error queue.
  public void clear() throws BenchException {
    clearErrors();
  }

  /// How fast it is, Hz; 0 when it cannot be asked.
  public double bandwidth() throws BenchException {
    return says.has("bandwidth") ? number(says.line("bandwidth")) : 0;
  }

  /// Takes a capture.
  ///
  /// @return volts over seconds from the edge
  /// @throws BenchException when the scope refuses, or hands over what cannot be a capture
  public Series take(Taking t) throws BenchException {
    if (says.has("select")) {
      command(says.line("select", String.valueOf(t.channel())));
    } else if (t.channel() != 1) {
      throw wrong("has one channel only, as its dialect says");
    }
    command(says.line("coupling", t.ac() ? "AC" : "DC"));
    command(says.line("range", t.range()));
    if (says.has("offset")) {
      command(says.line("offset", t.offset()));
    }
    command(says.line("span", t.span()));
    command(says.line("points", String.valueOf(t.points())));
    if (says.has("level")) {
      command(says.line("level", t.level()));
    }
    command(says.line("arm"));
    if (says.has("askDone")) {
      number(says.line("askDone"));
    }
    double[] p = preamble();
    byte[] block = link.askBlock(says.line("data"));
    int n = block.length / 2;
    if (n != (int) p[0] || n < 2) {
      throw wrong("said " + (long) p[0] + " samples and handed over " + n);
    }
    float[] volts = new float[n];
    for (int i = 0; i < n; i++) {
      short code = (short) (block[2 * i] << 8 | block[2 * i + 1] & 0xff);
      volts[i] = (float) (p[4] + code * p[3]);
    }
    return Series.even("CH" + t.channel(), p[2], p[1], volts);
  }

  /// Samples, seconds between them, seconds of the first, volts of a code, volts of code 0.
  private double[] preamble() throws BenchException {
    String said = link.ask(says.line("preamble"));
    String[] parts = said.split(",");
    double[] all = new double[PARTS];
    try {
      for (int i = 0; i < PARTS; i++) {
        all[i] = Double.parseDouble(parts[i].strip());
      }
    } catch (NumberFormatException | ArrayIndexOutOfBoundsException e) {
      throw wrong(
          "answered '"
              + says.line("preamble")
              + "' with '"
              + said
              + "', expected points,step,start,scale,zero");
    }
    if (!(all[1] > 0) || !(all[3] > 0) || !Double.isFinite(all[2] + all[4])) {
      throw wrong("hands over samples without a step or a scale: '" + said + "'");
    }
    return all;
  }
}
