package ell.cli.beep;

import ell.bench.instrument.Meter;
import ell.cli.bench.BenchOptions;
import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.Which;
import ell.cli.shell.WorkspaceCommand;
import ell.core.beep.BeepCheck;
import ell.core.beep.BeepList;
import ell.core.entry.Entry;
import ell.core.entry.EntryWords;
import ell.core.entry.Logged;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import ell.core.rack.Plan;
import ell.work.Workshop;
import ell.work.beep.Against;
import ell.work.beep.BeepRun;
import ell.work.space.ActException;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// The checks before any power, listed or made with a meter.
@Command(name = "beep", description = "the checks before any power; with --go made with a meter")
public final class BeepCommand extends WorkspaceCommand {
  @Mixin Which which;
  @Mixin BenchOptions bench;

  @Option(names = "--board", description = "serial of the board, with --go")
  Optional<String> board = Optional.empty();

  @Option(names = "--go", description = "make the checks that power waits for, and log them")
  boolean go;

  @Option(names = "--all", description = "with --go, make every check of the list")
  boolean all;

  @Option(
      names = "--short",
      arity = "2",
      paramLabel = "NET",
      description = "where these two nets, which should be apart, most likely touch")
  List<String> shorted = List.of();

  @Option(
      names = "--at",
      paramLabel = "PLACE=OHMS",
      description =
          "with --short, what a milliohm meter shows from this joint, its other tip staying where it"
              + " is; three or more point to the place")
  List<String> at = List.of();

  @Option(
      names = "--feed",
      paramLabel = "PLACE=AMPS",
      description =
          "with --short, where a small current from a supply is forced into one net and out of the"
              + " other, board unpowered; the values of --at are volts along that net then")
  Optional<String> feed = Optional.empty();

  @Option(
      names = "--transfer",
      description = "every connection, part by part, ticked off against what was beeped")
  boolean transfer;

  @Option(names = "--part", description = "with --transfer, this part only")
  Optional<String> part = Optional.empty();

  @Option(
      names = "--against",
      paramLabel = "FILE",
      description = "what differs between the revision and this netlist, by what is joined")
  Optional<Path> against = Optional.empty();

  @Override
  public Integer call() throws Exception {
    int asked =
        (go ? 1 : 0)
            + (shorted.isEmpty() ? 0 : 1)
            + (transfer ? 1 : 0)
            + (against.isPresent() ? 1 : 0);
    if (asked > 1) {
      throw new ActException("one of --go, --short, --transfer and --against");
    }
    boolean along = !at.isEmpty() || feed.isPresent();
    if (along && shorted.isEmpty() || part.isPresent() && !transfer) {
      throw new ActException("--at and --feed go with --short, and --part with --transfer");
    }
    if (asked == 0 || go) {
      return go ? make() : list();
    }
    try (Workshop w = look()) {
      Plan plan = board.isPresent() ? w.plan(w.buildOf(board.get())) : which.plan(w);
      Connections connections = new Connections(out(), json);
      if (!shorted.isEmpty()) {
        return connections.shorts(w, plan, board, shorted, feed, at);
      }
      return transfer
          ? connections.transfer(w, plan, board, part)
          : connections.against(Against.of(plan.revision(), against.get()));
    }
  }

  private int list() throws Exception {
    try (Workshop w = look()) {
      BeepList list =
          board.isPresent() ? w.plan(w.buildOf(board.get())).beep() : which.plan(w).beep();
      if (json) {
        print(BeepJson.of(list));
        return Exit.DONE;
      }
      for (BeepCheck c : list.checks()) {
        out()
            .printf(
                "%5d  %-10s %-10s %-10s expect %-22s %s%s%n",
                c.number(),
                c.kind().key(),
                c.a().place(),
                c.b().place(),
                c.expected().text(Unit.OHM, 3),
                c.guards() ? "(power waits) " : "",
                c.why());
      }
      list.coverage().words().forEach(out()::println);
    }
    return Exit.DONE;
  }

  private int make() throws Exception {
    String serial = board.orElseThrow(() -> new ActException("which board? say --board B"));
    try (Workshop w = open()) {
      BeepList list = w.plan(w.buildOf(serial)).beep();
      List<BeepCheck> checks = all ? list.checks() : list.guarding();
      boolean held = true;
      ArrayNode entries = Json.object().putArray("entries");
      try (BenchOptions.Opened b = bench.open(w, Meter.KIND);
          BeepRun run = new BeepRun(w.acts(), serial, b.bench())) {
        for (BeepCheck c : checks) {
          Logged l = run.check(c);
          entries.add(Json.entry(l));
          held &= ((Entry.Check) l.entry()).verdict() == Verdict.WITHIN;
          if (!json) {
            out().println("entry " + l.number() + " · " + EntryWords.of(l.entry()));
          }
        }
      }
      if (json) {
        ObjectNode o = Json.object().put("board", serial).put("held", held);
        o.set("entries", entries);
        print(o);
      }
      return held ? Exit.DONE : Exit.NOT_HELD;
    }
  }
}
