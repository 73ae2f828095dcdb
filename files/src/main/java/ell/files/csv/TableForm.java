package ell.files.csv;

import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import de.siegmar.fastcsv.reader.FieldMismatchStrategy;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.Reader;
import java.io.UncheckedIOException;
import java.util.List;
import java.util.function.Consumer;
import java.util.function.Predicate;

/// How the cells of a table are told apart: by a character, or by blanks below the words of a
/// heading.
interface TableForm {
  /// Calls for each row until it is told to stop.
  ///
  /// @param problem is told when the text cannot be read to its end
  void each(Reader in, Predicate<Cells> take, Consumer<String> problem) throws IOException;

  /// Whether that character parts cells.
  boolean parts(char c);

  /// Whether cells are parted by blanks.
  default boolean wide() {
    return false;
  }

  /// Cells parted by a character, RFC 4180.
  static TableForm separated(char separator) {
    return new TableForm() {
      @Override
      public void each(Reader in, Predicate<Cells> take, Consumer<String> problem)
          throws IOException {
        try {
          for (CsvRecord r :
              CsvReader.builder()
                  .fieldSeparator(separator)
                  .skipEmptyLines(true)
                  .missingFieldStrategy(FieldMismatchStrategy.IGNORE)
                  .extraFieldStrategy(FieldMismatchStrategy.IGNORE)
                  .trimWhitespacesAroundQuotes(true)
                  .ofCsvRecord(in)) {
            if (!take.test(new Cells((int) r.getStartingLineNumber(), r.getFields()))) {
              return;
            }
          }
        } catch (CsvParseException e) {
          problem.accept("not readable as CSV: " + e.getMessage());
        } catch (UncheckedIOException e) {
          throw e.getCause();
        }
      }

      @Override
      public boolean parts(char c) {
        return c == separator;
      }
    };
  }

  /// Cells parted by blanks.
  ///
  /// @param split cuts a line into cells
  static TableForm wide(java.util.function.Function<String, List<String>> split) {
    return new TableForm() {
      @Override
      public void each(Reader in, Predicate<Cells> take, Consumer<String> problem)
          throws IOException {
        BufferedReader lines = new BufferedReader(in);
        int n = 0;
        String line;
        while ((line = lines.readLine()) != null) {
          n++;
          if (!line.isBlank() && !take.test(new Cells(n, split.apply(line)))) {
            return;
          }
        }
      }

      @Override
      public boolean parts(char c) {
        return false;
      }

      @Override
      public boolean wide() {
        return true;
      }
    };
  }
}
