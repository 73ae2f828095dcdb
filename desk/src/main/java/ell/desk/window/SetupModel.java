package ell.desk.window;

import ell.core.heat.Alloy;
import ell.core.order.Method;
import ell.desk.shell.DeskModel;
import ell.desk.shell.Importing;
import ell.files.Source;
import ell.work.bring.Dropped;
import ell.work.bring.FileKind;
import ell.work.bring.ImportFiles;
import ell.work.bring.LayerKind;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicBoolean;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;

/// What a new revision needs: its files, its names, the build. Tells dropped files apart by what is
/// in them.
public final class SetupModel {
  private final DeskModel desk;
  private Dropped files = Dropped.NOTHING;
  private final ReadOnlyObjectWrapper<List<String>> problems =
      new ReadOnlyObjectWrapper<>(this, "problems", List.of());
  private final ReadOnlyObjectWrapper<Map<FileKind, String>> chosen =
      new ReadOnlyObjectWrapper<>(this, "chosen", Map.of());
  private final StringProperty design = new SimpleStringProperty(this, "design", "");
  private final StringProperty revision = new SimpleStringProperty(this, "revision", "A");
  private final StringProperty boards = new SimpleStringProperty(this, "boards", "5");
  private final StringProperty panel = new SimpleStringProperty(this, "panel", "1");
  private final StringProperty method = new SimpleStringProperty(this, "method", "stencil-plate");
  private final StringProperty alloy = new SimpleStringProperty(this, "alloy", "sac305");
  private final StringProperty variant = new SimpleStringProperty(this, "variant", "");
  private final StringProperty columns = new SimpleStringProperty(this, "columns", "");
  private AtomicBoolean cancelled = new AtomicBoolean();

  /// A model for a desk.
  public SetupModel(DeskModel desk) {
    this.desk = desk;
  }

  /// What is wrong, one sentence each.
  public ReadOnlyObjectProperty<List<String>> problemsProperty() {
    return problems.getReadOnlyProperty();
  }

  /// Which file was taken for what.
  public ReadOnlyObjectProperty<Map<FileKind, String>> chosenProperty() {
    return chosen.getReadOnlyProperty();
  }

  /// Name of the design.
  public StringProperty designProperty() {
    return design;
  }

  /// Name of the revision.
  public StringProperty revisionProperty() {
    return revision;
  }

  /// How many boards.
  public StringProperty boardsProperty() {
    return boards;
  }

  /// How many of them hang together in a panel, 1 when none do.
  public StringProperty panelProperty() {
    return panel;
  }

  /// How they are soldered.
  public StringProperty methodProperty() {
    return method;
  }

  /// With what.
  public StringProperty alloyProperty() {
    return alloy;
  }

  /// Which variant of the bill; empty for the bill as it is.
  public StringProperty variantProperty() {
    return variant;
  }

  /// Which headings mean what, such as `value=Name, side=Layer`; empty where they speak for
  /// themselves.
  public StringProperty columnsProperty() {
    return columns;
  }

  /// Takes files that were dropped or chosen; tells them apart off the interface thread.
  public void take(List<Path> dropped) {
    desk.runner()
        .aside()
        .execute(() -> {
          Dropped found = Dropped.of(dropped.stream().map(Source::of).toList());
          desk.runner()
              .ui()
              .execute(() -> {
                files = files.and(found);
                chosen.set(names());
                problems.set(found.unknown());
              });
        });
  }

  private Map<FileKind, String> names() {
    Map<FileKind, String> all = new EnumMap<>(FileKind.class);
    files
        .found()
        .forEach((kind, some) ->
            all.put(kind, String.join(", ", some.stream().map(Source::name).toList())));
    return all;
  }

  /// Whether the files that must be there are there.
  public boolean complete() {
    return files
        .found()
        .keySet()
        .containsAll(List.of(FileKind.BOM, FileKind.PLACEMENT, FileKind.NETLIST));
  }

  /// Imports what was taken and makes the build.
  public void run() {
    List<String> wrong = new ArrayList<>();
    if (!complete()) {
      wrong.add("a bill of materials, a placement and a netlist are needed");
    }
    if (design.get().isBlank() || revision.get().isBlank()) {
      wrong.add("design and revision need a name");
    }
    int n = whole("boards", boards.get(), wrong);
    int together = whole("boards on a panel", panel.get(), wrong);
    for (FileKind k : FileKind.values()) {
      try {
        if (k != FileKind.DRILL) {
          files.one(k);
        }
      } catch (IllegalArgumentException e) {
        wrong.add(e.getMessage());
      }
    }
    if (!wrong.isEmpty()) {
      problems.set(wrong);
      return;
    }
    cancelled = new AtomicBoolean();
    problems.set(List.of());
    desk.importing()
        .revision(
            design.get().strip(),
            revision.get().strip(),
            new ImportFiles(
                files.one(FileKind.BOM).orElseThrow(),
                files.one(FileKind.PLACEMENT).orElseThrow(),
                files.one(FileKind.NETLIST).orElseThrow(),
                files.one(FileKind.OUTLINE),
                files.one(FileKind.SHELF),
                files.one(FileKind.LADDER),
                false,
                layers()),
            said(),
            new Importing.Wanted(
                n, Method.of(method.get()), Alloy.of(alloy.get()), variant.get().strip(), together),
            cancelled,
            problems::set);
  }

  private static int whole(String what, String text, List<String> wrong) {
    try {
      return Integer.parseInt(text.strip());
    } catch (NumberFormatException e) {
      wrong.add(what + ": expected a whole number, found '" + text + "'");
      return 0;
    }
  }

  private List<String> said() {
    return Arrays.stream(columns.get().split("\\s*[,;]\\s*"))
        .map(String::strip)
        .filter(s -> !s.isEmpty())
        .toList();
  }

  /// The edge is read with the revision, not as a layer of it.
  private Map<LayerKind, List<Source>> layers() {
    Map<LayerKind, List<Source>> all = files.layers();
    all.remove(LayerKind.OUTLINE);
    return all;
  }

  /// Stops an import that is under way; nothing is stored then.
  public void cancel() {
    cancelled.set(true);
  }
}
