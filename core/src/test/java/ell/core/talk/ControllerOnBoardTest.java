package ell.core.talk;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import ell.core.Boards;
import ell.core.board.Revision;
import ell.core.power.Fault;
import ell.core.power.FaultWords;
import ell.core.power.Ladder;
import ell.core.power.LadderProposal;
import java.util.List;
import java.util.Map;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// A controller with a serial line behind two resistors, a strap, a crystal, a memory with write
/// protect, a solder link and a module on its line: what each fault does, worked by hand.
public class ControllerOnBoardTest {
  private static Revision board() {
    Boards b = new Boards();
    b.part("J1").shape("HEADER-4").at(0, 0).holes("3V3", "GND", "TXD_X", "RXD_X");
    b.part("U1")
        .value("MCU")
        .at(10, 0)
        .pads("3V3", "GND", "TXD", "RXD", "BOOT0", "NRST", "XIN", "XOUT", "SDA", "SCL");
    b.part("R1").value("100").at(20, 0).pads("TXD", "TXD_X");
    b.part("R2").value("100").at(25, 0).pads("RXD", "RXD_X");
    b.part("R3").value("10k").at(30, 0).pads("BOOT0", "GND");
    b.part("R4").value("10k").at(35, 0).pads("NRST", "3V3");
    b.part("Y1").value("8 MHz").at(40, 0).pads("XIN", "XOUT");
    b.part("U2")
        .value("EEP16")
        .words("EEPROM")
        .at(50, 0)
        .pads("3V3", "GND", "SDA", "SCL", "MEM_WP");
    b.part("R5").value("4k7").at(55, 0).pads("SDA", "3V3");
    b.part("R6").value("4k7").at(57, 0).pads("SCL", "3V3");
    b.part("SJ1").at(60, 0).pads("MEM_WP", "3V3");
    b.part("C1").value("100n").at(70, 0).pads("3V3", "GND");
    return b.revision();
  }

  private static final Revision BOARD = board();
  private static final Ladder LADDER = LadderProposal.of(BOARD);
  private static final TalkPlan PLAN =
      TalkPlan.of(BOARD, List.of("line U1 tx=U1.3 rx=U1.4 at=J1.3,J1.4", "link SJ1 solder"));

  private static ControllerOnBoard with(String... faults) {
    List<Fault> all = List.of(faults).stream().map(FaultWords::parse).toList();
    return ControllerOnBoard.of(PLAN, LADDER, all, Map.of());
  }

  @Test
  public void whatIsGuessedIsTold() {
    TalkPlan guessed = TalkPlan.of(BOARD, List.of());
    SerialPort p = guessed.port().orElseThrow();
    assertEquals(p.tx(), "U1.3");
    assertEquals(p.rx(), "U1.4");
    assertEquals(p.heardAt(), "J1.3", "behind its resistor");
    assertTrue(p.guessed());
    assertEquals(guessed.straps().getFirst().joint(), "U1.5");
    assertFalse(guessed.straps().getFirst().runsHigh(), "it is pulled down");
    assertEquals(guessed.memory().orElseThrow().part(), "U2");
    assertEquals(guessed.memory().orElseThrow().protect(), "U2.5");
    assertEquals(guessed.links().getFirst().part(), "SJ1");
    assertTrue(guessed.links().getFirst().guessed());
    assertEquals(guessed.told().size(), 4, guessed.told().toString());
    assertTrue(guessed.told().stream().allMatch(t -> t.contains("put right by: ")));
    TalkPlan none =
        TalkPlan.of(BOARD, List.of("line none", "memory none", "link SJ1 none", "strap U1.5 none"));
    assertTrue(none.port().isEmpty() && none.memory().isEmpty() && none.links().isEmpty());
  }

  @Test
  public void aHealthyBoardSpeaksAndHears() {
    ControllerOnBoard c = with("link SJ1 open");
    assertTrue(c.runs() && c.heard() && c.hears() && c.remembers() && c.settled());
    assertFalse(c.locked());
    assertEquals(c.straps().orElseThrow(), Boolean.TRUE);
    assertEquals(c.clock(), 1.0);
    assertEquals(c.volts(), 1, 0.01);
  }

