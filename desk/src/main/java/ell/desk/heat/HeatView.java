package ell.desk.heat;

import ell.core.heat.HeatFacts;
import ell.core.heat.JointDemand;
import ell.core.heat.PlateSchedule;
import ell.core.heat.ProfileCheck;
import ell.core.heat.ProfileStatistic;
import ell.core.quantity.Limits;
import ell.core.quantity.Unit;
import ell.desk.mark.LimitStrip;
import ell.desk.shell.DeskModel;
import ell.desk.shell.Heads;
import java.util.EnumMap;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;

/// The profile in its window with a strip for every statistic, or the pins as an iron meets them;
/// below, what comes next.
public final class HeatView extends VBox {
  private final Heads heads = new Heads();
  private final ProfilePicture profile = new ProfilePicture();
  private final PinsPicture pins = new PinsPicture();
  private final Map<ProfileStatistic, LimitStrip> strips = new EnumMap<>(ProfileStatistic.class);
  private final Map<ProfileStatistic, Label> words = new EnumMap<>(ProfileStatistic.class);
  private final HBox row = new HBox(10);
  private final Label number = new Label();
  private final Label what = new Label();
  private final Label detail = new Label();

  /// A view of a model.
  public HeatView(DeskModel desk, HeatModel model) {
    getStyleClass().add("stage");
    profile.nightProperty().bind(desk.nightProperty());
    profile.setId("profile-picture");
    pins.nightProperty().bind(desk.nightProperty());
    pins.setId("pins-picture");
    StackPane pictures = new StackPane(profile, pins);
    pictures.setMinHeight(0);
    VBox.setVgrow(pictures, Priority.ALWAYS);
    for (ProfileStatistic s : ProfileStatistic.values()) {
      LimitStrip strip = new LimitStrip();
      strip.nightProperty().bind(desk.nightProperty());
      strip.setMinWidth(60);
      strip.setPrefWidth(110);
      Label l = new Label();
      l.getStyleClass().add("around-line");
      VBox box = new VBox(0, l, strip);
      HBox.setHgrow(box, Priority.ALWAYS);
      box.setMinWidth(0);
      strips.put(s, strip);
      words.put(s, l);
      row.getChildren().add(box);
    }
    number.getStyleClass().add("step-number");
    number.setMinWidth(Region.USE_PREF_SIZE);
    number.setId("countdown");
    what.getStyleClass().add("step-what");
    what.setId("next-action");
    detail.getStyleClass().add("step-detail");
    for (Label l : new Label[] {what, detail}) {
      l.setWrapText(true);
      l.setMinHeight(Region.USE_PREF_SIZE);
    }
    VBox card = new VBox(3, what, detail);
    HBox.setHgrow(card, Priority.ALWAYS);
    HBox foot = new HBox(18, number, card);
    foot.setAlignment(Pos.TOP_LEFT);
    foot.getStyleClass().add("step-card");
    getChildren().addAll(heads, pictures, row, foot);
    model.shownProperty().addListener((_, _, s) -> fill(s));
    fill(model.shownProperty().get());
  }

  /// Zooms the drawing by a factor.
  public void zoom(double factor) {
    pins.zoom(factor);
  }

  private void fill(HeatModel.Shown s) {
    if (s == null) {
      return;
    }
    profile.setVisible(!s.iron());
    pins.setVisible(s.iron());
    row.setVisible(!s.iron() && s.line().isPresent());
    row.setManaged(row.isVisible());
    if (s.iron()) {
      iron(s);
      return;
    }
    profile.show(s);
    strips(s);
    String window =
        s.window()
            .map(w -> "window " + w.name() + ", " + w.title())
            .orElse("working out the plate");
    heads.show("Heat · " + title(s), window + second(s));
    foot(s);
  }

  private static String title(HeatModel.Shown s) {
    return switch (s.phase()) {
      case HEATING -> "plate on, board " + s.work().board() + " heats";
      case LIFTED -> "lifted off, it cools";
      case OFF ->
          s.track()
              .map(t -> t.title() + ": " + t.check().verdict().words() + index(t.check().pwi()))
              .orElse("no run yet");
    };
  }

  private static String index(double pwi) {
    return Double.isNaN(pwi) ? "" : String.format(Locale.ROOT, ", window index %.0f", pwi);
  }

  private static String second(HeatModel.Shown s) {
    if (s.track().isEmpty()) {
      return ". The tint is what this plate should do.";
    }
    ProfileCheck c = s.track().get().check();
    return ". Run "
        + (s.selected() + 1)
        + " of "
        + s.tracks().size()
        + (c.channels().size() > 1
            ? String.format(Locale.ROOT, ", channels up to %.1f °C apart", c.spread())
            : "")
        + ". Tint: what this plate should do next time; hairs: other runs.";
  }

