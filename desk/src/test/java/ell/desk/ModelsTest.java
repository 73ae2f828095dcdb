package ell.desk;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import ell.core.beep.BeepCheck;
import ell.core.beep.BeepFacts;
import ell.core.board.Side;
import ell.core.entry.Entry;
import ell.core.kit.KitCheck;
import ell.core.order.OrderFacts;
import ell.core.power.PowerFacts;
import ell.core.rack.Stage;
import ell.core.rack.Standing;
import ell.desk.beep.BeepModel;
import ell.desk.kit.KitModel;
import ell.desk.order.OrderModel;
import ell.desk.power.PowerModel;
import ell.desk.shell.DeskModel;
import ell.desk.shell.Margin;
import ell.desk.shell.StageModel;
import ell.desk.window.SetupModel;
import ell.work.bring.FileKind;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/// The models of the window, without a toolkit.
public class ModelsTest {
  private DeskModel desk;
  private OrderModel order;
  private BeepModel beep;
  private KitModel kit;
  private PowerModel power;

  @BeforeMethod
  public void open() throws Exception {
    desk = Desks.atOnce(Desks.clock());
    order = new OrderModel(desk);
    beep = new BeepModel(desk);
    kit = new KitModel(desk);
    power = new PowerModel(desk, 1);
    desk.add(Stage.KIT, kit);
    desk.add(Stage.ORDER, order);
    desk.add(Stage.BEEP, beep);
    desk.add(Stage.POWER, power);
    desk.open(Desks.demo());
  }

  @AfterMethod(alwaysRun = true)
  public void close() {
    power.close();
    desk.close();
  }

  private int entries() {
    return desk.work().orElseThrow().log().size();
  }

  @Test
  public void beginsWithABoardThatWaitsForPower() {
    String board = desk.navigation().boardProperty().get();
    assertTrue(List.of("06", "07").contains(board), board);
    assertEquals(desk.work().orElseThrow().standings().size(), 12);
    assertEquals(desk.snapshotProperty().get().revisions(), List.of("MG-1 rev A", "MG-1 rev B"));
  }

  @Test
  public void walksRackBuildsAndStages() {
    desk.select("01");
    desk.walkRack(1);
    assertEquals(desk.navigation().boardProperty().get(), "02");
    desk.walkRack(-5);
    assertEquals(desk.navigation().boardProperty().get(), "01");
    desk.walkRack(99);
    assertEquals(desk.navigation().boardProperty().get(), "12");
    desk.walkBuilds();
    assertEquals(desk.navigation().boardProperty().get(), "A01");
    desk.walkBuilds();
    assertEquals(desk.navigation().boardProperty().get(), "01");
    desk.navigation().stageProperty().set(Stage.ORDER);
    desk.navigation().walk(1);
    assertEquals(
        desk.navigation().stageProperty().get(),
        Stage.BEEP,
        "stages without a station are passed over");
    desk.navigation().stageProperty().set(Stage.POWER);
    desk.navigation().walk(1);
    assertEquals(
        desk.navigation().stageProperty().get(),
        Stage.POWER,
        "stages that are not built are passed over");
    desk.navigation().goTo(Stage.REVISE);
    assertEquals(desk.navigation().stageProperty().get(), Stage.POWER);
    assertEquals(desk.noticeProperty().get(), "Revise is not built yet");
  }

  @Test
  public void spaceLogsTheStepAndGoesOn() {
    desk.navigation().stageProperty().set(Stage.ORDER);
    desk.select("08");
    OrderModel.Shown s = order.shownProperty().get();
    assertEquals(s.step().number(), 32);
    assertEquals(s.side(), Side.FIRST);
    assertTrue(s.detail().contains("bin A3"), s.detail());
    order.primary();
    assertEquals(order.shownProperty().get().step().number(), 33);
    assertTrue(order.shownProperty().get().placed().contains("SW1"));
    order.move(-1);
    assertTrue(order.shownProperty().get().stepDone());
    assertEquals(order.primaryWords(), "next step");
    order.primary();
    assertEquals(order.shownProperty().get().step().number(), 33);
    desk.strikeLast();
    assertEquals(order.shownProperty().get().step().number(), 32, "struck: the step is open again");
    assertEquals(order.faultLine(), "SW1 ");
  }

