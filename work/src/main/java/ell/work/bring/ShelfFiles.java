package ell.work.bring;

import ell.core.board.PackageSheet;
import ell.core.kit.ShelfLine;
import ell.files.Problem;
import ell.files.Read;
import ell.files.Source;
import ell.files.csv.OffersReader;
import ell.files.csv.PackagesReader;
import ell.files.csv.ParametersReader;
import ell.files.csv.ShelfReader;
import ell.work.space.ActException;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/// Files about the shelf, read whole or refused with every problem, a line each.
public final class ShelfFiles {
  private ShelfFiles() {}

  /// What a file about the shelf is.
  public enum Kind {
    /// What lies there.
    SHELF,
    /// What sellers offer.
    OFFERS,
    /// What is known of parts.
    PARAMETERS
  }

  /// Tells what a file is by its headings.
  ///
  /// @throws ActException when it is none of these
  public static Kind kind(Path file) throws IOException, ActException {
    Source s = Source.of(file);
    if (isOffers(s)) {
      return Kind.OFFERS;
    }
    if (understood(ShelfReader.read(s))) {
      return Kind.SHELF;
    }
    if (understood(ParametersReader.read(s))) {
      return Kind.PARAMETERS;
    }
    throw new ActException(
        s.name()
            + " is no shelf (code, quantity), no offers (seller, code, price) and no parameters"
            + " (code, parameter, value)");
  }

  /// Whether a file is of offers: it names sellers and prices. A shelf may name sellers as well.
  public static boolean isOffers(Source s) throws IOException {
    String head;
    try (InputStream in = s.open()) {
      head = new String(in.readNBytes(4000), StandardCharsets.ISO_8859_1).toLowerCase(Locale.ROOT);
    }
    return head.lines().limit(60).anyMatch(l -> l.matches(".*(price|break|cost|\\d\\+).*"))
        && understood(OffersReader.read(s));
  }

  /// Whether the headings were found, whatever stands below them.
  private static boolean understood(Read<?> read) {
    return switch (read) {
      case Read.Whole<?> _ -> true;
      case Read.Flawed<?>(var problems) ->
          problems.stream().noneMatch(p -> p.message().startsWith("expected a heading"));
    };
  }

  private interface Reading<T> {
    Read<T> of(Source source) throws IOException;
  }

  /// A shelf.
  public static List<ShelfLine> shelf(Path file) throws IOException, ActException {
    return whole(Source.of(file), ShelfReader::read);
  }

  /// What is known of parts, by code.
  public static Map<String, Map<String, String>> parameters(Path file)
      throws IOException, ActException {
    return whole(Source.of(file), ParametersReader::read);
  }

  /// Lines of a package sheet.
  public static List<PackageSheet.Line> packages(Source source) throws IOException, ActException {
    return whole(source, PackagesReader::read);
  }

  private static <T> T whole(Source source, Reading<T> reader) throws IOException, ActException {
    try {
      return switch (reader.of(source)) {
        case Read.Whole<T>(T value, var _) -> value;
        case Read.Flawed<T>(var problems) ->
            throw new ActException(
                String.join("\n", problems.stream().map(Problem::toString).toList()));
      };
    } catch (NoSuchFileException e) {
      throw new ActException(source.name() + ": there is no such file", e);
    }
  }
}
