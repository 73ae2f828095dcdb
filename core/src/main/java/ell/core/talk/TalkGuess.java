package ell.core.talk;

import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// What names and the bill tell of links, lines, straps and memories where nobody said anything.
/// Each guess is told with the line that puts it right.
final class TalkGuess {
  private static final Pattern SPEAKS =
      Pattern.compile("(?i)(.*?)(?:^|[_\\-./]|(?<=[A-Z0-9]))(TXD?|RXD?)(\\d*)");
  private static final Pattern PAIR =
      Pattern.compile("(?i)(.*?)(?:USB)?_?(D\\+|D-|DP|DM|DPLUS|DMINUS|D_P|D_N)(\\d*)");

  private TalkGuess() {}

  static List<Link> links(Revision r, TalkSaid said, List<String> told) {
    List<Link> all = new ArrayList<>();
    List<String> guessed = new ArrayList<>();
    for (String ref : new TreeSet<>(r.withJoints())) {
      if (said.links().containsKey(ref)) {
        said.links().get(ref).ifPresent(all::add);
      } else if (named(r, ref)) {
        Link l = guess(r, ref);
        all.add(l);
        guessed.add(ref + " (" + l.kind().word() + ")");
      }
    }
    said.links()
        .forEach((p, l) -> {
          if (l.isPresent() && all.stream().noneMatch(x -> x.part().equals(p))) {
            all.add(l.get());
          }
        });
    if (!guessed.isEmpty()) {
      told.add(
          (guessed.size() == 1 ? "taken for a link, open: " : "taken for links, open: ")
              + String.join(", ", guessed)
              + "; put right by: link "
              + guessed.getFirst().split(" ")[0]
              + " solder closed, or none");
    }
    return all;
  }

  private static boolean named(Revision r, String ref) {
    List<Joint> joints = r.jointsOf(ref);
    if (joints.size() < 2
        || joints.size() > 3
        || joints.stream().map(Joint::net).distinct().count() < 2) {
      return false;
    }
    String words =
        r.part(ref).map(p -> p.value() + " " + p.packageName() + " " + p.description()).orElse("");
    return switch (PartKind.letters(ref)) {
      case "JP", "SJ", "SB", "LK", "LINK", "BR", "SL" -> true;
      default ->
          words.toUpperCase(Locale.ROOT).matches(".*\\b(SOLDER (LINK|BRIDGE|JUMPER)|JUMPER)\\b.*");
    };
  }

  /// Pads without a part are joined by solder; pins with one by a jumper.
  private static Link guess(Revision r, String ref) {
    Optional<Part> p = r.part(ref);
    boolean bare = p.isEmpty() || !p.get().fitted() || p.get().packageName().isEmpty();
    boolean holes = r.jointsOf(ref).stream().allMatch(Joint::hole);
    return new Link(ref, bare && !holes ? Link.Kind.SOLDER : Link.Kind.JUMPER, false, true);
  }

  static Optional<SerialPort> port(Revision r, List<String> told) {
    Optional<SerialPort> found = uart(r).or(() -> usb(r));
    found.ifPresent(p ->
        told.add(
            (p.usb() ? "USB at " : "the line to the controller: ")
                + p.tx()
                + " and "
                + p.rx()
                + ", reached at "
                + p.heardAt()
                + " and "
                + p.spokenAt()
                + "; put right by: line "
                + p.controller()
                + " tx="
                + p.tx()
                + " rx="
                + p.rx()
                + " at="
                + p.heardAt()
                + ","
                + p.spokenAt()));
    return found;
  }

  private static Optional<SerialPort> uart(Revision r) {
    Map<String, String[]> pairs = new LinkedHashMap<>();
    for (String net : new TreeSet<>(r.nets())) {
      Matcher m = SPEAKS.matcher(net);
      if (m.matches()) {
        String[] two = pairs.computeIfAbsent(m.group(1) + "/" + m.group(3), _ -> new String[2]);
        two[m.group(2).toUpperCase(Locale.ROOT).startsWith("TX") ? 0 : 1] = net;
      }
    }
    List<SerialPort> all = new ArrayList<>();
    for (String[] two : pairs.values()) {
      if (two[0] != null && two[1] != null) {
        pair(r, two[0], two[1], false).ifPresent(all::add);
      }
    }
    // what a cable can be put on comes before what only another chip hears
    return all.stream().min(Comparator.comparingInt(p -> p.heardAt().equals(p.tx()) ? 1 : 0));
  }

