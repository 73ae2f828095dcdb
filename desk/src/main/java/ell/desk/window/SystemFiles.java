package ell.desk.window;

import ell.desk.shell.FileAsker;
import java.io.File;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import javafx.stage.DirectoryChooser;
import javafx.stage.FileChooser;
import javafx.stage.FileChooser.ExtensionFilter;
import javafx.stage.Window;

/// Asks with the system's own dialogs.
public final class SystemFiles implements FileAsker {
  private static final ExtensionFilter WORKSPACE = new ExtensionFilter("Workspace", "*.ell");
  private final Supplier<Window> owner;

  /// Dialogs over a window.
  public SystemFiles(Supplier<Window> owner) {
    this.owner = owner;
  }

  private static FileChooser chooser(String title, ExtensionFilter filter) {
    FileChooser c = new FileChooser();
    c.setTitle(title);
    c.getExtensionFilters().addAll(filter, new ExtensionFilter("All files", "*"));
    return c;
  }

  @Override
  public Optional<Path> workspaceToOpen() {
    return path(chooser("Open a workspace", WORKSPACE).showOpenDialog(owner.get()));
  }

  @Override
  public Optional<Path> workspaceToMake() {
    FileChooser c = chooser("Make a new workspace", WORKSPACE);
    c.setInitialFileName("boards.ell");
    return path(c.showSaveDialog(owner.get()));
  }

  @Override
  public List<Path> revisionFiles() {
    List<File> files =
        chooser(
                "Files of a revision",
                new ExtensionFilter(
                    "CSV, netlist, JSON",
                    "*.csv",
                    "*.ipc",
                    "*.356",
                    "*.net",
                    "*.d356",
                    "*.txt",
                    "*.json",
                    "*.gbr",
                    "*.ger",
                    "*.gtp",
                    "*.gbp",
                    "*.gto",
                    "*.gko",
                    "*.xnc",
                    "*.drl"))
            .showOpenMultipleDialog(owner.get());
    return files == null ? List.of() : files.stream().map(File::toPath).toList();
  }

  @Override
  public Optional<Path> record(String board) {
    FileChooser c = chooser("Record of board " + board, new ExtensionFilter("PDF", "*.pdf"));
    c.setInitialFileName("board-" + board + ".pdf");
    return path(c.showSaveDialog(owner.get()));
  }

  @Override
  public List<Path> shelfFiles() {
    List<File> files =
        chooser(
                "Offers, a shelf, parameters of parts",
                new ExtensionFilter("CSV", "*.csv", "*.txt"))
            .showOpenMultipleDialog(owner.get());
    return files == null ? List.of() : files.stream().map(File::toPath).toList();
  }

  @Override
  public Optional<Path> labels() {
    FileChooser c = chooser("Labels for the bins", new ExtensionFilter("PDF", "*.pdf"));
    c.setInitialFileName("labels.pdf");
    return path(c.showSaveDialog(owner.get()));
  }

  @Override
  public Optional<Path> profileLog() {
    return path(
        chooser("A temperature log", new ExtensionFilter("CSV", "*.csv", "*.txt", "*.log"))
            .showOpenDialog(owner.get()));
  }

  @Override
  public Optional<Path> capture() {
    return path(
        chooser("A capture", new ExtensionFilter("CSV or VCD", "*.csv", "*.txt", "*.vcd"))
            .showOpenDialog(owner.get()));
  }

  @Override
  public Optional<Path> script() {
    return path(
        chooser(
                "A script, or what firmware needs",
                new ExtensionFilter("JSON or CSV", "*.json", "*.csv"))
            .showOpenDialog(owner.get()));
  }

  @Override
  public Optional<Path> photograph() {
    return path(
        chooser("A photograph", new ExtensionFilter("Pictures", "*.jpg", "*.jpeg", "*.png"))
            .showOpenDialog(owner.get()));
  }

  @Override
  public Optional<Path> folder(String what) {
    DirectoryChooser c = new DirectoryChooser();
    c.setTitle(what);
    return path(c.showDialog(owner.get()));
  }

  private static Optional<Path> path(File f) {
    return Optional.ofNullable(f).map(File::toPath);
  }
}
