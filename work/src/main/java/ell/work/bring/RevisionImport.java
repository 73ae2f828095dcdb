package ell.work.bring;

import ell.core.board.BomLine;
import ell.core.board.Joint;
import ell.core.board.Netlist;
import ell.core.board.Outline;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Placement;
import ell.core.board.Revision;
import ell.core.board.Side;
import ell.core.kit.ShelfLine;
import ell.core.power.PowerJson;
import ell.core.quantity.Check;
import ell.files.Account;
import ell.files.Guess;
import ell.files.Problem;
import ell.files.Read;
import ell.files.Source;
import ell.files.csv.BomReader;
import ell.files.csv.PlacementReader;
import ell.files.csv.ShelfReader;
import ell.files.netlist.NetlistReader;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.NoSuchFileException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;

/// Reads the files of a revision, holds them against each other, and joins them: either a whole
/// revision or every problem that was found, in all files.
public final class RevisionImport {
  private static final int MOST_NAME = 80;

  /// Boards are larger and smaller than this, in millimetres; common practice, no source.
  private static final double LEAST_BOARD = 4;

  private static final double MOST_BOARD = 1500;
  private final List<Problem> errors = new ArrayList<>();
  private final Accounts accounts = new Accounts();

  private RevisionImport() {}

  /// What came of it.
  public sealed interface Outcome {
    /// The revision, whole.
    ///
    /// @param documents what is kept as it was given, by kind: ladder, layers, and which columns
    ///   were said to mean what
    /// @param files what is to be said of each file
    record Whole(
        Revision revision,
        Optional<List<ShelfLine>> shelf,
        Map<String, String> documents,
        List<FileAccount> files)
        implements Outcome {
      /// Things that were left out of all files.
      public List<Problem> passedOver() {
        return files.stream().flatMap(f -> f.account().passedOver().stream()).toList();
      }

      /// Things to mind about all files.
      public List<Problem> warnings() {
        return files.stream().flatMap(f -> f.account().warnings().stream()).toList();
      }

      /// What no file said.
      public List<Guess> guesses() {
        return files.stream().flatMap(f -> f.account().guesses().stream()).toList();
      }
    }

    /// Nothing, and why.
    record Refused(List<Problem> problems) implements Outcome {}
  }

  /// Reads and joins; touches no workspace.
  public static Outcome read(String design, String name, ImportFiles files) {
    try {
      Check.name(design, MOST_NAME, "the name of a design");
      Check.name(name, MOST_NAME, "the name of a revision");
    } catch (IllegalArgumentException e) {
      return new Outcome.Refused(List.of(new Problem("the names", 0, 0, e.getMessage())));
    }
    return new RevisionImport().run(design, name, files);
  }

  private interface Reading<T> {
    Read<T> of(Source source) throws IOException;
  }

  private <T> Optional<T> take(Source source, FileKind kind, Reading<T> reader) {
    try {
      return switch (reader.of(source)) {
        case Read.Whole<T>(T value, Account account) -> {
          accounts.take(source.name(), kind.words(), account);
          yield Optional.of(value);
        }
        case Read.Flawed<T>(List<Problem> problems) -> {
          errors.addAll(problems);
          yield Optional.empty();
        }
      };
    } catch (NoSuchFileException e) {
      errors.add(new Problem(source.name(), 0, 0, "there is no such file: " + e.getMessage()));
    } catch (IOException e) {
      errors.add(new Problem(source.name(), 0, 0, "cannot be read: " + e.getMessage()));
    }
    return Optional.empty();
  }

