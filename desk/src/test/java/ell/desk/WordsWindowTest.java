package ell.desk;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import ell.core.entry.Entry;
import ell.core.rack.Stage;
import ell.desk.key.Command;
import ell.desk.shell.Margin;
import ell.desk.word.Tongue;
import ell.work.word.Language;
import ell.work.word.Words;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.ConcurrentHashMap;
import java.util.regex.Pattern;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.control.Label;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import org.testfx.util.WaitForAsyncUtils;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// The window in every language: what is fixed in it is translated, what is computed is in good
/// part, numbers and dates are the locale's, and nothing of that reaches the book or a file.
public class WordsWindowTest extends WindowCase {
  private static final Pattern WORD = Pattern.compile("\\p{Ll}{3}");

  @AfterMethod(alwaysRun = true)
  public void english() {
    Tongue.listen(null);
    javafx.application.Platform.runLater(() -> Tongue.speak(Language.ENGLISH));
    WaitForAsyncUtils.waitForFxEvents();
  }

  @DataProvider
  Object[][] languages() {
    return new Object[][] {{Language.GERMAN}, {Language.FRENCH}, {Language.SPANISH}};
  }

  private void speak(Language l) {
    robot.interact(() -> Tongue.speak(l));
    WaitForAsyncUtils.waitForFxEvents();
  }

  private static void texts(Node n, Set<String> all) {
    if (!n.isVisible() || n instanceof TextInputControl) {
      return;
    }
    if (n instanceof Label l && l.getText() != null && !l.getText().isBlank()) {
      all.add(l.getText());
    }
    if (n instanceof Parent p) {
      p.getChildrenUnmodifiable().forEach(c -> texts(c, all));
    }
  }

  /// Every key of every stage, the heads, the rule and the rack.
  @Test(dataProvider = "languages")
  public void whatIsFixedIsTranslated(Language l) throws Exception {
    demo();
    speak(l);
    Words w = Words.in(l);
    List<String> missing = new ArrayList<>();
    for (Command c : window.commands()) {
      for (String s : List.of(c.group(), c.words().get())) {
        if (WORD.matcher(s).find() && w.shown(s).equals(s) && !w.has(s)) {
          missing.add(c.id() + ": " + s);
        }
      }
    }
    assertTrue(missing.isEmpty(), missing.size() + ":\n" + String.join("\n", missing));
    for (Stage s : Stage.ALL) {
      if (s.built()) {
        String now = robot.lookup("#stage-" + s.key()).queryAs(Label.class).getText();
        assertEquals(now, Words.table(l).get(s.title()));
      }
    }
  }

  /// What may hurt is said in every language: every caution of every step of the demo's order, and
  /// of every stage.
  @Test(dataProvider = "languages")
  public void everyCautionIsTranslated(Language l) throws Exception {
    demo();
    Words w = Words.in(l);
    Set<String> missing = new TreeSet<>();
    int said = 0;
    List<String> all = new ArrayList<>();
    work().plan().order().steps().forEach(s -> all.addAll(s.cautions()));
    for (Stage s : Stage.ALL) {
      if (s.built()) {
        robot.interact(() -> desk.navigation().goTo(s));
        until("the stage", () -> desk.navigation().at(s));
        WaitForAsyncUtils.waitForFxEvents();
        window.station(s).model().marginProperty().get().notes().stream()
            .filter(n -> n.kind() == Margin.Kind.CARE)
            .forEach(n -> all.addAll(n.lines()));
      }
    }
    for (String caution : all) {
      for (String sentence : caution.split("(?<=\\.) |; ")) {
        said++;
        if (!w.has(sentence.replaceFirst("\\.$", ""))) {
          missing.add(sentence);
        }
      }
    }
    assertTrue(said > 20, "cautions " + said);
    assertTrue(missing.isEmpty(), String.join("\n", missing));
  }

