package ell.core.power;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import ell.core.Boards;
import ell.core.board.Revision;
import ell.core.circuit.Operating;
import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// What parts bear, on boards with one part each that has too much of something. Values of sizes
/// and words are common practice, no source.
public final class RatingsTest {
  private static Boards board() {
    Boards b = new Boards();
    b.part("J1").shape("HEADER-2").at(0, 0).holes("5V", "GND");
    b.part("C1").value("10u").at(5, 0).pads("5V", "GND");
    return b;
  }

  private static List<Rating.Passed> passed(Boards b, double volts, String... faults) {
    Revision r = b.revision();
    Ladder l = LadderProposal.of(r);
    BoardCircuit c =
        new BoardCircuit(r, l, List.of(faults).stream().map(FaultWords::parse).toList());
    Operating o = c.fed("boot", 1, volts, 10);
    assertTrue(o.settled());
    Ratings ratings = Ratings.of(r, l, c);
    return ratings.passed(
        o::at,
        o::through,
        part ->
            ratings.bodies().stream()
                .filter(body -> body.part().equals(part))
                .mapToDouble(body -> body.kelvinPerWatt() * o.heat(part))
                .sum());
  }

  private static void only(
      List<Rating.Passed> passed, String part, Rating.What what, double value) {
    assertEquals(passed.size(), 1, passed.toString());
    assertEquals(passed.getFirst().rating().part(), part);
    assertEquals(passed.getFirst().rating().what(), what);
    assertEquals(passed.getFirst().value(), value, 0.02 * value);
    assertTrue(passed.getFirst().words().startsWith(part + " "), passed.getFirst().words());
  }

  @DataProvider
  Object[][] resistors() {
    return new Object[][] {
      // a quarter of a watt in what is rated 63 mW, 0.1 W, 0.25 W and 1 W: 85 K for the rated watts
      {"100", "0402", "", 25 + 85 * 0.25 / 0.063},
      {"100", "0603", "", 25 + 85 * 0.25 / 0.1},
      {"100", "1206", "", 0},
      {"100", "0603", "1 W", 0},
      {"100", "0402", "1/16W", 25 + 85 * 0.25 / 0.0625},
      {"100 63mW", "1206", "", 25 + 85 * 0.25 / 0.063},
    };
  }

  @Test(dataProvider = "resistors")
  public void aResistorIsAsHotAsItsWattsSay(String value, String size, String words, double hot) {
    Boards b = board();
    b.part("R1").value(value).words(words).shape(size).at(10, 0).pads("5V", "GND");
    if (hot == 0) {
      assertEquals(passed(b, 5), List.of());
    } else {
      only(passed(b, 5), "R1", Rating.What.WARMTH, hot);
    }
  }

  @Test
  public void aCapacitorBearsWhatItsBillSays() {
    Boards b = board();
    b.part("C2").value("10u 6.3V").at(10, 0).pads("5V", "GND");
    b.part("C3").value("1u").words("ceramic on 3V3").at(20, 0).pads("5V", "GND");
    assertEquals(passed(b, 5), List.of(), "the name of a rail is no rating");
    only(passed(b, 9), "C2", Rating.What.VOLTS, 9);
  }

  @Test
  public void aTurnedElectrolyticHasVoltsTheWrongWayAndLeads() {
    Boards b = board();
    b.part("C2").value("100u 16V").words("electrolytic").at(10, 0).pads("5V", "GND");
    b.part("C3").value("100n").words("radial, polarised?").at(20, 0).pads("5V", "GND");
    assertEquals(passed(b, 5), List.of());
    List<Rating.Passed> turned = passed(b, 5, "turned C2");
    only(turned, "C2", Rating.What.REVERSE, 5);
    assertTrue(turned.getFirst().words().contains("the wrong way round"));
    assertEquals(passed(b, 0.5, "turned C2"), List.of(), "half a volt is borne");
  }

  @Test
  public void aLampBearsAFewMilliamperes() {
    Boards b = board();
    b.part("R1").value("20").shape("2512").at(10, 0).pads("5V", "A");
    b.part("D1").value("red").at(20, 0).pads("GND", "A");
    assertEquals(passed(b, 5).getFirst().rating().what(), Rating.What.AMPS);
    assertEquals(passed(b, 3).size(), 0);
  }
}
