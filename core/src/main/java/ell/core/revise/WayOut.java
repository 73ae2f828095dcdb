package ell.core.revise;

import ell.core.quantity.Check;
import java.util.Locale;
import java.util.Optional;
import org.hipparchus.distribution.continuous.BetaDistribution;

/// What to do about the boards that are left: mend them, order new ones, or wait for the next
/// revision. Expected cost and days of each way, and the chance of success at which the choice
/// turns.
///
/// Mending: every board takes its hours; those that do not come out right, and those that have had
/// too much heat, are made anew. New boards: price of boards and parts, and the delivery. Waiting:
/// only the delay, until the next revision comes anyway.
///
/// @param asked what it was worked out from
/// @param rework mend the boards
/// @param respin order new ones now
/// @param pause wait for the next revision
public record WayOut(Asked asked, Way rework, Way respin, Way pause) {
  /// Hours that a working day has.
  public static final double DAY = 8;

  /// One way.
  ///
  /// @param cost in the maker's money
  /// @param days until a board is there, on average
  public record Way(String name, double cost, double days) {}

  /// What it is worked out from.
  ///
  /// @param successChance that a mended board comes out right, 0...1
  /// @param boards that are left, 1 or more
  /// @param boardCost price of a bare board
  /// @param partsCost price of the parts of a board
  /// @param reworkHours on one board
  /// @param hourRate price of an hour of work
  /// @param leadDays until new boards and parts are there
  /// @param delayPerDay what a day's delay costs
  /// @param escapeChance that a mended board which passes fails later
  /// @param escapeCost what that costs
  /// @param nextDays until the next revision comes anyway
  /// @param spent boards of `boards` that bear no more heat
  public record Asked(
      double successChance,
      int boards,
      double boardCost,
      double partsCost,
      double reworkHours,
      double hourRate,
      double leadDays,
      double delayPerDay,
      double escapeChance,
      double escapeCost,
      double nextDays,
      int spent) {
    /// @throws IllegalArgumentException when a value is out of its range
    public Asked {
      Check.inRange(successChance, 0, 1, "successChance");
      Check.inRange(boards, 1, 1e6, "boards");
      Check.notNegative(boardCost, "boardCost");
      Check.notNegative(partsCost, "partsCost");
      Check.notNegative(reworkHours, "reworkHours");
      Check.notNegative(hourRate, "hourRate");
      Check.notNegative(leadDays, "leadDays");
      Check.notNegative(delayPerDay, "delayPerDay");
      Check.inRange(escapeChance, 0, 1, "escapeChance");
      Check.notNegative(escapeCost, "escapeCost");
      Check.notNegative(nextDays, "nextDays");
      Check.inRange(spent, 0, boards, "spent");
    }

    /// The same with another chance of success.
    public Asked with(double chance) {
      return new Asked(
          chance,
          boards,
          boardCost,
          partsCost,
          reworkHours,
          hourRate,
          leadDays,
          delayPerDay,
          escapeChance,
          escapeCost,
          nextDays,
          spent);
    }
  }

  /// Works it out.
  public static WayOut of(Asked a) {
    double mend = a.boards() - a.spent();
    double lost = a.spent() + mend * (1 - a.successChance());
    double anew = a.boardCost() + a.partsCost();
    double days = mend * a.reworkHours() / DAY + lost / a.boards() * a.leadDays();
    double rework =
        mend * a.reworkHours() * a.hourRate()
            + lost * anew
            + mend * a.successChance() * a.escapeChance() * a.escapeCost()
            + days * a.delayPerDay();
    return new WayOut(
        a,
        new Way("rework", rework, days),
        new Way("respin", a.boards() * anew + a.leadDays() * a.delayPerDay(), a.leadDays()),
        new Way("wait", a.nextDays() * a.delayPerDay(), a.nextDays()));
  }

  /// The way that costs least; among equals the one that is there first.
  public Way choice() {
    Way best = rework;
    for (Way w : new Way[] {respin, pause}) {
      boolean cheaper = w.cost() < best.cost() - 1e-9;
      boolean same = Math.abs(w.cost() - best.cost()) <= 1e-9;
      best = cheaper || same && w.days() < best.days() ? w : best;
    }
    return best;
  }

  /// The better of the two ways that do not mend.
  public Way other() {
    return respin.cost() <= pause.cost() ? respin : pause;
  }

  /// The chance of success at which mending costs as much as the better of the other ways: above it
  /// (or below, where escapes cost more than boards) mending is the choice. Empty when no chance
  /// makes it turn.
  public Optional<Double> turnsAt() {
    double at0 = of(asked.with(0)).rework().cost();
    double at1 = of(asked.with(1)).rework().cost();
    double wanted = other().cost();
    if (at0 == at1) {
      return Optional.empty();
    }
    double p = (wanted - at0) / (at1 - at0);
    return p >= 0 && p <= 1 ? Optional.of(p) : Optional.empty();
  }

  /// Why the choice never turns, or where it does, in words.
  public String turns() {
    return turnsAt()
        .map(p ->
            String.format(
                Locale.ROOT,
                "turns at %.3g %%: %s it %s",
                100 * p,
                of(asked.with(1)).choice().name().equals("rework") ? "below" : "above",
                other().name()))
        .orElseGet(() ->
            of(asked.with(0)).choice().name().equals("rework")
                ? "never turns: mending is cheapest whatever its chance"
                : "never turns: "
                    + other().name()
                    + " is cheaper even if every board came out right");
  }

  /// How sure the choice is, where the chance of success was counted: the share of what the count
  /// allows on the side of the turn that the choice is on. 1 where it never turns.
  ///
  /// @param succeeded of `tried`
  /// @param tried boards that were mended
  /// @throws IllegalArgumentException when succeeded is not in 0...tried
  public double sure(int succeeded, int tried) {
    Check.inRange(succeeded, 0, tried, "succeeded");
    Optional<Double> turn = turnsAt();
    if (turn.isEmpty()) {
      return 1;
    }
    double below = chance(succeeded, tried).cumulativeProbability(turn.get());
    boolean above = asked.successChance() >= turn.get();
    return above ? 1 - below : below;
  }

  /// What a count says of the chance of success: the beta distribution with half a board of each
  /// kind taken as seen before (Jeffreys).
  public static BetaDistribution chance(int succeeded, int tried) {
    return new BetaDistribution(succeeded + 0.5, tried - succeeded + 0.5);
  }

  /// Cost of the three ways over the chance of success, for a drawing: `points` of it from 0 to 1.
  ///
  /// @return by way, in the order rework, respin, wait
  public double[][] lines(int points) {
    double[][] y = new double[3][points];
    for (int i = 0; i < points; i++) {
      WayOut w = of(asked.with((double) i / (points - 1)));
      y[0][i] = w.rework().cost();
      y[1][i] = w.respin().cost();
      y[2][i] = w.pause().cost();
    }
    return y;
  }
}
