package ell.desk;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import ell.book.Book;
import ell.core.board.Side;
import ell.core.entry.Entry;
import ell.core.look.DefectKind;
import ell.core.order.Step;
import ell.core.rack.Stage;
import ell.desk.beep.BeepModel;
import ell.desk.heat.HeatModel;
import ell.desk.kit.KitModel;
import ell.desk.look.LookModel;
import ell.desk.order.OrderModel;
import ell.desk.power.PowerModel;
import ell.desk.print.PrintModel;
import ell.desk.shell.DeskModel;
import ell.desk.shell.Margin;
import ell.desk.shell.StageModel;
import ell.desk.window.SetupModel;
import ell.work.bring.FileKind;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.IntConsumer;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// The models of every stage over boards that are unlike the demo: an iron-only shield, a two-sided
/// board with a cell and a module in a can, a panel of hundreds of equal parts. Keys are pressed at
/// random; what is shown stays whole, in range and in words.
public final class OddBoardsTest {
  private static final Path ODD = Path.of("../fixtures/odd");
  private static final int KEYS = 160;

  /// What a person must never read.
  private static final Pattern NONSENSE =
      Pattern.compile("NaN|Infinity|\\bnull\\b|Optional|\\b\\d[.\\d]*E[+-]?\\d+\\b|\\{\\w+=");

  private record All(
      DeskModel desk,
      KitModel kit,
      OrderModel order,
      PrintModel print,
      HeatModel heat,
      LookModel look,
      BeepModel beep,
      PowerModel power) {
    Map<Stage, StageModel> byStage() {
      Map<Stage, StageModel> m = new LinkedHashMap<>();
      m.put(Stage.KIT, kit);
      m.put(Stage.ORDER, order);
      m.put(Stage.PRINT, print);
      m.put(Stage.HEAT, heat);
      m.put(Stage.LOOK, look);
      m.put(Stage.BEEP, beep);
      m.put(Stage.POWER, power);
      return m;
    }

    void close() {
      power.close();
      desk.close();
    }
  }

  private static All open(Path file, String board, String method) throws Exception {
    DeskModel desk = Desks.atOnce(Desks.clock());
    All all =
        new All(
            desk,
            new KitModel(desk),
            new OrderModel(desk),
            new PrintModel(desk),
            new HeatModel(desk),
            new LookModel(desk),
            new BeepModel(desk),
            new PowerModel(desk, 1));
    all.byStage().forEach(desk::add);
    desk.create(file);
    SetupModel setup = new SetupModel(desk);
    try (Stream<Path> files = Files.list(ODD.resolve(board))) {
      setup.take(files.sorted().toList());
    }
    assertEquals(setup.problemsProperty().get(), List.of());
    assertTrue(setup.chosenProperty().get().containsKey(FileKind.NETLIST));
    setup.designProperty().set(board);
    setup.boardsProperty().set("3");
    setup.methodProperty().set(method);
    setup.run();
    assertEquals(setup.problemsProperty().get(), List.of());
    return all;
  }

  @DataProvider
  Object[][] boards() {
    return new Object[][] {
      {"shield", "iron", 1}, {"shield", "iron", 2},
      {"cell", "stencil-plate", 3}, {"cell", "hot-air", 4},
      {"panel", "stencil-plate", 5}, {"panel", "iron", 6},
    };
  }

  @Test(dataProvider = "boards", timeOut = 120_000)
  public void keysAtRandomLeaveEverythingWhole(String board, String method, int seed)
      throws Exception {
    Path file = Desks.file();
    All all = open(file, board, method);
    try {
      press(all, new Random(seed));
    } finally {
      all.close();
    }
    try (Book book = Book.openReadOnly(file)) {
      assertTrue(book.verify().ok(), book.verify().message());
      assertTrue(book.size() > 0, "some of the keys logged something");
    }
  }

