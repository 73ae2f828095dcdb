package ell.desk;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertNotEquals;
import static org.testng.Assert.assertTrue;

import ell.core.board.Side;
import ell.core.entry.PasteLook;
import ell.core.heat.HeatFacts;
import ell.core.look.DefectKind;
import ell.core.look.LookFacts;
import ell.core.print.PrintFacts;
import ell.core.print.StencilCheck;
import ell.core.quantity.Verdict;
import ell.core.rack.Stage;
import ell.desk.heat.HeatModel;
import ell.desk.look.LookModel;
import ell.desk.print.PrintModel;
import ell.desk.shell.DeskModel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/// The models of Print, Heat and Look, without a toolkit: what the keys do to what is shown and to
/// the book.
public final class StageModelsTest {
  private DeskModel desk;
  private PrintModel print;
  private HeatModel heat;
  private LookModel look;

  @BeforeMethod
  public void open() throws Exception {
    desk = Desks.atOnce(Desks.clock());
    print = new PrintModel(desk);
    heat = new HeatModel(desk);
    look = new LookModel(desk);
    desk.add(Stage.PRINT, print);
    desk.add(Stage.HEAT, heat);
    desk.add(Stage.LOOK, look);
    desk.open(Desks.demo());
  }

  @AfterMethod(alwaysRun = true)
  public void close() {
    desk.close();
  }

  private void at(Stage stage, String board) {
    desk.navigation().stageProperty().set(stage);
    desk.select(board);
  }

  private int entries() {
    return desk.work().orElseThrow().log().size();
  }

  private PrintModel.Shown printed() {
    return print.shownProperty().get();
  }

  private static long out(PrintModel.Shown s) {
    return s.check().orElseThrow().lines().stream().filter(l -> l.verdict() == Verdict.OUT).count();
  }

  /// The thicker the foil, the more openings hold their paste back; both ends of the list hold.
  @Test
  public void aThickerFoilHoldsMorePasteBack() {
    at(Stage.PRINT, "10");
    print.foil(-100);
    long before = out(printed());
    Set<Double> foils = new HashSet<>();
    for (int i = 0; i < StencilCheck.FOILS.size(); i++) {
      foils.add(printed().check().orElseThrow().foil());
      assertTrue(out(printed()) >= before, "a thicker foil releases no more");
      before = out(printed());
      print.foil(1);
    }
    assertEquals(foils.size(), StencilCheck.FOILS.size());
    assertEquals(printed().check().orElseThrow().foil(), StencilCheck.FOILS.getLast());
    print.foil(100);
    assertEquals(printed().check().orElseThrow().foil(), StencilCheck.FOILS.getLast());
  }

  /// From part to part the worst comes first; from opening to opening each comes once.
  @Test
  public void theWorstOpeningComesFirst() {
    at(Stage.PRINT, "10");
    print.move(-1000);
    List<String> parts = new ArrayList<>();
    for (int i = 0; i < 200; i++) {
      String part = printed().line().orElseThrow().opening().part();
      if (parts.isEmpty() || !parts.getLast().equals(part)) {
        assertFalse(parts.contains(part), part + " comes a second time");
        parts.add(part);
      }
      print.move(1);
    }
    assertTrue(parts.size() > 20, parts.toString());
    print.select(0);
    Set<Integer> seen = new HashSet<>();
    int all = printed().check().orElseThrow().lines().size();
    for (int i = 0; i < all; i++) {
      seen.add(printed().selected());
      print.across(1);
    }
    assertEquals(seen.size(), all);
    print.across(-100_000);
    assertEquals(printed().selected(), 0);
  }

  @Test
  public void theOtherSideAndBack() {
    at(Stage.PRINT, "10");
    assertEquals(printed().side(), Side.FIRST);
    int first = printed().check().orElseThrow().lines().size();
    print.turnOver();
    assertEquals(printed().side(), Side.SECOND);
    assertNotEquals(printed().check().orElseThrow().lines().size(), first);
    assertTrue(print.primaryWords().contains("second side"), print.primaryWords());
    print.turnOver();
    assertEquals(printed().check().orElseThrow().lines().size(), first);
  }

