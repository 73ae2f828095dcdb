package ell.desk;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import ell.core.board.Side;
import ell.core.entry.Entry;
import ell.core.entry.PasteLook;
import ell.core.heat.HeatFacts;
import ell.core.look.LookFacts;
import ell.core.order.OrderFacts;
import ell.core.print.PrintFacts;
import ell.core.rack.Stage;
import ell.desk.heat.HeatModel;
import ell.desk.look.LookModel;
import ell.desk.print.PrintModel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Base64;
import java.util.Optional;
import javafx.scene.input.KeyCode;
import org.testng.annotations.Test;

/// A print, a run of the plate and a walk through the real window, by keys.
public class PrintHeatLookWindowTest extends WindowCase {
  private PrintModel.Shown print() {
    return printModel().shownProperty().get();
  }

  private HeatModel.Shown heat() {
    return heatModel().shownProperty().get();
  }

  private LookModel.Shown look() {
    return lookModel().shownProperty().get();
  }

  @Test(timeOut = 60_000)
  public void aPrintPadByPad() throws Exception {
    demo();
    board("10");
    robot.type(KeyCode.F3);
    until("the layer", () -> print() != null && print().check().isPresent());
    assertTrue(shows("5 of 227 openings stay in 120 µm"));
    assertEquals(print().line().orElseThrow().opening().part(), "J2", "the worst comes first");
    assertTrue(shows("wipe before every 2nd print"));

    // a thinner foil releases everything
    robot.push(KeyCode.SHIFT, KeyCode.LEFT);
    until("the thinner foil", () -> shows("all 227 openings release from 100 µm"));
    robot.push(KeyCode.SHIFT, KeyCode.RIGHT);
    until("the foil of before", () -> shows("openings stay in 120 µm"));

    // the kit is short on this board, so the paste stays closed until somebody says why
    robot.type(KeyCode.W);
    robot.type(KeyCode.SPACE);
    until("the question why", () -> desk.tape().textProperty().get().equals("override paste "));
    assertFalse(
        PrintFacts.of(work().state()).printed().contains("first"), "it is not printed before");
    robot.write("the crystals come tomorrow");
    logsOne(() -> robot.type(KeyCode.ENTER));
    until("the tape is left", () -> desk.tape().textProperty().get().isEmpty());
    robot.interact(() -> desk.tape().begin("jar PASTE-SAC3 open"));
    logsOne(() -> robot.type(KeyCode.ENTER));
    until("the tape is left", () -> desk.tape().textProperty().get().isEmpty());
    robot.type(KeyCode.SPACE);
    until("the print", () -> PrintFacts.of(work().state()).printed().contains("first"));
    Entry.Printed p =
        (Entry.Printed)
            work().log().stream()
                .map(l -> l.entry())
                .filter(Entry.Printed.class::isInstance)
                .findFirst()
                .orElseThrow();
    assertTrue(p.wiped());
    assertEquals(p.jar(), "PASTE-SAC3");
    assertTrue(
        OrderFacts.of(work().state()).actsDone().contains("print paste first"),
        "the step of the order is done too");

    // pad by pad: thin, and taken back
    until("pads can be told", () -> printModel().canTell());
    String place = print().line().orElseThrow().opening().name();
    logsOne(() -> robot.type(KeyCode.T));
    assertEquals(PrintFacts.of(work().state()).paste().get(place), PasteLook.THIN);
    until("it shows", () -> shows("paste thin"));
    assertTrue(shows("Top up " + place), "the margin says how large a dot is missing");
    logsOne(() -> robot.push(KeyCode.CONTROL, KeyCode.Z));
    assertTrue(PrintFacts.of(work().state()).paste().isEmpty());

    // the other side, and the other sheets
    robot.type(KeyCode.V);
    until("the second side", () -> print().side() == Side.SECOND);
    assertTrue(shows("Print · all 6 openings release"));
    robot.type(KeyCode.M);
    until("the jar", () -> shows("May jar PASTE-SAC3 be used"));
    robot.type(KeyCode.M);
    until("the needle", () -> shows("By needle instead of by stencil"));
  }

