package ell.cli.bench;

import ell.bench.dialect.Dialect;
import ell.bench.link.Address;
import ell.bench.link.BenchException;
import ell.bench.link.LineLink;
import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.work.bench.DialectFiles;
import ell.work.space.ActException;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import tools.jackson.databind.node.ObjectNode;

/// Reads a dialect file, shows what would be sent, and asks an instrument its questions.
@Command(
    name = "bench-check",
    description =
        "read a dialect file (or the generic one of a kind), show each line as it would be sent,"
            + " and with --at ask an instrument the questions among them; nothing is switched or set")
public final class BenchCheckCommand implements Callable<Integer> {
  @Parameters(
      index = "0",
      paramLabel = "FILE",
      description = "a dialect file, or supply, meter or plate for the generic one")
  String what = "";

  @Option(
      names = "--at",
      paramLabel = "ADDRESS",
      description = "host:port, or serial:NAME@baud,8N1 of an instrument to ask")
  Optional<String> at = Optional.empty();

  @Option(names = "--timeout", description = "for each answer, in milliseconds")
  int timeoutMillis = 3000;

  @Option(names = "--json", description = "as one JSON object")
  boolean json;

  @Spec CommandSpec spec;

  @Override
  public Integer call() throws Exception {
    if (timeoutMillis <= 0 || timeoutMillis > 600_000) {
      throw new ActException("--timeout is in 1...600000 ms, got " + timeoutMillis);
    }
    Dialect d = dialect();
    Map<String, String> answers = new LinkedHashMap<>();
    int silent = 0;
    if (at.isPresent()) {
      try (LineLink link = new Address(at.get()).connect(timeoutMillis)) {
        link.lineEnd(d.lineEnd());
        for (Map.Entry<String, String> q : d.questions().entrySet()) {
          try {
            answers.put(q.getKey(), link.ask(q.getValue()));
          } catch (BenchException e) {
            silent++;
            answers.put(q.getKey(), "no answer: " + e.getMessage());
          }
        }
      }
    }
    print(d, answers, silent);
    return silent == 0 ? Exit.DONE : Exit.NOT_HELD;
  }

  private Dialect dialect() throws Exception {
    if (what.matches("supply|meter|plate")) {
      return Dialect.generic(what);
    }
    return DialectFiles.read(Path.of(what));
  }

  private void print(Dialect d, Map<String, String> answers, int silent) {
    var out = spec.commandLine().getOut();
    if (json) {
      ObjectNode o = Json.object().put("kind", d.kind()).put("name", d.name());
      ObjectNode lines = o.putObject("lines");
      d.examples().forEach(lines::put);
      at.ifPresent(_ -> {
        ObjectNode said = o.putObject("answers");
        answers.forEach(said::put);
        o.put("silent", silent);
      });
      out.println(o.toString());
    } else {
      out.println(d.name() + " · " + d.kind());
      d.examples()
          .forEach((key, line) ->
              out.printf(
                  "  %-10s  %-24s%s%n",
                  key, line, answers.containsKey(key) ? "  " + answers.get(key) : ""));
      if (at.isPresent()) {
        out.println(
            silent == 0
                ? "every question was answered"
                : silent + (silent == 1 ? " question" : " questions") + " without an answer");
      }
    }
    out.flush();
  }
}
