package ell.files;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import ell.core.artwork.Drilling;
import ell.core.artwork.Drilling.Hole;
import ell.core.heat.ProfileLog;
import ell.files.drill.DrillReader;
import ell.files.series.ProfileReader;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Drill files and temperature logs as people send them.
public class DrillAndProfileTest {
  private static <T> T whole(Read<T> read) {
    return switch (read) {
      case Read.Whole<T>(T v, var _) -> v;
      case Read.Flawed<T>(var problems) -> throw new AssertionError(problems.toString());
    };
  }

  private static List<Hole> holes(String text) throws IOException {
    return whole(DrillReader.read(Source.of("d.xnc", text))).holes();
  }

  private static final String XNC = "M48\n; #@! TF.FileFunction,Plated,1,2,PTH\nMETRIC\nT01C0.8\n";

  @Test
  public void hitsSlotsAndRoutsOfXnc() throws IOException {
    List<Hole> all =
        holes(
            XNC
                + "T02C1.2\n%\nG05\nT01\nX1.5Y-2.25\nX3Y4\nT02\nX0Y0G85X2Y0\nG00X5Y5\nM15\nG01X6Y5\nM16\nM30\n");
    assertEquals(all.size(), 4);
    assertEquals(all.getFirst(), new Hole(1.5, -2.25, 1.5, -2.25, 0.8, Optional.of(true)));
    assertTrue(all.get(2).slot());
    assertEquals(all.get(2).diameter(), 1.2);
    assertEquals(all.get(3), new Hole(5, 5, 6, 5, 1.2, Optional.of(true)));
  }

  @DataProvider
  Object[][] scales() {
    return new Object[][] {
      // whole numbers: zeros kept at the end, at the beginning, inch, and a stated format
      {"M48\nMETRIC,TZ\nT1C0.8\n%\nT1\nX1500Y250\nM30\n", 1.5, 0.25},
      {"M48\nMETRIC,LZ\nT1C0.8\n%\nT1\nX0015Y00025\nM30\n", 1.5, 0.25},
      {"M48\nINCH,TZ\nT1C0.03\n%\nT1\nX10000Y5000\nM30\n", 25.4, 12.7},
      {"M48\n;FILE_FORMAT=2:4\nINCH,LZ\nT1C0.03\n%\nT1\nX01Y005\nM30\n", 25.4, 12.7},
      {"M48\nMETRIC,TZ,0000.00\nT1C0.8\n%\nT1\nX150Y25\nM30\n", 1.5, 0.25},
      {"M48\nM72\nT1C0.03F200S65\n%\nT1\nX1.0Y0.5\nM30\n", 25.4, 12.7},
    };
  }

  @Test(dataProvider = "scales")
  public void unitsAndZerosOfDrillFiles(String text, double x, double y) throws IOException {
    Hole h = holes(text).getFirst();
    assertEquals(h.x(), x, 1e-9);
    assertEquals(h.y(), y, 1e-9);
  }

  @Test
  public void repeatsAndUnplatedHoles() throws IOException {
    List<Hole> all =
        holes(
            "M48\nMETRIC\n;TYPE=PLATED\nT1C0.8\n;TYPE=NON_PLATED\nT2C3.2\n%\nT1\nX0Y0\nR3X2.54\nT2\nX9Y9\nM30\n");
    assertEquals(all.size(), 5);
    assertEquals(all.get(3).x(), 7.62, 1e-9);
    assertEquals(all.getFirst().plated(), Optional.of(true));
    assertEquals(all.getLast().plated(), Optional.of(false));
  }

  @Test
  public void badDrillFilesSayTheLine() throws IOException {
    Read<Drilling> r = DrillReader.read(Source.of("d.drl", XNC + "%\nT07\nX1Y1\nM30\n"));
    assertTrue(r instanceof Read.Flawed<Drilling>(var p) && p.getFirst().line() == 7, r.toString());
    assertTrue(
        DrillReader.read(Source.of("d.drl", "M48\n%\nT1\nX1Y1\nM30\n"))
            instanceof Read.Flawed<Drilling>);
  }

  private static ProfileLog log(String text) throws IOException {
    return whole(ProfileReader.read(Source.of("log.csv", text)));
  }

