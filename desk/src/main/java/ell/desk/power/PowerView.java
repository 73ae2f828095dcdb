package ell.desk.power;

import ell.core.power.PowerFacts;
import ell.core.power.PowerPlan;
import ell.core.power.PowerStep;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.core.series.Series;
import ell.desk.mark.Plot;
import ell.desk.shell.DeskModel;
import ell.desk.shell.Heads;
import ell.desk.shell.Snapshot;
import ell.work.power.HelperWords;
import ell.work.power.PowerWork;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;

/// The ladder, the supply's current against its band, and the bench that is used.
public final class PowerView extends VBox {
  private final Button off = new Button("OFF · O");
  private final Heads heads = new Heads();
  private final LadderPicture ladder = new LadderPicture();
  private final Plot plot = new Plot();
  private final Label current = new Label();
  private final Label state = new Label();
  private final Told told = new Told();
  private final PowerModel model;

  private static final String NOT_YET =
      "Not yet: the beep checks to ground come first; the margin says which.";

  /// A view of a model.
  public PowerView(DeskModel desk, PowerModel model) {
    this.model = model;
    getStyleClass().add("stage");
    ladder.nightProperty().bind(desk.nightProperty());
    plot.nightProperty().bind(desk.nightProperty());
    RailsPicture rails = new RailsPicture();
    rails.nightProperty().bind(desk.nightProperty());
    rails.visibleProperty().bind(model.everyBoard().shownProperty());
    ladder.visibleProperty().bind(rails.visibleProperty().not());
    model
        .everyBoard()
        .railsProperty()
        .addListener(
            (_, _, all) -> rails.show(all, desk.work().map(Snapshot.Work::board).orElse("")));
    StackPane pictures = new StackPane(ladder, rails);
    VBox.setVgrow(pictures, Priority.ALWAYS);
    plot.setPrefHeight(150);
    plot.setMinHeight(110);
    Label plotHead = new Label("Supply current");
    plotHead.getStyleClass().add("small-head");
    Label how = new Label("band = predicted, line = measured, dashes = limit");
    how.getStyleClass().add("sheet-line");
    current.getStyleClass().add("mono");
    Region gap = new Region();
    HBox.setHgrow(gap, Priority.ALWAYS);
    HBox line = new HBox(10, plotHead, how, gap, current);
    line.setAlignment(Pos.BASELINE_LEFT);
    Label on = new Label("Bench");
    on.getStyleClass().add("sheet-line");
    TextField bench = new TextField();
    bench.setId("bench");
    bench.setAccessibleText("bench: simulated, or addresses of supply and meter");
    bench.setPromptText("simulated, or supply host:port meter host:port");
    bench.textProperty().bindBidirectional(desk.bench().benchProperty());
    bench.setPrefColumnCount(22);
    on.setLabelFor(bench);
    state.getStyleClass().add("power-state");
    Region gap2 = new Region();
    HBox.setHgrow(gap2, Priority.ALWAYS);
    off.setId("output-off");
    off.getStyleClass().add("off");
    off.setAccessibleText("output off, now");
    off.setFocusTraversable(false);
    off.setOnAction(_ -> model.off("switched off by hand"));
    off.managedProperty().bind(off.visibleProperty());
    HBox foot = new HBox(12, off, state, gap2, on, bench);
    foot.setAlignment(Pos.CENTER_LEFT);
    // over all boards, and for a helper who is told what to do, there is no current to watch
    for (Region r : List.of(line, plot)) {
      r.visibleProperty().bind(ladder.visibleProperty().and(told.visibleProperty().not()));
      r.managedProperty().bind(r.visibleProperty());
    }
    getChildren().addAll(heads, pictures, told, line, plot, foot);
    model.everyBoard().shownProperty().addListener((_, _, _) -> fill(model.shownProperty().get()));
    model.shownProperty().addListener((_, _, s) -> fill(s));
    fill(model.shownProperty().get());
  }

  private void fill(PowerModel.Shown s) {
    if (s == null) {
      return;
    }
    boolean every = model.everyBoard().shownProperty().get();
    heads.show(
        every ? "Rails of every board" : "First power · board " + s.work().board(),
        every
            ? "A stroke for each board: taller and named where it is in hand, out (crossed) or stands"
                + " apart from the others. M for the ladder."
            : words(s));
    ladder.show(s);
    boolean live = s.phase() != PowerModel.Phase.OFF || mayBeOn(s);
    state.setText(
        switch (s.phase()) {
          case OFF -> mayBeOn(s) ? "OUTPUT MAY BE ON" : "output off";
          case CLIMBING -> "going up";
          case ON -> "OUTPUT ON";
        });
    told.show(
        s.phase() == PowerModel.Phase.OFF && !every
            ? HelperWords.of(s.work().plan().revision(), s.work().plan().ladder(), s.work().state())
            : Optional.empty());
    off.setVisible(live);
    state.getStyleClass().removeAll("live");
    if (live) {
      state.getStyleClass().add("live");
    }
    current.setText(
        s.samples().isEmpty()
            ? ""
            : s.samples().getLast().stage().rail()
                + "   "
                + EngineeringNumber.print(s.samples().getLast().volts(), Unit.VOLT, 4)
                + "   "
                + EngineeringNumber.print(s.samples().getLast().amps(), Unit.AMPERE, 3));
    plot.show(plotted(s));
  }

