package ell.work.calc;

import ell.core.catalogue.Catalogue;
import ell.core.sheet.Sheet;
import ell.core.sheet.Worked;
import ell.work.heat.Profiles;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;

/// The whole catalogue: the sheets of the core, and those that read a file.
public final class FileSheets {
  private static final List<Sheet> SHEETS =
      Stream.concat(Catalogue.sheets().stream(), Stream.of(Profiles.sheet()))
          .sorted((a, b) -> a.name().compareTo(b.name()))
          .toList();

  private FileSheets() {}

  /// All sheets, sorted by name.
  public static List<Sheet> sheets() {
    return SHEETS;
  }

  /// Works a sheet.
  ///
  /// @throws ell.core.sheet.SheetProblem when there is no such sheet, or an input is not right
  public static Worked work(String name, Map<String, String> given) {
    return Catalogue.work(SHEETS, name, given);
  }
}
