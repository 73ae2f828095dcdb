package ell.files;

import static ell.files.CsvReadersTest.problems;
import static ell.files.CsvReadersTest.whole;
import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import ell.core.board.Joint;
import ell.core.board.Netlist;
import ell.files.netlist.NetlistReader;
import ell.files.netlist.NetlistWriter;
import java.io.IOException;
import java.io.StringWriter;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// The columns of IPC-D-356A, from memory of the standard.
public class NetlistReaderTest {
  static final String HEAD = "C  a board\nP  UNITS CUST 1\n";

  private static Read<Netlist> read(String text) throws IOException {
    return NetlistReader.read(Source.of("net.ipc", text));
  }

  @Test
  public void everyColumnOfARecord() throws IOException {
    Netlist n =
        whole(
            read(
                HEAD
                    + "317GND              J1    -2    D1300PA00X+006000Y-047460X2600Y2500R045S3\n"
                    + "327NET_A            U12   -A15 M      A01X-000500Y+000000X0300Y1500R000S2\n"
                    + "327N/C              U12   -7          A02X+000000Y+000001X0300Y1500\n"
                    + "999\n"));
    Joint j = n.joints().get(0);
    assertEquals(j.part() + " " + j.pin() + " " + j.net(), "J1 2 GND");
    assertTrue(j.hole() && j.plated());
    assertEquals(j.drillMm(), 1.3, 1e-9);
    assertEquals(j.xMm(), 6.0, 1e-9);
    assertEquals(j.yMm(), -47.46, 1e-9);
    assertEquals(j.widthMm(), 2.6, 1e-9);
    assertEquals(j.heightMm(), 2.5, 1e-9);
    assertEquals(j.rotationDeg(), 45.0);
    assertEquals(j.reach(), Joint.Reach.NONE, "masked on both sides");
    Joint u = n.joints().get(1);
    assertTrue(u.middle());
    assertEquals(u.pin(), "A15");
    assertEquals(u.reach(), Joint.Reach.FIRST);
    assertEquals(n.joints().get(2).net(), "", "N/C is no net");
    assertEquals(n.lines(), List.of(3, 4, 5));
  }

  @DataProvider
  Object[][] units() {
    return new Object[][] {
      {"P  UNITS CUST 0\n", 2.54},
      {"P  UNITS CUST 1\n", 1.0},
      {"P  UNITS CUST 2\n", 2.54},
      {"", 2.54},
    };
  }

  @Test(dataProvider = "units")
  public void unitsAsStated(String line, double millimetre) throws IOException {
    Netlist n =
        whole(
            read(
                line
                    + "327A               R1    -1          A01X+001000Y+000000X0000Y0000R000S0\n999\n"
                        .replace("A               R", "A                R")));
    assertEquals(n.joints().getFirst().xMm(), millimetre, 1e-9);
  }

  @Test
  public void longNamesViasAndOtherRecords() throws IOException {
    Read<Netlist> r =
        read(
            HEAD
                + "P  NNAME1  A_VERY_LONG_NET_NAME_INDEED\n"
                + "327NNAME1           R1    -1          A01X+001000Y+000000X0500Y0500R000S0\n"
                + "327NNAME1           R2    -1          A01X+002000Y+000000X0500Y0500R000S0\n"
                + "317NNAME1           VIA         D0300PA00X+003000Y+000000X0600Y0000R000S0\n"
                + "367SOMETHING ELSE\n"
                + "027 MORE\n"
                + "999\n"
                + "late line\n");
    Netlist n = whole(r);
    assertEquals(n.joints().getFirst().net(), "A_VERY_LONG_NET_NAME_INDEED");
    assertEquals(n.vias().size(), 1);
    String passed = ((Read.Whole<?>) r).passedOver().toString();
    assertTrue(passed.contains("bare holes: 1 of kind 367"), passed);
    assertTrue(passed.contains("1 vias"), passed);
    assertTrue(passed.contains("after the end record"), passed);
  }

  @DataProvider
  Object[][] warned() {
    String ok =
        "327A                R1    -1          A01X+001000Y+000000X0500Y0500R000S0\n"
            + "327A                R2    -1          A01X+002000Y+000000X0500Y0500R000S0\n";
    return new Object[][] {
      {HEAD + ok, "end record 999 is missing"},
      {ok + "999\n", "no units are stated"},
      {HEAD + ok + "327B                R3    -1\n999\n", "short record"},
      {HEAD + ok + "hello\n999\n", "not a netlist record"},
      {
        HEAD
            + ok
            + "327LONELY           R3    -1          A01X+001000Y+000000X0500Y0500R000S0\n999\n",
        "one joint only"
      },
      {HEAD + ok + ok + "999\n", "already on line 3"},
    };
  }

