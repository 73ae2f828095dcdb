package ell.files.csv;

import ell.core.board.BomLine;
import ell.core.board.PartKind;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.files.Findings;
import ell.files.Read;
import ell.files.Source;
import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// Reads a bill of materials. Needs a column of references; takes quantity, value, package, code,
/// fitted or not, alternates, key part, block, description, cost and mass when they are there.
public final class BomReader {
  static final Set<ColumnMeaning> WANTED =
      Set.of(
          ColumnMeaning.REFERENCE,
          ColumnMeaning.QUANTITY,
          ColumnMeaning.VALUE,
          ColumnMeaning.PACKAGE,
          ColumnMeaning.CODE,
          ColumnMeaning.FITTED,
          ColumnMeaning.NOT_FITTED,
          ColumnMeaning.ALTERNATES,
          ColumnMeaning.KEY,
          ColumnMeaning.BLOCK,
          ColumnMeaning.DESCRIPTION,
          ColumnMeaning.COST,
          ColumnMeaning.MASS,
          ColumnMeaning.VARIANTS,
          ColumnMeaning.SPARES);
  private static final Pattern TOTAL = Pattern.compile("(?i)(grand )?(sub)?total.*|sum:?|summe:?");
  private static final Pattern UNIT_OF = Pattern.compile("([A-Za-z]+\\d+)([A-Z])");
  private static final Pattern PIECES =
      Pattern.compile("(?i)(?<=\\d)\\s*(pcs?|pieces?|ea|each|stk|stück|x|off|u|uds?)\\.?$");

  private static final double MOST_OF = 0.9;
  private static final int FEW = 3;

  private final Findings findings;
  private final Map<String, BomLine> seen = new HashMap<>();
  private final List<BomLine> lines = new ArrayList<>();
  private final List<Count> counts = new ArrayList<>();
  private final List<Twice> twice = new ArrayList<>();
  private final Currency currency = new Currency();

  /// A quantity that is not the number of the references.
  private record Count(Table.Row row, String text, long quantity, int references) {}

  /// A line of which some references stand on other lines already, or twice on it.
  ///
  /// @param same whether all of them do, and it says the same of them
  private record Twice(Table.Row row, BomLine line, boolean same) {}

  private BomReader(Findings findings) {
    this.findings = findings;
  }

  /// Reads a file.
  ///
  /// @throws IOException when it cannot be read at all
  public static Read<List<BomLine>> read(Source source) throws IOException {
    return read(source, Map.of());
  }

  /// Reads a file.
  ///
  /// @param columns headings by the word of what they mean, where somebody said it
  /// @throws IOException when it cannot be read at all
  public static Read<List<BomLine>> read(Source source, Map<String, String> columns)
      throws IOException {
    Findings f = new Findings(source.name());
    BomReader r = new BomReader(f);
    Table table = Table.read(source, f, columns, WANTED, Set.of(ColumnMeaning.REFERENCE), r::take);
    r.judgeTwice();
    r.judgeCounts();
    if (!f.failed() && r.lines.isEmpty()) {
      f.error(0, 0, "no parts found; expected at least one line with a reference");
    }
    if (!f.failed()) {
      r.account(table);
    }
    table.account();
    return f.done(List.copyOf(r.lines));
  }

  private void account(Table table) {
    long parts = lines.stream().mapToLong(l -> l.references().size()).sum();
    long off = lines.stream().filter(l -> !l.fitted()).mapToLong(l -> l.references().size()).sum();
    findings.found(parts + (parts == 1 ? " part" : " parts") + " on " + lines.size() + " lines");
    if (off > 0) {
      findings.found(off + " not fitted");
    }
    if (!table.has(ColumnMeaning.VALUE) && table.has(ColumnMeaning.DESCRIPTION)) {
      findings.guess(
          "the column of values", "the first value in the description", "--column value=HEADING");
    } else if (!table.has(ColumnMeaning.VALUE) && !table.has(ColumnMeaning.CODE)) {
      findings.warn(
          0,
          0,
          "no column of values or codes was found, so parts are told apart by description and"
              + " package only; say it: --column value=HEADING");
    }
  }

  private void take(Table table, Table.Row row) {
    BomLine line = line(table, row);
    currency.seen(row, ColumnMeaning.COST);
    if (line == null) {
      return;
    }
    if (inSocket(row, line)) {
      return;
    }
    boolean same = true;
    int known = 0;
    for (String r : line.references()) {
      BomLine is = seen.putIfAbsent(r, line);
      if (is != null) {
        same &= is != line && same(is, line);
        known++;
      }
    }
    if (known == 0) {
      lines.add(line);
    } else {
      twice.add(new Twice(row, line, same && known == line.references().size()));
    }
  }

