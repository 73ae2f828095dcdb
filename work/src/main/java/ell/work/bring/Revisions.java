package ell.work.bring;

import ell.book.BookException;
import ell.book.Build;
import ell.book.RevisionStore;
import ell.core.board.Outline;
import ell.core.board.PackageShape;
import ell.core.board.PackageSheet;
import ell.core.board.Part;
import ell.core.board.Revision;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.heat.Alloy;
import ell.core.order.Method;
import ell.core.order.OrderFacts;
import ell.core.quantity.Check;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.files.Read;
import ell.files.Source;
import ell.files.csv.CsvFiles;
import ell.work.space.ActException;
import ell.work.space.Workspace;
import ell.work.space.Workspace.Change;
import java.io.IOException;
import java.io.StringWriter;
import java.nio.file.NoSuchFileException;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentHashMap;

/// The revisions of a workspace as they were imported, with what was kept with them since, and the
/// builds that are made of them. Safe for several threads.
public final class Revisions implements Workspace.Listener {
  private static final String PACKAGES = "packages";
  private static final int MOST_TOLD = 12;

  private final Workspace space;
  private final Map<String, Revision> known = new ConcurrentHashMap<>();

  /// The revisions of a workspace.
  public Revisions(Workspace space) {
    this.space = space;
    space.listen(this);
  }

  @Override
  public void changed(Change change) {
    if (change instanceof Change.Revision || change instanceof Change.Everything) {
      known.clear();
    }
  }

  /// Reads the files of a new revision and holds them against each other; changes nothing.
  ///
  /// @param said which headings mean what, such as `value=Name`; what is not said is as it was with
  ///   the latest revision of the design for which something was
  /// @throws ActException when what was said fits no file
  public RevisionImport.Outcome read(
      String design, String name, ImportFiles files, List<String> said)
      throws IOException, ActException {
    List<String> kept = new ArrayList<>();
    for (RevisionStore.Id id : space.book().revisions()) {
      if (id.design().equals(design)) {
        space.book().document(design, id.name(), ColumnChoice.KEY).ifPresent(kept::add);
      }
    }
    ColumnChoice before = kept.isEmpty() ? ColumnChoice.NONE : ColumnChoice.kept(kept.getLast());
    if (said.isEmpty() && before.isEmpty()) {
      return RevisionImport.read(design, name, files);
    }
    Map<FileKind, List<String>> headings = new EnumMap<>(FileKind.class);
    try {
      headings.put(FileKind.BOM, ColumnChoice.headings(files.bom(), true, said));
      headings.put(FileKind.PLACEMENT, ColumnChoice.headings(files.placement(), false, said));
    } catch (NoSuchFileException e) {
      throw new ActException("there is no such file: " + e.getMessage(), e);
    }
    return RevisionImport.read(
        design, name, files.with(ColumnChoice.of(said, headings).after(before, headings)));
  }

  /// Stores what an import read, in one transaction. A revision that is there already takes
  /// corrected files as long as nothing was built from what changed.
  ///
  /// @return what changed of a revision that was there; empty when it is new
  /// @throws ActException when boards were built from what changed, naming them
  public Optional<RevisionChange> store(RevisionImport.Outcome.Whole whole)
      throws BookException, ActException {
    Revision now = whole.revision();
    Optional<Revision> was = space.book().revision(now.design(), now.name());
    Optional<RevisionChange> change = was.map(w -> RevisionChange.of(w, now));
    if (change.isPresent()) {
      notBuilt(now, change.get());
      space.book().importAgain(now, whole.shelf(), whole.documents());
    } else {
      space.book().importAll(now, whole.shelf(), whole.documents());
    }
    told(whole);
    return change;
  }