  private Outcome run(String design, String name, ImportFiles files) {
    Optional<List<BomLine>> bom =
        take(files.bom(), FileKind.BOM, s -> BomReader.read(s, files.columns().of(FileKind.BOM)));
    Optional<List<Placement>> places =
        take(
            files.placement(),
            FileKind.PLACEMENT,
            s -> PlacementReader.read(s, files.columns().of(FileKind.PLACEMENT)));
    Optional<Netlist> netlist = take(files.netlist(), FileKind.NETLIST, NetlistReader::read);
    Optional<Outline> outline =
        files.outline().flatMap(s -> take(s, FileKind.OUTLINE, Layers::outline));
    Optional<List<ShelfLine>> shelf =
        files.shelf().flatMap(s -> take(s, FileKind.SHELF, ShelfReader::read));
    Optional<String> ladder = files.ladder().flatMap(this::ladder);
    if (bom.isEmpty() || places.isEmpty() || netlist.isEmpty() || !errors.isEmpty()) {
      return new Outcome.Refused(List.copyOf(errors));
    }
    List<Part> parts = join(bom.get(), places.get(), netlist.get(), files);
    shelf.ifPresent(s -> foreign(s, parts, files.shelf().orElseThrow().name()));
    if (!errors.isEmpty()) {
      return new Outcome.Refused(List.copyOf(errors));
    }
    Revision revision =
        new Revision(design, name, parts, netlist.get().joints(), outline.orElse(Outline.UNKNOWN));
    apart(revision, files.placement().name());
    ladder.ifPresent(l -> strangers(l, revision, files.ladder().orElseThrow().name()));
    Layers.Outcome layers = Layers.read(files.layers(), revision);
    errors.addAll(layers.errors());
    layers.files().forEach(f -> accounts.take(f.file(), f.kind(), f.account()));
    sizes(revision, netlist.get(), files);
    Map<String, String> documents = new LinkedHashMap<>(layers.texts());
    ladder.ifPresent(l -> documents.put("ladder", l));
    documents.put(KeptHoles.VIAS, KeptHoles.text(netlist.get().vias()));
    if (!files.columns().isEmpty()) {
      documents.put(ColumnChoice.KEY, files.columns().text());
    }
    return errors.isEmpty()
        ? new Outcome.Whole(revision, shelf, documents, accounts.list())
        : new Outcome.Refused(List.copyOf(errors));
  }

  private Optional<String> ladder(Source source) {
    return take(
        source,
        FileKind.LADDER,
        s -> {
          String text;
          try (InputStream in = s.open()) {
            text = new String(in.readNBytes(10_000_000), StandardCharsets.UTF_8);
          }
          try {
            PowerJson.read(text);
            return new Read.Whole<>(text, Account.NOTHING);
          } catch (IllegalArgumentException e) {
            return new Read.Flawed<>(List.of(new Problem(s.name(), 0, 0, e.getMessage())));
          }
        });
  }

  /// A ladder may only speak of nets that the revision has.
  private void strangers(String ladder, Revision revision, String file) {
    LadderCheck.problems(PowerJson.read(ladder), revision)
        .forEach(p -> errors.add(new Problem(file, 0, 0, p)));
  }

