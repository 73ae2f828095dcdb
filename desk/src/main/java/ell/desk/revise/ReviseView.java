package ell.desk.revise;

import ell.core.board.Side;
import ell.core.order.OrderFacts;
import ell.core.revise.BodgeDrawing;
import ell.core.revise.BodgeMatrix;
import ell.core.revise.BodgeStep;
import ell.core.revise.Ends;
import ell.core.revise.Erratum;
import ell.core.revise.Stand;
import ell.desk.mark.BoardDrawing;
import ell.desk.shell.DeskModel;
import ell.desk.shell.HandCard;
import ell.desk.shell.Heads;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;

/// Errata against boards, beside it the bodge on the board in ink and what to do about the boards
/// that are left; or the list for the next revision; or what the bench has learned.
public final class ReviseView extends VBox {
  private static final double CLOSE = 2.4;
  private static final double SHARE = 0.4;

  private final ReviseModel model;
  private final Heads heads = new Heads();
  private final MatrixPicture matrix = new MatrixPicture();
  private final BoardDrawing board = new BoardDrawing();
  private final WayPicture way = new WayPicture();
  private final ChangesPicture changes = new ChangesPicture();
  private final LearnedPicture learned = new LearnedPicture();
  private final HandCard card = new HandCard();
  private final HBox boards;

  /// A view of a model.
  ///
  /// @param big whether it fills the window, as a card of the bodge: the board and its steps alone
  public ReviseView(DeskModel desk, ReviseModel model, boolean big) {
    this.model = model;
    getStyleClass().add("stage");
    if (big) {
      getStyleClass().add("big");
      card.getStyleClass().add("big");
    }
    for (var p : new ell.desk.mark.Picture[] {matrix, board, way, changes, learned}) {
      p.nightProperty().bind(desk.nightProperty());
    }
    matrix.setId("revise-boards");
    board.setId("revise-bodge");
    way.setId("revise-way");
    changes.setId("revise-changes");
    learned.setId("revise-learned");
    matrix.onCrossing(model::turnTo);
    changes.onLine(model::turnToLine);
    HBox.setHgrow(matrix, Priority.ALWAYS);
    board.setMinSize(200, 110);
    board.zoom(CLOSE); // a bodge is small on a board
    way.setMinSize(200, 120);
    VBox beside = big ? new VBox() : new VBox(10, board, way);
    VBox.setVgrow(board, Priority.ALWAYS);
    VBox.setVgrow(way, Priority.ALWAYS);
    board.setPrefHeight(200);
    way.setPrefHeight(190);
    beside.setMinWidth(200);
    beside
        .prefWidthProperty()
        .bind(widthProperty().multiply(SHARE)); // on a small screen the boards come first
    beside.setMaxWidth(420);
    HBox.setHgrow(board, Priority.ALWAYS);
    boards = big ? new HBox(board) : new HBox(16, matrix, beside);
    StackPane faces = new StackPane(boards, changes, learned);
    VBox.setVgrow(faces, Priority.ALWAYS);
    getChildren().addAll(heads, faces, card);
    model.shownProperty().addListener((_, _, s) -> fill(s));
    model.busyProperty().addListener((_, _, _) -> fill(model.shownProperty().get()));
    fill(model.shownProperty().get());
  }

  /// Zooms the board by a factor.
  public void zoom(double factor) {
    board.zoom(factor);
  }

  private void fill(ReviseModel.Shown s) {
    boolean busy = model.busyProperty().get();
    boards.setVisible(s == null || s.page() == ReviseModel.Page.BOARDS);
    changes.setVisible(s != null && s.page() == ReviseModel.Page.CHANGES);
    learned.setVisible(s != null && s.page() == ReviseModel.Page.LEARNED);
    matrix.show(s);
    changes.show(s);
    learned.show(s);
    if (s == null) {
      heads.show("Revise", busy ? "The books are being read." : "No board is in hand.");
      card.nothing("");
      way.show(Optional.empty(), Optional.empty());
      return;
    }
    way.show(s.answer().way(), s.answer().question());
    switch (s.page()) {
      case BOARDS -> boards(s);
      case CHANGES -> list(s);
      case LEARNED -> {
        heads.show(
            "Revise \u00b7 what the bench has learned",
            "Revisions held against each other, boards tried together, and what goes wrong over all"
                + " designs.");
        card.show("", "", "", "L turns to errata and boards");
        card.around(0, 0, _ -> "");
      }
    }
  }

