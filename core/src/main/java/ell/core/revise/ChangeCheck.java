package ell.core.revise;

import ell.core.board.Joint;
import ell.core.board.NetDifference;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import ell.core.power.Fault;
import ell.core.revise.difference.RevisionDifference;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/// The change list held against what was really drawn: what was done, what was forgotten, and what
/// changed without a reason on the list.
///
/// @param changes every item of the list
/// @param unexplained changes of the drawing that no item asks for, in words
public record ChangeCheck(List<Change> changes, List<String> unexplained) {
  /// A net with more ends explains nothing: everything hangs on ground.
  private static final int MANY = 14;

  /// Whether an item was done.
  public enum State {
    /// Everything that it asks for is in the drawing.
    DONE,
    /// Something of it, or something at its place that nobody can hold against words.
    PARTLY,
    /// Nothing of it.
    FORGOTTEN;

    /// The key in files.
    public String key() {
      return name().toLowerCase(Locale.ROOT);
    }
  }

  /// An item.
  ///
  /// @param evidence what the drawing shows, a phrase each
  public record Change(Erratum item, State state, List<String> evidence) {
    public Change {
      evidence = List.copyOf(evidence);
    }
  }

  public ChangeCheck {
    changes = List.copyOf(changes);
    unexplained = List.copyOf(unexplained);
  }

  /// Holds a list against the difference of two revisions.
  ///
  /// @param items errata and wishes, closed ones not among them
  public static ChangeCheck of(
      List<Erratum> items, RevisionDifference d, Revision first, Revision second) {
    Checking c = new Checking(d, first, second);
    List<Change> all = new ArrayList<>();
    for (Erratum e : items) {
      all.add(c.check(e));
    }
    return new ChangeCheck(all, c.unexplained(items));
  }

  /// What a condition came to.
  ///
  /// @param held empty when nobody can tell
  private record Held(Optional<Boolean> held, String words) {}

  private static final class Checking {
    private final RevisionDifference d;
    private final Revision first;
    private final Revision second;
    private final Set<String> explained = new HashSet<>();

    Checking(RevisionDifference d, Revision first, Revision second) {
      this.d = d;
      this.first = first;
      this.second = second;
    }

    Change check(Erratum e) {
      List<Held> all = conditions(e);
      List<String> evidence = new ArrayList<>(all.stream().map(Held::words).distinct().toList());
      long known = all.stream().filter(h -> h.held().isPresent()).count();
      long held = all.stream().filter(h -> h.held().orElse(false)).count();
      List<String> at = atPlaces(e);
      State state;
      if (known > 0) {
        state = held == known ? State.DONE : held > 0 ? State.PARTLY : State.FORGOTTEN;
        if (state == State.DONE && known < all.size()) {
          state = State.PARTLY;
        }
        if (state == State.FORGOTTEN && !at.isEmpty()) {
          evidence.addAll(at);
          state = State.PARTLY;
        }
      } else {
        evidence.addAll(at);
        state = at.isEmpty() ? State.FORGOTTEN : State.PARTLY;
        if (!at.isEmpty()) {
          evidence.add(
              "changed there; nothing says what it should be: erratum "
                  + e.id()
                  + " fix STEPS, or erratum "
                  + e.id()
                  + " fixed "
                  + second.name());
        }
      }
      boolean said = e.fixedIn().filter(second.name()::equals).isPresent();
      if (said && state != State.DONE) {
        evidence.add(
            "somebody says that it is right in " + second.name() + "; the files do not show it");
        state = State.DONE;
      }
      if (evidence.isEmpty()) {
        evidence.add(
            "nothing changed at "
                + (e.places().isEmpty()
                    ? "any place that it names"
                    : String.join(", ", e.places())));
      }
      return new Change(e, state, evidence);
    }

