package ell.desk;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.rack.Plan;
import ell.core.rack.Progress;
import ell.core.rack.Sections;
import ell.core.rack.Stage;
import ell.core.rack.Standing;
import ell.core.record.Section;
import ell.desk.key.Command;
import ell.desk.scripted.Screenshots;
import ell.desk.scripted.ScriptedAsker;
import ell.desk.shell.DeskModel;
import ell.desk.shell.Margin;
import ell.desk.shell.Runner;
import ell.desk.shell.Snapshot;
import ell.desk.shell.StageModel;
import ell.desk.shell.Station;
import ell.desk.window.MainWindow;
import ell.desk.window.Stations;
import ell.work.Stages;
import ell.work.Workshop;
import ell.work.act.Refusal;
import ell.work.act.RefusedException;
import ell.work.act.Rule;
import ell.work.act.Situation;
import ell.work.act.StageWork;
import ell.work.send.Export;
import ell.work.send.RecordMaker;
import ell.work.tape.Meaning;
import ell.work.tape.Verb;
import ell.work.tape.VerbTable;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import javafx.application.Platform;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import org.testfx.api.FxRobot;
import org.testfx.api.FxToolkit;
import org.testfx.util.WaitForAsyncUtils;
import org.testng.annotations.Test;

/// A stage that nobody ships, with its own rooms and one line in each list: it is on the rule,
/// among the keys, on the tape, in the record, the export and the table of the documentation, and
/// its rule holds.
public class FourteenthStageTest {
  private static final Stage FERRY =
      new Stage("ferry", "Ferry", "Is the board dry enough to cross?", true);

  private static final String CROSSED = "crossed: ";

  private static List<Logged> crossings(BoardState s) {
    return s.standing().stream()
        .filter(l -> l.entry() instanceof Entry.Note n && n.text().startsWith(CROSSED))
        .toList();
  }

  private static final Progress PROGRESS =
      new Progress(
          FERRY,
          true,
          (_, s) -> !crossings(s).isEmpty(),
          (_, s) ->
              new Progress.Far(
                  crossings(s).size(),
                  3,
                  crossings(s).size() + " of 3 crossings",
                  Standing.Mark.WITHIN));

  private static Optional<Section> section(Plan plan, BoardState s) {
    List<Section.Row> rows = new ArrayList<>();
    crossings(s)
        .forEach(l -> rows.add(Section.cells(Section.Tone.PLAIN, ((Entry.Note) l.entry()).text())));
    return rows.isEmpty()
        ? Optional.empty()
        : Optional.of(new Section("Crossings", plan.revision().title(), List.of(1.0), rows));
  }

  private static final List<Verb> VERBS =
      List.of(
          Verb.first(
                  "ferry",
                  "ferry WHERE",
                  "a crossing",
                  s ->
                      s.rest().isEmpty()
                          ? Meaning.unfinished("where to")
                          : Meaning.ready(new Entry.Note(CROSSED + s.rest())),
                  "ferry north")
              .of(FERRY));

  /// Holds a rule, and says how an export names what it keeps.
  private static final class FerryWork implements StageWork {
    @Override
    public Stage stage() {
      return FERRY;
    }

    @Override
    public List<Rule> rules() {
      return List.of(
          new Rule() {
            @Override
            public String key() {
              return "tide";
            }

            @Override
            public String guards() {
              return "nobody crosses to the south";
            }

            @Override
            public Optional<Refusal> refusal(Entry next, Situation s) {
              return next instanceof Entry.Note n && n.text().equals(CROSSED + "south")
                  ? Optional.of(
                      new Refusal("tide", "the tide is out", "Say why: override tide WHY"))
                  : Optional.empty();
            }
          });
    }

    @Override
    public Map<String, String> keeps() {
      return Map.of("ferry-table", "csv");
    }
  }

  private static Stages lists() {
    return Stages.SHIPPED.with(
        FERRY,
        PROGRESS,
        new Sections(FERRY, FourteenthStageTest::section),
        VERBS,
        _ -> new FerryWork());
  }

  private static final class FerryModel extends StageModel {
    private final DeskModel desk;

    FerryModel(DeskModel desk) {
      this.desk = desk;
    }

    @Override
    public void show(Snapshot.Work work) {
      margin(
          new Margin(
              Optional.empty(), List.of(Margin.Note.plain("Crossing " + work.board(), List.of()))));
    }

    @Override
    public String primaryWords() {
      return "cross";
    }

    @Override
    public void primary() {
      desk.log(List.of(new Entry.Note(CROSSED + "north")));
    }
  }

  private static final class FerryStation extends Station {
    private final FerryModel model;

    FerryStation(DeskModel desk) {
      super(desk);
      this.model = new FerryModel(desk);
    }

    @Override
    public Stage stage() {
      return FERRY;
    }

    @Override
    public StageModel model() {
      return model;
    }

