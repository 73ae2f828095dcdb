package ell.desk.mark;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import ell.core.quantity.Verdict;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javafx.scene.paint.Color;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Contrast of text on its ground. Source: WCAG 2.1, success criterion 1.4.3, relative luminance as
/// defined there.
public class InkTest {
  private static double luminance(Color c) {
    return 0.2126 * linear(c.getRed())
        + 0.7152 * linear(c.getGreen())
        + 0.0722 * linear(c.getBlue());
  }

  private static double linear(double v) {
    return v <= 0.03928 ? v / 12.92 : Math.pow((v + 0.055) / 1.055, 2.4);
  }

  private static double contrast(Color a, Color b) {
    double x = luminance(a);
    double y = luminance(b);
    return (Math.max(x, y) + 0.05) / (Math.min(x, y) + 0.05);
  }

  @Test
  public void theMeasureItself() {
    assertEquals(contrast(Color.BLACK, Color.WHITE), 21, 1e-9);
    // #767676 on white is the known edge of 4.5:1
    assertTrue(contrast(Color.web("#767676"), Color.WHITE) >= 4.5);
    assertTrue(contrast(Color.web("#777777"), Color.WHITE) < 4.5);
  }

  @DataProvider
  Object[][] palettes() {
    return new Object[][] {{"day", Ink.DAY}, {"night", Ink.NIGHT}};
  }

  @Test(dataProvider = "palettes")
  public void textIsReadable(String name, Ink ink) {
    for (Color ground : List.of(ink.paper(), ink.sheet(), ink.stick())) {
      for (Color text :
          List.of(ink.ink(), ink.ink2(), ink.verdigris(), ink.ochre(), ink.madder(), ink.slate())) {
        assertTrue(
            contrast(text, ground) >= 4.5,
            name
                + ": "
                + text
                + " on "
                + ground
                + " is "
                + String.format(Locale.ROOT, "%.2f", contrast(text, ground)));
      }
    }
  }

  @Test(dataProvider = "palettes")
  public void verdictsHaveAMarkAndAColour(String name, Ink ink) {
    for (Verdict v : Verdict.values()) {
      assertEquals(ink.of(v), ink.of(Marks.of(v)), name);
    }
  }

  /// The style sheet and the drawings use the same colours.
  @Test
  public void styleSheetAndDrawingsAgree() throws IOException {
    String css;
    try (InputStream in = Ink.class.getResourceAsStream("/ell/desk/ell.css")) {
      css = new String(in.readAllBytes(), StandardCharsets.UTF_8);
    }
    String day = css.substring(css.indexOf(".desk {"), css.indexOf(".desk:night"));
    String night = css.substring(css.indexOf(".desk:night"), css.indexOf(".label"));
    check(day, Ink.DAY);
    check(night, Ink.NIGHT);
  }

  private static void check(String block, Ink i) {
    Map<String, Color> tokens =
        Map.of(
            "paper",
            i.paper(),
            "sheet",
            i.sheet(),
            "stick",
            i.stick(),
            "ink",
            i.ink(),
            "ink2",
            i.ink2(),
            "hair",
            i.hair(),
            "verdigris",
            i.verdigris(),
            "ochre",
            i.ochre(),
            "madder",
            i.madder(),
            "slate",
            i.slate());
    tokens.forEach((name, colour) -> {
      Matcher m = Pattern.compile("-" + name + ": (#[0-9A-F]{6})").matcher(block);
      assertTrue(m.find(), name);
      assertEquals(Color.web(m.group(1)), colour, name);
    });
  }
}