    /// What the item asks of the drawing: its fix, else what its bodge does, else the end of its
    /// fault.
    private List<Held> conditions(Erratum e) {
      if (!e.fix().isEmpty()) {
        return e.fix().stream().map(this::step).toList();
      }
      if (!e.fixWords().isBlank()) {
        return List.of();
      }
      if (!e.bodge().isEmpty()) {
        return e.bodge().stream().map(this::step).toList();
      }
      return e.fault().flatMap(this::fault).map(List::of).orElse(List.of());
    }

    private Optional<String> netNow(String net) {
      String to = d.netNames().get(net);
      return to != null
          ? Optional.of(to)
          : !first.net(net).isEmpty() ? Optional.empty() : Optional.of(net);
    }

    /// The net in the second of a joint or net of the first; empty when there is none any more.
    private Optional<String> now(String place) {
      Optional<Joint> j = first.joint(place);
      if (j.isPresent()) {
        return joint(j.get());
      }
      if (first.net(place).isEmpty()) {
        Optional<Joint> later = second.joint(place);
        return later.map(Joint::net).filter(n -> !n.isEmpty());
      }
      return netNow(place);
    }

    private Optional<String> joint(Joint j) {
      return d.now(j.part())
          .flatMap(p -> second.joint(p, j.pin()))
          .map(Joint::net)
          .filter(n -> !n.isEmpty());
    }

    private static Held yes(String words) {
      return new Held(Optional.of(true), words);
    }

    private static Held no(String words) {
      return new Held(Optional.of(false), words);
    }

    private static Held is(boolean held, String words) {
      return held ? yes(words) : no(words);
    }

    private Held step(BodgeStep s) {
      String at = s.places().isEmpty() ? "" : s.places().getFirst();
      return switch (s.kind()) {
        case CUT, LIFT -> freed(at, s.places().size() == 2 ? s.places().get(1) : "");
        case WIRE -> {
          Optional<String> a = now(at);
          Optional<String> b = now(s.places().get(1));
          boolean joined = a.isPresent() && a.equals(b);
          yield is(
              joined,
              at
                  + (joined ? " is joined with " : " is not joined with ")
                  + s.places().get(1)
                  + (joined ? " (" + a.get() + ")" : ""));
        }
        case REMOVE -> {
          Optional<Part> now = d.now(at).flatMap(second::part).filter(Part::fitted);
          yield is(now.isEmpty(), at + (now.isEmpty() ? " is gone" : " is still there"));
        }
        case FIT -> {
          Optional<Part> now = d.now(at).flatMap(second::part).filter(Part::fitted);
          yield is(now.isPresent(), at + (now.isPresent() ? " is fitted" : " is not fitted"));
        }
        case REPLACE -> replaced(at, s.code());
        case TURN -> turned(at);
        case ADD -> added(s);
        case CLOSE, OPEN -> link(at, s.kind() == BodgeStep.Kind.OPEN);
        case DO -> new Held(Optional.empty(), "not to be seen in files: " + s.words());
      };
    }

    private Held freed(String place, String from) {
      Optional<Joint> j = first.joint(place);
      if (j.isEmpty()) {
        return new Held(Optional.empty(), place + " is no joint of " + first.title());
      }
      String was = from.isEmpty() ? j.get().net() : from;
      if (d.now(j.get().part()).isEmpty()) {
        return yes(j.get().part() + " is gone");
      }
      Optional<String> now = joint(j.get());
      boolean free = now.isEmpty() || !now.equals(netNow(was));
      return is(
          free,
          free
              ? place + " from " + was + " to " + now.orElse("nothing")
              : place + " still hangs on " + was);
    }

    private Held replaced(String part, String code) {
      Optional<Part> was = first.part(part);
      Optional<Part> now = d.now(part).flatMap(second::part);
      if (was.isEmpty() || now.isEmpty()) {
        return no(part + (now.isEmpty() ? " is gone" : " is not in " + first.title()));
      }
      boolean other =
          !was.get().value().equals(now.get().value())
              || !was.get().code().equals(now.get().code())
              || !was.get().packageName().equals(now.get().packageName());
      boolean right = code.isEmpty() ? other : same(now.get(), code);
      return is(
          right,
          part
              + (other ? " from " + was.get().label() + " to " : " is still ")
              + now.get().label());
    }

