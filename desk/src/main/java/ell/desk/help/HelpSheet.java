package ell.desk.help;

import ell.desk.word.Glass;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.List;
import java.util.Optional;
import javafx.application.Platform;
import javafx.css.PseudoClass;
import javafx.geometry.Bounds;
import javafx.scene.control.Hyperlink;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/// A page of the help, at the passage that speaks of what was selected; beside it the words of the
/// trade that occur there, and a line to find anything else.
public final class HelpSheet extends VBox {
  private static final double PAGE = 600;
  private static final double SIDE = 300;
  private static final PseudoClass SOUGHT = PseudoClass.getPseudoClass("sought");
  private static final int MOST_FOUND = 8;

  private final Pages pages;
  private final Glossary glossary;
  private final Label title = new Label();
  private final Label about = new Label();
  private final VBox page = new VBox(12);
  private final ScrollPane scroll = new ScrollPane(page);
  private final VBox side = new VBox(8);
  private final TextField find = new TextField();
  private final Deque<Topic> before = new ArrayDeque<>();
  private Topic now;

  /// Help about something.
  public HelpSheet(Pages pages, Topic about) {
    this.pages = pages;
    this.glossary = new Glossary(pages.page("glossary").orElseThrow());
    getStyleClass().addAll("overlay", "help-sheet");
    setId("help-sheet");
    title.getStyleClass().add("sheet-title");
    title.setId("help-title");
    this.about.getStyleClass().add("sheet-line");
    this.about.setId("help-about");
    this.about.setWrapText(true);
    find.setId("help-find");
    find.setPromptText("find in all pages");
    find.setAccessibleText("find in all pages");
    find.textProperty().addListener((_, _, t) -> side(t));
    page.setPrefWidth(PAGE);
    // the pages are written in English, all of them or none
    Glass.leave(page);
    scroll.setId("help-page");
    scroll.setFitToWidth(true);
    scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
    scroll.setAccessibleText("the page");
    HBox.setHgrow(scroll, Priority.ALWAYS);
    side.setPrefWidth(SIDE);
    ScrollPane right = new ScrollPane(side);
    right.setFitToWidth(true);
    right.setFocusTraversable(false);
    right.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
    VBox rightSide = new VBox(10, find, right);
    VBox.setVgrow(right, Priority.ALWAYS);
    rightSide.setMinWidth(SIDE);
    rightSide.setPrefWidth(SIDE);
    HBox both = new HBox(24, scroll, rightSide);
    VBox.setVgrow(both, Priority.ALWAYS);
    Label keys = new Label("Tab to the ways · Backspace back · / finds · Esc closes");
    keys.getStyleClass().add("note-line");
    setSpacing(10);
    setPrefHeight(640);
    getChildren().addAll(title, this.about, both, keys);
    addEventHandler(KeyEvent.KEY_PRESSED, this::pressed);
    go(about);
  }

  private void pressed(KeyEvent e) {
    if (e.getTarget() == find) {
      if (e.getCode() == KeyCode.ENTER) {
        found(find.getText()).stream().findFirst().ifPresent(f -> to(f, find.getText()));
        e.consume();
      }
      return;
    }
    if (e.getCode() == KeyCode.BACK_SPACE && !before.isEmpty()) {
      now = null;
      go(before.pop());
      e.consume();
    } else if (e.getCode() == KeyCode.SLASH) {
      // the character itself is still to be typed
      Platform.runLater(find::requestFocus);
      e.consume();
    }
  }

  private void go(Topic to) {
    if (now != null) {
      before.push(now);
    }
    now = to;
    Pages.Page p = pages.page(to.page()).orElseGet(() -> pages.page("a-boards-life").orElseThrow());
    Optional<Finder.Found> best =
        to.words().isBlank() ? Optional.empty() : new Finder(List.of(p)).best(to.words());
    show(p, best.map(Finder.Found::at).orElse(-1));
    setAccessibleText("help: " + p.title());
    side(find.getText());
  }