  /// Refuses a change of what boards were built from.
  private void notBuilt(Revision revision, RevisionChange change)
      throws BookException, ActException {
    Map<String, List<String>> boards = new TreeMap<>();
    for (Build b : space.book().builds()) {
      if (!b.design().equals(revision.design()) || !b.revision().equals(revision.name())) {
        continue;
      }
      for (String board : b.boards()) {
        Set<String> touched = new HashSet<>(OrderFacts.of(space.state(board)).placed());
        for (Logged l : BoardState.standing(space.entries(board))) {
          switch (l.entry()) {
            case Entry.Defect d -> touched.add(BoardState.part(d.place()));
            case Entry.Action a -> touched.add(BoardState.part(a.place()));
            case Entry.Reading r -> touched.add(BoardState.part(r.place()));
            case Entry.Check c -> {
              touched.add(BoardState.part(c.a()));
              touched.add(BoardState.part(c.b()));
            }
            default -> {}
          }
        }
        for (String part : change.parts().keySet()) {
          if (touched.contains(part)) {
            boards.computeIfAbsent(part, _ -> new ArrayList<>()).add(board);
          }
        }
      }
    }
    if (boards.isEmpty()) {
      return;
    }
    List<String> lines = new ArrayList<>();
    boards.forEach((part, on) ->
        lines.add(
            change.words(part)
                + (on.size() == 1 ? " (board " : " (boards ")
                + String.join(" ", on)
                + ")"));
    throw new ActException(
        revision.title()
            + " was built from what these files change: "
            + String.join("; ", lines.subList(0, Math.min(lines.size(), MOST_TOLD)))
            + (lines.size() > MOST_TOLD ? "; and " + (lines.size() - MOST_TOLD) + " more" : "")
            + ". Import them as another revision");
  }

  private void told(RevisionImport.Outcome.Whole whole) {
    space.tell(new Change.Revision(whole.revision().design(), whole.revision().name()));
    space.tell(new Change.Shelf());
  }

  /// A revision.
  ///
  /// @throws ActException when there is none of that name, naming those that there are
  public Revision get(String design, String name) throws BookException, ActException {
    String key = design + "\n" + name;
    Revision is = known.get(key);
    if (is != null) {
      return is;
    }
    Optional<Revision> found = space.book().revision(design, name);
    if (found.isEmpty()) {
      List<String> there =
          space.book().revisions().stream().map(r -> r.design() + " rev " + r.name()).toList();
      throw new ActException(
          "there is no revision "
              + design
              + " rev "
              + name
              + "; "
              + (there.isEmpty()
                  ? "nothing is imported yet"
                  : "there are " + String.join(", ", there)));
    }
    Optional<String> packages = space.book().document(design, name, PACKAGES);
    Revision whole =
        packages.isEmpty()
            ? found.get()
            : found.get().with(PackageSheet.SHIPPED.with(packages(packages.get())));
    Optional<String> edge = space.book().document(design, name, LayerKind.OUTLINE.key());
    if (edge.isPresent()) {
      whole = whole.with(edge(edge.get()));
    }
    known.put(key, whole);
    return whole;
  }

  private static Outline edge(String text) throws BookException, ActException {
    try {
      return switch (Layers.outline(Source.of("outline", text))) {
        case Read.Whole<Outline>(Outline o, var _) -> o;
        case Read.Flawed<Outline>(var p) -> throw new ActException(p.getFirst().toString());
      };
    } catch (BookException e) {
      throw e;
    } catch (IOException e) {
      throw new ActException("the outline cannot be read: " + e.getMessage(), e);
    }
  }

  private static List<PackageSheet.Line> packages(String csv) throws BookException, ActException {
    try {
      return ShelfFiles.packages(Source.of("package sheet", csv));
    } catch (BookException e) {
      throw e;
    } catch (IOException e) {
      throw new ActException("the package sheet cannot be read: " + e.getMessage(), e);
    }
  }

  /// The latest revision, for acts that need no build.
  public RevisionStore.Id latest() throws BookException, ActException {
    List<RevisionStore.Id> all = space.book().revisions();
    if (all.isEmpty()) {
      throw new ActException(
          "nothing is imported yet; begin with: import WS --design D --revision R --bom F"
              + " --placement F --netlist F");
    }
    return all.getLast();
  }

  /// Keeps layers with a revision that stands, all or none; those of before are replaced.
  public void putLayers(String design, String name, Map<String, String> texts)
      throws BookException, ActException {
    get(design, name);
    Map<String, String> all = new TreeMap<>(texts);
    if (texts.containsKey(LayerKind.DRILL.key())) {
      // further files of holes from before are of another order
      for (int i = 2;
          space.book().document(design, name, LayerKind.DRILL.key() + "-" + i).isPresent();
          i++) {
        all.putIfAbsent(LayerKind.DRILL.key() + "-" + i, "");
      }
    }
    space.book().putDocuments(design, name, all);
    space.tell(new Change.Revision(design, name));
  }

  /// The package sheet that is kept with a revision, as it was given.
  public Optional<String> packagesOf(String design, String name) throws BookException {
    return space.book().document(design, name, PACKAGES);
  }