    private static boolean same(Part p, String code) {
      return p.code().equalsIgnoreCase(code)
          || RevisionDifference.sameValue(p.value(), code)
          || p.packageName().equalsIgnoreCase(code);
    }

    private Held turned(String part) {
      boolean half =
          d.moved().stream().anyMatch(m -> m.part().equals(part) && Math.abs(m.turnedDeg()) > 170);
      long pins = d.joints().stream().filter(m -> part(m.place()).equals(part)).count();
      return is(half || pins >= 2, part + (half || pins >= 2 ? " is turned" : " is not turned"));
    }

    private Held added(BodgeStep s) {
      Optional<String> a = now(s.places().get(0));
      Optional<String> b = now(s.places().get(1));
      for (String ref : d.added()) {
        Optional<Part> p = second.part(ref);
        Set<String> nets = nets(second, ref);
        if (p.isPresent()
            && same(p.get(), s.code())
            && a.isPresent()
            && b.isPresent()
            && nets.contains(a.get())
            && nets.contains(b.get())) {
          explained.add("part " + ref);
          return yes(
              ref + " (" + p.get().label() + ") added between " + a.get() + " and " + b.get());
        }
      }
      return no("no " + s.code() + " between " + s.places().get(0) + " and " + s.places().get(1));
    }

    private Held link(String part, boolean open) {
      Set<String> was = nets(first, part);
      if (d.now(part).isPresent()) {
        return new Held(Optional.empty(), part + " is still a link: how it stands is not in files");
      }
      List<Optional<String>> now = was.stream().map(this::netNow).distinct().toList();
      return is(
          open == now.size() > 1,
          part + " is gone, and its nets are " + (now.size() > 1 ? "apart" : "one"));
    }

    private Optional<Held> fault(Fault f) {
      return switch (f) {
        case Fault.Tied t -> Optional.of(freed(t.part() + "." + t.pin(), t.net()));
        case Fault.Loose l -> {
          String place = l.part() + "." + l.pin();
          Optional<String> now = now(place);
          boolean moved = d.joints().stream().anyMatch(m -> m.place().equals(place));
          boolean joined = moved && now.isPresent() && second.net(now.get()).size() > 1;
          yield Optional.of(
              is(joined, place + (joined ? " hangs on " + now.get() : " hangs where it hung")));
        }
        case Fault.WrongValue v -> Optional.of(replaced(v.part(), ""));
        case Fault.Missing m -> Optional.of(step(BodgeStep.parse("fit " + m.part())));
        case Fault.Turned t -> Optional.of(turned(t.part()));
        default -> Optional.empty();
      };
    }

    private String part(String place) {
      return BodgeStep.part(place, first);
    }

    /// Everything that an item is about: parts, in the names of the first.
    private Set<String> parts(Erratum e) {
      Set<String> all = new LinkedHashSet<>();
      e.places().forEach(p -> all.add(part(p)));
      e.bodge().forEach(s -> s.places().forEach(p -> all.add(part(p))));
      e.fix().forEach(s -> s.places().forEach(p -> all.add(part(p))));
      all.removeIf(p -> !first.net(p).isEmpty() && first.part(p).isEmpty());
      return all;
    }

    /// Nets that an item names, or that its joints hang on now or hung on before, by their names in
    /// the second; nets with many ends not among them.
    private Set<String> nets(Erratum e) {
      Set<String> all = new HashSet<>();
      List<String> places = new ArrayList<>(e.places());
      e.bodge().forEach(s -> places.addAll(s.places()));
      e.fix().forEach(s -> places.addAll(s.places()));
      for (String p : places) {
        now(p).ifPresent(all::add);
        first.joint(p).map(Joint::net).flatMap(this::netNow).ifPresent(all::add);
      }
      d.joints().stream()
          .filter(m -> parts(e).contains(part(m.place())))
          .forEach(m -> {
            if (!m.to().isEmpty()) {
              all.add(m.to());
            }
          });
      all.removeIf(n -> second.net(n).size() > MANY);
      return all;
    }

