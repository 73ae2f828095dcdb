package ell.desk.print;

import static ell.core.quantity.EngineeringNumber.print;

import ell.core.entry.PasteLook;
import ell.core.print.Aperture;
import ell.core.print.JarClock;
import ell.core.print.PrintFacts;
import ell.core.print.PrintLog;
import ell.core.print.StencilCheck;
import ell.core.quantity.Limits;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import ell.core.rack.Standing.Mark;
import ell.desk.mark.LimitStrip;
import ell.desk.mark.MarkDot;
import ell.desk.mark.Marks;
import ell.desk.shell.DeskModel;
import ell.desk.shell.Heads;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/// The paste layer, the opening in hand with its two ratios, and what released worst and failed
/// most.
public final class PrintView extends VBox {
  private static final int ROWS = 5;

  private final DeskModel desk;
  private final Heads heads = new Heads();
  private final PastePicture picture = new PastePicture();
  private final Label key = new Label();
  private final Label name = new Label();
  private final Label told = new Label();
  private final Label advice = new Label();
  private final LimitStrip area = new LimitStrip();
  private final LimitStrip aspect = new LimitStrip();
  private final Label areaWords = new Label();
  private final Label aspectWords = new Label();
  private final VBox worst = new VBox(2);
  private final VBox failed = new VBox(2);

  /// A view of a model.
  public PrintView(DeskModel desk, PrintModel model) {
    this.desk = desk;
    getStyleClass().add("stage");
    picture.nightProperty().bind(desk.nightProperty());
    picture.setId("paste-picture");
    picture.onOpening(model::select);
    area.nightProperty().bind(desk.nightProperty());
    aspect.nightProperty().bind(desk.nightProperty());
    VBox.setVgrow(picture, Priority.ALWAYS);
    key.getStyleClass().add("sheet-line");
    name.getStyleClass().add("step-what");
    name.setId("opening");
    told.getStyleClass().add("step-detail");
    advice.getStyleClass().add("step-broken");
    for (Label l : List.of(told, advice)) {
      l.setWrapText(true);
      l.setMinHeight(Region.USE_PREF_SIZE);
    }
    areaWords.getStyleClass().add("around-line");
    aspectWords.getStyleClass().add("around-line");
    HBox strips = new HBox(22, new VBox(0, areaWords, area), new VBox(0, aspectWords, aspect));
    VBox card = new VBox(3, name, told, strips, advice);
    HBox.setHgrow(card, Priority.ALWAYS);
    card.setMinWidth(0);
    card.setPrefWidth(300);
    area.setPrefWidth(150);
    aspect.setPrefWidth(150);
    for (VBox box : List.of(worst, failed)) {
      box.getStyleClass().add("around");
      box.setMinWidth(104);
      box.setPrefWidth(box == worst ? 130 : 232);
      box.setMaxWidth(176);
    }
    HBox foot = new HBox(18, card, worst, failed);
    foot.getStyleClass().add("step-card");
    key.setMinWidth(0);
    foot.setMinWidth(0);
    getChildren().addAll(heads, picture, key, foot);
    model.shownProperty().addListener((_, _, s) -> fill(s));
    fill(model.shownProperty().get());
  }

  /// Zooms the drawing by a factor.
  public void zoom(double factor) {
    picture.zoom(factor);
  }

  private void fill(PrintModel.Shown s) {
    if (s == null) {
      return;
    }
    heads.show(title(s), line(s));
    picture.show(s);
    key.setText(
        String.join(" · ", PastePicture.legendWords())
            + (s.done() ? " · rings: how this print came out" : ""));
    boolean layer = s.check().isPresent();
    key.setVisible(layer);
    worst(s);
    failed(s);
    Optional<StencilCheck.Line> line = s.line();
    area.setVisible(line.isPresent());
    aspect.setVisible(line.isPresent());
    if (line.isEmpty()) {
      name.setText(layer || s.loading() ? "" : "No paste layer of the " + s.side().key() + " side");
      told.setText(
          layer || s.loading()
              ? ""
              : s.needle()
                  .map(n ->
                      "L takes one in. By needle: "
                          + n.dots().size()
                          + " dots along the line, about "
                          + Math.round(n.seconds() / 60)
                          + " min a board.")
                  .orElse("L takes one in (Gerber)."));
      advice.setText("");
      areaWords.setText("");
      aspectWords.setText("");
      return;
    }
    opening(s, line.get());
  }

