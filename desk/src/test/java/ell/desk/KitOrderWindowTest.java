package ell.desk;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import ell.core.entry.Entry;
import ell.core.entry.StockChange;
import ell.core.kit.KitFacts;
import ell.core.kit.KitLine;
import ell.core.order.OrderFacts;
import ell.core.order.Wish;
import ell.core.print.PrintFacts;
import ell.core.rack.Stage;
import ell.work.order.Wishes;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.input.KeyCode;
import org.testng.annotations.Test;

/// The evening before and the build itself in the real window: a short part, a substitute, offers,
/// an override, an order as the maker wants it, steps by key, strikes.
public class KitOrderWindowTest extends WindowCase {
  private void toKit() throws Exception {
    demo();
    robot.type(KeyCode.F1);
    until("the kit", () -> desk.navigation().at(Stage.KIT) && shows("Kit ·"));
  }

  private KitLine line(String code) {
    return kit().shownProperty().get().kit().lines().stream()
        .filter(l -> l.code().equals(code))
        .findFirst()
        .orElseThrow();
  }

  /// Walks down until a line is selected; the margin shows its need.
  private void select(String code) throws Exception {
    for (int i = 0; i < 60 && !shows("Need of " + code); i++) {
      robot.type(KeyCode.DOWN);
    }
    assertTrue(shows("Need of " + code), code);
  }

  @Test(timeOut = 60_000)
  public void aShortPartIsCountedByTheNumberPad() throws Exception {
    toKit();
    assertTrue(shows("Wait"));
    assertTrue(shows("do not open the paste until the reflowed parts are all there"));
    Node stairs = node("#stairs");
    assertTrue(stairs.getAccessibleText().contains("5 from"), stairs.getAccessibleText());
    select("FLASH32");
    assertEquals(line("FLASH32").shortBy(), 1);
    robot.type(KeyCode.DIGIT4);
    until("the tape counts", () -> desk.tape().textProperty().get().equals("count FLASH32 4"));
    logsOne(() -> robot.type(KeyCode.ENTER));
    assertEquals(
        work().log().getLast().entry(),
        new Entry.Stock(StockChange.COUNTED, "FLASH32", "", 4, Optional.empty(), ""));
    until("it suffices", () -> line("FLASH32").shortBy() == 0);
    robot.push(KeyCode.CONTROL, KeyCode.Z);
    until("the count is struck", () -> line("FLASH32").shortBy() == 1);
    robot.type(KeyCode.M);
    assertTrue(shows("What a finished board weighs"));
    robot.type(KeyCode.M);
    assertTrue(shows("What a good board costs"));
    robot.type(KeyCode.M);
    assertTrue(shows("Need of FLASH32"));
  }

  @Test(timeOut = 60_000)
  public void whatADayCostsAndWhatToOrderForIt() throws Exception {
    toKit();
    Node stairs = node("#stairs");
    until("costs", () -> stairs.getAccessibleText().contains("costs"));
    robot.type(KeyCode.RIGHT);
    robot.type(KeyCode.RIGHT);
    robot.type(KeyCode.RIGHT);
    assertTrue(
        stairs.getAccessibleText().contains("turned to 2026-12-01"), stairs.getAccessibleText());
    robot.type(KeyCode.O);
    until("the order", () -> shows("What to order for 2026-12-01"));
    assertTrue(shows("total 69.10, nothing is cheaper"));
    Path out = Files.createTempDirectory("orders").resolve("here");
    files.folder = Optional.of(out);
    robot.type(KeyCode.W);
    until("the files", () -> desk.noticeProperty().get().startsWith("wrote 2 orders"));
    try (var list = Files.list(out)) {
      assertEquals(list.count(), 2);
    }
    // more offers: a seller who has everything at once
    Path offers = Files.createTempFile("offers", ".csv");
    Files.writeString(
        offers,
        "Seller,Code,Price,Stock,Days,Shipping\nNear,FLASH32,1,9,0,2\nNear,BUSDRV,1,9,0,2\n"
            + "Near,SOCK8,1,9,0,2\nNear,RADIO24,1,9,0,2\n");
    files.shelf = List.of(offers);
    robot.push(KeyCode.CONTROL, KeyCode.E);
    until("the offers", () -> desk.noticeProperty().get().contains("are kept"));
    until("costs of today", () -> stairs.getAccessibleText().contains("by 2026-11-25 costs 17.00"));
    Files.writeString(offers, "Seller,Code,Price,Days\nNear,FLASH32,soon,0\n");
    robot.push(KeyCode.CONTROL, KeyCode.E);
    until("the problem", () -> desk.noticeProperty().get().contains("line 2"));
    Path labels = Files.createTempDirectory("labels").resolve("labels.pdf");
    files.labels = Optional.of(labels);
    robot.push(KeyCode.CONTROL, KeyCode.L);
    until("the labels", () -> Files.isRegularFile(labels));
  }

  @Test(timeOut = 60_000)
  public void aSubstituteIsHeldAgainstTheCircuitAndFitted() throws Exception {
    toKit();
    robot.type(KeyCode.SPACE);
    select("XTAL12");
    robot.type(KeyCode.S);
    until("the first candidate", () -> shows("XTAL12B for Y1"));
    assertTrue(shows("every parameter that decides is within"));
    robot.type(KeyCode.S);
    until("the next", () -> shows("XTAL12C for Y1"));
    assertTrue(shows("verdict: out"));
    robot.type(KeyCode.I);
    assertEquals(desk.tape().textProperty().get(), "", "what is out is not offered to be fitted");
    robot.type(KeyCode.S);
    until("round again", () -> shows("XTAL12B for Y1"));
    robot.type(KeyCode.I);
    until("the line", () -> desk.tape().textProperty().get().equals("Y1 fitted with XTAL12B "));
    logsOne(() -> robot.type(KeyCode.ENTER));
    assertEquals(KitFacts.of(work().state()).fitted().get("Y1"), "XTAL12B");
  }