  private void show(Pages.Page p, int sought) {
    title.setText(p.title());
    about.setText(now.words().isBlank() ? "" : "about: " + shortened(now.words()));
    about.setManaged(!about.getText().isEmpty());
    PassageNodes nodes = new PassageNodes(PAGE - 30, to -> go(new Topic(to, "")));
    page.getChildren().clear();
    Region at = null;
    for (int i = 0; i < p.passages().size(); i++) {
      if (i == 0 && p.passages().get(0).head()) {
        continue; // it is the title already
      }
      Region r = nodes.of(p.passages().get(i));
      r.getStyleClass().add("help-passage");
      if (i == sought) {
        r.pseudoClassStateChanged(SOUGHT, true);
        r.setId("help-sought");
        at = r;
      }
      page.getChildren().add(r);
    }
    scroll.setVvalue(0);
    if (at != null) {
      Region target = at;
      // where it lies is known only when the page has been laid out
      target
          .boundsInParentProperty()
          .addListener((_, _, _) -> Platform.runLater(() -> reveal(target)));
    }
  }

  private void reveal(Region r) {
    if (r.getParent() != page || scroll.getScene() == null) {
      return;
    }
    Bounds b = r.getBoundsInParent();
    double room = page.getHeight() - scroll.getViewportBounds().getHeight();
    scroll.setVvalue(room <= 0 ? 0 : Math.clamp((b.getMinY() - 20) / room, 0, 1));
  }

  private static String shortened(String words) {
    String one = words.replaceAll("\\s+", " ");
    return one.length() > 160 ? one.substring(0, 158) + " …" : one;
  }

  private List<Finder.Found> found(String text) {
    return text.isBlank()
        ? List.of()
        : pages.finder().of(text, 40).stream()
            .filter(f -> !f.passage().head())
            .limit(MOST_FOUND)
            .toList();
  }

  private void to(Finder.Found f, String words) {
    go(new Topic(f.page().name(), words));
    scroll.requestFocus();
  }

  /// What stands beside the page: what was found, else the words of the trade.
  private void side(String typed) {
    side.getChildren().clear();
    if (!typed.isBlank()) {
      List<Finder.Found> all = found(typed);
      side.getChildren().add(head(all.isEmpty() ? "No page speaks of this" : "Found"));
      for (Finder.Found f : all) {
        Hyperlink h = new Hyperlink(f.page().title() + " · " + f.passage().under());
        h.getStyleClass().add("help-way");
        h.setWrapText(true);
        h.setOnAction(_ -> to(f, typed));
        side.getChildren().addAll(h, line(shortened(f.passage().text())));
      }
      glossary.in(typed).forEach(this::meaning);
      return;
    }
    List<Glossary.Meaning> here = glossary.in(now.words());
    if (here.isEmpty()) {
      here =
          glossary.in(
              pages
                  .page(now.page())
                  .map(p -> p.passages().stream())
                  .map(s -> s.map(Pages.Passage::text).reduce("", (a, b) -> a + "\n" + b))
                  .orElse(""));
    }
    side.getChildren().add(head("Words of the trade"));
    here.forEach(this::meaning);
    side.getChildren().add(head("Pages"));
    for (Pages.Page p : pages.all()) {
      Hyperlink h = new Hyperlink(p.title());
      h.getStyleClass().add("help-way");
      h.setWrapText(true);
      h.setOnAction(_ -> go(new Topic(p.name(), "")));
      side.getChildren().add(h);
    }
  }

  private void meaning(Glossary.Meaning m) {
    side.getChildren().addAll(head(m.word()), line(m.means()));
  }

  private static Label head(String words) {
    Label l = new Label(words);
    l.getStyleClass().add("small-head");
    l.setWrapText(true);
    return l;
  }

  private static Label line(String words) {
    Label l = new Label(words);
    l.getStyleClass().add("sheet-line");
    l.setWrapText(true);
    l.setMinHeight(Region.USE_PREF_SIZE);
    return l;
  }
}
