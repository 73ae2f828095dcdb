package ell.core.talk;

import ell.core.board.Revision;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/// What somebody said of loading and talking, a line each:
///
/// ```
/// link JP1 solder closed          link JP1 none
/// operation program open JP1 JP2 closed JP3 in J3 out M1 after identity
/// line U4 tx=U4.39 rx=U4.40 at=TP7,TP8 baud=115200     line none
/// strap U4.44 runs low            strap U4.44 none
/// memory U6 protect=U6.7 high     memory none
/// shares M1 out=J6.4              shares M1 none
/// ```
///
/// @param links by part; empty where the part is said to be none
/// @param operations by name
/// @param port the line; one without joints where it is said that there is none
/// @param straps by joint; empty where the joint is said to be none
/// @param memory one without a part where it is said that there is none
record TalkSaid(
    Map<String, Optional<Link>> links,
    Map<String, Operation> operations,
    Optional<SerialPort> port,
    Map<String, Optional<Strap>> straps,
    Optional<Memory> memory,
    List<Sharer> sharers) {
  /// Of a revision of which nothing was said.
  static final TalkSaid NOTHING =
      new TalkSaid(Map.of(), Map.of(), Optional.empty(), Map.of(), Optional.empty(), List.of());

  /// Reads lines.
  ///
  /// @throws IllegalArgumentException with the line and what was expected
  static TalkSaid of(Revision r, List<String> lines) {
    Reader reader = new Reader(r);
    for (String l : lines) {
      try {
        reader.read(l.strip());
      } catch (IllegalArgumentException e) {
        throw new IllegalArgumentException("'" + l.strip() + "': " + e.getMessage(), e);
      }
    }
    return new TalkSaid(
        reader.links,
        reader.operations,
        reader.port,
        reader.straps,
        reader.memory,
        List.copyOf(reader.sharers.values()));
  }

  private static final class Reader {
    private static final String KINDS =
        "expected link, operation, line, strap, memory or shares, found '";

    private final Revision r;
    private final Map<String, Optional<Link>> links = new LinkedHashMap<>();
    private final Map<String, Operation> operations = new LinkedHashMap<>();
    private Optional<SerialPort> port = Optional.empty();
    private final Map<String, Optional<Strap>> straps = new LinkedHashMap<>();
    private Optional<Memory> memory = Optional.empty();
    private final Map<String, Sharer> sharers = new LinkedHashMap<>();

    Reader(Revision r) {
      this.r = r;
    }

    void read(String line) {
      String[] w = line.split("[\\s]+");
      String[] rest = Arrays.copyOfRange(w, 1, w.length);
      switch (w[0].toLowerCase(Locale.ROOT)) {
        case "link" -> link(rest);
        case "operation" -> operation(rest);
        case "line" -> line(rest);
        case "strap" -> strap(rest);
        case "memory" -> memory(rest);
        case "shares" -> shares(rest);
        default -> throw new IllegalArgumentException(KINDS + w[0] + "'");
      }
    }

    private void link(String[] w) {
      if (w.length < 2 || w.length > 3) {
        throw new IllegalArgumentException(
            "expected a part and what it is, such as link JP1 solder closed");
      }
      String part = part(w[0]);
      String kind = w[1].toLowerCase(Locale.ROOT);
      if (kind.equals("none")) {
        links.put(part, Optional.empty());
        return;
      }
      Link.Kind k =
          Arrays.stream(Link.Kind.values())
              .filter(x -> x.word().equals(kind))
              .findFirst()
              .orElseThrow(() ->
                  new IllegalArgumentException(
                      "a link is changed by solder, jumper or switch, found '" + w[1] + "'"));
      if (r.jointsOf(part).stream().map(j -> j.net()).distinct().count() < 2) {
        throw new IllegalArgumentException(
            part + " does not lie between two nets: it links nothing");
      }
      boolean closed = w.length > 2 && closed(w[2]);
      links.put(part, Optional.of(new Link(part, k, closed, false)));
    }

    private static boolean closed(String word) {
      return switch (word.toLowerCase(Locale.ROOT)) {
        case "closed" -> true;
        case "open" -> false;
        default ->
            throw new IllegalArgumentException("expected open or closed, found '" + word + "'");
      };
    }

    private void operation(String[] w) {
      if (w.length < 1) {
        throw new IllegalArgumentException(
            "expected a name and what it needs, such as operation program open JP1 out M1");
      }
      if (w.length == 2 && w[1].equalsIgnoreCase("none")) {
        operations.remove(w[0]);
        return;
      }
      Map<String, Boolean> must = new LinkedHashMap<>();
      Map<String, Boolean> plugs = new LinkedHashMap<>();
      List<String> after = new ArrayList<>();
      String mode = "";
      for (int i = 1; i < w.length; i++) {
        String x = w[i].replaceAll(",$", "");
        switch (x.toLowerCase(Locale.ROOT)) {
          case "open", "closed", "in", "out", "after" -> mode = x.toLowerCase(Locale.ROOT);
          default -> {
            switch (mode) {
              case "open", "closed" -> once(must, part(x), mode.equals("closed"));
              case "in", "out" -> once(plugs, part(x), mode.equals("in"));
              case "after" -> after.add(x);
              default ->
                  throw new IllegalArgumentException(
                      "expected open, closed, in, out or after before '" + x + "'");
            }
          }
        }
      }
      if (after.contains(w[0])) {
        throw new IllegalArgumentException("it comes after itself");
      }
      operations.put(w[0], new Operation(w[0], must, plugs, after));
    }

    private static void once(Map<String, Boolean> all, String part, boolean as) {
      Boolean before = all.putIfAbsent(part, as);
      if (before != null && before != as) {
        throw new IllegalArgumentException(part + " cannot be both");
      }
    }

    private void line(String[] w) {
      if (w.length == 1 && w[0].equalsIgnoreCase("none")) {
        port = Optional.of(new SerialPort("", "", "", "", "", 0, false, false));
        return;
      }
      if (w.length < 2) {
        throw new IllegalArgumentException(
            "expected the controller and its joints, such as line U4 tx=U4.39 rx=U4.40"
                + " at=TP7,TP8 baud=115200");
      }
      String controller = part(w[0]);
      Map<String, String> said = named(w, 1, Set.of("tx", "rx", "at", "baud", "usb"));
      boolean usb = said.containsKey("usb");
      String tx = joint(said.getOrDefault("tx", ""), "tx");
      String rx = joint(said.getOrDefault("rx", ""), "rx");
      String[] at = said.getOrDefault("at", tx + "," + rx).split(",");
      if (at.length != 2) {
        throw new IllegalArgumentException(
            "at= names two places, where the cable hears and where it speaks");
      }
      int baud = SerialPort.USUAL_BAUD;
      if (said.containsKey("baud")) {
        try {
          baud = Integer.parseInt(said.get("baud"));
        } catch (NumberFormatException e) {
          baud = 0;
        }
        if (baud < 50 || baud > 12_000_000) {
          throw new IllegalArgumentException(
              "a baud rate is in 50...12000000, found '" + said.get("baud") + "'");
        }
      }
      port =
          Optional.of(
              new SerialPort(controller, tx, rx, place(at[0]), place(at[1]), baud, usb, false));
    }

    private void strap(String[] w) {
      if (w.length == 2 && w[1].equalsIgnoreCase("none")) {
        straps.put(joint(w[0], "strap"), Optional.empty());
        return;
      }
      if (w.length != 3 || !w[1].equalsIgnoreCase("runs")) {
        throw new IllegalArgumentException(
            "expected a joint and the level at which the program runs, such as strap U4.44 runs low");
      }
      straps.put(
          joint(w[0], "strap"), Optional.of(new Strap(joint(w[0], "strap"), high(w[2]), false)));
    }

    private void memory(String[] w) {
      if (w.length == 1 && w[0].equalsIgnoreCase("none")) {
        memory = Optional.of(new Memory("", "", true, false));
        return;
      }
      if (w.length < 1 || w.length > 3 || w[0].isEmpty()) {
        throw new IllegalArgumentException(
            "expected a part and what protects it, such as memory U6 protect=U6.7 high");
      }
      String part = part(w[0]);
      String protect = "";
      boolean high = true;
      for (int i = 1; i < w.length; i++) {
        if (w[i].startsWith("protect=")) {
          protect = joint(w[i].substring(8), "protect");
        } else {
          high = high(w[i]);
        }
      }
      memory = Optional.of(new Memory(part, protect, high, false));
    }

    private void shares(String[] w) {
      if (w.length == 2 && w[1].equalsIgnoreCase("none")) {
        sharers.remove(w[0]);
        return;
      }
      if (w.length != 2 || !w[1].startsWith("out=")) {
        throw new IllegalArgumentException(
            "expected a part and where it speaks, such as shares M1 out=J6.4");
      }
      sharers.put(w[0], new Sharer(part(w[0]), joint(w[1].substring(4), "out")));
    }

    private static boolean high(String word) {
      return switch (word.toLowerCase(Locale.ROOT)) {
        case "high", "1" -> true;
        case "low", "0" -> false;
        default -> throw new IllegalArgumentException("expected high or low, found '" + word + "'");
      };
    }

    private static Map<String, String> named(String[] w, int from, Set<String> known) {
      Map<String, String> all = new LinkedHashMap<>();
      for (int i = from; i < w.length; i++) {
        int eq = w[i].indexOf('=');
        String key = (eq < 0 ? w[i] : w[i].substring(0, eq)).toLowerCase(Locale.ROOT);
        if (!known.contains(key) || eq < 0 && !key.equals("usb")) {
          Set<String> sorted = new java.util.TreeSet<>(new HashSet<>(known));
          throw new IllegalArgumentException(
              "expected " + String.join("=, ", sorted) + ", found '" + w[i] + "'");
        }
        all.put(key, eq < 0 ? "" : w[i].substring(eq + 1));
      }
      return all;
    }

    private String part(String name) {
      if (r.part(name).isEmpty() && r.jointsOf(name).isEmpty()) {
        throw new IllegalArgumentException("the board has no part " + name);
      }
      return name;
    }

    private String joint(String name, String what) {
      if (r.joint(name).isEmpty()) {
        throw new IllegalArgumentException(
            what + " is a joint of the board, such as U4.39; found '" + name + "'");
      }
      return name;
    }

    private String place(String name) {
      if (!r.net(name).isEmpty()) {
        return name;
      }
      if (name.lastIndexOf('.') < 1 && !r.jointsOf(name).isEmpty()) {
        return r.jointsOf(name).getFirst().place();
      }
      return joint(name, "a place");
    }
  }
}
