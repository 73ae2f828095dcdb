package ell.work.power;

import ell.bench.Bench;
import ell.bench.instrument.Hands;
import ell.bench.instrument.Meter;
import ell.bench.instrument.Supply;
import ell.bench.link.BenchException;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.power.ChargeWatch;
import ell.core.power.ChargedCell;
import ell.core.power.Ladder;
import ell.core.quantity.Accuracy;
import ell.core.quantity.Limits;
import ell.core.quantity.Unit;
import ell.core.rack.Plan;
import ell.work.act.Acts;
import ell.work.act.Refusal;
import ell.work.space.ActException;
import java.io.IOException;
import java.util.List;
import java.util.Optional;

/// Watches a cell while it is charged: its volts are read with the meter and kept in the book, and
/// judged by all that the book has of this charge. Nothing is switched on; where charging must stop
/// and the bench has a supply, that is switched off.
public final class ChargeRun implements AutoCloseable {
  private static final String CHARGE = "charge";

  private final Acts acts;
  private final String board;
  private final Plan plan;
  private final Bench bench;
  private final ChargedCell cell;
  private final Meter meter;
  private final Optional<Hands> hands;
  private final Optional<Supply> supply;

  /// Connects to the meter.
  ///
  /// @param supplied whether the bench's supply charges the cell, at the output that is selected:
  ///   its current is the cell's
  /// @throws BenchException when there is no meter, or no supply where it charges
  public ChargeRun(
      Acts acts, Plan plan, String board, Bench bench, ChargedCell cell, boolean supplied)
      throws IOException {
    this.acts = acts;
    this.board = board;
    this.plan = plan;
    this.bench = bench;
    this.cell = cell;
    this.hands = bench.open(Hands.KIND); // the board lies there and is on its charger
    this.meter = bench.need(Meter.KIND);
    meter.clear();
    this.supply = supplied ? Optional.of(bench.need(Supply.KIND)) : Optional.empty();
  }

  /// Why a cell may not be charged, empty when it may: where somebody said what the operation
  /// `charge` needs of links and plugs, they must be so.
  public static Optional<Refusal> refusal(Acts acts, Plan plan, String board)
      throws IOException, ActException {
    return plan.talk().operation(CHARGE).isEmpty()
        ? Optional.empty()
        : acts.refusal(board, List.of(Entry.Talk.byHand(CHARGE, "")));
  }

  /// One look.
  ///
  /// @param entry in the book
  public record Look(Logged entry, ChargeWatch watch) {}

  /// Reads the cell once and logs it.
  public Look look() throws IOException, ActException {
    if (hands.isPresent()) {
      hands.get().touch(cell.tip(), Ladder.tipOnGround(plan.revision(), plan.ladder()));
    }
    if (supply.isPresent()) {
      double amps = Math.round(supply.get().amps() * 1e5) / 1e5;
      acts.log(board, List.of(current(amps))).orThrow();
    }
    double volts = Math.round(meter.dcVolts() * 1e3) / 1e3;
    Logged l =
        acts.log(board, List.of(reading(cell, volts, "meter on the " + bench.name())))
            .orThrow()
            .getLast();
    List<ChargeWatch.Sample> all = ChargeWatch.samples(acts.state(board), cell.places());
    return new Look(l, ChargeWatch.of(all, cell.expected()));
  }

  private Entry.Reading current(double amps) {
    return new Entry.Reading(
        cell.cell(),
        amps,
        Unit.AMPERE,
        Optional.empty(),
        Optional.empty(),
        Optional.empty(),
        "supply of the " + bench.name());
  }

  /// A reading of a cell's volts, judged by what it bears.
  public static Entry.Reading reading(ChargedCell cell, double volts, String with) {
    double u = Accuracy.handheldVolts(volts).uncertainty(volts);
    Limits bears = ChargeWatch.bears(cell.expected());
    return new Entry.Reading(
        cell.cell(),
        volts,
        Unit.VOLT,
        Optional.of(bears),
        Optional.of(u),
        Optional.of(bears.judge(volts, u)),
        with);
  }

  /// Writes why charging must stop, and switches the bench's supply off, where it has one.
  public Logged stop(String why) throws IOException, ActException {
    if (!bench.addresses().containsKey("supply")) {
      return acts.log(board, List.of(new Entry.Note("charging must stop: " + why)))
          .orThrow()
          .getLast();
    }
    return SupplyOff.now(acts, board, bench, plan.ladder().outputs(), "charging: " + why, true);
  }

  @Override
  public void close() {
    meter.close();
    supply.ifPresent(Supply::close);
    hands.ifPresent(Hands::close);
  }
}
