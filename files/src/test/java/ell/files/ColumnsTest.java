package ell.files;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import ell.core.board.BomLine;
import ell.core.board.Placement;
import ell.core.board.Side;
import ell.files.csv.BomReader;
import ell.files.csv.PlacementReader;
import ell.files.csv.ShelfReader;
import java.io.IOException;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Bills and placements as other programs write them: columns told by their words in four languages
/// and by what stands below them, and every column, row and guess accounted for. Common practice,
/// no source.
public class ColumnsTest {
  private static final List<String> PARTS = List.of("R1", "R2", "C1");

  private static Read.Whole<List<BomLine>> bill(String text, String... said) throws IOException {
    return whole(BomReader.read(Source.of("bom.csv", text), said(said)));
  }

  private static Read.Whole<List<Placement>> places(String text, String... said)
      throws IOException {
    return whole(PlacementReader.read(Source.of("pos.txt", text), said(said)));
  }

  private static Map<String, String> said(String... words) {
    return List.of(words).stream()
        .collect(Collectors.toMap(w -> w.split("=")[0], w -> w.split("=")[1]));
  }

  private static <T> Read.Whole<T> whole(Read<T> read) {
    return switch (read) {
      case Read.Whole<T> w -> w;
      case Read.Flawed<T> f -> throw new AssertionError(f.problems().toString());
    };
  }

  private static String refusal(Read<?> read) {
    return switch (read) {
      case Read.Whole<?> w -> throw new AssertionError("read: " + w.value());
      case Read.Flawed<?> f -> f.problems().toString();
    };
  }

  /// Two resistors of 4k7 in 0603 and a capacitor of 100n in 0805, in the words of many.
  @DataProvider
  Object[][] bills() {
    return new Object[][] {
      {"Reference,Value,Footprint\n\"R1,R2\",4k7,0603\nC1,100n,0805\n"},
      {"Item,Qty,Reference(s),Comment,Footprint\n1,2,\"R1, R2\",4k7,0603\n2,1,C1,100n,0805\n"},
      {"Pos;Menge;Referenz;Wert;Gehäuse\n1;2;R1 R2;4k7;0603\n2;1;C1;100n;0805\n"},
      {"Référence;Valeur;Boîtier;Quantité\nR1 R2;4k7;0603;2\nC1;100n;0805;1\n"},
      {"Referencia;Valor;Encapsulado;Cantidad\nR1/R2;4k7;0603;2\nC1;100n;0805;1\n"},
      {"#,Name,Designator,Case\n1,4k7,\"R1,2\",0603\n2,100n,C1,0805\n"},
      {"Part,Designation,Package\nR1,4k7,0603\nR2,4k7,0603\nC1,100n,0805\n"},
      {"Id\tComponent\tPart Value\tPattern\n1\tR1-R2\t4k7\t0603\n2\tC1\t100n\t0805\n"},
      {"Foo,Bar,Baz\nR1,4k7,0603\nR2,4k7,0603\nC1,100n,0805\n"},
      {"Foo,Bar,Baz\nR1 R2,4k7,0603\nC1,100n,0805\n"},
      {"; of the board\nQty,Parts,Value,Package\n; here\n2 pcs,R1 -R2,4k7,0603\n1,C1,100n,0805\n"},
      {"Qty,Refs,Value,Package\n2,R1\u00a0R2,4k7,0603\n1,C1,100n,0805\nTotal,,,\n3,,,\n"},
      {"Bauteil;Typ;Bauform;Hersteller\nR1..R2;4k7;0603;X\nC1;100n;0805;X\n"},
    };
  }

  @Test(dataProvider = "bills")
  public void columnsAreFoundByMeaningAndContent(String text) throws IOException {
    Read.Whole<List<BomLine>> w = bill(text);
    assertEquals(w.value().stream().flatMap(l -> l.references().stream()).toList(), PARTS);
    for (BomLine l : w.value()) {
      boolean cap = l.references().contains("C1");
      assertEquals(l.value(), cap ? "100n" : "4k7", l.toString());
      assertEquals(l.packageName(), cap ? "0805" : "0603", l.toString());
      assertEquals(l.code(), "", "no running number and no maker is a code: " + l);
    }
  }

  @Test
  public void packagesAreToldByTheirLooks() throws IOException {
    for (String p : List.of("R_0603_1608Metric", "Lib:SOT-23-5", "LQFP-48", "C0805", "D_SMA")) {
      assertEquals(
          bill("Foo,Bar,Baz\nR1,4k7," + p + "\nR2,1k," + p + "\n").value().getFirst().packageName(),
          p);
    }
  }