  private List<Part> join(
      List<BomLine> bom, List<Placement> places, Netlist netlist, ImportFiles files) {
    Map<String, Placement> placed = new LinkedHashMap<>();
    places.forEach(p -> placed.put(p.reference(), p));
    Map<String, List<Joint>> joints = new HashMap<>();
    Map<String, Integer> firstLine = new LinkedHashMap<>();
    for (int i = 0; i < netlist.joints().size(); i++) {
      Joint j = netlist.joints().get(i);
      joints.computeIfAbsent(j.part(), _ -> new ArrayList<>()).add(j);
      firstLine.putIfAbsent(j.part(), netlist.lines().get(i));
    }
    Set<String> known = new HashSet<>();
    List<String> copper = new ArrayList<>();
    List<Part> parts = new ArrayList<>();
    for (BomLine line : bom) {
      for (String reference : line.references()) {
        known.add(reference);
        List<Joint> own = joints.getOrDefault(reference, List.of());
        boolean seat =
            PartKind.socket(line.value(), line.packageName(), line.code(), line.description());
        // a socket that the bill lists under the name of its chip sits where the chip sits
        Placement place =
            seat && reference.startsWith("X") && own.isEmpty()
                ? placed.getOrDefault(reference, placed.get(reference.substring(1)))
                : placed.get(reference);
        Optional<Part.Spot> spot = spot(line, reference, place, own, files);
        if (PartKind.of(reference).bare() && line.fitted()) {
          copper.add(reference);
        } else if (own.isEmpty() && line.fitted() && !seat && spot.isPresent()) {
          accounts.mind(
              files.bom().name(),
              line.line(),
              0,
              reference + " has no joints in " + files.netlist().name());
        }
        parts.add(part(line, reference, place, spot));
      }
    }
    if (!copper.isEmpty()) {
      accounts.found(
          files.bom().name(),
          copper.size()
              + " test points, fiducials or holes, which are copper and never fitted: "
              + String.join(" ", copper.stream().limit(8).toList())
              + (copper.size() > 8 ? " ..." : ""));
    }
    for (Placement p : places) {
      if (!known.contains(p.reference()) && !PartKind.of(p.reference()).bare()) {
        errors.add(
            new Problem(
                files.placement().name(),
                p.line(),
                0,
                p.reference()
                    + " is placed here but is not in "
                    + files.bom().name()
                    + "; expected each part in both"));
      }
    }
    firstLine.forEach((reference, line) -> {
      if (!known.contains(reference)
          && !placed.containsKey(reference)
          && !PartKind.of(reference).bare()) {
        accounts.mind(
            files.netlist().name(),
            line,
            21,
            "part " + reference + " has joints but is in no other file");
      }
    });
    return parts;
  }

  private Optional<Part.Spot> spot(
      BomLine line, String reference, Placement p, List<Joint> joints, ImportFiles files) {
    if (p != null) {
      return Optional.of(new Part.Spot(p.xMm(), p.yMm(), p.rotationDeg(), p.side()));
    }
    if (!line.fitted() || PartKind.of(reference).bare()) {
      return Optional.empty();
    }
    if (files.placeFromJoints() && !joints.isEmpty()) {
      double x = joints.stream().mapToDouble(Joint::xMm).average().orElseThrow();
      double y = joints.stream().mapToDouble(Joint::yMm).average().orElseThrow();
      boolean second = joints.stream().allMatch(j -> j.reach() == Joint.Reach.SECOND);
      accounts.mind(
          files.bom().name(),
          line.line(),
          0,
          reference + " is not in the placement: placed amid its joints");
      return Optional.of(new Part.Spot(x, y, 0, second ? Side.SECOND : Side.FIRST));
    }
    if (joints.isEmpty() && loose(reference)) {
      accounts.found(
          files.bom().name(),
          reference
              + " has no place and no joints ("
              + (line.value().isEmpty() ? line.description() : line.value())
              + "): it is attached at the end");
      return Optional.empty();
    }
    errors.add(
        new Problem(
            files.bom().name(),
            line.line(),
            0,
            reference
                + " is in the bill of materials but not in "
                + files.placement().name()
                + "; expected each fitted part in both (or place it amid its joints:"
                + " --place-from-joints)"));
    return Optional.empty();
  }

  /// Whether a part may be without a place: a cell, a cable, a screw; what is soldered has one.
  private static boolean loose(String reference) {
    return switch (PartKind.of(reference)) {
      case CELL, CONNECTOR, MODULE, SWITCH, OTHER -> true;
      default -> false;
    };
  }

  private static Part part(BomLine line, String reference, Placement p, Optional<Part.Spot> spot) {
    String packageName =
        !line.packageName().isEmpty() ? line.packageName() : p == null ? "" : p.packageName();
    String said = line.value().isEmpty() ? line.description() : line.value();
    // parts of one package whose values are not known are not the same part
    String plain = said.isEmpty() ? "" : (said + " " + packageName).strip();
    return new Part(
        reference,
        line.value(),
        packageName,
        !line.code().isEmpty() ? line.code() : plain.isEmpty() ? reference : plain,
        line.description(),
        line.fitted() && !PartKind.of(reference).bare(),
        line.key(),
        line.alternates(),
        line.block(),
        spot,
        line.massGrams(),
        line.unitCost(),
        line.variants(),
        line.spares());
  }

