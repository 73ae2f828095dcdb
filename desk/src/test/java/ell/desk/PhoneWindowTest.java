package ell.desk;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import com.google.zxing.BinaryBitmap;
import com.google.zxing.RGBLuminanceSource;
import com.google.zxing.common.HybridBinarizer;
import com.google.zxing.qrcode.QRCodeReader;
import ell.desk.shell.Phone;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.util.Arrays;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import org.testng.annotations.Test;

/// Boards on a phone, begun and ended in the window: nothing listens before, the code lets in, and
/// nothing listens after.
public class PhoneWindowTest extends WindowCase {
  private static int status(URI at) throws Exception {
    try (HttpClient c = HttpClient.newHttpClient()) {
      return c.send(HttpRequest.newBuilder(at).build(), HttpResponse.BodyHandlers.discarding())
          .statusCode();
    }
  }

  private static int typed(URI at, String code) throws Exception {
    try (HttpClient c = HttpClient.newHttpClient()) {
      return c.send(
              HttpRequest.newBuilder(at.resolve("/code"))
                  .POST(HttpRequest.BodyPublishers.ofString("code=" + code.replace(" ", "+")))
                  .build(),
              HttpResponse.BodyHandlers.discarding())
          .statusCode();
    }
  }

  private void sheet() {
    robot.push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.P);
  }

  private Phone.On on() {
    return (Phone.On) desk.phone().stateProperty().get();
  }

  private boolean listens() {
    return desk.phone().stateProperty().get() instanceof Phone.On;
  }

  @Test
  public void begunReadAndEnded() throws Exception {
    demo();
    sheet();
    until("the sheet", () -> robot.lookup("#phone-sheet").tryQuery().isPresent());
    assertFalse(listens(), "nothing listens because a sheet is looked at");
    TextField address = node("#phone-address");
    robot.interact(() -> address.setText("192.0.2.99:1"));
    robot.type(KeyCode.ENTER);
    until(
        "an address that is none of this machine's",
        () -> this.<Label>node("#phone-problem").getText().contains("no address of this machine"));
    robot.interact(() -> address.setText("127.0.0.1:0"));
    robot.type(KeyCode.ENTER);
    until("it listens", this::listens);
    URI where = URI.create(on().where());
    assertEquals(this.<Label>node("#phone-where").getText(), where.toString());
    assertEquals(this.<Label>node("#phone-code").getText(), on().code());
    assertEquals(scanned(on().square()), where.toString(), "what a camera reads");
    assertEquals(status(where), 200);
    assertEquals(typed(where, on().code()), 303);
    robot.type(KeyCode.ESCAPE);
    assertTrue(listens(), "closing the sheet does not end it");
    assertTrue(shows("\non a phone"), "and the rule says so");
    sheet();
    until("the sheet again", () -> robot.lookup("#phone-end").tryQuery().isPresent());
    robot.type(KeyCode.SPACE);
    until("it is ended", () -> !listens());
    expectThrows(IOException.class, () -> status(where));
    assertFalse(shows("\non a phone"), "and the rule says it no more");
    robot.type(KeyCode.ESCAPE);
  }

  /// Another workspace is another matter: what was shared ends with the one that was open.
  @Test
  public void itEndsWithTheWorkspace() throws Exception {
    demo();
    robot.interact(() -> desk.phone().begin("127.0.0.1:0", java.util.Optional.of("03")));
    until("it listens", this::listens);
    URI where = URI.create(on().where());
    assertEquals(on().board().orElseThrow(), "03");
    demo();
    until("it is ended", () -> !listens());
    expectThrows(IOException.class, () -> status(where));
  }

  private static String scanned(boolean[][] square) throws Exception {
    int k = 4;
    int n = square.length * k;
    int[] dots = new int[n * n];
    Arrays.fill(dots, 0xFFFFFF);
    for (int y = 0; y < n; y++) {
      for (int x = 0; x < n; x++) {
        if (square[y / k][x / k]) {
          dots[y * n + x] = 0;
        }
      }
    }
    return new QRCodeReader()
        .decode(new BinaryBitmap(new HybridBinarizer(new RGBLuminanceSource(n, n, dots))))
        .getText();
  }
}