  private static void press(All all, Random random) {
    List<String> boards = all.desk().work().orElseThrow().build().boards();
    Map<String, IntConsumer> keys = keys(all);
    List<String> names = List.copyOf(keys.keySet());
    List<String> pressed = new ArrayList<>();
    for (int i = 0; i < KEYS; i++) {
      int where = random.nextInt(12);
      if (where == 0) {
        all.desk().select(boards.get(random.nextInt(boards.size())));
      } else if (where < 4) {
        List<Stage> stages = List.copyOf(all.byStage().keySet());
        all.desk().navigation().goTo(stages.get(random.nextInt(stages.size())));
      } else {
        String key = names.get(random.nextInt(names.size()));
        pressed.add(key);
        keys.get(key).accept(random.nextInt(5) - 2);
      }
      whole(all, pressed);
    }
  }

  /// What can be pressed; nothing here switches anything on.
  private static Map<String, IntConsumer> keys(All a) {
    Map<String, IntConsumer> k = new TreeMap<>();
    StageModel[] shown = {null};
    k.put("move", by -> here(a, shown).move(by));
    k.put("across", by -> here(a, shown).across(by));
    k.put("far", by -> here(a, shown).move(by * 1000));
    k.put(
        "space",
        _ -> {
          StageModel m = here(a, shown);
          // what drives an instrument would hold this one thread
          if (m != a.heat() && m != a.power()) {
            m.primary();
          }
        });
    k.put("kit sheet", _ -> a.kit().nextSheet());
    k.put("candidate", _ -> a.kit().nextCandidate());
    k.put("price", _ -> a.kit().price());
    k.put("order sheet", _ -> a.order().nextSheet());
    k.put("turn over", _ -> a.order().turnOver());
    k.put("done on all", _ -> a.order().doneOnAll());
    k.put("reorder", by -> a.order().reorder(by));
    k.put(
        "whole step",
        _ -> {
          if (a.order().byRows()) {
            a.order().wholeStep();
          }
        });
    k.put(
        "by house",
        _ -> {
          if (a.order().placing()) {
            a.order().byHouse();
          }
        });
    k.put(
        "other side",
        _ -> {
          if (a.order().twoPasted()) {
            a.order().otherSideFirst();
          }
        });
    k.put("forget wishes", _ -> a.order().forgetWishes());
    k.put("print sheet", _ -> a.print().nextSheet());
    k.put("print over", _ -> a.print().turnOver());
    k.put("foil", by -> a.print().foil(by));
    k.put("wipe", _ -> a.print().wipe());
    k.put("iron", _ -> a.heat().turn());
    k.put("heat sheet", _ -> a.heat().nextSheet());
    k.put("brief", _ -> a.look().brief());
    k.put("look sheet", _ -> a.look().nextSheet());
    k.put("rest of part", _ -> a.look().restOfPart());
    k.put("defect", by -> a.look().defect(DefectKind.values()[by + 2]));
    k.put("mend", _ -> a.look().mend());
    k.put("open loop", _ -> a.beep().openLoop());
    k.put("strike", _ -> a.desk().strikeLast());
    return k;
  }

  private static StageModel here(All a, StageModel[] last) {
    last[0] = a.desk().current().orElse(last[0]);
    return last[0];
  }

