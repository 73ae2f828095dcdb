package ell.trials.doors;

import ell.core.beep.BeepCheck;
import ell.core.beep.BeepFacts;
import ell.core.look.DefectKind;
import ell.core.order.OrderFacts;
import ell.core.order.Step;
import ell.core.rack.Stage;
import ell.desk.beep.BeepModel;
import ell.desk.look.LookModel;
import ell.desk.order.OrderModel;
import ell.desk.print.PrintModel;
import ell.desk.shell.DeskModel;
import ell.desk.shell.Runner;
import ell.desk.shell.Snapshot;
import java.nio.file.Path;
import java.time.Clock;
import java.util.Optional;

/// The window without its nodes: the models that its keys and its tape work, everything at once on
/// one thread. It also says which line stands for a key, since it knows what is in hand.
final class WindowDoor implements Door {
  private final DeskModel desk;
  private final OrderModel order;
  private final PrintModel print;
  private final LookModel look;
  private final BeepModel beep;

  WindowDoor(Path file, Clock clock) {
    this.desk = new DeskModel(new Runner(Runnable::run, Runnable::run, Runnable::run), clock);
    this.order = new OrderModel(desk);
    this.print = new PrintModel(desk);
    this.look = new LookModel(desk);
    this.beep = new BeepModel(desk);
    desk.add(Stage.ORDER, order);
    desk.add(Stage.PRINT, print);
    desk.add(Stage.LOOK, look);
    desk.add(Stage.BEEP, beep);
    desk.open(file);
  }

  Snapshot.Work work() {
    return desk.work().orElseThrow();
  }

  void select(String board) {
    desk.select(board);
  }

  private void at(Stage s) {
    desk.navigation().stageProperty().set(s);
  }

  /// The line that stands for a move with a key, empty when there is nothing to do by it now.
  Optional<String> line(Move m) {
    Snapshot.Work w = work();
    return switch (m.kind()) {
      case STEP ->
          OrderFacts.of(w.state())
              .next(w.plan().order())
              .map(s -> s.gate().map(g -> "gate " + g + " holds").orElse("step"));
      case PRINT ->
          Optional.of(
              "printed "
                  + OrderFacts.of(w.state())
                      .next(w.plan().order(), Step.Action.REFLOW)
                      .map(s -> s.side().key())
                      .orElse("first")
                  + (m.salt() % 2 == 0 ? " wiped" : ""));
      case GOOD -> {
        at(Stage.LOOK);
        yield look.hasStop() && look.primaryWords().equals("good")
            ? Optional.of(place() + " good")
            : Optional.empty();
      }
      case DEFECT -> {
        at(Stage.LOOK);
        yield look.hasStop() ? Optional.of(place() + " cold") : Optional.empty();
      }
      case OPEN_LOOP -> {
        at(Stage.BEEP);
        yield Optional.ofNullable(beep.shownProperty().get())
            .map(s -> "beep " + s.check().number() + " open");
      }
      case STRIKE ->
          w.log().reversed().stream()
              .filter(l -> !w.state().struck().contains(l.number()))
              .filter(l -> !(l.entry() instanceof ell.core.entry.Entry.Strike))
              .findFirst()
              .map(l -> "strike " + l.number() + " taken back");
      case LINE, BOARD -> Optional.empty();
    };
  }

  private String place() {
    return look.shownProperty().get().stop().orElseThrow().joint().place();
  }

  @Override
  public void play(String board, Move.Kind kind, String line) {
    desk.tape().leave();
    switch (kind) {
      case STEP -> {
        at(Stage.ORDER);
        order.primary();
      }
      case PRINT -> {
        at(Stage.PRINT);
        if (print.shownProperty().get().wiped() != line.endsWith("wiped")) {
          print.wipe();
        }
        print.primary();
      }
      case GOOD -> look.primary();
      case DEFECT -> look.defect(DefectKind.COLD);
      case OPEN_LOOP -> beep.openLoop();
      case STRIKE -> desk.strikeLast();
      case LINE, BOARD -> {
        desk.tape().begin(line);
        desk.tape().enter();
      }
    }
    desk.tape().leave();
  }

  /// Checks of this board that were made, for lines about the others.
  int checks() {
    return work().plan().beep().checks().size();
  }

  /// How many guards are open.
  long open() {
    Snapshot.Work w = work();
    return w.plan().beep().checks().stream()
        .filter(BeepCheck::guards)
        .filter(c -> BeepFacts.of(w.state()).verdict(c.key()).isEmpty())
        .count();
  }

  @Override
  public void close() {
    desk.close();
  }
}