  @Test(dataProvider = "warned")
  public void oddThingsAreWarningsWithTheirLine(String text, String says) throws IOException {
    Read<Netlist> r = read(text);
    whole(r);
    assertTrue(
        ((Read.Whole<?>) r).warnings().toString().contains(says),
        ((Read.Whole<?>) r).warnings().toString());
  }

  @DataProvider
  Object[][] refused() {
    return new Object[][] {
      {
        HEAD + "327A                R1    -1          A01X+00x000Y+000000X0500Y0500R000S0\n999\n",
        3,
        44,
        "expected a number"
      },
      {
        HEAD + "327A                R1    -1          A01Q+001000Y+000000X0500Y0500R000S0\n999\n",
        3,
        42,
        "expected X"
      },
      {
        HEAD + "327NNAME7           R1    -1          A01X+001000Y+000000X0500Y0500R000S0\n999\n",
        3,
        4,
        "not defined"
      },
      {
        "P  UNITS CUST 9\n327A                R1    -1          A01X+001000Y+000000X0500Y0500R000S0\n999\n",
        1,
        10,
        "unknown units"
      },
      {
        HEAD
            + "327A                R1    -1          A01X+001000Y+000000X0500Y0500R000S0\n"
            + "327B                R1    -1          A01X+001000Y+000000X0500Y0500R000S0\n999\n",
        4,
        4,
        "is on net B here and on A"
      },
      {"", 0, 0, "no test records"},
      {"999\n", 0, 0, "no test records"},
    };
  }

  @Test(dataProvider = "refused")
  public void badRecordsAreErrorsWithLineAndColumn(String text, int line, int column, String says)
      throws IOException {
    Problem p = problems(read(text)).getFirst();
    assertEquals(p.line(), line, p.toString());
    assertEquals(p.column(), column, p.toString());
    assertTrue(p.message().contains(says), p.toString());
  }

  @Test
  public void lineEndsOfEverySystem() throws IOException {
    String text =
        HEAD
            + "327A                R1    -1          A01X+001000Y+000000X0500Y0500R000S0\n327A                R2    -1          A01X+002000Y+000000X0500Y0500R000S0\n999\n";
    Netlist n = whole(read(text));
    assertEquals(whole(read(text.replace("\n", "\r\n"))), n);
    assertEquals(whole(read(text.replace("\n", "\r"))), n);
  }

  /// What is written reads back the same, for joints of every kind.
  @Test
  public void writerAndReaderAgree() throws IOException {
    Random random = new Random(13);
    for (int round = 0; round < 40; round++) {
      List<Joint> joints = new ArrayList<>();
      for (int i = 0; i < 1 + random.nextInt(60); i++) {
        boolean hole = random.nextBoolean();
        joints.add(
            new Joint(
                "U" + i,
                String.valueOf(1 + random.nextInt(99)),
                random.nextInt(8) == 0
                    ? ""
                    : random.nextInt(4) == 0 ? "A_NET_WITH_A_LONG_NAME_" + i / 2 : "N" + i / 2,
                micron(random, 400) - 200,
                micron(random, 400) - 200,
                hole
                    ? Joint.Reach.BOTH
                    : random.nextBoolean() ? Joint.Reach.FIRST : Joint.Reach.SECOND,
                hole,
                hole ? micron(random, 3) : 0,
                true,
                micron(random, 9),
                micron(random, 9),
                random.nextInt(360),
                random.nextBoolean(),
                0));
      }
      StringWriter out = new StringWriter();
      NetlistWriter.write(new Netlist(joints, List.of(), List.of()), out);
      List<Joint> back = whole(read(out.toString())).joints();
      assertEquals(back.size(), joints.size());
      for (int i = 0; i < back.size(); i++) {
        same(back.get(i), joints.get(i), 1e-9);
      }
    }
  }

  @Test
  public void lengthsThatDoNotFitAreWrittenInInches() throws IOException {
    Joint wide =
        new Joint("J1", "1", "A", 1500, 2, Joint.Reach.FIRST, false, 0, true, 20, 12, 0, false, 0);
    Joint other =
        new Joint("J1", "2", "A", 1, 2, Joint.Reach.FIRST, false, 0, true, 1, 1, 0, false, 0);
    StringWriter out = new StringWriter();
    NetlistWriter.write(new Netlist(List.of(wide, other), List.of(), List.of()), out);
    assertTrue(out.toString().contains("UNITS CUST 0"));
    same(whole(read(out.toString())).joints().getFirst(), wide, 0.0013);
    assertThrows(
        IllegalArgumentException.class,
        () ->
            NetlistWriter.write(
                new Netlist(
                    List.of(
                        new Joint(
                            "TOOLONGNAME",
                            "1",
                            "A",
                            0,
                            0,
                            Joint.Reach.FIRST,
                            false,
                            0,
                            true,
                            1,
                            1,
                            0,
                            false,
                            0)),
                    List.of(),
                    List.of()),
                new StringWriter()));
  }

