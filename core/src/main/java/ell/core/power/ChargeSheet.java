package ell.core.power;

import ell.core.quantity.Unit;
import ell.core.sheet.Args;
import ell.core.sheet.Input;
import ell.core.sheet.Sheet;
import ell.core.sheet.SheetProblem;
import ell.core.sheet.Worked;
import java.util.List;

/// The sheet `power.charge`: how long a cell charges.
final class ChargeSheet {
  private ChargeSheet() {}

  static Sheet sheet() {
    return new Sheet(
        "power.charge",
        "How long a cell charges, and where the steady current ends",
        List.of(
            Input.number("capacity", Unit.COULOMB).in(1e-3, 1e9),
            Input.number("current", Unit.AMPERE).in(1e-6, 1000),
            Input.number("charge", Unit.ONE).in(0, 1).or("0"),
            Input.number("full", Unit.VOLT).in(0.1, 1000).or("4.2"),
            Input.number("empty", Unit.VOLT).in(0, 1000).or("3.0"),
            Input.number("resistance", Unit.OHM).in(1e-6, 1000).or("150mohm"),
            Input.number("end", Unit.AMPERE).in(1e-9, 1000).maybe()),
        List.of(),
        Sheet.results("steady s, falling s, total s, turnsAt, endsAt, rate"),
        List.of(
            "charge over current, and a charge through a resistance (any textbook)",
            "common practice, no source: 4.2 V, ends at a tenth of the current"),
        ChargeSheet::work);
  }

  private static Worked work(Args a, Worked.Builder s) {
    double i = a.number("current");
    double end = a.has("end") ? a.number("end") : i / 10;
    if (end > i) {
      throw new SheetProblem("power.charge: end: the current ends below what it begins with");
    }
    Charging c =
        new Charging(
            a.number("capacity"),
            a.number("empty"),
            a.number("full"),
            a.number("resistance"),
            i,
            end);
    double share = a.number("charge");
    double rate = i / (c.coulombs() / 3600);
    double total = c.steady(share) + c.falling(share);
    s.line("rate", "current / (capacity per hour)", rate, Unit.ONE)
        .line(
            "turns at",
            "(full − I·R − empty) / (full − empty), share of charge",
            c.turns(),
            Unit.ONE)
        .line("t steady", "(turns at − charge) · capacity / current", c.steady(share), Unit.SECOND)
        .line("τ", "R · capacity / (full − empty)", c.falls(), Unit.SECOND)
        .line("t falling", "τ · ln(I / end)", c.falling(share), Unit.SECOND)
        .line("t", "steady + falling", total, Unit.SECOND)
        .line("ends at", "1 − end·R / (full − empty), share of charge", c.ends(), Unit.ONE)
        .result("steady", c.steady(share))
        .result("falling", c.falling(share))
        .result("total", total)
        .result("turnsAt", c.turns())
        .result("endsAt", c.ends())
        .result("rate", rate)
        .assume(
            "the cell's own volts go straight from empty to full; a real one lingers in between");
    if (rate > 1) {
      s.caution("More than the cell's capacity in an hour: only where its data sheet says so.");
    }
    return s.caution(
            "Lithium cells: only with a charger made for them, never unattended, never below 0 °C;"
                + " the cell's data sheet decides.")
        .done();
  }
}
