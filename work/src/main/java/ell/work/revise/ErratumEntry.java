package ell.work.revise;

import ell.core.board.Revision;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.power.FaultWords;
import ell.core.revise.BodgeStep;
import ell.core.revise.Errata;
import ell.core.revise.Erratum;
import ell.core.revise.ErratumMaker;
import ell.core.revise.Proof;
import ell.core.revise.Severity;
import ell.work.act.Companion;
import ell.work.act.Situation;
import ell.work.bring.Revisions;
import ell.work.errata.KeptErrata;
import ell.work.space.ActException;
import ell.work.space.Workspace;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// An erratum is completed when it is logged: its number, the entry that taught it, what follows
/// from the drawing. What is said of one afterwards is held against the drawing first.
final class ErratumEntry implements Companion {
  private final Workspace space;
  private final KeptErrata errata;
  private final Revisions revisions;

  ErratumEntry(Workspace space, KeptErrata errata, Revisions revisions) {
    this.space = space;
    this.errata = errata;
    this.revisions = revisions;
  }

  @Override
  public List<Entry> with(Entry next, Situation s) throws IOException, ActException {
    return switch (next) {
      case Entry.Erratum e when e.id().isEmpty() -> List.of(written(e, s));
      case Entry.ErratumSaid x -> List.of(said(x));
      default -> List.of(next);
    };
  }

  private Entry written(Entry.Erratum e, Situation s) throws IOException, ActException {
    Revision revision = s.plan().revision();
    if (!e.design().isEmpty()) {
      return called(e, e); // a whole one, as another door made it
    }
    Entry.Erratum made;
    if (!e.taughtBy().isEmpty()) {
      made = from(source(e.taughtBy().getFirst(), s), e.title(), revision);
    } else if (e.title().isEmpty()) {
      made = from(latest(s.state()), "", revision);
    } else {
      made = ErratumMaker.said(e.title(), e.severity().equals(Severity.WISH.key()), revision);
    }
    return called(made, e);
  }

  private Entry called(Entry.Erratum made, Entry.Erratum typed) throws IOException {
    return new Entry.Erratum(
        "E" + errata.next(),
        made.title(),
        made.design(),
        made.revisions(),
        made.fault(),
        made.places(),
        typed.severity().isEmpty() ? made.severity() : typed.severity(),
        typed.severity().equals(Severity.WISH.key()) ? List.of() : made.bodge(),
        made.proof(),
        made.fix(),
        made.taughtBy());
  }

  private Logged source(long number, Situation s) throws IOException, ActException {
    Optional<Logged> l = space.book().entry(number);
    if (l.isEmpty()) {
      throw new ActException("the book has no entry " + number);
    }
    if (space.standing(l.get().board()).stream().noneMatch(x -> x.number() == number)) {
      throw new ActException("entry " + number + " is struck: it teaches nothing");
    }
    if (l.get().board().isEmpty()
        || !space.buildOf(l.get().board()).design().equals(s.build().design())) {
      throw new ActException("entry " + number + " is not of a board of " + s.build().design());
    }
    if (!ErratumMaker.teaches(l.get().entry())) {
      throw new ActException(
          "entry " + number + " is no finding: " + ell.core.entry.EntryWords.of(l.get().entry()));
    }
    return l.get();
  }

  /// What was found last: a finding before a defect, a defect before anything else.
  private static Logged latest(BoardState s) throws ActException {
    Optional<Logged> found = Optional.empty();
    for (Logged l : s.standing()) {
      if (ErratumMaker.teaches(l.entry()) && rank(l.entry()) > 0) {
        if (found.isEmpty() || rank(l.entry()) >= rank(found.get().entry())) {
          found = Optional.of(l);
        }
      }
    }
    return found.orElseThrow(() ->
        new ActException(
            "nothing was found on board "
                + s.board()
                + " yet; say what is wrong: erratum WORDS, or from which entry: erratum from N"));
  }

