package ell.core.kit;

import ell.core.quantity.Check;
import ell.core.quantity.Unit;
import ell.core.sheet.Worked;

/// What a good board costs when everything is counted, in the currency of the prices.
///
/// @param total of boards, stencil, parts and shipping
/// @param goodBoards that can be expected, not rounded
/// @param perGoodBoard total over good boards
public record Landed(
    double boards,
    double stencil,
    double parts,
    double shipping,
    double total,
    double goodBoards,
    double perGoodBoard) {

  /// Works it out.
  ///
  /// @param boardCost of all blank boards together
  /// @param partsCost of all parts, losses counted
  /// @param boards of the build, 1 or more
  /// @param yield fraction of boards that are good, above 0 and at most 1
  /// @throws IllegalArgumentException when boardCost is below 0, stencilCost is below 0, partsCost
  ///   is below 0, shipping is below 0, boards is not above 0 or yield is not above 0
  public static Landed of(
      double boardCost,
      double stencilCost,
      double partsCost,
      double shipping,
      long boards,
      double yield) {
    Check.notNegative(boardCost, "boardCost");
    Check.notNegative(stencilCost, "stencilCost");
    Check.notNegative(partsCost, "partsCost");
    Check.notNegative(shipping, "shipping");
    Check.positive(boards, "boards");
    Check.positive(Check.inRange(yield, 0, 1, "yield"), "yield");
    double total = boardCost + stencilCost + partsCost + shipping;
    double good = boards * yield;
    return new Landed(boardCost, stencilCost, partsCost, shipping, total, good, total / good);
  }

  /// Writes the working onto a sheet.
  public Worked.Builder on(Worked.Builder s) {
    return s.line("total", "boardCost + stencilCost + partsCost + shipping", total, Unit.ONE)
        .line("goodBoards", "boards · yield", goodBoards, Unit.ONE)
        .line("perGoodBoard", "total / goodBoards", perGoodBoard, Unit.ONE)
        .result("perGoodBoard", perGoodBoard)
        .result("total", total)
        .result("goodBoards", goodBoards);
  }
}
