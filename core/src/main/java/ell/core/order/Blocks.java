package ell.core.order;

import ell.core.board.Block;
import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import ell.core.power.Ladder;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/// The blocks of a revision: as the files name them, else proposed: supply, then controller and
/// clock, then interfaces, then what is left. Common practice, no source.
public final class Blocks {
  private Blocks() {}

  /// Blocks in build order, every fitted part that has a place or joints in exactly one: no gate
  /// waits for a screw or a cable.
  public static List<Block> of(Revision revision, Ladder ladder) {
    return fitted(revision).stream().anyMatch(p -> !p.block().isEmpty())
        ? named(revision)
        : proposed(revision, ladder);
  }

  private static List<Block> named(Revision revision) {
    Map<String, List<String>> parts = new LinkedHashMap<>();
    for (Part p : fitted(revision)) {
      if (!p.block().isEmpty()) {
        parts.computeIfAbsent(p.block(), _ -> new ArrayList<>()).add(p.reference());
      }
    }
    List<String> rest =
        fitted(revision).stream().filter(p -> p.block().isEmpty()).map(Part::reference).toList();
    if (!rest.isEmpty()) {
      parts.computeIfAbsent("rest", _ -> new ArrayList<>()).addAll(rest);
    }
    List<Block> blocks = new ArrayList<>();
    parts.forEach((name, refs) -> blocks.add(block(name, refs)));
    // a stable sort: names that say their place go there, the others keep the order of the file
    blocks.sort(Comparator.comparingInt(b -> rank(b.name())));
    return List.copyOf(blocks);
  }

  private static int rank(String name) {
    String n = name.toLowerCase(java.util.Locale.ROOT);
    if (n.matches(".*(supply|power|psu).*")) {
      return 0;
    }
    if (n.matches(".*(control|mcu|cpu|clock|core).*")) {
      return 1;
    }
    if (n.matches(".*(prog|debug|link).*")) {
      return 2;
    }
    return n.matches(".*(load|rest|module|tall).*") ? 4 : 3;
  }

  private static Block block(String name, List<String> parts) {
    return switch (rank(name)) {
      case 0 ->
          new Block(
              name, "rails", "Every rail that this block makes reads within its limits.", parts);
      case 1 ->
          new Block(
              name,
              "boots",
              "The controller runs from its clock and answers on its programming link.",
              parts);
      case 2 -> new Block(name, "loads", "Firmware loads and verifies.", parts);
      default -> new Block(name, name, "What " + name + " does is seen to work.", parts);
    };
  }

  private static List<Block> proposed(Revision revision, Ladder ladder) {
    Set<String> taken = new HashSet<>();
    List<Block> blocks = new ArrayList<>();
    Set<String> rails = new HashSet<>();
    ladder.rails().forEach(r -> rails.add(r.net()));
    List<String> supply = new ArrayList<>();
    Set<String> steps = new HashSet<>();
    ladder.steps().forEach(s -> steps.add(s.part()));
    Set<String> supplyNets = new HashSet<>(rails);
    supplyNets.add(ladder.ground());
    for (String s : steps) {
      revision.jointsOf(s).forEach(j -> supplyNets.add(j.net()));
    }
    for (Part p : fitted(revision)) {
      PartKind k = p.kind();
      boolean onlySupply =
          k != PartKind.CHIP
              && k != PartKind.MODULE
              && k != PartKind.TRANSISTOR
              && revision.jointsOf(p.reference()).stream()
                  .allMatch(j -> !j.connected() || supplyNets.contains(j.net()))
              && !revision.jointsOf(p.reference()).isEmpty();
      if (steps.contains(p.reference()) || onlySupply && !besideChip(revision, p, steps, rails)) {
        supply.add(p.reference());
      }
    }
    entry(revision, ladder, supply).ifPresent(supply::add);
    take(blocks, taken, "supply", supply);
    Optional<Part> controller =
        fitted(revision).stream()
            .filter(p -> p.kind() == PartKind.CHIP && !taken.contains(p.reference()))
            .filter(p -> programmed(revision, p))
            .max(Comparator.comparingInt(p -> revision.jointsOf(p.reference()).size()));
    controller.ifPresent(c -> {
      Set<String> near = new HashSet<>(Set.of(c.reference()));
      for (Joint j : revision.jointsOf(c.reference())) {
        if (j.connected() && !supplyNets.contains(j.net())) {
          revision.net(j.net()).forEach(o -> near.add(o.part()));
        }
      }
      take(
          blocks,
          taken,
          "controller",
          fitted(revision).stream()
              .filter(p ->
                  near.contains(p.reference())
                      && (p.reference().equals(c.reference())
                          || small(p)
                          || p.kind() == PartKind.CRYSTAL
                          || link(revision, p)))
              .map(Part::reference)
              .toList());
    });
    take(
        blocks,
        taken,
        "interfaces",
        fitted(revision).stream()
            .filter(p -> p.kind() != PartKind.MODULE && p.kind() != PartKind.CELL)
            .map(Part::reference)
            .toList());
    take(blocks, taken, "modules", fitted(revision).stream().map(Part::reference).toList());
    return List.copyOf(blocks);
  }

