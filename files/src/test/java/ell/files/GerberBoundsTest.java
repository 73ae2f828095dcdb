package ell.files;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import ell.core.artwork.Artwork;
import ell.files.gerber.GerberReader;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Files that ask for more than a layer can be: apertures whose numbers are missing, negative, huge
/// or broken, counts in the milliards, repeats of repeats. Each is refused with its line, in the
/// room and time of a small file.
public final class GerberBoundsTest {
  private static final String HEAD = "%FSLAX36Y36*%\n%MOMM*%\n";
  private static final String TAIL = "\nM02*\n";

  private static List<Problem> problems(String text) throws IOException {
    return GerberReader.read(Source.of("odd.gbr", text)) instanceof Read.Flawed<Artwork>(var p)
        ? p
        : List.of();
  }

  /// The body of a macro, and what the problem says. Its aperture is defined in line 4.
  @DataProvider
  Object[][] macros() {
    return new Object[][] {
      {"1,1", "primitive 1 needs 3 numbers"},
      {"1,1,-1,0,0", "diameter must be above 0"},
      {"1,1,1" + "0".repeat(30) + ",0,0", "an aperture of 1.000e+30 mm"},
      {"1,1,1/0,0,0", "'1/0' comes to no number"},
      {"1,1,$1-$1/($2-$2),0,0", "comes to no number"},
      {"1,1,,0,0", "expected a number in ''"},
      {"1,1,0x10,0,0", ""},
      {"1,1,1d,0,0", "cannot read '1d'"},
      {"1.5,1,1,0,0", "the code of a primitive as a whole number"},
      {"4000000000,1,1,0,0", "the code of a primitive as a whole number in 0...999"},
      {"-1,1,1,0,0", "the code of a primitive"},
      {"77,1,1,0,0", "unknown primitive 77"},
      {"4,1,1000000000,0,0,1,0,1,1,0,0,0", "corners of an outline"},
      {"4,1,1073741823,0,0,1,0,1,1,0,0,0", "corners of an outline"},
      {"4,1,3.5,0,0,1,0,1,1,0,0,0", "corners of an outline"},
      {"4,1,-3,0,0,1,0,1,1,0,0,0", "corners of an outline"},
      {"4,1,9,0,0,1,0,1,1,0,0,0", "needs 22 numbers"},
      {"5,1,1000000000,0,0,1,0", "corners of a polygon"},
      {"5,1,5.5,0,0,1,0", "corners of a polygon"},
      {"6,0,0,5,0.5,0.5,1000000000,0,0,0", "number of rings"},
      {"6,0,0,5,-0.5,0.5,9,0,0,0", "rings of a negative measure"},
      {"7,0,0,1,2,0.1,0", "outer diameter above its inner one"},
      {"7,0,0,-1,0,0.1,0", "outer diameter above its inner one"},
      {"20,1,-1,0,0,1,1,0", "a negative width"},
      {"21,1,1,0,0,0,0", "height must be above 0"},
      {"21,1,1,1,0,0,9999", "a turn within 3600 degrees"},
      {"$99999999999=1*1,1,$99999999999,0,0", "number that cannot be read"},
      {"(".repeat(5000) + "1", "nested too deep"},
    };
  }

  @Test(dataProvider = "macros", timeOut = 20_000)
  public void macrosAreHeldToWhatABoardCanBe(String body, String words) throws IOException {
    String text = HEAD + "%AMODD*" + body + "*%\n%ADD10ODD,1X2*%\nD10*\nX0Y0D03*" + TAIL;
    List<Problem> found = problems(text);
    if (words.isEmpty()) { // 0x10 is no hexadecimal here: 0 times 10 is no width, which is allowed
      assertTrue(found.isEmpty(), found.toString());
      return;
    }
    assertTrue(found.getFirst().message().contains(words), found.toString());
    assertTrue(found.getFirst().message().contains("aperture macro ODD"), found.toString());
    assertEquals(found.getFirst().line(), 4, found.toString());
  }

  /// Rings without thickness, or so many that they end by themselves, are what they are: bounded.
  @Test(timeOut = 20_000)
  public void ringsEndWhereTheyDo() throws IOException {
    for (String rings : List.of("6,0,0,5,0,0,100,0.1,6,0", "6,0,0,5,0.25,0.25,100,0.1,6,0")) {
      String text = HEAD + "%AMODD*" + rings + "*%\n%ADD10ODD*%\nD10*\nX0Y0D03*" + TAIL;
      assertEquals(problems(text), List.of());
    }
  }

