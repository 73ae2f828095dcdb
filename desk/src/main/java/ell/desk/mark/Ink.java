package ell.desk.mark;

import ell.core.quantity.Verdict;
import ell.core.rack.Standing;
import javafx.scene.paint.Color;

/// The colours that pictures are drawn with, by day and on the night bench. The style sheet holds
/// the same values for everything that is not drawn. Text keeps 4.5:1 or better on paper, sheet and
/// stick.
public record Ink(
    Color paper,
    Color sheet,
    Color stick,
    Color ink,
    Color ink2,
    Color hair,
    Color stone,
    Color brass,
    Color verdigris,
    Color ochre,
    Color madder,
    Color slate) {
  /// By day.
  public static final Ink DAY =
      of(
          "#EFEBE1", "#FAF7EF", "#E4DDCB", "#22282B", "#555B58", "#CBC4B3", "#D9D2BF", "#A8802F",
          "#1B665A", "#82500B", "#9E2F3C", "#41597A");

  /// On the night bench.
  public static final Ink NIGHT =
      of(
          "#1D2123", "#262B2D", "#2D3335", "#ECE6D8", "#A9ADA6", "#434A4B", "#3A4041", "#D2A84E",
          "#58B7A4", "#E0A94A", "#E27C86", "#8FAFD6");

  private static Ink of(String... c) {
    return new Ink(
        Color.web(c[0]),
        Color.web(c[1]),
        Color.web(c[2]),
        Color.web(c[3]),
        Color.web(c[4]),
        Color.web(c[5]),
        Color.web(c[6]),
        Color.web(c[7]),
        Color.web(c[8]),
        Color.web(c[9]),
        Color.web(c[10]),
        Color.web(c[11]));
  }

  /// The ink for a palette.
  public static Ink of(boolean night) {
    return night ? NIGHT : DAY;
  }

  /// The colour of a verdict.
  public Color of(Verdict v) {
    return switch (v) {
      case WITHIN -> verdigris;
      case CLOSE -> ochre;
      case OUT -> madder;
    };
  }

  /// The colour of a mark.
  public Color of(Standing.Mark m) {
    return switch (m) {
      case WITHIN -> verdigris;
      case CLOSE -> ochre;
      case OUT -> madder;
      case NOT_YET -> ink2;
      case NEXT -> slate;
    };
  }

  /// A colour thinned out, for bands and grounds.
  public static Color thin(Color c, double opacity) {
    return Color.color(c.getRed(), c.getGreen(), c.getBlue(), opacity);
  }
}