  private void opening(PrintModel.Shown s, StencilCheck.Line l) {
    PasteLook look = PrintFacts.of(s.work().state()).paste().get(l.opening().name());
    name.setText(
        l.opening().name()
            + (look != null ? " · paste " + look.key() : s.done() ? " · paste good" : ""));
    told.setText(
        "opening "
            + print(l.opening().aperture().narrowest(), Unit.METRE, 3)
            + " × "
            + print(l.opening().aperture().longest(), Unit.METRE, 3)
            + " · "
            + print(l.volume() * 1e9, Unit.ONE, 3)
            + " mm³ paste, "
            + print(l.solder() * 1e9, Unit.ONE, 3)
            + " mm³ solder"
            + l.need()
                .map(n ->
                    ", joint wants "
                        + print(n.least() * 1e9, Unit.ONE, 2)
                        + "..."
                        + print(n.full() * 1e9, Unit.ONE, 2))
                .orElse(""));
    advice.setText(l.advice().isEmpty() ? "" : "× " + l.advice());
    advice.setVisible(!l.advice().isEmpty());
    advice.setManaged(advice.isVisible());
    boolean byAspect = l.opening().aperture().aspectDecides();
    strip(
        area,
        l.areaRatio(),
        Aperture.GOOD_AREA_RATIO,
        byAspect ? Optional.empty() : Optional.of(l.verdict()));
    strip(
        aspect,
        l.aspectRatio(),
        Aperture.GOOD_ASPECT_RATIO,
        byAspect ? Optional.of(l.verdict()) : Optional.empty());
    areaWords.setText(
        "area ratio " + print(l.areaRatio(), Unit.ONE, 3) + (byAspect ? "" : " decides"));
    aspectWords.setText(
        "aspect ratio " + print(l.aspectRatio(), Unit.ONE, 3) + (byAspect ? " decides" : ""));
  }

  private static void strip(LimitStrip strip, double value, double least, Optional<Verdict> v) {
    strip.show(new LimitStrip.Shown(Limits.atLeast(least), Optional.of(value), 0, v, Unit.ONE));
  }

  private static String title(PrintModel.Shown s) {
    if (s.check().isEmpty()) {
      return "Print · " + s.side().key() + " side";
    }
    StencilCheck c = s.check().get();
    String foil = print(c.foil(), Unit.METRE);
    return c.bad() == 0
        ? "Print · all " + c.lines().size() + " openings release from " + foil
        : "Print · " + c.bad() + " of " + c.lines().size() + " openings stay in " + foil;
  }

  private static String line(PrintModel.Shown s) {
    List<String> words = new ArrayList<>();
    words.add(s.side().key() + " side" + (s.done() ? ", printed" : ", not printed yet"));
    s.check()
        .ifPresent(c -> {
          if (c.bad() > 0 && c.thickest().isPresent()) {
            words.add(print(c.thickest().getAsDouble(), Unit.METRE) + " suits all");
          }
          int boards = s.work().standings().size();
          words.add(
              print(c.grams(boards) * 1000, Unit.ONE, 3) + " g of paste for " + boards + " boards");
          if (!c.layer().without().isEmpty()) {
            words.add(
                c.layer().without().size()
                    + " joints get none: "
                    + c.layer().without().stream().limit(4).collect(Collectors.joining(" ")));
          }
        });
    s.jar().ifPresent(j -> words.add("jar " + j.jar() + ": " + j.verdict().words() + why(j)));
    s.wipe()
        .ifPresentOrElse(
            w ->
                words.add(
                    "wipe before every "
                        + (w.every() == 1 ? "print" : ordinal(w.every()) + " print")
                        + ": "
                        + w.lateBad()
                        + " of "
                        + w.late()
                        + " later prints had faults, "
                        + w.freshBad()
                        + " of "
                        + w.fresh()
                        + " earlier ones"),
            () -> {});
    return String.join(" · ", words) + ".";
  }

  private static String why(JarClock j) {
    return j.verdict() == JarClock.Verdict.USE ? "" : " (" + j.why().getFirst() + ")";
  }

  private static String ordinal(int n) {
    return switch (n) {
      case 2 -> "2nd";
      case 3 -> "3rd";
      default -> n + "th";
    };
  }

  private void worst(PrintModel.Shown s) {
    worst.getChildren().setAll(head("Releases worst"));
    for (StencilCheck.Line l : s.worst().stream().limit(ROWS).toList()) {
      boolean here =
          s.line().filter(x -> x.opening().part().equals(l.opening().part())).isPresent();
      row(
          worst,
          Marks.of(l.verdict()),
          l.opening().name() + "  " + print(l.margin() * 100, Unit.ONE, 3) + " %",
          here);
    }
  }

  private void failed(PrintModel.Shown s) {
    failed.getChildren().setAll(head("Failed most, " + s.log().prints().size() + " prints"));
    List<PrintLog.Fault> all = s.faults();
    if (all.isEmpty()) {
      row(failed, Mark.NOT_YET, s.log().prints().isEmpty() ? "no print yet" : "none", false);
    }
    for (PrintLog.Fault x : all.stream().limit(ROWS).toList()) {
      String looks =
          x.looks().entrySet().stream()
              .map(e -> e.getKey().key())
              .sorted()
              .collect(Collectors.joining(", "));
      String ratio =
          s.check().stream()
              .flatMap(c -> c.lines().stream())
              .filter(l -> l.opening().name().equals(x.place()))
              .findFirst()
              .map(l -> " · " + print(l.margin() * 100, Unit.ONE, 3) + " %")
              .orElse("");
      row(failed, Mark.OUT, x.place() + "  " + x.times() + "× " + looks + ratio, false);
    }
  }

  private static Label head(String text) {
    Label l = new Label(text);
    l.getStyleClass().add("small-head");
    return l;
  }

  private void row(VBox to, Mark mark, String text, boolean now) {
    MarkDot dot = new MarkDot();
    dot.nightProperty().bind(desk.nightProperty());
    dot.show(mark);
    Label l = new Label(text);
    l.getStyleClass().add(now ? "around-now" : "around-line");
    HBox row = new HBox(8, dot, l);
    row.setAlignment(Pos.CENTER_LEFT);
    to.getChildren().add(row);
  }
}
