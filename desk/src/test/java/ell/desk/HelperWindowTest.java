package ell.desk;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import ell.core.entry.Entry;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import org.testng.annotations.Test;

/// A helper goes through first power by keys, and is told one word.
public class HelperWindowTest extends WindowCase {
  private void say(String line) throws Exception {
    String board = work().board();
    logsOne(() -> robot.interact(() -> desk.act(w -> w.type(board, line).orThrow())));
  }

  private String word() {
    Label l = node("#told-word");
    return l.isVisible() && l.getParent().isVisible() ? l.getText() : "";
  }

  private void throughFirstPower() throws Exception {
    switchOn();
    int rails = work().plan().ladder().raised().size();
    for (int i = 0; i < rails; i++) {
      logsOne(() -> robot.type(KeyCode.SPACE));
    }
    robot.type(KeyCode.SPACE);
    until("off", () -> phase() == ell.desk.power.PowerModel.Phase.OFF);
  }

  @Test(timeOut = 120_000)
  public void aHelperIsToldOneWord() throws Exception {
    demo();
    board("08");
    robot.type(KeyCode.F6);
    robot.type(KeyCode.G);
    until("the guards of 08", this::guardsHold);
    throughFirstPower();
    assertEquals(word(), "", "the maker needs no word");
    board("07");
    robot.type(KeyCode.F7);
    say("hands Ben helper");
    until("what is next", () -> word().equals("LOOK"));
    until("the rules", () -> power().shownProperty().get().asked());
    assertTrue(power().primaryWords().isEmpty(), "he has not looked");
    int must = 5;
    logs(must, () -> robot.type(KeyCode.Y));
    assertTrue(work().log().getLast().entry() instanceof Entry.Stands);
    until("what is next", () -> word().equals("NEXT"));
    throughFirstPower();
    until("the word", () -> word().equals("GOOD"));
    assertFalse(
        work().log().stream()
            .anyMatch(l -> l.entry() instanceof Entry.Note n && n.text().startsWith("taken as so")),
        "he looked at all of it");
    say("U4.7 bridge to U4.8");
    until("the word", () -> word().equals("PUT ASIDE"));
    assertTrue(shows("U4.7 bridge"));
    until("the rules", () -> power().shownProperty().get().asked());
    assertTrue(power().primaryWords().isEmpty(), "it is the maker's");
    say("hands Ada");
    until("the maker is there", () -> word().isEmpty());
  }
}
