package ell.desk;

import static org.testng.Assert.assertTrue;

import ell.core.entry.Entry;
import ell.core.power.FaultWords;
import ell.core.practice.Level;
import ell.work.Workshop;
import ell.work.demo.DemoWorkspace;
import ell.work.practice.Practice;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import javafx.scene.input.KeyCode;
import org.testng.annotations.Test;

/// A practice in the window: what is known is said, the fault is named on the tape, and how it went
/// is told; nothing is told before.
public class PracticeWindowTest extends WindowCase {
  @Test(timeOut = 240_000)
  public void aFaultIsNamedAndTheRunIsTold() throws Exception {
    Path folder = Files.createTempDirectory("practice");
    System.setProperty("ell.state", folder.resolve("state").toString());
    Path file = folder.resolve("practice.ell");
    String fault;
    try (Workshop demo = DemoWorkspace.make(folder.resolve("demo.ell"), Desks.DEMO, false)) {
      Practice.make(
          file,
          new Practice.Wish(
              Optional.of(demo), Optional.empty(), Level.INTERMITTENT, Optional.empty(), 5));
    }
    try (Workshop w = Workshop.look(file)) {
      fault = FaultWords.words(Practice.in(w).orElseThrow().faults().getFirst());
    }
    robot.interact(() -> desk.open(file));
    until("the practice", () -> desk.work().isPresent());
    until("what is known", () -> desk.noticeProperty().get().contains("Somebody has seen"));
    assertTrue(desk.snapshotProperty().get().practice().isPresent());
    robot.push(KeyCode.CONTROL, KeyCode.T);
    until("how it goes", () -> shows("0 measurements, 0.0 min so far"));
    assertTrue(!shows(fault), "it is not told");
    robot.type(KeyCode.ESCAPE);
    robot.interact(() -> desk.tape().begin("found " + fault));
    until("the line can be logged", () -> desk.tape().readyProperty().get());
    robot.type(KeyCode.ENTER);
    until("it is named", () -> work().log().getLast().entry() instanceof Entry.Found);
    robot.type(KeyCode.ESCAPE);
    robot.push(KeyCode.CONTROL, KeyCode.T);
    until("how it went", () -> shows("Found. It is: " + fault + ". 0 measurements, 0.0 min"));
    assertTrue(Files.exists(folder.resolve("state").resolve("practice.csv")), "it counts");
    robot.type(KeyCode.ESCAPE);
  }
}