  @DataProvider
  Object[][] faults() {
    return new Object[][] {
      {"open U1.3", TalkSymptom.SILENT},
      {"missing R1", TalkSymptom.SILENT},
      {"bridge TXD GND 1ohm", TalkSymptom.SILENT},
      {"open R2.1", TalkSymptom.DEAF},
      {"open U1.4", TalkSymptom.DEAF},
      {"bridge NRST GND 1ohm", TalkSymptom.SILENT},
      {"missing Y1", TalkSymptom.SILENT},
      {"open U1.8", TalkSymptom.SILENT},
      {"value Y1 7.3728MHz", TalkSymptom.GARBAGE},
      {"bridge BOOT0 3V3 1ohm", TalkSymptom.IN_LOADER},
      {"link SJ1 closed", TalkSymptom.FORGETS},
      {"tied U2.5 3V3", TalkSymptom.FORGETS},
      {"open U2.3", TalkSymptom.FORGETS},
      {"bridge SDA GND 1ohm", TalkSymptom.FORGETS},
      {"bridge SCL 3V3 1ohm", TalkSymptom.FORGETS},
      {"bridge SDA SCL 1ohm", TalkSymptom.FORGETS},
      {"missing R5", TalkSymptom.FORGETS}, // nothing pulls the line up
      {"dead U2", TalkSymptom.FORGETS},
      {"dead U1", TalkSymptom.SILENT},
      {"open U1.2", TalkSymptom.SILENT},
      // what hangs on the lines without hurting them
      {"value R1 1k", TalkSymptom.FINE},
      {"missing C1", TalkSymptom.FINE},
      {"missing R4", TalkSymptom.FINE},
    };
  }

  @Test(dataProvider = "faults")
  public void whatAFaultDoes(String fault, TalkSymptom shows) {
    ControllerOnBoard c = fault.startsWith("link") ? with(fault) : with("link SJ1 open", fault);
    assertEquals(TalkSymptom.of(c).orElseThrow(), shows, c.toString());
  }

  /// A strap without its resistor is at neither level: one thing or the other at each reset.
  @Test
  public void aStrapThatFloats() {
    assertTrue(with("missing R3").straps().isEmpty());
    assertTrue(TalkSymptom.of(with("link SJ1 open", "missing R3")).isEmpty());
  }

  /// 100 ohm and 30 ohm of the driver against 45 kohm: 0.3 % of the supply is left at a low. With
  /// 20 kohm in place of 100 ohm it is 31 %, which is no low any more.
  @Test
  public void aSeriesResistorThatIsTooLarge() {
    assertTrue(with("link SJ1 open", "value R1 15k").heard(), "25 % is a low");
    assertFalse(with("link SJ1 open", "value R1 20k").heard(), "31 % is none");
  }

  /// Every fault that is told for a behaviour is one that shows it: the same model, asked back.
  @Test
  public void reasonsShowWhatWasSeen() {
    for (TalkSymptom s : TalkSymptom.values()) {
      if (s == TalkSymptom.FINE || s == TalkSymptom.EMPTY) {
        continue;
      }
      TalkReasons.Found f = TalkReasons.of(PLAN, LADDER, Map.of("SJ1", false), s);
      assertEquals(f.asItStands(), "");
      assertFalse(f.faults().isEmpty(), s.toString());
      for (String fault : f.faults()) {
        ControllerOnBoard c = fault.startsWith("link") ? with(fault) : with("link SJ1 open", fault);
        assertTrue(TalkSymptom.of(c).isEmpty() || TalkSymptom.of(c).get() == s, s + ": " + fault);
      }
    }
    assertTrue(
        TalkReasons.of(PLAN, LADDER, Map.of("SJ1", true), TalkSymptom.FORGETS)
            .asItStands()
            .contains("SJ1 closed"));
  }

  @Test
  public void somethingElseOnTheLine() {
    TalkPlan shared =
        TalkPlan.of(
            BOARD,
            List.of(
                "line U1 tx=U1.3 rx=U1.4 at=J1.3,J1.4", "link SJ1 solder", "shares J1 out=U1.4"));
    List<Fault> open = List.of(new Fault.Link("SJ1", true));
    assertTrue(ControllerOnBoard.of(shared, LADDER, open, Map.of()).hears());
    assertFalse(
        ControllerOnBoard.of(shared, LADDER, open, Map.of("J1", true)).hears(),
        "130 ohm of the cable against 30 ohm of the module: it holds the line high");
  }

  @DataProvider
  Object[][] bad() {
    return new Object[][] {
      {"lnk SJ1 solder", "expected link"},
      {"link SJ1", "expected a part"},
      {"link SJ1 glue", "solder, jumper or switch"},
      {"link U9 solder", "no part U9"},
      {"link C9 solder", "no part C9"},
      {"operation", "expected a name"},
      {"operation a b", "before 'b'"},
      {"operation a open SJ1 closed SJ1", "both"},
      {"operation a after a", "after itself"},
      {"operation a after b", "nobody spoke of"},
      {"operation a open R1", "is no link"},
      {"line U1 tx=U1.3", "rx is a joint"},
      {"line U1 tx=U1.3 rx=U1.4 baud=1", "baud"},
      {"line U1 tx=U1.3 rx=U1.4 at=J1.3", "two places"},
      {"strap U1.5 up", "expected a joint"},
      {"memory U2 protect=U2.99", "protect is a joint"},
      {"shares U1", "where it speaks"},
    };
  }

  @Test(dataProvider = "bad")
  public void whatCannotBeUnderstoodIsRefused(String line, String why) {
    String says =
        expectThrows(IllegalArgumentException.class, () -> TalkPlan.of(BOARD, List.of(line)))
            .getMessage();
    assertTrue(says.contains(why), says);
  }
}
