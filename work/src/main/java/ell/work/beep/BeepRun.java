package ell.work.beep;

import ell.bench.Bench;
import ell.bench.instrument.Hands;
import ell.bench.instrument.Meter;
import ell.bench.link.BenchException;
import ell.core.beep.BeepCheck;
import ell.core.entry.Logged;
import ell.work.act.Acts;
import ell.work.space.ActException;
import java.io.IOException;
import java.util.List;
import java.util.Optional;

/// Makes checks of the beep list with a meter; on a simulated bench the hands hold the tips.
public final class BeepRun implements AutoCloseable {
  private final Acts acts;
  private final String board;
  private final Meter meter;
  private final Optional<Hands> hands;

  /// Connects to the meter.
  ///
  /// @throws BenchException when there is none
  public BeepRun(Acts acts, String board, Bench bench) throws BenchException {
    this.acts = acts;
    this.board = board;
    this.hands = bench.open(Hands.KIND);
    if (hands.isPresent()) {
      hands.get().lay(board);
    }
    this.meter = bench.need(Meter.KIND);
    meter.clear();
  }

  /// Makes one check and logs it.
  ///
  /// @throws ActException when the board is not of this workspace
  public Logged check(BeepCheck c) throws IOException, ActException {
    return log(c, ohms(c));
  }

  /// What the meter shows now; on a simulated bench the hands touch the two places.
  ///
  /// @return ohms, infinite for an open loop
  public double ohms(BeepCheck c) throws BenchException {
    if (hands.isPresent()) {
      hands.get().touch(c.a().place(), c.b().place());
    }
    return meter.ohms();
  }

  /// Logs what the meter showed.
  ///
  /// @throws ActException when the board is not of this workspace
  public Logged log(BeepCheck c, double ohms) throws IOException, ActException {
    return acts.log(board, List.of(c.read(ohms))).orThrow().getLast();
  }

  /// Whether the tips are known to touch: hands hold them.
  public boolean touches() {
    return hands.isPresent();
  }

  @Override
  public void close() {
    meter.close();
    hands.ifPresent(Hands::close);
  }
}
