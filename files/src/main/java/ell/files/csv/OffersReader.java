package ell.files.csv;

import ell.core.kit.buy.Offer;
import ell.core.kit.buy.Offer.PriceBreak;
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
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// Reads what sellers offer: seller, code and price, and pack, least quantity, stock, days,
/// shipping and ships-with when they are there.
///
/// Prices are of one piece. They stand in one cell (`0.12`, or by quantity `1: 0.12; 100: 0.08`),
/// or in a column for each quantity (`Price 1`, `Price 100`, `100+`), or in a line for each
/// quantity with a column `Break quantity`; lines of one seller, code and pack are one offer then.
public final class OffersReader {
  private static final Pattern PAIR =
      Pattern.compile(
          "(\\d{1,9})\\s*\\+?\\s*(?::|=|@|x|\\s)\\s*(\\d+(?:[.,]\\d+(?!\\d|\\s*\\+?\\s*[:=@x]))?|\\.\\d+)");
  private static final Pattern COLUMN =
      Pattern.compile(
          "(?i)(?:unit\\s*)?(?:price|cost)?\\s*(?:from|at|@|for)?\\s*(\\d{1,9})\\s*\\+?(?:\\s*pcs)?");
  private static final int MOST_DAYS = 3650;
  private static final long MOST_PACK = 1_000_000_000;

  private final Findings findings;
  private final Currency currency = new Currency();
  private boolean dated;
  private final Map<String, Part> offers = new LinkedHashMap<>();
  private final Map<String, Double> shipping = new HashMap<>();
  private final Map<String, Integer> shippingLine = new HashMap<>();
  private final Map<String, String> shipsWith = new HashMap<>();

  private OffersReader(Findings findings) {
    this.findings = findings;
  }

  /// An offer of which more lines may come.
  private static final class Part {
    int line;
    String seller;
    String code;
    long pack;
    long least;
    long stock;
    int days;
    final List<PriceBreak> breaks = new ArrayList<>();
  }

  /// Reads a file.
  ///
  /// @throws IOException when it cannot be read at all
  public static Read<List<Offer>> read(Source source) throws IOException {
    Findings f = new Findings(source.name());
    OffersReader r = new OffersReader(f);
    Table.read(
        source,
        f,
        Set.of(
            ColumnMeaning.SELLER,
            ColumnMeaning.CODE,
            ColumnMeaning.PACK,
            ColumnMeaning.LEAST,
            ColumnMeaning.PRICES,
            ColumnMeaning.COST,
            ColumnMeaning.BREAK,
            ColumnMeaning.QUANTITY,
            ColumnMeaning.AVAILABLE,
            ColumnMeaning.DAYS,
            ColumnMeaning.SHIPPING,
            ColumnMeaning.SHIPS_WITH,
            ColumnMeaning.DESCRIPTION),
        Set.of(ColumnMeaning.SELLER, ColumnMeaning.CODE),
        r::row);
    if (!f.failed() && !r.offers.isEmpty() && !r.dated) {
      f.warn(0, 0, "no column for days: everything is taken to be there at once");
    }
    return r.done();
  }

  private void row(Table table, Table.Row row) {
    String seller = row.text(ColumnMeaning.SELLER);
    String code = row.text(ColumnMeaning.CODE);
    if (seller.isEmpty() || code.isEmpty()) {
      findings.pass(row.line(), "no seller or no code: " + row.all());
      return;
    }
    dated |= table.has(ColumnMeaning.DAYS);
    currency.seen(row, ColumnMeaning.COST);
    currency.seen(row, ColumnMeaning.PRICES);
    currency.seen(row, ColumnMeaning.SHIPPING);
    List<PriceBreak> breaks = breaks(table, row);
    Long pack = count(row, ColumnMeaning.PACK, 1);
    Long least = count(row, ColumnMeaning.LEAST, 1);
    Long stock =
        count(
            row,
            table.has(ColumnMeaning.AVAILABLE) ? ColumnMeaning.AVAILABLE : ColumnMeaning.QUANTITY,
            Offer.UNLIMITED);
    Long days = table.has(ColumnMeaning.DAYS) ? days(row) : Long.valueOf(0);
    ships(row, seller);
    if (breaks == null || pack == null || least == null || stock == null || days == null) {
      return;
    }
    if (pack > MOST_PACK || least > MOST_PACK) {
      row.error(
          pack > MOST_PACK ? ColumnMeaning.PACK : ColumnMeaning.LEAST,
          "expected at most " + MOST_PACK + ", found " + Math.max(pack, least));
      return;
    }
    if (pack < 1 || least < 1) {
      row.error(pack < 1 ? ColumnMeaning.PACK : ColumnMeaning.LEAST, "expected 1 or more, found 0");
      return;
    }
    Part o = offers.get(seller + "\n" + code + "\n" + pack);
    if (o != null && !table.has(ColumnMeaning.BREAK)) {
      row.error(
          ColumnMeaning.CODE,
          seller
              + " offers "
              + code
              + " on line "
              + o.line
              + " already; expected one line for a seller, code and pack");
      return;
    }
    if (o == null) {
      o = new Part();
      o.line = row.line();
      o.seller = seller;
      o.code = code;
      o.pack = pack;
      o.least = least;
      o.stock = stock;
      o.days = days.intValue();
      offers.put(seller + "\n" + code + "\n" + pack, o);
    }
    for (PriceBreak b : breaks) {
      if (o.breaks.stream().anyMatch(x -> x.from() == b.from())) {
        row.error(
            table.has(ColumnMeaning.PRICES) ? ColumnMeaning.PRICES : ColumnMeaning.COST,
            "two prices from " + b.from() + " pieces on");
        return;
      }
      o.breaks.add(b);
    }
  }

