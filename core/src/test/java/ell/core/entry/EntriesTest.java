package ell.core.entry;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import ell.core.beep.BeepCheck;
import ell.core.beep.BeepFacts;
import ell.core.heat.HeatFacts;
import ell.core.look.LookFacts;
import ell.core.order.OrderFacts;
import ell.core.power.PowerFacts;
import ell.core.print.PrintFacts;
import ell.core.quantity.Limits;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class EntriesTest {
  private static final OffsetDateTime AT = OffsetDateTime.parse("2026-11-20T09:00:00Z");

  private static Entry.Reading reading(String place, double volts, Verdict v) {
    return new Entry.Reading(
        place,
        volts,
        Unit.VOLT,
        Optional.of(new Limits(3.2, 3.4)),
        Optional.of(0.02),
        Optional.of(v),
        "meter");
  }

  private static Entry.Check check(double ohms, Verdict v) {
    return new Entry.Check(
        "isolation", "TP1.1", "TP4.1", "GND", "3V3", ohms, Limits.atLeast(100), v);
  }

  /// One row of each kind as the first version wrote it: these must stay readable for ever.
  @DataProvider
  Object[][] stored() {
    return new Object[][] {
      {
        "{\"v\":1,\"kind\":\"step\",\"number\":3,\"action\":\"place\",\"parts\":[\"R1\",\"R2\"],\"seconds\":21.5}",
        new Entry.StepDone(3, "place", List.of("R1", "R2"), 21.5)
      },
      {
        "{\"v\":1,\"kind\":\"gate\",\"gate\":\"rails\",\"held\":true,\"why\":\"\"}",
        new Entry.Gate("rails", true, "")
      },
      {
        "{\"v\":1,\"kind\":\"reading\",\"place\":\"3V3\",\"value\":3.3,\"unit\":\"V\",\"low\":3.2,\"high\":3.4,\"uncertainty\":0.02,\"verdict\":\"within\",\"with\":\"meter\"}",
        reading("3V3", 3.3, Verdict.WITHIN)
      },
      {
        "{\"v\":1,\"kind\":\"reading\",\"place\":\"Y1\",\"value\":1.2E7,\"unit\":\"Hz\"}",
        new Entry.Reading(
            "Y1", 12e6, Unit.HERTZ, Optional.empty(), Optional.empty(), Optional.empty(), "")
      },
      {
        "{\"v\":1,\"kind\":\"check\",\"check\":\"isolation\",\"a\":\"TP1.1\",\"b\":\"TP4.1\",\"netA\":\"GND\",\"netB\":\"3V3\",\"low\":100.0,\"verdict\":\"within\"}",
        check(Double.POSITIVE_INFINITY, Verdict.WITHIN)
      },
      {
        "{\"v\":1,\"kind\":\"defect\",\"place\":\"U4.7\",\"defect\":\"bridge\",\"text\":\"to U4.8\"}",
        new Entry.Defect("U4.7", "bridge", "to U4.8")
      },
      {
        "{\"v\":1,\"kind\":\"action\",\"place\":\"U4.7\",\"action\":\"resoldered\",\"heat\":true,\"text\":\"\"}",
        new Entry.Action("U4.7", "resoldered", true, "")
      },
      {
        "{\"v\":1,\"kind\":\"note\",\"text\":\"a µ and a \\\"quote\\\"\"}",
        new Entry.Note("a µ and a \"quote\"")
      },
      {
        "{\"v\":1,\"kind\":\"supply\",\"on\":true,\"volts\":12.0,\"limit\":0.18,\"amps\":0.013,\"low\":0.005,\"high\":0.02,\"verdict\":\"within\",\"why\":\"as predicted\"}",
        new Entry.Supply(
            true,
            12,
            0.18,
            Optional.of(0.013),
            Optional.of(new Limits(0.005, 0.02)),
            Optional.of(Verdict.WITHIN),
            "as predicted")
      },
      {
        "{\"v\":1,\"kind\":\"override\",\"rule\":\"power\",\"why\":\"I know\"}",
        new Entry.Override("power", "I know")
      },
      {
        "{\"v\":1,\"kind\":\"printed\",\"side\":\"first\",\"wiped\":true,\"jar\":\"P1\"}",
        new Entry.Printed("first", true, "P1")
      },
      {
        "{\"v\":1,\"kind\":\"paste\",\"place\":\"U4.13\",\"look\":\"bridged\"}",
        new Entry.PasteSeen("U4.13", PasteLook.BRIDGED)
      },
      {
        "{\"v\":1,\"kind\":\"jar\",\"jar\":\"P1\",\"move\":\"foil\",\"why\":\"\"}",
        new Entry.Jar("P1", JarMove.STENCIL, "")
      },
      {
        "{\"v\":1,\"kind\":\"bag\",\"code\":\"MCU\",\"open\":true,\"level\":\"5a\"}",
        new Entry.Bag("MCU", true, "5a")
      },
      {
        "{\"v\":1,\"kind\":\"profile\",\"side\":\"first\",\"window\":\"sac305\",\"source\":\"plate\",\"pwi\":54.5,\"verdict\":\"within\",\"curves\":[{\"role\":\"board\",\"step\":1.0,\"celsius\":[25.0,26.5]}]}",
        new Entry.HeatRun(
            "first",
            "sac305",
            "plate",
            54.5,
            Optional.of(Verdict.WITHIN),
            List.of(new Entry.HeatRun.Curve("board", 1, List.of(25.0, 26.5))))
      },
      {
        "{\"v\":1,\"kind\":\"seen\",\"places\":[\"U4.1\",\"R1\"]}",
        new Entry.Seen(List.of("U4.1", "R1"))
      },
      {
        "{\"v\":1,\"kind\":\"photo\",\"place\":\"U4.1\",\"name\":\"a.png\",\"sha256\":\"00ff\"}",
        new Entry.Photo("U4.1", "a.png", "00ff")
      },
      {
        "{\"v\":1,\"kind\":\"symptom\",\"place\":\"LED2\",\"what\":\"lamp\",\"shows\":\"dark\",\"times\":1,\"of\":1}",
        new Entry.Symptom("LED2", "lamp", "dark", 1, 1)
      },
      {
        "{\"v\":1,\"kind\":\"found\",\"fault\":\"open U3.4\",\"place\":\"U3.4\",\"design\":false,\"chance\":0.96,\"evidence\":[12,15],\"todo\":[\"iron\"],\"again\":[\"3V3 ?\"]}",
        new Entry.Found(
            "open U3.4", "U3.4", false, 0.96, List.of(12L, 15L), List.of("iron"), List.of("3V3 ?"))
      },
      {
        "{\"v\":1,\"kind\":\"proof\",\"plan\":\"gauge\",\"sha256\":\"ab\",\"steps\":9,\"minutes\":1.5,\"with\":\"bench\"}",
        new Entry.ProofBegun("gauge", "ab", 9, 1.5, "bench")
      },
      {
        "{\"v\":1,\"kind\":\"proof-step\",\"run\":7,\"number\":3,\"round\":2,\"name\":\"3V3\",\"place\":\"3V3\",\"value\":3.3,\"unit\":\"V\",\"low\":3.2,\"high\":3.4,\"uncertainty\":0.02,\"verdict\":\"within\",\"words\":\"\",\"left\":false,\"seconds\":0.5}",
        new Entry.ProofStep(
            7,
            3,
            2,
            "3V3",
            "3V3",
            Optional.of(3.3),
            Unit.VOLT,
            Optional.of(new Limits(3.2, 3.4)),
            Optional.of(0.02),
            Optional.of(Verdict.WITHIN),
            "",
            false,
            0.5)
      },
      {
        "{\"v\":1,\"kind\":\"proof-step\",\"run\":7,\"number\":1,\"round\":1,\"name\":\"3V3 to GND\",\"place\":\"\",\"open\":true,\"unit\":\"\u03a9\",\"words\":\"by hand: why\",\"left\":true,\"seconds\":0.0}",
        new Entry.ProofStep(
            7,
            1,
            1,
            "3V3 to GND",
            "",
            Optional.of(Double.POSITIVE_INFINITY),
            Unit.OHM,
            Optional.empty(),
            Optional.empty(),
            Optional.empty(),
            "by hand: why",
            true,
            0)
      },
      {
        "{\"v\":1,\"kind\":\"proof-end\",\"run\":7,\"verdict\":\"close\",\"why\":\"stopped\",\"minutes\":1.25}",
        new Entry.ProofEnded(7, Verdict.CLOSE, "stopped", 1.25)
      },
      {
        "{\"v\":1,\"kind\":\"released\",\"text\":\"to the marsh\"}",
        new Entry.Released("to the marsh")
      },
      {
        "{\"v\":1,\"kind\":\"erratum\",\"id\":\"E1\",\"title\":\"U6.7 hangs on 3V3\",\"design\":\"MG-1\",\"revisions\":[\"A\"],\"fault\":\"tied U6.7 3V3\",\"places\":[\"U6.7\"],\"severity\":\"fails\",\"bodge\":[\"lift U6.7\"],\"proof\":\"\",\"fix\":\"cut U6.7 3V3\",\"taughtBy\":[23]}",
        new Entry.Erratum(
            "E1",
            "U6.7 hangs on 3V3",
            "MG-1",
            List.of("A"),
            "tied U6.7 3V3",
            List.of("U6.7"),
            "fails",
            List.of("lift U6.7"),
            "",
            "cut U6.7 3V3",
            List.of(23L))
      },
      {
        "{\"v\":1,\"kind\":\"erratum-said\",\"id\":\"E1\",\"what\":\"severity\",\"text\":\"harm\"}",
        new Entry.ErratumSaid("E1", "severity", "harm")
      },
      {
        "{\"v\":1,\"kind\":\"bodge\",\"id\":\"E1\",\"what\":\"done\",\"minutes\":9.0,\"text\":\"\"}",
        new Entry.Bodge("E1", "done", 9, "")
      },
      {
        "{\"v\":1,\"kind\":\"decision\",\"about\":\"\",\"choice\":\"rework\",\"numbers\":{\"boards\":4.0},\"why\":\"soon\"}",
        new Entry.Decision("", "rework", new LinkedHashMap<>(Map.of("boards", 4.0)), "soon")
      },
      {
        "{\"v\":1,\"kind\":\"stack\",\"name\":\"station\",\"members\":[\"A01\",\"cable\"],\"verdict\":\"within\",\"text\":\"\"}",
        new Entry.Stack("station", List.of("A01", "cable"), Verdict.WITHIN, "")
      },
      {
        "{\"v\":1,\"kind\":\"jig\",\"jig\":\"J1\",\"what\":\"checked\",\"place\":\"3V3\",\"count\":1,\"good\":false,\"text\":\"open\"}",
        new Entry.Jig("J1", "checked", "3V3", 1, false, "open")
      },
      {"{\"v\":1,\"kind\":\"hands\",\"who\":\"Ada\"}", new Entry.Operator("Ada")},
      {"{\"v\":1,\"kind\":\"strike\",\"target\":7,\"why\":\"typo\"}", new Entry.Strike(7, "typo")},
      {
        "{\"v\":1,\"kind\":\"step\",\"number\":4,\"action\":\"reflow\",\"parts\":[],\"seconds\":470.0,\"side\":\"second\"}",
        new Entry.StepDone(4, "reflow", List.of(), 470, "second")
      },
      {
        "{\"v\":1,\"kind\":\"fitted\",\"place\":\"Y1\",\"code\":\"XTAL12B\",\"why\":\"ran out\"}",
        new Entry.Fitted("Y1", "XTAL12B", "ran out")
      },
      {
        "{\"v\":1,\"kind\":\"lost\",\"place\":\"R9\",\"count\":2,\"why\":\"\"}",
        new Entry.Lost("R9", 2, "")
      },
      {
        "{\"v\":1,\"kind\":\"stock\",\"change\":\"ordered\",\"code\":\"R10K\",\"quantity\":50,\"bin\":\"D2\",\"due\":\"2026-12-03\",\"why\":\"\"}",
        new Entry.Stock(
            StockChange.ORDERED, "R10K", "D2", 50, Optional.of(LocalDate.parse("2026-12-03")), "")
      },
    };
  }

  @Test(dataProvider = "stored")
  public void everyStoredKindStaysReadableAndIsWrittenTheSame(String json, Entry entry) {
    assertEquals(EntryJson.read(json), entry);
    assertEquals(EntryJson.write(entry), json);
    assertFalse(EntryWords.of(entry).isBlank());
  }

  @DataProvider
  Object[][] broken() {
    return new Object[][] {
      {""},
      {"[]"},
      {"{"},
      {"{\"v\":1}"},
      {"{\"v\":1,\"kind\":\"dream\"}"},
      {"{\"v\":99,\"kind\":\"note\",\"text\":\"x\"}"},
      {"{\"v\":1,\"kind\":\"note\"}"},
      {"{\"v\":1,\"kind\":\"reading\",\"place\":\"3V3\",\"value\":\"high\",\"unit\":\"V\"}"},
      {"{\"v\":1,\"kind\":\"reading\",\"place\":\"3V3\",\"value\":3,\"unit\":\"furlong\"}"},
      {"{\"v\":1,\"kind\":\"strike\",\"why\":\"\"}"},
      {"{\"v\":1,\"kind\":\"stock\",\"change\":\"stolen\",\"code\":\"A\",\"quantity\":1}"},
      {
        "{\"v\":1,\"kind\":\"stock\",\"change\":\"ordered\",\"code\":\"A\",\"quantity\":1,\"due\":\"soon\"}"
      },
    };
  }

  @Test(dataProvider = "broken")
  public void brokenRowsAreToldInASentence(String json) {
    assertTrue(
        expectThrows(IllegalArgumentException.class, () -> EntryJson.read(json))
                .getMessage()
                .length()
            > 5);
  }

  private static BoardState fold(Entry... entries) {
    List<Logged> log = new ArrayList<>();
    for (Entry e : entries) {
      log.add(new Logged(log.size() + 1, AT.plusMinutes(log.size()), "07", e));
    }
    return BoardState.of("07", log);
  }

  @Test
  public void theLatestReadingCountsAndAnOutOneHolds() {
    BoardState s = fold(reading("3V3", 3.0, Verdict.OUT));
    assertEquals(s.findings().getFirst().place(), "3V3");
    s = fold(reading("3V3", 3.0, Verdict.OUT), reading("3V3", 3.3, Verdict.WITHIN));
    assertTrue(s.findings().isEmpty());
    assertEquals(PowerFacts.of(s).reading("3V3").orElseThrow().value(), 3.3);
  }

  @Test
  public void strikesTakeBackAndCanBeTakenBack() {
    BoardState s = fold(reading("3V3", 3.0, Verdict.OUT), new Entry.Strike(1, "wrong range"));
    assertTrue(s.findings().isEmpty());
    assertTrue(PowerFacts.of(s).readings().isEmpty());
    assertEquals(s.struck(), Set.of(1L));
    assertEquals(s.entries(), 2);
    s =
        fold(
            reading("3V3", 3.0, Verdict.OUT),
            new Entry.Strike(1, ""),
            new Entry.Strike(2, "it was right"));
    assertEquals(s.findings().size(), 1, "a strike that is struck brings the entry back");
    s =
        fold(
            new Entry.Note("a"),
            new Entry.Strike(1, ""),
            new Entry.Strike(2, ""),
            new Entry.Strike(3, ""));
    assertEquals(s.struck(), Set.of(1L, 3L));
  }

  @Test
  public void stepsPlaceAndHeat() {
    BoardState s =
        fold(
            new Entry.StepDone(1, "print paste", List.of(), 0),
            new Entry.StepDone(2, "place", List.of("R1", "R2"), 0),
            new Entry.StepDone(3, "reflow", List.of(), 0),
            new Entry.StepDone(4, "solder", List.of("J1"), 0),
            new Entry.StepDone(5, "plug in", List.of("M1"), 0),
            new Entry.Action("R1.1", "resoldered", true, ""),
            new Entry.Action("R2", "cleaned", false, ""));
    assertEquals(OrderFacts.of(s).placed(), List.of("R1", "R2", "J1", "M1"));
    assertEquals(HeatFacts.of(s).heatCycles(), Map.of("R1", 2, "R2", 1, "J1", 1));
    assertEquals(OrderFacts.of(s).stepsDone(), Set.of(1, 2, 3, 4, 5));
    assertEquals(LookFacts.of(s).rework(), 2);
  }

  @Test
  public void actionsCloseTheFindingsAtTheirPlace() {
    BoardState s =
        fold(
            new Entry.Defect("U4.7", "bridge", ""),
            new Entry.Defect("U4.9", "open", ""),
            new Entry.Defect("C5", "turned", ""),
            new Entry.Action("U4", "resoldered", true, ""));
    assertEquals(s.findings().stream().map(BoardState.Finding::place).toList(), List.of("C5"));
  }

  @Test
  public void gatesChecksSupplyAndOverrides() {
    BoardState s =
        fold(
            new Entry.Gate("rails", false, "3V3 low"),
            check(2.3, Verdict.OUT),
            new Entry.Override("power", "want to see"),
            new Entry.Supply(
                true, 12, 0.1, Optional.empty(), Optional.empty(), Optional.empty(), ""));
    assertEquals(OrderFacts.of(s).gates(), Map.of("rails", false));
    assertEquals(s.findings().size(), 2);
    assertEquals(
        BeepFacts.of(s).verdict(BeepCheck.key("isolation", "TP1.1", "TP4.1")),
        Optional.of(Verdict.OUT));
    assertEquals(s.overrides(), Map.of("power", "want to see"));
    assertTrue(PowerFacts.of(s).supply().orElseThrow().on());
    BoardState again = fold(new Entry.Gate("rails", false, ""), new Entry.Gate("rails", true, ""));
    assertTrue(again.findings().isEmpty());
  }

  @Test
  public void wordsForPeople() {
    assertEquals(EntryWords.of(reading("3V3", 3.287, Verdict.WITHIN)), "3V3 3.287 V · within");
    assertEquals(
        EntryWords.of(check(Double.POSITIVE_INFINITY, Verdict.WITHIN)),
        "isolation GND to 3V3 open loop · within");
    Entry.Reading close =
        new Entry.Reading(
            "3V3A",
            3.352,
            Unit.VOLT,
            Optional.of(new Limits(3.22, 3.366)),
            Optional.of(0.0188),
            Optional.of(Verdict.CLOSE),
            "");
    assertTrue(EntryWords.settling(close).contains("±14 mV"), EntryWords.settling(close));
    assertEquals(EntryWords.settling(reading("3V3", 3.3, Verdict.WITHIN)), "");
  }

  /// A defect takes back what was seen; what is molten again is looked at again; a print begins
  /// anew.
  @Test
  public void whatWasSeenIsFolded() {
    BoardState seen =
        fold(
            new Entry.Operator("Ada"),
            new Entry.Printed("first", false, "P1"),
            new Entry.PasteSeen("U4.13", PasteLook.BRIDGED),
            new Entry.PasteSeen("U4.2", PasteLook.THIN),
            new Entry.PasteSeen("U4.2", PasteLook.GOOD),
            new Entry.Seen(List.of("U4", "R1", "R2.1")),
            new Entry.Defect("R1.2", "bridge", ""));
    assertEquals(PrintFacts.of(seen).paste(), java.util.Map.of("U4.13", PasteLook.BRIDGED));
    assertTrue(LookFacts.of(seen).sawGood("U4.7") && LookFacts.of(seen).sawGood("R2.1"));
    assertTrue(!LookFacts.of(seen).sawGood("R1.2") && !LookFacts.of(seen).sawGood("R2.2"));
    assertEquals(LookFacts.of(seen).who(), "Ada");
    BoardState mended =
        fold(
            new Entry.Printed("first", false, ""),
            new Entry.PasteSeen("U4.13", PasteLook.BRIDGED),
            new Entry.Printed("first", true, ""),
            new Entry.Seen(List.of("U4", "R2")),
            new Entry.Action("U4.3", "resoldered", true, ""));
    assertTrue(PrintFacts.of(mended).paste().isEmpty(), "a new print is a new look");
    assertTrue(!LookFacts.of(mended).sawGood("U4.3") && LookFacts.of(mended).sawGood("R2.1"));
    assertEquals(HeatFacts.of(mended).heatCycles().get("U4"), Integer.valueOf(1));
  }
}
