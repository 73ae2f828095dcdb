package ell.files;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import ell.core.board.PackageSheet;
import ell.core.kit.ShelfLine;
import ell.core.kit.buy.Offer;
import ell.core.kit.buy.Offer.PriceBreak;
import ell.files.csv.OffersReader;
import ell.files.csv.PackagesReader;
import ell.files.csv.ParametersReader;
import ell.files.csv.ShelfReader;
import java.io.IOException;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Files about the shelf as people send them.
public class OffersReaderTest {
  private static final String HEAD =
      "Seller,Code,Pack,Price breaks,Stock,Days,Shipping,Ships with\n";

  private static Read<List<Offer>> offers(String text) throws IOException {
    return OffersReader.read(Source.of("offers.csv", text));
  }

  private static List<Offer> good(String text) throws IOException {
    return CsvReadersTest.whole(offers(text));
  }

  @DataProvider
  Object[][] spellings() {
    List<PriceBreak> two = List.of(new PriceBreak(1, 0.12), new PriceBreak(100, 0.08));
    return new Object[][] {
      {HEAD + "N,A,1,1: 0.12; 100: 0.08,500,3,4.5,\n", two},
      {HEAD + "N,A,1,1:0.12|100:0.08,500,3,4.5,\n", two},
      {HEAD + "N,A,1,1=0.12 100=0.08,500,3,4.5,\n", two},
      {HEAD + "N,A,1,\"1:0.12,100:0.08\",500,3,4.5,\n", two},
      {HEAD + "N,A,1,1+ 0.12 / 100+ 0.08,500,3,4.5,\n", two},
      {HEAD + "N,A,1,1: €0.12; 100: €0.08,500,3 days,€ 4.50,-\n", two},
      {
        "Supplier;MPN;Pack size;Price breaks;Available;Lead time (days);Postage\n"
            + "N;A;1;1: 0,12 | 100: 0,08;500;3;4,5\n",
        two
      },
      {"Seller,Code,Price 1,Price 100,Stock,Days,Shipping\nN,A,0.12,0.08,500,3,4.5\n", two},
      {"Seller,Code,1+,100+,Stock,Days,Shipping\nN,A,0.12,0.08,500,3,4.5\n", two},
      {
        "Seller,Code,Break quantity,Price,Stock,Days,Shipping\n"
            + "N,A,1,0.12,500,3,4.5\nN,A,100,0.08,500,3,\n",
        two
      },
      {
        "Seller,Code,Unit price,Stock,Days,Shipping\nN,A,0.12,500,3,4.5\n",
        List.of(new PriceBreak(1, 0.12))
      },
      {
        HEAD + "N,A,1,\"1:5,10:4\",500,3,4.5,\n",
        List.of(new PriceBreak(1, 5), new PriceBreak(10, 4))
      },
    };
  }

  @Test(dataProvider = "spellings")
  public void pricesInEverySpelling(String text, List<PriceBreak> breaks) throws IOException {
    List<Offer> all = good(text);
    assertEquals(all.size(), 1);
    Offer o = all.getFirst();
    assertEquals(o.breaks(), breaks);
    assertEquals(o.seller(), "N");
    assertEquals(o.code(), "A");
    assertEquals(o.stock(), 500);
    assertEquals(o.days(), 3);
    assertEquals(o.shipping(), 4.5);
    assertEquals(o.shipsWith(), Optional.empty());
  }

  @Test
  public void shippingIsTheSellersAndStockMayBeUnsaid() throws IOException {
    List<Offer> all =
        good(HEAD + "N,A,10,0.1,,2,5,\nN,B,,0.2,7,2,,\nM,A,1,0.3,9,4,6,N\n# a word\n,,,,,,,\n");
    assertEquals(all.size(), 3);
    assertEquals(all.get(0).stock(), Offer.UNLIMITED);
    assertEquals(all.get(1).shipping(), 5.0);
    assertEquals(all.get(1).pack(), 1);
    assertEquals(all.get(2).shipsWith(), Optional.of("N"));
    assertTrue(all.getFirst().sells(20) && !all.getFirst().sells(15));
  }