  /// How much of all that is said over every stage of the demo has a translation. The rest is shown
  /// in English: sentences that a calculation puts together.
  @Test
  public void mostOfWhatIsSaidIsTranslated() throws Exception {
    Map<String, Integer> heard = new ConcurrentHashMap<>();
    Tongue.listen(s -> heard.merge(s, 1, Integer::sum));
    demo();
    for (Stage s : Stage.ALL) {
      if (s.built()) {
        robot.interact(() -> desk.navigation().goTo(s));
        until("the stage", () -> desk.navigation().at(s));
        WaitForAsyncUtils.waitForFxEvents();
      }
    }
    Tongue.listen(null);
    Words de = Words.in(Language.GERMAN);
    Set<String> said = new HashSet<>();
    Set<String> left = new TreeSet<>();
    for (String s : heard.keySet()) {
      for (String piece : s.split(" · |; |\n|\\. ")) {
        if (WORD.matcher(piece).find()) {
          said.add(piece);
          if (de.shown(piece).equals(de.figures(piece)) && !de.has(piece.strip())) {
            left.add(piece);
          }
        }
      }
    }
    Files.write(Path.of("target", "words-left.txt"), left);
    double share = 1 - left.size() / (double) said.size();
    assertTrue(said.size() > 400, "heard " + said.size());
    assertTrue(share > 0.7, "translated " + share + " of " + said.size());
  }

  /// By key, at once, over everything that is shown, and back again.
  @Test
  public void theLanguageChangesAtOnceAndComesBack() throws Exception {
    demo();
    robot.interact(() -> desk.navigation().goTo(Stage.BEEP));
    WaitForAsyncUtils.waitForFxEvents();
    Set<String> before = new TreeSet<>();
    robot.interact(() -> texts(window.root(), before));
    assertTrue(shows("Rack"));
    robot.push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.L);
    assertEquals(Tongue.language(), Language.GERMAN);
    assertTrue(shows("Gestell") && !shows("Rack"), "the rack");
    assertTrue(shows("Vorsicht"), "cautions too");
    robot.push(KeyCode.SHIFT, KeyCode.SLASH);
    until("the keys", () -> shows("eins weiter"));
    robot.type(KeyCode.ESCAPE);
    for (Language l : List.of(Language.FRENCH, Language.SPANISH, Language.ENGLISH)) {
      robot.push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.L);
      assertEquals(Tongue.language(), l);
    }
    WaitForAsyncUtils.waitForFxEvents();
    Set<String> after = new TreeSet<>();
    robot.interact(() -> texts(window.root(), after));
    before.removeIf(s -> s.startsWith("language") || s.contains("keys"));
    after.removeIf(s -> s.startsWith("language") || s.contains("keys"));
    assertEquals(after, before);
  }

  /// A reading is typed and shown with a comma; the book has it as ever.
  @Test
  public void aCommaIsTypedAndTheBookHasTheNumber() throws Exception {
    demo();
    speak(Language.GERMAN);
    robot.interact(() -> desk.select("03"));
    until("the board", () -> work().board().equals("03"));
    robot.interact(() -> desk.tape().begin("3V3 3,312"));
    until("it is understood", () -> desk.tape().readyProperty().get());
    robot.type(KeyCode.ENTER);
    until("it is logged", () -> work().log().getLast().entry() instanceof Entry.Reading);
    Entry.Reading r = (Entry.Reading) work().log().getLast().entry();
    assertEquals(r.value(), 3.312, 1e-12);
    until("it is shown", () -> shows("3,312"));
    // what means something as it is typed is never touched
    robot.interact(() -> desk.tape().begin("note 3,3 is too much"));
    until("a note", () -> desk.tape().readyProperty().get());
    robot.type(KeyCode.ENTER);
    until("it is kept", () -> work().log().getLast().entry() instanceof Entry.Note);
    assertEquals(((Entry.Note) work().log().getLast().entry()).text(), "3,3 is too much");
  }

  /// A record that is written while the window is German is the record that is written otherwise.
  @Test
  public void filesAreTheSameInEveryLanguage() throws Exception {
    demo();
    Path folder = Files.createTempDirectory("words");
    List<String> sizes = new ArrayList<>();
    for (Language l : List.of(Language.ENGLISH, Language.GERMAN)) {
      speak(l);
      Path to = folder.resolve(l.key() + ".pdf");
      files.record = Optional.of(to);
      robot.push(KeyCode.CONTROL, KeyCode.P);
      until(
          "the record",
          () ->
              Files.exists(to)
                  && desk.noticeProperty().get().contains(to.getFileName().toString()));
      sizes.add(text(to));
    }
    assertEquals(sizes.get(1), sizes.get(0));
    assertTrue(sizes.get(0).contains("Rails"), "words of the record");
  }

  private static String text(Path pdf) throws Exception {
    try (var d = org.apache.pdfbox.Loader.loadPDF(pdf.toFile())) {
      return new org.apache.pdfbox.text.PDFTextStripper().getText(d);
    }
  }
}