  /// What holds whatever was pressed.
  private static void whole(All all, List<String> pressed) {
    String after = " after " + pressed.subList(Math.max(0, pressed.size() - 6), pressed.size());
    sensible(all.desk().noticeProperty().get(), after);
    all.byStage()
        .forEach((stage, m) -> {
          assertEquals(m.troubleProperty().get(), "", stage.key() + after);
          sensible(m.primaryWords(), after);
          sensible(m.faultLine(), after);
          sensible(m.readingLine(), after);
          said(m.marginProperty().get()).forEach(s -> sensible(s, stage.key() + after));
        });
    var kit = all.kit().shownProperty().get();
    int line = all.kit().selectedProperty().get();
    assertTrue(line >= 0 && line < Math.max(1, kit.lines().size()), "kit line " + line + after);
    assertTrue(kit.day() >= 0 && kit.day() < kit.days().size(), after);
    var order = all.order().shownProperty().get();
    int steps = order.work().plan().order().steps().size();
    assertTrue(order.step().number() >= 1 && order.step().number() <= steps, after);
    assertTrue(order.doneSteps() >= 0 && order.doneSteps() <= steps, after);
    assertTrue(order.minutes() >= 0, after);
    var look = all.look().shownProperty().get();
    if (look != null) {
      assertTrue(look.at() < Math.max(1, look.stops().size()), after);
      assertTrue(look.coverage() >= 0 && look.coverage() <= 1 + 1e-9, after);
    }
    var heat = all.heat().shownProperty().get();
    if (heat != null && !heat.pins().isEmpty()) {
      assertTrue(heat.pin() < heat.pins().size(), after);
    }
    var beep = all.beep().shownProperty().get();
    if (beep != null) {
      assertTrue(beep.guardsMade() <= beep.guards(), after);
    }
    assertFalse(all.power().live(), "nothing of this switches anything on" + after);
  }

  private static List<String> said(Margin m) {
    List<String> all = new ArrayList<>();
    m.notes()
        .forEach(n -> {
          all.add(n.title());
          all.addAll(n.lines());
        });
    m.sheet()
        .ifPresent(w -> {
          all.add(w.title());
          w.verdict().ifPresent(v -> all.add(v.toString()));
          w.lines().forEach(l -> all.add(l.symbol() + " " + l.formula()));
          all.addAll(w.assumptions());
          all.addAll(w.cautions());
          all.addAll(w.sources());
        });
    return all;
  }

  private static void sensible(String said, String where) {
    assertFalse(NONSENSE.matcher(said).find(), "'" + said + "' " + where);
  }

  /// 256 lamps are one step of 16 rows: each row is an entry, what is placed stays placed, and the
  /// rest is done at once where the maker wants it.
  @Test
  public void equalPartsAreWalkedByRows() throws Exception {
    Path file = Desks.file();
    All all = open(file, "panel", "stencil-plate");
    try {
      all.desk().navigation().goTo(Stage.ORDER);
      OrderModel order = all.order();
      all.desk().log(List.of(new Entry.Override("paste", "the shelf is not kept")));
      for (int i = 0; i < 12 && order.shownProperty().get().step().parts().size() < 200; i++) {
        order.primary();
      }
      var shown = order.shownProperty().get();
      assertEquals(shown.step().parts().size(), 256);
      assertEquals(order.primaryWords(), "row done");
      assertTrue(order.byRows());
      assertEquals(shown.inHand().size(), 16);
      assertTrue(shown.detail().startsWith("row 1 of 16, 16 of 256, from the"), shown.detail());
      Set<String> first = shown.inHand();
      double row = shown.expected();
      order.primary();
      shown = order.shownProperty().get();
      assertTrue(shown.placed().containsAll(first));
      assertTrue(shown.detail().startsWith("row 2 of 16"), shown.detail());
      assertTrue(java.util.Collections.disjoint(shown.inHand(), first));
      assertEquals(shown.expected(), row, 1e-9);
      assertFalse(shown.stepDone());
      order.wholeStep();
      Entry.StepDone rest =
          (Entry.StepDone) all.desk().work().orElseThrow().log().getLast().entry();
      assertEquals(rest.parts().size(), 240, "what was placed is not placed again");
      assertFalse(order.shownProperty().get().step().parts().size() > 200, "the next step");
    } finally {
      all.close();
    }
  }