  private void boards(ReviseModel.Shown s) {
    BodgeMatrix m = s.answer().mistakes();
    int need = (int) m.boards().stream().filter(b -> !b.needed().isEmpty()).count();
    heads.show(
        "Revise \u00b7 "
            + m.errata().size()
            + (m.errata().size() == 1 ? " mistake, " : " mistakes, ")
            + need
            + (need == 1 ? " board to mend" : " boards to mend"),
        s.answer()
            .way()
            .map(w ->
                String.format(
                    Locale.ROOT,
                    "%.0f min of work are left; cheapest is to %s: %s.",
                    s.answer().order().minutes(),
                    w.choice().name(),
                    w.turns()))
            .orElse(
                m.errata().isEmpty()
                    ? "What boards teach is written down here, so that the next order knows it."
                    : "No board of rev " + s.answer().revision() + " is left to be mended."));
    drawing(s);
    if (s.erratum().isEmpty() || s.board().isEmpty()) {
      card.nothing(
          m.errata().isEmpty()
              ? "Shift+E: from what was found last; on the tape: erratum WORDS, or wish WORDS"
              : "No board of its revisions was made yet.");
      return;
    }
    Erratum e = s.erratum().get();
    Stand now = s.stand().orElseThrow();
    card.show(
        e.id(),
        s.board().get().board() + ": " + now.state().words(),
        e.bodge().isEmpty()
            ? "nobody has said how it is mended: key M says the steps"
            : String.join("; ", steps(s, e)),
        now.why()
            + (e.proposed() && now.state() == Stand.State.NEEDED
                ? " \u00b7 the bodge is proposed: key M says it otherwise"
                : ""));
    List<Erratum> all = m.errata();
    card.around(s.row(), all.size(), i -> all.get(i).id() + "  " + all.get(i).title());
  }

  /// The steps with the wire that they take.
  private static List<String> steps(ReviseModel.Shown s, Erratum e) {
    return e.bodge().stream()
        .map(x ->
            x.text()
                + Ends.wire(x, s.board().orElseThrow().revision(), s.answer().ladder())
                    .map(w ->
                        String.format(
                            Locale.ROOT, " (AWG %d, %.0f mm)", w.gauge(), 1000 * w.metres()))
                    .orElse(""))
        .toList();
  }

  private void drawing(ReviseModel.Shown s) {
    if (s.board().isEmpty()) {
      board.setVisible(false);
      return;
    }
    board.setVisible(true);
    BodgeMatrix.Row b = s.board().get();
    Set<String> hand = new LinkedHashSet<>();
    s.erratum().ifPresent(e -> hand.addAll(e.parts(b.revision())));
    board.show(b.revision(), Side.FIRST, OrderFacts.of(b.state()).placed(), hand, Set.of());
    board.bodge(s.erratum().map(e -> BodgeDrawing.marks(e, b.revision())));
  }

  private void list(ReviseModel.Shown s) {
    int items = s.answer().changes().size();
    heads.show(
        "Revise \u00b7 for the revision after " + s.answer().revision(),
        items
            + (items == 1 ? " item on the list" : " items on the list")
            + s.answer()
                .next()
                .map(n -> ", held against the files of revision " + n + ".")
                .orElse("; no later revision is brought in yet to hold it against."));
    if (s.item().isPresent()) {
      Erratum e = s.item().get();
      card.show(
          e.id(),
          e.title(),
          e.fixWords().isBlank()
              ? e.bodge().isEmpty()
                  ? "nobody has said what the next revision should have: key G says it"
                  : "should be as the bodge has it: "
                      + String.join("; ", e.bodge().stream().map(BodgeStep::text).toList())
              : "should: " + e.fixWords(),
          e.severity().key() + ": " + e.severity().words());
    } else if (s.suggestion().isPresent()) {
      card.show(
          "",
          s.suggestion().get().title(),
          "the books suggest it: " + s.suggestion().get().why(),
          "Space takes it into the list");
    } else {
      card.nothing("wish WORDS puts something on the list");
      return;
    }
    card.around(s.line(), items + s.suggestions().size(), i -> name(s, i));
  }

  private static String name(ReviseModel.Shown s, int i) {
    int items = s.answer().changes().size();
    return i < items
        ? s.answer().changes().get(i).id() + "  " + s.answer().changes().get(i).title()
        : "suggested: " + s.suggestions().get(i - items).title();
  }
}
