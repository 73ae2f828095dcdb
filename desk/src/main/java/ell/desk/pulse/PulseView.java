package ell.desk.pulse;

import ell.core.entry.Entry;
import ell.core.entry.Entry.Capture.Measure;
import ell.core.entry.Entry.Capture.Outline;
import ell.core.pulse.Arrives;
import ell.core.pulse.NetLine;
import ell.core.pulse.PulseFacts;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.core.rack.Standing.Mark;
import ell.core.series.Series;
import ell.desk.mark.LimitStrip;
import ell.desk.mark.MarkDot;
import ell.desk.mark.Marks;
import ell.desk.shell.DeskModel;
import ell.desk.shell.Heads;
import ell.desk.shell.StepCard;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;

/// The capture of the place in hand on its slip, the places beside it, a strip for every limit.
public final class PulseView extends VBox {
  private static final int MOST_STRIPS = 5;
  private static final double WIDE = 116;
  private static final int MOST_PLACES = 14;

  private final DeskModel desk;
  private final PulseModel model;
  private final Heads heads = new Heads();
  private final SlipPicture slip = new SlipPicture();
  private final LinePicture line = new LinePicture();
  private final VBox list = new VBox(4);
  private final HBox strips = new HBox(10);
  private final StepCard card = new StepCard("capture-says");

  /// A view of a model.
  public PulseView(DeskModel desk, PulseModel model) {
    this.desk = desk;
    this.model = model;
    getStyleClass().add("stage");
    slip.nightProperty().bind(desk.nightProperty());
    slip.setId("slip-picture");
    list.getStyleClass().add("around");
    list.setId("places");
    list.setMinWidth(WIDE);
    list.setPrefWidth(WIDE);
    list.setMaxWidth(WIDE);
    list.managedProperty().bind(list.visibleProperty());
    line.nightProperty().bind(desk.nightProperty());
    line.setId("line-picture");
    StackPane pictures = new StackPane(slip, line);
    pictures.setMinSize(0, 0);
    HBox.setHgrow(pictures, Priority.ALWAYS);
    HBox middle = new HBox(10, list, pictures);
    middle.setMinHeight(0);
    VBox.setVgrow(middle, Priority.ALWAYS);
    getChildren().addAll(heads, middle, strips, card);
    model.shownProperty().addListener((_, _, s) -> fill(s));
    fill(model.shownProperty().get());
  }

  private void fill(PulseModel.Shown s) {
    if (s == null) {
      heads.show("Pulse", "");
      return;
    }
    line.setVisible(s.lined());
    slip.setVisible(!s.lined());
    list.setVisible(!s.lined());
    if (s.lined()) {
      lined(s);
      return;
    }
    long seen = PulseFacts.of(s.work().state()).latest().size();
    heads.show(
        "Pulse · "
            + (s.wanted().isEmpty()
                ? "no lines yet"
                : s.places().get(s.at())
                    + (s.every()
                        ? " of every board"
                        : " · " + seen + " of " + s.places().size() + " places captured")),
        s.wanted().isEmpty()
            ? "Neither the bill nor anybody says what should be seen here: W says it, such as CLK clock=2MHz."
            : s.every()
                ? "Each board's latest capture of this place, one over the other. M for the board in hand."
                : "Rules: levels, thresholds (hatched between), and dashes for what an input bears. A ring is"
                    + " an edge that counts twice.");
    places(s);
    slip.show(s, model.window());
    strips(s);
    Optional<Entry.Capture> c = s.entry();
    if (s.reading().isPresent()) {
      PulseModel.Reading r = s.reading().get();
      card.what(
          String.format(
              java.util.Locale.ROOT, "%.0f %% of %s are read", 100 * r.share(), r.name()));
      card.detail("X stops it; taken again it goes on from there.");
      return;
    }
    card.what(
        s.taking() || s.measuring()
            ? s.taking() ? "the scope looks" : "it is measured"
            : c.map(x ->
                    x.says()
                        + x.verdict()
                            .map(v -> " · " + v.words())
                            .orElse(" · nothing to judge it by"))
                .orElse(s.wanted().isEmpty() ? "" : "not captured yet"));
    card.detail(
        c.map(x ->
                x.told().isEmpty()
                    ? EngineeringNumber.print(x.outline().duration(), Unit.SECOND, 3)
                        + (x.with().isEmpty() ? " from " + x.name() : " by " + x.with())
                    : "First: " + x.told().getFirst())
            .orElse(s.wanted().isEmpty() ? "" : "Space takes it with the scope, L from a file."));
  }