  @Test
  public void aGateIsAsked() {
    desk.select("07");
    OrderModel.Shown s = order.shownProperty().get();
    assertEquals(s.step().gate().orElseThrow(), "rails");
    assertEquals(order.primaryWords(), "gate holds");
    assertEquals(order.faultLine(), "gate rails fails ");
    order.primary();
    assertEquals(OrderFacts.of(desk.work().orElseThrow().state()).gates().get("rails"), true);
    assertEquals(order.shownProperty().get().step().number(), 43);
  }

  @Test
  public void theTimerLearnsOnlyPlausibleTimes() throws Exception {
    class Ticking extends Clock {
      java.time.Instant now = Desks.clock().instant();

      @Override
      public java.time.ZoneId getZone() {
        return java.time.ZoneOffset.UTC;
      }

      @Override
      public Clock withZone(java.time.ZoneId zone) {
        return this;
      }

      @Override
      public java.time.Instant instant() {
        return now;
      }
    }
    Ticking clock = new Ticking();
    DeskModel d = Desks.atOnce(clock);
    OrderModel m = new OrderModel(d);
    d.add(Stage.ORDER, m);
    d.open(Desks.demo());
    d.select("09");
    clock.now = clock.now.plusSeconds(42);
    m.primary();
    assertEquals(((Entry.StepDone) d.work().orElseThrow().log().getLast().entry()).seconds(), 42.0);
    clock.now = clock.now.plus(Duration.ofHours(9));
    m.primary();
    assertEquals(
        ((Entry.StepDone) d.work().orElseThrow().log().getLast().entry()).seconds(),
        0.0,
        "a night is no step");
    d.close();
  }

  @Test
  public void cautionsAndReasonsStandInTheMargin() {
    for (StageModel m : List.of(order, beep, power)) {
      Margin margin = m.marginProperty().get();
      assertTrue(margin.sheet().isPresent());
      assertTrue(
          m == order || margin.notes().stream().anyMatch(n -> n.kind() == Margin.Kind.CARE),
          m.getClass().getSimpleName());
    }
    desk.select("08");
    order.move(-19);
    assertTrue(
        order.marginProperty().get().notes().stream().anyMatch(n -> n.kind() == Margin.Kind.CARE),
        "a diode has its caution");
    order.name("U4");
    assertTrue(order.marginProperty().get().notes().stream().anyMatch(n -> n.title().equals("U4")));
    desk.select("02");
    assertTrue(power.marginProperty().get().notes().toString().contains("would settle it"));
  }

  @Test
  public void theKitShowsWhatIsShortFirst() {
    KitModel.Shown s = kit.shownProperty().get();
    assertEquals(s.lines().get(0).code(), "RADIO24");
    assertEquals(s.lines().get(0).reach(), 5);
    assertEquals(s.kit().verdict(), KitCheck.Verdict.WAIT);
    assertTrue(s.folded() > 20);
    kit.primary();
    assertEquals(kit.shownProperty().get().folded(), 0);
    kit.move(1);
    assertEquals(kit.selectedProperty().get(), 1);
    assertTrue(kit.marginProperty().get().sheet().orElseThrow().title().contains("BUSDRV"));
  }

  @Test
  public void beepingByNumberByOpenLoopAndByMeter() {
    desk.select("03");
    assertEquals(beep.shownProperty().get().check().number(), 4);
    assertEquals(beep.readingLine(), "beep 4 ");
    beep.openLoop();
    assertEquals(beep.shownProperty().get().check().number(), 5);
    beep.measureGuards();
    assertEquals(beep.shownProperty().get().guardsMade(), 8);
    assertTrue(guards(desk).isEmpty());
    desk.select("04");
    beep.measureGuards();
    assertTrue(!guards(desk).isEmpty(), "the bridge still stands in the way");
  }

  @Test
  public void theTapeSaysBeforeItLogs() {
    desk.select("12");
    var tape = desk.tape();
    tape.begin("3V");
    assertEquals(tape.focusAskedProperty().get(), 1);
    tape.complete();
    assertEquals(tape.textProperty().get(), "3V3 ");
    assertTrue(tape.hintProperty().get().contains("3V3A"), "the other names are offered");
    tape.complete();
    assertEquals(tape.textProperty().get(), "3V3A ");
    tape.textProperty().set("3V3 3.287");
    assertTrue(tape.readyProperty().get());
    assertTrue(
        tape.hintProperty().get().contains("logs to 12: 3V3 3.287 V · within"),
        tape.hintProperty().get());
    assertEquals(entries(), 0);
    tape.enter();
    assertEquals(entries(), 1);
    assertEquals(tape.textProperty().get(), "");
    tape.textProperty().set("FOO 1");
    assertTrue(tape.wrongProperty().get());
    tape.enter();
    assertEquals(entries(), 1, "what is wrong is not logged");
    tape.leave();
    desk.strikeLast();
    assertEquals(entries(), 2);
    assertTrue(PowerFacts.of(desk.work().orElseThrow().state()).readings().isEmpty());
    desk.strikeLast();
    assertEquals(desk.noticeProperty().get(), "nothing to strike on board 12");
  }

