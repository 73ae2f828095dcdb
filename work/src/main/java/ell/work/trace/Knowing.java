package ell.work.trace;

import ell.book.Build;
import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.entry.PasteLook;
import ell.core.heat.HeatFacts;
import ell.core.jig.JigBook;
import ell.core.kit.KitFacts;
import ell.core.look.DefectKind;
import ell.core.look.Risk;
import ell.core.order.OrderFacts;
import ell.core.power.Fault;
import ell.core.power.FaultWords;
import ell.core.quantity.Verdict;
import ell.core.rack.Plan;
import ell.core.revise.Erratum;
import ell.core.revise.Stand;
import ell.core.talk.LinkPlan;
import ell.core.talk.TalkFacts;
import ell.core.trace.BenchKnowledge;
import ell.core.trace.BenchKnowledge.Known;
import ell.core.trace.Tally;
import ell.work.errata.KeptErrata;
import ell.work.look.Looking;
import ell.work.space.ActException;
import ell.work.space.Workspace;
import java.io.IOException;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.ToDoubleBiFunction;

/// What a bench knows of a board before anything of it was measured, from its books.
final class Knowing {
  private final Workspace space;
  private final Looking looking;
  private final KeptErrata errata;

  Knowing(Workspace space, Looking looking, KeptErrata errata) {
    this.space = space;
    this.errata = errata;
    this.looking = looking;
  }

  BenchKnowledge of(Plan plan, Build build, String board, Map<String, Double> said)
      throws IOException, ActException {
    BoardState state = space.state(board);
    Map<String, String> thin = new HashMap<>();
    Set<String> bridged = new HashSet<>();
    // a print of the other side takes nothing of that back
    for (Logged l : state.standing()) {
      if (l.entry() instanceof Entry.PasteSeen p) {
        bridged.remove(p.place());
        thin.remove(p.place());
        if (p.look() == PasteLook.BRIDGED) {
          bridged.add(p.place());
        } else if (p.look() != PasteLook.GOOD) {
          thin.put(p.place(), p.look().key());
        }
      }
    }
    LinkPlan.Stand stand = TalkFacts.of(state).stand(plan.talk());
    return new BenchKnowledge(
        joints(build, board),
        tally(build),
        thin,
        bridged,
        heat(state),
        reworked(state),
        new HashSet<>(KitFacts.of(state).fitted().keySet()),
        new HashSet<>(notYet(plan, state)),
        sisters(build, board),
        said,
        stand.links(),
        jig(plan, state),
        errata(plan, state));
  }

  /// How the board stands to the mistakes of its revision that have a fault in words.
  private Map<String, Known> errata(Plan plan, BoardState state) throws IOException {
    Map<String, Known> all = new HashMap<>();
    for (Erratum e : errata.of(plan.revision().design(), plan.revision().name())) {
      Known.State s =
          switch (Stand.of(e, plan.revision(), state).state()) {
            case NEEDED, CANNOT -> Known.State.THERE;
            case DONE -> Known.State.MENDED;
            case PROVED -> Known.State.PROVED;
            case NOT_NEEDED -> null;
          };
      if (s != null && e.fault().isPresent()) {
        all.put(e.faultWords(), new Known(e.id(), s));
      }
    }
    return all;
  }

  /// Nets that were read in a jig, and what the jig's own book says of the probe there.
  private Map<String, String> jig(Plan plan, BoardState state) throws IOException {
    Map<String, String> all = new HashMap<>();
    Map<String, JigBook> books = JigBook.of(space.everywhere(Entry.Jig.class));
    for (Logged l : state.standing()) {
      if (l.entry() instanceof Entry.Reading r && r.with().startsWith("jig ")) {
        String net =
            plan.revision().net(r.place()).isEmpty()
                ? plan.revision().joints().stream()
                    .filter(j -> j.place().equals(r.place()) || j.part().equals(r.place()))
                    .map(Joint::net)
                    .findFirst()
                    .orElse("")
                : r.place();
        if (!net.isEmpty()) {
          JigBook book = books.get(r.with().substring("jig ".length()).strip());
          all.put(
              net,
              book != null && book.open().contains("open at " + net)
                  ? "the jig's own check found it open"
                  : book != null && book.closings(net) >= JigBook.LIFE ? "it is worn" : "");
        }
      }
    }
    return all;
  }

