package ell.desk.beep;

import ell.core.beep.BeepCheck;
import ell.core.beep.BeepFacts;
import ell.core.beep.ShortPlaces;
import ell.core.board.Joint;
import ell.core.board.Side;
import ell.core.entry.Entry;
import ell.core.entry.EntryWords;
import ell.core.order.OrderFacts;
import ell.core.quantity.Accuracy;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import ell.core.rack.Standing.Mark;
import ell.desk.mark.BoardDrawing;
import ell.desk.mark.LimitStrip;
import ell.desk.mark.MarkDot;
import ell.desk.mark.Marks;
import ell.desk.shell.DeskModel;
import ell.desk.shell.Heads;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/// The two tips on the board in ink, the check in hand, and those around it.
public final class BeepView extends VBox {
  private static final int AROUND = 3;

  private final DeskModel desk;
  private final BeepModel model;
  private final Heads heads = new Heads();
  private final BoardDrawing board = new BoardDrawing();
  private final LimitStrip strip = new LimitStrip();
  private final Label number = new Label();
  private final Label what = new Label();
  private final Label expect = new Label();
  private final Label read = new Label();
  private final VBox around = new VBox(2);

  /// A view of a model.
  public BeepView(DeskModel desk, BeepModel model) {
    this.desk = desk;
    this.model = model;
    getStyleClass().add("stage");
    board.nightProperty().bind(desk.nightProperty());
    strip.nightProperty().bind(desk.nightProperty());
    VBox.setVgrow(board, Priority.ALWAYS);
    number.getStyleClass().add("step-number");
    what.getStyleClass().add("step-what");
    expect.getStyleClass().add("step-detail");
    read.getStyleClass().add("reading");
    for (Label l : List.of(what, expect, read)) {
      l.setWrapText(true);
      l.setMinHeight(Region.USE_PREF_SIZE);
    }
    read.setMinWidth(70);
    strip.setPrefWidth(190);
    strip.setMinWidth(120);
    HBox reading = new HBox(14, read, strip);
    reading.setAlignment(Pos.CENTER_LEFT);
    VBox card = new VBox(3, what, expect, reading);
    HBox.setHgrow(card, Priority.ALWAYS);
    around.getStyleClass().add("around");
    around.setMinWidth(130);
    around.setPrefWidth(290);
    around.setMaxWidth(290);
    HBox foot = new HBox(18, number, card, around);
    foot.getStyleClass().add("step-card");
    getChildren().addAll(heads, board, foot);
    model.shownProperty().addListener((_, _, s) -> fill(s));
    model.liveProperty().addListener((_, _, _) -> reads(model.shownProperty().get()));
    fill(model.shownProperty().get());
  }

  /// Zooms the drawing by a factor.
  public void zoom(double factor) {
    board.zoom(factor);
  }

  private void fill(BeepModel.Shown s) {
    if (s == null) {
      heads.show("Beep", "The netlist names no rails and no nets to check.");
      return;
    }
    BeepCheck c = s.check();
    heads.show(
        "Beep · "
            + s.guardsMade()
            + " of "
            + s.guards()
            + " checks that power waits for, "
            + s.made()
            + " of "
            + s.work().plan().beep().checks().size()
            + " in all",
        "Tip A stays where it is as long as it can; tip B goes where it is shown.");
    Side side = sideOf(c.b());
    Set<String> faulty = new HashSet<>();
    s.work().state().findings().forEach(f -> faulty.add(f.place().split("\\.")[0]));
    board.show(
        s.work().plan().revision(),
        side,
        Set.copyOf(OrderFacts.of(s.work().state()).placed()),
        Set.of(),
        faulty);
    board.tips(List.of(new BoardDrawing.Tip(c.a(), "A"), new BoardDrawing.Tip(c.b(), "B")));
    board.suspects(suspects(s.places(), side));
    number.setText(String.valueOf(c.number()));
    what.setText(
        (c.kind() == BeepCheck.Kind.ISOLATION ? "must not join: " : "must join: ")
            + (c.netA().equals(c.netB()) ? c.netA() : c.netA() + " and " + c.netB()));
    expect.setText(
        "A on "
            + c.a().place()
            + ", B on "
            + c.b().place()
            + " · expect "
            + c.expected().text(Unit.OHM, 3));
    Optional<Entry.Check> r = s.reading();
    reads(s);
    double ohms = r.map(Entry.Check::ohms).orElse(Double.NaN);
    strip.show(
        new LimitStrip.Shown(
            c.expected(),
            r.map(Entry.Check::ohms),
            Double.isFinite(ohms) ? Accuracy.handheldOhms(ohms).uncertainty(ohms) : 0,
            r.map(Entry.Check::verdict),
            Unit.OHM));
    neighbours(s);
  }

  /// What the meter shows while it is listened to, else what the book has of the check.
  private void reads(BeepModel.Shown s) {
    if (s == null) {
      return;
    }
    Optional<Entry.Check> r = s.reading();
    Optional<Double> live = model.liveProperty().get();
    read.setText(
        live.isPresent()
            ? live.get().isNaN() ? "listening" : "listening: " + EntryWords.ohms(live.get())
            : r.map(x -> EntryWords.ohms(x.ohms()) + " · " + x.verdict().words())
                .orElse("not measured yet"));
    verdict(live.isPresent() ? Optional.empty() : r.map(Entry.Check::verdict));
  }

  private void verdict(Optional<Verdict> v) {
    read.getStyleClass().removeAll("within", "close", "out", "not-yet");
    read.getStyleClass().add(v.map(Verdict::key).orElse("not-yet"));
  }

  private static final int MOST_SUSPECTS = 5;

  private static List<BoardDrawing.Suspect> suspects(List<ShortPlaces.Place> places, Side drawn) {
    List<BoardDrawing.Suspect> all = new ArrayList<>();
    for (ShortPlaces.Place p : places.subList(0, Math.min(MOST_SUSPECTS, places.size()))) {
      all.add(
          new BoardDrawing.Suspect(
              (p.a().xMm() + p.b().xMm()) / 2,
              (p.a().yMm() + p.b().yMm()) / 2,
              String.valueOf(all.size() + 1),
              !p.a().hole() && !p.b().hole() && sideOf(p.a()) != drawn));
    }
    return all;
  }

  private static Side sideOf(Joint j) {
    return j.reach() == Joint.Reach.SECOND ? Side.SECOND : Side.FIRST;
  }

  private void neighbours(BeepModel.Shown s) {
    around.getChildren().clear();
    List<BeepCheck> all = s.work().plan().beep().checks();
    int at = s.check().number() - 1;
    int from = Math.clamp(at - 1, 0, Math.max(0, all.size() - 2 * AROUND));
    for (int i = from; i < Math.min(all.size(), from + 2 * AROUND - 1); i++) {
      BeepCheck c = all.get(i);
      MarkDot dot = new MarkDot();
      dot.nightProperty().bind(desk.nightProperty());
      Optional<Verdict> v = BeepFacts.of(s.work().state()).verdict(c.key());
      dot.show(i == at && v.isEmpty() ? Mark.NEXT : v.map(Marks::of).orElse(Mark.NOT_YET));
      Label line =
          new Label(
              c.number()
                  + "  "
                  + (c.netA().equals(c.netB())
                      ? c.netA() + ": " + c.b().place()
                      : c.netA() + " – " + c.netB()));
      line.getStyleClass().add(i == at ? "around-now" : "around-line");
      HBox row = new HBox(8, dot, line);
      row.setAlignment(Pos.CENTER_LEFT);
      around.getChildren().add(row);
    }
  }
}
