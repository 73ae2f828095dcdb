package ell.desk.window;

import ell.core.heat.Alloy;
import ell.core.order.Method;
import ell.desk.shell.DeskModel;
import ell.desk.shell.Importing;
import ell.files.Source;
import ell.work.bring.FileKind;
import ell.work.bring.ImportFiles;
import ell.work.bring.LayerKind;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicBoolean;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;

/// What a new revision needs: its files, its names, the build. Tells dropped files apart by what is
/// in them.
public final class SetupModel {
  private final DeskModel desk;
  private final Map<FileKind, Path> files = new EnumMap<>(FileKind.class);
  private final ReadOnlyObjectWrapper<List<String>> problems =
      new ReadOnlyObjectWrapper<>(this, "problems", List.of());
  private final ReadOnlyObjectWrapper<Map<FileKind, Path>> chosen =
      new ReadOnlyObjectWrapper<>(this, "chosen", Map.of());
  private final StringProperty design = new SimpleStringProperty(this, "design", "");
  private final StringProperty revision = new SimpleStringProperty(this, "revision", "A");
  private final StringProperty boards = new SimpleStringProperty(this, "boards", "5");
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
  public ReadOnlyObjectProperty<Map<FileKind, Path>> chosenProperty() {
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
          Map<FileKind, Path> found = new EnumMap<>(FileKind.class);
          List<String> unknown = new ArrayList<>();
          for (Path p : dropped) {
            try {
              Optional<FileKind> kind = FileKind.of(p);
              if (kind.isPresent()) {
                found.put(kind.get(), p);
              } else {
                unknown.add(
                    p.getFileName()
                        + ": not a bill of materials, placement, netlist, outline, shelf, ladder, layer or drill file");
              }
            } catch (IOException e) {
              unknown.add(p.getFileName() + ": cannot be read: " + e.getMessage());
            }
          }
          desk.runner()
              .ui()
              .execute(() -> {
                files.putAll(found);
                chosen.set(Map.copyOf(files));
                problems.set(unknown);
              });
        });
  }

  /// Whether the files that must be there are there.
  public boolean complete() {
    return files.containsKey(FileKind.BOM)
        && files.containsKey(FileKind.PLACEMENT)
        && files.containsKey(FileKind.NETLIST);
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
    int n = 0;
    try {
      n = Integer.parseInt(boards.get().strip());
    } catch (NumberFormatException e) {
      wrong.add("boards: expected a whole number, found '" + boards.get() + "'");
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
                Source.of(files.get(FileKind.BOM)),
                Source.of(files.get(FileKind.PLACEMENT)),
                Source.of(files.get(FileKind.NETLIST)),
                source(FileKind.OUTLINE),
                source(FileKind.SHELF),
                source(FileKind.LADDER),
                false,
                layers()),
            said(),
            new Importing.Wanted(
                n, Method.of(method.get()), Alloy.of(alloy.get()), variant.get().strip()),
            cancelled,
            problems::set);
  }

  private List<String> said() {
    return Arrays.stream(columns.get().split("\\s*[,;]\\s*"))
        .map(String::strip)
        .filter(s -> !s.isEmpty())
        .toList();
  }

  private Map<LayerKind, Source> layers() {
    Map<LayerKind, Source> all = new EnumMap<>(LayerKind.class);
    files.forEach((kind, path) -> kind.layer().ifPresent(l -> all.put(l, Source.of(path))));
    return all;
  }

  private Optional<Source> source(FileKind kind) {
    return Optional.ofNullable(files.get(kind)).map(Source::of);
  }

  /// Stops an import that is under way; nothing is stored then.
  public void cancel() {
    cancelled.set(true);
  }
}
