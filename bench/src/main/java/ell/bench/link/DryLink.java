package ell.bench.link;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/// A link to nothing: it writes down what is sent, and answers as a supply does that obeys and
/// feeds a board that draws what it should. For a rehearsal, in which nothing is switched on.
public final class DryLink implements ScpiLink {
  private final List<String> sent = new ArrayList<>();
  private final Map<String, String> set = new HashMap<>(Map.of("OUTP", "0"));
  private double amps;

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

  @Override
  public void send(String command) {
    sent.add(command);
    String[] words = command.split(" ", 2);
    if (words.length == 2) {
      String value = words[1];
      set.put(words[0], value.equals("ON") ? "1" : value.equals("OFF") ? "0" : value);
    }
  }

  @Override
  public String ask(String query) {
    sent.add(query);
    boolean on = set.get("OUTP").equals("1");
    return switch (query) {
      case "SYST:ERR?" -> "0,\"No error\"";
      case "*IDN?" -> "nothing,rehearsal,0,0";
      case "MEAS:VOLT?" -> on ? set.getOrDefault("VOLT", "0") : "0";
      case "MEAS:CURR?" -> on ? String.format(Locale.ROOT, "%.6g", amps) : "0";
      default -> set.getOrDefault(query.replace("?", ""), "0");
    };
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
