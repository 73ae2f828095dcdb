package ell.files;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.fail;

import ell.core.board.BomLine;
import ell.core.board.Outline;
import ell.core.board.Placement;
import ell.core.board.Side;
import ell.core.kit.ShelfLine;
import ell.files.csv.BomReader;
import ell.files.csv.CsvFiles;
import ell.files.csv.OutlineReader;
import ell.files.csv.PlacementReader;
import ell.files.csv.ShelfReader;
import java.io.IOException;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// CSV as people send it. Source for the plain form: RFC 4180.
public class CsvReadersTest {
  static <T> T whole(Read<T> read) {
    return switch (read) {
      case Read.Whole<T>(T value, var _) -> value;
      case Read.Flawed<T>(List<Problem> problems) -> {
        fail(problems.toString());
        yield null;
      }
    };
  }

  static <T> List<Problem> problems(Read<T> read) {
    return switch (read) {
      case Read.Whole<T> w -> {
        fail("read whole: " + w);
        yield List.of();
      }
      case Read.Flawed<T>(List<Problem> problems) -> problems;
    };
  }

  private static Read<List<BomLine>> bom(String text) throws IOException {
    return BomReader.read(Source.of("bom.csv", text));
  }

  private static Read<List<Placement>> placement(String text) throws IOException {
    return PlacementReader.read(Source.of("place.csv", text));
  }

  /// Bills list a socket under the name of the chip that sits in it, before it or after it.
  @Test
  public void aChipAndItsSocketAreTwoParts() throws IOException {
    for (boolean first : new boolean[] {true, false}) {
      String chip = "U1 U2,2,TIMER,DIP-8\n";
      String seat = "\"U1, U2\",2,IC socket 8 pins,DIP-8\n";
      Read<List<BomLine>> read =
          bom(
              "Reference,Qty,Value,Package\n"
                  + (first ? seat + chip : chip + seat)
                  + "R1,1,1k,0603\n");
      List<BomLine> lines = whole(read);
      assertEquals(
          lines.stream()
              .filter(l -> l.value().equals("TIMER"))
              .findFirst()
              .orElseThrow()
              .references(),
          List.of("U1", "U2"));
      assertEquals(
          lines.stream()
              .filter(l -> l.value().startsWith("IC"))
              .findFirst()
              .orElseThrow()
              .references(),
          List.of("XU1", "XU2"));
      assertTrue(((Read.Whole<?>) read).account().found().toString().contains("XU1"), "it is told");
    }
    assertTrue(
        problems(bom("Reference,Qty,Value\nU1,1,TIMER\nU1,1,OTHER\n"))
            .getFirst()
            .message()
            .contains("already on line 2"),
        "two chips of one name stay a mistake");
  }

  /// Four boards in a panel, 30 mm and 40 mm apart: every part four times.
  @Test
  public void aPlacementOfAPanelGivesItsFirstBoard() throws IOException {
    StringBuilder b = new StringBuilder("Ref,X mm,Y mm,Rotation,Side\n");
    for (int row = 0; row < 2; row++) {
      for (int col = 0; col < 2; col++) {
        for (int part = 1; part <= 3; part++) {
          b.append("R")
              .append(part)
              .append(',')
              .append(5 + part + 30 * col)
              .append(',')
              .append(7 + 40 * row)
              .append(",90,top\n");
        }
      }
    }
    Read<List<Placement>> read = placement(b.toString());
    List<Placement> one = whole(read);
    assertEquals(one.stream().map(Placement::reference).toList(), List.of("R1", "R2", "R3"));
    assertEquals(one.get(2).xMm(), 8.0, 1e-9);
    String told = ((Read.Whole<?>) read).account().found().toString();
    assertTrue(told.contains("a panel of 4 equal boards") && told.contains("--panel 4"), told);
    String off = b.toString().replaceFirst("R2,37", "R2,38");
    assertEquals(problems(placement(off)).size(), 9, "copies that do not lie alike are a mistake");
  }

  @Test
  public void aBillWithRangesQuotesAndLineBreaks() throws IOException {
    List<BomLine> lines =
        whole(
            bom(
                "Qty,RefDes,Value,Footprint,MPN,DNP\r\n"
                    + "6,\"R1-R4, R7\r\nR9\",4k7,0603,RES4K7,\r\n"
                    + "1,\"U1\",\"a \"\"quoted\"\" chip\",SOIC-8,CHIP,\r\n"
                    + "2,C1 C2,100n,0402,CAP,yes\r\n"));
    assertEquals(lines.get(0).references(), List.of("R1", "R2", "R3", "R4", "R7", "R9"));
    assertEquals(lines.get(1).value(), "a \"quoted\" chip");
    assertEquals(lines.get(1).line(), 4, "the line of the file, line breaks in quotes counted");
    assertTrue(lines.get(0).fitted());
    assertFalse(lines.get(2).fitted());
  }

