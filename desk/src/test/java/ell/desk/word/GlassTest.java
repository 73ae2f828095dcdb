package ell.desk.word;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertNull;

import ell.desk.help.Topic;
import ell.work.word.Language;
import javafx.beans.property.SimpleStringProperty;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import javafx.scene.text.Text;
import javafx.scene.text.TextFlow;
import org.testfx.api.FxRobot;
import org.testfx.api.FxToolkit;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/// What the glass follows, and what it leaves.
public class GlassTest {
  private FxRobot robot;

  @BeforeMethod
  public void toolkit() throws Exception {
    FxToolkit.registerPrimaryStage();
    robot = new FxRobot();
  }

  @AfterMethod(alwaysRun = true)
  public void english() {
    robot.interact(() -> Tongue.speak(Language.ENGLISH));
  }

  @Test
  public void everythingThatIsPutInIsFollowed() {
    robot.interact(() -> {
      VBox root = new VBox();
      Glass.over(root);
      Label label = new Label("Rack");
      label.setTooltip(new Tooltip("fault"));
      Button button = new Button("Open it");
      TextField field = new TextField("Rack");
      field.setPromptText("note");
      field.setAccessibleText("password");
      Text run = new Text("mended");
      root.getChildren().addAll(label, new HBox(button, field), new TextFlow(run));
      Tongue.speak(Language.GERMAN);
      assertEquals(label.getText(), "Gestell");
      assertEquals(label.getTooltip().getText(), "Fehler");
      assertEquals(button.getText(), "Öffnen");
      assertEquals(field.getPromptText(), "Notiz");
      assertEquals(field.getAccessibleText(), "Passwort");
      assertEquals(field.getText(), "Rack", "what is typed is never touched");
      assertEquals(run.getText(), "geheilt");
      // what is said later, and what comes later
      label.setText("step 3 of 7");
      assertEquals(label.getText(), "Schritt 3 von 7");
      Label late = new Label("waiting");
      button.setGraphic(late);
      assertEquals(late.getText(), "wartet");
      Tongue.speak(Language.FRENCH);
      assertEquals(label.getText(), "étape 3 sur 7", "from what was said, not from what was shown");
      assertEquals(late.getText(), "en attente");
      Tongue.speak(Language.ENGLISH);
      assertEquals(label.getText(), "step 3 of 7");
      assertEquals(field.getAccessibleText(), "password");
    });
  }

  @Test
  public void whatIsLeftIsLeft() {
    robot.interact(() -> {
      VBox root = new VBox();
      VBox left = new VBox(new Label("waiting"));
      Glass.leave(left);
      Label bound = new Label();
      SimpleStringProperty source = new SimpleStringProperty("waiting");
      bound.textProperty().bind(source);
      Label empty = new Label(null);
      root.getChildren().addAll(left, bound, empty);
      Glass.over(root);
      Tongue.speak(Language.GERMAN);
      assertEquals(((Label) left.getChildren().getFirst()).getText(), "waiting");
      assertEquals(bound.getText(), "waiting", "a text that is bound shows what it is bound to");
      source.set("done");
      assertEquals(bound.getText(), "done");
      assertNull(empty.getText());
    });
  }

  /// Help is found by what was said, whatever language it is shown in.
  @Test
  public void helpAsksForWhatWasSaid() {
    robot.interact(() -> {
      Button b = new Button("x");
      b.setAccessibleText("password");
      VBox root = new VBox(b);
      Topic.mark(root, "many-benches");
      Glass.over(root);
      Tongue.speak(Language.SPANISH);
      assertEquals(b.getAccessibleText(), "contraseña");
      Topic t = Topic.of(b, "beep", "selected");
      assertEquals(t.page(), "many-benches");
      assertEquals(t.words(), "password");
      assertEquals(Topic.of(new Label(), "beep", "selected"), new Topic("beep", "selected"));
      assertEquals(Topic.of(null, "beep", "selected"), new Topic("beep", "selected"));
    });
  }
}