  private static final String LINK =
      ".*(SWD|SWCLK|SWDIO|SWIM|JTAG|\\bT(MS|CK|DI|DO)\\b|RESET|NRST|\\bRST|UPDI|PROG|BOOT|\\bPG[CD]\\b|\\bDTR\\b|ISP|ICSP|\\bMISO\\b|\\b[TR]XD?0?\\b).*";

  /// Whether a chip runs a program: its words say so, a clock hangs on it, or a programming link.
  private static boolean programmed(Revision revision, Part chip) {
    String words =
        (chip.value() + " " + chip.code() + " " + chip.description())
            .toUpperCase(java.util.Locale.ROOT);
    if (words.matches(
        ".*(MCU|CPU|CONTROLLER|PROCESSOR|FPGA|CPLD|\\bSOC\\b|RADIO|WIRELESS|MODULE).*")) {
      return true;
    }
    for (Joint j : revision.jointsOf(chip.reference())) {
      if (!j.connected()) {
        continue;
      }
      if (j.net()
          .toUpperCase(java.util.Locale.ROOT)
          .matches(".*(SWD|SWCLK|SWIM|JTAG|UPDI|NRST|RESET|ICSP|\\bPG[CD]\\b|BOOT).*")) {
        return true;
      }
      if (revision.net(j.net()).stream().anyMatch(o -> PartKind.of(o.part()) == PartKind.CRYSTAL)) {
        return true;
      }
    }
    return false;
  }

  /// Whether a connector carries a programming link: the gate asks for it, so it is fitted before.
  private static boolean link(Revision revision, Part p) {
    return p.kind() == PartKind.CONNECTOR
        && revision.jointsOf(p.reference()).stream()
                .filter(
                    j -> j.connected() && j.net().toUpperCase(java.util.Locale.ROOT).matches(LINK))
                .map(Joint::net)
                .distinct()
                .count()
            >= 2;
  }

  /// The connector by which the first source comes in, when none that carries nothing else does:
  /// the one with the fewest other nets. Without it no rail can be proved.
  private static Optional<String> entry(Revision revision, Ladder ladder, List<String> supply) {
    if (ladder.sources().isEmpty()) {
      return Optional.empty();
    }
    String rail = ladder.sources().getFirst().rail();
    List<Part> in =
        fitted(revision).stream()
            .filter(p -> p.kind() == PartKind.CONNECTOR || p.kind() == PartKind.CELL)
            .filter(p -> on(revision, p, rail) && on(revision, p, ladder.ground()))
            .toList();
    if (in.stream().anyMatch(p -> supply.contains(p.reference()))) {
      return Optional.empty();
    }
    return in.stream()
        .min(
            Comparator.comparingLong(p ->
                revision.jointsOf(p.reference()).stream()
                    .filter(Joint::connected)
                    .map(Joint::net)
                    .distinct()
                    .count()))
        .map(Part::reference);
  }

  private static boolean on(Revision revision, Part p, String net) {
    return revision.jointsOf(p.reference()).stream().anyMatch(j -> j.net().equals(net));
  }

  /// Whether a small part sits next to a chip that is not a regulator, as a decoupling capacitor
  /// does.
  private static boolean besideChip(
      Revision revision, Part p, Set<String> steps, Set<String> rails) {
    if (p.kind() != PartKind.CAPACITOR || p.place().isEmpty()) {
      return false;
    }
    double best = Double.POSITIVE_INFINITY;
    String nearest = "";
    for (Joint j : revision.jointsOf(p.reference())) {
      if (!rails.contains(j.net())) {
        continue;
      }
      for (Joint o : revision.net(j.net())) {
        PartKind k = PartKind.of(o.part());
        if ((k == PartKind.CHIP || k == PartKind.MODULE || steps.contains(o.part()))
            && o.distanceMm(j) < best) {
          best = o.distanceMm(j);
          nearest = o.part();
        }
      }
    }
    return !nearest.isEmpty() && !steps.contains(nearest);
  }

  private static boolean small(Part p) {
    return switch (p.kind()) {
      case RESISTOR, CAPACITOR, FERRITE, CRYSTAL, DIODE -> true;
      default -> false;
    };
  }

  private static List<Part> fitted(Revision revision) {
    return revision.parts().stream()
        .filter(Part::fitted)
        .filter(p -> p.place().isPresent() || !revision.jointsOf(p.reference()).isEmpty())
        .toList();
  }

  private static void take(List<Block> blocks, Set<String> taken, String name, List<String> parts) {
    List<String> own = parts.stream().filter(taken::add).toList();
    if (!own.isEmpty()) {
      blocks.add(block(name, own));
    }
  }
}