  /// The net as a line, a strip for what arrives at the place in hand.
  private void lined(PulseModel.Shown s) {
    LineFace.Shown l = s.line().orElse(null);
    line.show(l, s.tap());
    strips.setVisible(false);
    strips.setManaged(false);
    if (l == null || l.line().isEmpty()) {
      heads.show("Pulse · as a line", l == null ? "the copper is followed" : l.why());
      card.what("");
      card.detail("K for the capture.");
      return;
    }
    NetLine n = l.line().get();
    heads.show(
        "Pulse · "
            + n.net()
            + " as a line, "
            + EngineeringNumber.print(n.length(), Unit.METRE, 3)
            + (n.followed() ? " of copper" : ", guessed")
            + ", "
            + EngineeringNumber.print(n.driven().z0(), Unit.OHM, 3),
        "Time runs down from the stick, the front goes to and fro. Up and Down: the place;"
            + " Left and Right: the resistor at the source; K for the capture.");
    int tap = s.tap();
    card.what(
        l.seen()
            .map(w -> {
              Arrives a = w.arrives().get(tap);
              return l.names().get(tap)
                  + ": peak "
                  + EngineeringNumber.print(a.peak(), Unit.VOLT, 3)
                  + ", falls back to "
                  + EngineeringNumber.print(a.dip(), Unit.VOLT, 3)
                  + ", rises past VIH "
                  + a.crossings()
                  + (a.crossings() == 1 ? " time" : " times")
                  + " · "
                  + a.verdict().words()
                  + (l.judges() ? "" : ", if the guesses hold");
            })
            .orElse(l.why().isEmpty() ? "no thresholds are known here: W says them" : l.why()));
    card.detail(
        n.told().isEmpty() ? "Nothing of this line is guessed." : "First: " + n.told().getFirst());
  }

  private void places(PulseModel.Shown s) {
    list.getChildren().clear();
    PulseFacts f = PulseFacts.of(s.work().state());
    int from =
        Math.clamp(
            (long) s.at() - MOST_PLACES / 2, 0, Math.max(0, s.places().size() - MOST_PLACES));
    for (int i = from; i < Math.min(s.places().size(), from + MOST_PLACES); i++) {
      String place = s.places().get(i);
      MarkDot dot = new MarkDot();
      dot.nightProperty().bind(desk.nightProperty());
      Optional<Entry.Capture> c = f.at(place);
      dot.show(
          c.isEmpty()
              ? i == s.at() ? Mark.NEXT : Mark.NOT_YET
              : c.get().verdict().map(Marks::of).orElse(Mark.NOT_YET));
      Label name = new Label(place);
      name.getStyleClass().add(i == s.at() ? "around-now" : "around-line");
      HBox row = new HBox(8, dot, name);
      row.setAlignment(Pos.CENTER_LEFT);
      list.getChildren().add(row);
    }
    if (s.places().size() > MOST_PLACES) {
      Label more = new Label((s.at() + 1) + " of " + s.places().size());
      more.getStyleClass().add("sheet-line");
      list.getChildren().add(more);
    }
  }

