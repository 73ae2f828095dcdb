package ell.work;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import ell.core.entry.Entry;
import ell.core.power.PowerFacts;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import ell.work.space.ActException;
import java.io.IOException;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/// Currents of a state and ripple are judged, and stand for nothing else.
public final class StateReadingsTest {
  private static final String BOARD = "07";
  private Workshop w;

  @BeforeMethod
  public void open() throws Exception {
    w = Demo.workspace(true);
  }

  @AfterMethod(alwaysRun = true)
  public void close() throws IOException {
    w.close();
  }

  private Entry.Reading say(String line) throws Exception {
    return (Entry.Reading) w.type(BOARD, line).orThrow().getLast().entry();
  }

  private boolean finding(String place) throws Exception {
    return w.state(BOARD).findings().stream().anyMatch(f -> f.place().equals(place));
  }

  @Test
  public void theCurrentOfAState() throws Exception {
    Entry.Reading boot = say("VIN_RAW 13mA boot");
    assertEquals(boot.unit(), Unit.AMPERE);
    assertEquals(boot.verdict().orElseThrow(), Verdict.WITHIN);
    assertTrue(boot.with().contains("boot"), boot.with());
    assertEquals(say("VIN_RAW 90mA boot").verdict().orElseThrow(), Verdict.OUT);
    assertTrue(finding("VIN_RAW current"));
    assertEquals(say("VIN_RAW 12.0").verdict().orElseThrow(), Verdict.WITHIN);
    assertTrue(finding("VIN_RAW current"), "the right volts do not mend the current");
    say("VIN_RAW 13mA boot");
    assertFalse(finding("VIN_RAW current"));
    assertEquals(
        PowerFacts.of(w.state(BOARD)).reading("VIN_RAW").orElseThrow().unit(),
        Unit.VOLT,
        "and the current does not hide the volts");
    assertTrue(say("VIN_RAW 13mA").verdict().isEmpty(), "in no state nothing is held against it");
    assertThrows(ActException.class, () -> w.type(BOARD, "3V3 13mA boot"));
    assertThrows(ActException.class, () -> w.type(BOARD, "VIN_RAW 12V boot"));
  }

  @Test
  public void rippleTakesWhatARailHasLeft() throws Exception {
    say("3V3 3.300");
    // limits 3.234 and 3.366: 66 mV to either, twice of it peak to peak
    Entry.Reading good = say("3V3 ripple 24mV");
    assertEquals(good.place(), "3V3 ripple");
    assertEquals(good.limits().orElseThrow().high(), 0.132, 1e-9);
    assertEquals(good.verdict().orElseThrow(), Verdict.WITHIN);
    say("3V3 3.350");
    assertEquals(say("3V3 ripple 40mV").verdict().orElseThrow(), Verdict.OUT);
    assertTrue(finding("3V3 ripple"));
    say("3V3 3.300");
    assertTrue(finding("3V3 ripple"), "only a ripple that is within ends it");
    say("3V3 ripple 20mV");
    assertFalse(finding("3V3 ripple"));
    assertThrows(ActException.class, () -> w.type(BOARD, "R5 ripple 20mV"));
    assertThrows(ActException.class, () -> w.type(BOARD, "3V3 ripple -20mV"));
    assertThrows(ActException.class, () -> w.type(BOARD, "3V3 ripple much"));
  }
}