  private static int rank(Entry e) {
    return switch (e) {
      case Entry.Found _ -> 3;
      case Entry.Defect _ -> 2;
      case Entry.Fitted _ -> 1;
      default -> 0;
    };
  }

  private Entry.Erratum from(Logged source, String title, Revision revision) throws IOException {
    List<Logged> all = new ArrayList<>();
    for (ell.book.Build b : space.book().builds()) {
      if (b.design().equals(revision.design()) && b.revision().equals(revision.name())) {
        for (String board : b.boards()) {
          all.addAll(space.standing(board));
        }
      }
    }
    return ErratumMaker.of(source, title, revision, all);
  }

  /// Holds what is said of an erratum against the drawing.
  private Entry said(Entry.ErratumSaid x) throws IOException, ActException {
    Erratum e = named(errata, x.id());
    Revision revision = revisions.get(e.design(), e.revisions().getFirst());
    try {
      switch (x.what()) {
        case "fault" -> {
          if (!x.text().isBlank()) {
            Optional<String> unfit = FaultWords.unfit(FaultWords.parse(x.text()), revision);
            if (unfit.isPresent() && !x.text().startsWith("turned")) {
              throw new ActException(unfit.get());
            }
          }
        }
        case "severity" -> {
          if (Severity.of(x.text()).isEmpty()) {
            throw new ActException(
                "a severity is harm, fails, annoys or wish, found '" + x.text() + "'");
          }
        }
        case "bodge" -> fits(BodgeStep.all(x.text()), revision);
        case "proof" -> {
          if (!x.text().isBlank()) {
            fits(Proof.parse(x.text()), revision);
          }
        }
        case "at" -> {
          for (String p : Errata.words(x.text())) {
            place(p, revision);
          }
        }
        case "revisions" -> {
          for (String r : Errata.words(x.text())) {
            revisions.get(e.design(), r);
          }
        }
        case "taught" -> {
          for (String n : Errata.words(x.text())) {
            if (!n.matches("\\d{1,15}") || space.book().entry(Long.parseLong(n)).isEmpty()) {
              throw new ActException("the book has no entry '" + n + "'");
            }
          }
        }
        default -> {} // words
      }
    } catch (IllegalArgumentException bad) {
      throw new ActException(bad.getMessage(), bad);
    }
    return new Entry.ErratumSaid(e.id(), x.what(), x.text());
  }

  private static void fits(List<BodgeStep> steps, Revision revision) throws ActException {
    for (BodgeStep s : steps) {
      Optional<String> unfit = s.unfit(revision);
      if (unfit.isPresent()) {
        throw new ActException(unfit.get());
      }
    }
  }

  private static void fits(Proof p, Revision revision) throws ActException {
    switch (p) {
      case Proof.Joined j ->
          fits(List.of(BodgeStep.parse("wire " + j.a() + " " + j.b())), revision);
      case Proof.Apart a -> fits(List.of(BodgeStep.parse("wire " + a.a() + " " + a.b())), revision);
      case Proof.Rail r -> {
        if (revision.net(r.net()).isEmpty()) {
          throw new ActException(revision.title() + " has no net '" + r.net() + "'");
        }
      }
      case Proof.Test _, Proof.Run _ -> {}
    }
  }

  private static void place(String place, Revision revision) throws ActException {
    if (revision.joint(place).isEmpty()
        && revision.net(place).isEmpty()
        && revision.part(place).isEmpty()
        && revision.jointsOf(place).isEmpty()) {
      throw new ActException(revision.title() + " has no joint, part or net '" + place + "'");
    }
  }

  /// The erratum with an id.
  ///
  /// @throws ActException when there is none, naming those that there are
  static Erratum named(KeptErrata errata, String id) throws IOException, ActException {
    Errata all = errata.all();
    return all.named(id)
        .orElseThrow(() ->
            new ActException(
                "there is no erratum "
                    + id
                    + "; "
                    + (all.all().isEmpty()
                        ? "none is written down yet: erratum WORDS"
                        : "there are "
                            + String.join(", ", all.all().stream().map(Erratum::id).toList()))));
  }
}
