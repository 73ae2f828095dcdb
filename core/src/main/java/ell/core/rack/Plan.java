package ell.core.rack;

import ell.core.beep.BeepList;
import ell.core.board.Block;
import ell.core.board.Revision;
import ell.core.order.BuildOrder;
import ell.core.order.Method;
import ell.core.power.Ladder;
import ell.core.pulse.PulsePlan;
import ell.core.talk.TalkPlan;
import java.util.List;
import java.util.function.Supplier;

/// Everything that is planned for a revision built in one way; the same for each board of the
/// build. The order and the beep list are worked out when somebody asks for them first, once. Safe
/// for several threads.
public final class Plan {
  private final Revision revision;
  private final Method method;
  private final Ladder ladder;
  private final List<Block> blocks;
  private final int panel;
  private final Once<BuildOrder> order;
  private final Once<BeepList> beep;
  private final Once<PulsePlan> pulse;
  private final Once<TalkPlan> talk;

  /// A plan that is worked out where it is asked for.
  ///
  /// @param panel boards that hang together until their paste is melted, 1 when none do
  /// @param order works out the build order
  /// @param beep works out the beep list
  /// @param pulse works out what should be seen on its lines
  /// @param talk works out what is known of loading it
  public Plan(
      Revision revision,
      Method method,
      Ladder ladder,
      List<Block> blocks,
      int panel,
      Supplier<BuildOrder> order,
      Supplier<BeepList> beep,
      Supplier<PulsePlan> pulse,
      Supplier<TalkPlan> talk) {
    this.revision = revision;
    this.method = method;
    this.ladder = ladder;
    this.blocks = List.copyOf(blocks);
    this.panel = panel;
    this.order = new Once<>(order);
    this.beep = new Once<>(beep);
    this.pulse = new Once<>(pulse);
    this.talk = new Once<>(talk);
  }

  /// The revision, with the parts of its variant.
  public Revision revision() {
    return revision;
  }

  /// How it is built.
  public Method method() {
    return method;
  }

  /// The power ladder.
  public Ladder ladder() {
    return ladder;
  }

  /// The blocks with their gates, in the order of the work.
  public List<Block> blocks() {
    return blocks;
  }

  /// How many boards hang together until their paste is melted, 1 when none do.
  public int panel() {
    return panel;
  }

  /// The build order.
  public BuildOrder order() {
    return order.get();
  }

  /// The checks before power.
  public BeepList beep() {
    return beep.get();
  }

  /// What should be seen on its lines.
  public PulsePlan pulse() {
    return pulse.get();
  }

  /// What is known of loading it and talking to it.
  public TalkPlan talk() {
    return talk.get();
  }

  /// Keeps what was worked out once; each value has a lock of its own, so that two threads may work
  /// out two values at a time.
  private static final class Once<T> {
    private Supplier<T> how;
    private T value;

    Once(Supplier<T> how) {
      this.how = how;
    }

    synchronized T get() {
      if (value == null) {
        value = how.get();
        how = null;
      }
      return value;
    }
  }
}