    @Override
    protected Node makeView() {
      return new Label("The ferry's own picture");
    }

    @Override
    public List<Command> commands() {
      return List.of(
          Command.of("hail", "Ferry", "hail the ferry", "H", () -> desk.say("it comes"))
              .inLine()
              .when(here()));
    }
  }

  @Test
  public void itIsInEveryList() throws Exception {
    Path file = Desks.demo();
    try (Workshop w = Workshop.open(file, Desks.clock(), lists())) {
      assertTrue(VerbTable.of(w.stages().verbs()).contains("| `ferry WHERE` | `ferry north` |"));
      w.type("12", "ferry north").orThrow();
      assertEquals(w.standing("12").stage(), FERRY);
      assertEquals(w.standing("12").phrase(), "1 of 3 crossings");
      assertThrowsTide(w);
      w.type("12", "override tide I can swim").orThrow();
      w.type("12", "ferry south").orThrow();
      var record = RecordMaker.of(w, "12");
      assertEquals(record.section("Crossings").orElseThrow().rows().size(), 2);
      w.book().putKeepsake("ferry-table", "from,to\n");
      Path out = file.resolveSibling("export");
      Export.write(w, out);
      assertEquals(Files.readString(out.resolve("kept/ferry-table.csv")), "from,to\n");
      assertTrue(Files.readString(out.resolve("boards.csv")).contains("ferry"));
    }
    try (Workshop plain = Workshop.open(file, Desks.clock())) {
      assertEquals(
          plain.standing("12").stage(), Stage.KIT, "whoever lacks the stage still opens it");
    }
  }

  private static void assertThrowsTide(Workshop w) throws Exception {
    try {
      w.type("12", "ferry south").orThrow();
      throw new AssertionError("the rule of the tide does not hold");
    } catch (RefusedException e) {
      assertEquals(e.refusal().rule(), "tide");
    }
  }

  @Test(timeOut = 60_000)
  public void itIsInTheWindow() throws Exception {
    javafx.stage.Stage stage = FxToolkit.registerPrimaryStage();
    FxRobot robot = new FxRobot();
    ExecutorService worker = Executors.newSingleThreadExecutor(Thread.ofVirtual().factory());
    ExecutorService aside = Executors.newVirtualThreadPerTaskExecutor();
    DeskModel desk =
        new DeskModel(new Runner(worker, aside, Platform::runLater), Desks.clock(), lists());
    MainWindow[] window = new MainWindow[1];
    robot.interact(() -> {
      window[0] =
          new MainWindow(
              desk,
              new ScriptedAsker(),
              () -> Path.of("unused"),
              (d, f, h) -> {
                List<Station> all = new ArrayList<>(Stations.all(d, f, h, 3));
                all.add(new FerryStation(d));
                return all;
              });
      stage.setScene(window[0].scene(1280, 800));
      stage.setX(0);
      stage.setY(0);
      stage.show();
    });
    try {
      Path file = Desks.demo();
      robot.interact(() -> desk.open(file));
      until(() -> desk.work().isPresent());
      assertEquals(robot.lookup("#stage-ferry").queryAs(Label.class).getText(), "Ferry");
      assertEquals(desk.navigation().position(FERRY), 13);
      robot.push(KeyCode.SHIFT, KeyCode.F2);
      until(() -> desk.navigation().at(FERRY));
      until(() -> robot.lookup("The ferry's own picture").tryQuery().isPresent());
      robot.type(KeyCode.SPACE);
      until(() -> desk.work().orElseThrow().log().getLast().entry() instanceof Entry.Note);
      robot.type(KeyCode.H);
      until(() -> desk.noticeProperty().get().equals("it comes"));
      robot.push(KeyCode.CONTROL, KeyCode.F12);
      until(() -> shows(robot, "hail the ferry"));
      assertTrue(shows(robot, "ferry WHERE"), "the sheet of keys says the words of the tape");
      robot.type(KeyCode.ESCAPE);
      assertTrue(Screenshots.names(window[0]).contains("ferry"));
      robot.push(KeyCode.CONTROL, KeyCode.LEFT);
      until(() -> desk.navigation().at(Stage.REVISE));
    } finally {
      window[0].close();
      desk.close();
      worker.shutdown();
      aside.shutdownNow();
      robot.interact(() -> stage.hide());
      WaitForAsyncUtils.clearExceptions();
    }
  }

  private static boolean shows(FxRobot robot, String text) {
    return robot
        .lookup(
            (Node n) -> n instanceof Label l && l.getText() != null && l.getText().contains(text))
        .tryQuery()
        .isPresent();
  }

  private static void until(java.util.function.BooleanSupplier so) throws Exception {
    WaitForAsyncUtils.waitFor(
        20,
        java.util.concurrent.TimeUnit.SECONDS,
        () -> WaitForAsyncUtils.asyncFx(so::getAsBoolean).get());
    WaitForAsyncUtils.waitForFxEvents();
  }
}
