package ell.core.revise;

import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/// What somebody has said of the price and the time of boards, as it is kept with a revision: a
/// line each, such as `board-cost=12`. What nobody has said is guessed, and told.
///
/// @param numbers by name
public record RespinSaid(Map<String, Double> numbers) {
  /// A number that can be said.
  ///
  /// @param name as it is written
  /// @param most greatest value
  /// @param usual what is taken when nobody says it, typical, no source; NaN where it is worked out
  /// @param words what it is
  public record Known(String name, double most, double usual, String words) {}

  /// Everything that can be said.
  public static final List<Known> ALL =
      List.of(
          new Known("success-chance", 1, Double.NaN, "chance that a mended board comes out right"),
          new Known("boards", 1e6, Double.NaN, "boards that are left"),
          new Known("board-cost", 1e9, Double.NaN, "price of a bare board"),
          new Known("parts-cost", 1e9, Double.NaN, "price of the parts of a board"),
          new Known("rework-hours", 1e4, Double.NaN, "hours to mend a board"),
          new Known("hour-rate", 1e9, 30, "price of an hour of work"),
          new Known("lead-days", 1e4, 21, "days until new boards and parts are there"),
          new Known("next-days", 2e4, Double.NaN, "days until the next revision comes anyway"),
          new Known("delay-per-day", 1e9, 10, "what a day's delay costs"),
          new Known("escape-chance", 1, 0.02, "chance that a mended board fails later"),
          new Known("escape-cost", 1e9, Double.NaN, "what a board that fails later costs"));

  public RespinSaid {
    numbers = Collections.unmodifiableMap(new LinkedHashMap<>(numbers));
  }

  /// Reads what is kept.
  ///
  /// @throws IllegalArgumentException naming what is wrong
  public static RespinSaid read(String text) {
    RespinSaid s = new RespinSaid(Map.of());
    for (String l : text.lines().filter(x -> !x.isBlank()).toList()) {
      s = s.say(l);
    }
    return s;
  }

  /// With one more word, such as `lead-days=14`; nothing behind the `=` takes it back.
  ///
  /// @throws IllegalArgumentException saying what was expected
  public RespinSaid say(String word) {
    int eq = word.indexOf('=');
    String name = eq < 0 ? word.strip() : word.substring(0, eq).strip().toLowerCase(Locale.ROOT);
    Optional<Known> known = ALL.stream().filter(k -> k.name().equals(name)).findFirst();
    if (eq < 0 || known.isEmpty()) {
      throw new IllegalArgumentException(
          "'"
              + word.strip()
              + "' says nothing that is known; say "
              + String.join(", ", ALL.stream().map(k -> k.name() + "=").toList())
              + " and a number");
    }
    Map<String, Double> all = new LinkedHashMap<>(numbers);
    String value = word.substring(eq + 1).strip();
    if (value.isEmpty()) {
      all.remove(name);
      return new RespinSaid(all);
    }
    double v;
    try {
      v =
          value.endsWith("%")
              ? EngineeringNumber.read(value.substring(0, value.length() - 1).strip(), Unit.ONE)
                      .value()
                  / 100
              : EngineeringNumber.read(value, Unit.ONE).value();
    } catch (NumberFormatException e) {
      throw new IllegalArgumentException(name + ": " + e.getMessage(), e);
    }
    if (!(v >= 0 && v <= known.get().most())) {
      throw new IllegalArgumentException(
          String.format(
              Locale.ROOT, "%s is 0 to %.6g, found '%s'", name, known.get().most(), value));
    }
    all.put(name, v);
    return new RespinSaid(all);
  }

  /// As it is kept.
  public String text() {
    StringBuilder s = new StringBuilder();
    numbers.forEach((k, v) ->
        s.append(k)
            .append('=')
            .append(
                new java.math.BigDecimal(v)
                    .round(new java.math.MathContext(9))
                    .stripTrailingZeros()
                    .toPlainString())
            .append('\n'));
    return s.toString();
  }

  /// What was said, empty where nobody has said it.
  public Optional<Double> of(String name) {
    return Optional.ofNullable(numbers.get(name));
  }

