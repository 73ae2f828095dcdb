package ell.desk.pulse;

import ell.core.entry.Entry;
import ell.core.entry.Entry.Capture.Measure;
import ell.core.pulse.FilledSheets;
import ell.core.pulse.Wanted;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.core.sheet.Worked;
import ell.desk.shell.Margin;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// What the margin says of a place: what the instrument may have done, what was measured, what
/// should be there, what to take care of, where to look.
final class PulseMargin {
  private PulseMargin() {}

  static Margin say(PulseModel.Shown s, PulseView.Window window) {
    Wanted w = s.wanted().orElseThrow();
    List<Margin.Note> notes = new ArrayList<>();
    Optional<Entry.Capture> c = s.entry();
    if (c.isPresent() && !c.get().told().isEmpty()) {
      notes.add(Margin.Note.plain("Before it is judged", c.get().told()));
    }
    if (c.isPresent()) {
      notes.add(Margin.Note.plain("Cursors", window.words(s)));
    }
    List<String> guesses = new ArrayList<>(w.guesses());
    guesses.removeAll(c.map(Entry.Capture::told).orElse(List.of()));
    if (!guesses.isEmpty()) {
      notes.add(Margin.Note.plain("Guessed", guesses));
    }
    for (Worked f :
        FilledSheets.of(s.work().plan().revision(), s.work().plan().ladder(), w.net())) {
      notes.add(Margin.Note.plain(f.title(), filled(f)));
    }
    notes.add(
        Margin.Note.plain(
            "Read it with",
            List.of(
                "a probe of ten to one, its ground spring at the part, not the long lead",
                "a scope five times as fast as the edge: 0.35 / bandwidth is its own",
                "a crystal stops under a probe of one to one")));
    notes.add(
        Margin.Note.care(
            List.of(
                "The clip of a scope is earth: on a board that is not isolated it shorts what it"
                    + " touches.",
                "One slip between two pins under power costs a board: hold the tip on a test point.")));
    notes.add(
        Margin.Note.wrong(
            List.of(
                "no clock: some begin only after a boot loader has run",
                "0 V on a rail that is there: the coupling is AC",
                "a regular pulse in place of a program: it restarts, it lives",
                "a slow edge: a lamp or a long cable hangs on the line",
                "it rings: a resistor of the line's impedance at its source")));
    return new Margin(Optional.of(sheet(w, c)), notes);
  }

  /// A sheet with the parts of the revision in it, a line each.
  private static List<String> filled(Worked f) {
    List<String> all = new ArrayList<>();
    f.lines().forEach(l -> all.add(l.symbol() + " = " + l.display() + "  " + l.formula()));
    f.verdict().ifPresent(v -> all.add(v.words()));
    f.assumptions().forEach(a -> all.add("assumed: " + a));
    return all;
  }

  private static Worked sheet(Wanted w, Optional<Entry.Capture> c) {
    Worked.Builder b =
        Worked.of(
            "pulse.capture",
            c.map(x -> w.place() + ": " + x.says()).orElse(w.place() + " · no capture"));
    if (w.clock() > 0) {
      b.line("clock", w.clockGuessed() ? w.why() : "as it was said", w.clock(), Unit.HERTZ);
    }
    w.thresholds()
        .ifPresent(t -> {
          String from =
              w.input().isPresent()
                  ? "as it was said"
                  : w.family().map(f -> f.name() + (w.guessed() ? ", guessed" : "")).orElse("");
          if (Double.isFinite(t.vil())) {
            b.line("VIL", from, t.vil(), Unit.VOLT);
          }
          if (Double.isFinite(t.vih())) {
            b.line("VIH", from, t.vih(), Unit.VOLT);
          }
          if (Double.isFinite(t.most())) {
            b.line("Vmax", "what the input bears", t.most(), Unit.VOLT);
          }
        });
    if (c.isPresent()) {
      for (Measure m : c.get().measures()) {
        if (Double.isFinite(m.uncertainty()) && m.unit() != Unit.ONE) {
          b.line(
              m.name(),
              "± " + EngineeringNumber.print(m.uncertainty(), m.unit(), 2),
              m.value(),
              m.unit());
        } else {
          b.line(m.name(), how(m.name()), m.value(), m.unit());
        }
      }
      c.get().verdict().ifPresent(b::verdict);
      b.source(
          "IEEE 181: levels by the modes of a histogram, edges at 10, 50 and 90 %, from memory");
    }
    w.family().ifPresent(f -> b.source(f.source()));
    if (c.isPresent() && c.get().verdict().isEmpty()) {
      b.assume("nothing was said that it could be judged by: W");
    }
    return b.done();
  }

  private static String how(String name) {
    return switch (name) {
      case "overshoot", "undershoot" -> "share of the amplitude";
      case "duty" -> "share of the period above the middle";
      case "edges" -> "both ways";
      case "doubleClocks" -> "high again before it was low";
      case "jitter" -> "of single periods, less the noise";
      default -> "";
    };
  }

  /// What is said of a place, in a line.
  static String words(Wanted w) {
    StringBuilder s = new StringBuilder(w.place());
    if (w.clock() > 0) {
      s.append("  clock ").append(EngineeringNumber.print(w.clock(), Unit.HERTZ, 6));
      if (w.within() > 0) {
        s.append(" within ")
            .append(String.format(java.util.Locale.ROOT, "%.4g ppm", w.within() * 1e6));
      }
      s.append(w.clockGuessed() ? " (guessed)" : "");
    }
    w.family()
        .ifPresent(f -> s.append("  ").append(f.name()).append(w.guessed() ? " (guessed)" : ""));
    w.limits()
        .forEach((m, l) ->
            s.append("  ")
                .append(m)
                .append(' ')
                .append(l.text(ell.core.pulse.Measures.NAMES.get(m), 4)));
    w.line()
        .filter(Wanted.Driven::lined)
        .ifPresent(d ->
            s.append("  line ")
                .append(EngineeringNumber.print(d.length(), Unit.METRE, 3))
                .append(", ")
                .append(EngineeringNumber.print(d.z0(), Unit.OHM, 3)));
    return s.toString();
  }
}