  @DataProvider
  Object[][] bodies() {
    return new Object[][] {
      {"%ADD10C,0.1*%\nD10*\nX99999999999Y0D03*", "from the origin"},
      {"%ADD10C,2000*%", "an aperture of 2000 mm"},
      {"%ADD10R,1X5000*%", "an aperture of 5000 mm"},
      {"%ADD10C,NaN*%", "number that cannot be read"},
      {"%ADD10C,Infinity*%", "number that cannot be read"},
      {"%ADD10C,0x1p3*%", "number that cannot be read"},
      {"%ADD10C,1f*%", "number that cannot be read"},
      {"%ADD99999999999C,1*%", "expected an aperture"},
      {"%ADD10P,1X5.5*%", "corners of a polygon"},
      {"%ADD10P,1X-5*%", "corners of a polygon"},
      {"%LSNaN*%", "number that cannot be read"},
      {"%LS1e9*%", "a scale in 0.001...1000"},
      {"%LS1000*%\n%ADD10C,2*%\nD10*\nX0Y0D03*", "an aperture of 2000 mm"},
      {"%LRInfinity*%", "number that cannot be read"},
      {"%SRX1000000Y1000000I1J1*%", "expected a repeat"},
      {"%SRX3000Y1I1000J0*%", "from the origin"},
      {"%SRX99999999999Y1I1J1*%", "expected a repeat"},
      {"%ADD10C,1*%\nD10*\nX0Y0D99999999999*", "number that cannot be read"},
      {"%ADD10C,1*%\nD10*\nX1.2.3Y0D03*", "number that cannot be read"},
      {"%ADD10C,1*%\nD10*\nX+-3Y0D03*", "number that cannot be read"},
    };
  }

  @Test(dataProvider = "bodies", timeOut = 20_000)
  public void layersAreHeldToWhatABoardCanBe(String body, String words) throws IOException {
    List<Problem> found = problems(HEAD + body + TAIL);
    assertTrue(found.toString().contains(words), found.toString());
    assertTrue(found.getFirst().line() >= 3, found.toString());
  }

  /// A small file whose repeats, blocks of blocks or arcs would fill the memory.
  @Test(timeOut = 60_000)
  public void smallFilesCannotAskForMuchRoom() throws IOException {
    StringBuilder circles = new StringBuilder("%ADD10C,0.1*%\nD10*\nG75*\nX0Y0D02*\nG03*\n");
    for (int i = 0; i < 20_000; i++) {
      circles.append("X0Y0I1000000J0D01*\n");
    }
    String repeated = "%SRX100Y100I1J1*%\n" + circles + "%SR*%";
    StringBuilder blocks = new StringBuilder("%ADD10C,0.1*%\n%ABD11*%\nD10*\n");
    blocks.append("X0Y0D03*\n".repeat(20)).append("%AB*%\n");
    for (int b = 12; b < 20; b++) {
      blocks.append("%ABD" + b + "*%\nD" + (b - 1) + "*\n");
      blocks.append("X0Y0D03*\n".repeat(20)).append("%AB*%\n");
    }
    for (String body : List.of(repeated, circles.toString().repeat(5), blocks.toString())) {
      List<Problem> found = problems(HEAD + body + TAIL);
      assertTrue(found.getFirst().message().contains("in one layer"), found.toString());
      assertTrue(found.size() < 10, "what follows is not read: " + found.size());
    }
    StringBuilder apertures = new StringBuilder("%AMBIG*" + "21,1,1,1,0,0*".repeat(900) + "%\n");
    for (int i = 10; i < 200; i++) {
      apertures.append("%ADD" + i + "BIG*%\n");
    }
    assertTrue(problems(HEAD + apertures + TAIL).toString().contains("apertures of more than"));
  }

  /// Thousands of macros and words made at random from the pieces of real ones: read or refused.
  @Test(timeOut = 120_000)
  public void randomWordsAreReadOrRefused() throws IOException {
    String[] pieces = {
      "1,1,1,0,0",
      "4,1,3,0,0,1,0,1,1,0,0,0",
      "5,1,6,0,0,1,0",
      "6,0,0,5,0.5,0.5,3,0.1,6,0",
      "7,0,0,2,1,0.2,0",
      "20,1,0.2,0,0,1,1,30",
      "21,1,1,0.5,0,0,10",
      "22,0,1,0.5,0,0,10",
      "$2=$1x2",
      "$1",
      "-",
      "/",
      "x",
      "(",
      ")",
      ",",
      "*",
      "0",
      "9",
      "1e9",
      ".",
      "$",
      "0.0001",
      "-5",
      "1000000000"
    };
    Random random = new Random(5);
    int refused = 0;
    for (int round = 0; round < 4000; round++) {
      List<String> body = new ArrayList<>();
      for (int k = 1 + random.nextInt(4); k > 0; k--) {
        StringBuilder s = new StringBuilder(pieces[random.nextInt(9)]);
        if (random.nextBoolean()) {
          int at = random.nextInt(s.length());
          s.replace(
              at,
              Math.min(s.length(), at + random.nextInt(3)),
              pieces[9 + random.nextInt(pieces.length - 9)]);
        }
        body.add(s.toString());
      }
      String text =
          HEAD
              + "%AMODD*"
              + String.join("*", body)
              + "*%\n%ADD10ODD,"
              + (random.nextInt(300) - 100) / 100.0
              + "X2*%\nD10*\nX0Y0D03*\nX1000000D02*\nX2000000Y1000000D01*"
              + TAIL;
      List<Problem> found = problems(text);
      refused += found.isEmpty() ? 0 : 1;
      found.forEach(p -> assertTrue(p.line() > 0 && p.message().length() < 600, p.toString()));
    }
    assertTrue(refused > 800 && refused < 3200, "refused " + refused);
  }
}
