package ell.cli.kit;

import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.Replacing;
import ell.cli.shell.WorkspaceCommand;
import ell.core.entry.Entry;
import ell.core.entry.StockChange;
import ell.core.kit.ShelfLine;
import ell.core.kit.StockFold;
import ell.files.Output;
import ell.work.Workshop;
import ell.work.bring.ShelfFiles;
import ell.work.kit.Buying;
import ell.work.kit.Labels;
import ell.work.space.ActException;
import java.io.IOException;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// What lies on the shelf now; counts, receives and orders; takes in files about it.
@Command(
    name = "shelf",
    description = "what lies on the shelf now; count it, take in files about it, print labels")
public final class ShelfCommand extends WorkspaceCommand {
  @Option(names = "--replace", description = "a shelf as CSV, counted now; replaces the shelf")
  Optional<Path> replace = Optional.empty();

  @Option(names = "--parameters", description = "what is known of parts, CSV")
  Optional<Path> parameters = Optional.empty();

  @Option(names = "--keep-offers", description = "sellers' offers, CSV, kept for the window")
  Optional<Path> offers = Optional.empty();

  @Option(names = "--count", description = "CODE=N or CODE@BIN=N: so many lie there")
  List<String> counts = new ArrayList<>();

  @Option(names = "--received", description = "CODE=N: so many have come")
  List<String> received = new ArrayList<>();

  @Option(names = "--ordered", description = "CODE=N or CODE=N@DATE: so many are under way")
  List<String> ordered = new ArrayList<>();

  @Option(names = "--attrition", description = "losses, such as small=5%%/2, tiny=10%%/5")
  Optional<String> attrition = Optional.empty();

  @Option(names = "--labels", description = "labels with bin and QR code, to a PDF")
  Optional<Path> labels = Optional.empty();

  @Mixin Replacing replacing;

  @Override
  public Integer call() throws Exception {
    boolean changes =
        replace.isPresent()
            || parameters.isPresent()
            || offers.isPresent()
            || attrition.isPresent()
            || !counts.isEmpty()
            || !received.isEmpty()
            || !ordered.isEmpty();
    try (Workshop w = changes ? open() : look()) {
      List<Entry> entries = new ArrayList<>();
      for (String c : counts) {
        String[] sides = sides(c, "CODE=N");
        String[] at = sides[0].split("@", 2);
        entries.add(
            stock(
                StockChange.COUNTED,
                at[0],
                at.length > 1 ? at[1] : "",
                sides[1],
                Optional.empty()));
      }
      for (String c : received) {
        String[] sides = sides(c, "CODE=N");
        entries.add(stock(StockChange.RECEIVED, sides[0], "", sides[1], Optional.empty()));
      }
      for (String c : ordered) {
        String[] sides = sides(c, "CODE=N@DATE");
        String[] at = sides[1].split("@", 2);
        entries.add(
            stock(
                StockChange.ORDERED,
                sides[0],
                "",
                at[0],
                at.length > 1 ? Optional.of(date(at[1])) : Optional.empty()));
      }
      // files first: each is read whole before anything is kept
      var shelf = replace.isPresent() ? Optional.of(ShelfFiles.shelf(replace.get())) : none();
      Optional<Map<String, Map<String, String>>> known =
          parameters.isPresent()
              ? Optional.of(ShelfFiles.parameters(parameters.get()))
              : Optional.empty();
      if (labels.isPresent()) {
        Output.allow(labels.get(), replacing.over(file)); // before anything is kept
      }
      if (changes) {
        w.space().whole(() -> keep(w, entries, shelf, known));
      }
      if (labels.isPresent()) {
        Labels.write(
            w.stockroom().now().lines(), w.book().head(), labels.get(), replacing.over(file));
      }
      StockFold now = w.stockroom().now();
      show(now);
    }
    return Exit.DONE;
  }

  private void keep(
      Workshop w,
      List<Entry> entries,
      Optional<List<ShelfLine>> shelf,
      Optional<Map<String, Map<String, String>>> known)
      throws IOException, ActException {
    if (offers.isPresent()) {
      Buying.keep(w.space(), offers.get());
    }
    if (attrition.isPresent()) {
      w.stockroom().setAttrition(attrition.get());
    }
    if (shelf.isPresent()) {
      w.stockroom().replace(shelf.get());
    }
    if (known.isPresent()) {
      w.book().putParameters(known.get());
    }
    if (!entries.isEmpty()) {
      w.log("", entries).orThrow();
    }
  }

  private static Optional<List<ShelfLine>> none() {
    return Optional.empty();
  }

  private static String[] sides(String text, String expected) throws ActException {
    int eq = text.lastIndexOf('=');
    if (eq < 1 || eq == text.length() - 1) {
      throw new ActException("expected " + expected + ", found '" + text + "'");
    }
    return new String[] {text.substring(0, eq).strip(), text.substring(eq + 1).strip()};
  }

  private static Entry.Stock stock(
      StockChange change, String code, String bin, String number, Optional<LocalDate> due)
      throws ActException {
    if (!number.matches("\\d{1,9}")) {
      throw new ActException(
          "expected a whole number not below 0 of " + code + ", found '" + number + "'");
    }
    return new Entry.Stock(change, code, bin, Long.parseLong(number), due, "");
  }

  private void show(StockFold now) {
    if (json) {
      ObjectNode o = Json.object();
      ArrayNode lines = o.putArray("lines");
      for (ShelfLine l : now.lines()) {
        ObjectNode one =
            lines
                .addObject()
                .put("code", l.code())
                .put("kind", l.kind().key())
                .put("quantity", l.quantity())
                .put("bin", l.bin())
                .put("onOrder", l.onOrder());
        l.expected().ifPresent(d -> one.put("expected", d.toString()));
        l.expiry().ifPresent(d -> one.put("expiry", d.toString()));
      }
      ObjectNode over = o.putObject("overdrawn");
      now.overdrawn().forEach(over::put);
      print(o);
      return;
    }
    for (ShelfLine l : now.lines()) {
      out()
          .println(
              String.format("%8d  %-16s ", l.quantity(), l.code())
                  + (l.bin().isEmpty() ? "" : "bin " + l.bin() + " ")
                  + (l.kind() == ShelfLine.Kind.PART ? "" : l.kind().key() + " ")
                  + (l.onOrder() > 0
                      ? l.onOrder()
                          + " on order"
                          + l.expected().map(d -> " for " + d).orElse("")
                          + " "
                      : "")
                  + l.expiry().map(d -> "use by " + d).orElse(""));
    }
    now.overdrawn()
        .forEach((code, n) ->
            out().println("mind: " + n + " more " + code + " were taken than were counted"));
    labels.ifPresent(l -> out().println("wrote " + l));
  }
}