  /// A socket is listed under the name of the chip that sits in it: it is a part of its own, at the
  /// same place.
  private boolean inSocket(Table.Row row, BomLine line) {
    BomLine is = line.references().isEmpty() ? null : seen.get(line.references().getFirst());
    if (is == null
        || socket(is) == socket(line)
        || !new HashSet<>(is.references()).equals(new HashSet<>(line.references()))) {
      return false;
    }
    BomLine seat = socket(line) ? line : is;
    BomLine chip = socket(line) ? is : line;
    List<String> own = seat.references().stream().map(r -> "X" + r).toList();
    if (own.stream().anyMatch(seen::containsKey)) {
      return false;
    }
    BomLine renamed = seat.as(own);
    lines.set(lines.indexOf(is), chip);
    lines.add(renamed);
    chip.references().forEach(r -> seen.put(r, chip));
    own.forEach(r -> seen.put(r, renamed));
    findings.found(
        "line "
            + row.line()
            + " and line "
            + is.line()
            + " are a chip and its socket: the socket of "
            + String.join(" ", chip.references())
            + " is "
            + String.join(" ", own));
    return true;
  }

  private static boolean socket(BomLine l) {
    return PartKind.socket(l.value(), l.packageName(), l.code(), l.description());
  }

  /// A list of all parts may be followed by another one of all of them; a few that stand twice are
  /// a mistake.
  private void judgeTwice() {
    long again =
        twice.stream().filter(Twice::same).mapToLong(t -> t.line().references().size()).sum();
    boolean all =
        again > 1 && again >= MOST_OF * seen.size() && twice.stream().allMatch(Twice::same);
    for (Twice t : twice) {
      if (all) {
        findings.pass(t.row().line(), "listed once more: " + t.row().all());
        continue;
      }
      Set<String> own = new HashSet<>();
      for (String r : t.line().references()) {
        BomLine is = seen.get(r);
        if (is != t.line() || !own.add(r)) {
          t.row()
              .error(
                  ColumnMeaning.REFERENCE,
                  "reference "
                      + r
                      + " is already on line "
                      + is.line()
                      + "; expected each reference once");
        }
      }
    }
  }

  /// Whether a part is listed a second time as the same: a grouped list followed by a full one.
  private static boolean same(BomLine a, BomLine b) {
    return (a.value().equalsIgnoreCase(b.value()) || b.value().isEmpty())
        && (a.packageName().equalsIgnoreCase(b.packageName()) || b.packageName().isEmpty())
        && (a.code().equalsIgnoreCase(b.code()) || b.code().isEmpty())
        && a.fitted() == b.fitted();
  }

  private BomLine line(Table table, Table.Row row) {
    String cell = row.text(ColumnMeaning.REFERENCE);
    if (cell.isEmpty() || TOTAL.matcher(cell).matches()) {
      findings.pass(
          row.line(),
          (cell.isEmpty() && !row.text(ColumnMeaning.QUANTITY).isEmpty()
                  ? "no reference, so not counted: "
                  : "no reference: ")
              + row.all());
      return null;
    }
    if (References.unnumbered(cell)) {
      findings.pass(row.line(), "no number: " + row.all());
      return null;
    }
    String quantity = PIECES.matcher(row.text(ColumnMeaning.QUANTITY)).replaceFirst("");
    boolean none = NotFitted.saidIn(quantity);
    List<String> references;
    long counted = none ? -1 : counted(row, quantity);
    try {
      references = onePartEach(References.parse(cell), counted);
    } catch (IllegalArgumentException e) {
      row.error(ColumnMeaning.REFERENCE, e.getMessage());
      return null;
    }
    boolean fitted = fitted(row) && !none && counted != 0;
    if (counted > 0 && counted != references.size()) {
      counts.add(new Count(row, quantity, counted, references.size()));
    }
    return new BomLine(
        row.line(),
        references,
        value(table, row),
        row.text(ColumnMeaning.PACKAGE),
        row.text(ColumnMeaning.CODE),
        fitted,
        alternates(row.text(ColumnMeaning.ALTERNATES)),
        yes(row.text(ColumnMeaning.KEY)),
        row.text(ColumnMeaning.BLOCK),
        row.text(ColumnMeaning.DESCRIPTION),
        number(row, ColumnMeaning.COST, Unit.ONE),
        number(row, ColumnMeaning.MASS, Unit.ONE),
        alternates(row.text(ColumnMeaning.VARIANTS)),
        spares(row));
  }