  /// A shelf of other codes than the bill's is most likely the shelf of something else.
  private void foreign(List<ShelfLine> shelf, List<Part> parts, String file) {
    Set<String> codes = new HashSet<>();
    parts.forEach(p -> {
      codes.add(p.code());
      codes.addAll(p.alternates());
    });
    if (!shelf.isEmpty() && shelf.stream().noneMatch(s -> codes.contains(s.code()))) {
      accounts.mind(file, 0, 0, "none of its codes is in the bill of materials");
    }
  }

  /// What the files hold together: nets, joints, the size of the board and what no tip reaches.
  private void sizes(Revision revision, Netlist netlist, ImportFiles files) {
    String file = files.netlist().name();
    accounts.found(file, revision.nets().size() + " nets, " + netlist.joints().size() + " joints");
    long masked = netlist.joints().stream().filter(j -> j.reach() == Joint.Reach.NONE).count();
    if (masked > 0) {
      accounts.found(file, masked + " joints are under mask on both sides: no tip reaches them");
    }
    bodies(revision, files.bom().name());
    double[] size = size(revision);
    String where = files.outline().map(Source::name).orElse(file);
    if (size[0] > 0) {
      String says =
          String.format(
              Locale.ROOT,
              "%s %.4g x %.4g mm",
              files.outline().isPresent() ? "board" : "joints spread over",
              size[0],
              size[1]);
      double most = Math.max(size[0], size[1]);
      if (most < LEAST_BOARD || most > MOST_BOARD) {
        accounts.mind(where, 0, 0, says + ": another unit or number format?");
      } else {
        accounts.found(where, says);
      }
    }
  }

  /// Bodies that no sheet knows: how large they were taken to be.
  private void bodies(Revision revision, String file) {
    Map<String, List<Part>> unknown = new TreeMap<>();
    for (Part p : revision.parts()) {
      if (p.fitted() && p.place().isPresent() && !p.kind().bare() && !revision.shape(p).known()) {
        unknown.computeIfAbsent(p.packageName(), _ -> new ArrayList<>()).add(p);
      }
    }
    unknown.forEach((name, parts) ->
        accounts.guess(BodyGuess.of(file, name, parts.size(), revision.shape(parts.getFirst()))));
  }

  private static double[] size(Revision r) {
    double[] x =
        !r.outline().loops().isEmpty()
            ? r.outline().loops().stream()
                .flatMap(List::stream)
                .mapToDouble(Outline.Point::xMm)
                .toArray()
            : r.joints().stream().mapToDouble(Joint::xMm).toArray();
    double[] y =
        !r.outline().loops().isEmpty()
            ? r.outline().loops().stream()
                .flatMap(List::stream)
                .mapToDouble(Outline.Point::yMm)
                .toArray()
            : r.joints().stream().mapToDouble(Joint::yMm).toArray();
    return new double[] {span(x), span(y)};
  }

  private static double span(double[] v) {
    return Arrays.stream(v).max().orElse(0) - Arrays.stream(v).min().orElse(0);
  }

  /// Placement and netlist that do not lie over each other have other units or another origin.
  private void apart(Revision revision, String file) {
    int looked = 0;
    int far = 0;
    for (Part p : revision.parts()) {
      List<Joint> own = revision.jointsOf(p.reference());
      if (p.place().isPresent() && !own.isEmpty()) {
        double x = own.stream().mapToDouble(Joint::xMm).average().orElseThrow();
        double y = own.stream().mapToDouble(Joint::yMm).average().orElseThrow();
        looked++;
        far += Math.hypot(x - p.place().get().xMm(), y - p.place().get().yMm()) > 10 ? 1 : 0;
      }
    }
    if (far * 2 > looked && looked > 0) {
      accounts.mind(
          file,
          0,
          0,
          far
              + " of "
              + looked
              + " parts lie more than 10 mm from their joints:"
              + " another unit or another origin than the netlist's");
    }
  }
}
