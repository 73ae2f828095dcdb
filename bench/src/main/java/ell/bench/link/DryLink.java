package ell.bench.link;

import ell.bench.dialect.Dialect;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/// A link to nothing: it writes down what is sent, and answers as a supply does that obeys and
/// feeds a board that draws what it should. For a rehearsal, in which nothing is switched on.
public final class DryLink implements ScpiLink {
  private final Dialect says;
  private final List<String> sent = new ArrayList<>();

  /// What an output was set to, and whether it is on.
  private static final class Output {
    private String volts = "0";
    private String amps = "0";
    private boolean on;
  }

  private final Map<String, Output> outputs = new HashMap<>();
  private Output output = outputs.computeIfAbsent("1", _ -> new Output());
  private String selected = "1";
  private double amps;

  /// A link to nothing that is told in a supply's way.
  public DryLink(Dialect says) {
    this.says = says;
  }

  /// What it answers to a query of the current from now on, A.
  public void draws(double amperes) {
    amps = amperes;
  }

  /// The lines that were sent since this was asked last.
  public List<String> take() {
    List<String> all = List.copyOf(sent);
    sent.clear();
    return all;
  }

  /// What stands in the braces of a line, or null when it is another one.
  private String taken(String key, String command) {
    if (!says.has(key)) {
      return null;
    }
    String line = says.line(key, "\0");
    int at = line.indexOf('\0');
    String head = line.substring(0, at);
    String tail = line.substring(at + 1);
    return command.startsWith(head)
            && command.endsWith(tail)
            && command.length() >= head.length() + tail.length()
        ? command.substring(head.length(), command.length() - tail.length())
        : null;
  }

  @Override
  public void send(String command) {
    sent.add(command);
    if (command.equals(says.line("on"))) {
      output.on = true;
    } else if (command.equals(says.line("off"))) {
      output.on = false;
    } else if (taken("setVolts", command) != null) {
      output.volts = taken("setVolts", command);
    } else if (taken("setAmps", command) != null) {
      output.amps = taken("setAmps", command);
    } else if (taken("select", command) != null) {
      selected = taken("select", command);
      output = outputs.computeIfAbsent(selected, _ -> new Output());
    }
  }

  @Override
  public String ask(String query) {
    sent.add(query);
    if (says.has("askSelect") && query.equals(says.line("askSelect"))) {
      return selected;
    } else if (query.equals(says.line("askOn"))) {
      return output.on ? "1" : "0";
    } else if (query.equals(says.line("askVolts"))) {
      return output.volts;
    } else if (query.equals(says.line("askAmps"))) {
      return output.amps;
    } else if (query.equals(says.line("volts"))) {
      return output.on ? output.volts : "0";
    } else if (query.equals(says.line("amps"))) {
      return output.on ? String.format(Locale.ROOT, "%.6g", amps) : "0";
    }
    return "0,\"No error\"";
  }

  @Override
  public String askNext(String query) {
    return ask(query);
  }

  @Override
  public void resync() {}

  @Override
  public void patience(int millis) {}

  @Override
  public String where() {
    return "a rehearsal";
  }

  @Override
  public void close() {}
}