  /// The prices of a row, null when something is wrong with them.
  private List<PriceBreak> breaks(Table table, Table.Row row) {
    List<PriceBreak> breaks = new ArrayList<>();
    int before = findings.count();
    Long from = count(row, ColumnMeaning.BREAK, 1);
    for (ColumnMeaning m : List.of(ColumnMeaning.PRICES, ColumnMeaning.COST)) {
      String text = Currency.without(row.text(m));
      if (!text.isEmpty()) {
        cell(row, m, text, from == null ? 1 : Math.max(1, from), breaks);
      }
    }
    for (int c = 0; c < table.headingRow().size(); c++) {
      Matcher m = COLUMN.matcher(table.headingRow().get(c).strip());
      String text = Currency.without(row.cell(c));
      if (m.matches() && !text.isEmpty() && !text.equals("-")) {
        price(row, ColumnMeaning.COST, text)
            .ifPresent(p -> add(breaks, Long.parseLong(m.group(1)), p));
      }
    }
    if (findings.count() > before) {
      return null;
    }
    if (breaks.isEmpty()) {
      row.error(ColumnMeaning.COST, "no price; expected one such as 0.12, or 1: 0.12; 100: 0.08");
      return null;
    }
    return breaks;
  }

  private void cell(
      Table.Row row, ColumnMeaning m, String text, long from, List<PriceBreak> breaks) {
    String plain = text.replaceAll("\\s+", " ");
    if (plain.matches("(?:\\d++(?:[.,]\\d++)?+|[.,]\\d++)(?:[eE]-?+\\d++)?+")) {
      price(row, m, plain).ifPresent(p -> add(breaks, from, p));
      return;
    }
    Matcher pair = PAIR.matcher(plain);
    int end = 0;
    while (pair.find()) {
      if (!plain.substring(end, pair.start()).matches("[;,|/ ]*")) {
        break;
      }
      end = pair.end();
      price(row, m, pair.group(2)).ifPresent(p -> add(breaks, Long.parseLong(pair.group(1)), p));
    }
    if (end == 0 || !plain.substring(end).matches("[;,|/ ]*")) {
      row.error(
          m,
          "expected a price such as 0.12, or by quantity 1: 0.12; 100: 0.08, found '" + text + "'");
    }
  }

  private static void add(List<PriceBreak> breaks, long from, double price) {
    breaks.add(new PriceBreak(Math.max(1, from), price));
  }

  private Optional<Double> price(Table.Row row, ColumnMeaning m, String text) {
    try {
      double d = EngineeringNumber.parse(text.replace(',', '.'), Unit.ONE);
      if (d < 0) {
        throw new NumberFormatException("expected a price not below 0, found '" + text + "'");
      }
      return Optional.of(d);
    } catch (NumberFormatException e) {
      row.error(m, e.getMessage());
      return Optional.empty();
    }
  }

  private static Long count(Table.Row row, ColumnMeaning m, long otherwise) {
    String text = row.text(m).replaceAll("(?i)\\s*(pcs|pieces|of)\\.?$", "");
    return row.count(m, text.equals("-") ? "" : text, otherwise);
  }

  private static Long days(Table.Row row) {
    String text = row.text(ColumnMeaning.DAYS).replaceAll("(?i)\\s*(d|days?|working days?)$", "");
    if (text.isEmpty()) {
      row.error(ColumnMeaning.DAYS, "expected the days from order to bench, found nothing");
      return null;
    }
    if (!text.matches("\\d{1,4}") || Integer.parseInt(text) > MOST_DAYS) {
      row.error(ColumnMeaning.DAYS, "expected days such as 3, found '" + text + "'");
      return null;
    }
    return Long.parseLong(text);
  }

  /// What a seller's shipment costs stands on any of its lines, and is the same on all.
  private void ships(Table.Row row, String seller) {
    String with = row.text(ColumnMeaning.SHIPS_WITH);
    if (!with.isEmpty() && !with.equals("-")) {
      shipsWith.put(seller, with);
    }
    String text = Currency.without(row.text(ColumnMeaning.SHIPPING));
    if (text.isEmpty() || text.equals("-")) {
      return;
    }
    price(row, ColumnMeaning.SHIPPING, text)
        .ifPresent(p -> {
          Double before = shipping.putIfAbsent(seller, p);
          if (before == null) {
            shippingLine.put(seller, row.line());
          } else if (!before.equals(p)) {
            row.error(
                ColumnMeaning.SHIPPING,
                seller
                    + " ships for "
                    + text
                    + " here and for "
                    + before
                    + " on line "
                    + shippingLine.get(seller)
                    + "; expected one price of shipping for a seller");
          }
        });
  }

  private Read<List<Offer>> done() {
    List<Offer> whole = new ArrayList<>();
    Set<String> sellers = new HashSet<>();
    offers.values().forEach(o -> sellers.add(o.seller));
    shipsWith.forEach((seller, with) -> {
      if (!sellers.contains(with)) {
        findings.warn(0, 0, seller + " ships with " + with + ", who offers nothing here");
      }
    });
    for (Part o : offers.values()) {
      whole.add(
          new Offer(
              o.line,
              o.seller,
              o.code,
              o.pack,
              o.least,
              o.breaks,
              o.stock,
              o.days,
              shipping.getOrDefault(o.seller, 0.0),
              Optional.ofNullable(shipsWith.get(o.seller))));
    }
    if (!findings.failed() && whole.isEmpty()) {
      findings.error(
          0, 0, "no offers found; expected at least one line with seller, code and price");
    }
    return findings.done(List.copyOf(whole));
  }
}
