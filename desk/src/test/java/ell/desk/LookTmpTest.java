package ell.desk;

import ell.core.rack.Stage;
import java.nio.file.Path;
import javafx.scene.input.KeyCode;
import org.testfx.util.WaitForAsyncUtils;
import org.testng.annotations.Test;

public class LookTmpTest extends WindowCase {
  void shot(String name) throws Exception {
    WaitForAsyncUtils.waitForFxEvents();
    Thread.sleep(700);
    WaitForAsyncUtils.waitForFxEvents();
    robot.interact(() -> {
      try {
        Pictures.write(Pictures.take(stage.getScene()), Path.of("/tmp/look/" + name + ".png"));
      } catch (Exception e) {
        throw new RuntimeException(e);
      }
    });
  }

  @Test
  public void look() throws Exception {
    demo();
    String board = System.getProperty("look.board", "07");
    robot.interact(() -> desk.select(board));
    for (String s : System.getProperty("look.stages", "PRINT").split(",")) {
      robot.interact(() -> desk.stageProperty().set(Stage.valueOf(s)));
      Thread.sleep(800);
      for (String k : System.getProperty("look.keys", "").split(",")) {
        if (!k.isEmpty()) robot.type(KeyCode.valueOf(k));
      }
      shot(s.toLowerCase());
    }
  }
}