  /// Whether the book does not know that the output is off, and no run of this window has it on.
  private static boolean mayBeOn(PowerModel.Shown s) {
    return s.phase() == PowerModel.Phase.OFF && PowerFacts.of(s.work().state()).mayBeOn();
  }

  private static String notYet(PowerModel.Shown s) {
    return s.refusal()
        .filter(r -> !r.rule().equals(PowerWork.RULE))
        .map(r ->
            r.rule().equals(PowerWork.PLUGGED)
                ? "Not yet: something must be so first; the margin says what."
                : "Not yet: " + r.why() + ".")
        .orElse(NOT_YET);
  }

  private static String words(PowerModel.Shown s) {
    if (s.stages().isEmpty()) {
      return s.work().plan().ladder().sources().isEmpty()
          ? "The ladder has no source yet: press L and say where power comes in."
          : s.refusal().isPresent() ? notYet(s) : "Working out the stages of first power…";
    }
    PowerPlan p = s.stages().get();
    return switch (s.phase()) {
      case OFF ->
          PowerModel.unsaid(s)
              .map(r ->
                  "How many volts does "
                      + r
                      + " take? Nothing says it: L, then rail "
                      + r
                      + "=VOLTS")
              .or(() -> s.refusal().map(_ -> notYet(s)))
              .orElse(
                  s.said().isEmpty()
                      ? "Space switches on " + rails(p) + "; it stops at the first surprise."
                      : (mayBeOn(s) ? "" : "Output off: ") + s.said() + ".");
      case CLIMBING -> "Going up stage by stage; any surprise switches off.";
      case ON ->
          s.next()
              .map(r -> "On, as predicted. Space reads " + r.net() + " at " + r.readAt() + ".")
              .orElse("On, every rail is read. Space switches off.");
    };
  }

  /// Each rail that is raised, with its last volts and its limit.
  private static String rails(PowerPlan p) {
    Map<String, PowerStep> last = new LinkedHashMap<>();
    p.steps().forEach(s -> last.put(s.rail(), s));
    return String.join(
            ", then ",
            last.values().stream()
                .map(s ->
                    s.rail()
                        + " to "
                        + EngineeringNumber.print(s.volts(), Unit.VOLT)
                        + " at most "
                        + EngineeringNumber.print(s.limit(), Unit.AMPERE, 3))
                .toList())
        + " in "
        + p.steps().size()
        + " stages";
  }

  private static Plot.Shown plotted(PowerModel.Shown s) {
    List<Plot.Band> bands = new ArrayList<>();
    List<Plot.Limit> limits = new ArrayList<>();
    double yLeast = leastShown(s);
    if (s.samples().isEmpty()) {
      List<PowerStep> all = s.stages().map(PowerPlan::steps).orElse(List.of());
      for (int i = 0; i < all.size(); i++) {
        bands.add(band(all.get(i), i, i + 1));
        limits.add(new Plot.Limit(i, i + 1, all.get(i).limit()));
      }
      return new Plot.Shown(
          "predicted current by stage",
          Unit.ONE,
          Unit.AMPERE,
          new Series("predicted", new double[0], new double[0]),
          bands,
          limits,
          Math.max(1, all.size()),
          yLeast);
    }
    double t0 = s.samples().getFirst().seconds();
    int from = 0;
    for (int i = 0; i < s.samples().size(); i++) {
      PowerModel.Sample x = s.samples().get(i);
      boolean last = i == s.samples().size() - 1;
      if (last || s.samples().get(i + 1).stage() != x.stage()) {
        double a = s.samples().get(from).seconds() - t0;
        double b = last ? x.seconds() - t0 : s.samples().get(i + 1).seconds() - t0;
        bands.add(band(x.stage(), a, b));
        limits.add(new Plot.Limit(a, b, x.stage().limit()));
        from = i + 1;
      }
    }
    Series line =
        new Series(
            "supply current",
            s.samples().stream().mapToDouble(x -> x.seconds() - t0).toArray(),
            s.samples().stream().mapToDouble(x -> Math.max(0, x.amps())).toArray());
    return new Plot.Shown(line.name(), Unit.SECOND, Unit.AMPERE, line, bands, limits, 0.5, yLeast);
  }

  /// The axis shows the limits as long as the bands can be told beside them.
  private static double leastShown(PowerModel.Shown s) {
    List<PowerStep> all = s.stages().map(PowerPlan::steps).orElse(List.of());
    double limit = all.stream().mapToDouble(PowerStep::limit).max().orElse(0);
    double band = all.stream().mapToDouble(x -> x.band().high()).max().orElse(0);
    return Math.max(0.01, Math.min(1.15 * limit, 3 * band));
  }

  private static Plot.Band band(PowerStep st, double a, double b) {
    return new Plot.Band(
        a, b, st.band().low(), st.band().high(), EngineeringNumber.print(st.volts(), Unit.VOLT, 3));
  }
}