  @Test
  public void whatIsNotUsedAndWhatIsGuessedIsSaid() throws IOException {
    Account a = bill("Foo,Bar,Lager,Notes\nR1,4k7,A1,\nR2,1k,A2,\n").account();
    assertTrue(a.passedOver().toString().contains("columns not used: Lager"), a.toString());
    assertFalse(a.passedOver().toString().contains("Notes"), "nothing stands in it");
    assertEquals(a.guesses().size(), 2, a.guesses().toString());
    assertTrue(a.guesses().toString().contains("--column value=HEADING"), a.toString());
    assertTrue(a.found().contains("2 parts on 2 lines"), a.found().toString());
    assertTrue(bill("Ref,Value\nR1,1k\n").account().guesses().isEmpty());
  }

  @Test
  public void whatIsSaidOfAColumnHolds() throws IOException {
    String text = "Ref,Value,Comment,Stock no\nR1,R,4k7,900\nR2,R,1k,901\n";
    assertEquals(bill(text).value().getFirst().value(), "R");
    BomLine l = bill(text, "value=Comment", "code=stock no").value().getFirst();
    assertEquals(l.value(), "4k7");
    assertEquals(l.code(), "900");
    String no = refusal(BomReader.read(Source.of("b.csv", text), Map.of("value", "Valuation")));
    assertTrue(no.contains("no column 'Valuation'") && no.contains("'Comment'"), no);
  }

  @Test
  public void aRefusalQuotesWhatWasFound() throws IOException {
    String no = refusal(BomReader.read(Source.of("b.csv", "Colour,Shape\nred,round\n")));
    assertTrue(no.contains("'Colour', 'Shape'") && no.contains("--column reference="), no);
  }

  @Test
  public void aFirstRowOfPartsIsNoHeading() throws IOException {
    String no =
        refusal(BomReader.read(Source.of("b.csv", "R1,10k,0603\nR2,4k7,0603\nC1,1n,0603\n")));
    assertTrue(no.contains("'R1', '10k', '0603'"), "the first part is not lost: " + no);
  }

  @Test
  public void aShelfMayNameACodeInSeveralBins() throws IOException {
    var w =
        whole(
            ShelfReader.read(Source.of("s.csv", "Item,Qty,Bin\nR10K,5,A1\nR10K,7,A2\nC1N,3,A3\n")));
    assertEquals(w.value().size(), 3);
    assertEquals(w.value().getFirst().code(), "R10K");
  }

  @Test
  public void onlyWhatStandsTwiceOnALineIsNamed() throws IOException {
    String no = refusal(BomReader.read(Source.of("b.csv", "Ref,Value\n\"R1,R2,R1\",1k\n")));
    assertTrue(no.contains("R1 is already") && !no.contains("R2 is already"), no);
  }

  @DataProvider
  Object[][] leftOff() {
    return new Object[][] {
      {"Ref,Value\nR1,DNP\n"},
      {"Ref,Value\nR1,10k DNI\n"},
      {"Ref,Value\nR1,10k (do not populate)\n"},
      {"Ref,Value\nR1,NP\n"},
      {"Ref,Value\nR1,n/a\n"},
      {"Ref,Value\nR1,no-pop\n"},
      {"Ref,Value,Populate\nR1,10k,0\n"},
      {"Ref,Value,Populate\nR1,10k,NP\n"},
      {"Ref,Value,Install\nR1,10k,N\n"},
      {"Ref,Value,DNP\nR1,10k,1\n"},
      {"Ref,Value,Do Not Populate\nR1,10k,yes\n"},
      {"Ref,Value,Qty\nR1,10k,DNP\n"},
      {"Ref,Value,Qty\nR1,10k,0\n"},
      {"Referenz;Wert;Bestückung\nR1;10k;nein\n"},
    };
  }

  @Test(dataProvider = "leftOff")
  public void leftOffInEverySpelling(String text) throws IOException {
    BomLine l = bill(text).value().getFirst();
    assertFalse(l.fitted(), text);
    assertTrue(l.value().isEmpty() || l.value().equals("10k"), l.value());
  }

  @Test
  public void whatOnlyLooksLikeItIsFitted() throws IOException {
    for (String value : List.of("SW SPST NC 3A", "100n NP0", "DNA-1", "10k", "NOR gate")) {
      assertTrue(bill("Ref,Value\nU1," + value + "\n").value().getFirst().fitted(), value);
    }
  }

  @Test
  public void referencesAsBillsWriteThem() throws IOException {
    String[][] lists = {
      {"\"C1,2,3\"", "C1 C2 C3"},
      {"\"C1,3-5\"", "C1 C3 C4 C5"},
      {"R1/R2", "R1 R2"},
      {"R1 - R3", "R1 R2 R3"},
      {"R1 -R2", "R1 R2"},
      {"R1 .. R3", "R1 R2 R3"},
      {"\"U1A, U1B\"", "U1"},
      {"\"Q1A, Q2A\"", "Q1A Q2A"},
    };
    for (String[] l : lists) {
      assertEquals(
          String.join(" ", bill("Ref,Value\n" + l[0] + ",x1\n").value().getFirst().references()),
          l[1],
          l[0]);
    }
    assertEquals(
        bill("Ref,Qty\n\"U1A,U1B\",2\n").value().getFirst().references(),
        List.of("U1A", "U1B"),
        "the quantity says that they are two");
    assertTrue(
        bill("Ref,Value\nREF**,logo\nR1,1k\n").account().passedOver().toString().contains("REF**"));
  }

