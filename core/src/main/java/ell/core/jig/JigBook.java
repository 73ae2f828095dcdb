package ell.core.jig;

import ell.core.entry.Entry;
import ell.core.entry.Logged;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/// A jig as a thing with a book of its own.
///
/// @param serial its number
/// @param revision that it was built for, empty when nobody said
/// @param closings in all
/// @param worn closings of each probe that was changed since, by net; those that are not here have
///   all of them
/// @param open what its last checks found and nobody mended, a line each
/// @param checked closings since its last good check, -1 when it never had one
/// @param retired whether it is no longer used
public record JigBook(
    String serial,
    String revision,
    int closings,
    Map<String, Integer> worn,
    List<String> open,
    int checked,
    boolean retired) {
  /// Closings that a probe bears; typical, no source.
  public static final int LIFE = 100_000;

  /// Closings after which a jig is checked on a bare plate again; common practice, no source.
  public static final int CHECK = 500;

  public JigBook {
    worn = Collections.unmodifiableMap(new LinkedHashMap<>(worn));
    open = List.copyOf(open);
  }

  /// All jigs that a book speaks of, by serial number.
  ///
  /// @param all entries that stand, of all boards, in the order of time
  public static Map<String, JigBook> of(List<Logged> all) {
    Map<String, Folding> by = new LinkedHashMap<>();
    for (Logged l : all) {
      if (l.entry() instanceof Entry.Jig j) {
        by.computeIfAbsent(j.jig(), Folding::new).take(j);
      }
    }
    Map<String, JigBook> out = new LinkedHashMap<>();
    by.forEach((k, f) -> out.put(k, f.done()));
    return out;
  }

  private static final class Folding {
    private final String serial;
    private String revision = "";
    private int closings;
    private final Map<String, Integer> from = new LinkedHashMap<>();
    private final Map<String, String> open = new LinkedHashMap<>();
    private int checked = -1;
    private boolean retired;

    Folding(String serial) {
      this.serial = serial;
    }

    void take(Entry.Jig j) {
      switch (j.what()) {
        case "built" -> {
          revision = j.text();
          retired = false;
        }
        case "closed" -> closings += j.count();
        case "checked" -> {
          if (j.good()) {
            open.clear();
            checked = closings;
          } else {
            open.put(j.place(), j.text() + " at " + j.place());
          }
        }
        case "probe" -> {
          from.put(j.place(), closings);
          open.remove(j.place());
        }
        case "retired" -> retired = true;
        default -> {}
      }
    }

    JigBook done() {
      Map<String, Integer> worn = new LinkedHashMap<>();
      from.forEach((net, at) -> worn.put(net, closings - at));
      return new JigBook(
          serial,
          revision,
          closings,
          worn,
          List.copyOf(open.values()),
          checked < 0 ? -1 : closings - checked,
          retired);
    }
  }

  /// Closings of the probe at a net.
  public int closings(String net) {
    return worn.getOrDefault(net, closings);
  }

  /// What is to be said of it.
  public List<String> told() {
    List<String> all = new ArrayList<>();
    open.forEach(o -> all.add("jig " + serial + " itself: " + o));
    if (checked < 0) {
      all.add("jig " + serial + " was never checked on a bare plate");
    } else if (checked >= CHECK) {
      all.add("jig " + serial + " was closed " + checked + " times since its last check");
    }
    if (closings >= LIFE) {
      all.add(
          "jig "
              + serial
              + " was closed "
              + closings
              + " times: its probes are near their end, but for those that were changed");
    }
    return all;
  }
}
