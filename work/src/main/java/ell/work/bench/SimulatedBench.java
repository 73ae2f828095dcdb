package ell.work.bench;

import ell.bench.Bench;
import ell.bench.sim.SimBench;
import ell.bench.sim.SimBoard;
import ell.bench.sim.SimTalk;
import ell.book.Build;
import ell.core.board.Revision;
import ell.core.power.Fault;
import ell.core.power.FaultWords;
import ell.core.power.Ladder;
import ell.core.pulse.PulsePlan;
import ell.core.rack.Plan;
import ell.core.talk.Identity;
import ell.core.talk.TalkFacts;
import ell.core.talk.TalkPlan;
import ell.work.Workshop;
import ell.work.space.ActException;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// The simulated bench for the boards of a workspace, on free ports of the loopback.
public final class SimulatedBench implements AutoCloseable {
  private static final int TIMEOUT_MILLIS = 8000;

  private final SimBench bench;

  private SimulatedBench(SimBench bench) {
    this.bench = bench;
  }

  /// Starts it with every board of every build, each with the faults that the workspace gives it.
  ///
  /// @param seed of the small errors of instruments and parts
  /// @param ports by the word of a kind; any free one where none is said
  /// @param plateSpeed seconds of the plate's clock in a real one, 1...1000
  public static SimulatedBench start(
      Workshop w, long seed, Map<String, Integer> ports, double plateSpeed)
      throws IOException, ActException {
    return start(w, seed, ports, plateSpeed, Map.of());
  }

  /// Starts it with more faults than the workspace gives.
  ///
  /// @param more by serial
  /// @throws ActException when a fault does not fit its board, or cannot be shown
  public static SimulatedBench start(
      Workshop w,
      long seed,
      Map<String, Integer> ports,
      double plateSpeed,
      Map<String, List<Fault>> more)
      throws IOException, ActException {
    List<SimBoard> boards = new ArrayList<>();
    for (Build b : w.book().builds()) {
      Ladder ladder = w.ladder(b.design(), b.revision());
      Map<String, List<Fault>> faults = w.ladders().faults(b.design(), b.revision());
      Plan plan = w.plan(b);
      PulsePlan pulse = w.lines().over(plan.pulse());
      for (String serial : b.boards()) {
        Revision revision = w.revision(b.design(), b.revision());
        List<Fault> own = new ArrayList<>(faults.getOrDefault(serial, List.of()));
        own.addAll(more.getOrDefault(serial, List.of()));
        for (Fault f : own) {
          Optional<String> unfit = FaultWords.unfit(f, revision);
          if (unfit.isPresent()) {
            throw new ActException(FaultWords.words(f) + ": " + unfit.get());
          }
        }
        boards.add(
            new SimBoard(serial, revision, ladder, own, pulse, talk(w, plan.talk(), serial)));
      }
    }
    return new SimulatedBench(SimBench.start(boards, seed, ports, plateSpeed));
  }

  /// What a board can say: as its book has its links, its firmware and its number.
  private static SimTalk talk(Workshop w, TalkPlan plan, String serial) throws IOException {
    TalkFacts f = TalkFacts.of(w.state(serial));
    return new SimTalk(
        plan,
        () -> stands(w, serial),
        f.firmware().orElse(""),
        f.knows().map(k -> new Identity(k.serial(), k.revision())));
  }

  /// How links stand on a board when it is laid down: what the maker has logged is done.
  private static Map<String, Boolean> stands(Workshop w, String serial) {
    try {
      return TalkFacts.of(w.state(serial)).stands();
    } catch (IOException e) {
      return Map.of(); // the workspace is closed, and its bench with it
    }
  }

  /// The servers behind it.
  public SimBench servers() {
    return bench;
  }

  /// Starts it on free ports.
  public static SimulatedBench start(Workshop w, long seed) throws IOException, ActException {
    return start(w, seed, Map.of(), SimBench.PLATE_SPEED);
  }

  /// How its instruments are reached.
  public Bench bench() {
    // it dies with this program: there is nothing that a watchdog could switch off then
    return new Bench("simulated bench", bench.addresses(), TIMEOUT_MILLIS, false);
  }

  @Override
  public void close() {
    bench.close();
  }
}