  private static Optional<SerialPort> usb(Revision r) {
    String plus = null;
    String minus = null;
    for (String net : new TreeSet<>(r.nets())) {
      Matcher m = PAIR.matcher(net);
      boolean chip = r.net(net).stream().anyMatch(j -> thinks(r, j.part()));
      if (m.matches() && chip) {
        boolean p = m.group(2).matches("(?i)D\\+|DP|DPLUS|D_P");
        plus = p && plus == null ? net : plus;
        minus = !p && minus == null ? net : minus;
      }
    }
    return plus == null || minus == null ? Optional.empty() : pair(r, plus, minus, true);
  }

  private static Optional<SerialPort> pair(Revision r, String tx, String rx, boolean usb) {
    Optional<String> controller =
        r.net(tx).stream()
            .map(Joint::part)
            .filter(p -> thinks(r, p) && r.net(rx).stream().anyMatch(j -> j.part().equals(p)))
            .max(Comparator.comparingInt(p -> r.jointsOf(p).size()));
    if (controller.isEmpty()) {
      return Optional.empty();
    }
    String a = on(r, tx, controller.get());
    String b = on(r, rx, controller.get());
    return Optional.of(
        new SerialPort(
            controller.get(),
            a,
            b,
            reach(r, tx, a),
            reach(r, rx, b),
            usb ? 0 : SerialPort.USUAL_BAUD,
            usb,
            true));
  }

  private static String on(Revision r, String net, String part) {
    return r.net(net).stream()
        .filter(j -> j.part().equals(part))
        .map(Joint::place)
        .findFirst()
        .orElseThrow();
  }

  /// Where a cable reaches a net: a connector or a test point on it, or behind one resistor.
  private static String reach(Revision r, String net, String otherwise) {
    return outside(r, net)
        .or(() ->
            r.net(net).stream()
                .map(Joint::part)
                .filter(p -> PartKind.of(p) == PartKind.RESISTOR)
                .flatMap(p -> r.jointsOf(p).stream())
                .filter(j -> j.connected() && !j.net().equals(net))
                .flatMap(j -> outside(r, j.net()).stream())
                .findFirst())
        .orElse(otherwise);
  }

  private static Optional<String> outside(Revision r, String net) {
    return r.net(net).stream()
        .filter(j -> {
          PartKind k = PartKind.of(j.part());
          return k == PartKind.CONNECTOR && !PartKind.letters(j.part()).equals("JP")
              || k == PartKind.TEST_POINT;
        })
        .map(Joint::place)
        .findFirst();
  }

  private static boolean thinks(Revision r, String part) {
    PartKind k = r.part(part).map(PartKind::of).orElse(PartKind.of(part));
    return k == PartKind.CHIP || k == PartKind.MODULE;
  }

  static List<Strap> straps(
      Revision r, TalkSaid said, Optional<SerialPort> port, List<String> told) {
    List<Strap> all = new ArrayList<>();
    said.straps().values().forEach(s -> s.ifPresent(all::add));
    if (port.isEmpty()) {
      return all;
    }
    for (Joint j : r.jointsOf(port.get().controller())) {
      if (!j.net().toUpperCase(Locale.ROOT).matches("(.*_)?(BOOT|STRAP)[_\\d]*.*")
          || said.straps().containsKey(j.place())) {
        continue;
      }
      boolean high = r.net(j.net()).stream().noneMatch(o -> toGround(r, o));
      all.add(new Strap(j.place(), high, true));
      told.add(
          "a strap at "
              + j.place()
              + ": the program runs with it "
              + (high ? "high" : "low")
              + ", as it is pulled; put right by: strap "
              + j.place()
              + " runs "
              + (high ? "low" : "high")
              + ", or none");
    }
    return all;
  }

  private static boolean toGround(Revision r, Joint j) {
    return PartKind.of(j.part()) == PartKind.RESISTOR
        && r.jointsOf(j.part()).stream()
            .anyMatch(o -> o.net().toUpperCase(Locale.ROOT).matches("GND|VSS|0V|GROUND|AGND|DGND"));
  }

  static Optional<Memory> memory(Revision r, List<String> told) {
    for (Part p : r.parts()) {
      String words = (p.value() + " " + p.code() + " " + p.description()).toUpperCase(Locale.ROOT);
      if (!p.fitted() || p.kind() != PartKind.CHIP || !words.matches(".*\\b(EEPROM|EEP\\d*).*")) {
        continue;
      }
      String protect =
          r.jointsOf(p.reference()).stream()
              .filter(j ->
                  j.net().toUpperCase(Locale.ROOT).matches("(.*_)?(WP|WPROT|WRITE_?PROTECT)\\d*"))
              .map(Joint::place)
              .findFirst()
              .orElse("");
      told.add(
          "the memory for settings is "
              + p.reference()
              + (protect.isEmpty() ? "" : ", protected by " + protect + " high")
              + "; put right by: memory "
              + p.reference()
              + " protect=JOINT high, or memory none");
      return Optional.of(new Memory(p.reference(), protect, true, true));
    }
    return Optional.empty();
  }
}
