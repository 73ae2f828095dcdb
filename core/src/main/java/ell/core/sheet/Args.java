package ell.core.sheet;

import java.util.LinkedHashMap;
import java.util.Map;

/// The inputs of one call of a sheet, read and within range.
public final class Args {
  private final Map<String, Object> values;

  Args(Map<String, Object> values) {
    this.values = new LinkedHashMap<>(values);
  }

  /// Whether the input was given or has a default.
  public boolean has(String name) {
    return values.containsKey(name);
  }

  /// A number in the unit that the sheet states.
  public double number(String name) {
    return (Double) values.get(name);
  }

  /// A whole number.
  public long whole(String name) {
    return (long) number(name);
  }

  /// Words.
  public String text(String name) {
    return (String) values.get(name);
  }

  /// Puts every input on the sheet.
  public Worked.Builder on(Worked.Builder sheet) {
    values.forEach(sheet::input);
    return sheet;
  }
}
