package ell.desk.look;

import ell.core.board.Side;
import ell.core.entry.BoardState;
import ell.core.look.DefectKind;
import ell.core.look.LookFacts;
import ell.core.look.Walk;
import ell.desk.shell.DeskModel;
import ell.desk.shell.Heads;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/// The joint under the lens, what a good one looks like, the keys of what can be wrong, and how
/// often it is.
public final class LookView extends VBox {
  private final Heads heads = new Heads();
  private final LensPicture lens = new LensPicture();
  private final SectionPicture section = new SectionPicture();
  private final ChartPicture chart = new ChartPicture();
  private final Label number = new Label();
  private final Label what = new Label();
  private final Label detail = new Label();
  private final Label wrong = new Label();

  /// A view of a model.
  public LookView(DeskModel desk, LookModel model) {
    getStyleClass().add("stage");
    lens.nightProperty().bind(desk.nightProperty());
    lens.setId("lens");
    section.nightProperty().bind(desk.nightProperty());
    chart.nightProperty().bind(desk.nightProperty());
    chart.setId("defect-chart");
    HBox.setHgrow(lens, Priority.ALWAYS);
    section.setMinWidth(168);
    section.setPrefWidth(168);
    section.setMaxHeight(190);
    HBox pictures = new HBox(16, lens, section);
    pictures.setMinHeight(0);
    VBox.setVgrow(pictures, Priority.ALWAYS);
    Label keys =
        new Label(
            LookModel.keyed().stream()
                .map(k -> k.letter() + " " + k.word())
                .collect(Collectors.joining(" · ")));
    keys.getStyleClass().add("sheet-line");
    keys.setWrapText(true);
    keys.setMinHeight(Region.USE_PREF_SIZE);
    number.getStyleClass().add("step-number");
    number.setMinWidth(Region.USE_PREF_SIZE);
    what.getStyleClass().add("step-what");
    what.setId("joint");
    detail.getStyleClass().add("step-detail");
    wrong.getStyleClass().add("step-broken");
    for (Label l : List.of(what, detail, wrong)) {
      l.setWrapText(true);
      l.setMinHeight(Region.USE_PREF_SIZE);
    }
    VBox card = new VBox(3, what, detail, wrong);
    HBox.setHgrow(card, Priority.ALWAYS);
    chart.setPrefSize(300, 120);
    chart.setMinHeight(118);
    HBox foot = new HBox(18, number, card, chart);
    foot.getStyleClass().add("step-card");
    getChildren().addAll(heads, pictures, keys, foot);
    model.shownProperty().addListener((_, _, s) -> fill(s));
    fill(model.shownProperty().get());
  }

  /// Zooms the drawing by a factor.
  public void zoom(double factor) {
    lens.zoom(factor);
  }

  private void fill(LookModel.Shown s) {
    if (s == null) {
      return;
    }
    lens.show(s);
    section.show(s);
    chart.show(s);
    heads.show(
        "Look · "
            + (s.loading()
                ? "planning the walk"
                : s.stops().isEmpty()
                    ? "nothing sits on board " + s.work().board() + " yet"
                    : s.done() + " of " + s.stops().size() + " joints told"),
        (s.brief()
                ? String.format(
                    Locale.ROOT,
                    "Short walk: these joints meet %.0f %% of the expected defects. ",
                    100 * s.coverage())
                : "The whole board, side by side, fine pitch first. ")
            + (s.hidden().isEmpty()
                ? "No joint is hidden."
                : s.hidden().size() + " joints are hidden under bodies and are not in it."));
    if (s.stop().isEmpty()) {
      number.setText("");
      what.setText("");
      detail.setText("");
      wrong.setText("");
      return;
    }
    Walk.Stop x = s.stop().get();
    number.setText(String.valueOf(s.at() + 1));
    what.setText(x.joint().place() + " · " + x.part().value());
    detail.setText(
        (x.side() == Side.SECOND ? "second side, as one sees it" : "first side")
            + " · net "
            + (x.joint().net().isEmpty() ? "none" : x.joint().net())
            + (LookFacts.of(s.work().state()).sawGood(x.joint().place()) ? " · seen, good" : "")
            + photographs(s, x));
    wrong.setText(
        s.findings().stream()
            .map(f -> "× " + f.place() + " " + f.what() + remedy(f))
            .collect(Collectors.joining("\n")));
  }

  private static String photographs(LookModel.Shown s, Walk.Stop x) {
    int n =
        LookFacts.of(s.work().state()).photos().getOrDefault(x.joint().place(), List.of()).size();
    return n == 0 ? "" : n == 1 ? " · 1 photograph" : " · " + n + " photographs";
  }

  private static String remedy(BoardState.Finding f) {
    return DefectKind.of(f.what()).map(k -> ": " + k.remedy()).orElse("");
  }
}
