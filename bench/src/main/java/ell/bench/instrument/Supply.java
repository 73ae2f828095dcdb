package ell.bench.instrument;

import ell.bench.dialect.Dialect;
import ell.bench.link.BenchException;
import ell.bench.link.ScpiLink;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/// A bench supply of one output or several. Volts and amperes.
///
/// What is set, switched and measured is that of the output that was selected last; with one output
/// nothing is ever selected.
public final class Supply extends Instrument {
  /// Its kind.
  public static final Kind<Supply> KIND = new Kind<>("supply", Supply::new);

  /// A measured current that may be none at all, A; typical, no source.
  private static final double NOTHING = 0.01;

  /// Share of the set point that the terminals do not keep when the output is off; likewise.
  private static final double STILL_THERE = 0.98;

  private static final double LEAST_VOLTS = 0.3;

  private List<Integer> outputs = List.of(1);
  private int output = 1;

  /// A supply behind a link, as [Dialect#generic] says; nothing is sent yet.
  public Supply(ScpiLink link) {
    this(link, Dialect.generic("supply"));
  }

  /// A supply with a dialect of its own.
  public Supply(ScpiLink link, Dialect says) {
    super(link, "supply", says);
  }

  /// Which outputs will be used: whoever watches over the link switches off every one of them.
  ///
  /// @param used counted from 1, the first of them is selected
  /// @throws BenchException when there are several and the dialect says of none how it is selected
  public void outputs(List<Integer> used) throws BenchException {
    if (!used.equals(List.of(1)) && !says.has("select")) {
      throw new BenchException(
          "the supply at " + link.where() + " has one output by its dialect, asked for are " + used,
          true);
    }
    outputs = List.copyOf(used);
    output = outputs.getFirst();
    List<String> lines = new ArrayList<>();
    for (int o : outputs) {
      if (several()) {
        lines.add(says.line("select", String.valueOf(o)));
      }
      lines.add(says.line("off"));
      lines.add(says.line("askOn"));
    }
    link.safe(lines);
  }

  private boolean several() {
    return !outputs.equals(List.of(1));
  }

  /// Selects one of its outputs, and asks which one is.
  public void select(int wanted) throws BenchException {
    if (several()) {
      command(says.line("select", String.valueOf(wanted)));
      selected(wanted);
    }
    output = wanted;
  }

  /// A supply of one output may take the command without a word, and what is meant for another
  /// source would go to the first.
  private void selected(int wanted) throws BenchException {
    if (!says.has("askSelect")) {
      return;
    }
    String what;
    try {
      double said = number(says.line("askSelect"));
      if (said == wanted) {
        return;
      }
      what = "says that " + text(said) + " is";
    } catch (BenchException e) {
      what = "does not say which one is: " + e.getMessage();
    }
    throw new BenchException(
        "the supply at " + link.where() + " was to select output " + wanted + " and " + what, true);
  }

  /// Clears the error queue and switches every output off: what is done first on each connection.
  ///
  /// @throws BenchException when it does not confirm that it is off: it is not to be used then
  public void makeSafe() throws BenchException {
    clearErrors();
    int before = output;
    for (int o : outputs) {
      select(o);
      command(says.line("off"));
      Optional<String> still = offHere();
      if (still.isPresent()) {
        throw wrong("does not obey OFF: " + still.get());
      }
    }
    select(before);
  }

  /// Sets voltage and current limit, and reads both back.
  public void set(double volts, double limit) throws BenchException {
    command(says.line("setAmps", limit));
    command(says.line("setVolts", volts));
    confirm(says.line("askAmps"), limit);
    confirm(says.line("askVolts"), volts);
  }

  private void confirm(String query, double wanted) throws BenchException {
    double said = reading(query);
    if (Math.abs(said - wanted) > 0.002 + 0.005 * Math.abs(wanted)) {
      throw wrong("was set to " + text(wanted) + " and says " + text(said) + " to '" + query + "'");
    }
  }

  /// Switches the output.
  public void output(boolean on) throws BenchException {
    command(says.line(on ? "on" : "off"));
    if (flag(says.line("askOn")) != on) {
      throw wrong("does not switch its output " + (on ? "on" : "off"));
    }
  }

  /// Volts at its terminals.
  public double volts() throws BenchException {
    return reading(says.line("volts"));
  }

  /// Amperes out of it.
  public double amps() throws BenchException {
    return reading(says.line("amps"));
  }

  /// Tells it to switch every output off, on the link that stands, and asks whether they are: by
  /// its own word and by what it measures, no current, and not the volts that it was set to. A
  /// board holds its charge for a while: it is asked again later when only the volts speak against
  /// it.
  ///
  /// @return empty when all say so; else what does not
  public Optional<String> off() {
    if (!several()) {
      return offHere();
    }
    Optional<String> problem = Optional.empty();
    for (int o : outputs) {
      Optional<String> here = offAt(o);
      problem = problem.isPresent() ? problem : here;
    }
    return problem;
  }

  private Optional<String> offAt(int wanted) {
    try {
      command(says.line("select", String.valueOf(wanted)));
      selected(wanted);
    } catch (BenchException e) {
      if (!e.refused()) {
        return Optional.of(e.getMessage());
      }
      if (wanted != 1) {
        return Optional.empty(); // it has no such output, which is then not on
      }
    }
    return offHere();
  }

  private Optional<String> offHere() {
    try {
      link.send(says.line("off"));
      if (flag(says.line("askOn"))) {
        return Optional.of("the supply says that its output is still on");
      }
      double amps = amps();
      if (Math.abs(amps) > NOTHING) {
        return Optional.of(
            String.format(
                Locale.ROOT, "the supply says that it is off, and measures %.3f A", amps));
      }
      double volts = volts();
      double set = reading(says.line("askVolts"));
      return set > LEAST_VOLTS && volts > set * STILL_THERE
          ? Optional.of(
              String.format(
                  Locale.ROOT, "the supply says that it is off, and measures %.3f V", volts))
          : Optional.empty();
    } catch (BenchException e) {
      return Optional.of(e.getMessage());
    }
  }

  private static String text(double d) {
    return String.format(Locale.ROOT, "%.6g", d);
  }
}
