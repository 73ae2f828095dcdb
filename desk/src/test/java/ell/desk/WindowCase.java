package ell.desk;

import ell.core.beep.BeepFacts;
import ell.desk.heat.HeatModel;
import ell.desk.kit.KitModel;
import ell.desk.look.LookModel;
import ell.desk.power.PowerModel;
import ell.desk.print.PrintModel;
import ell.desk.scripted.ScriptedAsker;
import ell.desk.shell.DeskModel;
import ell.desk.shell.Runner;
import ell.desk.shell.Snapshot;
import ell.desk.window.MainWindow;
import java.nio.file.Path;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;
import javafx.application.Platform;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import org.testfx.api.FxRobot;
import org.testfx.api.FxToolkit;
import org.testfx.util.WaitForAsyncUtils;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;

/// The real window on a desk of its own for each test, worked by keys and clicks without a monitor.
abstract class WindowCase {
  private static final int PATIENCE = 20;
  FxRobot robot;
  DeskModel desk;
  MainWindow window;
  ScriptedAsker files;
  private ExecutorService worker;
  private ExecutorService aside;
  javafx.stage.Stage stage;

  @BeforeMethod
  public void show() throws Exception {
    stage = FxToolkit.registerPrimaryStage();
    robot = new FxRobot();
    files = new ScriptedAsker();
    worker = Executors.newSingleThreadExecutor(Thread.ofVirtual().factory());
    aside = Executors.newVirtualThreadPerTaskExecutor();
    desk = new DeskModel(new Runner(worker, aside, Platform::runLater), Desks.clock());
    robot.interact(() -> {
      window = new MainWindow(desk, files, () -> Path.of("unused"), 3);
      stage.setScene(window.scene(1280, 800));
      // another test may have left it smaller
      stage.setWidth(1280);
      stage.setHeight(800);
      stage.setX(0);
      stage.setY(0);
      stage.show();
    });
    WaitForAsyncUtils.waitForFxEvents();
  }

  @AfterMethod(alwaysRun = true)
  public void hide() throws Exception {
    window.close();
    desk.close();
    worker.shutdown();
    worker.awaitTermination(5, TimeUnit.SECONDS);
    aside.shutdownNow();
    robot.release(new KeyCode[] {});
    robot.interact(() -> stage.hide());
    WaitForAsyncUtils.clearExceptions();
  }

  final void until(String what, BooleanSupplier so) throws Exception {
    try {
      WaitForAsyncUtils.waitFor(PATIENCE, TimeUnit.SECONDS, () -> ask(so));
    } catch (java.util.concurrent.TimeoutException e) {
      throw new AssertionError(
          "waited in vain for " + what + "; said: " + desk.noticeProperty().get(), e);
    }
    WaitForAsyncUtils.waitForFxEvents();
  }

  /// Asks on the interface thread.
  private static boolean ask(BooleanSupplier so) throws Exception {
    return WaitForAsyncUtils.asyncFx(so::getAsBoolean).get(PATIENCE, TimeUnit.SECONDS);
  }

  final Snapshot.Work work() {
    return desk.work().orElseThrow();
  }

  final void demo() throws Exception {
    Path file = Desks.demo();
    robot.interact(() -> desk.open(file));
    until("the demo", () -> desk.work().isPresent());
  }

  final void board(String serial) throws Exception {
    robot.interact(() -> desk.select(serial));
    until("board " + serial, () -> desk.navigation().boardProperty().get().equals(serial));
  }

  final <T extends Node> T node(String query) {
    return robot.lookup(query).query();
  }

  final boolean shows(String text) {
    return robot
        .lookup((Node n) ->
            n instanceof Label l
                && l.isVisible()
                && l.getText() != null
                && l.getText().contains(text))
        .tryQuery()
        .isPresent();
  }

  final void logsOne(Runnable act) throws Exception {
    logs(1, act);
  }

  /// Does something that logs so many entries.
  final void logs(int entries, Runnable act) throws Exception {
    int before = work().log().size();
    act.run();
    until("an entry", () -> work().log().size() == before + entries);
  }

  final PowerModel.Phase phase() {
    return power().shownProperty().get().phase();
  }

  /// Goes to first power, waits for the prediction and switches on.
  final void switchOn() throws Exception {
    robot.type(KeyCode.F7);
    until("the prediction", () -> !power().primaryWords().isEmpty());
    robot.type(KeyCode.SPACE);
    until("on", () -> phase() == PowerModel.Phase.ON);
  }

  final PowerModel power() {
    return window.model(PowerModel.class);
  }

  final HeatModel heatModel() {
    return window.model(HeatModel.class);
  }

  final LookModel lookModel() {
    return window.model(LookModel.class);
  }

  final PrintModel printModel() {
    return window.model(PrintModel.class);
  }

  final KitModel kit() {
    return window.model(KitModel.class);
  }

  /// Whether every check that power waits for was made and is within.
  final boolean guardsHold() {
    return BeepFacts.of(work().state()).open(work().plan().beep()).isEmpty();
  }
}
