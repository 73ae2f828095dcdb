package ell.work.kit;

import ell.core.board.Part;
import ell.core.kit.KitCheck;
import ell.core.kit.KitLine;
import ell.core.kit.KitQuestion;
import ell.core.kit.buy.Offer;
import ell.core.kit.buy.OrderSplit;
import ell.core.kit.buy.Splitter;
import ell.core.kit.buy.Want;
import ell.files.Problem;
import ell.files.Read;
import ell.files.Source;
import ell.files.csv.CsvFiles;
import ell.files.csv.OffersReader;
import ell.work.space.ActException;
import ell.work.space.Workspace;
import java.io.IOException;
import java.io.Writer;
import java.math.BigDecimal;
import java.math.RoundingMode;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.BooleanSupplier;

/// What to order from whom, and what a date costs.
public final class Buying {
  /// Under this word offers are kept with a workspace.
  static final String OFFERS = "offers";

  private static final int MOST_STEPS = 24;

  private final KitQuestion question;
  private final List<Offer> offers;
  private final LocalDate today;

  /// @param question of the kit, as of today
  /// @param offers of all sellers
  /// @param today from which days are counted
  public Buying(KitQuestion question, List<Offer> offers, LocalDate today) {
    this.question = question;
    this.offers = List.copyOf(offers);
    this.today = today;
  }

  /// What a date costs.
  ///
  /// @param unmet codes that cannot be had by then
  public record DateCost(
      LocalDate by, double total, boolean proven, double gap, List<String> unmet) {}

  /// Reads offers.
  ///
  /// @param mind is told what was put up with
  /// @throws ActException with every problem of the file, a line each
  public static List<Offer> read(Source source, List<Problem> mind)
      throws ActException, IOException {
    try {
      return switch (OffersReader.read(source)) {
        case Read.Whole<List<Offer>>(var offers, var account) -> {
          mind.addAll(account.warnings());
          mind.addAll(account.passedOver());
          yield offers;
        }
        case Read.Flawed<List<Offer>>(var problems) ->
            throw new ActException(
                String.join("\n", problems.stream().map(Problem::toString).toList()));
      };
    } catch (NoSuchFileException e) {
      throw new ActException(source.name() + ": there is no such file", e);
    }
  }

  /// What is short on a day, when what is due by then has come.
  public List<Want> wants(LocalDate by) {
    KitCheck then = KitCheck.of(question.lookingAt(by));
    List<Want> wants = new ArrayList<>();
    for (KitLine l : then.shorts()) {
      Set<String> alternates = new LinkedHashSet<>();
      l.references()
          .forEach(
              r -> question.revision().part(r).map(Part::alternates).ifPresent(alternates::addAll));
      alternates.remove(l.code());
      wants.add(new Want(l.code(), l.shortBy(), List.copyOf(alternates)));
    }
    return wants;
  }

  /// The cheapest split for a day.
  public OrderSplit by(LocalDate by, BooleanSupplier stop) {
    return new Splitter(today, wants(by), offers, stop).by(by);
  }

  /// Days on which the cost may step: when an offer could be there, or when what is on order comes.
  public List<LocalDate> days() {
    Set<LocalDate> days = new TreeSet<>();
    List<Want> now = wants(today);
    days.addAll(new Splitter(today, now, offers, () -> false).days());
    question.shelf().stream()
        .filter(l -> l.onOrder() > 0)
        .flatMap(l -> l.expected().stream())
        .filter(d -> !d.isBefore(today))
        .forEach(days::add);
    return days.stream().limit(MOST_STEPS).toList();
  }

  /// What each date costs, soonest first, as a falling staircase: a later day never costs more,
  /// since what was bought sooner is there as well.
  public List<DateCost> costs(BooleanSupplier stop) {
    List<DateCost> all = new ArrayList<>();
    for (LocalDate day : days()) {
      if (stop.getAsBoolean()) {
        break;
      }
      OrderSplit s = by(day, stop);
      DateCost c =
          new DateCost(
              day,
              s.total(),
              s.proven(),
              s.gap(),
              s.unmet().stream().map(OrderSplit.Unmet::code).toList());
      if (all.isEmpty()
          || !c.unmet().equals(all.getLast().unmet())
          || c.total() < all.getLast().total() - 1e-9) {
        all.add(c);
      }
    }
    return all;
  }

  /// Writes one CSV for each seller into a folder: the lines to order there.
  ///
  /// @return the files
  public static List<Path> write(OrderSplit split, Path folder) throws IOException, ActException {
    Map<String, List<List<String>>> rows = new LinkedHashMap<>();
    for (OrderSplit.Purchase p : split.purchases()) {
      rows.computeIfAbsent(p.offer().seller(), _ -> new ArrayList<>())
          .add(
              List.of(
                  p.offer().code(),
                  String.valueOf(p.quantity()),
                  String.valueOf(p.packs()),
                  String.valueOf(p.offer().pack()),
                  money(p.unitPrice()),
                  money(p.price()),
                  p.arrives().toString(),
                  p.line()));
    }
    Map<Path, List<List<String>>> files = new LinkedHashMap<>();
    for (var e : rows.entrySet()) {
      Path f = folder.resolve("order-" + e.getKey().replaceAll("[^\\p{L}\\p{N}._-]", "_") + ".csv");
      if (files.putIfAbsent(f, e.getValue()) != null || Files.exists(f)) {
        throw new ActException(f + " is already there; choose another folder");
      }
    }
    Files.createDirectories(folder);
    for (var e : files.entrySet()) {
      try (Writer out = Files.newBufferedWriter(e.getKey())) {
        CsvFiles.table(
            List.of(
                "Code", "Quantity", "Packs", "Pack", "Unit price", "Price", "Arrives", "For line"),
            e.getValue(),
            out);
      }
    }
    return List.copyOf(files.keySet());
  }

  /// A price with at least two places, and no more than it has.
  public static String money(double amount) {
    BigDecimal d =
        BigDecimal.valueOf(amount).setScale(6, RoundingMode.HALF_UP).stripTrailingZeros();
    return (d.scale() < 2 ? d.setScale(2, RoundingMode.UNNECESSARY) : d).toPlainString();
  }

  /// Reads offers that are kept with a workspace.
  public static List<Offer> kept(String text) throws IOException, ActException {
    return read(Source.of("offers", text), new ArrayList<>());
  }

  /// Keeps offers with a workspace, after they were read without a problem.
  public static void keep(Workspace w, Path file) throws IOException, ActException {
    read(Source.of(file), new ArrayList<>());
    w.book().putKeepsake(OFFERS, Files.readString(file));
  }
}
