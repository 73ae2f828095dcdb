package ell.desk.pulse;

import ell.core.pulse.Arrives;
import ell.core.pulse.LineFit;
import ell.core.pulse.NetLine;
import ell.core.pulse.PulsePlan;
import ell.core.pulse.SeriesWindow;
import ell.core.pulse.Wanted;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import ell.core.sheet.Worked;
import ell.desk.shell.Margin;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// What the margin says of a line: its sheet, what is guessed, where a resistor goes.
final class LineMargin {
  private LineMargin() {}

  static Margin say(LineFace face, PulsePlan plan) {
    LineFace.Shown s = face.shown();
    if (s == null || s.line().isEmpty()) {
      return Margin.EMPTY;
    }
    NetLine n = s.line().get();
    Wanted.Driven d = n.driven();
    double source = d.ohms() + s.ohms();
    Worked.Builder b =
        Worked.of("line.bounce", "A step on " + n.net())
            .line(
                "length",
                n.followed() ? "along the copper" : "as it was said, or joint to joint",
                n.length(),
                Unit.METRE);
    if (n.width() > 0) {
      b.line("width", "of most of it", n.width(), Unit.METRE);
    }
    b.line("Z0", "volts over amperes of a wave", d.z0(), Unit.OHM)
        .line("v/c", "share of the speed of light", d.velocity(), Unit.ONE)
        .line("delay", "one way", n.delay(), Unit.SECOND)
        .line("source", "driver and resistor", source, Unit.OHM)
        .line(
            "first step",
            "swing \u00b7 Z0 / (Z0 + R)",
            d.swing() * d.z0() / (d.z0() + source),
            Unit.VOLT)
        .line(
            "from the source",
            "(R \u2212 Z0) / (R + Z0)",
            (source - d.z0()) / (source + d.z0()),
            Unit.ONE)
        .line("edge", "10 to 90 %", d.edge(), Unit.SECOND)
        .line(
            "long",
            "round trip longer than the edge",
            2 * n.delay() > d.edge() ? "yes" : "no: it hardly counts");
    s.seen()
        .ifPresent(w -> {
          boolean out = w.arrives().stream().anyMatch(a -> a.verdict() == Verdict.OUT);
          if (s.judges()) {
            b.verdict(out ? Verdict.OUT : Verdict.WITHIN);
          } else {
            b.assume("its thresholds are a guess, and judge nothing: W says them");
          }
        });
    b.source("reflections at both ends, added up (any text on transmission lines)")
        .source("Hammerstad, Jensen 1980; Cohn 1954 between planes, from memory")
        .assume("the far end is open; inputs on the way load it with nothing");
    List<Margin.Note> notes = new ArrayList<>();
    List<String> guessed = new ArrayList<>(n.told());
    guessed.addAll(plan.at(n.net()).guesses());
    if (!guessed.isEmpty()) {
      notes.add(Margin.Note.plain("Found and guessed", guessed));
    }
    measured(s, face.tap(), notes);
    notes.add(Margin.Note.plain("What to do", advice(s)));
    notes.add(
        Margin.Note.wrong(
            List.of(
                "the capture disagrees: measure plateau and round trip at the source, and work the"
                    + " sheet line.from-step",
                "it rings although it is matched: the ground lead of the probe",
                "a cure at the far end: a resistor of Z0 to ground, and the driver must carry it")));
    return new Margin(Optional.of(b.done()), notes);
  }

  /// What the capture of the place in hand says of the line.
  private static void measured(LineFace.Shown s, int tap, List<Margin.Note> notes) {
    if (tap < 0 || tap >= s.names().size() || !s.laid().containsKey(s.names().get(tap))) {
      return;
    }
    String place = s.names().get(tap);
    Optional<LineFit> fit = s.laid().get(place).fit();
    List<String> all = new ArrayList<>();
    if (fit.isEmpty()) {
      all.add("it has no edge that a line fits to");
    } else {
      LineFit f = fit.get();
      all.add("source over Z0 " + known(f.ratio(), f.ratioU(), Unit.ONE));
      all.add("Z0 " + known(f.z0(), f.z0U(), Unit.OHM) + ", if the source is as taken");
      all.add("one pass " + known(f.delay(), f.delayU(), Unit.SECOND));
      all.addAll(f.told());
      if (f.told().isEmpty()) {
        all.add("it agrees with what was taken");
      }
    }
    notes.add(Margin.Note.plain("What the capture of " + place + " says", all));
  }

  private static String known(double v, double u, Unit unit) {
    return EngineeringNumber.print(v, unit, 3)
        + (Double.isFinite(u) ? " ± " + EngineeringNumber.print(u, unit, 2) : "");
  }

  private static List<String> advice(LineFace.Shown s) {
    Optional<SeriesWindow.Range> r = s.seen().flatMap(SeriesWindow::range);
    if (r.isEmpty()) {
      return List.of(
          s.seen().isEmpty()
              ? "say the thresholds of its inputs: W"
              : "no resistor at the source makes every place within: a shorter line, a slower edge, or"
                  + " a buffer for each");
    }
    List<String> all = new ArrayList<>();
    all.add(
        "every place is within from "
            + EngineeringNumber.print(r.get().low(), Unit.OHM, 3)
            + " to "
            + EngineeringNumber.print(r.get().high(), Unit.OHM, 3)
            + ": take "
            + EngineeringNumber.print(r.get().nearest(), Unit.OHM, 3));
    for (int i = 0; i < s.names().size(); i++) {
      Arrives a = s.seen().get().arrives().get(i);
      all.add(
          s.names().get(i)
              + "  "
              + EngineeringNumber.print(a.peak(), Unit.VOLT, 3)
              + ", back to "
              + EngineeringNumber.print(a.dip(), Unit.VOLT, 3)
              + ", "
              + a.verdict().words());
    }
    return all;
  }
}
