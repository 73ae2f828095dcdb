package ell.core.kit;

import ell.core.board.Part;
import ell.core.board.Revision;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/// Losses by class of part. The typical rules are common practice without a source; a maker's own
/// stand in for them.
///
/// @param rules by class; classes that are not there lose nothing
public record AttritionRules(Map<SizeClass, Attrition> rules) {
  /// Classes of parts that are lost alike.
  public enum SizeClass {
    /// Chips of 0402 and smaller.
    TINY,
    /// Chips from 0603 to 1206.
    SMALL,
    /// Parts that the build hangs on.
    KEY,
    /// Everything else.
    OTHER
  }

  /// 0402 and smaller 10 %, at least 5; 0603 to 1206 5 %, at least 2; nothing else is lost.
  public static final AttritionRules TYPICAL =
      new AttritionRules(
          Map.of(
              SizeClass.TINY,
              new Attrition(0.10, 5),
              SizeClass.SMALL,
              new Attrition(0.05, 2),
              SizeClass.KEY,
              Attrition.NONE,
              SizeClass.OTHER,
              Attrition.NONE));

  public AttritionRules {
    rules = Map.copyOf(rules);
  }

  /// The class of parts of one code.
  public static SizeClass sizeClass(Revision revision, List<Part> parts) {
    if (parts.stream().anyMatch(Part::key)) {
      return SizeClass.KEY;
    }
    return switch (revision.shape(parts.getFirst()).chipCode()) {
      case "01005", "0201", "0402" -> SizeClass.TINY;
      case "0603", "0805", "1206" -> SizeClass.SMALL;
      default -> SizeClass.OTHER;
    };
  }

  /// The rule for parts of one code.
  public Attrition of(Revision revision, List<Part> parts) {
    return rules.getOrDefault(sizeClass(revision, parts), Attrition.NONE);
  }

  /// These rules with others in their place, written `small=5%/2, tiny=0.1/5`: a rate and, behind a
  /// stroke, the least number.
  ///
  /// @throws IllegalArgumentException naming what was not understood
  public AttritionRules with(String text) {
    Map<SizeClass, Attrition> all = new EnumMap<>(SizeClass.class);
    all.putAll(rules);
    for (String one : text.split(",")) {
      String[] sides = one.strip().split("=", 2);
      try {
        String[] numbers = sides[1].split("/", 2);
        String rate = numbers[0].strip();
        boolean percent = rate.endsWith("%");
        double r =
            EngineeringNumber.parse(
                    percent ? rate.substring(0, rate.length() - 1).strip() : rate, Unit.ONE)
                / (percent ? 100 : 1);
        long least = numbers.length > 1 ? Long.parseLong(numbers[1].strip()) : 0;
        all.put(
            SizeClass.valueOf(sides[0].strip().toUpperCase(Locale.ROOT)), new Attrition(r, least));
      } catch (IllegalArgumentException | ArrayIndexOutOfBoundsException e) {
        throw new IllegalArgumentException(
            "expected losses such as small=5%/2 for tiny, small, key or other, found '"
                + one.strip()
                + "'",
            e);
      }
    }
    return new AttritionRules(all);
  }
}