  @Test
  public void powerIsNotOfferedBeforeTheBeeper() {
    desk.select("12");
    assertEquals(power.primaryWords(), "");
    assertTrue(power.shownProperty().get().refusal().isPresent());
    power.primary();
    assertEquals(entries(), 0);
    assertEquals(power.shownProperty().get().phase(), PowerModel.Phase.OFF);
  }

  @Test
  public void theLadderIsEditedOrLeftAsItWas() {
    desk.select("07");
    String json = power.ladderJson();
    List<String> said = new ArrayList<>();
    power.keepLadder(json.replace("\"low\" : 3.234", "\"low\" : 3.29"), said::add);
    assertEquals(said, List.of(""));
    assertEquals(desk.work().orElseThrow().plan().ladder().rail("3V3").orElseThrow().low(), 3.29);
    power.keepLadder("{\"ground\":\"NOWHERE\"}", said::add);
    assertTrue(said.getLast().contains("no net 'NOWHERE'"), said.toString());
    assertEquals(desk.work().orElseThrow().plan().ladder().rail("3V3").orElseThrow().low(), 3.29);
  }

  @Test
  public void aRecordFromTheWindow() throws Exception {
    Path pdf = Files.createTempDirectory("rec").resolve("r.pdf");
    desk.record(pdf);
    assertTrue(Files.size(pdf) > 10_000);
    desk.record(pdf.resolve("no/x.pdf"));
    assertFalse(desk.noticeProperty().get().isEmpty(), "a problem is said");
  }

  @Test
  public void settingUpARevision() throws Exception {
    DeskModel d = Desks.atOnce(Desks.clock());
    d.create(Desks.file());
    assertTrue(d.snapshotProperty().get().open());
    SetupModel m = new SetupModel(d);
    m.run();
    assertTrue(m.problemsProperty().get().toString().contains("are needed"));
    Path b = Desks.DEMO.resolve("mg-1-b");
    m.take(
        List.of(b.resolve("netlist.ipc"), b.resolve("bom.csv"), Desks.DEMO.resolve("script.txt")));
    assertFalse(m.complete());
    assertTrue(m.problemsProperty().get().toString().contains("script.txt"));
    m.take(List.of(b.resolve("placement.csv"), Desks.DEMO.resolve("shelf.csv")));
    assertTrue(m.complete());
    assertEquals(m.chosenProperty().get().get(FileKind.BOM), "bom.csv");
    m.designProperty().set("MG-1");
    m.boardsProperty().set("lots");
    m.run();
    assertTrue(m.problemsProperty().get().toString().contains("lots"));
    m.boardsProperty().set("3");
    m.run();
    assertEquals(m.problemsProperty().get(), List.of());
    assertEquals(d.work().orElseThrow().build().boards(), List.of("01", "02", "03"));
    m.run();
    assertEquals(m.problemsProperty().get(), List.of());
    assertTrue(d.noticeProperty().get().contains("nothing of it changed"), "no further boards");
    assertEquals(d.work().orElseThrow().build().boards(), List.of("01", "02", "03"));
    d.close();
  }

  @Test
  public void aFileThatIsNoWorkspaceIsSaidAndTheOldOneStays() throws Exception {
    Path text = Files.createTempFile("no", ".ell");
    Files.writeString(text, "hello");
    desk.open(text);
    assertTrue(desk.noticeProperty().get().contains("not a workspace"));
    assertTrue(desk.work().isPresent());
    assertEquals(desk.work().orElseThrow().standings().get("04").mark(), Standing.Mark.OUT);
  }

  private static List<BeepCheck> guards(DeskModel desk) {
    var w = desk.work().orElseThrow();
    return BeepFacts.of(w.state()).open(w.plan().beep());
  }
}