  @Test(timeOut = 90_000)
  public void aRunOfTheSimulatedPlate() throws Exception {
    demo();
    desk.bench().plateSpeed(60);
    board("08");
    robot.type(KeyCode.F4);
    until("the plate is worked out", () -> heat() != null && heat().schedule().isPresent());
    assertTrue(shows("by the plate of 2 recorded runs"));
    assertEquals(heat().tracks().size(), 2);
    robot.type(KeyCode.UP);
    until("the run before", () -> heat().selected() == 0);
    assertTrue(shows("board 01, first side: out"));

    int before = work().log().size();
    robot.type(KeyCode.SPACE);
    until("it heats", () -> heat().phase() == HeatModel.Phase.HEATING && heat().look().isPresent());
    assertTrue(shows("plate on, board 08 heats"));
    until(
        "it says when",
        () -> heat().look().map(l -> l.next().startsWith("lift off")).orElse(false));
    until("now", () -> heat().look().map(l -> l.next().equals("lift off now")).orElse(false));
    robot.type(KeyCode.SPACE);
    until("the run is in the book", () -> work().log().size() > before);
    until("the plate is off", () -> heat().phase() == HeatModel.Phase.OFF);
    Entry.HeatRun run = (Entry.HeatRun) HeatFacts.of(work().state()).runs().getLast().entry();
    assertEquals(run.source(), "plate");
    double top =
        run.curves().stream()
            .filter(c -> c.role().equals("board"))
            .flatMap(c -> c.celsius().stream())
            .mapToDouble(Double::doubleValue)
            .max()
            .orElseThrow();
    assertTrue(top > 217 && top < 275, "the board got to " + top + " °C");
    assertTrue(
        OrderFacts.of(work().state()).actsDone().contains("reflow first"),
        "its paste is molten: the step is done");
    until("the model learned", () -> shows("by the plate of 3 recorded runs"));
    assertEquals(HeatFacts.of(work().state()).heatCycles().get("U4"), Integer.valueOf(1));

    // a run that is stopped is off at once, and in the book as such
    int then = work().log().size();
    robot.type(KeyCode.SPACE);
    // on a slow machine the plate, whose clock runs sixty times as fast, may be cold by now
    until(
        "it is too hot yet, or it heats",
        () ->
            desk.noticeProperty().get().contains("the plate is still at")
                || heat().phase() == HeatModel.Phase.HEATING);
    for (int i = 0; i < 60 && heat().look().isEmpty(); i++) {
      if (heat().phase() == HeatModel.Phase.OFF) {
        robot.type(KeyCode.SPACE);
      }
      Thread.sleep(300);
    }
    until(
        "it heats again",
        () -> heat().phase() == HeatModel.Phase.HEATING && heat().look().isPresent());
    until("some samples", () -> heat().look().map(l -> l.samples().size() > 8).orElse(false));
    robot.type(KeyCode.O);
    until("off", () -> heat().phase() == HeatModel.Phase.OFF && work().log().size() > then);
    assertTrue(
        ((Entry.HeatRun) HeatFacts.of(work().state()).runs().getLast().entry())
            .source()
            .contains("stopped by hand"));

    // the iron's side
    robot.type(KeyCode.I);
    until("pins", () -> heat().iron() && !heat().pins().isEmpty());
    assertTrue(shows("Heat · iron on"));
    String first = heat().part().orElseThrow().reference();
    robot.type(KeyCode.DOWN);
    until("another part", () -> !heat().part().orElseThrow().reference().equals(first));

    // a logged run is taken in
    robot.type(KeyCode.I);
    files.log = Optional.of(Desks.DEMO.resolve("plate-run-1.csv"));
    logsOne(() -> robot.type(KeyCode.L));
    assertEquals(
        ((Entry.HeatRun) HeatFacts.of(work().state()).runs().getLast().entry()).source(),
        "plate-run-1.csv");
    files.log = Optional.of(Desks.DEMO.resolve("offers.csv"));
    robot.type(KeyCode.L);
    until("it is refused", () -> desk.noticeProperty().get().contains("offers.csv"));
  }

