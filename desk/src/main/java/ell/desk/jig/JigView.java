package ell.desk.jig;

import ell.core.jig.Bending;
import ell.core.jig.JigPlan;
import ell.core.jig.Probe;
import ell.desk.shell.DeskModel;
import ell.desk.shell.HandCard;
import ell.desk.shell.Heads;
import java.util.Locale;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/// The board between its plates: from above, and in section; beside it what the jig costs and when
/// it has paid; below the probe or finger in hand.
public final class JigView extends VBox {
  private final JigModel model;
  private final Heads heads = new Heads();
  private final FromAbovePicture above = new FromAbovePicture();
  private final SectionPicture section = new SectionPicture();
  private final WorthPicture worth = new WorthPicture();
  private final HandCard card = new HandCard();

  /// A view of a model.
  public JigView(DeskModel desk, JigModel model) {
    this.model = model;
    getStyleClass().add("stage");
    above.nightProperty().bind(desk.nightProperty());
    section.nightProperty().bind(desk.nightProperty());
    worth.nightProperty().bind(desk.nightProperty());
    above.setId("jig-above");
    section.setId("jig-section");
    worth.setId("jig-worth");
    above.onPlace(model::turnTo);
    HBox.setHgrow(above, Priority.ALWAYS);
    worth.setMinSize(220, 90);
    worth.setPrefHeight(150);
    section.setMinSize(220, 104);
    section.setPrefHeight(160);
    VBox beside = new VBox(10, worth, section);
    VBox.setVgrow(worth, Priority.ALWAYS);
    VBox.setVgrow(section, Priority.ALWAYS);
    beside.setMinWidth(240);
    beside.setPrefWidth(312);
    beside.setMaxWidth(420);
    HBox upper = new HBox(16, above, beside);
    VBox.setVgrow(upper, Priority.ALWAYS);
    getChildren().addAll(heads, upper, card);
    model.shownProperty().addListener((_, _, s) -> fill(s));
    model.busyProperty().addListener((_, _, _) -> fill(model.shownProperty().get()));
    fill(model.shownProperty().get());
  }

  /// Zooms the board by a factor.
  public void zoom(double factor) {
    above.zoom(factor);
  }

  private void fill(JigModel.Shown s) {
    boolean busy = model.busyProperty().get();
    above.show(s);
    section.show(s);
    worth.show(s);
    if (s == null) {
      heads.show(
          "Jig", busy ? "Probes are being chosen." : "Nothing is worked out yet for this board.");
      card.nothing("");
      return;
    }
    JigPlan p = s.plan();
    heads.show(
        String.format(
            Locale.ROOT,
            "Jig · %d probes, %d from above%s%s",
            p.probes().size(),
            p.topProbes(),
            p.unreachable().isEmpty() ? "" : ", " + p.unreachable().size() + " nets not reached",
            busy ? " · being worked out" : ""),
        "Reaches " + p.asked() + ": " + p.verdict() + ".");
    card.around(s.at(), p.probes().isEmpty() ? 0 : s.things(), i -> name(s, i));
    inHand(s);
  }

  private void inHand(JigModel.Shown s) {
    JigPlan p = s.plan();
    if (s.probe().isPresent()) {
      Probe x = s.probe().get();
      card.show(
          String.valueOf(x.number()),
          x.target().net()
              + " at "
              + x.target().place()
              + ", from "
              + (x.target().side() == ell.core.board.Side.SECOND ? "below" : "above"),
          String.format(
              Locale.ROOT,
              "%s head, spacing %s mm, drill %.2f mm · misses %s",
              x.target().kind().head(),
              x.of().name(),
              x.of().drillMm(),
              percent(x.miss())),
          String.format(
              Locale.ROOT,
              "%s; lands on a %s of %.2f mm%s",
              x.role(),
              x.target().kind().key(),
              Math.min(x.target().widthMm(), x.target().heightMm()),
              x.target().assumed() ? " (taken, not in the files)" : ""));
    } else if (s.finger() >= 0) {
      Bending b = p.bending();
      Bending.Finger f = b.fingers().get(s.finger());
      card.show(
          String.valueOf(s.finger() + 1),
          String.format(
              Locale.ROOT, "finger at %.1f, %.1f mm, %s", f.xMm(), f.yMm(), bears(b, f, 2)),
          bends(b),
          s.moved()
              ? "moved: K keeps it, L lets Ell choose"
              : "Shift and an arrow move it by 1 mm");
    } else if (p.probes().isEmpty()) {
      card.nothing(p.verdict());
    } else {
      card.show(
          "",
          p.worth().words(),
          String.format(
              Locale.ROOT,
              "%.0f to make, %.2f saved by each board · closed %s with %.1f N",
              p.worth().fixed(),
              p.worth().saved(),
              p.press(),
              p.force()),
          p.bending().held() ? bends(p.bending()) : String.join("; ", p.bending().told()));
    }
  }

  private static String bends(Bending b) {
    return b.held()
        ? String.format(
            Locale.ROOT,
            "the board bends by %.3f mm, strain %.0f millionths%s",
            1e3 * b.deflection(),
            1e6 * b.strain(),
            b.brittle().isEmpty()
                ? ""
                : String.format(
                    Locale.ROOT,
                    ", under %s %.0f",
                    b.brittle().getFirst().part(),
                    1e6 * b.brittle().getFirst().strain()))
        : "the fingers do not hold the board";
  }

  /// What a finger bears, or its rest.
  static String bears(Bending b, Bending.Finger f, int digits) {
    String n = String.format(Locale.ROOT, "%." + digits + "f N", Math.abs(f.newtons()));
    return !b.rests() ? n : (f.newtons() >= 0) == b.fingerSide() ? n + " above" : n + " below";
  }

  static String percent(double share) {
    return share < 1e-5 ? "less than 0.001 %" : String.format(Locale.ROOT, "%.2g %%", 100 * share);
  }

  private static String name(JigModel.Shown s, int i) {
    JigModel.Shown x = new JigModel.Shown(s.work(), s.plan(), i, s.moved());
    if (x.probe().isPresent()) {
      Probe p = x.probe().get();
      return p.number() + "  " + p.target().net() + " · " + p.target().place();
    }
    return x.finger() >= 0
        ? "finger "
            + (x.finger() + 1)
            + " · "
            + bears(s.plan().bending(), s.plan().bending().fingers().get(x.finger()), 2)
        : "what it is worth";
  }
}
