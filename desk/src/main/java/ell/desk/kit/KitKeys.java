package ell.desk.kit;

import ell.desk.key.Command;
import ell.desk.shell.DeskModel;
import ell.desk.shell.FileAsker;
import ell.files.Output;
import ell.work.bring.ShelfFiles;
import ell.work.kit.Buying;
import ell.work.kit.Labels;
import java.util.List;
import java.util.function.BooleanSupplier;

/// What can be done by key at the kit.
final class KitKeys {
  private KitKeys() {}

  static List<Command> of(DeskModel desk, KitModel kit, FileAsker files, BooleanSupplier here) {
    return List.of(
        Command.of("buy", "Kit", "order for that day", "O", kit::buy)
            .inLine()
            .when(() -> here.getAsBoolean() && kit.canBuy()),
        Command.of("substitute", "Kit", "try a substitute", "S", kit::nextCandidate)
            .inLine()
            .when(here),
        Command.of(
                "instead", "Kit", "it was fitted", "I", () -> desk.tape().begin(kit.fittedLine()))
            .inLine()
            .when(() -> here.getAsBoolean() && !kit.fittedLine().isEmpty()),
        Command.of(
                "override",
                "Kit",
                "open the paste",
                "V",
                () -> desk.tape().begin("override paste "))
            .inLine()
            .when(() -> here.getAsBoolean() && kit.pasteStaysClosed()),
        Command.of("kit-sheet", "Kit", "other sheet", "M", kit::nextSheet).when(here),
        Command.of("stop-pricing", "Kit", "stop working out costs", "X", kit::stopPricing)
            .when(() -> here.getAsBoolean() && kit.pricing()),
        Command.of(
                "write-orders",
                "Kit",
                "write the order, a file for each seller",
                "W",
                () -> files.folder("Orders").ifPresent(kit::write))
            .when(() -> here.getAsBoolean() && kit.canWrite()),
        Command.of(
                "offers",
                "Kit",
                "take in offers, a shelf or parameters",
                "Shortcut+E",
                () -> takeIn(desk, files))
            .whileTypingToo()
            .when(() -> desk.work().isPresent()),
        Command.of(
                "labels",
                "Kit",
                "labels for the bins as PDF",
                "Shortcut+L",
                () -> labels(desk, files))
            .whileTypingToo()
            .when(() -> desk.work().isPresent()));
  }

  /// What the files are is told from what is in them.
  private static void takeIn(DeskModel desk, FileAsker files) {
    for (var file : files.shelfFiles()) {
      desk.act(w -> {
        switch (ShelfFiles.kind(file)) {
          case OFFERS -> {
            Buying.keep(w.space(), file);
            desk.say("the offers of " + file.getFileName() + " are kept");
          }
          case PARAMETERS -> {
            w.book().putParameters(ShelfFiles.parameters(file));
            desk.say("the parameters of " + file.getFileName() + " are kept");
          }
          case SHELF -> {
            w.stockroom().replace(ShelfFiles.shelf(file));
            desk.say("the shelf is now as " + file.getFileName() + " says");
          }
        }
      });
    }
  }

  private static void labels(DeskModel desk, FileAsker files) {
    files
        .labels()
        .ifPresent(to ->
            desk.act(w -> {
              Labels.write(w.stockroom().now().lines(), w.book().head(), to, Output.Over.ANY);
              desk.say("the labels are in " + to);
            }));
  }
}
