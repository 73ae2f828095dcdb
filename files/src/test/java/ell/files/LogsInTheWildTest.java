package ell.files;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import ell.core.heat.ProfileLog;
import ell.files.series.ProfileReader;
import java.io.IOException;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Temperature logs as loggers leave them; the forms are common practice, no source. The kelvin and
/// the degree Fahrenheit by their definitions.
public class LogsInTheWildTest {
  private static Read.Whole<ProfileLog> read(String text) throws IOException {
    return switch (ProfileReader.read(Source.of("run.csv", text))) {
      case Read.Whole<ProfileLog> w -> w;
      case Read.Flawed<ProfileLog>(var p) -> throw new AssertionError(p + " in\n" + text);
    };
  }

  /// Text, seconds between its first and last reading, its last reading in °C, a word of what is
  /// told.
  @DataProvider
  Object[][] logs() {
    return new Object[][] {
      {"Date,Time,Board (°C)\n2026-11-26,10:00:00,25\n2026-11-26,10:00:30,60\n", 30, 60.0, ""},
      {"Date;Time;Board (°C)\n26.11.2026;23:59:50;25,0\n27.11.2026;00:00:10;60,5\n", 20, 60.5, ""},
      {"Date,Time,T1 [C]\n11/26/2026,11:59:50 PM,25\n11/27/2026,12:00:10 AM,60\n", 20, 60.0, ""},
      {"Time,T1 [C]\n11:59:50 AM,25\n12:00:10 PM,60\n", 20, 60.0, ""},
      {"Timestamp,T1 [C]\n26.11.2026 10:00:00,25\n26.11.2026 10:01:00,60\n", 60, 60.0, ""},
      {"Timestamp,T1 [C]\n2026/11/26 10:00:00.250,25\n2026/11/26 10:00:01.750,60\n", 1.5, 60.0, ""},
      // a clock without tenths: two readings share a second
      {
        "Time,T1 [C]\n10:00:00,25\n10:00:00,26\n10:00:01,27\n10:00:01,28\n",
        1.5,
        28.0,
        "time of the row before"
      },
      // a column of words, units in a second heading row, a footer, other line ends
      {"Time (s),Phase,T1 (C)\n0,preheat,25\n1,preheat,26\n2,soak,27\n", 2, 27.0, ""},
      {"Time,Board,Zone\nms,°F,-\n0,77,1\n1500,212,1\n", 1.5, 100.0, ""},
      {"Time (s),T1 (C)\n0,25\n1,26\n\nMax,26\nPeak at,1\n", 1, 26.0, ""},
      {"Time (s),T1 (C)\r0,25\r1,26\r", 1, 26.0, ""},
      {"Time (s),T1 (C)\r\n0,25\r\n1,26\r\n", 1, 26.0, ""},
      // epoch, in seconds and in thousandths
      {"timestamp,T1 (C)\n1764150000,25\n1764150090,26\n", 90, 26.0, ""},
      {"timestamp,T1 (C)\n1764150000000,25\n1764150090000,26\n", 90, 26.0, "millisecond"},
      // units that nobody says
      {"Time,T1\n0,25\n90,183\n", 90, 183.0, "°C"},
      {"Time,T1\n0,77\n90,473\n", 90, 245.0, "°F"},
      {"Time,T1 (C)\n0,25\n90000,183\n", 90, 183.0, "millisecond"},
    };
  }

  @Test(dataProvider = "logs")
  public void isReadAsItIsMeant(String text, double seconds, double last, String told)
      throws IOException {
    Read.Whole<ProfileLog> r = read(text);
    ProfileLog.Channel c = r.value().channels().getFirst();
    assertEquals(c.second(c.size() - 1) - c.second(0), seconds, 1e-6, text);
    assertEquals(c.celsius(c.size() - 1), last, 1e-6, text);
    String all = r.account().guesses() + " " + r.warnings();
    assertEquals(all.length() > 6, !told.isEmpty(), all);
    assertTrue(all.contains(told), all);
  }

  @Test
  public void whatWasPassedOverIsTold() throws IOException {
    String all =
        read("Time (s),Phase,T1 (C)\n0,preheat,25\n1,preheat,26\nMax,,26\n")
            .passedOver()
            .toString();
    assertTrue(all.contains("Phase") && all.contains("behind the last reading"), all);
  }

  /// A row that cannot be read amid others is no footer.
  @Test
  public void aBrokenRowAmidReadingsIsRefused() throws IOException {
    Read<ProfileLog> r =
        ProfileReader.read(Source.of("run.csv", "Time (s),T1 (C)\n0,25\n1,x\n2,26\n3,27\n"));
    assertTrue(
        r instanceof Read.Flawed<ProfileLog>(var p) && p.getFirst().line() == 3, r.toString());
  }

  @Test
  public void aUnitThatIsSaidIsTaken() throws IOException {
    Source s = Source.of("run.csv", "Time,T1\n0,77\n5,212\n");
    var kelvin = (Read.Whole<ProfileLog>) ProfileReader.read(s, "F", "min");
    ProfileLog.Channel c = kelvin.value().channels().getFirst();
    assertEquals(c.celsius(1), 100.0, 1e-9);
    assertEquals(c.second(1), 300.0, 1e-9);
    assertTrue(kelvin.account().guesses().isEmpty());
  }
}
