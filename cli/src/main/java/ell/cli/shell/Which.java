package ell.cli.shell;

import ell.book.Build;
import ell.book.RevisionStore;
import ell.core.order.Method;
import ell.core.rack.Plan;
import ell.work.Workshop;
import ell.work.space.ActException;
import java.io.IOException;
import java.util.Optional;
import picocli.CommandLine.Option;

/// Which revision, build or method is meant.
public final class Which {
  @Option(names = "--design", description = "name of the design; the latest when not said")
  public Optional<String> design = Optional.empty();

  @Option(names = "--revision", description = "name of the revision; the latest when not said")
  public Optional<String> revision = Optional.empty();

  @Option(names = "--build", description = "number of the build; the latest when not said")
  public Optional<Long> build = Optional.empty();

  @Option(
      names = "--method",
      description = "stencil-plate, hot-air or iron; the build's when not said")
  public Optional<String> method = Optional.empty();

  @Option(
      names = "--variant",
      description = "of the bill; the build's when not said, else the bill as it is")
  public Optional<String> variant = Optional.empty();

  /// The build that is meant, when there is one.
  public Optional<Build> build(Workshop w) throws IOException, ActException {
    if (build.isPresent()) {
      return Optional.of(w.build(build));
    }
    return w.book().builds().reversed().stream()
        .filter(b -> design.isEmpty() || design.get().equals(b.design()))
        .filter(b -> revision.isEmpty() || revision.get().equals(b.revision()))
        .findFirst();
  }

  /// The plan that is meant: of a build, else of a revision that has none yet.
  public Plan plan(Workshop w) throws IOException, ActException {
    Optional<Build> b = build(w);
    Method m = method(b);
    if (b.isPresent()) {
      return w.plans()
          .of(
              b.get().design(),
              b.get().revision(),
              m,
              variant.orElse(b.get().variant()),
              w.panels().of(b.get()));
    }
    RevisionStore.Id id = id(w);
    return w.plans().of(id.design(), id.name(), m, variant.orElse(""), 1);
  }

  /// The revision that is meant.
  public RevisionStore.Id id(Workshop w) throws IOException, ActException {
    RevisionStore.Id latest = w.revisions().latest();
    if (design.isEmpty() && revision.isEmpty()) {
      return build(w).map(b -> new RevisionStore.Id(b.design(), b.revision())).orElse(latest);
    }
    String d = design.orElse(latest.design());
    String r =
        revision.orElseGet(() -> {
          try {
            return w.book().revisions().reversed().stream()
                .filter(x -> x.design().equals(d))
                .map(RevisionStore.Id::name)
                .findFirst()
                .orElse(latest.name());
          } catch (IOException e) {
            return latest.name();
          }
        });
    w.revision(d, r);
    return new RevisionStore.Id(d, r);
  }

  /// For how many boards: as said, else as many as the build has.
  ///
  /// @throws ActException when neither says, or it is not in 1...1,000,000
  public static int boards(Optional<Integer> said, Optional<Build> build) throws ActException {
    int n =
        said.or(() -> build.map(b -> b.boards().size()))
            .orElseThrow(() ->
                new ActException("for how many boards? make a build first, or say --boards N"));
    if (n < 1 || n > 1_000_000) {
      throw new ActException("boards must be 1 or more, got " + n);
    }
    return n;
  }

  private Method method(Optional<Build> b) throws ActException {
    try {
      return Method.of(method.or(() -> b.map(Build::method)).orElse("stencil-plate"));
    } catch (IllegalArgumentException e) {
      throw new ActException(e.getMessage(), e);
    }
  }
}
