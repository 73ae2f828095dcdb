package ell.cli.bench;

import ell.core.power.Fault;
import ell.core.power.FaultWords;
import ell.work.space.ActException;
import java.util.ArrayList;
import java.util.List;

/// Faults as they are given on the command line.
public final class FaultOptions {
  private FaultOptions() {}

  /// Reads them.
  ///
  /// @throws ActException when one is no fault that is known
  public static List<Fault> parse(List<String> words) throws ActException {
    List<Fault> all = new ArrayList<>();
    for (String f : words) {
      try {
        all.add(FaultWords.parse(f));
      } catch (IllegalArgumentException e) {
        throw new ActException(e.getMessage(), e);
      }
    }
    return all;
  }
}
