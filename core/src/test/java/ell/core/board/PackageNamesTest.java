package ell.core.board;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.Optional;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Names of packages as libraries write them. Sizes: outline standards named in the sheet, from
/// memory.
public class PackageNamesTest {
  private static PackageShape shape(String packageName) {
    Part p =
        new Part(
            "U1",
            "x",
            packageName,
            "x",
            "",
            true,
            false,
            List.of(),
            "",
            Optional.empty(),
            Double.NaN,
            Double.NaN,
            List.of(),
            0);
    return PackageShape.of(p, List.of());
  }

  @DataProvider
  Object[][] names() {
    return new Object[][] {
      {"SOT-23-5", 1.15},
      {"Lib:SOT-23-5", 1.15},
      {"SOT-23-5_HandSoldering", 1.15},
      {"Package_TO_SOT:SOT-23-5_HandSoldering", 1.15},
      {"SOIC-8_3.9x4.9mm_P1.27mm", 1.75},
      {"D_SMA", 2.3},
      {"Diodes:D_SMA_Handsoldering", 2.3},
      {"TO-220-3_Vertical", 19.5},
      {"TO-220-3_Horizontal_TabDown", 4.6},
      {"TO-92_Inline", 9.0},
    };
  }

  @Test(dataProvider = "names")
  public void librariesPutWordsBeforeAndBehind(String name, double heightMm) {
    PackageShape s = shape(name);
    assertTrue(s.known(), name);
    assertEquals(s.heightMm(), heightMm, 1e-9, name);
  }

  @Test
  public void aBodyThatLiesTakesTheRoomThatItStoodTall() {
    PackageShape up = shape("TO-220-3_Vertical");
    PackageShape down = shape("TO-220-3_Horizontal");
    assertEquals(down.widthMm(), up.heightMm());
    assertEquals(down.lengthMm(), up.lengthMm());
    assertEquals(shape("SOT-23-5_Horizontal").heightMm(), 1.15, "what is flat stays so");
  }
}