  @DataProvider
  Object[][] logs() {
    return new Object[][] {
      {"time (s),board (°C)\n0,25\n1.5,30.25\n3,41\n"},
      {"Time [s];Board [°C]\n0;25\n1,5;30,25\n3;41\n"},
      {"time (ms)\tboard (C)\n0\t25\n1500\t30.25\n3000\t41\n"},
      {"Time (min),board (°F)\n0,77\n0.025,86.45\n0.05,105.8\n"},
      {"t_min,T_board_C\n0,25\n0.025,30.25\n0.05,41\n"},
      {"time_ms,board_F\n0,77\n1500,86.45\n3000,105.8\n"},
      {"elapsed,board [K]\n0,298.15\n1.5,303.40\n3,314.15\n"},
      {
        "0:00:00,25\n"
            .replace("0:00:00,25\n", "time,board °C\n0:00:00,25\n0:00:01.5,30.25\n0:00:03,41\n")
      },
      {
        "timestamp,board °C\n2026-11-18T10:00:00Z,25\n2026-11-18T10:00:01.5Z,30.25\n2026-11-18T10:00:03Z,41\n"
      },
      {"0,25\n1.5,30.25\n3,41\n"},
      {
        "Hot plate logger v2\nserial;42\n\nTime (s);Duty (%);Board (°C)\n0;100;25\n1.5;90;30.25\n3;80;41\n"
      },
      {"\uFEFFtime (s),\"board (°C)\",note\r\n0,\"25\",start\r\n1.5,30.25,\r\n3,41,end\r\n"},
    };
  }

  @Test(dataProvider = "logs")
  public void unitsSeparatorsAndTimes(String text) throws IOException {
    ProfileLog.Channel c = log(text).channels().getFirst();
    assertEquals(c.size(), 3);
    assertEquals(c.second(1) - c.second(0), 1.5, 1e-6);
    assertEquals(c.second(2) - c.second(0), 3, 1e-6);
    assertEquals(c.celsius(0), 25, 1e-6);
    assertEquals(c.celsius(1), 30.25, 1e-3);
    assertEquals(c.celsius(2), 41, 1e-6);
  }

  @Test
  public void gapsAreLeftOutAndMillivoltsBecomeDegrees() throws IOException {
    ProfileLog l = log("time (s),T1 (°C),T2 (mV)\n0,20,0\n1,,4.096\n2,nan,8.138\n3,23,-\n");
    assertEquals(l.channels().get(0).size(), 2);
    assertEquals(l.channels().get(0).at(1.5), 21.5, 1e-9);
    assertEquals(l.channels().get(1).size(), 3);
    assertEquals(l.channels().get(1).celsius(1), 100, 0.02);
    assertEquals(l.channels().get(1).celsius(2), 200, 0.02);
  }

  @Test
  public void longNumbersGoTheLongWayAndComeOutTheSame() throws IOException {
    String[] n = {"183.123456789012345678", "1.25e2", "-0.5", "+99.", ".75", "00012.50"};
    StringBuilder s = new StringBuilder("time (s),T (°C)\n");
    for (int i = 0; i < n.length; i++) {
      s.append(i).append(',').append(n[i]).append('\n');
    }
    ProfileLog.Channel c = log(s.toString()).channels().getFirst();
    for (int i = 0; i < n.length; i++) {
      assertEquals(c.celsius(i), Double.parseDouble(n[i]), 0, n[i]);
    }
  }

  @DataProvider
  Object[][] wrongLogs() {
    return new Object[][] {
      {"time (s),T (°C)\n0,25\n1,hot\n2,30\n", 3, "expected a temperature"},
      {"time (s),T (°C)\n0,25\n2,26\n1,30\n", 4, "time does not go on"},
      {"time (s),T (°C)\n0,25\n,26\n", 3, "no time in this row"},
      {"a,b\nc,d\n", 1, "expected a heading"},
      {"time (s),power (W)\n0,25\n1,26\n", 1, "no column of temperature"},
      {"time (s),T (°C)\n0,25\n", 0, "fewer than two rows"},
      {"time (s),T (mV)\n0,25\n1,99\n", 0, "voltage against"},
    };
  }

  @Test(dataProvider = "wrongLogs")
  public void badLogsSayTheLine(String text, int line, String words) throws IOException {
    Read<ProfileLog> r =
        ProfileReader.read(Source.of("log.csv", text.getBytes(StandardCharsets.UTF_8)));
    assertTrue(r instanceof Read.Flawed<ProfileLog>, text);
    Problem p = ((Read.Flawed<ProfileLog>) r).problems().getFirst();
    assertTrue(p.message().contains(words), p.toString());
    if (line > 0) {
      assertEquals(p.line(), line, p.toString());
    }
  }
}
