package ell.files.csv;

import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import de.siegmar.fastcsv.reader.FieldMismatchStrategy;
import ell.core.talk.PinTable;
import ell.core.talk.PinTable.Need;
import ell.core.talk.PinTable.Offer;
import ell.files.Findings;
import ell.files.Read;
import ell.files.Source;
import ell.files.TextFile;
import java.io.IOException;
import java.io.Reader;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;

/// Reads tables of pins: what firmware needs (`signal,needs[,pin,load]`), what a controller board
/// offers (`pin,offers[,strap,shared,pull]`), which signal is on which pin (`signal,pin`), and
/// several boards in one (`module,pin,offers,...`). Commas, semicolons or tabs; needs and offers
/// are words divided by blanks.
public final class PinTables {
  private static final int MOST_ROWS = 20_000;
  private static final Map<String, List<String>> NAMES =
      Map.of(
          "signal", List.of("signal", "name", "net", "function"),
          "needs", List.of("needs", "need", "requires", "wants"),
          "pin", List.of("pin", "pins", "was", "old pin", "old"),
          "offers", List.of("offers", "offer", "capabilities", "functions", "can"),
          "strap", List.of("strap", "boot", "strapping"),
          "shared", List.of("shared", "shared with", "used by"),
          "load", List.of("load", "hangs on it"),
          "pull", List.of("pull", "own pull"),
          "module", List.of("module", "board"));

  private PinTables() {}

  /// A row of a table by the meaning of its columns.
  private record Row(long line, Map<String, String> cells) {
    String cell(String meaning) {
      return cells.getOrDefault(meaning, "");
    }
  }

  /// What firmware needs.
  public static Read<List<Need>> needs(Source source) throws IOException {
    Findings f = new Findings(source.name());
    List<Need> all = new ArrayList<>();
    for (Row r : rows(source, f, Set.of("signal", "needs"), Set.of("pin", "load"))) {
      Set<String> words = PinTable.words(r.cell("needs"));
      if (r.cell("signal").isEmpty() || words.isEmpty()) {
        f.error((int) r.line(), 0, "expected a signal and what it needs, such as LAMP,out pwm");
        continue;
      }
      all.add(new Need(r.cell("signal"), words, r.cell("pin"), r.cell("load")));
    }
    return done(f, all, "signals");
  }

  /// What a controller board offers.
  public static Read<List<Offer>> offers(Source source) throws IOException {
    Findings f = new Findings(source.name());
    List<Offer> all = new ArrayList<>();
    for (Row r : rows(source, f, Set.of("pin", "offers"), Set.of("strap", "shared", "pull"))) {
      offer(r, f, all);
    }
    return done(f, all, "pins");
  }

  /// Several controller boards, by name.
  public static Read<Map<String, List<Offer>>> modules(Source source) throws IOException {
    Findings f = new Findings(source.name());
    Map<String, List<Offer>> all = new LinkedHashMap<>();
    for (Row r :
        rows(source, f, Set.of("module", "pin", "offers"), Set.of("strap", "shared", "pull"))) {
      offer(r, f, all.computeIfAbsent(r.cell("module"), _ -> new ArrayList<>()));
    }
    return done(f, all, "modules");
  }

  /// Which signal was on which pin.
  public static Read<Map<String, String>> was(Source source) throws IOException {
    Findings f = new Findings(source.name());
    Map<String, String> all = new LinkedHashMap<>();
    for (Row r : rows(source, f, Set.of("signal", "pin"), Set.of("needs"))) {
      if (!r.cell("signal").isEmpty() && !r.cell("pin").isEmpty()) {
        all.put(r.cell("signal"), r.cell("pin"));
      }
    }
    return done(f, all, "signals");
  }

  /// Several controller boards as one table.
  public static String write(Map<String, List<Offer>> modules) throws IOException {
    StringWriter out = new StringWriter();
    List<List<String>> rows = new ArrayList<>();
    modules.forEach((name, offers) ->
        offers.forEach(o ->
            rows.add(
                List.of(
                    name,
                    o.pin(),
                    String.join(" ", o.offers()),
                    o.strap(),
                    o.shared(),
                    o.pull()))));
    CsvFiles.table(List.of("module", "pin", "offers", "strap", "shared", "pull"), rows, out);
    return out.toString();
  }

