package ell.desk.talk;

import ell.core.rack.Standing.Mark;
import ell.core.talk.LinkPlan;
import ell.core.talk.PinMap;
import ell.core.talk.Script;
import ell.core.talk.TalkFacts;
import ell.desk.mark.MarkDot;
import ell.desk.shell.DeskModel;
import ell.desk.shell.Heads;
import ell.desk.shell.StepCard;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;

/// The strip, the links, the combs of pins or the chain, with what can be turned to beside them.
public final class TalkView extends VBox {
  private static final double WIDE = 118;

  private final DeskModel desk;
  private final TalkModel model;
  private final Heads heads = new Heads();
  private final StripPicture strip = new StripPicture();
  private final LinksPicture links = new LinksPicture();
  private final CombPicture comb = new CombPicture();
  private final ChainPicture chain = new ChainPicture();
  private final VBox list = new VBox(4);
  private final TextField typed = new TextField();
  private final StepCard card = new StepCard("talk-says");
  private boolean typing;

  /// A view of a model.
  public TalkView(DeskModel desk, TalkModel model) {
    this.desk = desk;
    this.model = model;
    getStyleClass().add("stage");
    for (var p : List.of(strip, links, comb, chain)) {
      p.nightProperty().bind(desk.nightProperty());
    }
    strip.setId("strip-picture");
    links.setId("links-picture");
    comb.setId("comb-picture");
    chain.setId("chain-picture");
    list.getStyleClass().add("around");
    list.setId("talk-list");
    list.setMinWidth(WIDE);
    list.setPrefWidth(WIDE);
    list.setMaxWidth(WIDE);
    StackPane pictures = new StackPane(strip, links, comb, chain);
    pictures.setMinSize(0, 0);
    HBox.setHgrow(pictures, Priority.ALWAYS);
    HBox middle = new HBox(10, list, pictures);
    middle.setMinHeight(0);
    VBox.setVgrow(middle, Priority.ALWAYS);
    typed.setId("talk-typed");
    typed.setPromptText("a line to send, and Enter; Esc leaves it");
    typed.setAccessibleText("a line to send over the line");
    typed.managedProperty().bind(typed.visibleProperty());
    typed.setVisible(false);
    typed.setOnAction(_ -> {
      model.type(typed.getText());
      typed.clear();
    });
    getChildren().addAll(heads, middle, typed, card);
    model.shownProperty().addListener((_, _, s) -> fill(s));
    fill(model.shownProperty().get());
  }

  private void fill(TalkModel.Shown s) {
    if (s == null) {
      heads.show("Talk", "");
      return;
    }
    strip.setVisible(s.face() == TalkFace.STRIP);
    links.setVisible(s.face() == TalkFace.LINKS);
    comb.setVisible(s.face() == TalkFace.PINS);
    chain.setVisible(s.face() == TalkFace.CHAIN);
    typed.setVisible(s.typing());
    if (s.typing() && !typing) {
      typed.requestFocus();
    }
    typing = s.typing();
    list.getChildren().clear();
    switch (s.face()) {
      case STRIP -> strip(s);
      case LINKS -> links(s);
      case PINS -> pins(s);
      case CHAIN -> chain(s);
    }
  }

  private void row(Mark mark, String text, boolean now) {
    MarkDot dot = new MarkDot();
    dot.nightProperty().bind(desk.nightProperty());
    dot.show(mark);
    Label name = new Label(text);
    name.getStyleClass().add(now ? "around-now" : "around-line");
    HBox row = new HBox(8, dot, name);
    row.setAlignment(Pos.CENTER_LEFT);
    list.getChildren().add(row);
  }

  private void strip(TalkModel.Shown s) {
    heads.show(
        "Talk · "
            + (s.running().isEmpty()
                ? s.facts().firmware().map(f -> "firmware " + f).orElse("not loaded yet")
                : s.running() + ", the line is open"),
        "Sent at the left, heard at the right, in time; what was expected is pencilled beside it.");
    for (int i = 0; i < s.scripts().size(); i++) {
      Script x = s.scripts().get(i);
      Mark m =
          s.facts()
              .latest(x.name())
              .flatMap(l -> ((ell.core.entry.Entry.Talk) l.entry()).verdict())
              .map(ell.desk.mark.Marks::of)
              .orElse(i == s.scriptAt() ? Mark.NEXT : Mark.NOT_YET);
      row(m, x.name(), i == s.scriptAt());
    }
    strip.show(s);
    if (!s.question().isEmpty()) {
      card.what(s.question());
      card.detail("Y when it is so; X when it is not, and the line is closed.");
    } else if (!s.running().isEmpty()) {
      card.what(
          s.step().isEmpty()
              ? s.typing() ? "type a line, and Enter" : "the line is opened"
              : s.step() + (s.loaded() > 0 ? String.format(" · %.0f %%", 100 * s.loaded()) : ""));
      card.detail("X closes the line.");
    } else if (s.talk().isPresent()) {
      var t = s.talk().get();
      card.what(ell.core.entry.EntryWords.of(t));
      card.detail(
          t.told().isEmpty()
              ? String.format("Open for %.1f s on %s.", t.seconds(), t.line())
              : "First: " + t.told().getFirst());
    } else {
      card.what(s.scripts().isEmpty() ? "no script is kept" : "not spoken to yet");
      card.detail(
          s.scripts().isEmpty()
              ? "L takes a script from a file; T opens the line and types over it."
              : "Space runs the script in hand; T opens the line and types over it.");
    }
  }

