package ell.core.kit.buy;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;

/// What to buy where, so that everything that can be there in time is, at the least total.
///
/// @param by when everything must be there
/// @param purchases what is bought, in the order of the lines
/// @param shipments what is paid for shipping, once for sellers that ship together
/// @param unmet what no offers cover by that day
/// @param total price of goods and shipping
/// @param bound no split costs less than this
/// @param proven whether the total is the least there is
/// @param oneSeller everything from the one seller that is cheapest with everything
/// @param cheapestEach each line where it is cheapest, whatever that ships
/// @param assumptions what was taken for granted
public record OrderSplit(
    LocalDate by,
    List<Purchase> purchases,
    List<Shipment> shipments,
    List<Unmet> unmet,
    double total,
    double bound,
    boolean proven,
    Optional<Naive> oneSeller,
    Optional<Naive> cheapestEach,
    List<String> assumptions) {

  /// So many of one offer.
  ///
  /// @param line code of the line of the kit; the offer's own code may be an alternate
  public record Purchase(String line, Offer offer, long quantity, LocalDate arrives) {
    /// Price of one piece at this quantity.
    public double unitPrice() {
      return offer.priceAt(quantity);
    }

    /// What it costs.
    public double price() {
      return quantity * unitPrice();
    }

    /// How many packs that is.
    public long packs() {
      return quantity / offer.pack();
    }
  }

  /// One shipment.
  ///
  /// @param sellers that travel in it
  public record Shipment(List<String> sellers, double cost) {
    public Shipment {
      sellers = List.copyOf(sellers);
    }
  }

  /// A line that cannot be covered in time.
  ///
  /// @param earliest when it could be, if ever
  public record Unmet(String code, long quantity, Optional<LocalDate> earliest) {}

  /// A way that a person might choose without reckoning.
  public record Naive(String words, double total) {}

  public OrderSplit {
    purchases = List.copyOf(purchases);
    shipments = List.copyOf(shipments);
    unmet = List.copyOf(unmet);
    assumptions = List.copyOf(assumptions);
  }

  /// How far the total may be from the least, as a fraction of the total; 0 when proven.
  public double gap() {
    return proven || total <= 0 ? 0 : Math.max(0, (total - bound) / total);
  }

  /// What is paid for shipping.
  public double shipping() {
    return shipments.stream().mapToDouble(Shipment::cost).sum();
  }

  /// What is paid for goods.
  public double goods() {
    return purchases.stream().mapToDouble(Purchase::price).sum();
  }
}