  private void strips(HeatModel.Shown s) {
    Optional<ProfileCheck.Channel> line = s.line();
    if (line.isEmpty()) {
      return;
    }
    for (ProfileCheck.Line l : line.get().lines()) {
      Label label = words.get(l.statistic());
      String value =
          Double.isNaN(l.value())
              ? "not reached"
              : String.format(Locale.ROOT, digits(l.value()), l.value())
                  + " "
                  + l.statistic().unit();
      label.setText(value + "\n" + l.statistic().words());
      label.getStyleClass().removeAll("within", "close", "out");
      label.getStyleClass().add(l.verdict().key());
      LimitStrip strip = strips.get(l.statistic());
      strip.setVisible(l.limits().isPresent());
      strip.show(
          new LimitStrip.Shown(
              l.limits().orElse(Limits.atLeast(0)),
              Double.isNaN(l.value()) ? Optional.empty() : Optional.of(l.value()),
              l.uncertainty(),
              Optional.of(l.verdict()),
              Unit.ONE));
    }
  }

  private static String digits(double v) {
    return Math.abs(v) < 10 ? "%.2f" : "%.0f";
  }

  private void foot(HeatModel.Shown s) {
    if (s.look().isPresent()) {
      var l = s.look().get();
      counts(Double.isNaN(l.in()) ? "" : String.valueOf(Math.round(l.in())));
      what.setText(
          Double.isNaN(l.in())
              ? "cools; hands off the plate"
              : l.in() < 0.5 ? l.next() : l.next() + " in " + HeatModel.seconds(l.in()));
      double[] last = l.samples().getLast();
      detail.setText(
          String.format(
              Locale.ROOT,
              "plate %.0f °C, board %.0f °C, set point %s, %s since it began. O switches off.",
              last[2],
              last[3],
              last[1] > 0 ? String.format(Locale.ROOT, "%.0f °C", last[1]) : "off",
              clock(last[0])));
      return;
    }
    counts("");
    if (s.schedule().isEmpty()) {
      what.setText("");
      detail.setText("");
      return;
    }
    PlateSchedule p = s.schedule().get();
    what.setText(
        String.format(
            Locale.ROOT,
            "Next run: %.0f °C for %s, then %.0f °C; lift off at %s, board at %.0f °C",
            p.soakSet(),
            clock(p.soakFor()),
            p.peakSet(),
            clock(p.liftAt()),
            p.liftTemperature()));
    String from =
        s.fit()
            .map(f ->
                f.runs() == 0
                    ? "by a typical plate: nothing was recorded yet"
                    : String.format(
                        Locale.ROOT,
                        "by the plate of %d recorded runs, which the model meets to %.1f °C",
                        f.runs(),
                        f.rms()))
            .orElse("");
    detail.setText(
        String.format(Locale.ROOT, "expected window index %.0f, ", p.pwi())
            + from
            + (p.warnings().isEmpty() ? "." : ". × " + String.join("; ", p.warnings())));
  }

  private void counts(String text) {
    number.setText(text);
    number.setManaged(!text.isEmpty());
  }

  private static String clock(double s) {
    return String.format(Locale.ROOT, "%d:%02d", (int) s / 60, (int) s % 60);
  }

  private void iron(HeatModel.Shown s) {
    pins.show(s);
    heads.show(
        "Heat · iron" + s.part().map(p -> " on " + p.reference() + ", " + p.value()).orElse(""),
        "Numbers: order of soldering. Ring: light; dot: normal; square: heavy; triangle: warm the board first.");
    if (s.pins().isEmpty()) {
      counts("");
      what.setText("");
      detail.setText("");
      return;
    }
    JointDemand.Pin p = s.pins().get(s.pin());
    counts(String.valueOf(s.pin() + 1));
    what.setText(
        p.joint().place()
            + " · "
            + p.demand().need().key()
            + ", "
            + (Double.isInfinite(p.demand().seconds())
                ? "never wets with this tip alone"
                : String.format(Locale.ROOT, "wets in about %.1f s", p.demand().seconds())));
    int had =
        HeatFacts.of(s.work().state())
            .heatCycles()
            .getOrDefault(s.part().orElseThrow().reference(), 0);
    detail.setText(
        String.format(
            Locale.ROOT,
            "dial %.0f °C as a start, small bevel · net %s · %s",
            s.dial(),
            p.joint().net().isEmpty() ? "none" : p.joint().net(),
            had == 0 ? "not heated yet" : had == 1 ? "heated once" : "heated " + had + " times"));
  }
}
