package ell.core.power;

import ell.core.quantity.Unit;
import ell.core.sheet.Args;
import ell.core.sheet.Input;
import ell.core.sheet.Sheet;
import ell.core.sheet.Worked;
import java.util.List;

/// The sheet `power.ripple`: what a switching regulator leaves on its output.
final class RippleSheet {
  private RippleSheet() {}

  static Sheet sheet() {
    return new Sheet(
        "power.ripple",
        "Ripple behind a switching regulator",
        List.of(
            Input.number("vin", Unit.VOLT).in(1e-3, 1000),
            Input.number("vout", Unit.VOLT).in(1e-3, 1000),
            Input.number("inductance", Unit.HENRY).in(1e-9, 10),
            Input.number("frequency", Unit.HERTZ).in(1, 1e9),
            Input.number("capacitance", Unit.FARAD).in(1e-12, 1),
            Input.number("esr", Unit.OHM).in(0, 1e4).or("0"),
            Input.number("current", Unit.AMPERE).in(0, 1000).or("0")),
        List.of(),
        Sheet.results("coilRipple A, ripple V"),
        List.of(
            "charge balance of coil and capacitor (Erickson, Maksimović: Fundamentals of Power"
                + " Electronics, chapter 2, from memory)"),
        RippleSheet::work);
  }

  private static Worked work(Args a, Worked.Builder s) {
    double vin = a.number("vin");
    double vout = a.number("vout");
    double period = 1 / a.number("frequency");
    double l = a.number("inductance");
    double c = a.number("capacitance");
    double esr = a.number("esr");
    boolean lifts = vout > vin;
    double share = lifts ? 1 - vin / vout : vout / vin;
    double coil = (lifts ? vin : vin - vout) * share * period / l;
    // what a triangle of the coil leaves on a capacitor; or the load alone, while the coil fills
    double load = a.number("current");
    double charge = lifts ? load * share * period / c : coil * period / (8 * c);
    double drop = esr * (lifts ? load / (1 - share) + coil / 2 : coil);
    double all = charge + drop;
    s.line("share on", lifts ? "1 − Vin/Vout" : "Vout / Vin", share, Unit.ONE)
        .line(
            "ΔI coil",
            lifts ? "Vin · share / (f · L)" : "(Vin − Vout) · share / (f · L)",
            coil,
            Unit.AMPERE)
        .line("ΔV capacitor", lifts ? "I · share / (f · C)" : "ΔI / (8 · f · C)", charge, Unit.VOLT)
        .line("ΔV resistance", lifts ? "ESR · greatest current" : "ESR · ΔI", drop, Unit.VOLT)
        .line("ripple", "the sum, peak to peak, at the most", all, Unit.VOLT)
        .result("coilRipple", coil)
        .result("ripple", all)
        .assume("the coil's current never ends; spikes of its switching are not in it");
    if (lifts && load == 0) {
      s.assume("without the load's current nothing is said of what the capacitor gives");
    }
    return s.done();
  }
}