  @Test
  public void whatTheHouseFitsAndWhichSideIsFirstAreSaidByKey() throws Exception {
    All all = open(Desks.file(), "cell", "stencil-plate");
    try {
      all.desk().navigation().goTo(Stage.ORDER);
      OrderModel order = all.order();
      assertEquals(order.shownProperty().get().step().side(), Side.SECOND, "the lower side");
      order.otherSideFirst();
      assertEquals(order.shownProperty().get().step().side(), Side.FIRST);
      order.move(1);
      String part = order.shownProperty().get().step().parts().getFirst();
      order.byHouse();
      var steps = all.desk().work().orElseThrow().plan().order().steps();
      assertEquals(steps.getFirst().action(), Step.Action.ARRIVE);
      assertEquals(steps.getFirst().parts(), List.of(part));
      order.byHouse();
      assertTrue(
          all.desk().work().orElseThrow().plan().order().steps().stream()
              .noneMatch(s -> s.action() == Step.Action.ARRIVE));
    } finally {
      all.close();
    }
  }

  /// The shield has no place for a stencil: nothing is printed or melted, everything is soldered.
  @Test
  public void anIronOnlyShieldIsSolderedPartByPart() throws Exception {
    All all = open(Desks.file(), "shield", "iron");
    try {
      var order = all.desk().work().orElseThrow().plan().order();
      assertTrue(
          order.steps().stream().noneMatch(s -> s.toString().contains("reflow")),
          order.steps().toString());
      all.desk().navigation().goTo(Stage.HEAT);
      var heat = all.heat().shownProperty().get();
      assertTrue(heat.iron());
      assertTrue(heat.part().isPresent());
      assertEquals(heat.pins().size(), pinsOf(all, heat.part().get().reference()));
      all.heat().move(500);
      heat = all.heat().shownProperty().get();
      assertEquals(heat.pins().size(), pinsOf(all, heat.part().get().reference()));
      assertEquals(all.heat().primaryWords(), "next pin");
    } finally {
      all.close();
    }
  }

  private static long pinsOf(All all, String part) {
    return all.desk().work().orElseThrow().plan().revision().jointsOf(part).stream()
        .map(j -> j.pin())
        .distinct()
        .count();
  }

  /// A panel of 256 equal parts: the kit has one line for them, the order places them all, and the
  /// walk with the loupe comes to each.
  @Test
  public void aPanelOfHundredsIsOneLineAndEveryPartOnce() throws Exception {
    All all = open(Desks.file(), "panel", "stencil-plate");
    try {
      var line =
          all.kit().shownProperty().get().kit().lines().stream()
              .filter(l -> l.code().equals("LEDW06"))
              .findFirst()
              .orElseThrow();
      assertEquals(line.perBoard(), 256);
      var order = all.desk().work().orElseThrow().plan().order();
      List<String> placed = order.steps().stream().flatMap(s -> s.parts().stream()).toList();
      assertEquals(placed.size(), placed.stream().distinct().count());
      assertEquals(placed.stream().filter(p -> p.matches("D\\d+")).count(), 256);
      all.desk().navigation().goTo(Stage.LOOK);
      var look = all.look().shownProperty().get();
      int joints = all.desk().work().orElseThrow().plan().revision().joints().size();
      assertEquals(look.stops().size() + look.hidden().size(), joints);
    } finally {
      all.close();
    }
  }

  /// A board with parts on both sides and a cell: the second side has its own steps, and the cell
  /// is a rail that nobody said anything about.
  @Test
  public void twoSidesAndACell() throws Exception {
    All all = open(Desks.file(), "cell", "stencil-plate");
    try {
      var plan = all.desk().work().orElseThrow().plan();
      for (String part : List.of("U4", "C4", "R5")) {
        var step =
            plan.order().steps().stream()
                .filter(s -> s.parts().contains(part))
                .findFirst()
                .orElseThrow();
        assertEquals(step.side().key(), "second", part);
      }
      assertTrue(plan.ladder().rail("VBAT").isPresent());
      assertTrue(
          plan.ladder().toString().contains("VBAT"), "what was guessed of the cell can be seen");
      all.desk().navigation().goTo(Stage.POWER);
      assertEquals(all.power().primaryWords(), "", "not before the beeper");
    } finally {
      all.close();
    }
  }
}