  @DataProvider
  Object[][] wrong() {
    return new Object[][] {
      {HEAD + "N,A,1,soon,5,3,4,\n", 2, "expected a price"},
      {HEAD + "N,A,1,,5,3,4,\n", 2, "no price"},
      {HEAD + "N,A,1,-0.1,5,3,4,\n", 2, "expected a price"},
      {HEAD + "N,A,0,0.1,5,3,4,\n", 2, "1 or more"},
      {HEAD + "N,A,1,0.1,-5,3,4,\n", 2, "not below 0"},
      {HEAD + "N,A,1,0.1,5,soon,4,\n", 2, "expected days"},
      {HEAD + "N,A,1,0.1,5,,4,\n", 2, "days from order"},
      {HEAD + "N,A,1,€0.1,5,3,4,\nM,B,1,$0.2,5,3,4,\n", 3, "mixed currencies"},
      {HEAD + "N,A,1,0.1,5,3,4,\nN,B,1,0.1,5,3,6,\n", 3, "on line 2"},
      {HEAD + "N,A,1,0.1,5,3,4,\nN,A,1,0.2,5,3,4,\n", 3, "already"},
      {HEAD + "N,A,1,1:0.1; 1:0.2,5,3,4,\n", 2, "two prices"},
      {HEAD, 0, "no offers"},
      {"Code,Price\nA,1\n", 1, "expected a heading"},
    };
  }

  @Test(dataProvider = "wrong")
  public void whatIsWrongIsNamed(String text, int line, String message) throws IOException {
    List<Problem> problems = CsvReadersTest.problems(offers(text));
    assertEquals(problems.getFirst().line(), line, problems.toString());
    assertTrue(problems.toString().contains(message), problems.toString());
  }

  @Test
  public void parametersLongAndWide() throws IOException {
    Map<String, Map<String, String>> tall =
        CsvReadersTest.whole(
            ParametersReader.read(
                Source.of(
                    "p.csv",
                    "Code,Parameter,Value\nX12,Load Capacitance,12 pF\nX12,ESR,50R\nB,voltage,5V\n")));
    assertEquals(tall.get("X12"), Map.of("load capacitance", "12 pF", "esr", "50R"));
    Map<String, Map<String, String>> wide =
        CsvReadersTest.whole(
            ParametersReader.read(
                Source.of(
                    "p.csv",
                    "Code;Load capacitance (pF);Package;Tolerance\nX12;12;XTAL-5032;20 ppm\nX13;18;;-\n")));
    assertEquals(
        wide.get("X12"),
        Map.of("load capacitance", "12 pF", "package", "XTAL-5032", "tolerance", "20 ppm"));
    assertEquals(wide.get("X13"), Map.of("load capacitance", "18 pF"));
    List<Problem> twice =
        CsvReadersTest.problems(
            ParametersReader.read(
                Source.of("p.csv", "Code,Parameter,Value\nA,voltage,5V\nA,Voltage,6V\n")));
    assertEquals(twice.getFirst().line(), 3);
  }

  @Test
  public void aShelfOfOtherThings() throws IOException {
    List<ShelfLine> shelf =
        CsvReadersTest.whole(
            ShelfReader.read(
                Source.of(
                    "s.csv",
                    "Code,Quantity,Bin,Expiry,Kind\nA,5,A1,,\nMG-1 B,10,K1,,board\nP,1,F,2027-01-31,jar\n")));
    assertEquals(
        shelf.stream().map(ShelfLine::kind).toList(),
        List.of(ShelfLine.Kind.PART, ShelfLine.Kind.BLANK, ShelfLine.Kind.JAR));
    List<Problem> odd =
        CsvReadersTest.problems(
            ShelfReader.read(Source.of("s.csv", "Code,Quantity,Kind\nA,5,furniture\n")));
    assertTrue(odd.getFirst().message().contains("part, blank, stencil or jar"));
  }

  @Test
  public void aPackageSheetOfOnesOwn() throws IOException {
    List<PackageSheet.Line> lines =
        CsvReadersTest.whole(
            PackagesReader.read(
                Source.of(
                    "p.csv",
                    "Package,Family,Length (mm),Width (mm),Height (mm),Mark\nODD-1*,connector,9,8,7,dot\n")));
    assertEquals(lines.getFirst().heightMm(), 7.0);
    List<Problem> bad =
        CsvReadersTest.problems(
            PackagesReader.read(
                Source.of(
                    "p.csv",
                    "Package,Family,Length (mm),Width (mm),Height (mm)\nA,dual,1,1,1\nB,dual,0,1,1\nC,odd,1,1,1\n")));
    assertEquals(bad.stream().map(Problem::line).toList(), List.of(3, 4));
  }
}
