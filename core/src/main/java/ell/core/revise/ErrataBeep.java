package ell.core.revise;

import ell.core.beep.BeepCheck;
import ell.core.beep.BeepList;
import ell.core.board.Joint;
import ell.core.board.Revision;
import ell.core.power.Ladder;
import ell.core.quantity.Limits;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/// The checks before power as errata change them: each adds what shows that a board is mended; what
/// no longer holds on a mended board is not asked any more.
public final class ErrataBeep {
  private ErrataBeep() {}

  /// The list with the checks of errata behind it.
  ///
  /// @param errata that the revision has and that are open
  public static BeepList with(
      BeepList list, List<Erratum> errata, Revision revision, Ladder ladder) {
    List<BeepCheck> all = new ArrayList<>();
    for (BeepCheck c : list.checks()) {
      if (errata.stream().noneMatch(e -> ends(e, c, revision, ladder))) {
        all.add(numbered(c, all.size() + 1));
      }
    }
    for (Erratum e : errata) {
      check(e, revision, ladder, all.size() + 1).ifPresent(all::add);
    }
    return errata.isEmpty() ? list : new BeepList(all, list.coverage());
  }

  private static BeepCheck numbered(BeepCheck c, int number) {
    return c.number() == number
        ? c
        : new BeepCheck(
            number,
            c.kind(),
            c.a(),
            c.b(),
            c.netA(),
            c.netB(),
            c.expected(),
            c.guards(),
            c.why(),
            c.beepsFor());
  }

  /// The check of an erratum, empty where no beeper shows it.
  public static Optional<BeepCheck> check(Erratum e, Revision revision, Ladder ladder, int number) {
    Optional<Proof> shows = e.shows().filter(Proof::beeps);
    if (shows.isEmpty()) {
      return Optional.empty();
    }
    List<String> places =
        switch (shows.get()) {
          case Proof.Joined j -> List.of(j.a(), j.b());
          case Proof.Apart a -> List.of(a.a(), a.b());
          default -> List.of();
        };
    List<Ends.End> ends = Ends.of(new BodgeStep(BodgeStep.Kind.WIRE, "", places, ""), revision);
    Optional<Joint> a = ends.get(0).joint();
    Optional<Joint> b = ends.get(1).joint();
    if (a.isEmpty() || b.isEmpty() || a.get().place().equals(b.get().place())) {
      return Optional.empty();
    }
    boolean joined = shows.get() instanceof Proof.Joined;
    Limits expected =
        joined
            ? new Limits(0, BeepList.CONNECTED)
            : BeepList.between(revision, ladder, places.get(0), places.get(1))
                .filter(c -> c.kind() == BeepCheck.Kind.ISOLATION)
                .map(BeepCheck::expected)
                .orElse(Limits.atLeast(BeepList.BEEPS));
    return Optional.of(
        new BeepCheck(
            number,
            shows.get().kind(),
            a.get(),
            b.get(),
            a.get().net(),
            b.get().net(),
            expected,
            e.severity() == Severity.HARM,
            e.id() + ", " + e.title() + ": shows that the board is mended",
            0));
  }

  /// Whether a check of the drawing no longer holds once a board is mended. What guards a rail
  /// against ground always stays.
  private static boolean ends(Erratum e, BeepCheck c, Revision revision, Ladder ladder) {
    if (c.guards() && (c.netA().equals(ladder.ground()) || c.netB().equals(ladder.ground()))) {
      return false;
    }
    Set<String> freed = new HashSet<>();
    for (BodgeStep s : e.bodge()) {
      if (s.kind() == BodgeStep.Kind.CUT || s.kind() == BodgeStep.Kind.LIFT) {
        freed.add(s.places().getFirst());
      }
    }
    if (c.kind() == BeepCheck.Kind.CONTINUITY) {
      return freed.contains(c.a().place()) || freed.contains(c.b().place());
    }
    for (BodgeStep s : e.bodge()) {
      if (s.kind() == BodgeStep.Kind.WIRE
          && s.places().stream().noneMatch(freed::contains)
          && joins(Ends.of(s, revision), c)) {
        return true;
      }
    }
    return false;
  }

  private static boolean joins(List<Ends.End> ends, BeepCheck c) {
    Set<String> nets = new HashSet<>(List.of(c.netA(), c.netB()));
    return nets.size() == 2
        && nets.equals(new HashSet<>(ends.stream().map(Ends.End::net).toList()));
  }
}