  /// The chance of a defect at each joint, as the looks have it.
  private ToDoubleBiFunction<Part, Joint> joints(Build build, String board)
      throws IOException, ActException {
    Risk risk = looking.risk(build, board);
    return risk::of;
  }

  /// What went wrong with parts, on every board of this bench.
  private Tally tally(Build own) throws IOException {
    Tally t = new Tally();
    for (Build b : space.book().builds()) {
      if (!b.design().equals(own.design()) && b.boards().size() > 200) {
        continue; // a large series of something else tells little, and takes long
      }
      for (String board : b.boards()) {
        BoardState s = space.state(board);
        int parts = OrderFacts.of(s).placed().size();
        if (parts == 0) {
          continue;
        }
        t.add("missing", count(s, DefectKind.MISSING), parts);
        t.add("wrong", count(s, DefectKind.WRONG), parts);
        t.add("turned", count(s, DefectKind.TURNED), parts);
        t.add("dead", count(s, DefectKind.DEAD), parts / 4); // a chip in four parts, about
      }
    }
    return t;
  }

  private static int count(BoardState s, DefectKind kind) {
    Set<String> places = new HashSet<>();
    for (Logged l : s.standing()) {
      switch (l.entry()) {
        case Entry.Defect d when d.defect().equals(kind.word()) -> places.add(d.place());
        case Entry.Found f when kind(f).filter(k -> k == kind).isPresent() -> places.add(f.place());
        default -> {} // says nothing of this kind
      }
    }
    return places.size();
  }

  private static Optional<DefectKind> kind(Entry.Found f) {
    try {
      return switch (FaultWords.parse(f.fault())) {
        case Fault.Missing _ -> Optional.of(DefectKind.MISSING);
        case Fault.WrongValue _ -> Optional.of(DefectKind.WRONG);
        case Fault.Turned _ -> Optional.of(DefectKind.TURNED);
        case Fault.Dead _ -> Optional.of(DefectKind.DEAD);
        default -> Optional.empty();
      };
    } catch (IllegalArgumentException e) {
      return Optional.empty(); // words of an older Ell
    }
  }

  private static String heat(BoardState state) {
    return HeatFacts.of(state).runs().reversed().stream()
        .map(l -> (Entry.HeatRun) l.entry())
        .filter(r -> !r.side().isEmpty())
        .findFirst()
        .filter(r -> r.verdict().filter(v -> v == Verdict.OUT).isPresent())
        .map(r -> "its reflow of the " + r.side() + " side did not keep to its window")
        .orElse("");
  }

  private static Map<String, Integer> reworked(BoardState state) {
    Map<String, Integer> times = new LinkedHashMap<>();
    for (Logged l : state.standing()) {
      if (l.entry() instanceof Entry.Action a && a.heat()) {
        times.merge(BoardState.part(a.place()), 1, Integer::sum);
      }
    }
    return times;
  }

  /// Parts that are not fitted yet, as far as the book of a board says that it was begun.
  static List<String> notYet(Plan plan, BoardState state) {
    Set<String> placed = OrderFacts.of(state).placed();
    if (placed.isEmpty()) {
      return List.of();
    }
    return plan.order().steps().stream()
        .flatMap(s -> s.parts().stream())
        .filter(p -> !placed.contains(p))
        .distinct()
        .toList();
  }

  /// Faults that were found on other boards of the revision.
  private Map<String, String> sisters(Build own, String board) throws IOException {
    Map<String, String> found = new LinkedHashMap<>();
    for (Build b : space.book().builds()) {
      if (!b.design().equals(own.design()) || !b.revision().equals(own.revision())) {
        continue;
      }
      for (String other : b.boards()) {
        if (!other.equals(board)) {
          space.state(other).standing().stream()
              .filter(l -> l.entry() instanceof Entry.Found)
              .forEach(l -> found.put(((Entry.Found) l.entry()).fault(), other));
        }
      }
    }
    return found;
  }
}