  /// The quantity, -1 when none is said.
  private static long counted(Table.Row row, String text) {
    if (text.isEmpty()) {
      return -1;
    }
    try {
      double q = EngineeringNumber.parse(Decimals.whole(text), Unit.ONE);
      if (q < 0 || q != Math.rint(q) || q > 1e9) {
        throw new NumberFormatException(
            "expected a whole number not below 0, found '" + text + "'");
      }
      return (long) q;
    } catch (NumberFormatException e) {
      row.error(ColumnMeaning.QUANTITY, e.getMessage());
      return -1;
    }
  }

  /// `U1A, U1B` are two halves of one part, unless the quantity says that they are two.
  private static List<String> onePartEach(List<String> references, long counted) {
    Map<String, Integer> halves = new TreeMap<>();
    for (String r : references) {
      Matcher m = UNIT_OF.matcher(r);
      if (m.matches()) {
        halves.merge(m.group(1), 1, Integer::sum);
      }
    }
    if (halves.isEmpty() || counted == references.size()) {
      return references;
    }
    Map<String, Boolean> merged = new LinkedHashMap<>();
    for (String r : references) {
      Matcher m = UNIT_OF.matcher(r);
      boolean half = m.matches() && (halves.get(m.group(1)) > 1 || references.contains(m.group(1)));
      merged.put(half ? m.group(1) : r, true);
    }
    return merged.size() < references.size() ? List.copyOf(merged.keySet()) : references;
  }

  /// One cause is one problem: quantities that are all the same multiple are those of so many
  /// boards.
  private void judgeCounts() {
    long one = lines.stream().filter(BomLine::fitted).count();
    long factor = 0;
    boolean all = counts.size() > FEW && counts.size() == one;
    for (Count c : counts) {
      long k = c.quantity() / c.references();
      all &= k > 1 && k * c.references() == c.quantity() && (factor == 0 || factor == k);
      factor = k;
    }
    if (all) {
      findings.warn(
          0,
          0,
          "every quantity is "
              + factor
              + " times the references: taken as that of "
              + factor
              + " boards");
      return;
    }
    for (Count c : counts) {
      c.row()
          .error(
              ColumnMeaning.QUANTITY,
              "quantity "
                  + c.text()
                  + " does not match the "
                  + c.references()
                  + " references on the line");
    }
  }

  /// The value; where the bill has no column of values, the first word of the description that is
  /// one.
  private static String value(Table table, Table.Row row) {
    String value = NotFitted.without(row.text(ColumnMeaning.VALUE));
    if (!table.has(ColumnMeaning.VALUE)) {
      for (String word : row.text(ColumnMeaning.DESCRIPTION).split("[ ,;/]+")) {
        if (word.length() > 1
            && CellSense.share(ColumnMeaning.VALUE, List.of(word)) == 1
            && CellSense.share(ColumnMeaning.PACKAGE, List.of(word)) == 0) {
          return word;
        }
      }
    }
    return value;
  }

  private static int spares(Table.Row row) {
    double d = number(row, ColumnMeaning.SPARES, Unit.ONE);
    if (!Double.isNaN(d) && (d != Math.rint(d) || d > 1e6)) {
      row.error(ColumnMeaning.SPARES, "expected a whole number of spares, found '" + d + "'");
      return 0;
    }
    return Double.isNaN(d) ? 0 : (int) d;
  }

  private static boolean fitted(Table.Row row) {
    return !NotFitted.refused(row.text(ColumnMeaning.FITTED))
        && !NotFitted.leftOff(row.text(ColumnMeaning.NOT_FITTED))
        && !NotFitted.saidIn(row.text(ColumnMeaning.VALUE));
  }

  private static boolean yes(String text) {
    return text.matches("(?i)yes|y|1|true|x|key|ja|oui|sí|si");
  }

  private static List<String> alternates(String text) {
    return text.isEmpty() ? List.of() : List.of(text.split("\\s*[,;|]\\s*|\\s+"));
  }

  private static double number(Table.Row row, ColumnMeaning m, Unit unit) {
    String text = Currency.without(row.text(m)).replaceAll("(?i)\\s*g$", "").strip();
    if (text.isEmpty() || text.matches("(?i)-|n/?a|tbd|\\?")) {
      return Double.NaN;
    }
    try {
      double d = EngineeringNumber.parse(Decimals.plain(text), unit);
      if (d < 0) {
        throw new NumberFormatException("expected a number not below 0, found '" + text + "'");
      }
      return d;
    } catch (NumberFormatException e) {
      row.error(m, e.getMessage());
      return Double.NaN;
    }
  }
}
