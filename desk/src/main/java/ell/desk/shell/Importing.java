package ell.desk.shell;

import ell.core.heat.Alloy;
import ell.core.order.Method;
import ell.work.Workshop;
import ell.work.bring.FileAccount;
import ell.work.bring.ImportFiles;
import ell.work.bring.RevisionChange;
import ell.work.bring.RevisionImport;
import ell.work.bring.Revisions;
import ell.work.space.ActException;
import java.io.IOException;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.Consumer;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;

/// Takes the files of a revision into the open workspace, and makes a build of it.
public final class Importing {
  private final DeskModel desk;
  private final ReadOnlyObjectWrapper<Report> report =
      new ReadOnlyObjectWrapper<>(this, "report", Report.NONE);

  Importing(DeskModel desk) {
    this.desk = desk;
  }

  /// What the files of the revision that was taken in last said.
  public record Report(String design, String revision, List<FileAccount> files) {
    /// Nothing was taken in yet.
    public static final Report NONE = new Report("", "", List.of());

    /// Whether something was guessed or is to be minded.
    public boolean asks() {
      return files.stream()
          .map(FileAccount::account)
          .anyMatch(a -> !a.guesses().isEmpty() || !a.warnings().isEmpty());
    }
  }

  /// What the files of the revision that was taken in last said.
  public ReadOnlyObjectProperty<Report> reportProperty() {
    return report.getReadOnlyProperty();
  }

  /// Says how tall a package stands.
  ///
  /// @param mm as typed, millimetres where no unit stands behind the number
  /// @param kept is told when it is kept, on the interface thread
  public void stands(Report of, String packageName, String mm, Runnable kept) {
    desk.act(w -> {
      w.revisions().setHeight(of.design(), of.revision(), packageName + "=" + mm);
      desk.say("how tall " + packageName + " stands is kept");
      desk.runner().ui().execute(kept);
    });
  }

  /// The build that is made with a new revision.
  ///
  /// @param boards 1...1000
  /// @param variant one that the bill speaks of, empty for the bill as it is
  /// @param panel how many boards hang together, 1 when none do
  public record Wanted(int boards, Method method, Alloy alloy, String variant, int panel) {}

  /// Imports the files of a revision, and makes a build of it.
  ///
  /// @param columns which headings mean what, such as `value=Name`
  /// @param cancelled once it is true nothing will be stored
  /// @param refused is told the problems, on the interface thread
  public void revision(
      String design,
      String name,
      ImportFiles files,
      List<String> columns,
      Wanted build,
      AtomicBoolean cancelled,
      Consumer<List<String>> refused) {
    desk.lengthy(
        "reading the files of " + design + " rev " + name,
        w -> {
          switch (w.revisions().read(design, name, files, columns)) {
            case RevisionImport.Outcome.Refused r -> {
              List<String> problems = r.problems().stream().map(Object::toString).toList();
              desk.runner().ui().execute(() -> refused.accept(problems));
            }
            case RevisionImport.Outcome.Whole whole -> {
              if (cancelled.get()) {
                desk.say("stopped: nothing was imported");
              } else {
                store(w, whole, build);
              }
              desk.look();
            }
          }
        },
        e -> refused.accept(List.of(e)));
  }

  private void store(Workshop w, RevisionImport.Outcome.Whole whole, Wanted build)
      throws IOException, ActException {
    Revisions.known(whole.revision(), build.variant());
    String design = whole.revision().design();
    String name = whole.revision().name();
    Optional<RevisionChange> change = w.revisions().store(whole);
    if (change.isPresent()
        && w.book().builds().stream()
            .anyMatch(b -> b.design().equals(design) && b.revision().equals(name))) {
      // corrected files make no further boards
      int parts = change.get().parts().size();
      desk.say(
          whole.revision().title()
              + " was there already: "
              + (parts == 0
                  ? "nothing of it changed"
                  : parts
                      + " parts changed, such as "
                      + change.get().words(change.get().parts().keySet().iterator().next())));
      return;
    }
    w.makeBuild(
        whole.revision().design(),
        whole.revision().name(),
        build.boards(),
        build.method(),
        build.alloy(),
        "",
        build.variant(),
        build.panel());
    Report said = new Report(whole.revision().design(), whole.revision().name(), whole.files());
    desk.runner().ui().execute(() -> report.set(said));
    desk.say(
        whole.revision().title()
            + " is in, with "
            + whole.guesses().size()
            + " guesses, "
            + whole.warnings().size()
            + " things to mind and "
            + whole.passedOver().size()
            + " passed over");
  }
}
