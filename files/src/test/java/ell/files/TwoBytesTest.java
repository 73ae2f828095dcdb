package ell.files;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import ell.files.csv.BomReader;
import ell.files.csv.PlacementReader;
import ell.files.drill.DrillReader;
import ell.files.gerber.GerberReader;
import ell.files.netlist.NetlistReader;
import ell.files.series.ProfileReader;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Files that were saved with two bytes a character are read as the same text in one, with the mark
/// that says so (Unicode, chapter 23.8) and without.
public final class TwoBytesTest {
  /// What reads a file.
  private interface Reads {
    Read<?> read(Source s) throws IOException;
  }

  private record File(Looks looks, Reads reader, String text) {}

  private static final List<File> FILES =
      List.of(
          new File(Looks.TEXT, BomReader::read, "Ref,Value,Package\nC1,10 µF,0805\nR1,4k7,0603\n"),
          new File(
              Looks.TEXT,
              PlacementReader::read,
              "Ref,X (mm),Y (mm),Rotation,Side\nC1,10,20,90,top\nR1,1.5,2,0,bottom\n"),
          new File(
              Looks.NETLIST,
              NetlistReader::read,
              NetlistReaderTest.HEAD
                  + "327GND              R1    -1          A01X+001000Y+000000X0500Y0500R000S0\n"
                  + "327GND              R1    -2          A01X+002000Y+000000X0500Y0500R000S0\n"
                  + "999\n"),
          new File(
              Looks.GERBER,
              GerberReader::read,
              "%FSLAX46Y46*%\n%MOMM*%\n%ADD10R,1.5X0.8*%\nD10*\nX2000000Y3000000D03*\nM02*\n"),
          new File(
              Looks.DRILL, DrillReader::read, "M48\nMETRIC,TZ\nT1C0.8\n%\nT1\nX10.5Y20.25\nM30\n"),
          new File(
              Looks.TEXT, ProfileReader::read, "Time (s),Board (°C)\n0,25\n1,26.5\n2,28\n3,30\n"));

  @DataProvider
  Object[][] saved() {
    return FILES.stream()
        .flatMap(f ->
            List.of(
                new Object[] {f, StandardCharsets.UTF_16LE, ""},
                new Object[] {f, StandardCharsets.UTF_16LE, "\uFEFF"},
                new Object[] {f, StandardCharsets.UTF_16BE, ""},
                new Object[] {f, StandardCharsets.UTF_16BE, "\uFEFF"})
                .stream())
        .toArray(Object[][]::new);
  }

  @Test(dataProvider = "saved")
  public void theSameAsInOne(File f, Charset as, String mark) throws IOException {
    Source one = Source.of("a.txt", f.text());
    Source two = Source.of("a.txt", (mark + f.text()).getBytes(as));
    assertEquals(Looks.of(two), f.looks());
    Read<?> wanted = f.reader().read(one);
    Read<?> is = f.reader().read(two);
    assertTrue(wanted instanceof Read.Whole<?>, wanted.toString());
    assertEquals(words(is), words(wanted));
  }

  /// What was read, without the names of things that have no words.
  private static String words(Read<?> r) {
    return r.toString().replaceAll("@[0-9a-f]+", "");
  }

  /// Bytes that are no text are not taken for one: numbers of 16 bits, small and large, zeros.
  @Test
  public void numbersAreNoText() {
    Random r = new Random(6);
    for (int most : new int[] {3, 40, 255, 300, 30_000}) {
      for (ByteOrder order : new ByteOrder[] {ByteOrder.LITTLE_ENDIAN, ByteOrder.BIG_ENDIAN}) {
        ByteBuffer b = ByteBuffer.allocate(4000).order(order);
        while (b.hasRemaining()) {
          b.putShort((short) r.nextInt(most));
        }
        assertEquals(Looks.of(b.array()), Looks.BINARY, most + " " + order);
      }
    }
    assertEquals(Looks.of(new byte[500]), Looks.BINARY);
  }
}