  /// What is known without anybody saying it.
  ///
  /// @param needed boards to be mended
  /// @param spent boards that bear no more heat
  /// @param succeeded boards whose bodge was proved
  /// @param tried those, and those whose bodge did not hold
  /// @param minutes to mend a board
  /// @param partsCost of the parts whose price is known, NaN for none
  /// @param partsUnknown parts without a price
  /// @param areaCm2 of the board, 0 when it is not known
  /// @param slowestDays until the slowest part comes, by the offers; 0 where there are none
  public record Book(
      int needed,
      int spent,
      int succeeded,
      int tried,
      double minutes,
      double partsCost,
      int partsUnknown,
      double areaCm2,
      int slowestDays) {}

  /// The question, with everything that was taken for granted.
  ///
  /// @param guessed a sentence for each number that nobody has said
  public record Question(WayOut.Asked asked, int succeeded, int tried, List<String> guessed) {
    public Question {
      guessed = List.copyOf(guessed);
    }
  }

  /// A bare board of two layers in a small series, for each square centimetre; typical, no source.
  private static final double PER_CM2 = 0.15;

  /// The question about the boards that are left, empty when there are none.
  public Optional<Question> question(Book b) {
    List<String> told = new ArrayList<>();
    int boards = (int) Math.round(of("boards").orElse((double) b.needed() + b.spent()));
    if (boards < 1) {
      return Optional.empty();
    }
    double success =
        of("success-chance")
            .orElseGet(() -> {
              told.add(
                  b.tried() == 0
                      ? "success-chance: no bodge of this revision was proved or failed yet, so"
                          + " nothing is known; half is taken"
                      : String.format(
                          Locale.ROOT,
                          "success-chance: %d of %d bodges held, by the book",
                          b.succeeded(),
                          b.tried()));
              return (b.succeeded() + 0.5) / (b.tried() + 1);
            });
    double parts =
        of("parts-cost")
            .orElseGet(() -> {
              told.add(
                  Double.isNaN(b.partsCost())
                      ? "parts-cost: neither bill nor offers have prices; 10 taken"
                      : b.partsUnknown() > 0
                          ? "parts-cost: by the bill and the offers, without "
                              + b.partsUnknown()
                              + " parts that have no price"
                          : "parts-cost: by the bill and the offers");
              return Double.isNaN(b.partsCost()) ? 10 : b.partsCost();
            });
    double board =
        of("board-cost")
            .orElseGet(() -> {
              double guess = b.areaCm2() > 0 ? Math.max(2, PER_CM2 * b.areaCm2()) : 5;
              told.add(
                  String.format(
                      Locale.ROOT, "board-cost: %.2f taken, typical for its size", guess));
              return guess;
            });
    double hours =
        of("rework-hours")
            .orElseGet(() -> {
              told.add(
                  String.format(
                      Locale.ROOT,
                      "rework-hours: %.0f min a board by its work order",
                      b.minutes()));
              return b.minutes() / 60;
            });
    double lead =
        of("lead-days")
            .orElseGet(() -> {
              double guess = Math.max(usual("lead-days"), b.slowestDays());
              told.add(
                  String.format(
                      Locale.ROOT,
                      "lead-days: %.0f taken%s",
                      guess,
                      b.slowestDays() > usual("lead-days")
                          ? ", the slowest part of the offers"
                          : ", typical"));
              return guess;
            });
    double next =
        of("next-days")
            .orElseGet(() -> {
              told.add("next-days: twice lead-days taken");
              return 2 * lead;
            });
    double rate = orUsual("hour-rate", told);
    double delay = orUsual("delay-per-day", told);
    double chance = orUsual("escape-chance", told);
    double escape =
        of("escape-cost")
            .orElseGet(() -> {
              told.add("escape-cost: five times a new board taken, typical");
              return 5 * (board + parts);
            });
    return Optional.of(
        new Question(
            new WayOut.Asked(
                success,
                boards,
                board,
                parts,
                hours,
                rate,
                lead,
                delay,
                chance,
                escape,
                next,
                Math.min(b.spent(), boards)),
            b.succeeded(),
            b.tried(),
            told));
  }

  /// What is taken of a number that nobody has said; typical, no source.
  ///
  /// @return NaN where it is worked out
  public static double usual(String name) {
    return ALL.stream().filter(k -> k.name().equals(name)).findFirst().orElseThrow().usual();
  }

  private double orUsual(String name, List<String> told) {
    return of(name)
        .orElseGet(() -> {
          told.add(String.format(Locale.ROOT, "%s: %.4g taken, typical", name, usual(name)));
          return usual(name);
        });
  }
}
