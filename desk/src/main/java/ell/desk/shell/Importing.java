package ell.desk.shell;

import ell.core.heat.Alloy;
import ell.core.order.Method;
import ell.work.Workshop;
import ell.work.bring.ImportFiles;
import ell.work.bring.RevisionImport;
import ell.work.bring.Revisions;
import ell.work.space.ActException;
import java.io.IOException;
import java.util.List;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.Consumer;

/// Takes the files of a revision into the open workspace, and makes a build of it.
public final class Importing {
  private final DeskModel desk;

  Importing(DeskModel desk) {
    this.desk = desk;
  }

  /// The build that is made with a new revision.
  ///
  /// @param boards 1...1000
  /// @param variant one that the bill speaks of, empty for the bill as it is
  public record Wanted(int boards, Method method, Alloy alloy, String variant) {}

  /// Imports the files of a revision, and makes a build of it.
  ///
  /// @param cancelled once it is true nothing will be stored
  /// @param refused is told the problems, on the interface thread
  public void revision(
      String design,
      String name,
      ImportFiles files,
      Wanted build,
      AtomicBoolean cancelled,
      Consumer<List<String>> refused) {
    desk.lengthy(
        "reading the files of " + design + " rev " + name,
        w -> {
          switch (RevisionImport.read(design, name, files)) {
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
    w.revisions().store(whole);
    w.revisions()
        .build(
            whole.revision().design(),
            whole.revision().name(),
            build.boards(),
            build.method(),
            build.alloy(),
            "",
            build.variant());
    desk.say(
        whole.revision().title()
            + " is in, with "
            + whole.warnings().size()
            + " things to mind and "
            + whole.passedOver().size()
            + " passed over");
  }
}