  /// Keeps lines of a package sheet with a revision, before those that ship.
  ///
  /// @param csv with the headings of the sheet that ships
  /// @throws ActException when it is no package sheet
  public void setPackages(String design, String name, String csv)
      throws BookException, ActException {
    get(design, name);
    packages(csv);
    space.book().putDocument(design, name, PACKAGES, csv);
    space.tell(new Change.Revision(design, name));
  }

  /// Says how tall a package of a revision stands; what else is known of it, and what was said of
  /// other packages, stays.
  ///
  /// @param said a package and a height, `TO-220-3=19.5mm`
  /// @throws ActException when no part has such a package, or that is no height
  public void setHeight(String design, String name, String said)
      throws BookException, ActException {
    int equals = said.lastIndexOf('=');
    if (equals < 1) {
      throw new ActException(
          "expected a package and its height such as TO-220-3=19.5mm, found '" + said + "'");
    }
    String packageName = said.substring(0, equals).strip();
    Revision revision = get(design, name);
    Part part =
        revision.parts().stream()
            .filter(p -> p.packageName().equalsIgnoreCase(packageName))
            .findFirst()
            .orElseThrow(() ->
                new ActException(
                    "no part of "
                        + revision.title()
                        + " has the package '"
                        + packageName
                        + "'; there are "
                        + String.join(
                            ", ",
                            revision.parts().stream()
                                .map(Part::packageName)
                                .filter(n -> !n.isEmpty())
                                .distinct()
                                .sorted()
                                .toList())));
    double mm;
    try {
      String height = said.substring(equals + 1).strip();
      mm =
          Character.isLetter(height.isEmpty() ? 'x' : height.charAt(height.length() - 1))
              ? EngineeringNumber.parse(height, Unit.METRE) * 1000
              : EngineeringNumber.parse(height, Unit.ONE);
      Check.inRange(mm, 0.05, 200, "height in mm");
    } catch (IllegalArgumentException e) {
      throw new ActException("the height of " + packageName + ": " + e.getMessage(), e);
    }
    PackageShape is = revision.shape(part);
    List<PackageSheet.Line> lines = new ArrayList<>();
    lines.add(
        new PackageSheet.Line(
            // bodies are looked up without the name of a library before them
            part.packageName().substring(part.packageName().lastIndexOf(':') + 1),
            is.family(),
            is.lengthMm(),
            is.widthMm(),
            mm,
            is.massGrams(),
            0,
            is.mark(),
            is.heat(),
            "as the maker says"));
    Optional<String> kept = packagesOf(design, name);
    if (kept.isPresent()) {
      packages(kept.get()).stream()
          .filter(l -> !l.names().equalsIgnoreCase(lines.getFirst().names()))
          .forEach(lines::add);
    }
    StringWriter csv = new StringWriter();
    try {
      CsvFiles.table(PackageSheet.HEADING, lines.stream().map(PackageSheet::cells).toList(), csv);
    } catch (IOException e) {
      throw new IllegalStateException("memory takes what is written", e);
    }
    setPackages(design, name, csv.toString());
  }

  /// Makes a build of a variant of a revision.
  ///
  /// @param boards 1...1000
  /// @param variant one that the bill speaks of, empty for the bill as it is
  /// @throws ActException when a value is out of its range, or there is no such variant
  public Build build(
      String design,
      String name,
      int boards,
      Method method,
      Alloy alloy,
      String prefix,
      String variant)
      throws BookException, ActException {
    known(get(design, name), variant);
    if (boards < 1 || boards > 1000) {
      throw new ActException("a build has 1 to 1000 boards, got " + boards);
    }
    if (!prefix.matches("[A-Za-z0-9_-]{0,12}")) {
      throw new ActException(
          "a prefix has up to 12 letters, digits, - or _, found '" + prefix + "'");
    }
    return space.book().makeBuild(design, name, boards, method.key(), alloy.key(), prefix, variant);
  }

  /// Refuses a variant that the bill does not speak of; empty, the bill as it is, always holds.
  ///
  /// @throws ActException when there is no such variant, naming those that there are
  public static void known(Revision revision, String variant) throws ActException {
    if (!variant.isEmpty() && !revision.variants().contains(variant)) {
      throw new ActException(
          revision.title()
              + " has no variant '"
              + variant
              + "'; "
              + (revision.variants().isEmpty()
                  ? "its bill speaks of none"
                  : "there are " + String.join(", ", revision.variants())));
    }
  }
}