  @Test(timeOut = 60_000)
  public void thePasteStaysClosedUnlessItIsSaidWhy() throws Exception {
    toKit();
    board("12");
    robot.type(KeyCode.F2);
    until("the first step", () -> shows("Print paste"));
    int before = work().log().size();
    robot.type(KeyCode.SPACE);
    until("the reason", () -> desk.noticeProperty().get().contains("do not open the paste"));
    assertEquals(work().log().size(), before);
    until("the tape asks why", () -> desk.tape().textProperty().get().equals("override paste "));
    robot.write("three boards by hand");
    logsOne(() -> robot.type(KeyCode.ENTER));
    until("it is set aside", () -> work().state().overrides().containsKey("paste"));
    until("the tape is left", () -> desk.tape().textProperty().get().isEmpty());
    logs(2, () -> robot.type(KeyCode.SPACE));
    assertTrue(work().log().getLast().entry() instanceof Entry.StepDone);
    assertTrue(
        PrintFacts.of(work().state()).printed().contains("first"), "the step is the print too");
    robot.type(KeyCode.F1);
    until("the kit says so", () -> shows("the paste is opened though"));
  }

  @Test(timeOut = 60_000)
  public void theMakerReordersPinsAndForgets() throws Exception {
    demo();
    board("10");
    robot.type(KeyCode.F2);
    robot.type(KeyCode.RIGHT);
    until("the second step", () -> shows("place · 500 mA"));
    String first = work().plan().order().steps().get(1).parts().getFirst();
    robot.push(KeyCode.SHIFT, KeyCode.RIGHT);
    until("it comes later", () -> !work().plan().order().steps().get(1).parts().contains(first));
    assertTrue(work().plan().order().placing(first).orElseThrow().number() > 2);
    until("the wish is told", () -> shows("before " + first));
    // a chip under the module is wanted after the module: the rule that it breaks is shown
    robot.interact(() ->
        desk.act(w ->
            w.wishes().keep(work().plan(), Wishes.parse(work().plan(), List.of("M1 before J6")))));
    until("a broken rule", () -> !work().plan().order().loops().isEmpty());
    int at = work().plan().order().placing("M1").orElseThrow().number();
    for (int i = 0; i < 60 && !shows("plug in · RADIO"); i++) {
      robot.type(KeyCode.RIGHT);
    }
    assertTrue(shows("breaks a rule: J6 should come before M1"), "step " + at);
    assertTrue(shows("M1 before J6"));
    robot.push(KeyCode.SHIFT, KeyCode.BACK_SPACE);
    until("every wish is forgotten", () -> work().plan().order().loops().isEmpty());
    // by hand: the part leaves the paste
    for (int i = 0; i < 60 && !shows("place · 22u · IND-6060"); i++) {
      robot.type(KeyCode.LEFT);
    }
    robot.type(KeyCode.H);
    until("by hand", () -> !work().plan().order().inPaste().contains("L1"));
    robot.interact(() ->
        desk.act(w ->
            assertEquals(
                w.wishes().of(work().plan().revision(), work().plan().blocks()).getFirst().kind(),
                Wish.Kind.BY_HAND)));
  }

  @Test(timeOut = 60_000)
  public void oneStepOnSeveralBoardsAndBack() throws Exception {
    demo();
    board("10");
    robot.type(KeyCode.F2);
    until("the order", () -> shows("Order ·"));
    robot.type(KeyCode.A);
    until("the refusal", () -> desk.noticeProperty().get().contains("refused on 10, 11, 12"));
    assertTrue(work().log().isEmpty(), "the rule of the paste holds for a key over all boards too");
    robot.interact(() -> desk.tape().begin("override paste the crystals come tomorrow"));
    logsOne(() -> robot.type(KeyCode.ENTER));
    robot.type(KeyCode.A);
    until("done", () -> work().log().size() == 3);
    assertTrue(desk.noticeProperty().get().contains("10 11 12"), desk.noticeProperty().get());
    board("12");
    assertEquals(work().log().size(), 2, "the print and its step");
    robot.push(KeyCode.CONTROL, KeyCode.Z);
    until("struck", () -> OrderFacts.of(work().state()).actsDone().isEmpty());
    assertFalse(shows("3:00 of about"), "the clock of the step begins anew");
    robot.type(KeyCode.T);
    assertTrue(shows("Second side, drawn as one sees it"));
    robot.type(KeyCode.T);
    assertTrue(shows("First side."));
    robot.type(KeyCode.M);
    until("the two schools", () -> shows("All at once, or block by block"));
    robot.type(KeyCode.M);
    until("several boards", () -> shows("Several boards"));
    robot.type(KeyCode.B);
    until("big", () -> robot.lookup("#big").tryQuery().isPresent());
    assertTrue(shows("of about"));
    robot.type(KeyCode.ESCAPE);
    until("small", () -> robot.lookup("#big").tryQuery().isEmpty());
  }
}
