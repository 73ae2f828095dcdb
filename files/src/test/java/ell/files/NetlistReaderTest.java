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
    assertTrue(passed.contains("1 records 367"), passed);
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
}