    private static Set<String> nets(Revision r, String part) {
      Set<String> all = new LinkedHashSet<>();
      r.jointsOf(part).stream().filter(Joint::connected).forEach(j -> all.add(j.net()));
      return all;
    }

    /// What changed where the item is.
    private List<String> atPlaces(Erratum e) {
      Set<String> parts = parts(e);
      Set<String> nets = nets(e);
      return all().stream()
          .filter(c -> about(c, parts, nets))
          .map(One::words)
          .distinct()
          .limit(12)
          .toList();
    }

    private boolean about(One c, Set<String> parts, Set<String> nets) {
      return parts.contains(c.part()) || c.added() && c.nets().stream().anyMatch(nets::contains);
    }

    /// One change of the drawing.
    ///
    /// @param part that it is at, added ones by their name in the second
    /// @param nets that an added or removed part hangs on
    private record One(String part, boolean added, Set<String> nets, String words) {}

    private List<One> all() {
      List<One> all = new ArrayList<>();
      for (String p : d.added()) {
        all.add(
            new One(
                p,
                true,
                nets(second, p),
                p + label(second, p) + " added, on " + String.join(" and ", nets(second, p))));
      }
      for (String p : d.removed()) {
        all.add(new One(p, false, nets(first, p), p + label(first, p) + " removed"));
      }
      d.value()
          .forEach(v -> all.add(one(v.part(), v.part() + " from " + v.from() + " to " + v.to())));
      d.packages()
          .forEach(v ->
              all.add(one(v.part(), v.part() + " from package " + v.from() + " to " + v.to())));
      d.fitted()
          .forEach(v -> all.add(one(v.part(), v.part() + " was " + v.from() + ", is " + v.to())));
      d.moved().forEach(m -> all.add(one(m.part(), moved(m))));
      for (NetDifference.Moved m : d.joints()) {
        all.add(
            one(
                part(m.place()),
                m.place()
                    + " from "
                    + (m.from().isEmpty() ? "nothing" : m.from())
                    + " to "
                    + (m.to().isEmpty() ? "nothing" : m.to())));
      }
      return all;
    }

    private static One one(String part, String words) {
      return new One(part, false, Set.of(), words);
    }

    private static String label(Revision r, String ref) {
      return r.part(ref)
          .map(Part::label)
          .filter(l -> !l.isEmpty())
          .map(l -> " (" + l + ")")
          .orElse(PartKind.of(ref) == PartKind.TEST_POINT ? " (test point)" : "");
    }

    List<String> unexplained(List<Erratum> items) {
      List<String> left = new ArrayList<>();
      for (One c : all()) {
        boolean known =
            c.added() && explained.contains("part " + c.part())
                || items.stream().anyMatch(e -> about(c, parts(e), nets(e)));
        if (!known) {
          left.add(c.words());
        }
      }
      return left;
    }
  }

  /// How a part was moved, in words.
  public static String moved(RevisionDifference.Moved m) {
    StringBuilder s = new StringBuilder(m.part());
    double far = Math.hypot(m.dxMm(), m.dyMm());
    if (far > 1e-9) {
      s.append(
          String.format(Locale.ROOT, " moved by %.3g mm (%.3g, %.3g)", far, m.dxMm(), m.dyMm()));
    }
    if (m.turnedDeg() != 0) {
      s.append(String.format(Locale.ROOT, " turned by %.4g\u00b0", m.turnedDeg()));
    }
    m.side().ifPresent(x -> s.append(" to the ").append(x.key()).append(" side"));
    return s.toString();
  }
}