  @Test(timeOut = 60_000)
  public void aWalkWithDefectsAndStrikes() throws Exception {
    demo();
    board("05");
    robot.type(KeyCode.F5);
    until("the walk", () -> look() != null && look().stop().isPresent());
    assertEquals(desk.navigation().stageProperty().get(), Stage.LOOK);
    int all = look().stops().size();
    String first = look().stop().orElseThrow().joint().place();
    logsOne(() -> robot.type(KeyCode.SPACE));
    assertTrue(LookFacts.of(work().state()).sawGood(first));
    until("the next joint", () -> !look().stop().orElseThrow().joint().place().equals(first));
    assertEquals(look().stops().size(), all, "what was seen does not change the way");

    // a bridge: causes and remedy beside it, then mended and looked at again
    String bad = look().stop().orElseThrow().joint().place();
    logsOne(() -> robot.type(KeyCode.J));
    assertEquals(work().state().findings().getLast().place(), bad);
    robot.type(KeyCode.LEFT);
    until("back at it", () -> look().stop().orElseThrow().joint().place().equals(bad));
    until("its causes", () -> shows("perhaps: too much paste"));
    int heated =
        HeatFacts.of(work().state())
            .heatCycles()
            .getOrDefault(look().stop().orElseThrow().part().reference(), 0);
    String part = look().stop().orElseThrow().part().reference();
    robot.type(KeyCode.E);
    until("the line begins", () -> desk.tape().textProperty().get().equals(bad + " touched-up "));
    // C16 was heated as often as it may be: not once more without a word why
    assertEquals(heated, 3);
    robot.type(KeyCode.ENTER);
    until("the refusal", () -> shows("boards die of repeated rework"));
    robot.write("the pin must come free");
    logsOne(() -> robot.type(KeyCode.ENTER));
    robot.type(KeyCode.ESCAPE);
    assertEquals(HeatFacts.of(work().state()).heatCycles().get(part), Integer.valueOf(heated + 1));
    assertFalse(LookFacts.of(work().state()).sawGood(bad));
    // the mending was a slip of the hand
    logsOne(() -> robot.push(KeyCode.CONTROL, KeyCode.Z));
    assertEquals(work().state().findings().getLast().place(), bad);

    // the rest of the part, the short walk, the rest of the board
    until("the walk shows it", () -> work().state().findings().getLast().place().equals(bad));
    logsOne(() -> robot.type(KeyCode.G));
    robot.type(KeyCode.Q);
    until("the short walk", () -> look().brief() && look().stops().size() < all);
    assertTrue(look().coverage() >= LookModel.SHARE - 1e-9);
    robot.type(KeyCode.Q);
    until("the whole", () -> !look().brief());

    Path png = Files.createTempFile("joint", ".png");
    Files.write(
        png,
        Base64.getDecoder()
            .decode(
                "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg=="));
    files.photograph = Optional.of(png);
    logsOne(() -> robot.push(KeyCode.SHIFT, KeyCode.P));
    assertEquals(LookFacts.of(work().state()).photos().size(), 1);

    logsOne(() -> robot.push(KeyCode.SHIFT, KeyCode.G));
    until("all are told", () -> look().done() == look().stops().size());
    assertTrue(shows("of " + all + " joints told"));
  }

  /// Layers are dropped with the other files of a revision.
  @Test(timeOut = 60_000)
  public void layersComeWithARevision() throws Exception {
    Path ws = Files.createTempDirectory("layers").resolve("ws.ell");
    robot.interact(() -> desk.create(ws));
    until("the workspace", () -> desk.snapshotProperty().get().open());
    Path b = Desks.DEMO.resolve("mg-1-b");
    files.files =
        java.util.List.of(
            b.resolve("bom.csv"),
            b.resolve("placement.csv"),
            b.resolve("netlist.ipc"),
            b.resolve("paste-first.gbr"),
            b.resolve("paste-second.gbr"),
            b.resolve("legend.gbr"),
            b.resolve("drill.xnc"));
    robot.clickOn("#choose-files");
    until("told apart", () -> robot.lookup(".drop-file").queryAll().size() == 7);
    robot.clickOn("#design").write("MG-1");
    robot.clickOn("#import");
    until("the revision", () -> desk.work().isPresent());
    until("what the files said", () -> robot.lookup("#account-sheet").tryQuery().isPresent());
    robot.type(KeyCode.ESCAPE);
    robot.type(KeyCode.F3);
    until("the layer", () -> print() != null && print().check().isPresent());
    assertTrue(print().legend().isEmpty(), "the lower side is printed first, and has no legend");
    robot.type(KeyCode.F2);
    robot.push(KeyCode.SHIFT, KeyCode.T);
    robot.type(KeyCode.F3);
    until("the other side first", () -> print().legend().isPresent());
  }
}