  @DataProvider
  Object[][] spellings() {
    return new Object[][] {
      {"Reference;Quantity;Value\nR1;1;4,7k\n"},
      {"Reference\tQuantity\tValue\nR1\t1\t4,7k\n"},
      {"\uFEFFReference,Quantity,Value\nR1,1,\"4,7k\"\n"},
      {"Designator,Count,Comment\rR1,1,\"4,7k\"\r"},
      {"some tool's export\nof yesterday\n\nRef,Qty,Value\n\n# a comment\nR1,1,\"4,7k\"\n\n"},
      {"REFERENCE,QUANTITY,VALUE\nR1,1,\"4,7k\"\nTotal,1,\n"},
      {"Ref,Qty,Value,,\nR1,1,\"4,7k\",,\n,1,,,\n"},
    };
  }

  @Test(dataProvider = "spellings")
  public void separatorsMarksPreamblesTotals(String text) throws IOException {
    List<BomLine> lines = whole(bom(text));
    assertEquals(lines.size(), 1);
    assertEquals(lines.getFirst().references(), List.of("R1"));
    assertEquals(lines.getFirst().value(), "4,7k");
  }

  @Test
  public void latinOneIsReadAndSaid() throws IOException {
    byte[] bytes = "Ref,Value\nC1,10 µF\n".getBytes(StandardCharsets.ISO_8859_1);
    Read<List<BomLine>> read = BomReader.read(Source.of("bom.csv", bytes));
    assertEquals(whole(read).getFirst().value(), "10 µF");
    assertTrue(((Read.Whole<?>) read).warnings().getFirst().message().contains("Latin-1"));
    byte[] wide = "\uFEFFRef,Value\nC1,10 µF\n".getBytes(StandardCharsets.UTF_16LE);
    assertEquals(whole(BomReader.read(Source.of("bom.csv", wide))).getFirst().value(), "10 µF");
  }

  @DataProvider
  Object[][] badBills() {
    return new Object[][] {
      {"Ref,Qty\nR1,1\nR1,1\n", 3, 1, "already on line 2"},
      {"Ref,Qty\n\"R1,R2\",3\n", 2, 2, "does not match the 2 references"},
      {"Ref,Qty\nR1,two\n", 2, 2, "two"},
      {"Ref,Qty\nR4-R1,4\n", 2, 1, "rising range"},
      {"Ref,Qty\n\"R1,5%\",1\n", 2, 1, "expected references"},
      {"Ref,Cost\nR1,-3\n", 2, 2, "not below 0"},
      {"Ref,Cost\nR1,\"€ 0.10\"\nR2,\"$ 0.10\"\n", 3, 2, "mixed currencies"},
      {"X,Y\n1,2\n", 1, 0, "expected a heading"},
      {"", 1, 0, "expected a heading"},
      {"Ref,Qty\n", 0, 0, "no parts found"},
    };
  }

  @Test(dataProvider = "badBills")
  public void badBillsAreNamed(String text, int line, int column, String says) throws IOException {
    Problem p = problems(bom(text)).getFirst();
    assertEquals(p.line(), line, p.toString());
    assertEquals(p.column(), column, p.toString());
    assertTrue(p.message().contains(says), p.toString());
    assertTrue(p.toString().startsWith("bom.csv"), p.toString());
  }

  @Test
  public void everyProblemOfAFileIsTold() throws IOException {
    List<Problem> all = problems(bom("Ref,Qty\nR1,2\nR2,x\nR1,1\n"));
    assertEquals(all.size(), 3, all.toString());
    StringBuilder many = new StringBuilder("Ref,Qty\n");
    for (int i = 0; i < 1000; i++) {
      many.append("R").append(i).append(i % 2 == 0 ? ",9\n" : ",7\n");
    }
    List<Problem> bounded = problems(bom(many.toString()));
    assertEquals(bounded.size(), 201);
    assertTrue(bounded.getLast().message().contains("800 more"));
  }

  @Test
  public void placementUnitsFromHeadingOrCell() throws IOException {
    assertEquals(whole(placement("Ref,X(mm),Y(mm)\nR1,12.7,5\n")).getFirst().xMm(), 12.7, 1e-9);
    assertEquals(
        whole(placement("Ref,Mid X (mil),Mid Y (mil)\nR1,500,100\n")).getFirst().xMm(), 12.7, 1e-9);
    assertEquals(whole(placement("Ref,PosX,PosY\nR1,12.7mm,5mm\n")).getFirst().xMm(), 12.7, 1e-9);
    assertEquals(whole(placement("Ref;X (in);Y (in)\nR1;0,5;1\n")).getFirst().xMm(), 12.7, 1e-9);
    assertEquals(whole(placement("Ref,X mm,Y mm\nR1,12.7,5\n")).getFirst().yMm(), 5, 1e-9);
    Read<List<Placement>> none = placement("Ref,X,Y,Side\nR1,12.7,5,T\n");
    assertEquals(whole(none).getFirst().xMm(), 12.7, 1e-9);
    assertTrue(
        ((Read.Whole<?>) none).account().guesses().getFirst().taken().contains("millimetre"));
  }

