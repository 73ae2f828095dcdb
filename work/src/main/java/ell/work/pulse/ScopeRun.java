package ell.work.pulse;

import ell.bench.Bench;
import ell.bench.instrument.Hands;
import ell.bench.instrument.Scope;
import ell.bench.link.BenchException;
import ell.core.entry.Logged;
import ell.core.pulse.PulsePlan;
import ell.core.pulse.Wanted;
import ell.core.pulse.Wave;
import ell.core.series.Series;
import ell.work.space.ActException;
import java.io.IOException;
import java.util.Optional;

/// Takes captures with a scope: range and time are found from what is wanted at the place, or by
/// looking twice. On a simulated bench the hands hold the probe.
public final class ScopeRun implements AutoCloseable {
  private static final double PERIODS = 8;
  private static final double EDGE = 40;
  private static final double ROOM = 2.4;
  private static final double FIRST_LOOK = 2e-3;
  private static final double SHORTEST = 5e-8;
  private static final int POINTS = 10_000;
  private static final double USUAL_VOLTS = 5;

  private final Captures captures;
  private final PulsePlan plan;
  private final String board;
  private final Scope scope;
  private final Optional<Hands> hands;

  /// How long and how wide it looks; what is not said is found.
  ///
  /// @param span seconds, 0 to find it
  /// @param range volts from least to greatest, 0 to find it
  /// @param points samples, 0 for the usual
  /// @param ac whether the mean is taken away
  public record Look(double span, double range, int points, boolean ac) {
    /// Everything is found.
    public static final Look FOUND = new Look(0, 0, 0, false);
  }

  /// Connects to the scope.
  ///
  /// @throws BenchException when there is none
  public ScopeRun(Captures captures, PulsePlan plan, String board, Bench bench)
      throws BenchException {
    this.captures = captures;
    this.plan = plan;
    this.board = board;
    this.hands = bench.open(Hands.KIND);
    this.scope = bench.need(Scope.KIND);
    scope.clear();
  }

  /// Takes a capture of a place; nothing is kept.
  ///
  /// @throws ActException when the board has no such place
  public Series take(String place, Look look) throws BenchException, ActException {
    Wanted w = at(place);
    if (hands.isPresent()) {
      hands.get().probe(1, place);
    }
    int points = look.points() > 0 ? look.points() : POINTS;
    double volts = look.range() > 0 ? look.range() : ROOM * Math.max(swing(w), USUAL_VOLTS);
    double middle = look.ac() ? 0 : volts / 2 - volts / 4;
    double span = look.span() > 0 ? look.span() : span(w);
    double level =
        look.ac()
            ? 0
            : w.thresholds().map(t -> t.vih()).filter(Double::isFinite).orElse(swing(w) / 2);
    Series s = scope.take(new Scope.Taking(1, volts, middle, span, points, level, look.ac()));
    Wave seen = Wave.of(s);
    for (int tries = 0; tries < 3; tries++) {
      double better = look.span() > 0 ? span : better(seen, span, w);
      double top = Math.max(Math.abs(s.most()), Math.abs(s.least()));
      boolean clipped =
          look.range() == 0
              && (s.most() > middle + 0.49 * volts || s.least() < middle - 0.49 * volts);
      if (better == span && !clipped) {
        break;
      }
      volts = clipped ? 2 * ROOM * top : volts;
      middle = look.ac() ? 0 : volts / 4;
      span = better;
      s = scope.take(new Scope.Taking(1, volts, middle, span, points, level, look.ac()));
      seen = Wave.of(s);
    }
    return s;
  }

  /// Takes a capture and keeps it as that of a place of the board.
  public Logged keep(String place, Look look) throws IOException, ActException {
    Series s = take(place, look);
    return captures.keep(plan, board, place, s, scope.bandwidth(), scope.identity());
  }

  /// The bandwidth that the scope says it has, Hz; 0 when it does not.
  public double bandwidth() throws BenchException {
    return scope.bandwidth();
  }

  private Wanted at(String place) throws ActException {
    try {
      return plan.at(place);
    } catch (IllegalArgumentException e) {
      throw new ActException(e.getMessage(), e);
    }
  }

  private static double swing(Wanted w) {
    return w.line()
        .map(Wanted.Driven::swing)
        .orElse(w.family().map(f -> f.supply()).orElse(USUAL_VOLTS));
  }

  private static double span(Wanted w) {
    return w.clock() > 0 ? PERIODS / w.clock() : FIRST_LOOK;
  }

  /// A span in which some periods are seen, or an edge is.
  private static double better(Wave seen, double span, Wanted w) {
    if (seen.edges() == 0) {
      return span;
    }
    double wanted =
        Double.isFinite(seen.period())
            ? PERIODS * seen.period()
            : EDGE * Math.max(finite(seen.rise()), finite(seen.fall()));
    if (wanted > span / 4 && wanted < 2 * span || w.clock() > 0 && !(wanted < span / 10)) {
      return span;
    }
    return Math.max(wanted, SHORTEST);
  }

  private static double finite(double x) {
    return Double.isFinite(x) ? x : 0;
  }

  @Override
  public void close() {
    scope.close();
    hands.ifPresent(Hands::close);
  }
}