  private static double micron(Random random, double mm) {
    return Math.round(random.nextDouble() * mm * 1000) / 1000.0;
  }

  private static void same(Joint a, Joint b, double tolerance) {
    assertEquals(
        a.place() + a.net() + a.reach() + a.hole() + a.middle(),
        b.place() + b.net() + b.reach() + b.hole() + b.middle());
    assertEquals(a.xMm(), b.xMm(), tolerance);
    assertEquals(a.yMm(), b.yMm(), tolerance);
    assertEquals(a.widthMm(), b.widthMm(), tolerance);
    assertEquals(a.heightMm(), b.heightMm(), tolerance);
    assertEquals(a.drillMm(), b.drillMm(), tolerance);
    assertEquals(a.rotationDeg(), b.rotationDeg(), 0.5);
  }

  private static String surface(String net, String part, String rest) {
    return String.format(
        "327%-14s   %-6s-1          A01X+001000Y+000000X0500Y0500R000%s\n", net, part, rest);
  }

  @Test
  public void longNamesWithBlanksStayTwoNets() throws IOException {
    String names = "P  NNAME1 NET A LONG\nP  NNAME2 NET B LONG\n";
    Netlist n =
        whole(
            read(
                HEAD
                    + names
                    + surface("NNAME1", "R1", "S0")
                    + surface("NNAME2", "R2", "S0")
                    + "999\n"));
    assertEquals(n.joints().get(0).net(), "NET A LONG");
    assertEquals(n.joints().get(1).net(), "NET B LONG");
    String twice =
        HEAD + "P  NNAME1 ONE\nP  NNAME1 TWO\n" + surface("NNAME1", "R1", "S0") + "999\n";
    assertTrue(read(twice) instanceof Read.Flawed<?>, "one name cannot stand for two nets");
  }

  @Test
  public void aMaskOnEveryRecordSaysNothing() throws IOException {
    StringBuilder all = new StringBuilder(HEAD);
    for (int i = 0; i < 9; i++) {
      all.append(surface("N" + i / 2, "R" + i, "S3"));
    }
    Read<Netlist> every = read(all + "999\n");
    assertEquals(whole(every).joints().get(3).reach(), Joint.Reach.FIRST);
    assertTrue(((Read.Whole<?>) every).account().guesses().toString().contains("mask"));
    // where one record says another thing the mask is known
    Netlist some = whole(read(all + surface("N1", "R20", "S0") + "999\n"));
    assertEquals(some.joints().get(3).reach(), Joint.Reach.NONE);
  }

  @Test
  public void furtherPadsMarksAndBlanks() throws IOException {
    String more = "027                                      X+002500Y+000500X0600Y0700R000S0\n";
    String blank = "327B                R2    -1          A01X+001000Y+000000X    Y    R   S0\n";
    Read<Netlist> r =
        read("\uFEFFP  UNITS CUST 1\n" + surface("A", "R1", "S0") + more + blank + "999\n");
    Netlist n = whole(r);
    assertEquals(n.joints().size(), 3);
    assertEquals(n.joints().get(1).place(), "R1.1");
    assertEquals(n.joints().get(1).net(), "A");
    assertEquals(n.joints().get(1).xMm(), 2.5, 1e-9);
    assertEquals(n.joints().get(2).widthMm(), 0.0, "a size that nobody stated");
    assertTrue(((Read.Whole<?>) r).account().found().contains("1 further pads of joints"));
    assertTrue(
        ((Read.Whole<?>) r).warnings().stream().noneMatch(p -> p.message().contains("units")));
  }

  @Test
  public void aFurtherPadOfAViaIsNoPadOfAPart() throws IOException {
    String via = "317A                VIA         D0300PA00X+003000Y+000000X0600Y0000R000S0\n";
    String more = "017                                      X+002500Y+000500X0600Y0700R000S0\n";
    String other = "027B                                     X+002500Y+000500X0600Y0700R000S0\n";
    Netlist n = whole(read(HEAD + surface("A", "R1", "S0") + via + more + "999\n"));
    assertEquals(n.joints().size(), 1, "it belongs to the via");
    n = whole(read(HEAD + surface("A", "R1", "S0") + other + "999\n"));
    assertEquals(n.joints().size(), 1, "another net is no further pad");
  }

