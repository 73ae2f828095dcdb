package ell.files;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import ell.core.talk.PinTable;
import ell.core.talk.PinTable.Need;
import ell.core.talk.PinTable.Offer;
import ell.files.csv.PinTables;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Tables of pins as people write them, and as nobody should.
public class PinTablesTest {
  private static final String NEEDS =
      "signal,needs,pin,load\nLAMP,out pwm,D3,680 GND\nPOT,analog-in,A0,\nSDA,i2c-sda,,4k7 3V3\n";

  private static <T> T whole(Read<T> r) {
    assertTrue(r instanceof Read.Whole<T>, r.toString());
    return ((Read.Whole<T>) r).value();
  }

  private static <T> List<Problem> flawed(Read<T> r) {
    assertTrue(r instanceof Read.Flawed<T>, r.toString());
    return ((Read.Flawed<T>) r).problems();
  }

  private static Source of(String text) {
    return Source.of("t.csv", text);
  }

  @Test
  public void needs() throws Exception {
    List<Need> all = whole(PinTables.needs(of(NEEDS)));
    assertEquals(all.size(), 3);
    assertEquals(all.getFirst(), new Need("LAMP", Set.of("out", "pwm"), "D3", "680 GND"));
    assertEquals(all.get(2).was(), "");
  }

  @DataProvider
  Object[][] forms() {
    return new Object[][] {
      {NEEDS.replace(',', ';')},
      {NEEDS.replace(',', '\t')},
      {"\uFEFF" + NEEDS},
      {NEEDS.replace("\n", "\r\n")},
      {"# from the sketch, by hand\n" + NEEDS},
      {NEEDS.replace("\n", "\n\n")},
      {NEEDS.replace("out pwm", "\"out  PWM\"")},
      {NEEDS.replace("signal", "Signal").replace("needs", "Requires").replace("pin", "Was")},
      {NEEDS.replace("out pwm", "out|pwm")},
    };
  }

  @Test(dataProvider = "forms")
  public void theSameInOtherForms(String text) throws Exception {
    assertEquals(whole(PinTables.needs(of(text))), whole(PinTables.needs(of(NEEDS))));
  }

  @Test
  public void whatWasNotUsedIsTold() throws Exception {
    Read<List<Need>> r = PinTables.needs(of("signal,needs,colour\nA,out,red\n"));
    assertEquals(whole(r).size(), 1);
    assertTrue(((Read.Whole<?>) r).warnings().toString().contains("columns not used: colour"));
  }

  @Test
  public void offersAndStraps() throws Exception {
    List<Offer> all =
        whole(
            PinTables.offers(
                of(
                    "pin,offers,strap,shared,pull\nD0,in out,H,usb serial,45k up\nD1,in,0,,\nD2,out,-,,\n")));
    assertEquals(
        all.getFirst(), new Offer("D0", Set.of("in", "out"), "high", "usb serial", "45k up"));
    assertEquals(all.get(1).strap(), "low");
    assertEquals(all.get(2).strap(), "");
  }

  @DataProvider
  Object[][] bad() {
    return new Object[][] {
      {"", 0, "is empty"},
      {"\n\n", 0, "is empty"},
      {"signal,needs\n", 0, "no signals"},
      {"signal,pin\nA,1\n", 1, "no column 'needs'"},
      {"signal,needs\n,out\n", 2, "expected a signal"},
      {"signal,needs\nA,\n", 2, "expected a signal"},
      {"signal,needs\nA,out\nB, \n", 3, "expected a signal"},
      {"\u0001\u0002", 1, "no column"},
    };
  }

  @Test(dataProvider = "bad")
  public void whatIsNoTableSaysWhere(String text, int line, String why) throws Exception {
    Problem p = flawed(PinTables.needs(of(text))).getFirst();
    assertEquals(p.line(), line, p.toString());
    assertTrue(p.message().contains(why), p.toString());
  }

  @Test
  public void everyBadStrapIsTold() throws Exception {
    List<Problem> all =
        flawed(PinTables.offers(of("pin,offers,strap\nA,in,maybe\nB,out,\n,in,\nC,in,2\n")));
    assertEquals(all.stream().map(Problem::line).toList(), List.of(2, 4, 5));
  }

  @Test
  public void modulesAreReadAsTheyAreWritten() throws Exception {
    Map<String, List<Offer>> all = new LinkedHashMap<>();
    all.put(
        "TINY",
        List.of(
            new Offer("A0", PinTable.words("in analog-in"), "", "", ""),
            new Offer("=1", PinTable.words("out"), "high", "a, b", "10k high")));
    all.put("LARGE", List.of(new Offer("1", PinTable.words("out"), "low", "", "")));
    assertEquals(whole(PinTables.modules(of(PinTables.write(all)))), all);
  }

  @Test
  public void was() throws Exception {
    assertEquals(
        whole(PinTables.was(of("signal,pin\nA,D1\nB,\n,D3\nC,D2\n"))),
        Map.of("A", "D1", "C", "D2"));
  }

  /// Bytes changed at random: a table or its problems, never anything else.
  @Test
  public void nothingThatIsReadStumbles() throws Exception {
    Random r = new Random(17);
    byte[] good = NEEDS.getBytes(StandardCharsets.UTF_8);
    int read = 0;
    for (int k = 0; k < 3000; k++) {
      byte[] b = good.clone();
      for (int i = 0; i <= r.nextInt(6); i++) {
        b[r.nextInt(b.length)] = (byte) r.nextInt(256);
      }
      Source s = Source.of("m.csv", Arrays.copyOf(b, 1 + r.nextInt(b.length)));
      for (Read<?> x : List.of(PinTables.needs(s), PinTables.offers(s), PinTables.modules(s))) {
        read += x instanceof Read.Whole<?> ? 1 : 0;
        assertFalse(x instanceof Read.Flawed<?> f && f.problems().isEmpty());
      }
    }
    assertTrue(read > 100, read + " were still tables");
  }
}