  /// Before a side is printed nothing can be said of its paste; afterwards each pad can.
  @Test
  public void pasteIsToldOnceItIsPrinted() {
    at(Stage.PRINT, "10");
    int before = entries();
    assertFalse(print.canTell());
    print.looks(PasteLook.THIN);
    assertEquals(entries(), before);
    print.wipe();
    assertTrue(print.primaryWords().endsWith("foil wiped"), print.primaryWords());
    print.wipe();
    assertFalse(print.primaryWords().contains("wiped"), print.primaryWords());
    desk.act(w -> w.type("10", "override paste the parts come").orThrow());
    desk.act(w -> w.type("10", "jar PASTE-SAC3 open").orThrow());
    print.primary();
    assertTrue(
        PrintFacts.of(desk.work().orElseThrow().state()).printed().contains("first"),
        desk.noticeProperty().get());
    assertTrue(print.canTell());
    String place = printed().line().orElseThrow().opening().name();
    assertEquals(print.faultLine(), place + " paste ");
    print.looks(PasteLook.SMEARED);
    assertEquals(
        PrintFacts.of(desk.work().orElseThrow().state()).paste().get(place), PasteLook.SMEARED);
    assertEquals(print.jarLine(), "jar PASTE-SAC3 ");
  }

  /// Files that are no layer are refused in words, and nothing is kept.
  @Test
  public void whatIsNoLayerIsRefused() throws Exception {
    at(Stage.PRINT, "10");
    Path text = Files.createTempFile("no", ".txt");
    Files.writeString(text, "hello");
    int before = printed().check().orElseThrow().lines().size();
    print.take(List.of(text));
    assertTrue(desk.noticeProperty().get().contains("no layer"), desk.noticeProperty().get());
    Path bad = Files.createTempFile("bad", ".gbr");
    Files.writeString(bad, "%FSLAX36Y36*%\n%MOMM*%\nD10*\nX0Y0D03*\nM02*\n");
    Path named = bad.resolveSibling("paste-first.gbr");
    Files.copy(bad, named, java.nio.file.StandardCopyOption.REPLACE_EXISTING);
    print.take(List.of(named));
    assertTrue(
        desk.noticeProperty().get().contains("drawn with and not defined")
            || desk.noticeProperty().get().contains("no layer"),
        desk.noticeProperty().get());
    assertEquals(printed().check().orElseThrow().lines().size(), before, "the good one stays");
  }

  /// Runs of the plate: the latest first, each with its channels; the sheets go round.
  @Test
  public void runsOfThePlateAreWalked() {
    at(Stage.HEAT, "01");
    HeatModel.Shown s = heat.shownProperty().get();
    assertEquals(s.tracks().size(), 2);
    assertTrue(s.track().orElseThrow().own(), "the run of this board is in hand");
    heat.move(-5);
    assertEquals(heat.shownProperty().get().selected(), 0);
    heat.move(5);
    assertEquals(heat.shownProperty().get().selected(), 1);
    int channels = s.track().orElseThrow().check().channels().size();
    heat.across(100);
    assertEquals(heat.shownProperty().get().channel(), channels - 1);
    heat.across(-100);
    assertEquals(heat.shownProperty().get().channel(), 0);
    Set<String> titles = new HashSet<>();
    for (int i = 0; i < 3; i++) {
      heat.marginProperty().get().sheet().ifPresent(w -> titles.add(w.title()));
      heat.nextSheet();
    }
    assertEquals(titles.size(), 3, titles.toString());
    assertFalse(heat.live());
  }

