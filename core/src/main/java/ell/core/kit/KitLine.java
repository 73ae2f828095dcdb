package ell.core.kit;

import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.core.sheet.Worked;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;

/// One code of the kit.
///
/// @param code house code, or value and package
/// @param references parts of one board
/// @param label value and package in words
/// @param rule attrition
/// @param need for the whole build, losses and spares counted
/// @param spares how many of it are to be kept beside the build
/// @param placed how many sit on boards of the build already
/// @param lost how many the build has lost already
/// @param toGo how many must still come from the shelf
/// @param onHand usable on the day that is asked about, of the code itself
/// @param fromAlternates taken from alternates
/// @param onOrder under way after that day
/// @param shortBy missing on that day
/// @param expected when the last of what is under way arrives
/// @param expired how many lie there that may not be used any more
/// @param bin where it lies
/// @param reach the most boards for which this line alone suffices
public record KitLine(
    String code,
    List<String> references,
    String label,
    Attrition rule,
    long need,
    long spares,
    long placed,
    long lost,
    long toGo,
    long onHand,
    long fromAlternates,
    long onOrder,
    long shortBy,
    Optional<LocalDate> expected,
    long expired,
    String bin,
    long reach) {
  public KitLine {
    references = List.copyOf(references);
  }

  /// Parts on one board.
  public int perBoard() {
    return references.size();
  }

  /// The need as a worked sheet.
  public Worked sheet(int boards) {
    long quantity = (long) boards * perBoard();
    Worked.Builder s =
        Worked.of("kit.need", "Need of " + code)
            .input("boards", (double) boards)
            .input("perBoard", (double) perBoard())
            .line("quantity", boards + " boards · " + perBoard() + " a board", quantity, Unit.ONE)
            .line(
                "losses",
                "max("
                    + EngineeringNumber.print(rule.rate(), Unit.ONE)
                    + " · quantity rounded up, "
                    + rule.minimum()
                    + ")",
                rule.extra(quantity),
                Unit.ONE);
    if (spares > 0) {
      s.line(
          "spares",
          "kept beside the build by the bill, or for bodges that are left",
          spares,
          Unit.ONE);
    }
    s.line("need", "quantity + losses" + (spares > 0 ? " + spares" : ""), need, Unit.ONE);
    if (placed > 0 || lost > 0) {
      s.line("placed", "on boards of this build, from the book", placed, Unit.ONE)
          .line("lost", "dropped, broken or replaced, from the book", lost, Unit.ONE)
          .line("still to come", "need − placed − lost, no loss counted twice", toGo, Unit.ONE);
    }
    return s.line(
            "on hand",
            "from the shelf" + (fromAlternates > 0 ? ", " + fromAlternates + " of alternates" : ""),
            onHand + fromAlternates,
            Unit.ONE)
        .line("short", "what is still to come − on hand, not below 0", shortBy, Unit.ONE)
        .result("need", (double) need)
        .result("short", (double) shortBy)
        .source("common practice, no source: losses by size class, key parts none")
        .done();
  }
}