  private void strips(PulseModel.Shown s) {
    strips.getChildren().clear();
    List<Measure> judged =
        s.entry().stream()
            .flatMap(c -> c.measures().stream())
            .filter(m -> m.limits().isPresent() && m.verdict().isPresent())
            .sorted((a, b) -> b.verdict().get().compareTo(a.verdict().get()))
            .limit(MOST_STRIPS)
            .toList();
    for (Measure m : judged) {
      LimitStrip strip = new LimitStrip();
      strip.nightProperty().bind(desk.nightProperty());
      strip.setMinWidth(60);
      strip.setPrefWidth(120);
      strip.show(
          new LimitStrip.Shown(
              m.limits().get(),
              Optional.of(m.value()),
              Double.isFinite(m.uncertainty()) ? m.uncertainty() : 0,
              m.verdict(),
              m.unit()));
      Label l = new Label(title(m));
      l.getStyleClass().add("around-line");
      VBox box = new VBox(0, l, strip);
      HBox.setHgrow(box, Priority.ALWAYS);
      box.setMinWidth(0);
      strips.getChildren().add(box);
    }
    strips.setVisible(!judged.isEmpty());
    strips.setManaged(strips.isVisible());
  }

  private static String title(Measure m) {
    return switch (m.name()) {
      case "doubleClocks" -> "counted twice: " + Math.round(m.value());
      case "dwell" -> "between " + EngineeringNumber.print(m.value(), m.unit(), 3);
      default -> m.name() + " " + EngineeringNumber.print(m.value(), m.unit(), 4);
    };
  }

  /// The stretch of time that is looked at, and two cursors in it.
  static final class Window {
    private static final double LEAST_SHARE = 1e-7;

    private long over = -1;
    private double begin;
    private double end;
    private double from;
    private double to;
    private final double[] cursors = new double[2];
    private int inHand;

    /// Looks at the whole of another capture.
    void over(long entry, Outline o) {
      if (over != entry) {
        over = entry;
        begin = o.from();
        end = o.from() + o.duration();
        from = begin;
        to = end;
        cursors[0] = begin + (end - begin) / 3;
        cursors[1] = begin + 2 * (end - begin) / 3;
        inHand = 0;
      }
    }

    double from() {
      return from;
    }

    double to() {
      return to;
    }

    double cursor(int which) {
      return cursors[which];
    }

    int inHand() {
      return inHand;
    }

    void other() {
      inHand = 1 - inHand;
    }

    /// Moves the cursor in hand by a share of what is seen; at the edge the view goes along.
    void move(double share) {
      double wide = to - from;
      double t = Math.clamp(cursors[inHand] + share * wide, begin, end);
      cursors[inHand] = t;
      if (t < from) {
        pan(t - from - wide / 10);
      } else if (t > to) {
        pan(t - to + wide / 10);
      }
    }

    private void pan(double by) {
      double d = Math.clamp(by, begin - from, end - to);
      from += d;
      to += d;
    }

    /// Zooms about the cursor in hand.
    void zoom(double factor) {
      double wide = Math.clamp((to - from) / factor, LEAST_SHARE * (end - begin), end - begin);
      double t = Math.clamp(cursors[inHand], from, to);
      double share = to > from ? (t - from) / (to - from) : 0.5;
      from = Math.clamp(t - share * wide, begin, end - wide);
      to = from + wide;
    }

    /// What the cursors say, a line each.
    List<String> words(PulseModel.Shown s) {
      List<String> all = new ArrayList<>();
      for (int i = 0; i < 2; i++) {
        double t = cursors[i];
        Optional<Double> v = s.series().map(x -> x.at(t));
        all.add(
            (i == 0 ? "A " : "B ")
                + EngineeringNumber.print(t, Unit.SECOND, 4)
                + v.map(x -> "  " + EngineeringNumber.print(x, Unit.VOLT, 4)).orElse("")
                + (i == inHand ? "  in hand" : ""));
      }
      double dt = Math.abs(cursors[1] - cursors[0]);
      Optional<Double> dv = s.series().map((Series x) -> x.at(cursors[1]) - x.at(cursors[0]));
      all.add(
          "between "
              + EngineeringNumber.print(dt, Unit.SECOND, 4)
              + (dt > 0 ? ", " + EngineeringNumber.print(1 / dt, Unit.HERTZ, 4) : "")
              + dv.map(x -> ", " + EngineeringNumber.print(x, Unit.VOLT, 4)).orElse(""));
      return all;
    }
  }
}