  /// The iron's side: who wants most heat comes first, and each pin of a part once.
  @Test
  public void theIronsSideGoesFromTheHungriestPart() {
    at(Stage.HEAT, "08");
    heat.turn();
    HeatModel.Shown s = heat.shownProperty().get();
    assertTrue(s.iron());
    assertEquals(heat.primaryWords(), "next pin");
    String first = s.part().orElseThrow().reference();
    Set<String> pins = new HashSet<>();
    for (int i = 0; i < s.pins().size(); i++) {
      assertTrue(pins.add(heat.shownProperty().get().pins().get(i).toString()));
      assertEquals(heat.shownProperty().get().pin(), i);
      heat.primary();
    }
    assertEquals(heat.shownProperty().get().pin(), s.pins().size() - 1, "it stays at the last");
    heat.move(1);
    assertNotEquals(heat.shownProperty().get().part().orElseThrow().reference(), first);
    assertEquals(heat.shownProperty().get().pin(), 0);
    assertTrue(heat.faultLine().endsWith(" "));
    heat.turn();
    assertFalse(heat.shownProperty().get().iron());
  }

  @Test
  public void aRunIsTakenInAndCountsAsHeat() {
    at(Stage.HEAT, "08");
    int before = entries();
    heat.take(Desks.DEMO.resolve("plate-run-1.csv"));
    assertEquals(entries(), before + 1, desk.noticeProperty().get());
    assertEquals(HeatFacts.of(desk.work().orElseThrow().state()).runs().size(), 1);
    heat.take(Desks.DEMO.resolve("shelf.csv"));
    assertEquals(entries(), before + 1);
    assertTrue(desk.noticeProperty().get().contains("shelf.csv"), desk.noticeProperty().get());
  }

  /// The walk with the loupe: every joint that can be seen once, and the short walk covers its
  /// share of what goes wrong.
  @Test
  public void everyJointOnceAndAShortWalk() {
    at(Stage.LOOK, "05");
    LookModel.Shown s = look.shownProperty().get();
    Set<String> places = new HashSet<>();
    s.stops().forEach(stop -> assertTrue(places.add(stop.joint().place()), "twice"));
    look.brief();
    LookModel.Shown brief = look.shownProperty().get();
    assertTrue(brief.stops().size() < s.stops().size());
    assertTrue(brief.coverage() >= LookModel.SHARE - 1e-9, "covers " + brief.coverage());
    brief.stops().forEach(stop -> assertTrue(places.contains(stop.joint().place())));
    look.brief();
    assertEquals(look.shownProperty().get().stops().size(), s.stops().size());
  }

  @Test
  public void goodDefectiveAndMended() {
    at(Stage.LOOK, "05");
    String first = look.shownProperty().get().stop().orElseThrow().joint().place();
    assertEquals(look.primaryWords().isEmpty(), false);
    look.primary();
    assertTrue(LookFacts.of(desk.work().orElseThrow().state()).sawGood(first));
    String bad = look.shownProperty().get().stop().orElseThrow().joint().place();
    assertNotEquals(bad, first);
    look.defect(DefectKind.values()[0]);
    assertEquals(desk.work().orElseThrow().state().findings().getLast().place(), bad);
    look.across(-1);
    assertEquals(look.shownProperty().get().stop().orElseThrow().joint().place(), bad);
    assertTrue(look.canMend());
    assertFalse(look.shownProperty().get().findings().isEmpty());
    look.mend();
    assertTrue(
        desk.tape().textProperty().get().startsWith(bad + " "), desk.tape().textProperty().get());
    assertEquals(look.faultLine().isBlank(), false);
  }

  @Test
  public void theRestIsToldAtOnce() {
    at(Stage.LOOK, "05");
    int before = look.shownProperty().get().done();
    String part = look.shownProperty().get().stop().orElseThrow().joint().part();
    look.restOfPart();
    assertTrue(look.shownProperty().get().done() > before);
    look.restOfBoard();
    LookModel.Shown s = look.shownProperty().get();
    assertEquals(s.done(), s.stops().size());
    look.move(0);
    look.move(-10_000);
    assertTrue(look.shownProperty().get().at() >= 0, part);
  }
}