  private static void offer(Row r, Findings f, List<Offer> into) {
    try {
      if (r.cell("pin").isEmpty()) {
        f.error((int) r.line(), 0, "expected a pin and what it offers, such as D3,in out pwm");
        return;
      }
      into.add(
          new Offer(
              r.cell("pin"),
              PinTable.words(r.cell("offers")),
              PinTable.level(r.cell("strap")),
              r.cell("shared"),
              r.cell("pull")));
    } catch (IllegalArgumentException e) {
      f.error((int) r.line(), 0, e.getMessage());
    }
  }

  private static <T> Read<T> done(Findings f, T value, String what) {
    boolean empty =
        value instanceof List<?> l ? l.isEmpty() : value instanceof Map<?, ?> m && m.isEmpty();
    if (!f.failed() && empty) {
      f.error(0, 0, "there are no " + what + " in it");
    }
    return f.failed() ? f.flawed() : f.done(value);
  }

  private static List<Row> rows(Source source, Findings f, Set<String> must, Set<String> may)
      throws IOException {
    char separator = separator(source);
    List<Row> all = new ArrayList<>();
    try (Reader in = TextFile.open(source, TextFile.encoding(source));
        CsvReader<CsvRecord> csv =
            CsvReader.builder()
                .fieldSeparator(separator)
                .skipEmptyLines(true)
                .missingFieldStrategy(FieldMismatchStrategy.IGNORE)
                .extraFieldStrategy(FieldMismatchStrategy.IGNORE)
                .ofCsvRecord(in)) {
      List<String> columns = null;
      for (CsvRecord record : csv) {
        if (record.getField(0).strip().startsWith("#")) {
          continue;
        }
        if (columns == null) {
          columns = columns(record, f, must, may);
          if (f.failed()) {
            return List.of();
          }
          continue;
        }
        Map<String, String> cells = new LinkedHashMap<>();
        for (int i = 0; i < Math.min(columns.size(), record.getFieldCount()); i++) {
          if (!columns.get(i).isEmpty()) {
            cells.put(columns.get(i), Spreadsheet.bare(record.getField(i)).strip());
          }
        }
        if (cells.values().stream().allMatch(String::isEmpty)) {
          continue;
        }
        all.add(new Row(record.getStartingLineNumber(), cells));
        if (all.size() > MOST_ROWS) {
          f.error((int) record.getStartingLineNumber(), 0, "more than " + MOST_ROWS + " rows");
          return List.of();
        }
      }
      if (columns == null) {
        f.error(0, 0, "the file is empty; expected a heading " + String.join(",", sorted(must)));
      }
    } catch (CsvParseException | UncheckedIOException e) {
      f.error(0, 0, "not a table: " + e.getMessage());
    }
    return all;
  }

  private static List<String> columns(
      CsvRecord record, Findings f, Set<String> must, Set<String> may) {
    List<String> found = new ArrayList<>();
    List<String> unused = new ArrayList<>();
    for (int i = 0; i < record.getFieldCount(); i++) {
      String head = record.getField(i).strip().toLowerCase(Locale.ROOT);
      String meaning =
          NAMES.entrySet().stream()
              .filter(e -> must.contains(e.getKey()) || may.contains(e.getKey()))
              .filter(e -> e.getValue().contains(head))
              .map(Map.Entry::getKey)
              .filter(m -> !found.contains(m))
              .findFirst()
              .orElse("");
      found.add(meaning);
      if (meaning.isEmpty() && !head.isEmpty()) {
        unused.add(record.getField(i).strip());
      }
    }
    for (String m : sorted(must)) {
      if (!found.contains(m)) {
        f.error(
            (int) record.getStartingLineNumber(),
            0,
            "there is no column '"
                + m
                + "'; found "
                + String.join(", ", Arrays.asList(record.getFields().toArray(new String[0]))));
      }
    }
    if (!unused.isEmpty()) {
      f.warn(
          (int) record.getStartingLineNumber(),
          0,
          "columns not used: " + String.join(", ", unused));
    }
    return found;
  }

  private static List<String> sorted(Set<String> words) {
    return words.stream().sorted().toList();
  }

  private static char separator(Source source) throws IOException {
    try (Reader in = TextFile.open(source, TextFile.encoding(source))) {
      StringBuilder line = new StringBuilder();
      for (int c = in.read(); c >= 0 && c != '\n' && line.length() < 4096; c = in.read()) {
        line.append((char) c);
      }
      String head = line.toString();
      return head.contains(",") ? ',' : head.contains(";") ? ';' : head.contains("\t") ? '\t' : ',';
    }
  }
}
