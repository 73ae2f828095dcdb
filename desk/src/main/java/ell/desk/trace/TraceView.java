package ell.desk.trace;

import ell.core.board.Joint;
import ell.core.board.Revision;
import ell.core.trace.Choice;
import ell.core.trace.Probe;
import ell.core.trace.Traced;
import ell.desk.shell.DeskModel;
import ell.desk.shell.HandCard;
import ell.desk.shell.Heads;
import java.util.Locale;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/// The board shaded by where the fault may be, the suspects by rank; below them what is not known
/// over the minutes, and the measurement in hand as a fork.
public final class TraceView extends VBox {
  private final TraceModel model;
  private final Heads heads = new Heads();
  private final WherePicture where = new WherePicture();
  private final RanksPicture ranks = new RanksPicture();
  private final StairsPicture stairs = new StairsPicture();
  private final ForkPicture fork = new ForkPicture();
  private final HandCard card = new HandCard();

  /// A view of a model.
  public TraceView(DeskModel desk, TraceModel model) {
    this.model = model;
    getStyleClass().add("stage");
    where.nightProperty().bind(desk.nightProperty());
    ranks.nightProperty().bind(desk.nightProperty());
    stairs.nightProperty().bind(desk.nightProperty());
    fork.nightProperty().bind(desk.nightProperty());
    where.setId("trace-where");
    ranks.setId("trace-ranks");
    stairs.setId("trace-stairs");
    fork.setId("trace-fork");
    HBox.setHgrow(where, Priority.ALWAYS);
    HBox.setHgrow(fork, Priority.ALWAYS);
    ranks.setPrefWidth(310);
    ranks.setMinWidth(230);
    stairs.setPrefWidth(230);
    stairs.setMinWidth(170);
    HBox upper = new HBox(16, where, ranks);
    HBox lower = new HBox(16, stairs, fork);
    VBox.setVgrow(upper, Priority.ALWAYS);
    lower.setMinHeight(128);
    lower.setPrefHeight(172);
    lower.setMaxHeight(190);
    getChildren().addAll(heads, upper, lower, card);
    model.shownProperty().addListener((_, _, s) -> fill(s));
    model.busyProperty().addListener((_, _, _) -> fill(model.shownProperty().get()));
    fill(model.shownProperty().get());
  }

  /// Zooms the board by a factor.
  public void zoom(double factor) {
    where.zoom(factor);
  }

  private void fill(TraceModel.Shown s) {
    boolean busy = model.busyProperty().get();
    where.show(s);
    ranks.show(s);
    stairs.show(s);
    fork.show(s);
    if (s == null) {
      heads.show(
          "Trace",
          busy
              ? "What each fault would show is being worked out."
              : "Nothing is worked out yet for this board.");
      card.nothing("");
      return;
    }
    Traced t = s.traced();
    heads.show(
        String.format(
            Locale.ROOT,
            "Trace · %s, %s · %.1f bit not known%s",
            RanksPicture.name(t.groups().getFirst()),
            Traced.percent(t.groups().getFirst().chance()),
            t.entropy(),
            busy ? " · being worked out again" : ""),
        t.finding()
            .map(f ->
                (f.settled() ? "Found" : "As near as can be measured") + ": E logs the finding.")
            .orElseGet(() -> t.told().isEmpty() ? design(t) : t.told().getFirst()));
    if (s.choice().isEmpty()) {
      card.nothing("nothing is left to measure that would tell more");
      return;
    }
    Choice c = s.choice().get();
    card.show(
        String.valueOf(s.at() + 1),
        sentence(c, s.work().plan().revision()),
        String.format(
            Locale.ROOT,
            "%s · %.2f bit, %.2f bit a minute",
            c.probe().line(),
            c.information(),
            c.worth()),
        c.why());
    card.around(
        s.at(),
        t.next().size(),
        i ->
            String.format(
                Locale.ROOT,
                "%d  %s · %.2f",
                i + 1,
                t.next().get(i).probe().line(),
                t.next().get(i).worth()));
  }

  private static String design(Traced t) {
    return String.format(
        Locale.ROOT,
        "If there is a fault, it is in the design with %.0f %%.",
        100 * t.designChance());
  }

  private static String sentence(Choice c, Revision r) {
    String a = c.probe().a();
    return switch (c.probe().kind()) {
      case VOLTS -> "volts at " + a;
      case OHMS -> "ohms from " + a + " to " + c.probe().b();
      case ALONG -> "milliohms along " + net(c.probe(), r) + ", to " + c.probe().b();
      case AMPS -> "what the supply gives to " + a;
      case WAVE -> "the clock at " + a;
      case LOOK -> "look at " + a;
      case LIT -> "is " + a + " lit?";
      case TOUCH -> "touch " + a;
      case SWAP -> "another part for " + a;
      case PRESS -> "does it work while " + a + " is pressed?";
      case TALK -> "does it speak?";
      case SCOPE -> "how is the scope set?";
    };
  }

  /// The net that is read along.
  private static String net(Probe p, Revision r) {
    String first = p.places().getFirst();
    return r.joint(first).map(Joint::net).orElse(first);
  }
}
