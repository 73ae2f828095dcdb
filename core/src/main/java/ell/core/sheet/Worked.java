package ell.core.sheet;

import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// A worked sheet: what went in, each step, what came out, where the formula is from, what was
/// assumed and what to take care of. Pure data.
///
/// @param sheet the catalogue name, such as `power.linear`, or a stage's own name
/// @param title a short sentence for the head of the sheet
/// @param inputs name to [Double] in SI units, [String], or [List] of doubles
/// @param lines the working, in order
/// @param results name to [Double], [String] or [List]
/// @param verdict when the sheet judges something
/// @param assumptions what was taken for granted
/// @param sources where the formulas and constants come from
/// @param cautions what may hurt, and whose word decides
public record Worked(
    String sheet,
    String title,
    Map<String, Object> inputs,
    List<Line> lines,
    Map<String, Object> results,
    Optional<Verdict> verdict,
    List<String> assumptions,
    List<String> sources,
    List<String> cautions) {

  /// One line of working.
  ///
  /// @param symbol what is computed
  /// @param formula the formula with the numbers in it
  /// @param value a [Double] in `unit`, a [String] or a [List]
  /// @param unit the unit's symbol, empty for text and pure numbers
  /// @param display the value as a person reads it
  public record Line(String symbol, String formula, Object value, String unit, String display) {}

  public Worked {
    inputs = Collections.unmodifiableMap(new LinkedHashMap<>(inputs));
    lines = List.copyOf(lines);
    results = Collections.unmodifiableMap(new LinkedHashMap<>(results));
    assumptions = List.copyOf(assumptions);
    sources = List.copyOf(sources);
    cautions = List.copyOf(cautions);
  }

  /// A result that is a number.
  ///
  /// @throws IllegalArgumentException when there is no such number
  public double number(String name) {
    if (results.get(name) instanceof Double d) {
      return d;
    }
    throw new IllegalArgumentException(
        "sheet " + sheet + " has no number '" + name + "', it has " + results.keySet());
  }

  /// Starts a sheet.
  public static Builder of(String sheet, String title) {
    return new Builder(sheet, title);
  }

  /// Collects a sheet line by line.
  public static final class Builder {
    private final String sheet;
    private final String title;
    private final Map<String, Object> inputs = new LinkedHashMap<>();
    private final List<Line> lines = new ArrayList<>();
    private final Map<String, Object> results = new LinkedHashMap<>();
    private Optional<Verdict> verdict = Optional.empty();
    private final List<String> assumptions = new ArrayList<>();
    private final List<String> sources = new ArrayList<>();
    private final List<String> cautions = new ArrayList<>();

    private Builder(String sheet, String title) {
      this.sheet = sheet;
      this.title = title;
    }

    /// Records an input as it was used.
    public Builder input(String name, Object value) {
      inputs.put(name, value);
      return this;
    }

    /// Adds a line whose value is in `unit`, shown with four significant digits.
    public Builder line(String symbol, String formula, double value, Unit unit) {
      // a count is shown as it is
      boolean whole = unit == Unit.ONE && value == Math.rint(value) && Math.abs(value) < 1e9;
      String display =
          whole ? EngineeringNumber.print(value, unit) : EngineeringNumber.print(value, unit, 4);
      lines.add(new Line(symbol, formula, value, unit.symbol(), display));
      return this;
    }

    /// Adds a line of words.
    public Builder line(String symbol, String formula, String value) {
      lines.add(new Line(symbol, formula, value, "", value));
      return this;
    }

    /// Adds a line whose value is in a unit that only people use, such as mil or hours.
    public Builder line(String symbol, String formula, double value, String unit) {
      String text = EngineeringNumber.print(value, Unit.ONE, 4);
      lines.add(new Line(symbol, formula, value, unit, unit.isEmpty() ? text : text + " " + unit));
      return this;
    }

    /// Records a result: a [Double], [String] or [List].
    public Builder result(String name, Object value) {
      results.put(name, value);
      return this;
    }

    /// Sets the verdict, and the result `verdict` with its key.
    public Builder verdict(Verdict v) {
      verdict = Optional.of(v);
      results.put("verdict", v.key());
      return this;
    }

    /// States something that is taken for granted.
    public Builder assume(String text) {
      assumptions.add(text);
      return this;
    }

    /// Names a source.
    public Builder source(String text) {
      sources.add(text);
      return this;
    }

    /// Adds a caution.
    public Builder caution(String text) {
      cautions.add(text);
      return this;
    }

    /// The finished sheet.
    public Worked done() {
      return new Worked(
          sheet, title, inputs, lines, results, verdict, assumptions, sources, cautions);
    }
  }
}
