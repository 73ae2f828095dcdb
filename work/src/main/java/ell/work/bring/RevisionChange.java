package ell.work.bring;

import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.board.Revision;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;

/// What differs between a revision as it stands and as corrected files have it, part by part.
///
/// @param parts what changed, by reference
public record RevisionChange(Map<String, String> parts) {
  private static final double MOVED_MM = 1e-3;

  /// Compares two states of a revision.
  public static RevisionChange of(Revision was, Revision now) {
    Map<String, String> changes = new TreeMap<>();
    Map<String, Part> before = new LinkedHashMap<>();
    was.parts().forEach(p -> before.put(p.reference(), p));
    for (Part p : now.parts()) {
      Part old = before.remove(p.reference());
      if (old == null) {
        changes.put(p.reference(), "new");
        continue;
      }
      List<String> what = differences(old, p);
      if (!what.isEmpty()) {
        changes.put(p.reference(), String.join(", ", what));
      }
    }
    before.keySet().forEach(r -> changes.put(r, "gone"));
    Map<String, Set<String>> joints = joints(was);
    Map<String, Set<String>> newJoints = joints(now);
    Set<String> all = new TreeSet<>(joints.keySet());
    all.addAll(newJoints.keySet());
    for (String part : all) {
      if (!joints.getOrDefault(part, Set.of()).equals(newJoints.getOrDefault(part, Set.of()))) {
        changes.merge(
            part,
            "other joints or nets",
            (a, b) -> a.equals("new") || a.equals("gone") ? a : a + ", " + b);
      }
    }
    return new RevisionChange(changes);
  }

  private static Map<String, Set<String>> joints(Revision r) {
    Map<String, Set<String>> all = new TreeMap<>();
    for (Joint j : r.joints()) {
      all.computeIfAbsent(j.part(), _ -> new TreeSet<>())
          .add(
              j.pin()
                  + " "
                  + j.net()
                  + " "
                  + Math.round(j.xMm() / MOVED_MM)
                  + " "
                  + Math.round(j.yMm() / MOVED_MM));
    }
    return all;
  }

  private static List<String> differences(Part was, Part now) {
    List<String> what = new ArrayList<>();
    other(what, "value", was.value(), now.value());
    other(what, "package", was.packageName(), now.packageName());
    other(what, "code", was.code(), now.code());
    other(what, "fitted", was.fitted() ? "yes" : "no", now.fitted() ? "yes" : "no");
    boolean same =
        was.place().isPresent() == now.place().isPresent()
            && (was.place().isEmpty()
                || Math.abs(was.place().get().xMm() - now.place().get().xMm()) < MOVED_MM
                    && Math.abs(was.place().get().yMm() - now.place().get().yMm()) < MOVED_MM
                    && was.place().get().side() == now.place().get().side()
                    && was.place().get().rotationDeg() == now.place().get().rotationDeg());
    if (!same) {
      what.add("place or rotation");
    }
    return what;
  }

  private static void other(List<String> what, String name, String was, String now) {
    if (!was.equals(now)) {
      what.add(name + " '" + was + "', now '" + now + "'");
    }
  }

  /// A sentence for a change of a part.
  public String words(String reference) {
    return reference + ": " + parts.get(reference);
  }
}
