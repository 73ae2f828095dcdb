package ell.core.kit.buy;

import ell.core.quantity.Check;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;

/// One seller's offer of one code.
///
/// @param line line of the file, 1-based
/// @param seller name of the seller
/// @param code house code or part number
/// @param pack sold in multiples of so many, 1 or more
/// @param least the fewest that are sold, 1 or more
/// @param breaks prices of one piece by quantity, rising in quantity; the price of a break holds
///   for the whole quantity
/// @param stock how many the seller has; [#UNLIMITED] when not said
/// @param days calendar days from order to bench
/// @param shipping what one shipment of this seller costs
/// @param shipsWith another seller in whose shipment it travels, so that shipping is paid once
public record Offer(
    int line,
    String seller,
    String code,
    long pack,
    long least,
    List<PriceBreak> breaks,
    long stock,
    int days,
    double shipping,
    Optional<String> shipsWith) {
  /// A stock that the seller does not state.
  public static final long UNLIMITED = Long.MAX_VALUE;

  /// From a quantity on, the price of one piece.
  ///
  /// @throws IllegalArgumentException when quantity of a price break is not in 1...1e12 or price is
  ///   below 0
  public record PriceBreak(long from, double price) {
    public PriceBreak {
      Check.inRange(from, 1, 1e12, "quantity of a price break");
      Check.notNegative(price, "price");
    }
  }

  public Offer {
    Check.inRange(pack, 1, 1e9, "pack");
    Check.inRange(least, 1, 1e12, "least quantity");
    Check.notNegative(stock, "stock");
    Check.inRange(days, 0, 10_000, "days");
    Check.notNegative(shipping, "shipping");
    if (breaks.isEmpty()) {
      throw new IllegalArgumentException(seller + " states no price for " + code);
    }
    breaks = breaks.stream().sorted(Comparator.comparingLong(PriceBreak::from)).toList();
  }

  /// The price of one piece when so many are bought; infinite when so few are not sold.
  public double priceAt(long quantity) {
    double price = Double.POSITIVE_INFINITY;
    for (PriceBreak b : breaks) {
      if (b.from() <= quantity) {
        price = b.price();
      }
    }
    return price;
  }

  /// Whether exactly so many can be bought.
  public boolean sells(long quantity) {
    return quantity % pack == 0
        && quantity >= least
        && quantity >= breaks.getFirst().from()
        && quantity <= stock;
  }
}
