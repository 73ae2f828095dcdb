package ell.core.prove;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import ell.core.quantity.Limits;
import java.util.List;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Test plans as a maker writes them.
public class PlanReaderTest {
  private static final String ALL =
      """
      plan "the gauge, cold"
      # shorts first
      ohms 3V3 GND 1k.. fails=stop
      ohms "NET 7" U3.4 ..0.5ohm guard=0.1ohm
      power
      volts 3V3 3.2..3.4V needs=power retries=2
      volts 5V0 guard=20mV
      amps VIN idle ..1.2mA
      amps VIN
      set VIN 9V
      wave XIN frequency 11.99MHz..12.01MHz
      wave SDA
      feel U1 ..60 minutes=0.5
      talk first-load needs="3V3,5V0"
      loop 20 "warmed to 60 \u00b0C"
        say "get level\\r" expect "level (12|13)" within=500ms name=level
        wait 0.1s
      end
      ask "Is \\"D1\\" lit?" yes
      ask "How bright is it?" 10..20V name=bright
      plug M1 out
      link SJ1 closed
      pattern counting OUT1,OUT2,OUT3 send="out {vector}"
      off
      """;

  @Test
  public void everythingThatCanBeWritten() {
    TestPlan p = PlanReader.read(ALL, "x");
    assertEquals(p.name(), "the gauge, cold");
    assertEquals(p.steps().size(), 20);
    assertEquals(p.steps().get(0).limits().orElseThrow(), Limits.atLeast(1000));
    assertTrue(p.steps().get(0).stops());
    assertEquals(p.steps().get(1).act(), new TestAct.Ohms("NET 7", "U3.4"));
    assertEquals(p.steps().get(1).guard(), 0.1);
    assertEquals(p.steps().get(3).limits().orElseThrow(), new Limits(3.2, 3.4));
    assertEquals(p.steps().get(3).retries(), 2);
    assertEquals(p.steps().get(5).limits().orElseThrow(), Limits.atMost(1.2e-3));
    assertEquals(p.steps().get(6).act(), new TestAct.Amps("VIN", "boot"));
    assertEquals(p.step("talk").isPresent(), false);
    assertEquals(p.step("first-load").orElseThrow().needs(), List.of("3V3", "5V0"));
    TestStep say = p.step("level, warmed to 60 \u00b0C").orElseThrow();
    assertEquals(say.act(), new TestAct.Say("get level\r", "level (12|13)", 0.5));
    assertEquals(p.times(p.steps().indexOf(say) + 1), 20);
    assertEquals(p.turns().size(), 20 - 2 + 40);
    assertEquals(p.steps().get(14).act().words(), "Is \"D1\" lit?");
  }

  @Test
  public void writtenAndReadAgainItIsTheSame() {
    TestPlan p = PlanReader.read(ALL, "x");
    String text = PlanText.of(p);
    TestPlan again = PlanReader.read(text, "y");
    assertEquals(PlanText.of(again), text);
    assertEquals(again.loops(), p.loops());
    for (int i = 0; i < p.steps().size(); i++) {
      TestStep a = p.steps().get(i);
      TestStep b = again.steps().get(i);
      assertEquals(b.act(), a.act());
      assertEquals(b.name(), a.name());
      assertEquals(b.limits(), a.limits());
      assertEquals(b.guard(), a.guard());
      assertEquals(b.needs(), a.needs());
      assertEquals(b.stops(), a.stops());
      assertEquals(b.minutes(), a.minutes());
    }
  }

  @DataProvider
  Object[][] wrong() {
    return new Object[][] {
      {"", "a plan has steps"},
      {"volt 3V3", "line 1: 'volt' is no step"},
      {"power\nvolts", "line 2: expected: volts PLACE"},
      {"volts 3V3 3.4..3.2", "line 1: limits are LOW..HIGH"},
      {"volts 3V3 3.2..x", "line 1:"},
      {"volts 3V3 colour=red", "line 1: a step has no 'colour='"},
      {"volts 3V3 retries=lots", "line 1: retries: a whole number"},
      {"volts 3V3\nvolts 3V3", "line 2: two tests have the name '3V3'"},
      {"volts 3V3 needs=power", "line 1: '3V3' needs 'power', and no step before it"},
      {"volts 3V3 fails=perhaps", "line 1: fails=stop or fails=go"},
      {"say \"x\"", "line 1: expected: say"},
      {"say \"x\" expect \"(\"", "line 1: the pattern '(' is none"},
      {"ask \"lit?\"", "line 1: expected yes, no or limits"},
      {"ask \"lit? yes", "line 1: a quotation mark is missing"},
      {"loop 3\nvolts 3V3", "line 1: a loop has an end"},
      {"loop 3\nend", "line 2: expected a loop with steps"},
      {"loop 3\nloop 2\nvolts 3V3\nend\nend", "line 2: a loop stands in no other loop"},
      {"loop 99999999\nvolts 3V3\nend", "line 1: loop: a whole number"},
      {"wave XIN colour", "line 1: no capture measures 'colour'"},
      {"wait 9999s", "line 1: seconds in 0...3600"},
      {"plug M1 open", "line 1: expected: plug PLACE in or out"},
      {"pattern walking A,B send=\"x\"", "line 1: send has {vector}"},
      {"volts 3V3 and more", "line 1: found 'and' behind the end"},
      {"loop 10000\nvolts A\nvolts B\nvolts C\nend", "with every try of its loops counted"},
    };
  }

  @Test(dataProvider = "wrong")
  public void everyLineThatIsNoneIsTold(String text, String expected) {
    String is =
        expectThrows(IllegalArgumentException.class, () -> PlanReader.read(text, "x")).getMessage();
    assertTrue(is.contains(expected), is);
  }

  @Test
  public void allThatIsWrongIsToldAtOnce() {
    String is =
        expectThrows(
                IllegalArgumentException.class,
                () -> PlanReader.read("volt A\npower\nvolts\nask \"x\"", "x"))
            .getMessage();
    assertEquals(is.lines().count(), 3, is);
  }

  /// Whatever is typed, it is read or refused in words.
  @Test
  public void rubbishIsRefused() {
    Random random = new Random(1);
    List<String> pieces =
        List.of(
            "volts", "3V3", "\"", "..", "=", "loop", "end", "1k..", "\\", "#", "say", "expect",
            "\u0000", "9e99", "name=", "needs=,", "ask", "\t", "amps", "idle", "power");
    for (int i = 0; i < 3000; i++) {
      StringBuilder s = new StringBuilder();
      for (int k = 0; k < random.nextInt(14); k++) {
        s.append(pieces.get(random.nextInt(pieces.size())))
            .append(random.nextInt(4) == 0 ? "\n" : " ");
      }
      try {
        TestPlan p = PlanReader.read(s.toString(), "x");
        assertEquals(PlanText.of(PlanReader.read(PlanText.of(p), "x")), PlanText.of(p));
      } catch (IllegalArgumentException e) {
        assertTrue(!e.getMessage().isBlank());
      }
    }
  }
}
