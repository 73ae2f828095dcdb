package ell.core.trace;

import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.board.Revision;
import ell.core.entry.BoardState;
import ell.core.look.DefectKind;
import ell.core.power.Fault;
import ell.core.power.Ladder;
import ell.core.trace.Suspect.Origin;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/// What to do about a fault, and what must be made again because of it.
public final class Remedy {
  /// A part bears so many heatings; common practice, no source: its data sheet decides.
  public static final int MOST_HEATS = 3;

  private Remedy() {}

  /// What to do, a sentence each.
  ///
  /// @param heats how often each part was heated
  public static List<String> todo(Suspect s, Revision revision, Map<String, Integer> heats) {
    List<String> all = new ArrayList<>();
    switch (s.fault()) {
      case Fault.Open f -> all.add(joint(f.part() + "." + f.pin(), DefectKind.OPEN));
      case Fault.Resistive f -> all.add(joint(f.part() + "." + f.pin(), DefectKind.COLD));
      case Fault.Bridge f ->
          all.add("between " + f.a() + " and " + f.b() + ": " + DefectKind.BRIDGE.remedy());
      case Fault.Dead f -> all.add(f.part() + ": " + DefectKind.DEAD.remedy());
      case Fault.Short f -> all.add("replace " + f.part() + ": it joins its ends");
      case Fault.Missing f -> all.add("fit " + value(f.part(), revision));
      case Fault.Turned f -> all.add(f.part() + ": " + DefectKind.TURNED.remedy());
      case Fault.WrongValue f ->
          all.add(
              "replace "
                  + f.part()
                  + " by "
                  + value(f.part(), revision)
                  + ", and count the others of its bin");
      case Fault.Tied f -> {
        all.add(
            "lift "
                + f.part()
                + "."
                + f.pin()
                + " off "
                + f.net()
                + " (cut its track), and wire it to where it belongs");
        all.add("an erratum: every board of the revision has it");
      }
      case Fault.Loose f -> {
        String net = revision.joint(f.part(), f.pin()).map(Joint::net).orElse("its net");
        all.add("wire " + f.part() + "." + f.pin() + " to " + net);
        all.add("an erratum: every board of the revision has it");
      }
      case Fault.Link f -> all.add((f.open() ? "close " : "open ") + f.part());
      case Fault.Setting f ->
          all.add(
              switch (f.instrument()) {
                case "cable" -> "take another cable";
                case "jig" ->
                    "clean or change the jig's probe at "
                        + f.what()
                        + ", and check the jig on a bare plate";
                case "meter" -> "put the lead of the meter back into its jack for volts";
                default -> "set the " + f.instrument() + " back: it stands at " + f.what();
              });
      case Fault.Firmware _ -> all.add("load the firmware of this board and revision");
      case Fault.Sometimes _ -> all.add("press, warm and shake at the place, and count");
    }
    boolean hot =
        s.origin() == Origin.BOARD
            || s.fault() instanceof Fault.Tied
            || s.fault() instanceof Fault.Loose;
    if (hot) {
      for (String part : parts(s)) {
        int had = heats.getOrDefault(part, 0);
        int left = MOST_HEATS - had;
        if (revision.part(part).isPresent()) {
          all.add(
              left > 0
                  ? part
                      + " was heated "
                      + had
                      + (had == 1 ? " time" : " times")
                      + ": "
                      + left
                      + " left, its data sheet decides"
                  : part
                      + " was heated "
                      + had
                      + " times: fit a new one instead of heating it again");
        }
      }
    }
    return all;
  }

  private static String joint(String place, DefectKind k) {
    return place + ": " + k.remedy();
  }

  private static String value(String part, Revision revision) {
    return part
        + revision
            .part(part)
            .map(Part::label)
            .filter(l -> !l.isEmpty())
            .map(l -> " (" + l + ")")
            .orElse("");
  }

  private static Set<String> parts(Suspect s) {
    Set<String> parts = new LinkedHashSet<>();
    s.places().forEach(p -> parts.add(BoardState.part(p)));
    return parts;
  }

  /// What must be made again once it is mended, as lines of the tape where there are such.
  public static List<String> again(Suspect s, Revision revision, Ladder ladder) {
    Set<String> all = new LinkedHashSet<>();
    if (s.origin() == Origin.INSTRUMENT) {
      all.add("every reading that was taken with it");
      return List.copyOf(all);
    }
    for (String p : s.places()) {
      if (p.contains(".")) {
        all.add(p + " look ?");
      }
    }
    Set<String> nets = new LinkedHashSet<>(s.nets());
    parts(s).stream()
        .filter(p -> ladder.steps().stream().anyMatch(x -> x.part().equals(p)))
        .flatMap(p -> revision.jointsOf(p).stream())
        .filter(Joint::connected)
        .forEach(j -> nets.add(j.net()));
    for (String n : nets) {
      if (ladder.rail(n).isPresent() && !n.equals(ladder.ground())) {
        all.add(n + " " + ladder.ground() + " ? ohm");
      }
    }
    for (Ladder.RailSpec r : ladder.rails()) {
      if (nets.contains(r.net()) || fedBy(r, nets, ladder)) {
        all.add(r.net() + " ?");
      }
    }
    if (s.origin() == Origin.OUTSIDE || s.origin() == Origin.LINK) {
      all.add("talks ?");
    }
    return List.copyOf(all);
  }

  private static boolean fedBy(Ladder.RailSpec r, Set<String> nets, Ladder ladder) {
    return ladder.feeding(r.net()).filter(s -> nets.contains(s.from())).isPresent();
  }
}