  /// Sizes, rotations and masks that come again, change, change back, stand in other columns or are
  /// broken: each record has its own, whatever stood before it.
  @Test
  public void eachPadHasItsOwnSize() throws IOException {
    Map<String, double[]> kinds =
        Map.of(
            "X0500Y0600R090S2", new double[] {0.5, 0.6, 90, 2},
            "X0500Y0600R090S1", new double[] {0.5, 0.6, 90, 1},
            "X0510Y0600R090S1", new double[] {0.51, 0.6, 90, 1},
            "X0500Y0600R090 S2", new double[] {0.5, 0.6, 90, 2},
            "X0500Y0600R000S0", new double[] {0.5, 0.6, 0, 0},
            "X0500Y0600", new double[] {0.5, 0.6, 0, 0},
            "X0500", new double[] {0.5, 0, 0, 0},
            "", new double[4],
            "X    Y    R   S0", new double[4]);
    List<String> each = kinds.keySet().stream().sorted().toList();
    Random random = new Random(6);
    List<String> ends = new ArrayList<>();
    for (int i = 0; i < 400; i++) {
      boolean again = i > 0 && random.nextBoolean();
      ends.add(again ? ends.getLast() : each.get(random.nextInt(each.size())));
    }
    StringBuilder all = new StringBuilder(HEAD);
    for (int i = 0; i < ends.size(); i++) {
      all.append(String.format("327N%-13s   R%-5d-1          A01X+%06dY+000000", i / 2, i, i));
      all.append(ends.get(i)).append('\n');
    }
    List<Joint> joints = whole(read(all + "999\n")).joints();
    for (int i = 0; i < ends.size(); i++) {
      Joint j = joints.get(i);
      double[] is = {j.widthMm(), j.heightMm(), j.rotationDeg(), j.mask()};
      assertEquals(is, kinds.get(ends.get(i)), i + ": " + ends.get(i));
    }
    // the same size in another unit, and what is broken is told of each
    String same = "327A                R%d    -1          A01X+001000Y+000000X0500Y0500R000S0\n";
    String units = HEAD + same.formatted(1) + "P  UNITS CUST 0\n" + same.formatted(2) + "999\n";
    assertEquals(whole(read(units)).joints().get(1).widthMm(), 1.27, 1e-9);
    String broken = same.replace("X0500", "X05x0");
    assertEquals(problems(read(HEAD + broken.formatted(1) + broken.formatted(2))).size(), 2);
  }

  /// A joint that stands twice is told, in small and large parts and whatever parts stand between.
  @Test
  public void jointsThatStandTwice() throws IOException {
    Random random = new Random(3);
    StringBuilder all = new StringBuilder(HEAD);
    List<String> records = new ArrayList<>();
    for (int part = 0; part < 60; part++) {
      int pins = random.nextInt(4) == 0 ? 1 + random.nextInt(200) : 2;
      for (int pin = 1; pin <= pins; pin++) {
        records.add(
            String.format(
                "327N%-13d   U%-5d-%-4d       A01X+%06dY+%06dX0500Y0500R000S0%n",
                records.size() / 2, part, pin, part, pin));
      }
    }
    records.forEach(all::append);
    int first = random.nextInt(records.size());
    int second = (first + records.size() / 2) % records.size();
    all.append(records.get(first)).append(records.get(second));
    String told = ((Read.Whole<?>) read(all + "999\n")).warnings().toString();
    assertTrue(told.contains("is already on line " + (first + 3)), told);
    assertTrue(told.contains("is already on line " + (second + 3)), told);
    assertEquals(told.split("already on line").length, 3, told);
  }

  @Test
  public void oneCauseIsOneWarning() throws IOException {
    StringBuilder all = new StringBuilder(HEAD);
    for (int i = 0; i < 50; i++) {
      all.append(
          String.format(
              "327%-14s   R%-5d-1             X+%06dY+000000X0500Y0500%n", "N" + i / 2, i, i));
    }
    List<Problem> told = ((Read.Whole<?>) read(all + "999\n")).warnings();
    assertEquals(told.size(), 1, told.toString());
    assertTrue(told.getFirst().message().startsWith("50 records state no access"), told.toString());
    String cut =
        HEAD + surface("A_NAME_OF_14_C", "R1", "S0") + surface("A_NAME_OF_14_C", "R2", "S0");
    assertTrue(
        ((Read.Whole<?>) read(cut + "999\n")).warnings().toString().contains("may have been cut"));
  }
}