  @DataProvider
  Object[][] sides() {
    return new Object[][] {
      {"Top", Side.FIRST},
      {"T", Side.FIRST},
      {"F", Side.FIRST},
      {"1", Side.FIRST},
      {"TopLayer", Side.FIRST},
      {"Bottom", Side.SECOND},
      {"b", Side.SECOND},
      {"2", Side.SECOND},
      {"Back", Side.SECOND},
      {"BottomLayer", Side.SECOND},
    };
  }

  @Test(dataProvider = "sides")
  public void sidesAsTheyAreWritten(String word, Side side) throws IOException {
    assertEquals(
        whole(placement("Ref,X(mm),Y(mm),Side\nR1,1,2," + word + "\n")).getFirst().side(), side);
  }

  @DataProvider
  Object[][] badPlacements() {
    return new Object[][] {
      {"Ref,X(mm),Y(mm),Side\nR1,1,2,middle\n", "expected a side"},
      {"Ref,X(mm),Y(mm)\nR1,one,2\n", "one"},
      {"Ref,X(mm),Y(mm)\nR1,1,2\nR1,1,2\n", "already on line 2"},
      {"Ref,X(furlong),Y(furlong)\nR1,1,2\n", "unknown unit"},
      {"Ref,X(mm)\nR1,1\n", "expected a heading"},
      {"Ref,X(mm),Y(mm),Rotation\nR1,1,2,up\n", "up"},
    };
  }

  @Test(dataProvider = "badPlacements")
  public void badPlacementsAreNamed(String text, String says) throws IOException {
    assertTrue(
        problems(placement(text)).toString().contains(says), problems(placement(text)).toString());
  }

  @Test
  public void rotationsAreBroughtIntoOneTurn() throws IOException {
    List<Placement> p =
        whole(placement("Ref,X(mm),Y(mm),Rotation\nR1,1,2,-90\nR2,1,2,450°\nR3,1,2,\n"));
    assertEquals(p.stream().map(Placement::rotationDeg).toList(), List.of(270.0, 90.0, 0.0));
  }

  @Test
  public void shelfWithDates() throws IOException {
    List<ShelfLine> s =
        whole(
            ShelfReader.read(
                Source.of(
                    "shelf.csv",
                    "Code;Quantity;Bin;On order;Expected\nA;10;A1;0;\nB;0;A2;50;2026-12-03\nC;1;;5;3.12.2026\nA;5;B9;;\n")));
    assertEquals(s.size(), 4, "a code may lie in several bins");
    assertEquals(s.get(1).expected(), Optional.of(LocalDate.of(2026, 12, 3)));
    assertEquals(s.get(2).expected(), Optional.of(LocalDate.of(2026, 12, 3)));
    List<Problem> bad =
        problems(
            ShelfReader.read(
                Source.of("shelf.csv", "Code,Quantity,Expected\nA,-1,\nB,1.5,\nC,1,12/03/2026\n")));
    assertEquals(bad.stream().map(Problem::line).toList(), List.of(2, 3, 4));
  }

  @Test
  public void writersAndReadersAgree() throws IOException {
    List<BomLine> bom =
        List.of(
            new BomLine(
                2,
                List.of("R1", "R2"),
                "4k7, 1 %",
                "0603",
                "R\"4K7",
                true,
                List.of("ALT1", "ALT2"),
                true,
                "supply",
                "with, comma",
                0.01,
                0.004,
                List.of("lite", "!full"),
                3),
            new BomLine(
                3,
                List.of("C1"),
                "",
                "",
                "",
                false,
                List.of(),
                false,
                "",
                "",
                Double.NaN,
                Double.NaN,
                List.of(),
                0));
    StringWriter out = new StringWriter();
    CsvFiles.bom(bom, out);
    assertEquals(whole(bom(out.toString())), bom);

    List<Placement> places =
        List.of(
            new Placement(2, "R1", 12.345, -0.5, 270, Side.SECOND, "0603"),
            new Placement(3, "U1", 0, 1e-3, 0, Side.FIRST, ""));
    out = new StringWriter();
    CsvFiles.placement(places, out);
    assertEquals(whole(placement(out.toString())), places);

    List<ShelfLine> shelf =
        List.of(
            new ShelfLine(
                2, "A", 10, "A1", 5, Optional.of(LocalDate.of(2026, 12, 3)), Optional.empty()),
            new ShelfLine(
                3, "B;C", 0, "", 0, Optional.empty(), Optional.of(LocalDate.of(2027, 1, 1))));
    out = new StringWriter();
    CsvFiles.shelf(shelf, out);
    assertEquals(whole(ShelfReader.read(Source.of("shelf.csv", out.toString()))), shelf);

    Outline outline =
        new Outline(
            List.of(
                List.of(
                    new Outline.Point(0, 0), new Outline.Point(10, 0), new Outline.Point(10, 5.5)),
                List.of(
                    new Outline.Point(1, 1), new Outline.Point(2, 1), new Outline.Point(2, 2))));
    out = new StringWriter();
    CsvFiles.outline(outline, out);
    assertEquals(whole(OutlineReader.read(Source.of("outline.csv", out.toString()))), outline);
    assertTrue(
        problems(OutlineReader.read(Source.of("o.csv", "x,y\n1,1\n2,2\n")))
            .getFirst()
            .message()
            .contains("at least 3"));
  }
}
