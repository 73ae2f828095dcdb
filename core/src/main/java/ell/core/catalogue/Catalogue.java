package ell.core.catalogue;

import ell.core.beep.BeepSheets;
import ell.core.heat.HeatSheets;
import ell.core.heat.WireSheets;
import ell.core.jig.JigSheets;
import ell.core.kit.KitSheets;
import ell.core.look.LookSheets;
import ell.core.order.OrderSheets;
import ell.core.power.PowerSheets;
import ell.core.print.StencilSheets;
import ell.core.prove.ProveSheets;
import ell.core.pulse.PulseSheets;
import ell.core.revise.ReviseSheets;
import ell.core.sheet.Sheet;
import ell.core.sheet.SheetProblem;
import ell.core.sheet.Worked;
import ell.core.talk.TalkSheets;
import ell.core.trace.TraceSheets;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/// Every stand-alone sheet, by name. The command line, the margin's drawer and the documentation
/// are made from this.
public final class Catalogue {
  private static final List<Sheet> SHEETS =
      Stream.of(
              BeepSheets.all(),
              HeatSheets.all(),
              JigSheets.all(),
              KitSheets.all(),
              LookSheets.all(),
              OrderSheets.all(),
              PowerSheets.all(),
              ProveSheets.all(),
              ReviseSheets.all(),
              PulseSheets.all(),
              TalkSheets.all(),
              TraceSheets.all(),
              StencilSheets.all(),
              WireSheets.all())
          .flatMap(List::stream)
          .sorted((a, b) -> a.name().compareTo(b.name()))
          .toList();

  private Catalogue() {}

  /// All sheets, sorted by name.
  public static List<Sheet> sheets() {
    return SHEETS;
  }

  /// Works a sheet.
  ///
  /// @param name such as `power.linear`
  /// @param given key to text
  /// @throws SheetProblem when there is no such sheet, or an input is not right
  public static Worked work(String name, Map<String, String> given) {
    return work(SHEETS, name, given);
  }

  /// Works a sheet of a longer catalogue.
  public static Worked work(List<Sheet> sheets, String name, Map<String, String> given) {
    return sheets.stream()
        .filter(s -> s.name().equals(name))
        .findFirst()
        .orElseThrow(() ->
            new SheetProblem(
                "there is no sheet '"
                    + name
                    + "'; there are "
                    + sheets.stream().map(Sheet::name).collect(Collectors.joining(", "))))
        .work(given);
  }
}
