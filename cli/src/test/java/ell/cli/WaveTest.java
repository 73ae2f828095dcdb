package ell.cli;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/// `ell wave` on captures that are written here.
public final class WaveTest {
  /// A clock of 1 MHz that falls back to 1.2 V behind each rising edge.
  private static Path capture() throws IOException {
    StringBuilder text = new StringBuilder("time (ns),CLK (V),still\n");
    for (int i = 0; i < 10_000; i++) {
      double x = (i + 130) % 1000;
      double v = 3.3 * (Math.clamp(x / 10, 0, 1) - Math.clamp((x - 400) / 10, 0, 1));
      v = x > 40 && x < 60 ? 1.2 : v;
      text.append(String.format(Locale.ROOT, "%d,%.4f,3.3%n", i, v));
    }
    Path file = Files.createTempFile("capture", ".csv");
    file.toFile().deleteOnExit();
    return Files.writeString(file, text);
  }

  @Test
  public void aCaptureIsMeasured() throws IOException {
    String file = capture().toString();
    JsonNode o =
        MainTest.ell("wave", file, "--vil", "0.8", "--vih", "2V", "--slowest", "10ns/V", "--json")
            .json();
    assertEquals(o.get("samples").intValue(), 10_000);
    assertEquals(o.get("rate").doubleValue(), 1e9, 1);
    JsonNode clock = o.get("channels").get(0);
    assertEquals(clock.get("name").stringValue(), "CLK");
    assertEquals(clock.get("high").doubleValue(), 3.3, 1e-3);
    assertEquals(clock.get("rise").doubleValue(), 8e-9, 1e-11);
    assertTrue(clock.get("riseU").doubleValue() < 1e-9);
    assertEquals(clock.get("frequency").doubleValue(), 1e6, 1);
    assertEquals(clock.get("crossings").intValue(), 20);
    assertEquals(clock.get("doubleClocks").intValue(), 10);
    assertEquals(clock.get("dwell").doubleValue(), 10e-9 * 1.2 / 3.3, 1e-11);
    assertEquals(clock.get("allowed").doubleValue(), 12e-9, 1e-15);
    JsonNode still = o.get("channels").get(1);
    assertEquals(still.get("edges").intValue(), 0);
    assertFalse(still.has("period"), "what a capture has none of is left out");
    assertTrue(MainTest.ell("wave", file).out().contains("rise"));
  }

  @Test
  public void whatIsWrongIsSaid() throws IOException {
    String file = capture().toString();
    assertEquals(MainTest.ell("wave", file, "--vil", "1").code(), 2);
    assertEquals(MainTest.ell("wave", file, "--vil", "2", "--vih", "1").code(), 2);
    assertEquals(MainTest.ell("wave", "nowhere.csv").code(), 2);
    Path letters = Files.createTempFile("letters", ".csv");
    letters.toFile().deleteOnExit();
    Files.writeString(letters, "time,CH1\n0,1\n1e-6,abc\n2e-6,2\n");
    MainTest.Ran ran = MainTest.ell("wave", letters.toString());
    assertEquals(ran.code(), 2);
    assertTrue(ran.err().contains("line 3"), ran.err());
  }
}