  private void links(TalkModel.Shown s) {
    var plan = s.work().plan().talk();
    heads.show(
        "Talk · "
            + (plan.links().isEmpty()
                ? "no links are known"
                : plan.links().size() + (plan.links().size() == 1 ? " link" : " links")),
        plan.operations().isEmpty()
            ? "W says what there is, such as link SJ1 solder, or operation program open SJ1."
            : "Levers as they are; in slate, dashed, as the operation in hand must have them. The order"
                + " is the one that heats least.");
    TalkFacts facts = s.facts();
    plan.operations().stream()
        .filter(o -> facts.done().contains(o.name()))
        .filter(o ->
            s.operations().stream()
                .noneMatch(p -> p.steps().stream().anyMatch(x -> x.operation().equals(o))))
        .forEach(o -> row(Mark.WITHIN, o.name(), false));
    List<LinkPlan.Step> steps = s.operations().map(LinkPlan::steps).orElse(List.of());
    for (LinkPlan.Step x : steps) {
      boolean now = s.operation().filter(o -> o.operation().equals(x.operation())).isPresent();
      row(now ? Mark.NEXT : Mark.NOT_YET, x.operation().name(), now);
    }
    links.show(s);
    card.what(
        s.operation()
            .map(o ->
                o.operation().name()
                    + ": "
                    + (o.ready() ? "it can begin" : String.join(", ", TalkMargin.before(o))))
            .orElse(""));
    card.detail(
        s.operation()
            .map(o ->
                o.ready() ? "Nothing has to be changed." : "Space when it is so: it is logged.")
            .orElse(""));
  }

  private void pins(TalkModel.Shown s) {
    heads.show(
        "Talk · "
            + s.pins()
                .map(m ->
                    s.module()
                        + ", "
                        + m.assignments().size()
                        + " of "
                        + s.kept().needs().size()
                        + " signals have a pin")
                .orElse("no pins"),
        s.pins().isPresent()
            ? "A thread in slate had to move; one in madder hangs loose. Up and Down: another module."
            : "L takes what the firmware needs from a file; modules are kept by ./ell pins --keep.");
    for (Map.Entry<String, PinMap> e : s.kept().maps().entrySet()) {
      PinMap m = e.getValue();
      row(m.works() ? Mark.WITHIN : Mark.OUT, e.getKey(), e.getKey().equals(s.module()));
    }
    comb.show(s);
    card.what(
        s.pins()
            .map(m -> {
              List<String> words = new ArrayList<>();
              words.add(m.kept() + " stay, " + m.changes().size() + " lines of code change");
              if (!m.unmet().isEmpty()) {
                words.add(
                    "no pin for "
                        + String.join(", ", m.unmet().stream().map(PinMap.Unmet::signal).toList()));
              }
              return String.join("; ", words);
            })
            .orElse(""));
    card.detail(
        s.pins()
            .map(m ->
                m.straps().isEmpty()
                    ? "No strap carries a signal."
                    : m.straps().size() + " of the pins are straps: see the margin.")
            .orElse(""));
  }

  private void chain(TalkModel.Shown s) {
    heads.show(
        "Talk · " + s.chain().map(c -> "chain " + c.words()).orElse("no chain of equal elements"),
        s.chain().isPresent()
            ? "Filled: as it should be. Bars: how likely the data breaks there. F says what is seen,"
                + " such as lit up to 2."
            : "");
    for (var c : s.work().plan().talk().chains()) {
      row(
          Mark.NOT_YET,
          c.elements().getFirst() + " to " + c.elements().getLast(),
          s.chain().filter(c::equals).isPresent());
    }
    chain.show(s);
    card.what(
        s.suspects()
            .map(x ->
                x.suspects().isEmpty()
                    ? "nothing is wrong with it"
                    : x.next()
                        .map(n -> "next: at " + n.place() + ", " + n.what())
                        .orElse(x.suspects().getFirst().fault()))
            .orElse(s.chain().isPresent() ? "nothing was said of it yet" : ""));
    card.detail(
        s.suspects()
            .filter(x -> !x.suspects().isEmpty())
            .map(x ->
                String.format(
                    "Likeliest: %s, %.0f %%.",
                    x.suspects().getFirst().fault(), 100 * x.suspects().getFirst().chance()))
            .orElse(s.chain().isPresent() ? "F begins the line." : ""));
  }
}