  @Test
  public void aListOfAllThatFollowsAGroupedOneIsPassedOver() throws IOException {
    Read.Whole<List<BomLine>> w =
        bill("Ref,Value\n\"R1,R2\",1k\nC1,1n\n\nRef,Value\nR1,1k\nR2,1k\nC1,1n\n");
    assertEquals(w.value().size(), 2);
    assertEquals(w.account().grouped().size(), 2, w.account().grouped().toString());
    assertEquals(w.account().grouped().get(1).toString().substring(0, 20), "3 × listed once more");
    String other = "Ref,Value\n\"R1,R2\",1k\nC1,1n\nR1,1k\nR2,2k\nC1,1n\n";
    assertTrue(refusal(BomReader.read(Source.of("b.csv", other))).contains("R2 is already"));
  }

  @Test
  public void quantitiesOfSeveralBoardsAreOneRemark() throws IOException {
    String text = "Ref,Value,Qty\nR1,1k,10\n\"R2,R3\",2k,20\nC1,1n,10\nC2,2n,10\n";
    assertTrue(bill(text).warnings().toString().contains("10 boards"));
    String odd = text + "C3,3n,11\n";
    assertTrue(refusal(BomReader.read(Source.of("b.csv", odd))).contains("quantity 11"));
  }

  @Test
  public void thousandsAndCounts() throws IOException {
    assertEquals(
        bill("Ref,Unit Price\nR1,\"1,234.50\"\n").value().getFirst().unitCost(), 1234.5, 1e-9);
    assertEquals(bill("Ref;Price\nR1;1.234,50\n").value().getFirst().unitCost(), 1234.5, 1e-9);
    assertEquals(bill("Ref;Price\nR1;0,12\n").value().getFirst().unitCost(), 0.12, 1e-12);
  }

  /// R1 at (12.7, 2.54) on the first side, turned by 90, and R2 on the second.
  @DataProvider
  Object[][] placements() {
    return new Object[][] {
      {"Ref,X (mm),Y (mm),Rot,Side\nR1,12.7,2.54,90,Top\nR2,1,2,0,Bottom\n"},
      {
        "# Ref   Val    Package   PosX     PosY    Rot   Side\n"
            + "R1      10 k   R_0603    12.7000  2.5400  90.00  top\n"
            + "R2             R_0603     1.0000  2.0000   0.00  bottom\n## End\n"
      },
      {
        "### Units used: mil\nDesignator,Mid X,Mid Y,Ref X,Ref Y,Layer,Rotation\n"
            + "R1,500,100,1,1,TopLayer,90\nR2,39.37,78.74,1,1,BottomLayer,0\n"
      },
      {"# X,Y in mils.\nRefDes,X,Y,Orient.,TB\nR1,500,100,90,T\nR2,39.37,78.74,0,B\n"},
      {"Part,Center-X(mm),Center-Y(mm),Angle,Mirror\nR1,12.7,2.54,90,no\nR2,1,2,0,yes\n"},
      {"Ref,X,Y,Rotation,Side\nR1,500mil,100mil,90,Component Side\nR2,1mm,2mm,0,Solder Side\n"},
      {"Bezeichner;X (mm);Y (mm);Winkel;Seite\nR1;12,7;2,54;90;oben\nR2;1;2;0;unten\n"},
      {
        "Unit = inch\nComponent  X       Y      Rotation  Side\n-------------------------------\n"
            + "R1         0.5     0.1    90        Top Side\nR2         0.03937 0.07874 0    Bottom Side\n"
            + "Total: 2\n"
      },
    };
  }

  @Test(dataProvider = "placements")
  public void placementsOfEveryForm(String text) throws IOException {
    List<Placement> all = places(text).value();
    assertEquals(all.size(), 2, all.toString());
    assertEquals(all.get(0).xMm(), 12.7, 1e-3);
    assertEquals(all.get(0).yMm(), 2.54, 1e-3);
    assertEquals(all.get(0).rotationDeg(), 90, 1e-9);
    assertEquals(all.get(0).side(), Side.FIRST);
    assertEquals(all.get(1).xMm(), 1, 1e-3);
    assertEquals(all.get(1).side(), Side.SECOND);
  }

  @Test
  public void unitsAndSidesThatNobodySaidAreGuesses() throws IOException {
    String told = places("Ref,X,Y\nR1,1,2\n").account().guesses().toString();
    assertTrue(told.contains("millimetre") && told.contains("first side"), told);
    assertTrue(places("# Unit: mm\nRef,X,Y,Side\nR1,1,2,T\n").account().guesses().isEmpty());
    assertEquals(
        places("Ref,X,Y,Foo\nR1,1,2,B\n", "side=Foo").value().getFirst().side(), Side.SECOND);
  }
}
